"""What a certificate states, made from the log: what was done, and beside it whatever was not, in a customer's words."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import replace
from uuid import uuid4

from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kinds.ending import ENDING_WORD, JobEnded, ending_of, with_ending
from ironkettle.core.jobs.kinds.release import Released
from ironkettle.core.jobs.proven import verdict_on
from ironkettle.core.jobs.registry import kinds
from ironkettle.core.jobs.state import Mark, Payload
from ironkettle.core.jobs.task import Task
from ironkettle.core.jobs.tasks import tasks_of

# The end of a claim that nothing stands against.
FIT = ", and fit for service."


def compose_statement(case: Case, tasks: Sequence[Task]) -> tuple[str, ...]:
    """The sentences of the certificate: the first says what may be claimed, the others what stands beside it.

    Nothing is claimed that the log does not show: *tested* only when every test of the sheet was run
    and passed at last, *fit for service* only when nothing stands against it. What is no reason
    against it but has to be known, an old part that was kept or an earlier run that failed, follows.
    """
    ended = ending_of(case.state)
    if ended is not None:
        return (f"Not repaired, {ENDING_WORD[ended.how]}: {ended.reason}", *_to_know(case))
    against = tuple(_against(case, tasks))
    tests = [test for test in case.resolved.sheet.tests if test.when in {"as_left", "both"}]
    untested = [test.name for test in tests if verdict_on(case, test.key) != "pass"]
    quick_service = case.resolved.quick_service
    if quick_service is not None:
        claim = f"Serviced as recorded: {quick_service.what}, due every {' or '.join(quick_service.every)}"
    elif not tests:
        claim = "Repaired as recorded; the build sheet asks for no test"
    elif untested:
        claim = f"Repaired as recorded, but not tested as required: {', '.join(untested)}"
    else:
        claim = "Repaired as recorded, and tested"
    ending = ". See the remarks." if against else FIT
    return (claim + ending, *against, *_to_know(case))


def _against(case: Case, tasks: Sequence[Task]) -> Iterator[str]:
    if case.draft:
        sheet = case.resolved.whole
        yield f"Worked on a draft sheet: version {sheet.version} of {sheet.name} was not approved when this was signed."
    for kind in kinds():
        yield from kind.against(case, tasks)


def _to_know(case: Case) -> Iterator[str]:
    for kind in kinds():
        yield from kind.remarks(case)
    for words in sorted(_scripts(case)):
        yield f"Not all was entered by hand: {words}."


def _scripts(case: Case) -> set[str]:
    """By which scripts' tokens something was entered, in words."""
    marks = [
        marked.mark for book in (*case.state.books.values(), *case.state.firsts.values()) for marked in book.values()
    ]
    marks += [run.mark for run in case.state.runs.values()]
    return {mark.token.words for mark in marks if mark.token is not None}


def statement_of(case: Case, payload: Payload) -> tuple[str, ...] | None:
    """What the certificate of a job states that this entry closes, from the log as it is when it is signed; None for other entries."""
    if isinstance(payload, Released):
        return compose_statement(case, tasks_of(case))
    if isinstance(payload, JobEnded):
        state = case.state.copy()
        with_ending(state, payload, Mark(uuid4(), state.count + 1, "", case.now))
        return compose_statement(replace(case, state=state), ())
    return None
