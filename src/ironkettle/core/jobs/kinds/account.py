"""Tray and kit accounted for, before a unit is signed."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from pydantic import Field, JsonValue

from ironkettle.core.base.errors import fault
from ironkettle.core.jobs.ask import Ask, Choice
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kind import EntryKind, keep
from ironkettle.core.jobs.kinds.base import ItemKey, Note, ask_yes, check_confirmed, known
from ironkettle.core.jobs.kinds.kit_count import KITS
from ironkettle.core.jobs.kinds.take_apart import apart_since
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.jobs.screen import AllAsShould, PlainScreen, Screen
from ironkettle.core.jobs.state import Book, Payload, State
from ironkettle.core.jobs.task import Draft, Stage, Task, TaskKind
from ironkettle.core.jobs.tray import scrapped
from ironkettle.core.sheets.document.parts import Read


def _screen(case: Case, task: Task) -> Screen:
    values: dict[str, JsonValue] = {"tray": True, "kit": True}
    # One tap for who has looked; where what is left over goes is answered before it.
    as_shown = AllAsShould(words="Tray and kit are as shown", values=values, focus=False)
    return PlainScreen(in_line=False, as_should=as_shown, tray=True)


_TASK = TaskKind("account", "Accounted for", screen=_screen)


class LeftOver(Payload):
    """A line of a kit that this unit has no use for, and where it goes."""

    line: ItemKey
    goes: Literal["stock", "unit", "scrap"]


class Accounted(Payload):
    """``tray``: nothing left in it but what is to be scrapped; ``kit``: nothing left of it but what was not used; ``left``: where that goes."""

    kind: Literal["accounted"] = "accounted"
    tray: bool
    kit: bool
    left: list[LeftOver] = Field(default_factory=list, max_length=60)
    note: Note = ""


ACCOUNTED: Book[str, Accounted] = Book("accounted")
_ONLY = "accounted"
# Where what is left over goes.
_GOES = {"stock": "into the shop's stock", "unit": "with the unit", "scrap": "to scrap"}


def forget_account(state: State) -> None:
    """A job that is opened again is counted again."""
    state.drop(ACCOUNTED, _ONLY)


def _check(case: Case, payload: Accounted) -> None:
    left_in_tray = f"what is left in the tray belongs on the unit or to scrap: {_tray_words(case)}"
    check_confirmed("tray", payload.tray, left_in_tray)
    if not payload.note:
        check_confirmed("kit", payload.kit, f"parts of the kit are left over; only these may be: {_left_words(case)}")
    left = _left(case)
    for index, item in enumerate(payload.left):
        known(f"left.{index}.line", item.line, left, "line of a kit that is left over")
        if item.line in {before.line for before in payload.left[:index]}:
            raise fault(f"left.{index}.line", f"{left[item.line]} is told twice: say once where it goes")
    for key, name in left.items():
        if key not in {item.line for item in payload.left}:
            raise fault("left", f"{name} is left over: say where it goes", *_GOES)


def _tasks(case: Case) -> Iterator[Draft]:
    rebuilt = {f"step:{step.key}": "" for step in case.resolved.sheet.steps if step.stage == "rebuild"}
    account = Task(
        "account",
        Stage.RELEASE,
        _TASK,
        "tray and kit",
        "Tray and kit accounted for",
        {"kind": "accounted", "left": [{"line": key} for key in _left(case)]},
        why="a part left over is a part left out",
        asks=(
            ask_yes("tray", f"Tray: {_tray_words(case)}?"),
            ask_yes("kit", f"Kit: {_left_words(case)}?"),
            *(_ask_left(index, name) for index, name in enumerate(_left(case).values())),
        ),
    )
    counted = case.state.book(ACCOUNTED).get(_ONLY)
    # A quick service without a kit, whose parts all went back on, has nothing to count.
    if case.resolved.quick_service is None or case.resolved.sheet.kits:
        yield Draft(account, counted is not None and not apart_since(case, counted.mark.seq), after=rebuilt)


def _tray_words(case: Case) -> str:
    """What of what came off does not go back on."""
    scrap = [case.resolved.parts[key].name.lower() for key in scrapped(case)]
    return f"only old parts for scrap are left ({', '.join(scrap)})" if scrap else "it is empty"


def _left(case: Case) -> dict[str, str]:
    """The names of the lines of a kit that are left over: alternatives that another answer of this unit rules out, or that were not used."""
    needed = {line.key for kit in case.resolved.sheet.kits for line in kit.lines}
    ruled_out = {
        line.key: line.name
        for kit in case.resolved.whole.kits
        for line in kit.lines
        if line.key not in needed and line.alternative_group is not None and not line.not_in_kit
    }
    lines = case.resolved.kit_lines
    unused = {
        line.line: lines[line.line].name
        for marked in case.state.book(KITS).values()
        for line in marked.value.lines
        if not line.used and line.counted and line.line in lines
    }
    return ruled_out | unused


def _ask_left(index: int, name: str) -> Ask:
    choices = tuple(Choice(key, says[0].upper() + says[1:]) for key, says in _GOES.items())
    return Ask(f"left.{index}.goes", Read.CHOICE, f"{name[0].upper()}{name[1:]}, not used: where does it go?", choices)


def _left_words(case: Case) -> str:
    unused = list(_left(case).values())
    return f"only {', '.join(unused)} is left over, not used" if unused else "nothing is left over"


def _line_name(resolved: Resolved, key: str) -> str:
    return next((line.name for kit in resolved.whole.kits for line in kit.lines if line.key == key), key)


def _words(resolved: Resolved, payload: Accounted) -> str:
    left = "".join(f"; {_line_name(resolved, item.line)} not used, {_GOES[item.goes]}" for item in payload.left)
    return f"tray and kit accounted for{left}{f': {payload.note}' if payload.note else ''}"


def _remarks(case: Case) -> Iterator[str]:
    for marked in case.state.book(ACCOUNTED).values():
        for item in marked.value.left:
            yield f"Not used: {_line_name(case.resolved, item.line)}, {_GOES[item.goes]}."


KIND = EntryKind(
    payload=Accounted,
    check=_check,
    apply=keep(ACCOUNTED, lambda payload: _ONLY),
    words=_words,
    tasks=_tasks,
    completes="account",
    remarks=_remarks,
)
