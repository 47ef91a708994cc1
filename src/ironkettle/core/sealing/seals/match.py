"""Which seal lives in a housing: what fits, and the nearest smaller and larger with what would have to change."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass

from ironkettle.core.sealing.seals.model import Housing, SealSide, SealSize

# How far off counts as much in each dimension: the surface cannot be changed, the groove length most easily.
_SURFACE_WEIGHT, _GROOVE_WEIGHT, _LENGTH_WEIGHT = 4.0, 2.0, 1.0


@dataclass(frozen=True, slots=True)
class SealCandidate:
    """A size against the housing: deviations (housing − size) in mm, and what would have to change."""

    size: SealSize
    surface_off: float
    groove_off: float
    length_off: float
    changes: tuple[str, ...]

    @property
    def fits(self) -> bool:
        return not self.changes

    @property
    def distance(self) -> float:
        """Weighted distance from the housing. [mm]"""
        return math.sqrt(
            (_SURFACE_WEIGHT * self.surface_off) ** 2
            + (_GROOVE_WEIGHT * self.groove_off) ** 2
            + (_LENGTH_WEIGHT * self.length_off) ** 2
        )


@dataclass(frozen=True, slots=True)
class SealMatch:
    """Sizes that fit, those in stock first; and the nearest of the smaller and of the larger ones."""

    fits: tuple[SealCandidate, ...]
    smaller: tuple[SealCandidate, ...]
    larger: tuple[SealCandidate, ...]


def match_seal(housing: Housing, sizes: Iterable[SealSize], *, limit: int = 8, near: int = 3) -> SealMatch:
    """Sizes for a measured housing.

    A size fits when every dimension agrees to the tolerance; a groove longer than the seal by up to
    a tenth also counts, since lip seals want end play. A size is *smaller* when its section times
    length is below that of the housing, else *larger*.

    Parameters
    ----------
    housing : as measured. [mm]
    sizes : standard and stock sizes of any kind; only the same kind and side are looked at.
    limit, near : how many that fit, and how many of each of the near ones, >= 1.
    """
    looked_at = [_against(housing, size) for size in sizes if size.kind is housing.kind and size.side is housing.side]
    fits = sorted((c for c in looked_at if c.fits), key=lambda c: (-(c.size.in_stock or 0), c.distance))
    others = sorted((c for c in looked_at if not c.fits), key=lambda c: c.distance)
    volume = abs(housing.groove - housing.surface) / 2 * housing.length
    smaller = [c for c in others if c.size.section * c.size.length < volume]
    larger = [c for c in others if c.size.section * c.size.length >= volume]
    return SealMatch(tuple(fits[:limit]), tuple(smaller[:near]), tuple(larger[:near]))


def _against(housing: Housing, size: SealSize) -> SealCandidate:
    surface = housing.surface - size.surface
    groove = housing.groove - size.groove
    length = housing.length - size.length
    changes = []
    on = "rod" if housing.side is SealSide.ROD else "bore"
    if abs(surface) > housing.tolerance:
        changes.append(
            f"the {on} would have to be {size.surface:g} mm, it is {housing.surface:g} mm: another size of unit"
        )
    if abs(groove) > housing.tolerance:
        changes.append(f"groove diameter {housing.groove:g} → {size.groove:g} mm{_turning(housing.side, groove)}")
    if not -housing.tolerance <= length <= max(housing.tolerance, 0.1 * size.length):
        action = "open" if length < 0 else "fill with a washer"
        changes.append(f"groove length {housing.length:g} → {size.length:g} mm: {action} by {abs(length):.2g} mm")
    return SealCandidate(size, surface, groove, length, tuple(changes))


def _turning(side: SealSide, groove_off: float) -> str:
    cut = groove_off < 0 if side is SealSide.ROD else groove_off > 0
    return f": turn out {abs(groove_off) / 2:.2g} mm a side" if cut else ": cannot be put back on, needs a sleeve"
