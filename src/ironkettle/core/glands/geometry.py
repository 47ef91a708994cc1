"""Stretch, squeeze and fill of a ring in its groove, nominal and over every tolerance.

All functions broadcast over NumPy arrays, so one call checks one ring or the whole size table.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from itertools import product

import numpy as np
from numpy.typing import ArrayLike

from ironkettle.core.errors import UnconvergedError
from ironkettle.core.glands.model import Gland, Seat
from ironkettle.core.quantities import Toleranced
from ironkettle.core.rings.sizes import Floats

RUBBER_EXPANSION_PER_K = 160e-6
STEEL_EXPANSION_PER_K = 12e-6
REFERENCE_TEMPERATURE_C = 20.0


@dataclass(frozen=True)
class Figures:
    """What follows from one set of dimensions. Ratios [-], lengths [mm]."""

    stretch: Floats
    squeeze: Floats
    fill: Floats
    section: Floats
    oversize: Floats


@dataclass(frozen=True)
class Worst:
    """Minimum, nominal and maximum of every figure; arrays over the rings."""

    low: Figures
    nominal: Figures
    high: Figures


def installed_section(inside_diameter: ArrayLike, section: ArrayLike, stretched_to: ArrayLike) -> Floats:
    """Section of a ring stretched to a larger inside diameter, its volume kept. [mm]

    d₂'²·(D + d₂') = d₂²·(d₁ + d₂), solved for d₂' by Newton's method from d₂ (the left side grows
    and bends one way for d₂' > 0, so the root is found from above without a bracket).

    Parameters
    ----------
    inside_diameter : d₁ of the free ring, > 0. [mm]
    section : d₂ of the free ring, > 0. [mm]
    stretched_to : D; where it is not larger than d₁ the section stays d₂. [mm]

    Raises UnconvergedError when the method does not settle to 1e-10 mm.
    Source: conservation of volume of a torus, V = π²/4·d₂²·(d₁ + d₂).

    >>> round(float(installed_section(24.99, 3.53, 25.90)), 2)
    3.47
    """
    d1, d2, target = np.broadcast_arrays(
        np.asarray(inside_diameter, float), np.asarray(section, float), np.asarray(stretched_to, float)
    )
    stretched = np.maximum(target, d1)
    volume = d2**2 * (d1 + d2)
    x = d2.copy()
    step = np.zeros_like(x)
    for _ in range(20):
        step = (x**2 * (stretched + x) - volume) / (2 * x * stretched + 3 * x**2)
        x = x - step
        if np.all(np.abs(step) < 1e-10):
            return np.asarray(x)
    worst = int(np.argmax(np.abs(step)))
    raise UnconvergedError("installed section", 20, float(x.flat[worst]), float(step.flat[worst]))


def _figures(gland: Gland, d1: Floats, d2: Floats, across: Floats, groove: Floats, width: Floats) -> Figures:
    """``across`` is the bore, the rod, or the depth of a face groove."""
    if gland.seat is Seat.PISTON:
        inner = np.asarray(groove)
        depth = (across - groove) / 2
        oversize = np.zeros(np.broadcast(d1, groove).shape)
        stretch = (inner - d1) / d1
    elif gland.seat is Seat.ROD:
        inner = np.asarray(across)
        depth = (groove - across) / 2
        oversize = (d1 + 2 * d2 - groove) / groove
        stretch = np.maximum((inner - d1) / d1, 0.0)
    else:
        oversize = (d1 + 2 * d2 - groove) / groove
        inner = groove - 2 * d2
        depth = np.asarray(across)
        stretch = np.maximum((inner - d1) / d1, 0.0)
    section = installed_section(d1, d2, inner)
    squeeze = (section - depth) / section
    fill = (math.pi / 4 * section**2) / (depth * width)
    return Figures(*(np.asarray(x) for x in np.broadcast_arrays(stretch, squeeze, fill, section, oversize)))


def worst_case(
    gland: Gland, inside: Floats, inside_tolerance: Floats, section: Floats, section_tolerance: Floats
) -> Worst:
    """All figures at the nominal and at every corner of the tolerance box.

    Each figure is monotone in each dimension taken alone, so its extremes lie on corners: all 2⁵
    are evaluated, no first-order sum. Swelling (volume %) and temperature grow ring and metal first.

    Parameters: ring arrays in mm, tolerances as ±. Returns arrays shaped like ``inside``.
    """
    at = _evaluator(gland, inside, inside_tolerance, section, section_tolerance)
    corners = [at(signs) for signs in product((-1, 1), repeat=5)]

    def over(name: str, reduce: np.ufunc) -> Floats:
        return np.asarray(reduce.reduce([getattr(corner, name) for corner in corners]))

    names = ("stretch", "squeeze", "fill", "section", "oversize")
    return Worst(
        low=Figures(*(over(name, np.minimum) for name in names)),
        nominal=at((0, 0, 0, 0, 0)),
        high=Figures(*(over(name, np.maximum) for name in names)),
    )


def nominal_case(
    gland: Gland, inside: Floats, inside_tolerance: Floats, section: Floats, section_tolerance: Floats
) -> Figures:
    """All figures at the nominal dimensions alone: the quick pass of a search. Arrays in mm."""
    return _evaluator(gland, inside, inside_tolerance, section, section_tolerance)((0, 0, 0, 0, 0))


def _evaluator(
    gland: Gland, inside: Floats, inside_tolerance: Floats, section: Floats, section_tolerance: Floats
) -> Callable[[tuple[int, ...]], Figures]:
    """Figures by the sign of each tolerance: ring diameter, ring section, bore or rod or depth, groove, width."""
    warm = gland.temperature - REFERENCE_TEMPERATURE_C
    ring = (1 + gland.swell_pct / 100) ** (1 / 3) * (1 + RUBBER_EXPANSION_PER_K * warm)
    metal = 1 + STEEL_EXPANSION_PER_K * warm
    across = {Seat.PISTON: gland.bore, Seat.ROD: gland.rod, Seat.FACE: gland.groove_depth}[gland.seat]
    assert across is not None  # Gland refuses a seat without its dimension
    across, groove, width = (d.scaled(metal) for d in (across, gland.groove_diameter, gland.groove_width))

    def at(signs: tuple[int, ...]) -> Figures:
        ring_d1 = (inside + signs[0] * inside_tolerance) * ring
        ring_d2 = (section + signs[1] * section_tolerance) * ring
        return _figures(
            gland,
            ring_d1,
            ring_d2,
            *(np.asarray(_pick(d, s)) for d, s in zip((across, groove, width), signs[2:], strict=True)),
        )

    return at


def _pick(dimension: Toleranced, sign: int) -> float:
    return {-1: dimension.low, 0: dimension.nominal, 1: dimension.high}[sign]
