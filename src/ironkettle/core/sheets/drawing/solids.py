"""Primitives of a sheet as areas in the plane of the section: z to the right, r off the unit's axis. [mm]"""

from __future__ import annotations

from collections.abc import Iterable

import shapely
from shapely import Point, Polygon, box
from shapely.affinity import scale, translate
from shapely.geometry.base import BaseGeometry as Geometry

from ironkettle.core.sheets.document import solids as s
from ironkettle.core.sheets.document.parts import PartSpec

# A hole is shut at its mouth by a strip this thick, which reaches as far beside it.
_MOUTH = 0.5
NOTHING: Geometry = Polygon()
# Points of a quarter of a circle.
_QUARTER = 12


def half(area: Geometry) -> Geometry:
    """What of an area lies on the drawn side of the axis."""
    if area.is_empty:
        return area
    z0, _, z1, r1 = area.bounds
    return shapely.intersection(area, box(z0 - 1, 0, z1 + 1, max(r1, 0) + 1))


def area_of(primitive: s.Primitive, axis: float = 0.0) -> Geometry:
    """The area of one primitive, on both sides of its own axis, whole where it touches the axis. [mm]

    ``axis``: how far it lies from the axis of the drawing, above or below 0.
    """
    upper = _upper(primitive)
    if isinstance(primitive, s.Pin):
        return translate(upper, yoff=axis) if axis else upper
    both = shapely.union(upper, scale(upper, yfact=-1.0, origin=(0, 0)))
    return translate(both, yoff=axis) if axis else both


def _upper(primitive: s.Primitive) -> Geometry:
    if isinstance(primitive, s.Tube | s.Plate | s.Shut):
        return box(primitive.start, primitive.inner, primitive.end, primitive.outer)
    if isinstance(primitive, s.Bar):
        return box(primitive.start, 0.0, primitive.end, primitive.outer)
    if isinstance(primitive, s.Cone):
        (o0, o1), (i0, i1) = primitive.outer, primitive.inner
        a, b = primitive.start, primitive.end
        return shapely.make_valid(Polygon([(a, i0), (b, i1), (b, o1), (a, o0)]))
    if isinstance(primitive, s.Ball):
        centre = primitive.at if isinstance(primitive.at, tuple) else (primitive.at, 0.0)
        return Point(centre).buffer(primitive.radius, quad_segs=_QUARTER)
    if isinstance(primitive, s.Pin):
        return Point(primitive.at).buffer(primitive.radius, quad_segs=_QUARTER)
    if isinstance(primitive, s.Spring):
        return shapely.union_all([Point(at).buffer(primitive.wire / 2, quad_segs=6) for at in coils(primitive)])
    if isinstance(primitive, s.Port):
        low, high = sorted((primitive.start, primitive.end))
        return box(primitive.at - primitive.radius, low, primitive.at + primitive.radius, high)
    if isinstance(primitive, s.Passage):
        return NOTHING
    return shapely.make_valid(Polygon(primitive.points))


def coils(spring: s.Spring) -> list[tuple[float, float]]:
    """Centres of the cut wires of a spring, evenly laid. [mm]"""
    middle = (spring.inner + spring.outer) / 2
    room = spring.end - spring.start - spring.wire
    turns = max(2, min(12, round(room / (2.6 * spring.wire)) + 1))
    step = room / (turns - 1) if room > 0 else 0.0
    return [(spring.start + spring.wire / 2 + step * i, middle) for i in range(turns)]


def mouth_of(port: s.Port, axis: float) -> Geometry:
    """The strip that shuts a port where its pipe would be screwed in. ``axis``: of the port, above or below 0. [mm]"""
    end = box(
        port.at - port.radius - _MOUTH, port.end - _MOUTH / 2, port.at + port.radius + _MOUTH, port.end + _MOUTH / 2
    )
    both = shapely.union(end, scale(end, yfact=-1.0, origin=(0, 0)))
    return translate(both, yoff=axis) if axis else both


_NO_METAL = s.Shut | s.Port | s.Passage


def _in_view(solid: s.Solid, view: str, first: str) -> bool:
    return (solid.view or first) == view


def metal_of(part: PartSpec, view: str, first: str, *, proof: bool) -> Geometry:
    """The metal of a part in one view, before grooves are cut; for the proof without springs and pins."""
    left_out = s.Spring | s.Pin if proof else ()
    areas = []
    for solid in part.solid:
        if solid.body is None or not _in_view(solid, view, first) or isinstance(solid.body, _NO_METAL):
            continue
        if left_out and isinstance(solid.body, s.Spring | s.Pin):
            continue
        area = area_of(solid.body, solid.axis)
        for cut in solid.cut:
            # A hole for a pin runs across the plane: it opens nothing in it.
            if not (proof and isinstance(cut, s.Pin)):
                area = shapely.difference(area, area_of(cut, solid.axis))
        areas.append(area)
    metal = shapely.union_all(areas) if areas else NOTHING
    holes = [
        area_of(solid.body, solid.axis)
        for solid in part.solid
        if isinstance(solid.body, s.Port) and _in_view(solid, view, first)
    ]
    holes += [area_of(cut, solid.axis) for solid in part.solid if solid.body is None for cut in solid.cut]
    holes += [area_of(cut) for cut in part.cut]
    return shapely.difference(metal, shapely.union_all(holes)) if holes else metal


def shut_in(parts: Iterable[PartSpec], view: str, first: str) -> list[Geometry]:
    """What closes the picture in the proof: shuts, and the mouths of ports."""
    found = []
    for part in parts:
        for solid in part.solid:
            if not _in_view(solid, view, first):
                continue
            if isinstance(solid.body, s.Shut):
                found.append(area_of(solid.body, solid.axis))
            elif isinstance(solid.body, s.Port):
                found.append(mouth_of(solid.body, solid.axis))
    return found


def passages_in(parts: Iterable[PartSpec], view: str, first: str) -> list[s.Passage]:
    """The passages of the parts that lie in a view; ``first``: the view of parts that name none."""
    return [
        solid.body
        for part in parts
        for solid in part.solid
        if isinstance(solid.body, s.Passage) and _in_view(solid, view, first)
    ]
