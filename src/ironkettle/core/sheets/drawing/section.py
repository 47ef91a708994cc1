"""The section of a sheet in one view: metal with its grooves cut, seats with what closes them, open space. [mm]"""

from __future__ import annotations

from dataclasses import dataclass, field

import shapely
from shapely import box
from shapely.geometry.base import BaseGeometry as Geometry

from ironkettle.core.sealing.facing import Zone
from ironkettle.core.sheets.document.facts import zones_by_key
from ironkettle.core.sheets.document.places import SeatKind, SeatSpec, StationSpec
from ironkettle.core.sheets.document.sheet import Sheet
from ironkettle.core.sheets.drawing.seats import Box, Laid, box_of, closing, lay
from ironkettle.core.sheets.drawing.solids import NOTHING, half, metal_of, passages_in, shut_in

# Every part is this much smaller and every sealing element this much larger in the proof: what only
# touches leaks, what overlaps by a tenth is one.
SHRUNK, GROWN = 0.02, 0.05
_AROUND = 6.0
# The one view of a sheet that names none.
MAIN_VIEW = "main"


@dataclass(frozen=True)
class SeatAt:
    """A seat at its place: its box, its elements, and what is closed when they are in (None where nothing seals)."""

    station: StationSpec
    seat: SeatSpec
    box: Box
    laid: list[Laid]
    closed: Geometry | None


@dataclass(frozen=True)
class Section:
    """One view of a sheet whose questions are answered.

    ``metal`` by part as it is drawn; ``base`` is what closes in the proof besides the seats.
    """

    view: str
    metal: dict[str, Geometry]
    seats: list[SeatAt]
    base: Geometry
    envelope: Geometry
    joined: list[tuple[tuple[float, float], tuple[float, float]]] = field(default_factory=list)

    def free(self, without: str | None = None) -> list[Geometry]:
        """The open spaces with all elements in, or with those of one station taken out."""
        closed = [
            half(shapely.buffer(seat.closed, GROWN, join_style="mitre"))
            for seat in self.seats
            if seat.closed is not None and seat.station.key != without
        ]
        left = shapely.difference(self.envelope, shapely.union_all([self.base, *closed]))
        return [piece for piece in shapely.get_parts(left) if piece.area > 1e-4]


def views_of(sheet: Sheet) -> list[str]:
    """The views of a sheet; one where it names none."""
    return [view.key for view in sheet.views] or [MAIN_VIEW]


def view_of(sheet: Sheet, place: str | None) -> str | None:
    """The first view that a station or a part is drawn in; None for what is not drawn, and where there is but one view."""
    first, *others = views_of(sheet)
    if not others:
        return None
    station = next((other for other in sheet.stations if other.key == place), None)
    part = next((other for other in sheet.parts if other.key == place), None)
    lies_in = [seat.view or first for seat in station.seats] if station else []
    lies_in += [solid.view or first for solid in part.solid] if part else []
    return next(iter(lies_in), None)


def section(sheet: Sheet, view: str) -> Section:
    """The section of an answered sheet in one view."""
    first = views_of(sheet)[0]
    drawn = {part.key: metal_of(part, view, first, proof=False) for part in sheet.parts}
    proof = {part.key: metal_of(part, view, first, proof=True) for part in sheet.parts}
    zones = zones_by_key(sheet)
    seats = [_seat(station, seat, proof, zones) for station, seat in sheet.seats if (seat.view or first) == view]
    cut = shapely.union_all([seat.box.area for seat in seats]) if seats else NOTHING
    shrunk = [half(shapely.buffer(area, -SHRUNK, join_style="mitre")) for area in proof.values() if not area.is_empty]
    shut = [half(shapely.buffer(area, GROWN, join_style="mitre")) for area in shut_in(sheet.parts, view, first)]
    solid = shapely.difference(shapely.union_all(shrunk), cut) if shrunk else NOTHING
    base = shapely.union_all([solid, *shut])
    metal = {key: half(shapely.difference(area, cut)) for key, area in drawn.items() if not area.is_empty}
    bounds = shapely.total_bounds([area for area in (*metal.values(), base) if not area.is_empty] or [box(0, 0, 1, 1)])
    # A seed may lie anywhere round the unit.
    seeds = [seed.at for zone in sheet.zones for seed in zone.all_seeds if (seed.view or first) == view]
    left = min([bounds[0], *(z for z, _ in seeds)])
    right = max([bounds[2], *(z for z, _ in seeds)])
    top = max([bounds[3], *(r for _, r in seeds)])
    around = box(left - _AROUND, 0.0, right + _AROUND, top + _AROUND)
    joined = [(passage.start, passage.end) for passage in passages_in(sheet.parts, view, first)]
    return Section(view, metal, seats, base, around, joined)


def _seat(station: StationSpec, seat: SeatSpec, metal: dict[str, Geometry], zones: dict[str, Zone]) -> SeatAt:
    first, second = (zones[key] for key in station.between)
    # Closed in z the inner zone is listed first: pressed harder from outside, a ring rests on the inner wall.
    rests_inside = seat.kind is SeatKind.FACE and second.rank > first.rank
    counterface = metal.get(station.counterface or "")
    whole = box_of(seat, counterface, rests_inside=rests_inside)
    laid = lay(seat, whole, carrier_inside=seat.kind is SeatKind.PISTON)
    return SeatAt(station, seat, whole, laid, closing(seat, whole, laid))
