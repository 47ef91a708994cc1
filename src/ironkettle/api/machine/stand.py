"""The test stand: what it shows, live and once; a pressure to hold; its register map; the panel of the simulated one."""

from __future__ import annotations

import math
import time
from collections.abc import AsyncIterable
from typing import Annotated, Literal

from fastapi import APIRouter, Depends, Request
from fastapi.sse import EventSourceResponse
from pydantic import BaseModel, Field
from sqlalchemy.exc import SQLAlchemyError
from starlette.concurrency import run_in_threadpool

from ironkettle.api.base.deps import DbSession, now
from ironkettle.api.base.identity import NotSignedInError, allow, find_caller, signed_in
from ironkettle.api.base.problems import CONFLICT, ERROR_RESPONSES, GUARDED, problem
from ironkettle.api.base.schemas import Body, Collector, NameText, PressureText
from ironkettle.api.machine.stand_records import RecordingOut
from ironkettle.api.policies import Caller, StandPolicy, authorize
from ironkettle.core.base.errors import FieldFault, RefusedError, RuleError
from ironkettle.core.base.quantities import find_unit, from_base, read_gauge_pressure
from ironkettle.core.base.text import Figure
from ironkettle.core.machine.pressure import thinned
from ironkettle.core.machine.stand import SHIPPED, Reads, RegisterFormat, Shown, StandChannel, StandMap
from ironkettle.core.simulation import RIGS
from ironkettle.stand.driver import StandAwayError, StandDriver, StandPanel
from ironkettle.stand.recorder import Recorder
from ironkettle.store.base import session_of
from ironkettle.store.jobs.recordings import set_stand_map
from ironkettle.store.shop.trail import leave_trail

router = APIRouter(prefix="/api/stand", tags=["stand"], responses=ERROR_RESPONSES | GUARDED)

Reader = Annotated[Caller, allow(StandPolicy.read)]
Mover = Annotated[Caller, allow(StandPolicy.move)]
MapKeeper = Annotated[Caller, allow(StandPolicy.change)]
AWAY: dict[int | str, dict[str, str]] = {503: {"description": "Stand not reachable"}}
# Points of a trace that a screen draws at most, when it comes to it and with each step.
MOST_POINTS, MOST_FRESH = 1200, 8
_HIGHEST_MPA = 60.0
# Whether whoever watches is signed in still is looked up so often. [s]
STILL_SIGNED_IN_S = 2.0


class ChannelNowOut(BaseModel):
    """What a channel shows, in its own unit; None where it shows nothing it can. ``shown``: as a gauge would say it."""

    key: str
    name: str
    reads: Reads
    value: float | None
    unit: str
    shown: str


class StandReadingOut(BaseModel):
    """``pressure_mpa`` and ``temperature_c``: the channels that are judged. ``hold``: another number is another hold."""

    pressure_mpa: float | None
    temperature_c: float | None
    held_s: float | None
    simulated: bool
    hold: int | None
    channels: list[ChannelNowOut]


class LiveOut(BaseModel):
    """``points``: of the trace since the message before, thinned with their lows and highs [s, MPa]; ``fresh``: all of it.

    ``read_at``: when the stand was read [s since 1970].
    """

    read_at: float
    away: str | None
    reading: StandReadingOut | None
    recording: RecordingOut | None
    fresh: bool
    points: list[tuple[float, float]]


class FaultOut(BaseModel):
    key: str
    says: str


class DialStandOut(BaseModel):
    key: str
    says: str
    unit: str
    first: float
    low: float
    high: float


class RigOut(BaseModel):
    key: str
    says: str
    dials: list[DialStandOut]


class PanelOut(BaseModel):
    """The simulated stand: what is put on it, what its dials are set to, what is wrong with the stand itself."""

    rig: str
    settings: dict[str, float]
    fault: str
    rigs: list[RigOut]
    faults: list[FaultOut]


class PanelBody(Body):
    """``settings`` left out stand as they are at first."""

    rig: Literal["oil", "air", "opening", "relief", "regulator", "ram", "demand", "stroking"] = "oil"
    settings: dict[NameText, Figure] = Field(default_factory=dict, max_length=8)
    fault: Literal["", "frozen", "out_of_range", "spikes", "wrong_scale", "clock"] = ""


_FAULT_WORDS = {
    "": "sound", "frozen": "frozen: it keeps its last reading", "out_of_range": "beyond its range",
    "spikes": "spikes now and then", "wrong_scale": "ten times too high", "clock": "its clock jumps an hour",
}  # fmt: skip


class HoldSetBody(Body):
    pressure: PressureText = Field(examples=["180 bar"])


class ReadsOut(BaseModel):
    """Something a channel can read, and the units it can be in."""

    key: Reads
    says: str
    units: list[str]


