"""A lantern ring has to lie where its port opens: else what it is to bring or take away stays outside. [mm]"""

from __future__ import annotations

from collections.abc import Iterator

import shapely
from shapely import Point, box
from shapely.geometry.base import BaseGeometry as Geometry

from ironkettle.core.base.errors import FieldFault
from ironkettle.core.sealing.catalogue import ElementKind
from ironkettle.core.sheets.document.sheet import Sheet
from ironkettle.core.sheets.drawing.seats import Laid
from ironkettle.core.sheets.drawing.section import Section
from ironkettle.core.sheets.drawing.zones import Spaces

# How far beside the ring an opening is looked for, and how wide it must be: wider than a running clearance. [mm]
_BESIDE, _OPENING = 1.0, 0.3


def lantern_faults(sheet: Sheet, drawn: Section, spaces: Spaces) -> Iterator[FieldFault]:
    """Lantern rings that no port, passage or other open space of a zone leads to."""
    names = {zone.key: zone.name for zone in sheet.zones}
    for seat in drawn.seats:
        for laid in seat.laid:
            if laid.element.kind is not ElementKind.LANTERN_RING or _opens(laid, drawn, spaces):
                continue
            index = next(i for i, one in enumerate(sheet.stations) if one.key == seat.station.key)
            place = next(i for i, one in enumerate(seat.station.seats) if one is seat.seat)
            element = seat.seat.elements.index(laid.element)
            between = " or ".join(names[key] for key in seat.station.between)
            text = (
                f"{laid.element.name} lies at z {laid.box.z0:.1f} to {laid.box.z1:.1f}, where no port of {between} "
                "opens into it; its own length and those before it give its place"
            )
            yield FieldFault(f"stations.{index}.seats.{place}.elements.{element}", text)


def _opens(laid: Laid, drawn: Section, spaces: Spaces) -> bool:
    ring = shapely.buffer(laid.box.area, _BESIDE / 4)
    if any(ring.intersects(Point(end)) for ends in drawn.joined for end in ends):
        return True
    neighbours = _beside(laid)
    return any(
        not shapely.buffer(shapely.intersection(neighbours, zone), -_OPENING / 2).is_empty
        for zone in spaces.zones.values()
    )


def _beside(laid: Laid) -> Geometry:
    one = laid.box
    return shapely.union(
        box(one.z0, one.r1, one.z1, one.r1 + _BESIDE), box(one.z0, max(one.r0 - _BESIDE, 0.0), one.z1, one.r0)
    )


__all__ = ["lantern_faults"]
