"""Waste disposed of."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kind import EntryKind, keep
from ironkettle.core.jobs.kinds.base import ask_yes, check_confirmed
from ironkettle.core.jobs.state import Book, Payload
from ironkettle.core.jobs.task import Draft, Stage, Task, TaskKind

_TASK = TaskKind("dispose", "Done")


class Disposed(Payload):
    kind: Literal["disposed"] = "disposed"
    done: bool


DISPOSED: Book[str, Disposed] = Book("disposed")
_ONLY = "disposed"


def _check(case: Case, payload: Disposed) -> None:
    check_confirmed("done", payload.done, "say when it is done")


def _tasks(case: Case) -> Iterator[Draft]:
    if case.resolved.sheet.disposal:
        where = "; ".join(f"{waste.what} to the {waste.where}" for waste in case.resolved.sheet.disposal)
        asks = (ask_yes("done", f"{where}?"),)
        task = Task("dispose", Stage.RELEASE, _TASK, "waste", f"Dispose: {where}", {"kind": "disposed"}, asks=asks)
        yield Draft(task, case.state.has(DISPOSED, _ONLY))


KIND = EntryKind(
    payload=Disposed,
    check=_check,
    apply=keep(DISPOSED, lambda payload: _ONLY),
    words=lambda resolved, payload: "waste disposed of",
    tasks=_tasks,
    completes="dispose",
)
