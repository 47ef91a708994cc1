"""The proof of a sheet's geometry, for every combination of answers that changes it."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field

import shapely

from ironkettle.core.base.errors import FieldFault, RuleError
from ironkettle.core.sealing.facing import ZoneKind
from ironkettle.core.sheets.document.answers import answered, geometry_answers
from ironkettle.core.sheets.document.places import SeatKind
from ironkettle.core.sheets.document.sheet import Sheet
from ironkettle.core.sheets.document.solids import Outline
from ironkettle.core.sheets.drawing.lanterns import lantern_faults
from ironkettle.core.sheets.drawing.section import Section, section, views_of
from ironkettle.core.sheets.drawing.zones import Spaces, spaces_of, station_faults

MOST_COMBINATIONS = 96
# Corners of all solids times combinations of answers: what is finer takes too long to prove.
MOST_CORNERS = 40_000
_CORNERS_OF_A_PRIMITIVE = 12
# How far a groove may lie from the metal it is cut in. [mm]
_IN_METAL = 0.06
_GROOVED = frozenset({SeatKind.PISTON, SeatKind.ROD, SeatKind.FACE})


@dataclass
class Proof:
    """``area``: of each zone in the first combination of answers, over all views [mm²]; ``parting``: stations that were tried."""

    faults: list[FieldFault] = field(default_factory=list)
    area: dict[str, float] = field(default_factory=dict)
    parting: dict[str, bool] = field(default_factory=dict)


def prove(sheet: Sheet) -> Proof:
    """Find the zones of every view under every combination of answers, and what is wrong with them.

    Raises nothing; more combinations than can be proved are a fault of the sheet.
    """
    proof = Proof()
    try:
        combinations = geometry_answers(sheet, MOST_COMBINATIONS)
    except RuleError as error:
        proof.faults += error.faults
        return proof
    corners = _corners(sheet)
    if corners * len(combinations) > MOST_CORNERS:
        text = f"the drawing is too fine to be proved: {corners} corners in {len(combinations)} combinations of answers"
        proof.faults.append(FieldFault("parts", text, (f"up to {MOST_CORNERS} in all",)))
        return proof
    for number, answers in enumerate(combinations):
        suffix = f" ({', '.join(f'{q}: {a}' for q, a in answers.items())})" if answers else ""
        reduced = answered(sheet, answers)
        found = list(_prove_one(reduced, proof, first=number == 0))
        known = {fault.message for fault in proof.faults}
        proof.faults += [
            FieldFault(_path(sheet, reduced, fault.field), fault.message + suffix, fault.accepts)
            for fault in found
            if fault.message not in known
        ]
        if found:
            break
    return proof


def _corners(sheet: Sheet) -> int:
    """How many corners all solids of a sheet have. [-]"""
    bodies = [body for part in sheet.parts for solid in part.solid for body in (solid.body, *solid.cut)]
    return sum(len(body.points) if isinstance(body, Outline) else _CORNERS_OF_A_PRIMITIVE for body in bodies)


def _path(sheet: Sheet, reduced: Sheet, path: str) -> str:
    """The path in the whole sheet of a place in the one that the answers left."""
    names = path.split(".")
    if len(names) < 2 or names[0] not in {"zones", "stations"}:
        return path
    items, whole = getattr(reduced, names[0]), getattr(sheet, names[0])
    item = items[int(names[1])]
    place = next(index for index, station in enumerate(whole) if station.key == item.key)
    if len(names) > 3 and names[2] == "seats":
        seat = item.seats[int(names[3])]
        names[3] = str(
            next(i for i, other in enumerate(whole[place].seats) if (other.kind, other.at) == (seat.kind, seat.at))
        )
    return ".".join([names[0], str(place), *names[2:]])


def _prove_one(sheet: Sheet, proof: Proof, *, first: bool) -> Iterator[FieldFault]:
    views = views_of(sheet)
    seen: set[str] = set()
    for view in views:
        drawn = section(sheet, view)
        if not drawn.metal and not drawn.seats:
            continue
        yield from _groove_faults(sheet, drawn)
        spaces = spaces_of(sheet, drawn, views[0])
        seen |= set(spaces.zones)
        yield from spaces.faults
        if spaces.faults:
            continue
        faults = list(station_faults(sheet, drawn, spaces))
        yield from faults
        yield from lantern_faults(sheet, drawn, spaces)
        if first:
            _note(proof, drawn, spaces, {fault.field for fault in faults}, sheet)
    for index, zone in enumerate(sheet.zones):
        placed = zone.key in seen or zone.all_seeds or zone.kind is ZoneKind.ATMOSPHERE
        if not placed and any(part.solid for part in sheet.parts):
            yield FieldFault(
                f"zones.{index}.seed", f"{zone.name} has no place in the drawing; give a point that lies in it"
            )


def _note(proof: Proof, drawn: Section, spaces: Spaces, faulty: set[str], sheet: Sheet) -> None:
    for key, area in spaces.zones.items():
        proof.area[key] = proof.area.get(key, 0.0) + float(area.area)
    for index, station in enumerate(sheet.stations):
        if any(seat.station.key == station.key and seat.closed is not None for seat in drawn.seats):
            proof.parting[station.key] = f"stations.{index}.between" not in faulty


def _groove_faults(sheet: Sheet, drawn: Section) -> Iterator[FieldFault]:
    """Grooves that lie outside the part they are said to be cut in."""
    paths = {
        (station.key, place): f"stations.{index}.seats.{place}"
        for index, station in enumerate(sheet.stations)
        for place in range(len(station.seats))
    }
    names = {part.key: part.name for part in sheet.parts}
    for seat in drawn.seats:
        carrier = drawn.metal.get(seat.station.carrier or "")
        if carrier is None or seat.seat.kind not in _GROOVED:
            continue
        place = next(i for i, other in enumerate(seat.station.seats) if other is seat.seat)
        path = paths[seat.station.key, place]
        if carrier.distance(seat.box.area) > _IN_METAL:
            yield FieldFault(f"{path}.at", f"the groove lies outside {names[seat.station.carrier or '']}")
        elif shapely.intersection(shapely.buffer(seat.box.area, 0.3), carrier).area < 0.05 * seat.box.area.area:
            yield FieldFault(f"{path}.at", f"the groove barely touches {names[seat.station.carrier or '']}")
