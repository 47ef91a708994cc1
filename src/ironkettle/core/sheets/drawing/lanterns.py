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
            index = next(i for i, station in enumerate(sheet.stations) if station.key == seat.station.key)
            place = next(i for i, seat_there in enumerate(seat.station.seats) if seat_there is seat.seat)
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
    area = laid.box
    return shapely.union(
        box(area.z0, area.r1, area.z1, area.r1 + _BESIDE), box(area.z0, max(area.r0 - _BESIDE, 0.0), area.z1, area.r0)
    )


__all__ = ["lantern_faults"]