class StandMapOut(BaseModel):
    """``shipped``: the map is the one that came with the program."""

    map: StandMap
    shipped: bool
    reads: list[ReadsOut]
    formats: list[RegisterFormat]


_READS_WORDS = {
    Reads.PRESSURE: ("pressure", ["bar", "psi", "MPa", "kPa", "mbar", "inH2O"]),
    Reads.TEMPERATURE: ("temperature", ["°C", "°F"]),
    Reads.FLOW: ("flow", ["ml/min", "l/min"]),
    Reads.POSITION: ("position", ["mm", "in"]),
    Reads.FORCE: ("force", ["N", "kN", "lbf"]),
    Reads.HELD: ("since the valve was shut", ["s", "min"]),
    Reads.HOLD: ("number of the hold", [""]),
    Reads.READING: ("number of the reading", [""]),
    Reads.SIMULATED: ("1 for a simulated stand", [""]),
    Reads.TARGET: ("written: pressure to hold", ["bar", "psi", "MPa"]),
}


# Decimals that a reading is shown with, by unit; two where none is told.
_DECIMALS = {"psi": 1, "MPa": 3, "kPa": 1, "°C": 1, "°F": 1, "l/min": 3, "in": 4, "N": 1, "kN": 3, "lbf": 1}


def driver_of(request: Request) -> StandDriver:
    driver: StandDriver = request.app.state.stand
    return driver


def recorder_of(request: Request) -> Recorder:
    recorder: Recorder = request.app.state.recorder
    return recorder


def _channel_out(channel: StandChannel, base: float) -> ChannelNowOut:
    unit = find_unit(channel.unit)
    value = None if math.isnan(base) or unit is None else round(from_base(base, unit), 6) + 0.0
    shown = "no reading" if value is None else f"{value:.{_DECIMALS.get(channel.unit, 2)}f} {channel.unit}"
    return ChannelNowOut(
        key=channel.key, name=channel.name, reads=channel.reads, value=value, unit=channel.unit,
        shown=shown.replace("-", "−"),
    )  # fmt: skip


def _reading_out(shown: Shown, stand: StandMap) -> StandReadingOut:
    pressure, temperature = stand.channel_of(Reads.PRESSURE), stand.channel_of(Reads.TEMPERATURE)

    def base(channel: StandChannel | None) -> float | None:
        value = math.nan if channel is None else shown.values.get(channel.key, math.nan)
        return None if math.isnan(value) else round(value, 6)

    return StandReadingOut(
        pressure_mpa=base(pressure),
        temperature_c=base(temperature),
        held_s=shown.held,
        simulated=shown.simulated,
        hold=shown.hold,
        channels=[_channel_out(channel, shown.values.get(channel.key, math.nan)) for channel in stand.measured],
    )


@router.get("/reading", summary="Present reading of every channel", responses=AWAY)
async def reading(request: Request, caller: Reader) -> StandReadingOut:
    return await _shown(request)


async def _shown(request: Request) -> StandReadingOut:
    driver = driver_of(request)
    return _reading_out(await driver.read(), await driver.map())


def _watching(request: Request) -> Caller:
    """Who watches: looked up in a session of its own, which is over before the first event is sent."""
    with session_of(request.app.state.engine) as session:
        caller = signed_in(find_caller(request, session))
    authorize(caller, StandPolicy.read)
    return caller


Watcher = Annotated[Caller, Depends(_watching)]


def is_signed_in(request: Request) -> bool:
    """Whether whoever sent a request is signed in still; a database that is away ends nobody's watch."""
    try:
        with session_of(request.app.state.engine) as session:
            return find_caller(request, session) is not None
    except NotSignedInError:
        return False
    except SQLAlchemyError:
        return True


@router.get("/live", summary="Live readings of the stand (server-sent events)", response_class=EventSourceResponse)
async def live(request: Request, caller: Watcher) -> AsyncIterable[LiveOut]:
    """No connection to the database is held while it runs; it ends when who watches signs out, or the session is over."""
    recorder, driver = recorder_of(request), driver_of(request)
    run, sent, looked = None, 0, time.monotonic()
    async for _ in recorder.watch():
        if time.monotonic() - looked > STILL_SIGNED_IN_S:
            looked = time.monotonic()
            if not await run_in_threadpool(is_signed_in, request):
                return
        recording = recorder.recording
        fresh = recording is not None and recording.run != run
        if fresh:
            run, sent = recording.run if recording else None, 0
        points: list[tuple[float, float]] = []
        if recording is not None:
            end = len(recording.times)
            most = MOST_POINTS if sent == 0 else MOST_FRESH
            points = thinned(recording.times[sent:end], recording.pressures[sent:end], most)
            sent = end
        yield LiveOut(
            read_at=recorder.shown_at,
            away=recorder.away,
            reading=None if recorder.shown is None else _reading_out(recorder.shown, await driver.map()),
            recording=None if recording is None else RecordingOut.of(recording),
            fresh=fresh,
            points=points,
        )


