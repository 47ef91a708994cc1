"""Outlines of elements in a box of one by one: u along the axis, v off it.

u runs from the first zone (0) to the second (1), v from the inner surface (0) to the outer one (1).
Each is drawn facing the second zone: lips, hollows, flat faces to the right.
"""

from __future__ import annotations

Point = tuple[float, float]
Polygon = tuple[Point, ...]

LIPS: Polygon = (
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
WIPER: Polygon = (
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
CLAD_WIPER: Polygon = (
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
VEE: Polygon = ((0.0, 0.5), (0.65, 0.0), (1.0, 0.0), (0.45, 0.5), (1.0, 1.0), (0.65, 1.0))
BLOCK: Polygon = ((0.0, 0.0), (1.0, 0.0), (1.0, 1.0), (0.0, 1.0))
BEVELLED: Polygon = ((0.0, 0.0), (0.72, 0.0), (1.0, 0.35), (1.0, 1.0), (0.0, 1.0))
HOLLOW: Polygon = ((0.0, 0.0), (1.0, 0.0), (0.72, 0.2), (0.6, 0.5), (0.72, 0.8), (1.0, 1.0), (0.0, 1.0))
SHAFT_SEAL: Polygon = (
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
_CREST: Polygon = ((0.0, 0.0), (0.45, 0.0), (1.0, 0.5), (0.45, 1.0), (0.0, 1.0))
# The crest enters the openings of the V-ring beside it, so the flat face lies the other way.
CRESTED: Polygon = tuple((1 - u, v) for u, v in _CREST)
# Hollow towards the V-ring, flat face away from it.
CUPPED: Polygon = tuple((1 - u, v) for u, v in HOLLOW)
DISHED: Polygon = (
    (0.0, 0.0),
    (0.55, 0.0),
    (1.0, 0.45),
    (1.0, 0.55),
    (0.55, 1.0),
    (0.0, 1.0),
    (0.45, 0.55),
    (0.45, 0.45),
)
LEAF: Polygon = ((0.2, 0.0), (1.0, 0.0), (1.0, 1.0), (0.2, 1.0), (0.6, 0.5))
DISC: Polygon = ((0.0, 0.0), (0.7, 0.0), (1.0, 0.08), (1.0, 0.92), (0.7, 1.0), (0.0, 1.0))
