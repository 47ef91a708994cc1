"""The stand's register map, and recordings of the stand: each second's chunk as it comes, taken over into the job's log."""

from __future__ import annotations

import math
from collections.abc import Sequence
from datetime import UTC, datetime
from typing import Any
from uuid import UUID, uuid5

from pydantic import ValidationError
from sqlalchemy import ForeignKey, Text, select
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Mapped, Session, mapped_column

from ironkettle.core.base.errors import RefusedError, RuleError
from ironkettle.core.jobs.kinds.test_samples import TestSamples
from ironkettle.core.jobs.proving import MOST_SAMPLES
from ironkettle.core.jobs.runs import SampleRead, plain
from ironkettle.core.machine.pressure import Sample
from ironkettle.core.machine.stand import (
    FIRST_CHUNK,
    SHIPPED,
    Beat,
    RecordingPlan,
    StandMap,
    broken_at,
    chained,
    read_rows,
)
from ironkettle.store.base import Base
from ironkettle.store.jobs.logs import NewEntry, append_entry
from ironkettle.store.shop.people import find_person
from ironkettle.store.shop.tables import Shop

_ONLY = "stand"


class StandMapRow(Base):
    """The register map where the shop has one of its own; one row or none."""

    __tablename__ = "stand_map"

    key: Mapped[str] = mapped_column(primary_key=True)
    map: Mapped[dict[str, Any]]
    who: Mapped[str] = mapped_column(ForeignKey("people.key"))
    changed_at: Mapped[datetime]


class RecordingRow(Base):
    """A recording of the stand for a run of a job. ``in_log``: how many of its chunks the job's log has taken over."""

    __tablename__ = "recordings"

    run: Mapped[UUID] = mapped_column(primary_key=True)
    job_id: Mapped[UUID] = mapped_column(ForeignKey("jobs.id"))
    who: Mapped[str] = mapped_column(ForeignKey("people.key"))
    plan: Mapped[dict[str, Any]]
    hold: Mapped[int | None] = mapped_column(default=None)
    state: Mapped[str] = mapped_column(default="waiting")
    started_at: Mapped[datetime]
    ended_at: Mapped[datetime | None] = mapped_column(default=None)
    said: Mapped[list[dict[str, Any]]] = mapped_column(default=list)
    in_log: Mapped[int] = mapped_column(default=0)


class RecordedChunkRow(Base):
    """What the channels showed in about a second; chained by hash. The table takes no update and no delete."""

    __tablename__ = "recorded_chunks"

    run: Mapped[UUID] = mapped_column(ForeignKey("recordings.run"), primary_key=True)
    place: Mapped[int] = mapped_column(primary_key=True)
    at: Mapped[datetime]
    text: Mapped[str] = mapped_column(Text)
    hash: Mapped[str]


def stand_map_of(session: Session) -> StandMap:
    """The register map in use. Raises RefusedError for one that cannot be read any more."""
    row = session.get(StandMapRow, _ONLY)
    if row is None:
        return SHIPPED
    try:
        return StandMap.model_validate(row.map)
    except ValidationError:
        raise RefusedError(
            "stand-map", "the stand's register map cannot be read; enter it again under Workshop"
        ) from None


def set_stand_map(session: Session, stand: StandMap | None, who: str, now: datetime) -> None:
    """Keep a register map; None goes back to the shipped one."""
    row = session.get(StandMapRow, _ONLY)
    if stand is None:
        if row is not None:
            session.delete(row)
    else:
        session.merge(StandMapRow(key=_ONLY, map=stand.model_dump(mode="json"), who=who, changed_at=now))
    session.flush()


def find_recording(session: Session, run: UUID) -> RecordingRow | None:
    return session.get(RecordingRow, run)


def recordings_of(session: Session, job_id: UUID) -> dict[str, RecordingRow]:
    """The recordings of a job by run."""
    rows = session.scalars(select(RecordingRow).where(RecordingRow.job_id == job_id))
    return {str(row.run): row for row in rows}


def left_open(session: Session) -> list[UUID]:
    """Recordings that nothing ended: the server that made them is gone."""
    query = select(RecordingRow.run).where(RecordingRow.state.in_(("waiting", "recording")))
    return list(session.scalars(query.order_by(RecordingRow.started_at)))


def chunks_of_recording(session: Session, run: UUID, after: int = 0) -> list[RecordedChunkRow]:
    """Its chunks in order, from a place on."""
    query = select(RecordedChunkRow).where(RecordedChunkRow.run == run, RecordedChunkRow.place >= after)
    return list(session.scalars(query.order_by(RecordedChunkRow.place)))


def keep_chunk(session: Session, run: UUID, place: int, text: str, before: str, now: datetime) -> str:
    """Keep a chunk; kept twice it is there once. Gives its hash."""
    digest = chained(before, text)
    row = insert(RecordedChunkRow).values(run=run, place=place, at=now, text=text, hash=digest)
    session.execute(row.on_conflict_do_nothing())
    return digest


def last_chunk(session: Session, run: UUID) -> tuple[int, str]:
    """How many chunks there are, and the hash of the last."""
    query = select(RecordedChunkRow.place, RecordedChunkRow.hash).where(RecordedChunkRow.run == run)
    found = session.execute(query.order_by(RecordedChunkRow.place.desc()).limit(1)).first()
    return (0, FIRST_CHUNK) if found is None else (found[0] + 1, found[1])