@router.post("/hold", summary="Raise to a pressure and shut the valve", responses=AWAY | CONFLICT)
async def hold(body: HoldSetBody, request: Request, caller: Mover) -> StandReadingOut:
    read = Collector()
    pressure = read.get(read_gauge_pressure, body.pressure, "pressure", low=0.0, high=_HIGHEST_MPA)
    read.done()
    recorder_of(request).check_free()
    await driver_of(request).hold_at(pressure)
    return await _shown(request)


@router.post("/let-down", summary="Release the pressure of the simulated stand", responses=AWAY | CONFLICT)
async def let_down(request: Request, caller: Mover) -> StandReadingOut:
    recorder_of(request).check_free()
    await _only_simulated(request)
    await driver_of(request).let_down()
    return await _shown(request)


async def _only_simulated(request: Request) -> None:
    if not (await driver_of(request).read()).simulated:
        raise RefusedError("real-stand", "this is a real stand; only the simulated stand can do that")


@router.get("/panel", summary="How the simulated stand is set up", responses=AWAY | CONFLICT)
async def panel(request: Request, caller: Reader) -> PanelOut:
    await _only_simulated(request)
    now_ = await driver_of(request).panel()
    dials = RIGS[now_.rig]().dials
    return PanelOut(
        rig=now_.rig,
        settings={dial.key: round(value, 4) for dial, value in zip(dials, now_.dials, strict=False)},
        fault=now_.fault,
        rigs=[
            RigOut(
                key=key,
                says=rig().says,
                dials=[
                    DialStandOut(
                        key=dial.key, says=dial.says, unit=dial.unit, first=dial.first, low=dial.low, high=dial.high
                    )
                    for dial in rig().dials
                ],
            )
            for key, rig in RIGS.items()
        ],
        faults=[FaultOut(key=key, says=says) for key, says in _FAULT_WORDS.items()],
    )


@router.post("/panel", summary="Set up the simulated stand", responses=AWAY | CONFLICT)
async def set_panel(body: PanelBody, request: Request, caller: Mover) -> PanelOut:
    dials = RIGS[body.rig]().dials
    known = {dial.key: dial for dial in dials}
    faults = [
        FieldFault(f"settings.{key}", f"is not a setting of “{RIGS[body.rig]().says}”", tuple(known))
        for key in body.settings
        if key not in known
    ]
    for key, value in body.settings.items():
        dial = known.get(key)
        if dial is not None and not dial.low <= value <= dial.high:
            text = f"{dial.says}: {value:g} {dial.unit} cannot be set"
            faults.append(FieldFault(f"settings.{key}", text, (f"{dial.low:g} to {dial.high:g} {dial.unit}",)))
    if faults:
        raise RuleError(faults)
    await _only_simulated(request)
    values = tuple(body.settings.get(dial.key, dial.first) for dial in dials)
    await driver_of(request).set_up(StandPanel(body.rig, values, body.fault))
    return await panel(request, caller)


@router.get("/map", summary="The register map of the stand", responses=CONFLICT)
async def stand_map(request: Request, caller: Reader) -> StandMapOut:
    used = await driver_of(request).map()
    return StandMapOut(
        map=used,
        shipped=used == SHIPPED,
        reads=[ReadsOut(key=key, says=says, units=units) for key, (says, units) in _READS_WORDS.items()],
        formats=list(RegisterFormat),
    )


@router.put("/map", summary="Set the register map of the stand", responses=CONFLICT)
def set_map(body: StandMap, request: Request, session: DbSession, caller: MapKeeper) -> StandMap:
    return _set_map(request, session, caller, body)


@router.delete("/map", summary="Go back to the shipped register map", responses=CONFLICT)
def shipped_map(request: Request, session: DbSession, caller: MapKeeper) -> StandMap:
    return _set_map(request, session, caller, None)


def _set_map(request: Request, session: DbSession, caller: Caller, wanted: StandMap | None) -> StandMap:
    recorder_of(request).check_free()
    set_stand_map(session, wanted, caller.key, now())
    after = {} if wanted is None else wanted.model_dump(mode="json")
    leave_trail(
        session, caller.key, now(), "stand", "register map", "changed" if wanted else "shipped again", after=after
    )
    # Committed before anybody asks for it again, which a forgotten map does at the next reading.
    session.commit()
    driver_of(request).forget_map()
    return wanted or SHIPPED


def stand_away(request: Request, error: Exception) -> object:
    return problem(503, "stand-away", "Test stand not reachable", str(error))


__all__ = ["StandAwayError", "router", "stand_away"]
