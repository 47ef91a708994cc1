"""The recognisable section of each kind of element, in millimetres.

Profiles are drawn in a box: u runs along the axis from the first zone (0) to the second (1),
v from the inner surface (0) to the outer one (1). "Open right" means open towards the second zone.
"""

from __future__ import annotations

import math

from ironkettle.core.sealing.catalogue import BLOCK, KINDS, ElementKind, Law, Polygon

_ROUND_POINTS = 28


def profile(
    kind: ElementKind,
    box: tuple[float, float, float, float],
    *,
    opens_right: bool | None,
    free_section: float | None = None,
    runs_outside: bool = False,
) -> Polygon:
    """The outline of an element inside its box. [mm]

    Parameters
    ----------
    kind : what it is.
    box : from z, inner r, to z, outer r. [mm]
    opens_right : towards the second zone, towards the first, or None where it has no direction.
    free_section : section of a round ring, so that the squeezed outline keeps its area. [mm]
    runs_outside : its lip or edge runs on what lies round it, as a piston's does.
    ``free_section`` above 0 where it is given.
    """
    z0, r0, z1, r1 = box
    facts = KINDS[kind]
    if facts.round:
        return _squeezed_round(box, free_section)
    # What could face either way, and is not known to, is drawn without a face.
    shape = BLOCK if opens_right is None and facts.law is not Law.NONE else facts.outline
    if opens_right is False:
        shape = tuple((1 - u, v) for u, v in shape)
    if runs_outside:
        shape = tuple((u, 1 - v) for u, v in shape)
    return tuple((z0 + u * (z1 - z0), r0 + v * (r1 - r0)) for u, v in shape)


def half_ball(box: tuple[float, float, float, float]) -> Polygon:
    """A ball on the axis, as far as it lies above it. [mm]"""
    z0, _, z1, r1 = box
    wide, middle = min(2 * r1, z1 - z0), (z0 + z1) / 2
    half = (math.pi * i / _ROUND_POINTS for i in range(_ROUND_POINTS + 1))
    return tuple((middle + wide / 2 * math.cos(a), r1 * math.sin(a)) for a in half)


def _squeezed_round(box: tuple[float, float, float, float], free_section: float | None) -> Polygon:
    """An ellipse as high as the gap; with a known section its area is that of the free ring."""
    z0, r0, z1, r1 = box
    height = r1 - r0
    width = min(free_section**2 / height, z1 - z0) if free_section else min(height * 1.15, z1 - z0)
    centre_z, centre_r = (z0 + z1) / 2, (r0 + r1) / 2
    angles = (2 * math.pi * i / _ROUND_POINTS for i in range(_ROUND_POINTS))
    return tuple((centre_z + width / 2 * math.cos(a), centre_r + height / 2 * math.sin(a)) for a in angles)
