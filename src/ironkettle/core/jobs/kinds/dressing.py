"""A part dressed as its point says; it is read again after that."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.inspecting import Verdict, may_dress
from ironkettle.core.jobs.kind import EntryKind
from ironkettle.core.jobs.kinds.base import ItemKey, Note, delicate_of, known
from ironkettle.core.jobs.kinds.inspection import POINTS, changed_since, reading_steps, standing
from ironkettle.core.jobs.kinds.step import STEP
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.jobs.state import Book, Mark, Payload, State
from ironkettle.core.jobs.task import Draft, Stage, Task
from ironkettle.core.sheets.document.parts import PartSpec


class PartDressed(Payload):
    """A part dressed as its point says; it is read again after that."""

    kind: Literal["part_dressed"] = "part_dressed"
    part: ItemKey
    note: Note = ""


DRESSED: Book[str, PartDressed] = Book("dressed")


def _check(case: Case, payload: PartDressed) -> None:
    known("part", payload.part, case.resolved.parts, "part")


def _apply(state: State, payload: PartDressed, mark: Mark) -> None:
    state.note(DRESSED, payload.part, payload, mark)
    state.changed[f"part:{payload.part}"] = mark.seq


def _tasks(case: Case) -> Iterator[Draft]:
    for part in case.resolved.sheet.parts:
        read = case.state.book(POINTS).get(part.key)
        to_dress = read is not None and standing(case, part.key) is Verdict.DRESS
        if read is not None and to_dress and not changed_since(case, part.key, read.mark):
            step = next(iter(reading_steps(case, part.key)), None)
            yield Draft(_dress(case, part), step=step, after={f"measure:{part.key}": ""})


def _dress(case: Case, part: PartSpec) -> Task:
    ways = [point.dress for point in part.points if point.dress and may_dress(case, point)]
    how = "; ".join(way.how for way in ways if way.how) or "dress it"
    return Task(
        f"dress:{part.key}",
        Stage.INSPECT,
        STEP,
        part.key,
        f"Dress the {part.name.lower()}: {how}",
        {"kind": "part_dressed", "part": part.key},
        caution=next((way.caution for way in ways if way.caution), None),
        shows="; ".join(f"drawback: {way.costs}" for way in ways if way.costs) or None,
        delicate=delicate_of([part]),
        place=part.key,
    )


def _words(resolved: Resolved, payload: PartDressed) -> str:
    part = resolved.parts.get(payload.part)
    return f"{part.name if part else payload.part} dressed{f': {payload.note}' if payload.note else ''}"


KIND = EntryKind(payload=PartDressed, check=_check, apply=_apply, words=_words, tasks=_tasks, completes="dress:{part}")
