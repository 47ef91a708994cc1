"""The server's recorder: it polls the stand, keeps what a run reads in chunks of a second, and lets many watch."""

from __future__ import annotations

import asyncio
import contextlib
import math
import time
from array import array
from collections.abc import AsyncIterator, Awaitable, Callable, Coroutine, Sequence
from dataclasses import dataclass, field
from functools import partial
from typing import Any, Protocol
from uuid import UUID

import structlog

from ironkettle.core.base.errors import RefusedError
from ironkettle.core.machine.stand import (
    Beat,
    RecordingPlan,
    RecordingState,
    Row,
    Shown,
    Trouble,
    Watch,
    rows_text,
    took_none,
)
from ironkettle.stand.driver import StandAwayError, StandDriver

log = structlog.get_logger()
CHUNK_S = 1.0
# So long the stand may take to come to its pressure. [s]
MOST_WAIT_S = 180.0
# Watchers are told no more often than this. [s]
TELL_S = 0.05
_RETRY_S = 1.0
# How far the stand's clock and ours may be apart over an interruption. [s]
_AGREES_S = 5.0
# A stand that tells it held for longer than this counts something else: the run begins at 0. [s]
_LONGEST_S = 1e6
# A stand that does not tell when it is shut holds from this share of what it was raised to.
_THERE = 0.98
_LEAST_MPA = -0.11
_CATCH_UP_S = 0.5


def clock() -> float:
    """The server's clock for recordings: it never jumps, and it goes on while the machine sleeps. [s]"""
    return time.clock_gettime(time.CLOCK_BOOTTIME)


class Keeper(Protocol):
    """Where a recording is kept. Each call is repeated until it goes through."""

    async def chunks(self, run: UUID, hold: int, first: int, texts: Sequence[str]) -> None:
        """Keep what is not kept yet of the chunks since the recording began or was gone on with, which stand from ``first`` on.

        All of them are given each time: a database that lost its last moments gets them again.
        """

    async def ended(self, run: UUID, state: RecordingState, said: list[Trouble]) -> None: ...


@dataclass(slots=True)
class Recording:
    """A recording under way, or the last one. Times of the recording in s, pressures in MPa gauge.

    ``raises``: the stand is raised first; ``base``: where its clock begins; ``place``: how many chunks
    there were before; ``hold``: the number its readings belong to, 0 until it is known; ``unkept``: since when
    nothing could be kept; ``kept``: ended, and all of it kept; ``beat``: follows the stand's own numbers.
    """

    run: UUID
    job: UUID
    number: int
    who: str
    plan: RecordingPlan
    raises: bool = False
    hold: int = 0
    base: float = 0.0
    place: int = 0
    state: RecordingState = "waiting"
    why: str = ""
    said: list[Trouble] = field(default_factory=list)
    times: array[float] = field(default_factory=lambda: array("d"))
    pressures: array[float] = field(default_factory=lambda: array("d"))
    rows: list[Row] = field(default_factory=list)
    texts: list[str] = field(default_factory=list)
    zero: float | None = None
    watch: Watch | None = None
    unkept: float | None = None
    kept: bool = False
    beat: Beat = field(init=False)
    keeping: asyncio.Lock = field(default_factory=asyncio.Lock)
    before: tuple[int | None, float | None] | None = None
    asked_at: float = 0.0

    def __post_init__(self) -> None:
        self.beat = Beat.of(self.plan)

    @property
    def is_live(self) -> bool:
        return self.state in {"waiting", "recording"}


