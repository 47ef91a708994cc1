"""Recordings of the stand for the runs of jobs: begun, gone on with, stopped, told."""

from __future__ import annotations

import asyncio
import secrets
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Request
from starlette.concurrency import run_in_threadpool

from ironkettle.api.base.deps import now
from ironkettle.api.base.identity import allow
from ironkettle.api.base.problems import CONFLICT, ERROR_RESPONSES, GUARDED, NOT_THERE, NotThereError
from ironkettle.api.base.schemas import Body, NameText
from ironkettle.api.jobs.named import case_for, job_of
from ironkettle.api.machine.stand import AWAY, driver_of, recorder_of
from ironkettle.api.machine.stand_records import RecordingOut, recover_all
from ironkettle.api.policies import Caller, StandPolicy
from ironkettle.core.base.errors import RefusedError
from ironkettle.core.base.quantities import BASE_UNIT, read_gauge_pressure
from ironkettle.core.jobs.kinds.ending import closed_by
from ironkettle.core.jobs.proving import hold_of
from ironkettle.core.machine.stand import Reads, RecordedChannel, RecordingPlan, StandMap, Trouble
from ironkettle.core.machine.stand.channels import DIMENSION
from ironkettle.stand.recorder import Recording
from ironkettle.store.base import session_of
from ironkettle.store.jobs.recordings import (
    RecordedChunkRow,
    RecordingRow,
    beat_of_chunks,
    chunks_of_recording,
    find_recording,
    samples_of_chunks,
)
from ironkettle.store.shop.people import names_of
from ironkettle.store.shop.tables import shop_of

router = APIRouter(prefix="/api/stand/recordings", tags=["stand"], responses=ERROR_RESPONSES | GUARDED)

Reader = Annotated[Caller, allow(StandPolicy.read)]
Mover = Annotated[Caller, allow(StandPolicy.move)]
# A gauge at its stop shows a little more than its range.
_PAST_RANGE = 1.02
# So long a stop is waited for; what was read is kept in any case.
_STOP_S = 8.0


class RecordingBody(Body):
    """``raise_first``: raise the stand to the test's pressure and shut its valve first; else it stands there already.

    ``channel``: the pressure channel that counts, where it is not the first.
    """

    job: UUID
    run: UUID
    raise_first: bool = True
    channel: NameText | None = None


@router.post("", summary="Record a run from the stand", responses=NOT_THERE | CONFLICT | AWAY)
async def begin(body: RecordingBody, request: Request, caller: Mover) -> RecordingOut:
    recorder = recorder_of(request)
    recorder.check_free()
    stand = await driver_of(request).map()
    recording = await run_in_threadpool(_prepared, request, body, caller, stand)
    try:
        await recorder.start(recording)
    except BaseException:
        await run_in_threadpool(_not_begun, request, body.run)
        raise
    return RecordingOut.of(recording)


def _prepared(request: Request, body: RecordingBody, caller: Caller, stand: StandMap) -> Recording:
    """The recording, put down as begun. Raises what keeps it from beginning."""
    engine = request.app.state.engine
    recover_all(engine)
    with session_of(engine) as session:
        job = job_of(session, body.job)
        case = case_for(session, job, shop_of(session), caller)
        run = case.state.runs.get(str(body.run))
        if run is None or run.gauge is None:
            raise NotThereError("run", body.run)
        spec = hold_of(case, run.test)
        if run.closed is not None or closed_by(case.state) is not None:
            raise RefusedError("run-closed", "this run is closed; start a new one")
        if run.source != "stand":
            raise RefusedError("other-source", f"the readings of this run are {run.source}; start a run from the stand")
        row = find_recording(session, body.run)
        if row is not None and not chunks_of_recording(session, body.run):
            # It never came to a reading: it begins anew.
            session.delete(row)
            session.flush()
            row = None
        if row is not None and body.raise_first:
            text = "this run already has a recording; continue it while the stand still holds, or start a new run"
            raise RefusedError("recorded", text)
        judged = stand.pressure(body.channel)
        reach = _PAST_RANGE * read_gauge_pressure(run.gauge.range, "gauge.range")
        asked = spec.pressure.value if body.raise_first else None
        plan = RecordingPlan.model_validate(row.plan) if row else plan_of(stand, judged.key, asked, reach)
        recording = Recording(body.run, job.id, job.number, caller.author.name, plan, body.raise_first)
        if row is None:
            # A stand that numbers no holds is given a number, so that two recordings are not mixed up.
            numbered = stand.channel_of(Reads.HOLD) is not None
            recording.hold = 0 if numbered else secrets.randbelow(2**24 - 1) + 1
            row = RecordingRow(
                run=body.run,
                job_id=job.id,
                who=caller.key,
                plan=plan.model_dump(mode="json"),
                started_at=now(),
                said=[],
            )
            session.add(row)
        else:
            _gone_on(recording, row, chunks_of_recording(session, body.run))
        row.state = "waiting"
    return recording


