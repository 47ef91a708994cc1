"""Stretch, squeeze and fill of a ring in its groove, nominal and over every tolerance.

All functions broadcast over NumPy arrays, so one call checks one ring or the whole size table.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from itertools import product

import numpy as np
from numpy.typing import ArrayLike

from ironkettle.core.base.errors import UnconvergedError
from ironkettle.core.base.housing import HOUSINGS, REFERENCE_TEMPERATURE_C, HousingMaterial
from ironkettle.core.base.quantities import Toleranced
from ironkettle.core.sealing.compounds import rubber_expansion
from ironkettle.core.sealing.grooves.model import Gland, Seat
from ironkettle.core.sealing.rings.sizes import Floats

_ROUNDS = 14


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
    3.48
    """
    d1, d2, target = np.broadcast_arrays(
        np.asarray(inside_diameter, float), np.asarray(section, float), np.asarray(stretched_to, float)
    )
    stretched = np.maximum(target, d1)
    volume = d2**2 * (d1 + d2)
    x = d2.copy()
    step = np.zeros_like(x)
    # A fixed number of rounds: a ring checked alone and in a row gives the same figures to the last digit.
    for _ in range(_ROUNDS):
        step = (x**2 * (stretched + x) - volume) / (2 * x * stretched + 3 * x**2)
        x = x - step
    if np.all(np.abs(step) < 1e-10):
        return np.asarray(x)
    worst = int(np.argmax(np.abs(step)))
    raise UnconvergedError("installed section", _ROUNDS, float(x.flat[worst]), float(step.flat[worst]))


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
    elif gland.on_inner_wall:
        inner = np.asarray(groove)
        depth = np.asarray(across)
        oversize = np.zeros(np.broadcast(d1, groove).shape)
        stretch = (inner - d1) / d1
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
    are evaluated, no first-order sum. Swelling (volume %) and temperature grow ring and metal first: the
    ring by its compound, the housing by its material, a piston or rod as steel.

    Parameters: ring arrays in mm, tolerances as ±. Returns arrays shaped like ``inside``.
    Range: sizes above 0, tolerances ≥ 0. [mm]
    """
    # One row per case: the nominal first, then the corners. Columns: d₁, d₂, bore or rod or depth, groove, width.
    signs = np.array([(0,) * 5, *product((-1, 1), repeat=5)], dtype=float)[:, :, None]
    at = _figures_at(
        gland, inside + signs[:, 0] * inside_tolerance, section + signs[:, 1] * section_tolerance, signs[:, 2:]
    )

    def over(reduce: np.ufunc) -> Figures:
        return Figures(*(np.asarray(reduce.reduce(getattr(at, name))) for name in _NAMES))

    return Worst(
        low=over(np.minimum), nominal=Figures(*(getattr(at, name)[0] for name in _NAMES)), high=over(np.maximum)
    )


def nominal_case(gland: Gland, inside: Floats, section: Floats) -> Figures:
    """All figures at the nominal dimensions alone: the quick pass of a search. Arrays in mm. Range: sizes above 0. [mm]"""
    return _figures_at(gland, inside, section, np.zeros((1, 3, 1))[0])


_NAMES = ("stretch", "squeeze", "fill", "section", "oversize")


def _figures_at(gland: Gland, inside: Floats, section: Floats, signs: Floats) -> Figures:
    """Figures of rings as made, the gland's dimensions at their low (−1), nominal (0) or high (1) end."""
    warm = gland.temperature - REFERENCE_TEMPERATURE_C
    ring = (1 + gland.swell_pct / 100) ** (1 / 3) * (1 + rubber_expansion(gland.material) * warm)
    housing, inside_part = (1 + HOUSINGS[of].linear_expansion * warm for of in (gland.housing, HousingMaterial.STEEL))
    # Bore, rod or depth; groove diameter; groove width: which of them is in the housing depends on the seat.
    grown = {
        Seat.PISTON: (housing, inside_part, inside_part),
        Seat.ROD: (inside_part, housing, housing),
        Seat.FACE: (housing, housing, housing),
    }[gland.seat]
    across = {Seat.PISTON: gland.bore, Seat.ROD: gland.rod, Seat.FACE: gland.groove_depth}[gland.seat]
    assert across is not None  # Gland refuses a seat without its dimension
    dimensions = (across, gland.groove_diameter, gland.groove_width)
    metals = [
        _at_end(d.scaled(factor), signs[..., place, :])
        for place, (d, factor) in enumerate(zip(dimensions, grown, strict=True))
    ]
    return _figures(gland, inside * ring, section * ring, *metals)


def _at_end(dimension: Toleranced, sign: Floats) -> Floats:
    return np.asarray(np.where(sign < 0, dimension.low, np.where(sign > 0, dimension.high, dimension.nominal)))
