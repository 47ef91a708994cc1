"""The recognisable section of each kind of element, in millimetres.

Profiles are drawn in a box: u runs along the axis from the first zone (0) to the second (1),
v from the inner surface (0) to the outer one (1). "Open right" means open towards the second zone.
"""

from __future__ import annotations

import math
from collections.abc import Sequence

from ironkettle.core.stacks import ElementKind

Point = tuple[float, float]
Polygon = tuple[Point, ...]

_U_OPEN_RIGHT: Polygon = (
    (0.0, 0.06),
    (0.10, 0.0),
    (0.72, 0.02),
    (1.0, 0.0),
    (1.0, 0.14),
    (0.55, 0.34),
    (0.45, 0.42),
    (0.42, 0.5),
    (0.45, 0.58),
    (0.55, 0.66),
    (1.0, 0.86),
    (1.0, 1.0),
    (0.72, 0.98),
    (0.10, 1.0),
    (0.0, 0.94),
)
_WIPER_RIGHT: Polygon = (
    (0.0, 0.22),
    (0.0, 1.0),
    (0.62, 1.0),
    (0.62, 0.66),
    (0.74, 0.60),
    (1.0, 0.10),
    (1.0, 0.0),
    (0.86, 0.0),
    (0.56, 0.40),
    (0.40, 0.22),
)
_CLAD_RIGHT: Polygon = (
    (0.0, 0.45),
    (0.0, 1.0),
    (0.85, 1.0),
    (0.85, 0.82),
    (0.2, 0.82),
    (0.2, 0.62),
    (0.62, 0.52),
    (1.0, 0.08),
    (1.0, 0.0),
    (0.86, 0.0),
    (0.46, 0.40),
)
_V_RIGHT: Polygon = ((0.0, 0.5), (0.65, 0.0), (1.0, 0.0), (0.45, 0.5), (1.0, 1.0), (0.65, 1.0))
_BLOCK: Polygon = ((0.0, 0.0), (1.0, 0.0), (1.0, 1.0), (0.0, 1.0))
_BEVELLED_RIGHT: Polygon = ((0.0, 0.0), (0.72, 0.0), (1.0, 0.35), (1.0, 1.0), (0.0, 1.0))
_HOLLOW_RIGHT: Polygon = ((0.0, 0.0), (1.0, 0.0), (0.72, 0.2), (0.6, 0.5), (0.72, 0.8), (1.0, 1.0), (0.0, 1.0))
_SHAFT_SEAL_RIGHT: Polygon = (
    (0.0, 0.35),
    (0.0, 1.0),
    (0.95, 1.0),
    (0.95, 0.84),
    (0.18, 0.84),
    (0.18, 0.55),
    (0.5, 0.45),
    (0.95, 0.38),
    (0.95, 0.2),
    (0.68, 0.0),
    (0.58, 0.0),
    (0.42, 0.28),
)
_CREST_RIGHT: Polygon = ((0.0, 0.0), (0.45, 0.0), (1.0, 0.5), (0.45, 1.0), (0.0, 1.0))

_OPEN_RIGHT: dict[ElementKind, Polygon] = {
    ElementKind.LIP_SEAL: _U_OPEN_RIGHT,
    ElementKind.CUP_SEAL: _U_OPEN_RIGHT,
    ElementKind.WIPER: _WIPER_RIGHT,
    ElementKind.METAL_CLAD_WIPER: _CLAD_RIGHT,
    ElementKind.V_PACKING: _V_RIGHT,
    ElementKind.SLIDE_RING: _BEVELLED_RIGHT,
    ElementKind.CONTOURED_BACKUP: _HOLLOW_RIGHT,
    ElementKind.SHAFT_SEAL: _SHAFT_SEAL_RIGHT,
    ElementKind.HEADER_RING: tuple((1 - u, v) for u, v in _CREST_RIGHT),
    ElementKind.FOLLOWER_RING: tuple((1 - u, v) for u, v in _HOLLOW_RIGHT),
}
_ROUND = {ElementKind.O_RING, ElementKind.ENERGISER}
_ROUND_POINTS = 28


def profile(
    kind: ElementKind,
    box: tuple[float, float, float, float],
    *,
    opens_right: bool | None,
    free_section: float | None = None,
) -> Polygon:
    """The outline of an element inside its box. [mm]

    Parameters
    ----------
    kind : what it is.
    box : from z, inner r, to z, outer r. [mm]
    opens_right : towards the second zone, towards the first, or None where it has no direction.
    free_section : section of a round ring, so that the squeezed outline keeps its area. [mm]
    """
    z0, r0, z1, r1 = box
    if kind in _ROUND:
        return _squeezed_round(box, free_section)
    shape: Sequence[Point] = _OPEN_RIGHT.get(kind, _BLOCK)
    if opens_right is False:
        shape = tuple((1 - u, v) for u, v in shape)
    return tuple((z0 + u * (z1 - z0), r0 + v * (r1 - r0)) for u, v in shape)


def _squeezed_round(box: tuple[float, float, float, float], free_section: float | None) -> Polygon:
    """An ellipse as high as the gap; with a known section its area is that of the free ring."""
    z0, r0, z1, r1 = box
    height = r1 - r0
    width = min(free_section**2 / height, z1 - z0) if free_section else min(height * 1.15, z1 - z0)
    centre_z, centre_r = (z0 + z1) / 2, (r0 + r1) / 2
    angles = (2 * math.pi * i / _ROUND_POINTS for i in range(_ROUND_POINTS))
    return tuple((centre_z + width / 2 * math.cos(a), centre_r + height / 2 * math.sin(a)) for a in angles)
