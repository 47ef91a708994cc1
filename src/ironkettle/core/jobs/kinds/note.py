"""A note, to the one who works on."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from pydantic import Field

from ironkettle.core.jobs.ask import Ask
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kind import AND_STORES, EntryKind, Line, Section
from ironkettle.core.jobs.kinds.base import Note
from ironkettle.core.jobs.state import Book, Mark, Payload, State
from ironkettle.core.sheets.document.parts import Read


class NoteMade(Payload):
    kind: Literal["note_made"] = "note_made"
    text: Note = Field(min_length=1)


NOTES: Book[int, NoteMade] = Book("notes")


def _apply(state: State, payload: NoteMade, mark: Mark) -> None:
    state.note(NOTES, mark.seq, payload, mark)


def _hand_over(case: Case) -> Iterator[Line]:
    for marked in case.state.book(NOTES).values():
        yield Line.by(Section.OPEN_ENDS, marked.value.text, marked.mark)


KIND = EntryKind(
    payload=NoteMade,
    apply=_apply,
    words=lambda resolved, payload: f"note: {payload.text}",
    writers=AND_STORES,
    loose_asks=(Ask("text", Read.TEXT, "Note"),),
    hand_over=_hand_over,
)
