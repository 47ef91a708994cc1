"""A sheet that says one thing in two ways: a mark made before it can be, a socket that fits no such nut, a side without a name."""

from __future__ import annotations

import re
from collections.abc import Iterator

from ironkettle.core.base.errors import FieldFault
from ironkettle.core.machine.tightening import Thread, find_thread
from ironkettle.core.sealing.catalogue import KINDS
from ironkettle.core.sheets.document.facts import orientation_of
from ironkettle.core.sheets.document.fastening import FastenerGroup
from ironkettle.core.sheets.document.sheet import Sheet
from ironkettle.core.sheets.document.work import StepSpec

# Usual width across flats of hexagon nuts and bolts by their thread [mm]. Source: ISO 272.
ACROSS_FLATS = {
    3: 5.5, 4: 7, 5: 8, 6: 10, 8: 13, 10: 16, 12: 18, 14: 21, 16: 24, 18: 27, 20: 30, 22: 34, 24: 36, 27: 41, 30: 46,
}  # fmt: skip
# Other series are narrower or wider; beyond this share of the thread no hexagon is. No published source.
_LEAST, _MOST = 1.3, 2.0
_SOCKET = re.compile(r"(?P<size>\d+(?:[.,]\d+)?) mm socket")


def consistency_faults(sheet: Sheet, threads: tuple[Thread, ...]) -> Iterator[FieldFault]:
    """Marks, sockets, threads and sides that contradict one another."""
    groups = {group.key: group for group in sheet.fasteners}
    for index, step in enumerate(sheet.steps):
        yield from _mark_too_early(f"steps.{index}", step, groups)
        yield from _sockets(f"steps.{index}", step, groups, threads)
    yield from _two_threads(sheet, threads)
    yield from _nameless_sides(sheet)
    yield from _burrs(sheet)


def _mark_too_early(path: str, step: StepSpec, groups: dict[str, FastenerGroup]) -> Iterator[FieldFault]:
    """A mark across what the same step tightens afterwards: it would be drawn on a part that does not stand where it will."""
    if step.mark is None or step.stage != "rebuild":
        return
    for place, key in enumerate(step.tightens):
        group = groups.get(key)
        # What is only backed off stood where it belongs when the mark was made.
        turned_on = group is not None and any(not getattr(phase, "back", False) for phase in group.phases)
        if group is not None and turned_on and group.part in step.mark.across:
            text = f"{group.name} is tightened after the mark across it is made: make the mark at a step of its own"
            yield FieldFault(f"{path}.tightens.{place}", text)


def _sockets(
    path: str, step: StepSpec, groups: dict[str, FastenerGroup], threads: tuple[Thread, ...]
) -> Iterator[FieldFault]:
    """A socket that fits the hexagon of none of the threads that are turned with it.

    Bolts and nuts of a grade have the hexagon of their thread; a cap or a fitting may have any.
    """
    turned = [groups[key] for key in (*step.loosens, *step.tightens) if key in groups]
    sizes = {group.key: found.major_diameter for group in turned if (found := _thread(group, threads)) is not None}
    if not sizes or any(group.grade is None or group.key not in sizes for group in turned):
        return
    for place, tool in enumerate(step.tools):
        said = _SOCKET.search(tool)
        flats = float(said["size"].replace(",", ".")) if said else None
        if said is None or flats is None or any(_LEAST <= flats / size <= _MOST for size in sizes.values()):
            continue
        names = " and ".join(sorted({f"{group.name}, {group.thread}" for group in turned if group.thread}))
        usual = tuple(
            f"{ACROSS_FLATS[round(size)]:g} mm socket" for size in sizes.values() if round(size) in ACROSS_FLATS
        )
        yield FieldFault(f"{path}.tools.{place}", f"a {said[0]} fits no hexagon of {names}", usual)


def _thread(group: FastenerGroup, threads: tuple[Thread, ...]) -> Thread | None:
    return None if group.thread is None else find_thread(group.thread, threads, "thread")


def _two_threads(sheet: Sheet, threads: tuple[Thread, ...]) -> Iterator[FieldFault]:
    """One part in two threads, though nothing asks which."""
    seen: dict[str, FastenerGroup] = {}
    for index, group in enumerate(sheet.fasteners):
        if group.thread is None or group.only or group.part is None or group.count > 1:
            continue
        before = seen.setdefault(group.part, group)
        if _thread(before, threads) != _thread(group, threads):
            text = f"{before.name} has {before.thread} on the same part: one of them"
            yield FieldFault(f"fasteners.{index}.thread", text, (str(before.thread),))


def _nameless_sides(sheet: Sheet) -> Iterator[FieldFault]:
    """An element that faces a zone by a side nobody can tell: its kind has no word for it, and neither side nor marks are given."""
    oriented = {
        neighbour.key: neighbour for station in orientation_of(sheet).stations for neighbour in station.elements
    }
    for index, station in enumerate(sheet.stations):
        for place, seat in enumerate(station.seats):
            for at, element in enumerate(seat.elements):
                found = oriented.get(element.key)
                nameless = KINDS[element.kind].word == _NO_WORD and element.side is None and not element.marks
                if found is not None and found.faces is not None and nameless and element.same_as is None:
                    path = f"stations.{index}.seats.{place}.elements.{at}.side"
                    yield FieldFault(path, f"{element.name} faces a zone, and no mark or side tells which face of it")


_NO_WORD = "marked face"


def _burrs(sheet: Sheet) -> Iterator[FieldFault]:
    """A burr is taken off an edge; a hone is for a bore."""
    for index, part in enumerate(sheet.parts):
        for place, point in enumerate(part.points):
            how = point.dress.how if point.dress else None
            if how and re.search(r"\bburr", point.ask, re.IGNORECASE) and re.search(r"\bhone", how, re.IGNORECASE):
                path = f"parts.{index}.points.{place}.dress.how"
                yield FieldFault(path, f"a burr is not honed: {how}", ("oil stone along the edge",))
