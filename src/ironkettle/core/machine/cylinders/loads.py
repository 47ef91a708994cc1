"""Beside the areas: what a load needs, what a leak lets sink, what heat does to locked oil, the weakest part."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ironkettle.core.base.errors import fault


@dataclass(frozen=True, slots=True)
class Rating:
    """A part and the pressure it is made for. [MPa]"""

    part: str
    rated: float


def held_pressure(load: float, area: float) -> float:
    """The pressure that carries a load on an area. [MPa]

    Parameters: load : from 0 up [N]; area : above 0 [mm²]. Source: p = F/A.
    """
    return load / area


def drift_of(leak: float, area: float) -> float:
    """How fast a rod gives way for what leaks off its loaded side. [mm/min]

    Parameters: leak : from 0 up [ml/min]; area : above 0 [mm²]. Source: continuity, v = q/A.
    """
    return leak * 1000 / area


def leak_of(drift: float, area: float) -> float:
    """What leaks off the loaded side for a rod to give way so fast. [ml/min]

    Parameters: drift : from 0 up [mm/min]; area : above 0 [mm²]. Source: continuity, q = A·v.
    """
    return drift * area / 1000


def thermal_rise(modulus: float, expansion: float, linear: float, warming: float) -> float:
    """How far the pressure of oil locked in a block rises with its heat; falls where it cools. [MPa]

    Parameters: modulus : above 0 [MPa]; expansion of the oil, linear expansion of what holds it : from 0 up [1/K];
    warming : any [K]. Source: dp = K·(α − 3·β)·dT, both warmed alike, nothing given by walls.

    >>> round(thermal_rise(1600, 7e-4, 1.2e-5, 1), 2)
    1.06
    """
    return modulus * (expansion - 3 * linear) * warming


def weakest(ratings: Sequence[Rating]) -> Rating:
    """The part that decides how far it may be pressed. [MPa] Raises RuleError where none is named."""
    if not ratings:
        raise fault("ratings", "name at least one part with its rating", "gland, 210 bar")
    return min(ratings, key=lambda rating: rating.rated)