class Recorder:
    """One stand, one recording at a time, any number of watchers; polls only while there is one of them."""

    def __init__(self, driver: StandDriver, keeper: Keeper) -> None:
        self._driver, self._keeper = driver, keeper
        self.recording: Recording | None = None
        self.shown: Shown | None = None
        self.shown_at = 0.0
        self.away: str | None = None
        self._watchers = 0
        self._turn = asyncio.Condition()
        self._polling: asyncio.Task[None] | None = None
        self._tasks: set[asyncio.Task[None]] = set()
        self._stopping = False

    @property
    def live(self) -> Recording | None:
        """The recording under way."""
        return self.recording if self.recording is not None and self.recording.is_live else None

    def check_free(self) -> None:
        """Raises RefusedError while somebody records."""
        if self.live is not None:
            text = f"{self.live.who} records job {self.live.number} on the stand; it is free when that has ended"
            raise RefusedError("stand-busy", text)

    async def start(self, recording: Recording) -> None:
        """Raise the stand where a pressure is asked for, and record from when it holds.

        Raises RefusedError while another is recorded, StandAwayError when the stand does not answer.
        """
        self.check_free()
        # Taken before the first pause: of two who start at once, one is told that the stand is busy.
        self.recording = recording
        try:
            shown = await self._driver.read()
            if recording.raises and recording.plan.asked_mpa is not None:
                recording.before = (shown.hold, shown.held)
                await self._driver.hold_at(recording.plan.asked_mpa)
        except BaseException:
            self.recording = None
            raise
        recording.asked_at = clock()
        self._spawn(self._keep(recording))
        self._poll()

    async def stop(self, run: UUID, state: RecordingState = "ended", why: Trouble | None = None) -> None:
        """End the recording of a run, and return once all of it is kept. Nothing happens for one that is not under way."""
        live = self.live
        if live is None or live.run != run:
            return
        if why is not None:
            live.said.append(why)
        live.state, live.why = state, "" if why is None else why.says
        # The caller may go; what was read is kept all the same.
        await asyncio.shield(self._spawn(self._finish(live, state)))

    async def _finish(self, live: Recording, state: RecordingState) -> None:
        await self._keep_rows(live)
        await self._surely(live, partial(self._keeper.ended, live.run, state, live.said))
        live.kept = True
        await self._tell()

    async def let_go(self) -> None:
        """The server stops: nobody watches any more."""
        self._stopping = True
        await self._tell()

    async def close(self) -> None:
        """The server stops: what is under way is interrupted and kept."""
        if self.live is not None:
            at = self.live.times[-1] if self.live.times else 0.0
            text = f"the server was stopped after {at:.0f} s; everything read until then is kept"
            with contextlib.suppress(TimeoutError):
                await asyncio.wait_for(self.stop(self.live.run, "interrupted", Trouble("server", at, text, True)), 3)
        self._stopping = True
        if self._polling is not None:
            # What is being read or asked of the database comes to its end first.
            await asyncio.wait({self._polling}, timeout=3)
            self._polling.cancel()
        await self._driver.close()

    async def watch(self) -> AsyncIterator[None]:
        """Comes back whenever something new is shown, at most twenty times a second."""
        self._watchers += 1
        try:
            self._poll()
            while not self._stopping:
                async with self._turn:
                    await self._turn.wait()
                if self._stopping:
                    return
                yield
                await asyncio.sleep(TELL_S)
        finally:
            self._watchers -= 1

    def _poll(self) -> None:
        if self._polling is None or self._polling.done():
            self._polling = asyncio.create_task(self._run())

    async def _run(self) -> None:
        due = time.monotonic()
        while (self._watchers or self.live) and not self._stopping:
            rate = await self._once(self.live)
            # What came late is made up for; after a longer pause the beat begins anew.
            due = max(due + 1 / rate, time.monotonic() - _CATCH_UP_S)
            await asyncio.sleep(max(due - time.monotonic(), 0.0))

    async def _once(self, live: Recording | None) -> float:
        """Read once; gives how often to read. [Hz]"""
        ends, rate = None, 1 / _RETRY_S
        try:
            wanted = live.plan.rate_hz if live else (await self._driver.map()).rate_hz
            self.shown, self.away = await self._driver.read(), None
            self.shown_at, rate, now = time.time(), wanted, clock()
            earlier = await self._earlier(live, self.shown) if live and live.is_live else None
            # It may have been stopped while the stand answered: what comes then is no part of it any more.
            ends = self._take(live, self.shown, now, earlier) if live and live.is_live else None
        except StandAwayError as error:
            self.shown, self.away = None, str(error)
        except Exception as error:
            # Whatever it was, the next reading may be sound: the run goes on, and it is said.
            log.exception("stand")
            self.shown = None
            self.away = str(error) if isinstance(error, RefusedError) else "the stand's answer could not be read"
        if live is not None and live.is_live and self.away is not None:
            ends = self._gone(live, self.away)
        if live is not None and ends is not None:
            self._spawn(self.stop(live.run, "interrupted", ends))
        await self._tell()
        return rate

    async def _earlier(self, live: Recording, shown: Shown) -> list[Shown] | None:
        """The readings up to this one that are wanted, not taken yet, and kept by the stand; None where it keeps none."""
        if shown.reading is None or live.plan.every_s is None:
            return None
        return await self._driver.kept(live.beat.wanted(shown.reading))

    def _take(self, live: Recording, shown: Shown, now: float, kept: Sequence[Shown] | None) -> Trouble | None:
        """Record what the stand shows, and what it kept since it was read last; gives what ends the recording."""
        if live.state == "waiting" and not self._holds(live, shown):
            if now - live.asked_at > MOST_WAIT_S:
                text = f"the stand did not come to its pressure and shut within {MOST_WAIT_S:.0f} s"
                return Trouble("not_reached", 0.0, text, True)
            return None
        if live.state == "waiting":
            self._begin(live, shown, now)
        assert live.watch is not None
        assert live.zero is not None
        at = live.base + now - live.zero
        live.said += live.watch.answered(round(at, 3))
        if shown.reading is None or live.plan.every_s is None:
            return self._record(live, shown, round(at, 3), None)
        live.beat.heard(shown.reading, at)
        if kept is None:
            # As it shows itself, once for each reading of its own.
            kept = [] if shown.reading == live.beat.last else [shown]
        still = live.beat.still_since(at)
        if still is not None:
            return took_none(still)
        for row in kept:
            number = row.reading
            assert number is not None
            ends = self._record(live, row, round(live.beat.when(number), 3), number)
            if ends is not None:
                return ends
        return None

    @staticmethod
    def _record(live: Recording, shown: Shown, at: float, number: int | None) -> Trouble | None:
        """Record one reading; gives what ends the recording."""
        assert live.watch is not None
        if live.times and at <= live.times[-1]:
            return None
        pressure = shown.values.get(live.plan.pressure, math.nan)
        if not _LEAST_MPA <= pressure <= live.plan.reach_mpa:
            pressure = math.nan
        found = live.watch.look(at, pressure, shown.held, shown.hold)
        ends = next((event for event in found if event.ends), None)
        live.said += [event for event in found if not event.ends]
        if ends is not None:
            return ends
        values = {**shown.values, live.plan.pressure: pressure}
        if live.plan.number is not None and number is not None:
            values[live.plan.number] = number
        live.rows.append((at, *(values.get(channel.key, math.nan) for channel in live.plan.channels)))
        live.beat.take(at, number)
        if not math.isnan(pressure):
            live.times.append(at)
            live.pressures.append(pressure)
        return None

    @staticmethod
    def _holds(live: Recording, shown: Shown) -> bool:
        """Whether it holds what it was raised to, not what it held before."""
        if not shown.shut:
            return False
        if live.before is None:
            return True
        number, held = live.before
        if shown.hold is not None:
            return shown.hold != number
        if shown.held is not None:
            return not held or shown.held < held
        # It tells neither: it holds once it shows what it was raised to.
        aim_mpa = live.plan.asked_mpa or 0.0
        return shown.values.get(live.plan.pressure, math.nan) >= _THERE * aim_mpa

    @staticmethod
    def _begin(live: Recording, shown: Shown, now: float) -> None:
        held = shown.held or 0.0
        # Gone on after an interruption it is the time that passed, by the stand's clock where that agrees.
        if abs(held - live.base) < _AGREES_S or (not live.times and held < _LONGEST_S):
            live.base = held
        live.zero, live.state = now, "recording"
        live.hold = live.hold or shown.hold or 0
        name = next(channel.name for channel in live.plan.channels if channel.key == live.plan.pressure)
        aim_mpa = live.plan.asked_mpa if not live.times else None
        live.watch = Watch(name, None if shown.hold is None else live.hold, aim_mpa)

    def _gone(self, live: Recording, why: str) -> Trouble | None:
        now = clock()
        if live.watch is None or live.zero is None:
            late = now - live.asked_at > MOST_WAIT_S
            return Trouble("gone", 0.0, why, True) if late else None
        found = live.watch.away(round(live.base + now - live.zero, 3), why)
        live.said += [event for event in found if not event.ends]
        return next((event for event in found if event.ends), None)

    def _spawn(self, work: Coroutine[Any, Any, None]) -> asyncio.Task[None]:
        """Start something that is not waited for here; it is held on to until it is done."""
        task = asyncio.get_running_loop().create_task(work)
        self._tasks.add(task)
        task.add_done_callback(self._tasks.discard)
        return task

    async def _keep(self, live: Recording) -> None:
        """Keeps what was read, each second, until the recording has ended."""
        while live.is_live:
            await asyncio.sleep(CHUNK_S)
            await self._keep_rows(live)

    async def _keep_rows(self, live: Recording) -> None:
        # One at a time: a chunk is chained to the one before it.
        async with live.keeping:
            while live.rows:
                rows, live.rows = live.rows, []
                live.texts.append(rows_text(rows))
                await self._surely(live, partial(self._keeper.chunks, live.run, live.hold, live.place, live.texts))

    async def _surely(self, live: Recording, call: Callable[[], Awaitable[None]]) -> None:
        """Repeat until it goes through: nothing that was read is lost to a full disk or a database that is away."""
        while True:
            try:
                await call()
            except Exception as error:
                if live.unkept is None:
                    live.unkept = time.monotonic()
                    log.error("recording not kept", run=str(live.run), error=str(error)[:300])
                await self._tell()
                await asyncio.sleep(_RETRY_S)
            else:
                live.unkept = None
                return

    async def _tell(self) -> None:
        async with self._turn:
            self._turn.notify_all()


__all__ = ["Keeper", "Recorder", "Recording"]
