"""What ends a recording, what is said of it, and readings that a stand numbers and keeps."""

from __future__ import annotations

import asyncio
import math
import time
from collections.abc import Sequence

import pytest

from ironkettle.core.machine.stand import (
    RecordedChannel,
    Shown,
    beat,
)
from ironkettle.stand.driver import StandAwayError
from ironkettle.stand.recorder import Recorder, Recording
from tests.stand.fakes import JOB, PLAN, RUN, Kept, Stand, recording, until, until_done_or_told, working


@pytest.mark.parametrize(
    ("change", "says"),
    [
        ({"hold": 8}, "is on another hold"),
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
        assert "beyond its range" in made.said[0].says
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
        return [self.at(number) for number in numbers if number > newest - self.keeps] if self.keeps else None


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


@pytest.mark.parametrize("keeps", [0, 500])
def test_a_stand_whose_readings_stand_still_ends_the_run_and_says_so(
    keeps: int, monkeypatch: pytest.MonkeyPatch
) -> None:
    """It answers, and shows a pressure; but it reads nothing any more, and a hold of that is no hold."""
    monkeypatch.setattr(beat, "_STILL_S", 0.3)

    class Stuck(Numbering):
        stuck: int | None = None

        @property
        def number(self) -> int:
            return super().number if self.stuck is None else self.stuck

    async def work(recorder: Recorder, _stand: Stand, kept: Kept) -> None:
        stand = Stuck(keeps)
        recorder._driver = stand
        made = Recording(RUN, JOB, 1004, "Bede", NUMBERED)
        await recorder.start(made)
        await until(recorder, lambda: len(made.times) >= 10)
        stand.stuck = stand.number
        await until(recorder, lambda: made.kept)
        assert made.state == "interrupted"

    assert "the number of its reading stands still" in working(work, monkeypatch).ends[0][1][-1].says
