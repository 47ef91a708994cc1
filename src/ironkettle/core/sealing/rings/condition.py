"""How a used ring is biased: each condition as a distribution of factors on diameter and section.

A used ring measures its made size times a factor. The factor is not known, only how it is spread, so
the match integrates over it instead of correcting once.

=========== ================================================= ==========================================
condition   inside diameter = made × …                        section = made × …
=========== ================================================= ==========================================
new         1                                                 1
used        normal 1.005, s 0.005                             normal 0.985, s 0.010
flattened   normal 1.010, s 0.008                             one reading: 1 − x, x = set × squeeze, set
                                                              even 5 to 95 %, squeeze even 10 to 25 %;
                                                              two crossed: √(a·b), normal 0.99, s 0.01
swollen     ∛(1 + v), v even 2 to 30 % by volume              the same growth
stretched   even 1.005 to 1.07                                1/√(that factor): rubber keeps its volume
=========== ================================================= ==========================================

What is even between two ends is cut into parts of equal share, each taken as normal and a little
wider than its part, so that the parts join into an even whole.

The condition too may be misjudged: a share is kept for the neighbouring ones (``MISTAKEN``).

The figures are this project's own shop estimates, stated so that they can be argued with.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from enum import StrEnum
from functools import cache

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]


class Condition(StrEnum):
    NEW = "new"
    USED = "used"
    FLATTENED = "flattened"
    SWOLLEN = "swollen"
    STRETCHED = "stretched"


# Told, and how it may really be. [-]
MISTAKEN: Mapping[Condition, Mapping[Condition, float]] = {
    Condition.NEW: {Condition.NEW: 0.90, Condition.USED: 0.06, Condition.FLATTENED: 0.03, Condition.STRETCHED: 0.01},
    Condition.USED: {
        Condition.USED: 0.80, Condition.SWOLLEN: 0.06, Condition.FLATTENED: 0.07, Condition.STRETCHED: 0.05,
        Condition.NEW: 0.02,
    },
    Condition.FLATTENED: {Condition.FLATTENED: 0.88, Condition.USED: 0.06, Condition.SWOLLEN: 0.06},
    Condition.SWOLLEN: {Condition.SWOLLEN: 0.88, Condition.USED: 0.06, Condition.STRETCHED: 0.06},
    Condition.STRETCHED: {Condition.STRETCHED: 0.88, Condition.USED: 0.06, Condition.SWOLLEN: 0.06},
}  # fmt: skip

SET, SQUEEZE = (0.05, 0.95), (0.10, 0.25)
GROWTH_BY_VOLUME, STRETCH = (0.02, 0.30), (1.005, 1.07)
_PARTS = 8
_POINTS, _GRID = 400, 40
# An even part is 0.29 of its width wide (s); 0.45 joins neighbours without a gap between.
_JOINED = 0.45 * 12**0.5
# Of a ring that is not flattened two crossed readings agree to half a per cent.
_ROUND_SHARE = 0.005
# √(a·b) of a flattened ring is 0.99 ± 0.01 of what was made, so a·b is 0.98 ± 0.02 of its square.
CROSSED_MEAN, CROSSED_DEVIATION = 0.99, 0.01


@dataclass(frozen=True)
class Strata:
    """Normal parts of the factors, one a row. [-]

    ``share`` of the part; means, variances and covariance of the factors on inside diameter and
    section; ``oval``: mean and variance of the logarithm of the crossed reading over the first.
    """

    conditions: tuple[Condition, ...]
    share: Floats
    diameter: Floats
    section: Floats
    diameter_variance: Floats
    section_variance: Floats
    covariance: Floats
    oval: Floats
    oval_variance: Floats

    def of(self, condition: Condition) -> NDArray[np.bool_]:
        """Which rows belong to a condition."""
        return np.array([state is condition for state in self.conditions])


@dataclass(frozen=True, slots=True)
class _Part:
    condition: Condition
    share: float
    diameter: float
    section: float
    diameter_variance: float = 0.0
    section_variance: float = 0.0
    covariance: float = 0.0
    oval: float = 0.0
    oval_variance: float = _ROUND_SHARE**2


# What a ring may be beside what it is told to be, without anybody having seen it: what ran, swelled or was stretched has often
# taken a set as well, what has set has often worn or swollen. A size is decided only where all of these agree.
BESIDE: Mapping[Condition, tuple[Condition, ...]] = {
    Condition.NEW: (),
    Condition.USED: (Condition.FLATTENED,),
    Condition.FLATTENED: (Condition.USED, Condition.SWOLLEN),
    Condition.SWOLLEN: (Condition.FLATTENED,),
    Condition.STRETCHED: (Condition.FLATTENED,),
}


@cache
def strata_of(stated: Condition, *, crossed: bool, as_well: tuple[Condition, ...] = ()) -> Strata:
    """The factors a ring told to be in this condition is to be integrated over, neighbours included. [-]

    Parameters
    ----------
    told : how the ring is said to be.
    crossed : whether the section is the mean √(a·b) of two crossed readings.
    as_well : what it is as well; the factors multiply, and then nothing else is it mistaken for.

    Source: the table at the head of this module.
    """
    parts = [
        (share * part.share, part)
        for condition, share in ({stated: 1.0} if as_well else MISTAKEN[stated]).items()
        for part in _parts(condition, crossed=crossed)
    ]
    for other in as_well:
        parts = [
            (share * more.share, _both(part, more)) for share, part in parts for more in _parts(other, crossed=crossed)
        ]

    def column(name: str) -> Floats:
        return np.array([getattr(part, name) for _, part in parts])

    return Strata(
        tuple(part.condition for _, part in parts),
        np.array([share for share, _ in parts]),
        column("diameter"),
        column("section"),
        column("diameter_variance"),
        column("section_variance"),
        column("covariance"),
        column("oval"),
        column("oval_variance"),
    )


def _both(one: _Part, other: _Part) -> _Part:
    """A ring that is in two conditions: both factors, which know nothing of each other."""
    oval = max((one, other), key=lambda part: part.oval)
    return _Part(
        one.condition,
        1.0,
        one.diameter * other.diameter,
        one.section * other.section,
        one.diameter_variance * other.diameter**2 + other.diameter_variance * one.diameter**2,
        one.section_variance * other.section**2 + other.section_variance * one.section**2,
        one.covariance * other.diameter * other.section + other.covariance * one.diameter * one.section,
        oval.oval,
        oval.oval_variance,
    )


def _parts(condition: Condition, *, crossed: bool) -> tuple[_Part, ...]:
    if condition is Condition.NEW:
        return (_Part(condition, 1.0, 1.0, 1.0),)
    if condition is Condition.USED:
        return (_Part(condition, 1.0, 1.005, 0.985, 0.005**2, 0.010**2),)
    if condition is Condition.FLATTENED:
        return tuple(_flattened(crossed=crossed))
    if condition is Condition.SWOLLEN:
        growth = np.cbrt(1 + _even(*GROWTH_BY_VOLUME))
        return tuple(_tied(condition, growth, growth))
    stretch = _even(*STRETCH)
    return tuple(_tied(condition, stretch, stretch**-0.5))


def _even(low: float, high: float, points: int = _POINTS) -> Floats:
    return low + (high - low) * (np.arange(points) + 0.5) / points


def _tied(condition: Condition, diameter: Floats, section: Floats) -> Iterator[_Part]:
    """Parts of a condition in which one unknown moves both factors."""
    for d, s in zip(np.split(diameter, _PARTS), np.split(section, _PARTS), strict=True):
        d_wide, s_wide = _JOINED * (d - d.mean()), _JOINED * (s - s.mean())
        yield _Part(
            condition,
            1 / _PARTS,
            float(d.mean()),
            float(s.mean()),
            float((d_wide**2).mean()),
            float((s_wide**2).mean()),
            float((d_wide * s_wide).mean()),
        )


def _flattened(*, crossed: bool) -> Iterator[_Part]:
    lost = np.sort(np.outer(_even(*SET, _GRID), _even(*SQUEEZE, _GRID)).ravel())
    for x in np.array_split(lost, _PARTS):
        section, variance = float(1 - x.mean()), float((_JOINED * x).var())
        oval = np.log(CROSSED_MEAN**2) - 2 * np.log1p(-x)
        if crossed:
            section, variance = CROSSED_MEAN, CROSSED_DEVIATION**2
        yield _Part(
            Condition.FLATTENED,
            1 / _PARTS,
            1.010,
            section,
            0.008**2,
            variance,
            oval=float(oval.mean()),
            oval_variance=float((_JOINED * oval).var() + (2 * CROSSED_DEVIATION) ** 2),
        )
