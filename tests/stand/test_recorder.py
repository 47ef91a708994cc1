"""The server's recorder against a stand and a keeper that can be made to fail."""

from __future__ import annotations

import asyncio
import math
import time
from collections.abc import Callable, Sequence
from typing import Any
from uuid import UUID

import pytest

from ironkettle.core.errors import RefusedError
from ironkettle.core.stands import (
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


def test_everything_read_is_kept_in_order_once(monkeypatch: pytest.MonkeyPatch) -> None:
    async def work(recorder: Recorder, stand: Stand, kept: Kept) -> None:
        made = recording()
        await recorder.start(made)
        await until(recorder, lambda: len(made.times) >= 40)
        await recorder.stop(RUN)
        assert made.kept
        assert [row[0] for row in kept.rows] == list(made.times)
        assert [row[1] for row in kept.rows] == list(made.pressures)

    kept = working(work, monkeypatch)
    assert [place for place, _ in kept.texts] == list(range(len(kept.texts)))
    assert len(kept.texts) > 2
    times = [row[0] for row in kept.rows]
    assert times == sorted(set(times))
    assert kept.ends == [("ended", [])]


def test_a_full_disk_loses_nothing(monkeypatch: pytest.MonkeyPatch) -> None:
    async def work(recorder: Recorder, stand: Stand, kept: Kept) -> None:
        made = recording()
        await recorder.start(made)
        await until(recorder, lambda: len(kept.texts) >= 1)
        kept.refuses = True
        await until(recorder, lambda: made.unkept is not None)
        before = len(made.times)
        await until(recorder, lambda: len(made.times) >= before + 20)
        stopping = asyncio.create_task(recorder.stop(RUN))
        await until_done_or_told(recorder, lambda: not made.is_live)
        assert not stopping.done()
        kept.refuses = False
        await stopping
        assert [row[0] for row in kept.rows] == list(made.times)

    assert [state for state, _ in working(work, monkeypatch).ends] == ["ended"]


async def until_done_or_told(recorder: Recorder, fits: Callable[[], bool]) -> None:
    while not fits():
        await asyncio.sleep(0)


def test_two_cannot_record_at_once(monkeypatch: pytest.MonkeyPatch) -> None:
    async def work(recorder: Recorder, stand: Stand, kept: Kept) -> None:
        first, second = recording(), Recording(UUID(int=9), JOB, 1005, "Mirela", PLAN)
        told = await asyncio.gather(recorder.start(first), recorder.start(second), return_exceptions=True)
        assert [type(one) for one in told] == [type(None), RefusedError]
        assert "Bede records job 1004" in str(told[1])
        await recorder.stop(UUID(int=9))
        assert recorder.live is first
        await recorder.stop(RUN)
        await recorder.start(second)
        assert recorder.live is second

    ends = working(work, monkeypatch).ends
    # The second was under way when the server stopped: that is said.
    assert [state for state, _ in ends] == ["ended", "interrupted"]
    assert "the server was stopped" in ends[1][1][-1].says


def test_it_waits_for_the_new_hold_and_not_for_the_one_before(monkeypatch: pytest.MonkeyPatch) -> None:
    async def work(recorder: Recorder, stand: Stand, kept: Kept) -> None:
        made = recording(asked_mpa=18.0)
        await recorder.start(made)
        assert stand.raised == 18.0
        ticks = stand.ticks
        await until(recorder, lambda: stand.ticks > ticks + 5)
        assert made.state == "waiting"
        assert not made.times
        stand.hold, stand.held = 8, 0.0
        await until(recorder, lambda: stand.ticks > ticks + 10)
        assert made.state == "waiting"
        stand.held = 0.02
        await until(recorder, lambda: len(made.times) > 5)
        assert (made.state, made.hold) == ("recording", 8)
        assert made.times[0] < 0.2

    working(work, monkeypatch)


def test_a_stand_that_tells_neither_time_nor_number_holds_once_it_shows_its_pressure(
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    class Dumb(Stand):
        async def read(self) -> Shown:
            shown = await super().read()
            return Shown(shown.values, None, None, False)

    async def work(recorder: Recorder, _stand: Stand, kept: Kept) -> None:
        dumb = Dumb()
        recorder._driver = dumb
        made = recording(asked_mpa=18.0)
        made.hold = 4711
        dumb.pressure = 2.0
        await recorder.start(made)
        await until(recorder, lambda: dumb.ticks > 10)
        assert made.state == "waiting"
        dumb.pressure = 17.9
        await until(recorder, lambda: len(made.times) > 5)
        assert min(made.pressures) > 17
        assert (made.times[0], made.hold) == (0.0, 4711)
        await recorder.stop(RUN)

    working(work, monkeypatch)


def test_a_stand_whose_clock_tells_years_begins_at_nought(monkeypatch: pytest.MonkeyPatch) -> None:
    async def work(recorder: Recorder, stand: Stand, kept: Kept) -> None:
        made = recording()
        stand.held = 1e9
        await recorder.start(made)
        await until(recorder, lambda: len(made.times) > 5)
        assert made.times[0] == 0.0
        await recorder.stop(RUN)

    working(work, monkeypatch)


def test_a_stand_that_never_comes_to_its_pressure_is_said(monkeypatch: pytest.MonkeyPatch) -> None:
    async def work(recorder: Recorder, stand: Stand, kept: Kept) -> None:
        made = recording(asked_mpa=18.0)
        stand.held = 0.0
        await recorder.start(made)
        await until(recorder, lambda: made.kept)
        assert made.state == "interrupted"

    assert "did not come to its pressure" in working(work, monkeypatch, 0.2).ends[0][1][-1].says


@pytest.mark.parametrize(
    ("change", "says"),
    [
        ({"hold": 8}, "holds something else now"),
        ({"held": -1.0}, "the valve was opened"),
        ({"pressure": 60.0}, "jumped to 3.3 times"),
    ],
)
def test_what_ends_a_recording_ends_it_with_what_was_read(
    change: dict[str, float], says: str, monkeypatch: pytest.MonkeyPatch
) -> None:
    async def work(recorder: Recorder, stand: Stand, kept: Kept) -> None:
        made = recording(reach_mpa=100.0)
        await recorder.start(made)
        await until(recorder, lambda: len(made.times) >= 20)
        for name, value in change.items():
            setattr(stand, name, value)
        await until(recorder, lambda: made.kept)
        assert max(made.pressures) < 19
        assert recorder.live is None

    kept = working(work, monkeypatch)
    assert kept.ends[0][0] == "interrupted"
    assert says in kept.ends[0][1][-1].says
    assert len(kept.rows) >= 20


def test_a_stand_gone_for_a_moment_is_said_and_the_run_goes_on(monkeypatch: pytest.MonkeyPatch) -> None:
    async def work(recorder: Recorder, stand: Stand, kept: Kept) -> None:
        made = recording()
        await recorder.start(made)
        await until(recorder, lambda: len(made.times) >= 10)
        stand.answers = False
        await until(recorder, lambda: recorder.away is not None)
        assert recorder.away == "the cable is out"
        before = len(made.times)
        stand.answers = True
        await until(recorder, lambda: len(made.times) >= before + 5)
        assert [one.key for one in made.said] == ["gone", "back"]
        await recorder.stop(RUN)

    assert working(work, monkeypatch).ends[0][0] == "ended"


def test_a_reading_past_the_gauges_end_is_no_reading(monkeypatch: pytest.MonkeyPatch) -> None:
    async def work(recorder: Recorder, stand: Stand, kept: Kept) -> None:
        made = recording()
        await recorder.start(made)
        await until(recorder, lambda: len(made.times) >= 10)
        stand.pressure = 26.0
        await until(recorder, lambda: bool(made.said))
        assert "past the end of its range" in made.said[0].says
        stand.pressure = 18.0
        before = len(made.times)
        await until(recorder, lambda: len(made.times) > before)
        await recorder.stop(RUN)
        assert max(made.pressures) < 19

    assert any(math.isnan(row[1]) for row in working(work, monkeypatch).rows)


def test_a_stand_that_is_away_at_the_start_leaves_it_free(monkeypatch: pytest.MonkeyPatch) -> None:
    async def work(recorder: Recorder, stand: Stand, kept: Kept) -> None:
        stand.answers = False
        with pytest.raises(StandAwayError):
            await recorder.start(recording())
        recorder.check_free()

    assert working(work, monkeypatch).ends == []


def test_a_database_that_lost_its_last_moments_gets_them_again(monkeypatch: pytest.MonkeyPatch) -> None:
    async def work(recorder: Recorder, stand: Stand, kept: Kept) -> None:
        made = recording()
        await recorder.start(made)
        await until(recorder, lambda: len(kept.texts) >= 3)
        del kept.texts[1:]
        await until(recorder, lambda: len(kept.texts) >= 4)
        await recorder.stop(RUN)
        assert [row[0] for row in kept.rows] == list(made.times)

    working(work, monkeypatch)


def test_what_the_stand_answers_after_the_stop_is_no_part_of_the_run(monkeypatch: pytest.MonkeyPatch) -> None:
    class Slow(Stand):
        def __init__(self) -> None:
            super().__init__()
            self.gate = asyncio.Event()
            self.gate.set()

        async def read(self) -> Shown:
            shown = await super().read()
            await self.gate.wait()
            return shown

    async def work(recorder: Recorder, _stand: Stand, kept: Kept) -> None:
        slow = Slow()
        recorder._driver = slow
        made = recording()
        await recorder.start(made)
        await until(recorder, lambda: len(made.times) >= 5)
        slow.gate.clear()
        ticks = slow.ticks
        await until_done_or_told(recorder, lambda: slow.ticks > ticks)
        await recorder.stop(RUN)
        count = len(made.times)
        slow.gate.set()
        await until(recorder, lambda: slow.ticks > ticks + 3)
        assert (len(made.times), made.rows) == (count, [])

    working(work, monkeypatch)


NUMBERED = PLAN.model_copy(
    update={
        "channels": (*PLAN.channels, RecordedChannel(key="reading", name="Number of the reading", unit="")),
        "number": "reading",
        "every_s": 0.02,
    }
)


class Numbering(Stand):
    """A stand that numbers its readings, fifty a second, and keeps the last ``keeps``; it can take long to answer."""

    def __init__(self, keeps: int) -> None:
        super().__init__()
        self.keeps, self.gate, self.began = keeps, asyncio.Event(), time.monotonic()
        self.gate.set()

    @property
    def number(self) -> int:
        return int((time.monotonic() - self.began) / 0.02)

    def at(self, number: int) -> Shown:
        return Shown({"pressure": 18.0 + 0.0001 * (number % 2)}, 1 + 0.02 * number, 7, True, number)

    async def read(self) -> Shown:
        await asyncio.sleep(0)
        await self.gate.wait()
        return self.at(self.number)

    async def kept(self, numbers: Sequence[int]) -> list[Shown] | None:
        newest = self.number
        return [self.at(one) for one in numbers if one > newest - self.keeps] if self.keeps else None


@pytest.mark.parametrize(("keeps", "all_there"), [(500, True), (10, False), (0, False)])
def test_readings_of_a_busy_moment_are_read_later_or_counted_as_missed(
    keeps: int, all_there: bool, monkeypatch: pytest.MonkeyPatch
) -> None:
    async def work(recorder: Recorder, _stand: Stand, kept: Kept) -> None:
        stand = Numbering(keeps)
        recorder._driver = stand
        made = Recording(RUN, JOB, 1004, "Bede", NUMBERED)
        await recorder.start(made)
        await until(recorder, lambda: len(made.times) >= 10)
        stand.gate.clear()
        number = stand.number
        await until_done_or_told(recorder, lambda: stand.number > number + 40)
        before = len(made.times)
        stand.gate.set()
        await until(recorder, lambda: len(made.times) > before + 5)
        await recorder.stop(RUN)
        numbers = [int(row[-1]) for row in kept.rows]
        between = numbers[-1] - numbers[0] + 1 - len(numbers)
        assert made.beat.missed == between
        assert (between == 0) is all_there
        if all_there:
            assert made.beat.says is None
            # As far apart as the stand took them, by the server's clock.
            assert kept.rows[-1][0] - kept.rows[0][0] == pytest.approx(0.02 * (len(numbers) - 1), abs=0.05)
        else:
            assert f"{between} of {between + len(numbers)} readings" in str(made.beat.says)

    working(work, monkeypatch)


def test_a_reading_that_was_shown_twice_is_one_reading(monkeypatch: pytest.MonkeyPatch) -> None:
    """A stand that takes fewer readings than it is asked for makes no more of them."""

    class Slow(Numbering):
        @property
        def number(self) -> int:
            return int((time.monotonic() - self.began) / 0.1)

    async def work(recorder: Recorder, _stand: Stand, kept: Kept) -> None:
        stand = Slow(0)
        recorder._driver = stand
        made = Recording(RUN, JOB, 1004, "Bede", NUMBERED.model_copy(update={"every_s": 0.1}))
        await recorder.start(made)
        await until(recorder, lambda: len(made.times) >= 4)
        await recorder.stop(RUN)
        numbers = [int(row[-1]) for row in kept.rows]
        assert len(numbers) == len(set(numbers))

    working(work, monkeypatch)
