"""Tray and kit accounted for, before a unit is signed."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from ironkettle.core.base.errors import fault
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.inspecting import Verdict
from ironkettle.core.jobs.kind import EntryKind, keep
from ironkettle.core.jobs.kinds.base import Note, ask_yes
from ironkettle.core.jobs.kinds.inspection import standing
from ironkettle.core.jobs.kinds.kit_count import KITS
from ironkettle.core.jobs.kinds.step import renewed
from ironkettle.core.jobs.kinds.take_apart import apart_since
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.jobs.state import Book, Payload, State
from ironkettle.core.jobs.task import Draft, Stage, Task, TaskKind

_TASK = TaskKind("account", "Accounted for")


class Accounted(Payload):
    """``tray``: nothing left in it but what is to be scrapped; ``kit``: nothing left of it but what was not used."""

    kind: Literal["accounted"] = "accounted"
    tray: bool
    kit: bool
    note: Note = ""


ACCOUNTED: Book[str, Accounted] = Book("accounted")
_ONLY = "accounted"


def forget_account(state: State) -> None:
    """A job that is opened again is counted again."""
    state.drop(ACCOUNTED, _ONLY)


def _check(case: Case, payload: Accounted) -> None:
    if not payload.tray:
        raise fault("tray", f"what is left in the tray belongs on the unit or to scrap: {_tray_words(case)}", "yes")
    if not payload.kit and not payload.note:
        raise fault("kit", f"parts of the kit are left over; only these may be: {_left_words(case)}", "yes")


def _tasks(case: Case) -> Iterator[Draft]:
    rebuilt = {f"step:{step.key}": "" for step in case.resolved.sheet.steps if step.stage == "rebuild"}
    account = Task(
        "account",
        Stage.RELEASE,
        _TASK,
        "tray and kit",
        f"Tray and kit accounted for: {_tray_words(case)}; {_left_words(case)}",
        {"kind": "accounted"},
        why="a part left over is a part left out",
        asks=(ask_yes("tray", f"Tray: {_tray_words(case)}?"), ask_yes("kit", f"Kit: {_left_words(case)}?")),
    )
    counted = case.state.book(ACCOUNTED).get(_ONLY)
    # A quick service without a kit, whose parts all went back on, has nothing to count.
    if case.resolved.quick_service is None or case.resolved.sheet.kits:
        yield Draft(account, counted is not None and not apart_since(case, counted.mark.seq), after=rebuilt)


def _tray_words(case: Case) -> str:
    """What of what came off does not go back on."""
    resolved = case.resolved
    on = {part for step in resolved.sheet.steps if step.stage == "rebuild" for part in step.puts_on}
    off = [part for step in resolved.sheet.steps for part in step.takes_off if part in resolved.parts]
    condemned = {Verdict.REPLACE, Verdict.SEND_OUT}
    scrap = [
        resolved.parts[key].name.lower()
        for key in off
        if key not in on or renewed(resolved, key) or standing(case, key) in condemned
    ]
    return f"only old parts for scrap are left ({', '.join(scrap)})" if scrap else "it is empty"


def _left_words(case: Case) -> str:
    lines = case.resolved.kit_lines
    unused = [
        lines[one.line].name
        for marked in case.state.book(KITS).values()
        for one in marked.value.lines
        if not one.used and one.counted and one.line in lines
    ]
    return f"only {', '.join(unused)} is left over, not used" if unused else "nothing is left over"


def _words(resolved: Resolved, payload: Accounted) -> str:
    return f"tray and kit accounted for{f': {payload.note}' if payload.note else ''}"


KIND = EntryKind(
    payload=Accounted,
    check=_check,
    apply=keep(ACCOUNTED, lambda one: _ONLY),
    words=_words,
    tasks=_tasks,
    completes="account",
)
