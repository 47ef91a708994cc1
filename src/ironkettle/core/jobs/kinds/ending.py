"""The end of a job that is not released: signed, with the reason."""

from __future__ import annotations

from enum import StrEnum
from typing import Literal

from ironkettle.core.jobs.kind import EntryKind
from ironkettle.core.jobs.kinds.base import Reason
from ironkettle.core.jobs.kinds.release import Released, release_of
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.jobs.state import Book, Mark, Marked, Payload, State


class Ending(StrEnum):
    """How a job ends that is not released."""

    SCRAPPED = "scrapped"
    RETURNED = "returned"
    CANCELLED = "cancelled"


ENDING_WORD = {
    Ending.SCRAPPED: "scrapped",
    Ending.RETURNED: "returned unrepaired",
    Ending.CANCELLED: "cancelled",
}


class JobEnded(Payload):
    """The job ends without a release, signed, with the reason; its certificate tells what was found."""

    kind: Literal["job_ended"] = "job_ended"
    how: Ending
    reason: Reason


ENDED: Book[str, JobEnded] = Book("ended")
_ONLY = "ended"


def ending_of(state: State) -> JobEnded | None:
    """How a job ended that was not released; None for one that did not."""
    return state.get(ENDED, _ONLY)


def with_ending(state: State, payload: JobEnded, mark: Mark) -> None:
    """End a job."""
    state.note(ENDED, _ONLY, payload, mark)


def take_back_ending(state: State) -> None:
    """A job that is opened again has not ended."""
    state.drop(ENDED, _ONLY)


def closed_by(state: State) -> Marked[Released] | Marked[JobEnded] | None:
    """The entry that ended the job, a release or another end; None while it is open."""
    return release_of(state) or state.book(ENDED).get(_ONLY)


def closed_words(state: State) -> str:
    """How the job was closed."""
    ended = ending_of(state)
    return "released" if ended is None else ENDING_WORD[ended.how]


def _words(resolved: Resolved, payload: JobEnded) -> str:
    return f"ended, {ENDING_WORD[payload.how]}: {payload.reason}"


KIND = EntryKind(payload=JobEnded, apply=with_ending, words=_words, signed=True, stays=True, about_unit=True)
