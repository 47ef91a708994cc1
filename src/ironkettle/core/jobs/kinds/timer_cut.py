"""A timer of a step: it runs on the server's clock from the step's entry, and is cut short only with a reason."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Literal

from ironkettle.core.base.errors import NotAllowedError, RefusedError
from ironkettle.core.jobs.ask import Ask
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kind import EntryKind, Line, Section, keep
from ironkettle.core.jobs.kinds.base import ItemKey, Reason, known
from ironkettle.core.jobs.kinds.step import STEPS
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.jobs.screen import Screen
from ironkettle.core.jobs.state import Book, Payload
from ironkettle.core.jobs.task import Draft, Task, TaskKind, stage_of
from ironkettle.core.sheets.document.parts import Read
from ironkettle.core.sheets.document.work import StepSpec
from ironkettle.core.shop.people import Role


class TimerScreen(Screen):
    """A timer that runs: its key among the timers of the job."""

    kind: Literal["timer"] = "timer"
    timer: str


_TASK = TaskKind(
    "timer",
    "Cut it short",
    screen=lambda case, task: TimerScreen(timer=task.subject),
    rank=7,
    rides=True,
    beside_riders=True,
    waits="timer",
    skippable=False,
)


class TimerCut(Payload):
    """Cut short: by a reason where the sheet allows it, else by a lead as a deviation that stands on the certificate."""

    kind: Literal["timer_cut"] = "timer_cut"
    timer: ItemKey
    reason: Reason


CUT: Book[str, TimerCut] = Book("cut")


def _timed(resolved: Resolved) -> dict[str, StepSpec]:
    return {step.timer.key: step for step in resolved.sheet.steps if step.timer}


def ends_at(case: Case, step: StepSpec) -> datetime | None:
    """When a step's timer has run out on the server's clock; None while it is not started."""
    marked = case.state.book(STEPS).get(step.key)
    if marked is None or step.timer is None:
        return None
    return (marked.mark.noted or marked.mark.when) + timedelta(minutes=step.timer.minutes)


@dataclass(frozen=True, slots=True)
class Running:
    """A timer that runs: until when on the server's clock, and for what."""

    key: str
    until: datetime
    what: str


def running_timers(case: Case) -> Iterator[Running]:
    """The timers of a job that run now."""
    for key, step in _timed(case.resolved).items():
        ends = ends_at(case, step)
        if ends is not None and step.timer is not None and ends > case.now and not _was_cut(case, key, step):
            yield Running(key, ends, step.timer.what_for or step.text)


def _was_cut(case: Case, key: str, step: StepSpec) -> bool:
    cut, started = case.state.book(CUT).get(key), case.state.book(STEPS).get(step.key)
    return cut is not None and started is not None and cut.mark.seq > started.mark.seq


def _check(case: Case, payload: TimerCut) -> None:
    timed = _timed(case.resolved)
    known("timer", payload.timer, timed, "timer")
    step = timed[payload.timer]
    ends = ends_at(case, step)
    if ends is None:
        raise RefusedError("timer-not-started", "this timer is not running")
    if ends <= case.now:
        raise RefusedError("timer-done", "this timer has already run out")
    assert step.timer is not None
    lead = case.author is not None and case.author.role is Role.LEAD
    if not step.timer.may_cut and not lead:
        raise NotAllowedError("timer-stands", "only the workshop lead cuts this timer short, as a deviation")


def _drafts(case: Case) -> Iterator[Draft]:
    for key, step in _timed(case.resolved).items():
        assert step.timer is not None
        ends = ends_at(case, step)
        over = _was_cut(case, key, step) or (ends is not None and ends <= case.now)
        left = f", until {ends:%H:%M}" if ends is not None and not over else ""
        task = Task(
            f"timer:{key}",
            stage_of(step),
            _TASK,
            key,
            f"{step.timer.minutes:g} min for {step.timer.what_for or step.text}{left}",
            {"kind": "timer_cut", "timer": key},
            asks=(Ask("reason", Read.TEXT, "Why is it cut short?"),),
        )
        yield Draft(
            task, over, waits=ends is not None and not over, step=step.key, after={f"step:{step.key}": ""},
            refusal="too-early",
        )  # fmt: skip


def _words(resolved: Resolved, payload: TimerCut) -> str:
    step = _timed(resolved).get(payload.timer)
    what = step.timer.what_for if step and step.timer else payload.timer
    return f"timer cut short, {what}: {payload.reason}"


def _against(case: Case, tasks: Sequence[Task]) -> Iterator[str]:
    timers = {step.timer.key: step.timer for step in case.resolved.sheet.steps if step.timer}
    for key, cut in case.state.book(CUT).items():
        timer = timers.get(key)
        # Where the sheet lets a timer be cut it is no deviation.
        if timer is not None and not timer.may_cut:
            yield f"Cut short, {timer.minutes:g} min for {timer.what_for or 'a wait'}: {cut.value.reason}."


def _hand_over(case: Case) -> Iterator[Line]:
    for timer in running_timers(case):
        yield Line(Section.WAITS, f"{timer.what}: until {timer.until:%H:%M}", when=timer.until)


KIND = EntryKind(
    payload=TimerCut,
    check=_check,
    apply=keep(CUT, lambda payload: payload.timer),
    words=_words,
    tasks=_drafts,
    completes="timer:{timer}",
    against=_against,
    screens=(TimerScreen,),
    hand_over=_hand_over,
)
