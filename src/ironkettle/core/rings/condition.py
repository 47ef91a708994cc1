"""How a used ring is biased: each condition as a distribution of factors on diameter and section.

A used ring measures its made size times a factor. The factor is not known, only how it is spread,
so the match integrates over it instead of correcting once.

=========== ============================================= =======================================
condition   inside diameter = made × …                    section = made × …
=========== ============================================= =======================================
new         1                                             1
used        normal 1.005, s 0.005                         normal 0.985, s 0.010
flattened   normal 1.010, s 0.008                         one reading: normal 0.90, s 0.05;
                                                          two crossed: √(a·b), normal 0.99, s 0.01
swollen     one common growth, normal 1.040, s 0.020      the same growth
stretched   normal 1.030, s 0.015                         1/√(that factor): rubber keeps its volume
=========== ============================================= =======================================

The figures are this project's own shop estimates, stated so that they can be argued with.
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum


class Condition(StrEnum):
    NEW = "new"
    USED = "used"
    FLATTENED = "flattened"
    SWOLLEN = "swollen"
    STRETCHED = "stretched"


@dataclass(frozen=True, slots=True)
class Factors:
    """Means, variances and covariance of the factors on inside diameter and section. [-]"""

    diameter: float
    section: float
    diameter_variance: float = 0.0
    section_variance: float = 0.0
    covariance: float = 0.0


def factors_of(condition: Condition, *, crossed: bool) -> Factors:
    """The factors a ring in this condition is to be integrated over. [-]

    Parameters
    ----------
    condition : how the ring is.
    crossed : whether the section is the mean √(a·b) of two crossed readings.

    Source: the table at the head of this module.
    """
    if condition is Condition.FLATTENED and crossed:
        return Factors(1.010, 0.99, 0.008**2, 0.01**2)
    return _FACTORS[condition]


def _stretched(mean: float, deviation: float) -> Factors:
    """Section factor 1/√f of a stretched ring: mean to second order, spread to first, in f about its mean."""
    slope = -0.5 * mean**-1.5
    section = mean**-0.5 * (1 + 0.375 * (deviation / mean) ** 2)
    return Factors(mean, section, deviation**2, (slope * deviation) ** 2, slope * deviation**2)


_FACTORS = {
    Condition.NEW: Factors(1.0, 1.0),
    Condition.USED: Factors(1.005, 0.985, 0.005**2, 0.010**2),
    Condition.FLATTENED: Factors(1.010, 0.90, 0.008**2, 0.05**2),
    Condition.SWOLLEN: Factors(1.040, 1.040, 0.020**2, 0.020**2, 0.020**2),
    Condition.STRETCHED: _stretched(1.030, 0.015),
}
