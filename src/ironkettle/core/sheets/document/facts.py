"""What the rules take from an answered sheet: zones, facing, glands, cylinder, rating."""

from __future__ import annotations

from ironkettle.core.base.errors import FieldFault, RuleError
from ironkettle.core.base.quantities import (
    Dimension,
)
from ironkettle.core.machine.cylinders import Cylinder
from ironkettle.core.sealing.catalogue import BACKUPS, ElementKind, nested
from ironkettle.core.sealing.facing import Element, Orientation, Station, Zone, ZoneKind, orient
from ironkettle.core.sealing.grooves import Gland, Medium, PressedFrom, PressureDirection, Seat
from ironkettle.core.sealing.seals.in_seat import Space
from ironkettle.core.sheets.document.parts import Read
from ironkettle.core.sheets.document.places import (
    ALONG,
    ElementSpec,
    FaceSeat,
    PistonSeat,
    RodSeat,
    SeatKind,
    SeatSpec,
    StationSpec,
    ZoneSpec,
)
from ironkettle.core.sheets.document.sheet import Sheet

# Seats that hold a ring in a groove, as the groove rules name them.
GROOVES = {SeatKind.PISTON: Seat.PISTON, SeatKind.ROD: Seat.ROD, SeatKind.FACE: Seat.FACE}
_WET = frozenset({"oil", "water", "fuel", "fluid"})


def zones_by_key(sheet: Sheet) -> dict[str, Zone]:
    """The zones with their pressures. [MPa gauge]"""
    return {zone.key: Zone(zone.key, zone.kind, _pressure(zone), zone.name) for zone in sheet.zones}


def _pressure(zone: ZoneSpec) -> float:
    return zone.pressure.value if zone.pressure else 0.0


def orientation_of(sheet: Sheet) -> Orientation:
    """Facing and order of every element of an answered sheet."""
    doubled = frozenset(e.same_as for station in sheet.stations for seat in station.seats for e in seat.elements)
    stations = tuple(
        Station(
            station.key,
            station.between,
            tuple(
                Element(e.key, e.kind, e.name, e.faces, e.side or "", e.why or "", _as_marked(e, doubled))
                for seat in station.seats
                for e in seat.elements
                if e.same_as is None
            ),
            station.motion,
            station.entered_from,
        )
        for station in sheet.stations
    )
    return orient(tuple(zones_by_key(sheet).values()), stations)


def _as_marked(element: ElementSpec, doubled: frozenset[str | None]) -> str:
    """The marks of a plate whose leaves bend both ways, named at both its edges: it lies as they say."""
    if element.key not in doubled or element.kind is not ElementKind.VALVE_LEAF or element.faces is not None:
        return ""
    return ", ".join(element.marks)


def rating_of(sheet: Sheet) -> float:
    """The weakest rating of the unit: of its service, or of a part that has its own. [MPa]"""
    rated = [part.rated.value for part in sheet.parts if part.rated]
    return min([sheet.service.pressure.value, *rated])


def cylinder_of(sheet: Sheet) -> Cylinder:
    """The cylinder of a sheet. [mm] Raises RuleError when it has none or its rod is too thick."""
    if sheet.cylinder is None:
        raise RuleError([FieldFault("cylinder", "this sheet has no cylinder")])
    return Cylinder(
        sheet.cylinder.bore.value.nominal,
        sheet.cylinder.rod.value.nominal,
        sheet.cylinder.stroke.value,
    )


def gland_of(sheet: Sheet, station: StationSpec, seat: SeatSpec) -> Gland | None:
    """The gland of a seat for the groove rules [mm, MPa]; None for a seat that holds no ring in a groove.

    The pressure is the higher of its two zones; from both sides where both press.
    """
    if not isinstance(seat, PistonSeat | RodSeat | FaceSeat):
        return None
    zones = zones_by_key(sheet)
    first, second = (zones[key] for key in station.between)
    both = first.kind is ZoneKind.PRESSURE and second.kind is ZoneKind.PRESSURE
    outer_presses = second.rank > first.rank
    # A vacuum sealed against the air presses as much as one below zero; else the higher of the two counts.
    lowest = min(first.pressure, second.pressure)
    pressure = lowest if lowest < 0 else max(first.pressure, second.pressure)
    given = seat.pressure_direction
    return Gland(
        seat=GROOVES[seat.kind],
        motion=station.motion.of_groove,
        medium=seat.medium or (Medium.LIQUID if sheet.service.medium in _WET else Medium.GAS),
        groove_diameter=seat.groove_diameter.value,
        groove_width=seat.groove_width.value,
        bore=seat.bore.value if isinstance(seat, PistonSeat) else None,
        rod=seat.rod.value if isinstance(seat, RodSeat) else None,
        groove_depth=seat.groove_depth.value if isinstance(seat, FaceSeat) else None,
        diametral_clearance=None if seat.diametral_clearance is None else seat.diametral_clearance.value,
        pressure=pressure,
        pressure_direction=given or (PressureDirection.BOTH_SIDES if both else PressureDirection.ONE_SIDE),
        hardness_shore_a=seat.hardness_shore_a,
        backup_rings_fitted=sum(element.kind in BACKUPS for element in seat.elements),
        pressed_from=PressedFrom.OUTSIDE if isinstance(seat, FaceSeat) and outer_presses else PressedFrom.INSIDE,
    )


def space_of(seat: SeatSpec, element: ElementSpec) -> Space | None:
    """What a seat leaves for one of its seals [mm]; None for a groove in a face, whose ring lies flat.

    Of a length that several share it leaves what the sheet gives the element, else all that the others are not given.
    """
    if isinstance(seat, FaceSeat):
        return None
    inner, outer, length = (edge.value.nominal for edge in seat.edges)
    if seat.kind not in ALONG:
        return Space(inner, outer, length)
    if element.length is not None:
        return Space(inner, outer, element.length.value)
    others = [other for other in seat.elements if other is not element and not nested(other.kind, element.kind)]
    taken = sum(other.length.value * other.count for other in others if other.length is not None)
    alone = not others and element.count == 1
    return Space(inner, outer, max(length - taken, 0.0), shared=not alone)


_DIMENSIONS = {
    Read.LENGTH: Dimension.LENGTH, Read.TORQUE: Dimension.TORQUE, Read.PRESSURE: Dimension.PRESSURE,
    Read.ANGLE: Dimension.ANGLE, Read.TIME: Dimension.TIME, Read.FLOW: Dimension.FLOW, Read.VOLUME: Dimension.VOLUME,
    Read.TEMPERATURE: Dimension.TEMPERATURE, Read.FORCE: Dimension.FORCE, Read.SPEED: Dimension.SPEED,
}  # fmt: skip


def dimension_of(read: Read) -> Dimension | None:
    """The dimension of what is read; None for numbers, words and choices."""
    return _DIMENSIONS.get(read)
