"""What takes time is begun, and is over when the server's clock has run it; cut short only by a lead, with a reason."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Literal

from pydantic import Field

from ironkettle.core.base.errors import NotAllowedError, RefusedError, fault
from ironkettle.core.base.json import JsonObject
from ironkettle.core.base.quantities import seconds_words, stated_seconds
from ironkettle.core.jobs.ask import Ask
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kind import EntryKind, Line, Section, keep
from ironkettle.core.jobs.kinds.step import STEPS
from ironkettle.core.jobs.kinds.timer_cut import Running
from ironkettle.core.jobs.proven import worked_since
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.jobs.state import Book, Mark, Payload
from ironkettle.core.sheets.document.parts import Read
from ironkettle.core.sheets.document.trials import Observation
from ironkettle.core.shop.people import Role

# What a field asks for that closes something before its time.
CUT_SHORT = Ask("cut_short", Read.TEXT, "Cut short by the lead: why?", optional=True)


class TaskBegun(Payload):
    """``task``: the key of the test or look that begins; its time runs from here."""

    kind: Literal["task_begun"] = "task_begun"
    task: str = Field(min_length=1, max_length=160)


BEGUN: Book[str, TaskBegun] = Book("begun")


@dataclass(frozen=True, slots=True)
class Lasting:
    """A task that takes time: how long at least [s], and the entry that began it where that still counts."""

    key: str
    seconds: float
    begun: Mark | None

    @property
    def until(self) -> datetime | None:
        """When its time is over on the server's clock; None while it is not begun."""
        return None if self.begun is None else _came(self.begun) + timedelta(seconds=self.seconds)


def _came(mark: Mark) -> datetime:
    return mark.noted or mark.when


def begin_entry(task: str) -> JsonObject:
    """The entry that begins a task which takes time."""
    return {"kind": "task_begun", "task": task}


def look_lasts(spec: Observation) -> float | None:
    """How long something is looked at, where its name, its question or its unit says so. [s]"""
    test = (stated_seconds(text) for text in (spec.name, spec.ask, spec.unit) if text)
    # A unit is written without a word before it: mm in 10 min.
    return max((part for part in test if part is not None), default=None)


def lasting(case: Case, key: str, seconds: float | None) -> Lasting | None:
    """A task of the job as one that takes time; None for one that does not. ``seconds``: at least so long [s].

    It is begun by its own entry, or by a step that runs it and nothing else. That counts no more once the task was recorded, or a hand was on the
    unit after it: who lets its pressure down ends what is looked at.
    """
    if seconds is None:
        return None
    begun = _began(case, key)
    stands = begun is not None and begun.seq > case.state.completed.get(key, 0) and not _touched(case, begun.seq)
    return Lasting(key, seconds, begun if stands else None)


def _touched(case: Case, seq: int) -> bool:
    stepped = any(mark.seq > seq for mark in case.state.marks(STEPS))
    return stepped or worked_since(case, seq)


def _began(case: Case, key: str) -> Mark | None:
    """The last entry that began a task: its own, or that of the step which runs the test and leaves nothing to set or to tighten."""
    test = key.split(":")[1] if key.startswith("test:") else None
    runs = [step for step in case.resolved.sheet.steps if test in step.runs]
    steps = [step.key for step in runs if not (step.sets or step.tightens)]
    marks = [marked.mark for name, marked in case.state.book(STEPS).items() if name in steps]
    marks += [marked.mark for name, marked in case.state.book(BEGUN).items() if name == key]
    return max(marks, key=lambda mark: mark.seq, default=None)


def check_lasted(case: Case, found: Lasting, cut_short: str | None) -> None:
    """Raises RefusedError where the time of a task has not run, unless somebody who may cuts it short."""
    left = found.seconds if found.until is None else (found.until - case.now).total_seconds()
    if left <= 0:
        if cut_short is not None:
            raise fault(
                "cut_short", f"its {seconds_words(found.seconds)} have run: nothing was cut short; leave this out"
            )
        return
    if cut_short is None:
        how = "begin it first" if found.until is None else f"{seconds_words(left)} to go"
        raise RefusedError("too-early", f"it takes {seconds_words(found.seconds)} on the server's clock: {how}")
    if case.author is None or case.author.role is not Role.LEAD:
        raise NotAllowedError("not-allowed", "only the workshop lead cuts this short, as a deviation")


def cut_words(case: Case, found: Lasting | None, reason: str, closed: Mark) -> str:
    """How what was cut short stands on the certificate: after how long, of how long, and why."""
    if found is None:
        return f"cut short, {reason}"
    begun = _began(case, found.key)
    ran = 0.0
    if begun is not None and begun.seq < closed.seq:
        ran = (_came(closed) - _came(begun)).total_seconds()
    whole = seconds_words(found.seconds)
    how = f"its {whole} were not begun" if ran <= 0 else f"after {seconds_words(ran)} of {whole}"
    return f"cut short, {how}: {reason}"


def _words(resolved: Resolved, payload: TaskBegun) -> str:
    return f"begun: {_named(resolved, payload.task)}"


def _named(resolved: Resolved, task: str) -> str:
    kind, key, when = [*task.split(":"), "", ""][:3]
    named = resolved.sheet.tests if kind == "test" else resolved.sheet.observations
    name = next((test.name for test in named if test.key == key), task)
    return f"{name}, {'as found' if when == 'as_found' else 'as left'}"


def _seconds_of(resolved: Resolved, task: str) -> float | None:
    kind, key, _ = [*task.split(":"), "", ""][:3]
    if kind == "test":
        test = resolved.figure_tests.get(key)
        return None if test is None else test.bound.lasts
    spec = next((observation for observation in resolved.sheet.observations if observation.key == key), None)
    return None if spec is None else look_lasts(spec)


def running_looks(case: Case) -> Iterator[Running]:
    """The tests and looks of a job whose time runs now."""
    run = [f"test:{test}:as_left" for step in case.resolved.sheet.steps for test in step.runs]
    for key in dict.fromkeys([*case.state.book(BEGUN), *run]):
        found = lasting(case, key, _seconds_of(case.resolved, key))
        if found is not None and found.until is not None and found.until > case.now:
            yield Running(key, found.until, _named(case.resolved, key))


def _hand_over(case: Case) -> Iterator[Line]:
    for look in running_looks(case):
        yield Line(Section.WAITS, f"{look.what}: until {look.until:%H:%M}", when=look.until)


KIND = EntryKind(payload=TaskBegun, apply=keep(BEGUN, lambda payload: payload.task), words=_words, hand_over=_hand_over)
