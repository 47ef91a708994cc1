"""A sheet's texts turned into what the rules take: cylinder, glands, zones and stations."""

from __future__ import annotations

from ironkettle.core.buildsheets.model import BuildSheet, FastenerGroup, StationSpec
from ironkettle.core.cylinders import Cylinder
from ironkettle.core.errors import FieldFault, RuleError
from ironkettle.core.glands import Gland
from ironkettle.core.quantities import Toleranced, read_gauge_pressure, read_length, read_toleranced_length, read_torque
from ironkettle.core.stacks import Element, ElementKind, Orientation, Station, Zone, orient
from ironkettle.core.tightening import TorqueRange


def cylinder_of(sheet: BuildSheet) -> Cylinder:
    """The cylinder of a sheet. [mm] Raises RuleError when it has none or its rod is too thick."""
    if sheet.cylinder is None:
        raise RuleError([FieldFault("cylinder", "this sheet has no cylinder")])
    return Cylinder(
        read_toleranced_length(sheet.cylinder.bore, "bore").nominal,
        read_toleranced_length(sheet.cylinder.rod, "rod").nominal,
        read_length(sheet.cylinder.stroke, "stroke"),
    )


def zones_of(sheet: BuildSheet) -> tuple[Zone, ...]:
    """The zones with their pressures. [MPa gauge]"""
    return tuple(
        Zone(zone.key, zone.kind, read_gauge_pressure(zone.pressure, "pressure") if zone.pressure else 0.0, zone.name)
        for zone in sheet.zones
    )


def orientation_of(sheet: BuildSheet, as_found: dict[str, str] | None = None) -> Orientation:
    """Facing and order of every element of the sheet, with what was found reversed."""
    stations = tuple(
        Station(
            station.key,
            station.between,
            tuple(Element(element.key, element.kind, element.name) for element in station.elements),
            station.motion,
            station.entered_from,
        )
        for station in sheet.stations
    )
    return orient(zones_of(sheet), stations, as_found)


def gland_of(sheet: BuildSheet, station: StationSpec) -> Gland:
    """The gland of a station for the groove rules. [mm, MPa]"""
    seat = station.seat
    pressures = [zone.pressure for zone in zones_of(sheet) if zone.key in station.between]
    backups = sum(e.kind in {ElementKind.BACKUP_RING, ElementKind.CONTOURED_BACKUP} for e in station.elements)
    return Gland(
        seat=seat.kind,
        motion=station.motion,
        medium=seat.medium,
        groove_diameter=read_toleranced_length(seat.groove_diameter, "groove_diameter"),
        groove_width=read_toleranced_length(seat.groove_width, "groove_width"),
        bore=_optional(seat.bore, "bore"),
        rod=_optional(seat.rod, "rod"),
        groove_depth=_optional(seat.groove_depth, "groove_depth"),
        diametral_clearance=_optional(seat.diametral_clearance, "diametral_clearance"),
        pressure=max(pressures),
        pressure_direction=seat.pressure_direction,
        hardness_shore_a=seat.hardness_shore_a,
        backup_rings_fitted=backups,
    )


def torque_range_of(group: FastenerGroup) -> TorqueRange:
    """The torque range of a group; a bare target has equal ends. [N·m]

    Raises RuleError when neither or both are given, or the range is the wrong way round.
    """
    if group.target is not None and group.low is None and group.high is None:
        target = read_torque(group.target, "target")
        return TorqueRange(target, target)
    if group.low is None or group.high is None or group.target is not None:
        raise RuleError([FieldFault("low", "give low and high, or target alone", ("low and high", "target"))])
    low, high = read_torque(group.low, "low"), read_torque(group.high, "high")
    if low > high:
        raise RuleError([FieldFault("low", f"{group.low} is above {group.high}")])
    return TorqueRange(low, high)


def _optional(text: str | None, field: str) -> Toleranced | None:
    return None if text is None else read_toleranced_length(text, field)