def _not_begun(request: Request, run: UUID) -> None:
    """Nothing was read: no recording is left behind that a later start would find."""
    with session_of(request.app.state.engine) as session:
        row = find_recording(session, run)
        if row is not None and not chunks_of_recording(session, run):
            session.delete(row)


def _gone_on(recording: Recording, row: RecordingRow, chunks: list[RecordedChunkRow]) -> None:
    """Go on where it was interrupted: after what it has, by the time that passed since."""
    read = samples_of_chunks(recording.plan, chunks)
    recording.hold, recording.place = row.hold or 0, len(chunks)
    recording.times.extend(reading.t_s for reading in read)
    recording.pressures.extend(reading.pressure_mpa for reading in read)
    recording.beat = beat_of_chunks(recording.plan, chunks)
    recording.said = [Trouble(event["key"], event["at"], event["says"], event["ends"]) for event in row.said]
    if not read:
        return
    gap = (now() - chunks[-1].at).total_seconds()
    recording.base = read[-1].t_s + gap
    recording.said.append(Trouble("gone_on", recording.base, f"continued after {gap:.0f} s without readings"))


def plan_of(stand: StandMap, pressure: str, asked: float | None, reach: float) -> RecordingPlan:
    """What is recorded of a stand: all that it measures, in base units."""
    warm = stand.channel_of(Reads.TEMPERATURE)
    number = stand.channel_of(Reads.READING)
    channels = [
        RecordedChannel(key=channel.key, name=channel.name, unit=BASE_UNIT[DIMENSION[channel.reads]])
        for channel in stand.measured
    ]
    if number is not None:
        channels.append(RecordedChannel(key=number.key, name=number.name, unit=""))
    return RecordingPlan(
        channels=tuple(channels), pressure=pressure, temperature=warm.key if warm else None, asked_mpa=asked,
        reach_mpa=reach, rate_hz=stand.rate_hz, number=number.key if number else None,
        every_s=stand.numbered.every_s if stand.numbered else None,
    )  # fmt: skip


@router.post(
    "/{run}/stop", summary="Stop recording; what was read goes into the job's log", responses=NOT_THERE | CONFLICT
)
async def stop(run: UUID, request: Request, caller: Mover) -> RecordingOut:
    recorder = recorder_of(request)
    task = asyncio.create_task(recorder.stop(run))
    done, _ = await asyncio.wait({task}, timeout=_STOP_S)
    if not done:
        text = "recording has stopped, but the readings cannot be saved yet (database unreachable or disk full); saving is retried"
        raise RefusedError("not-kept-yet", text)
    task.result()
    return await recording_of(run, request, caller)


@router.get("/{run}", summary="How a recording stands", responses=NOT_THERE)
async def recording_of(run: UUID, request: Request, caller: Reader) -> RecordingOut:
    recording = recorder_of(request).recording
    if recording is not None and recording.run == run:
        return RecordingOut.of(recording)
    return await run_in_threadpool(_from_record, request, run)


def _from_record(request: Request, run: UUID) -> RecordingOut:
    with session_of(request.app.state.engine) as session:
        row = find_recording(session, run)
        if row is None:
            raise NotThereError("recording", run)
        read = samples_of_chunks(RecordingPlan.model_validate(row.plan), chunks_of_recording(session, run))
        held = read[-1].t_s - read[0].t_s if read else 0.0
        number = job_of(session, row.job_id).number
        return RecordingOut.kept_as(row, number, names_of(session).get(row.who, row.who), len(read), held)
