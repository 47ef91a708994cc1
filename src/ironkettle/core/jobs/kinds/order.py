"""What is short ordered."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.inspecting import Verdict
from ironkettle.core.jobs.kind import AND_STORES, EntryKind, Line, Section, keep
from ironkettle.core.jobs.kinds.base import ItemKey, Note, known
from ironkettle.core.jobs.kinds.inspection import standing
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.jobs.shelf import shelf_words
from ironkettle.core.jobs.shelf_items import for_line
from ironkettle.core.jobs.shortage import PART, name_in, shelf_of, shortage_name, shortages
from ironkettle.core.jobs.state import Book, Payload
from ironkettle.core.jobs.task import Draft, Stage, Task, TaskKind

_TASK = TaskKind("order", "Done")


class PartOrdered(Payload):
    """``what``: a kit line, or ``part-`` and the part's key."""

    kind: Literal["part_ordered"] = "part_ordered"
    what: ItemKey
    note: Note = ""


ORDERED: Book[str, PartOrdered] = Book("ordered")


def _check(case: Case, payload: PartOrdered) -> None:
    known("what", payload.what, shortages(case), "missing item")


@dataclass(frozen=True, slots=True)
class Shortage:
    """A line of the order list: what entries call it, its name, how many are missing, whether they are ordered, what the
    shelf has of it."""

    what: str
    name: str
    missing: int
    ordered: bool
    shelf: str | None


def short_of(case: Case) -> tuple[Shortage, ...]:
    """What is still missing in a job, as the order list shows it."""
    return tuple(
        Shortage(
            what, shortage_name(case, what), missing, case.state.has(ORDERED, what), shelf_words(shelf_of(case, what))
        )
        for what, missing in shortages(case).items()
    )


def supplied(case: Case) -> list[str]:
    """Every item that is missing, was ordered or has come, in the order of the sheet."""
    return list(dict.fromkeys([*shortages(case), *case.state.book(ORDERED), *case.state.arrived]))


def is_there(case: Case, what: str) -> bool:
    """Whether it lies on the shop's own shelf, is taken from there, and not ordered."""
    held = shelf_of(case, what)
    return held is not None and held.count >= shortages(case).get(what, 0) and not case.state.has(ORDERED, what)


def _tasks(case: Case) -> Iterator[Draft]:
    short = shortages(case)
    for place, what in enumerate(supplied(case)):
        if not is_there(case, what):
            done = case.state.has(ORDERED, what) or not short.get(what, 0)
            yield Draft(_order(case, what, short.get(what, 0)), done, place=place)


def _order(case: Case, what: str, missing: int) -> Task:
    entry = {"kind": "part_ordered", "what": what}
    line = case.resolved.kit_lines.get(what)
    shelf = shelf_words(for_line(case, line)) if line else None
    many = f"{missing} × " if missing else ""
    sent_out = what.startswith(PART) and standing(case, what.removeprefix(PART)) is Verdict.SEND_OUT
    text = f"Order {'the work on ' if sent_out else ''}{many}{shortage_name(case, what)}"
    return Task(f"order:{what}", Stage.KIT, _TASK, what, text, entry, shows=shelf)


def _words(resolved: Resolved, payload: PartOrdered) -> str:
    return f"{name_in(resolved, payload.what)}: ordered{f': {payload.note}' if payload.note else ''}"


def _hand_over(case: Case) -> Iterator[Line]:
    for short in short_of(case):
        state = "ordered, not arrived" if short.ordered else "not ordered yet"
        yield Line(Section.WAITS, f"{short.missing} × {short.name}: {state}", caution=not short.ordered)


def _against(case: Case, tasks: Sequence[Task]) -> Iterator[str]:
    for what, missing in shortages(case).items():
        yield f"{shortage_name(case, what)}: {missing} missing and not delivered by the end."


KIND = EntryKind(
    payload=PartOrdered,
    check=_check,
    apply=keep(ORDERED, lambda payload: payload.what),
    words=_words,
    tasks=_tasks,
    completes="order:{what}",
    writers=AND_STORES,
    against=_against,
    hand_over=_hand_over,
)
