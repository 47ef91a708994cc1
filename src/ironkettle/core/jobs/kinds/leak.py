"""Where it is wet, picked on the drawing before anything is opened: the stations that can let it there, nearest first."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from ironkettle.core.jobs.ask import Ask, Choice
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kind import EntryKind, keep
from ironkettle.core.jobs.kinds.base import ItemKey, Note, known
from ironkettle.core.jobs.kinds.intake import OBSERVE
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.jobs.state import Book, Payload
from ironkettle.core.jobs.task import Draft, Stage, Task
from ironkettle.core.sealing.facing import ZoneKind
from ironkettle.core.sheets.document.parts import Read
from ironkettle.core.sheets.drawing.leaks import LeakPath

DRY = "none"
# Where a leak is seen from outside.
_SEEN_IN = frozenset({ZoneKind.ATMOSPHERE, ZoneKind.DRAIN})


class LeakSeen(Payload):
    """``zone``: where it is seen; *none* where nothing is wet or blows."""

    kind: Literal["leak_seen"] = "leak_seen"
    zone: ItemKey
    note: Note = ""


LEAK: Book[str, LeakSeen] = Book("leak")
_ONLY = "leak"


@dataclass(frozen=True, slots=True)
class Suspect:
    """A station that can let the leak there: how many stations it lies behind, and what to look at in it."""

    station: str
    name: str
    distance: int
    source: str
    look: str


def _check(case: Case, payload: LeakSeen) -> None:
    known("zone", payload.zone, [DRY, *(zone.key for zone in case.resolved.sheet.zones)], "zone")


def suspects(case: Case) -> tuple[Suspect, ...]:
    """The stations whose failure would let what was seen get there, nearest first; none while nothing was seen."""
    seen = case.state.get(LEAK, "leak")
    if seen is None or seen.zone == DRY:
        return ()
    found: dict[str, Suspect] = {}
    for path in case.resolved.leaks.get(seen.zone, ()):
        for distance, key in enumerate(reversed(path.stations), start=1):
            if key not in found:
                found[key] = _suspect(case, key, distance, path)
    return tuple(sorted(found.values(), key=lambda exit_found: exit_found.distance))


def _suspect(case: Case, key: str, distance: int, path: LeakPath) -> Suspect:
    station = case.resolved.stations[key]
    names = [element.name for seat in station.seats for element in seat.elements if element.same_as is None]
    source = case.resolved.zone_names[path.source]
    look = f"look at {', '.join(names)}" if names else "look at its faces"
    return Suspect(key, station.name, distance, source, look)


def suspicions(case: Case) -> dict[str, str]:
    """Why each suspected station is looked at with care, in words."""
    seen = case.state.get(LEAK, "leak")
    if seen is None:
        return {}
    where = case.resolved.zone_names.get(seen.zone, seen.zone)
    return {suspect.station: f"suspect: the leak to {where} may have come through here" for suspect in suspects(case)}


def _drafts(case: Case) -> Iterator[Draft]:
    if case.resolved.quick_service is not None:
        return
    zones = [zone for zone in case.resolved.sheet.zones if zone.kind in _SEEN_IN]
    ways = [zone for zone in zones if case.resolved.leaks[zone.key]]
    if not ways:
        return
    inside = [zone for zone in case.resolved.sheet.zones if zone.kind is ZoneKind.PRESSURE]
    choices = (
        Choice(DRY, "nowhere: dry outside"),
        *(Choice(zone.key, zone.name) for zone in ways),
        *(Choice(zone.key, f"inside, into {zone.name}") for zone in inside if case.resolved.leaks[zone.key]),
    )
    task = Task(
        "leak",
        Stage.AS_FOUND,
        OBSERVE,
        "leak",
        "Where is it wet, or where does it blow?",
        {"kind": "leak_seen"},
        why="it points to the places to check before anything is opened",
        asks=(
            Ask("zone", Read.CHOICE, "It is seen in", choices),
            Ask("note", Read.TEXT, "What is seen", optional=True),
        ),
    )
    yield Draft(task, case.state.has(LEAK, "leak"))


def _words(resolved: Resolved, payload: LeakSeen) -> str:
    seen = "nothing wet" if payload.zone == DRY else f"leak seen: {resolved.zone_names.get(payload.zone, payload.zone)}"
    return f"{seen}{f', {payload.note}' if payload.note else ''}"


KIND = EntryKind(
    payload=LeakSeen,
    check=_check,
    apply=keep(LEAK, lambda payload: _ONLY),
    words=_words,
    tasks=_drafts,
    completes="leak",
)
