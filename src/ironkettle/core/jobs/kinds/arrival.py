"""What was short has come: delivered, or off the shop's own shelf."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from pydantic import Field

from ironkettle.core.base.dates import shown_day
from ironkettle.core.base.errors import fault
from ironkettle.core.jobs.ask import Ask, Choice
from ironkettle.core.jobs.case import Case, OnShelf
from ironkettle.core.jobs.condemned import waits_for_new
from ironkettle.core.jobs.kind import AND_STORES, EntryKind
from ironkettle.core.jobs.kinds.base import ItemKey, Note, Short, known
from ironkettle.core.jobs.kinds.order import ORDERED, is_there, supplied
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.jobs.shelf import shelf_words
from ironkettle.core.jobs.shortage import PART, name_in, shelf_of, shortage_name, shortages
from ironkettle.core.jobs.state import Book, Mark, Payload, State
from ironkettle.core.jobs.task import Draft, Stage, Task, TaskKind
from ironkettle.core.sheets.document.parts import Read

# All that is short is ordered before anybody waits for the first of it.
_TASK = TaskKind("receive", "Record arrival", rank=100, waits="part")


class PartArrived(Payload):
    """``source``: off the shop's own shelf, or delivered; ``serial``: serial or batch of a part that takes a condemned one's place."""

    kind: Literal["part_arrived"] = "part_arrived"
    what: ItemKey
    counted: int = Field(ge=1, le=9999)
    source: Literal["shelf", "delivery"] | None = None
    serial: Short | None = None
    note: Note = ""


CAME: Book[str, PartArrived] = Book("came")
FROM_SHELF: Book[str, PartArrived] = Book("from_shelf")


def _check(case: Case, payload: PartArrived) -> None:
    short = shortages(case)
    known("what", payload.what, short, "missing item")
    if payload.counted > short[payload.what]:
        text = f"{payload.counted} have come, but only {short[payload.what]} were missing"
        raise fault("counted", text, f"up to {short[payload.what]}")
    if payload.what.startswith(PART) and payload.serial is None:
        raise fault("serial", "what serial or batch stands on the new one?", "SN 4711", "none")
    if payload.source == "shelf":
        held = shelf_of(case, payload.what)
        if held is None or held.count < payload.counted:
            text = f"{shortage_name(case, payload.what)}: {shelf_words(held) or 'the shelf has no place for it'}"
            raise fault("source", text, "delivery")


def _apply(state: State, payload: PartArrived, mark: Mark) -> None:
    state.arrived[payload.what] = state.arrived.get(payload.what, 0) + payload.counted
    state.note(CAME, payload.what, payload, mark)
    state.changed[f"back:{payload.what.removeprefix(PART)}"] = mark.seq
    if payload.source == "shelf":
        before = state.get(FROM_SHELF, payload.what)
        total = payload.counted + (before.counted if before else 0)
        state.note(FROM_SHELF, payload.what, payload.model_copy(update={"counted": total}), mark)


def _tasks(case: Case) -> Iterator[Draft]:
    short = shortages(case)
    for place, what in enumerate(supplied(case)):
        missing = short.get(what, 0)
        after = {} if is_there(case, what) else {f"order:{what}": ""}
        part = what.removeprefix(PART) if what.startswith(PART) else None
        yield Draft(
            _receive(case, what, missing, shelf_of(case, what)),
            not missing,
            place=place,
            after=after,
            before={} if part is None else waits_for_new(case, part),
            refusal="short" if part is None else "condemned",
        )


def _receive(case: Case, what: str, missing: int, held: OnShelf | None) -> Task:
    there = held is not None and held.count >= max(missing, 1)
    asks = [Ask("counted", Read.NUMBER, "How many have arrived?", limit=(missing or 1, missing or 1))]
    if there:
        choices = (Choice("shelf", f"from stock: {held.place}" if held else ""), Choice("delivery", "delivered"))
        asks.append(Ask("source", Read.CHOICE, "From where?", choices))
    if what.startswith(PART):
        asks.append(Ask("serial", Read.TEXT, "Serial or batch on it, or “none”"))
    entry = {"kind": "part_arrived", "what": what}
    doing = "Take from stock" if there and not case.state.has(ORDERED, what) else "Receive"
    text = f"{doing}: {shortage_name(case, what)}{f', {missing} missing' if missing else ''}"
    return Task(f"receive:{what}", Stage.KIT, _TASK, what, text, entry, asks=tuple(asks), shows=shelf_words(held))


def _words(resolved: Resolved, payload: PartArrived) -> str:
    note = f": {payload.note}" if payload.note else ""
    how = "taken from stock" if payload.source == "shelf" else "come"
    serial = f", serial or batch {payload.serial}" if payload.serial else ""
    return f"{name_in(resolved, payload.what)}: {payload.counted} {how}{serial}{note}"


def _remarks(case: Case) -> Iterator[str]:
    """For each condemned part: when the new one was ordered, when it came, what stands on it."""
    for what, marked in case.state.book(CAME).items():
        part = case.resolved.parts.get(what.removeprefix(PART)) if what.startswith(PART) else None
        if part is None:
            continue
        ordered = case.state.book(ORDERED).get(what)
        since = f" ordered {shown_day(ordered.mark.when)}," if ordered else ""
        serial = f", serial or batch {marked.value.serial}" if marked.value.serial else ""
        yield f"{part.name}: condemned; the new one was{since} received {shown_day(marked.mark.when)}{serial}."


KIND = EntryKind(
    payload=PartArrived,
    check=_check,
    apply=_apply,
    words=_words,
    tasks=_tasks,
    completes="receive:{what}",
    writers=AND_STORES,
    remarks=_remarks,
)
