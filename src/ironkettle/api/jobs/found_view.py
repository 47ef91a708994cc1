"""What was found on a unit, as screens get it: how elements lie, leaks and suspects, causes, points, photos, earlier jobs."""

from __future__ import annotations

from collections.abc import Mapping, Set
from datetime import datetime
from typing import Literal
from uuid import UUID

from pydantic import BaseModel, ConfigDict
from sqlalchemy.orm import Session

from ironkettle.api.jobs.task_view import name_of
from ironkettle.core.jobs import Case, State
from ironkettle.core.jobs.kinds.correction import decided_causes
from ironkettle.core.jobs.kinds.photo import PHOTOS
from ironkettle.store.jobs.rows import JobRow, earlier_jobs


class DrawnOut(BaseModel):
    """How an element lies in the drawing now: found, off since the strip-down is done, or fitted; which zone it faces, or faced when it came
    off, and whether that is wrong."""

    model_config = ConfigDict(from_attributes=True)

    element: str
    state: Literal["unknown", "found", "off", "missing", "fitted"]
    faces: str | None
    wrong: bool


class LeakOut(BaseModel):
    """The way a leak takes where an element was missing or the wrong way round."""

    model_config = ConfigDict(from_attributes=True)

    words: str
    stations: list[str]


class LyingOut(BaseModel):
    """A part that came off and its numbered place in the tray. ``scrap``: it does not go back on; ``gone``: it has, and its place is empty."""

    model_config = ConfigDict(from_attributes=True)

    part: str
    name: str
    place: int
    scrap: bool
    gone: bool


class SuspectOut(BaseModel):
    """A station that can let a leak where it is seen: how many stations it lies behind, and what to look at."""

    model_config = ConfigDict(from_attributes=True)

    station: str
    name: str
    distance: int
    source: str
    look: str


class PointAtOut(BaseModel):
    """A point of inspection in the drawing: what was read there, and whether it holds. ``at``: z and r. [mm]"""

    model_config = ConfigDict(from_attributes=True)

    part: str
    point: str
    view: str | None
    at: tuple[float, float]
    ask: str
    words: str
    good: bool | None


class ArrowOut(BaseModel):
    """From and to as shares of the photo's width and height. [-]"""

    start: tuple[float, float]
    end: tuple[float, float]
    word: str


class CircleOut(BaseModel):
    """Its centre as shares of the photo's width and height, its radius as a share of the width. [-]"""

    at: tuple[float, float]
    radius: float
    word: str


class PhotoOut(BaseModel):
    id: UUID
    about: str | None
    time: Literal["before", "after"] | None
    words: str
    arrows: list[ArrowOut]
    circles: list[CircleOut]
    on_certificate: bool
    who: str
    when: datetime


class EarlierOut(BaseModel):
    """An earlier job on the same unit and what had failed in it; ``again``: also decided on in this job."""

    number: int
    opened_at: datetime
    released: bool
    ended: str
    complaint: str
    causes: list[str]
    again: bool


def photos_out(state: State, names: Mapping[str, str]) -> list[PhotoOut]:
    """The photos that entries of a job refer to, in the order they were told of first."""
    return [
        PhotoOut(
            id=marked.value.photo,
            about=marked.value.about,
            time=marked.value.time,
            words=marked.value.words,
            arrows=[ArrowOut(start=arrow.start, end=arrow.end, word=arrow.word) for arrow in marked.value.arrows],
            circles=[
                CircleOut(at=circle.at, radius=circle.radius, word=circle.word) for circle in marked.value.circles
            ],
            on_certificate=marked.value.on_certificate,
            who=name_of(marked.mark, names),
            when=marked.mark.when,
        )
        for marked in state.book(PHOTOS).values()
    ]


def earlier_of(session: Session, job: JobRow, case: Case) -> list[EarlierOut]:
    """Earlier jobs on the same unit."""
    now = {(decided_cause.element, decided_cause.key.value) for decided_cause in decided_causes(case)}
    return [earlier_out(row, now) for row in earlier_jobs(session, job)]


def earlier_out(row: JobRow, now: Set[tuple[str, str]] = frozenset()) -> EarlierOut:
    """An earlier job on a unit; ``now``: the causes decided on in the job it is shown beside, by element and key."""
    return EarlierOut(
        number=row.number,
        opened_at=row.opened_at,
        released=row.released,
        ended=row.ended,
        complaint=row.complaint,
        causes=[f"{cause['name']}: {cause['cause']}" for cause in row.causes],
        again=any((cause["element"], cause["key"]) in now for cause in row.causes),
    )
