"""A photo put to a task, a part or an element, with arrows, circles and a word; chosen for the certificate or not."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated, Literal
from uuid import UUID

from pydantic import Field

from ironkettle.core.base.errors import fault
from ironkettle.core.base.text import Figure
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kind import EntryKind, keep
from ironkettle.core.jobs.kinds.base import Note, Short
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.jobs.state import Book, Payload

Share = Annotated[Figure, Field(ge=0, le=1)]


class Arrow(Payload):
    """From and to as shares of the photo's width and height [-], and a word at its tail."""

    start: tuple[Share, Share]
    end: tuple[Share, Share]
    word: Annotated[str, Field(max_length=60)] = ""


class Circle(Payload):
    """Round what is meant: its centre as shares of the photo's width and height, its radius as a share of the width [-], and a word."""

    at: tuple[Share, Share]
    radius: Annotated[Figure, Field(gt=0, le=1)]
    word: Annotated[str, Field(max_length=60)] = ""


class PhotoTaken(Payload):
    """A photo that was sent before. ``sha256`` is set by the server: the entry seals what was kept.

    Told again for the same photo it changes words, what is drawn on it and whether it goes on the certificate. ``about``: the key of
    the task it belongs to; ``time``: before or after the work, where two stand side by side.
    """

    kind: Literal["photo_taken"] = "photo_taken"
    photo: UUID
    about: Short | None = None
    time: Literal["before", "after"] | None = None
    words: Note = ""
    arrows: list[Arrow] = Field(default_factory=list, max_length=20)
    circles: list[Circle] = Field(default_factory=list, max_length=20)
    on_certificate: bool = False
    sha256: Short | None = None


PHOTOS: Book[str, PhotoTaken] = Book("photos")


def _check(case: Case, payload: PhotoTaken) -> None:
    if str(payload.photo) not in case.photos:
        raise fault("photo", "no such photo was sent for this job; send it first")


def complete(case: Case, payload: PhotoTaken) -> PhotoTaken:
    """With the hash of what was kept."""
    return payload.model_copy(update={"sha256": case.photos[str(payload.photo)]})


def _as_sent(payload: PhotoTaken) -> PhotoTaken:
    return payload.model_copy(update={"sha256": None})


def _words(resolved: Resolved, payload: PhotoTaken) -> str:
    when = f", {payload.time}" if payload.time else ""
    marked = f"{_drawn(payload.arrows, 'arrow')}{_drawn(payload.circles, 'circle')}"
    chosen = ", for the certificate" if payload.on_certificate else ""
    return f"photo{when}{marked}{chosen}{f': {payload.words}' if payload.words else ''}"


def _drawn(marks: Sequence[Arrow | Circle], word: str) -> str:
    return f", {len(marks)} {word}{'' if len(marks) == 1 else 's'}" if marks else ""


KIND = EntryKind(
    payload=PhotoTaken,
    check=_check,
    apply=keep(PHOTOS, lambda payload: str(payload.photo)),
    words=_words,
    complete=complete,
    as_sent=_as_sent,
)
