"""The section through a unit, to scale from its build sheet: shapes for any renderer to paint.

Everything is in millimetres, z to the right, r upwards from the axis; a renderer mirrors it below
the axis. Each directed element comes with its outline for both ways round, so that the same scene
serves strip-down (as found), rebuild (as it must be) and the certificate.
"""

from __future__ import annotations

from dataclasses import dataclass

from ironkettle.core.buildsheets import BuildSheet, ElementSpec, StationSpec, gland_of, orientation_of
from ironkettle.core.drawings.profiles import Polygon, profile
from ironkettle.core.glands import Gland, Seat
from ironkettle.core.quantities import read_gauge_pressure
from ironkettle.core.rings import RingTable
from ironkettle.core.stacks import ElementKind, OrientedElement


@dataclass(frozen=True, slots=True)
class ZoneShape:
    """A space tinted by its pressure; ``share`` is its pressure over the highest in the sheet. [-]"""

    key: str
    name: str
    kind: str
    pressure: str | None
    share: float
    areas: tuple[Polygon, ...]


@dataclass(frozen=True, slots=True)
class PartShape:
    key: str
    name: str
    material: str
    outline: Polygon


@dataclass(frozen=True, slots=True)
class ElementShape:
    """``outlines`` by the zone faced, ``"-"`` for an element without a direction."""

    key: str
    name: str
    kind: str
    faces: str | None
    instruction: str
    box: tuple[float, float, float, float]
    outlines: dict[str, Polygon]


@dataclass(frozen=True, slots=True)
class StationShape:
    key: str
    name: str
    box: tuple[float, float, float, float]
    elements: tuple[ElementShape, ...]


@dataclass(frozen=True, slots=True)
class Scene:
    """``extent``: least z, greatest z, greatest r. [mm]"""

    extent: tuple[float, float, float]
    zones: tuple[ZoneShape, ...]
    parts: tuple[PartShape, ...]
    stations: tuple[StationShape, ...]


def draw(sheet: BuildSheet, rings: RingTable) -> Scene:
    """The scene of a sheet. Ring sections come from the sheet's named sizes where it names them."""
    highest = max((read_gauge_pressure(z.pressure, "pressure") for z in sheet.zones if z.pressure), default=0.0)
    zones = tuple(
        ZoneShape(
            zone.key,
            zone.name,
            zone.kind,
            zone.pressure,
            read_gauge_pressure(zone.pressure, "pressure") / highest if zone.pressure and highest else 0.0,
            tuple(tuple(area) for area in zone.areas),
        )
        for zone in sheet.zones
    )
    parts = tuple(PartShape(p.key, p.name, p.material, tuple(p.outline)) for p in sheet.drawing.parts)
    oriented = orientation_of(sheet).stations
    stations = tuple(
        _station(sheet, station, match.elements, rings) for station, match in zip(sheet.stations, oriented, strict=True)
    )
    points = [point for part in parts for point in part.outline] + [p for z in zones for area in z.areas for p in area]
    extent = (min(z for z, _ in points), max(z for z, _ in points), max(r for _, r in points))
    return Scene(extent, zones, parts, stations)


def _station(
    sheet: BuildSheet, station: StationSpec, oriented: tuple[OrientedElement, ...], rings: RingTable
) -> StationShape:
    inner, outer = _radii(gland_of(sheet, station))
    shapes = tuple(
        _element(station, element, match, inner, outer, rings)
        for element, match in zip(station.elements, oriented, strict=True)
    )
    box = (min(s.box[0] for s in shapes), inner, max(s.box[2] for s in shapes), outer)
    return StationShape(station.key, station.name, box, shapes)


def _radii(gland: Gland) -> tuple[float, float]:
    groove = gland.groove_diameter.nominal / 2
    if gland.seat is Seat.PISTON and gland.bore:
        return groove, gland.bore.nominal / 2
    if gland.seat is Seat.ROD and gland.rod:
        return gland.rod.nominal / 2, groove
    # A face groove is drawn as the pocket inside the wall the ring rests on.
    return groove - gland.groove_width.nominal, groove


def _element(
    station: StationSpec, element: ElementSpec, oriented: OrientedElement, inner: float, outer: float, rings: RingTable
) -> ElementShape:
    start, end = element.slot_mm
    box = (start, inner, end, outer)
    section = rings.find(element.ring.series, element.ring.designation).section if element.ring else None
    if element.kind is ElementKind.WEAR_BAND and station.seat.kind is Seat.PISTON:
        box = (start, outer - 2.5, end, outer)
    elif element.kind is ElementKind.WEAR_BAND:
        box = (start, inner, end, inner + 2.5)
    if oriented.faces is None:
        outlines = {"-": profile(element.kind, box, opens_right=None, free_section=section)}
    else:
        outlines = {
            zone: profile(element.kind, box, opens_right=zone == station.between[1]) for zone in station.between
        }
    return ElementShape(element.key, element.name, element.kind, oriented.faces, oriented.instruction, box, outlines)