def samples_of_chunks(plan: RecordingPlan, chunks: Sequence[RecordedChunkRow]) -> tuple[SampleRead, ...]:
    """What counts of them: time, the pressure that is judged, the temperature beside it; no row without a pressure. [s, MPa, °C]"""
    pressure = plan.place(plan.pressure)
    temperature = None if plan.temperature is None else plan.place(plan.temperature)
    samples = []
    for chunk in chunks:
        for row in read_rows(chunk.text):
            if math.isnan(row[pressure]):
                continue
            warm = None if temperature is None or not -100 <= row[temperature] <= 300 else round(row[temperature], 3)
            samples.append(SampleRead(t_s=row[0], pressure_mpa=row[pressure], temperature_c=warm))
    return tuple(samples)


def beat_of_chunks(plan: RecordingPlan, chunks: Sequence[RecordedChunkRow]) -> Beat:
    """How many readings were taken and missed, by the stand's own numbers."""
    return Beat.of(plan, (row for chunk in chunks for row in read_rows(chunk.text)))


def unsealed_samples(session: Session, run: UUID) -> tuple[Sample, ...]:
    """What a recording has read and the job's log has not taken over yet. [s, MPa, °C]"""
    row = find_recording(session, run)
    if row is None:
        return ()
    return plain(
        samples_of_chunks(RecordingPlan.model_validate(row.plan), chunks_of_recording(session, run, row.in_log))
    )


def broken_recordings(session: Session, job_id: UUID) -> list[str]:
    """Recordings of a job of which a chunk is not as it was written, in words."""
    found = []
    for run in recordings_of(session, job_id):
        chunks = [(chunk.place, chunk.text, chunk.hash) for chunk in chunks_of_recording(session, UUID(run))]
        if (wrong := broken_at(chunks)) is not None:
            found.append(f"recording {run[:8]} has another chunk {wrong} than was recorded")
    return found


def take_over(session: Session, run: UUID, shop: Shop, now: datetime) -> str | None:
    """Seal what was recorded since into the job's log, in the name of who recorded it. Gives why it could not be.

    The chunks stay where they are either way. Taken over twice it is there once.
    """
    row = session.get_one(RecordingRow, run, with_for_update=True, populate_existing=True)
    whole = [(chunk.place, chunk.text, chunk.hash) for chunk in chunks_of_recording(session, run)]
    if (wrong := broken_at(whole)) is not None:
        return f"chunk {wrong} of the recording is not as it was written; nothing of it was taken into the log"
    chunks = chunks_of_recording(session, run, row.in_log)
    samples = samples_of_chunks(RecordingPlan.model_validate(row.plan), chunks)
    person = find_person(session, row.who)
    if not samples or person is None:
        return None
    said = [event["says"][:200] for event in row.said if not event.get("in_log")]
    try:
        with session.begin_nested():
            for at in range(0, len(samples), MOST_SAMPLES):
                payload = TestSamples(run=run, samples=list(samples[at : at + MOST_SAMPLES]), hold=row.hold, said=said)
                entry = NewEntry(uuid5(run, f"{row.in_log}-{at}"), now.astimezone(UTC), payload)
                append_entry(session, row.job_id, entry, person.author(), shop, now)
                said = []
    except (RefusedError, RuleError) as error:
        return f"what was recorded could not be put into the job's log: {error}"
    row.in_log = chunks[-1].place + 1
    row.said = [{**event, "in_log": True} for event in row.said]
    session.flush()
    return None


def finish(session: Session, run: UUID, state: str, said: list[dict[str, Any]], shop: Shop, now: datetime) -> None:
    """End a recording: take it over into the log, and keep what was said of it."""
    row = session.get_one(RecordingRow, run, with_for_update=True, populate_existing=True)
    beat = beat_of_chunks(RecordingPlan.model_validate(row.plan), chunks_of_recording(session, run))
    if beat.says is not None:
        said = [*said, {"key": "missed", "at": beat.last_at, "says": beat.says, "ends": False}]
    known = {(event["key"], event["at"]) for event in row.said}
    row.said = [*row.said, *(event for event in said if (event["key"], event["at"]) not in known)]
    row.state, row.ended_at = state, now
    session.flush()
    trouble = take_over(session, run, shop, now)
    if trouble is not None:
        row.said = [*row.said, {"key": "not_in_log", "at": 0.0, "says": trouble, "ends": False}]
        session.flush()


def recover(session: Session, run: UUID, shop: Shop, now: datetime) -> None:
    """End a recording whose server is gone: interrupted, with everything that was kept of it."""
    chunks = chunks_of_recording(session, run)
    row = session.get_one(RecordingRow, run)
    rows = [read_row for chunk in chunks[-1:] for read_row in read_rows(chunk.text)]
    last = rows[-1][0] if rows else 0.0
    at = chunks[-1].at if chunks else row.started_at
    text = f"the server stopped after {last:.0f} s ({at:%H:%M:%S} UTC); everything read until then is kept"
    finish(session, run, "interrupted", [{"key": "server", "at": last, "says": text, "ends": True}], shop, now)
