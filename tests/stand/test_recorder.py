"""The server's recorder against a stand and a keeper that can be made to fail."""

from __future__ import annotations

import asyncio
from uuid import UUID

import pytest

from ironkettle.core.base.errors import RefusedError
from ironkettle.core.machine.stand import (
    Shown,
)
from ironkettle.stand.recorder import Recorder, Recording
from tests.stand.fakes import JOB, PLAN, RUN, Kept, Stand, recording, until, until_done_or_told, working


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
