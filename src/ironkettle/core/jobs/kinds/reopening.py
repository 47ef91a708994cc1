"""A closed job opened again, with the reason."""

from __future__ import annotations

from typing import Literal

from ironkettle.core.base.errors import RefusedError
from ironkettle.core.jobs.ask import Ask
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kind import EntryKind
from ironkettle.core.jobs.kinds.account import forget_account
from ironkettle.core.jobs.kinds.base import Reason
from ironkettle.core.jobs.kinds.ending import closed_by, take_back_ending
from ironkettle.core.jobs.kinds.release import take_back_release
from ironkettle.core.jobs.state import Book, Mark, Payload, State
from ironkettle.core.sheets.document.parts import Read


class Reopened(Payload):
    kind: Literal["reopened"] = "reopened"
    reason: Reason


REOPENED: Book[int, Reopened] = Book("reopened")


def _check(case: Case, payload: Reopened) -> None:
    if closed_by(case.state) is None:
        raise RefusedError("not-released", "the job is not released, so there is nothing to reopen")


def _apply(state: State, payload: Reopened, mark: Mark) -> None:
    take_back_release(state)
    take_back_ending(state)
    forget_account(state)
    state.note(REOPENED, mark.seq, payload, mark)


KIND = EntryKind(
    payload=Reopened,
    check=_check,
    apply=_apply,
    words=lambda resolved, payload: f"reopened: {payload.reason}",
    signers_write=True,
    signed=True,
    needs_authority=True,
    stays=True,
    about_unit=True,
    reopens=True,
    loose_asks=(Ask("reason", Read.TEXT, "Reason"),),
)
