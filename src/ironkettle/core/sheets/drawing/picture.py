"""The picture of an answered sheet in one view, for any renderer to paint: metal, spaces, elements both ways round. [mm]

z to the right, r upwards from the axis; a renderer mirrors it below the axis.
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

import shapely
from shapely.geometry.base import BaseGeometry as Geometry

from ironkettle.core.sealing.catalogue import KINDS, ElementKind, Polygon
from ironkettle.core.sealing.facing import Zone
from ironkettle.core.sealing.rings import RingTable
from ironkettle.core.sheets.document.facts import orientation_of, zones_by_key
from ironkettle.core.sheets.document.parts import PartSpec
from ironkettle.core.sheets.document.places import (
    ALONG,
    BoxSeat,
    ElementSpec,
    FaceSeat,
    PistonSeat,
    PressInSeat,
    RodSeat,
    SeatKind,
)
from ironkettle.core.sheets.document.positions import position_of
from ironkettle.core.sheets.document.sheet import Sheet
from ironkettle.core.sheets.drawing.profiles import half_ball, profile
from ironkettle.core.sheets.drawing.seats import Laid
from ironkettle.core.sheets.drawing.section import SeatAt, Section, section, views_of
from ironkettle.core.sheets.drawing.zones import spaces_of

# A rim or a band is drawn this thick on the surface it runs on, where its groove is deeper. [mm]
_SMALLEST_AREA = 0.02


@dataclass(frozen=True, slots=True)
class Shape:
    """One area: its outer ring and the holes in it. [mm]"""

    outer: Polygon
    holes: tuple[Polygon, ...]


@dataclass(frozen=True, slots=True)
class ZonePicture:
    """A space tinted by its pressure; ``share`` is its pressure over the highest of the sheet. [-]"""

    key: str
    name: str
    kind: str
    pressure: str | None
    share: float
    shapes: tuple[Shape, ...]


@dataclass(frozen=True, slots=True)
class PartPicture:
    """``caption``: its name with what is adjusted by turning it, None for a part that sets nothing; ``position``: as of a station."""

    key: str
    name: str
    material: str | None
    caption: str | None
    shapes: tuple[Shape, ...]
    position: str | None


@dataclass(frozen=True, slots=True)
class ElementPicture:
    """``outlines`` by the zone faced, ``"-"`` where it has no direction; ``number``: which of several alike; ``rigid``: plastic or metal."""

    key: str
    name: str
    kind: str
    rigid: bool
    station: str
    number: int
    faces: str | None
    instruction: str
    box: tuple[float, float, float, float]
    outlines: dict[str, Polygon]


class Way(StrEnum):
    """Which way a dimension runs: along the axis, across it (a diameter), or out on one side of it."""

    ALONG = "along"
    ACROSS = "across"
    RADIAL = "radial"


@dataclass(frozen=True, slots=True)
class DrawnDimension:
    """What the caliper will meet: a word, the figure as the sheet has it, and the two places it lies between. [mm]"""

    way: Way
    word: str
    text: str
    start: tuple[float, float]
    end: tuple[float, float]


@dataclass(frozen=True, slots=True)
class StationPicture:
    """``position``: which of several alike it belongs to, all of which are drawn in one place; None for what is there once.
    ``carrier``: the part that its seals are fitted to."""

    key: str
    name: str
    position: str | None
    carrier: str | None
    box: tuple[float, float, float, float]
    dimensions: tuple[DrawnDimension, ...]


@dataclass(frozen=True, slots=True)
class Picture:
    """``extent``: least z, least r, greatest z, greatest r of the metal. [mm]"""

    view: str
    extent: tuple[float, float, float, float]
    zones: tuple[ZonePicture, ...]
    parts: tuple[PartPicture, ...]
    elements: tuple[ElementPicture, ...]
    stations: tuple[StationPicture, ...]


def picture(sheet: Sheet, rings: RingTable, view: str | None = None) -> Picture:
    """The picture of an answered sheet. Ring sections come from the sizes it names.

    Raises RuleError for a ring that no table has.
    """
    first = views_of(sheet)[0]
    drawn = section(sheet, view or first)
    spaces = spaces_of(sheet, drawn, first)
    oriented = {element.key: element for station in orientation_of(sheet).stations for element in station.elements}
    specs = {element.key: element for *_, element in sheet.elements}
    elements = []
    for seat in drawn.seats:
        for laid in seat.laid:
            same = oriented.get(laid.element.same_as or laid.element.key)
            faces = same.faces if same else None
            instruction = same.instruction if same else ""
            elements.append(_element(seat, laid, faces, instruction, specs, rings))
    parts = tuple(_part(sheet, part, drawn.metal[part.key]) for part in sheet.parts if part.key in drawn.metal)
    bounds = shapely.total_bounds(list(drawn.metal.values())) if drawn.metal else (0.0, 0.0, 1.0, 1.0)
    z0, r0, z1, r1 = (float(value) for value in bounds)
    return Picture(
        drawn.view,
        (z0, r0, z1, r1),
        _zones(sheet, spaces.zones, zones_by_key(sheet)),
        parts,
        tuple(elements),
        tuple(_stations(drawn)),
    )


def _zones(sheet: Sheet, found: dict[str, Geometry], zones: dict[str, Zone]) -> tuple[ZonePicture, ...]:
    highest = max((zone.pressure for zone in zones.values()), default=0.0)
    return tuple(
        ZonePicture(
            spec.key,
            spec.name,
            spec.kind,
            spec.pressure,
            max(zones[spec.key].pressure, 0.0) / highest if highest > 0 else 0.0,
            shapes_of(found[spec.key]) if spec.key in found else (),
        )
        for spec in sheet.zones
    )


def _part(sheet: Sheet, part: PartSpec, metal: Geometry) -> PartPicture:
    sets = [
        setting.name for setting in sheet.settings if setting.adjuster is not None and setting.adjuster.part == part.key
    ]
    caption = f"{part.name}: {', '.join(name[0].lower() + name[1:] for name in sets)}" if sets else None
    return PartPicture(part.key, part.name, part.material, caption, shapes_of(metal), position_of(part.key))


def _element(
    seat: SeatAt, laid: Laid, faces: str | None, instruction: str, specs: dict[str, ElementSpec], rings: RingTable
) -> ElementPicture:
    spec = specs.get(laid.element.same_as or "", laid.element)
    free = rings.find(spec.ring.series, spec.ring.designation).section if spec.ring else None
    first, second = seat.station.between
    if faces is None:
        outlines = {"-": _outline(seat, laid, None, free)}
    else:
        outlines = {zone: _outline(seat, laid, zone == second, free) for zone in (first, second)}
    return ElementPicture(
        spec.key,
        spec.name,
        spec.kind,
        KINDS[spec.kind].rigid,
        seat.station.key,
        laid.number,
        faces,
        instruction,
        laid.box.corners,
        outlines,
    )


def _outline(seat: SeatAt, laid: Laid, opens_second: bool | None, free: float | None) -> Polygon:
    """The outline in its box; where it is squeezed along the axis, zones inside and outside, it is turned a quarter."""
    box = laid.box.corners
    if laid.element.kind is ElementKind.CHECK_BALL and box[1] <= 0:
        return half_ball(box)
    if seat.seat.kind in ALONG:
        outside = seat.seat.kind is SeatKind.PISTON
        return profile(laid.element.kind, box, opens_right=opens_second, free_section=free, runs_outside=outside)
    z0, r0, z1, r1 = box
    turned = profile(laid.element.kind, (r0, z0, r1, z1), opens_right=opens_second, free_section=free)
    return tuple((z, r) for r, z in turned)


def _stations(drawn: Section) -> list[StationPicture]:
    found: list[StationPicture] = []
    for key in dict.fromkeys(seat.station.key for seat in drawn.seats):
        seats = [seat for seat in drawn.seats if seat.station.key == key]
        corners = [seat.box.corners for seat in seats]
        box = (
            min(c[0] for c in corners),
            min(c[1] for c in corners),
            max(c[2] for c in corners),
            max(c[3] for c in corners),
        )
        station = seats[0].station
        dimensions_of_seats = [dimension for seat in seats for dimension in _dimensions(seat)]
        # A diameter that several grooves share is told once.
        once = {
            (dimension.word, dimension.text, dimension.end[1]): dimension
            for dimension in reversed(dimensions_of_seats)
            if dimension.way is Way.ACROSS
        }
        dimensions = tuple(
            dimension
            for dimension in dimensions_of_seats
            if dimension.way is not Way.ACROSS or dimension in once.values()
        )
        found.append(StationPicture(key, station.name, position_of(key), station.carrier, box, dimensions))
    return found


def _dimensions(seat: SeatAt) -> list[DrawnDimension]:
    spec, axis = seat.seat, seat.seat.axis
    z0, r0, z1, r1 = seat.box.corners

    def along(word: str, text: str, r: float) -> DrawnDimension:
        return DrawnDimension(Way.ALONG, word, text, (z0, r), (z1, r))

    def across(word: str, text: str, r: float) -> DrawnDimension:
        return DrawnDimension(Way.ACROSS, word, text, (z0, 2 * axis - r), (z0, r))

    if isinstance(spec, PistonSeat):
        found = [along("groove width", spec.groove_width, r1), across("bore ⌀", spec.bore, r1)]
        found.append(across("groove ⌀", spec.groove_diameter, r0))
    elif isinstance(spec, RodSeat):
        found = [along("groove width", spec.groove_width, r1), across("rod ⌀", spec.rod, r0)]
        found.append(across("groove ⌀", spec.groove_diameter, r1))
    elif isinstance(spec, FaceSeat):
        # A face ring that is pressed from outside rests on the inner wall.
        inside = spec.groove_diameter.value.nominal / 2 < (r0 + r1) / 2 - axis
        found = [along("groove depth", spec.groove_depth, r0)]
        found.append(DrawnDimension(Way.RADIAL, "groove width", spec.groove_width, (z1, r0), (z1, r1)))
        found.append(across("groove ⌀", spec.groove_diameter, r0 if inside else r1))
    elif isinstance(spec, BoxSeat | PressInSeat):
        found = [along("length", spec.length, r1), across("bore ⌀", spec.bore, r1), across("shaft ⌀", spec.shaft, r0)]
    else:
        found = [
            along("thickness", spec.thickness, r1),
            across("inner ⌀", spec.inner, r0),
            across("outer ⌀", spec.outer, r1),
        ]
    # A disc has no inner diameter to measure.
    return [dimension for dimension in found if dimension.way is not Way.ACROSS or dimension.end[1] > axis]


def shapes_of(area: Geometry) -> tuple[Shape, ...]:
    """Areas as rings of points, the smallest crumbs left out. [mm]

    Parameters: an area in the plane of the section, any number of pieces above 0.02 mm².
    """
    found = []
    for piece in shapely.get_parts(area):
        if piece.geom_type != "Polygon" or piece.area < _SMALLEST_AREA:
            continue
        holes = tuple(_points(hole) for hole in piece.interiors)
        found.append(Shape(_points(piece.exterior), holes))
    return tuple(found)


def _points(ring: Geometry) -> Polygon:
    return tuple((round(float(z), 3), round(float(r), 3)) for z, r in shapely.get_coordinates(ring)[:-1])
