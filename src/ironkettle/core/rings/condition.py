"""How a used ring is biased: each condition as a distribution of factors on diameter and section.

A reading of a used ring is the made size times a factor. The factor is uncertain, so it is
integrated over with Gauss-Hermite nodes rather than corrected once.

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

import numpy as np

from ironkettle.core.rings.sizes import Floats


class Condition(StrEnum):
    NEW = "new"
    USED = "used"
    FLATTENED = "flattened"
    SWOLLEN = "swollen"
    STRETCHED = "stretched"


@dataclass(frozen=True, slots=True)
class Normal:
    """A normal distribution: mean and standard deviation. [-]"""

    mean: float
    deviation: float


@dataclass(frozen=True)
class Bias:
    """Weighted factor pairs on (inside diameter, section); the weights add up to 1."""

    diameter_factor: Floats
    section_factor: Floats
    weight: Floats


_NODES = 7
_DIAMETER = {
    Condition.NEW: Normal(1.0, 0.0),
    Condition.USED: Normal(1.005, 0.005),
    Condition.FLATTENED: Normal(1.010, 0.008),
    Condition.SWOLLEN: Normal(1.040, 0.020),
    Condition.STRETCHED: Normal(1.030, 0.015),
}
_SECTION = {
    Condition.USED: Normal(0.985, 0.010),
    Condition.FLATTENED: Normal(0.90, 0.05),
}
_SECTION_CROSSED = Normal(0.99, 0.01)


def bias_of(condition: Condition, *, crossed: bool) -> Bias:
    """The factors a ring in this condition is to be integrated over.

    Parameters
    ----------
    condition : how the ring is.
    crossed : whether the section is the mean √(a·b) of two crossed readings.
    """
    if condition is Condition.NEW:
        one = np.ones(1)
        return Bias(one, one, one)
    diameter, diameter_weight = _nodes(_DIAMETER[condition])
    if condition is Condition.SWOLLEN:
        return Bias(diameter, diameter, diameter_weight)
    if condition is Condition.STRETCHED:
        return Bias(diameter, 1.0 / np.sqrt(diameter), diameter_weight)
    flattened_twice = crossed and condition is Condition.FLATTENED
    section, section_weight = _nodes(_SECTION_CROSSED if flattened_twice else _SECTION[condition])
    grid_d, grid_s = np.meshgrid(diameter, section, indexing="ij")
    weight = np.outer(diameter_weight, section_weight)
    return Bias(grid_d.ravel(), grid_s.ravel(), weight.ravel())


def _nodes(normal: Normal) -> tuple[Floats, Floats]:
    points, weights = np.polynomial.hermite_e.hermegauss(_NODES)
    return normal.mean + normal.deviation * points, weights / weights.sum()
