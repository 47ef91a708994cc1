"""A stand and a keeper in a test's hands, and a recorder between them."""

from __future__ import annotations

import asyncio
from collections.abc import Callable, Sequence
from typing import Any
from uuid import UUID

import pytest

from ironkettle.core.machine.stand import (
    SHIPPED,
    RecordedChannel,
    RecordingPlan,
    RecordingState,
    Row,
    Shown,
    StandMap,
    Trouble,
    read_rows,
)
from ironkettle.stand import recorder as module
from ironkettle.stand.driver import StandAwayError, StandDriver
from ironkettle.stand.recorder import Recorder, Recording

RUN, JOB = UUID(int=1), UUID(int=2)


PLAN = RecordingPlan(
    channels=(
        RecordedChannel(key="pressure", name="Pressure", unit="MPa"),
        RecordedChannel(key="temperature", name="Temperature", unit="°C"),
    ),
    pressure="pressure",
    temperature="temperature",
    reach_mpa=25.0,
    rate_hz=50,
)


class Stand(StandDriver):
    """A stand in a test's hands: what it shows, and whether it answers."""

    def __init__(self) -> None:
        self.pressure, self.held, self.hold, self.answers, self.raised = 18.0, 0.02, 7, True, 0.0
        self.ticks = 0

    async def map(self) -> StandMap:
        return SHIPPED

    async def read(self) -> Shown:
        await asyncio.sleep(0)
        if not self.answers:
            raise StandAwayError("the cable is out")
        self.ticks += 1
        if self.held > 0:
            self.held += 0.02
        # It ripples by a thousandth of a bar, as a channel that lives does.
        shown = self.pressure + 0.0001 * (self.ticks % 2)
        return Shown({"pressure": shown, "temperature": 24.0}, self.held, self.hold, True)

    async def hold_at(self, pressure: float) -> None:
        self.raised = pressure

    async def close(self) -> None: ...


class Kept:
    """A keeper that can refuse."""

    def __init__(self) -> None:
        self.texts: list[tuple[int, str]] = []
        self.ends: list[tuple[RecordingState, list[Trouble]]] = []
        self.refuses = False

    async def chunks(self, _run: UUID, _hold: int, first: int, texts: Sequence[str]) -> None:
        if self.refuses:
            raise OSError("the disk is full")
        there = len(self.texts)
        self.texts += [(first + place, text) for place, text in enumerate(texts)][there:]

    async def ended(self, _run: UUID, state: RecordingState, said: list[Trouble]) -> None:
        if self.refuses:
            raise OSError("the disk is full")
        self.ends.append((state, list(said)))

    @property
    def rows(self) -> list[Row]:
        return [row for _, text in self.texts for row in read_rows(text)]


def recording(**changes: Any) -> Recording:
    return Recording(RUN, JOB, 1004, "Bede", PLAN.model_copy(update=changes), raises="asked_mpa" in changes)


def working(
    work: Callable[[Recorder, Stand, Kept], Any], monkeypatch: pytest.MonkeyPatch, wait_s: float = 180.0
) -> Kept:
    """Runs a test's work with a recorder; seconds are a tenth as long."""
    monkeypatch.setattr(module, "CHUNK_S", 0.1)
    monkeypatch.setattr(module, "_RETRY_S", 0.05)
    monkeypatch.setattr(module, "MOST_WAIT_S", wait_s)
    kept = Kept()

    async def run() -> None:
        stand = Stand()
        recorder = Recorder(stand, kept)
        async with asyncio.timeout(20):
            await work(recorder, stand, kept)
            await recorder.close()

    asyncio.run(run())
    return kept


async def until(recorder: Recorder, fits: Callable[[], bool]) -> None:
    """Watches until it fits."""
    watch = recorder.watch()
    async for _ in watch:
        if fits():
            break
    await watch.aclose()  # type: ignore[attr-defined]


async def until_done_or_told(recorder: Recorder, fits: Callable[[], bool]) -> None:
    while not fits():
        await asyncio.sleep(0)
