"""Two sizes side by side: how far they differ, and how surely a reading tells them apart."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ironkettle.core.sealing.rings.measurement import DEFAULT_UNCERTAINTY_MM, SOFT_SHARE
from ironkettle.core.sealing.rings.sizes import TOLERANCE_DEVIATIONS, RingSize

TOLD_APART_BELOW = 0.05


@dataclass(frozen=True, slots=True)
class Difference:
    """One dimension of two sizes [mm]; ``mistaken`` is the chance of one reading taking one for the other [-]."""

    what: str
    first: float
    second: float
    mistaken: float

    @property
    def distinguishes(self) -> bool:
        return self.mistaken < TOLD_APART_BELOW


def compare_sizes(
    first: RingSize, second: RingSize, uncertainty: float = DEFAULT_UNCERTAINTY_MM
) -> tuple[Difference, Difference, Difference]:
    """Inside diameter, section and outside diameter of two new rings, and how surely each tells them apart.

    A ring is made normal about its size, tolerance = 2.6 s; a reading is normal about the ring,
    uncertainty = 2 s (a soft diameter at least 0.3 % of itself). With equal weights and the wider
    spread for both, a reading is taken for the wrong one with probability Φ(−Δ/2s).

    Parameters: uncertainty : 95 % half-width of a caliper reading on rubber, > 0 [mm].
    Source: error of a midpoint rule between two normals of the same spread.
    """
    soft = max(uncertainty, SOFT_SHARE * max(first.inside_diameter, second.inside_diameter))
    rows = (
        ("inside diameter", _values(first, second, 1.0, 0.0), _spread(first, second, 1.0, 0.0, soft)),
        ("section", _values(first, second, 0.0, 1.0), _spread(first, second, 0.0, 1.0, uncertainty)),
        ("outside diameter", _values(first, second, 1.0, 2.0), _spread(first, second, 1.0, 2.0, soft)),
    )
    return tuple(Difference(what, a, b, _mistaken(abs(a - b), s)) for what, (a, b), s in rows)  # type: ignore[return-value]


def _values(first: RingSize, second: RingSize, a: float, b: float) -> tuple[float, float]:
    return (a * first.inside_diameter + b * first.section, a * second.inside_diameter + b * second.section)


def _spread(first: RingSize, second: RingSize, a: float, b: float, reading: float) -> float:
    made = TOLERANCE_DEVIATIONS
    return max(
        math.sqrt((a * r.inside_tolerance / made) ** 2 + (b * r.section_tolerance / made) ** 2 + (reading / 2) ** 2)
        for r in (first, second)
    )


def _mistaken(apart: float, deviation: float) -> float:
    return 0.5 * math.erfc(apart / (2 * deviation) / math.sqrt(2))
