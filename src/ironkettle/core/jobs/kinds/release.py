"""The release: signed. What was done and what was not is told by the log."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from ironkettle.core.base.errors import NotAllowedError
from ironkettle.core.jobs.ask import Ask
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.inspecting import Verdict
from ironkettle.core.jobs.kind import EntryKind, keep
from ironkettle.core.jobs.kinds.base import Note, Short
from ironkettle.core.jobs.kinds.inspection import standing
from ironkettle.core.jobs.kinds.skip import SKIPPED
from ironkettle.core.jobs.kinds.stage_skip import SKIPPED_STAGES
from ironkettle.core.jobs.kinds.step import renewed
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.jobs.screen import Screen
from ironkettle.core.jobs.state import Book, Marked, Payload, State
from ironkettle.core.jobs.task import Draft, Stage, Task, TaskKind
from ironkettle.core.sheets.document.parts import Read
from ironkettle.core.sheets.document.quick_service import every_of
from ironkettle.core.sheets.document.trials import Interval
from ironkettle.core.shop.people import Role
from ironkettle.core.shop.service import next_words


class SignScreen(Screen):
    """What will be stated, and the signature."""

    kind: Literal["sign"] = "sign"


_TASK = TaskKind("sign", "Sign and release", waits="signature", signs=True, screen=lambda case, task: SignScreen())


class Released(Payload):
    """Signed. What was done and what was not is told by the log; ``remark`` is the signer's own."""

    kind: Literal["released"] = "released"
    remark: Note = ""
    next_service: Short | None = None


RELEASED: Book[str, Released] = Book("released")
_ONLY = "released"


def release_of(state: State) -> Marked[Released] | None:
    """The release of a job; None while it is not released."""
    return state.book(RELEASED).get(_ONLY)


def take_back_release(state: State) -> None:
    """A job that is opened again is not released any more."""
    state.drop(RELEASED, _ONLY)


def _check(case: Case, payload: Released) -> None:
    if needs_lead(case.state) and case.author is not None and case.author.role is not Role.LEAD:
        text = "a safety step was skipped on this job: only the workshop lead can sign it"
        raise NotAllowedError("lead-signs", text)


def needs_lead(state: State) -> bool:
    """Whether only a lead may sign: something that is there against a danger was skipped."""
    grounds = [skip.value.grounds for skip in state.book(SKIPPED).values()]
    grounds += [skip.value.grounds for skip in state.book(SKIPPED_STAGES).values()]
    return any(ground is not None for ground in grounds)


def _tasks(case: Case) -> Iterator[Draft]:
    intervals = [f"{interval.what} {next_words(every_of(interval), case.now.date())}" for interval in _renewed_by(case)]
    sign = Task(
        "sign",
        Stage.RELEASE,
        _TASK,
        "release",
        "Sign and release",
        {"kind": "released", "next_service": "; ".join(intervals)[:120] or None},
        asks=(Ask("remark", Read.TEXT, "Remark", optional=True),),
    )
    yield Draft(sign, release_of(case.state) is not None, last=True)


def fulfilled(case: Case) -> tuple[str, ...]:
    """The intervals that start again with a release of this job: those of a quick service, else all but parts that were not replaced."""
    if case.resolved.quick_service is not None:
        return (case.resolved.quick_service.name,)
    resolved = case.resolved

    def counts(interval: Interval) -> bool:
        if interval.of == "unit" or interval.what != "replace" or interval.of not in resolved.parts:
            return True
        return renewed(resolved, interval.of) or standing(case, interval.of) is Verdict.REPLACE

    return tuple(interval.name for interval in resolved.sheet.intervals if counts(interval))


def _renewed_by(case: Case) -> list[Interval]:
    """What the next service is told from: the quick service in hand, else what is of the whole unit."""
    if case.resolved.quick_service is not None:
        return [case.resolved.quick_service]
    return [interval for interval in case.resolved.sheet.intervals if interval.of == "unit" and not interval.steps]


def _words(resolved: Resolved, payload: Released) -> str:
    return f"released{f': {payload.remark}' if payload.remark else ''}"


KIND = EntryKind(
    payload=Released,
    check=_check,
    apply=keep(RELEASED, lambda payload: _ONLY),
    words=_words,
    tasks=_tasks,
    completes="sign",
    screens=(SignScreen,),
    signers_write=True,
    signed=True,
    needs_authority=True,
    stays=True,
    about_unit=True,
)
