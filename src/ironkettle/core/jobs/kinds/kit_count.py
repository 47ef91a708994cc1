"""The kit counted in one go."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from pydantic import Field, JsonValue

from ironkettle.core.base.errors import fault
from ironkettle.core.base.json import JsonObject
from ironkettle.core.jobs.ask import Ask
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kind import AND_STORES, EntryKind
from ironkettle.core.jobs.kinds.base import ItemKey, Note, Short, known
from ironkettle.core.jobs.kinds.take_apart import undone
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.jobs.screen import AllAsShould, PlainScreen, Screen
from ironkettle.core.jobs.shelf import for_kit, shelf_words
from ironkettle.core.jobs.shelf_items import for_line
from ironkettle.core.jobs.state import Book, Mark, Payload, State
from ironkettle.core.jobs.task import Draft, Stage, Task, TaskKind
from ironkettle.core.sheets.document.parts import Read
from ironkettle.core.sheets.document.supplies import Kit, KitLine


def _screen(case: Case, task: Task) -> Screen:
    kit = next((listed for listed in case.resolved.sheet.kits if listed.number == task.subject), None)
    return PlainScreen(in_line=True, as_should=None if kit is None else _as_listed(kit))


def _as_listed(kit: Kit) -> AllAsShould:
    """One tap for who has counted and found what is listed; what is in no bag is none."""
    there = {index: 0 if line.not_in_kit else line.count for index, line in enumerate(kit.lines)}
    values: dict[str, JsonValue] = {f"lines.{index}.counted": str(count) for index, count in there.items()}
    return AllAsShould(words="Counted, all as listed", values=values, focus=False)


# So many times what is needed is counted in a bag at most without a word.
_MOST = 2
_TASK = TaskKind("count", "Kit counted", screen=_screen)


class LineCounted(Payload):
    """``used``: False for the one of several alternatives that is not needed."""

    line: ItemKey
    counted: int = Field(ge=0, le=9999)
    used: bool = True


class KitCounted(Payload):
    """``batch``: what stands on the bag beside its number, a batch or a date."""

    kind: Literal["kit_counted"] = "kit_counted"
    kit: str = Field(min_length=1, max_length=600)
    lines: list[LineCounted] = Field(min_length=1, max_length=400)
    batch: Short | None = None
    note: Note = ""


KITS: Book[str, KitCounted] = Book("kits")


def _check_count(case: Case, payload: KitCounted) -> None:
    kits = {kit.number: kit for kit in case.resolved.sheet.kits}
    if payload.kit not in kits:
        raise fault("kit", f"“{payload.kit}” is not a kit of this build sheet", *kits)
    lines = {line.key: line for line in kits[payload.kit].lines}
    for index, count in enumerate(payload.lines):
        known(f"lines.{index}.line", count.line, lines, "line of this kit")
        most = _MOST * lines[count.line].count
        if count.counted > most and not payload.note:
            text = f"{lines[count.line].name}: {count.counted} counted, {lines[count.line].count} needed; count again, or confirm it in the note"
            raise fault(f"lines.{index}.counted", text, f"0 to {most}")
        if not count.used and lines[count.line].alternative_group is None:
            raise fault(f"lines.{index}.used", f"{lines[count.line].name} has no alternative; it is used or ordered")
    missing = [line.name for key, line in lines.items() if key not in {line.line for line in payload.lines}]
    if missing:
        raise fault("lines", f"not counted: {missing[0]}")


def _apply(state: State, payload: KitCounted, mark: Mark) -> None:
    # Lines that were counted one by one are kept together.
    before = state.get(KITS, payload.kit)
    counted = {count.line for count in payload.lines}
    kept = [count for count in before.lines if count.line not in counted] if before else []
    # What is counted now is what is there, whatever came before.
    for line in counted:
        state.arrived.pop(line, None)
    batch = payload.batch or (before.batch if before else None)
    whole = payload.model_copy(update={"lines": [*kept, *payload.lines], "batch": batch})
    state.note(KITS, payload.kit, whole, mark)


def _tasks(case: Case) -> Iterator[Draft]:
    resolved = case.resolved
    for kit in resolved.sheet.kits:
        questions = {q for line in _whole_lines(resolved, kit) for q in line.only if q in resolved.open_questions}
        after = {f"answer:{question}": "" for question in questions}
        yield Draft(_count(case, kit), _counted(case, kit), after=after)


def _counted(case: Case, kit: Kit) -> bool:
    marked = case.state.book(KITS).get(kit.number)
    if marked is None or undone(case, "kits", kit.number, marked.mark):
        return False
    counted = marked.value
    return {line.key for line in kit.lines} <= {line.line for line in counted.lines}


def _whole_lines(resolved: Resolved, kit: Kit) -> list[KitLine]:
    return next((listed.lines for listed in resolved.whole.kits if listed.number == kit.number), kit.lines)


def _count(case: Case, kit: Kit) -> Task:
    lines: list[JsonObject] = []
    asks: list[Ask] = []
    groups: set[str] = set()
    for index, line in enumerate(kit.lines):
        first = line.alternative_group is None or line.alternative_group not in groups
        groups.add(line.alternative_group or "")
        lines.append({"line": line.key, "used": first})
        source = "to be ordered, not in the kit" if line.not_in_kit else None
        hint = "; ".join(part for part in (source, shelf_words(for_line(case, line))) if part) or None
        label = f"{line.name}: {line.count} {'needed' if first else 'if used'}"
        # From none to twice what is needed: the middle is what should be there.
        asks.append(Ask(f"lines.{index}.counted", Read.NUMBER, label, limit=(0, _MOST * line.count), hint=hint))
    asks.append(Ask("batch", Read.TEXT, "Batch or date on the bag", optional=True))
    return Task(
        f"count:{kit.number}",
        Stage.KIT,
        _TASK,
        kit.number,
        f"Count the kit {kit.number}, {kit.name}",
        {"kind": "kit_counted", "kit": kit.number, "lines": lines},
        why="nothing new is fitted until everything is there",
        asks=tuple(asks),
        shows=shelf_words(for_kit(case, kit)),
    )


def _words(resolved: Resolved, payload: KitCounted) -> str:
    names = {key: line.name for key, line in resolved.kit_lines.items()}
    counted = ", ".join(
        f"{names.get(line.line, line.line)} {line.counted}{'' if line.used else ' (not used)'}"
        for line in payload.lines
    )
    batch = f", batch {payload.batch}" if payload.batch else ""
    return f"kit {payload.kit}{batch} counted: {counted}{f': {payload.note}' if payload.note else ''}"


KIND = EntryKind(
    payload=KitCounted,
    check=_check_count,
    apply=_apply,
    words=_words,
    tasks=_tasks,
    completes="count:{kit}",
    writers=AND_STORES,
)
