"""What a recording says of its stand: every fault once, at its time, and none of a stand that is sound."""

from __future__ import annotations

import math
from collections.abc import Iterable
from random import Random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.machine.stand import (
    FIRST_CHUNK,
    RecordedChannel,
    RecordingPlan,
    Trouble,
    Watch,
    broken_at,
    chained,
    read_rows,
    rows_text,
)
from ironkettle.core.machine.stand.trouble import GONE_S, NO_READING_S
from ironkettle.core.simulation import Fault, OilUnit, Stand


def watched(rows: Iterable[tuple[float, float, float | None, int | None]], asked: float | None = 18.0) -> list[Trouble]:
    watch = Watch("Pressure", 7, asked)
    return [one for row in rows for one in watch.look(*row)]


def ripple(count: int, every: float = 0.2, mpa: float = 18.0, seed: int = 1) -> list[tuple[float, float, float, int]]:
    """A sound stand at a pressure: noise of a hundredth of a bar."""
    chance = Random(seed)
    return [(every * n, round(mpa + chance.gauss(0, 0.001), 4), 0.1 + every * n, 7) for n in range(count)]


@given(st.integers(0, 10_000), st.sampled_from([0.02, 0.2, 1.0]), st.floats(0.0001, 0.02))
def test_a_sound_stand_is_not_accused(seed: int, every: float, noise: float) -> None:
    """A unit that leaks half a bar a minute under noise of a thousandth to a fifth of a bar."""
    chance = Random(seed)
    rows = [(every * n, 18.0 - 0.0008 * every * n + chance.gauss(0, noise), 0.1 + every * n, 7) for n in range(300)]
    assert watched(rows) == []


def test_the_simulated_stand_without_fault_is_not_accused_and_each_fault_is_found() -> None:
    found = {}
    for fault in (None, *Fault):
        stand = Stand(OilUnit())
        stand.raise_to(18.0, 7)
        while not stand.shut:
            stand.advance(0.02)
        watch, keys = Watch("Pressure", 7, 18.0), []
        for n in range(600):
            stand.advance(0.2)
            if n == 100:
                stand.fault = fault
            shown = stand.shows(0.2)["pressure"]
            # As its map has it: past 640 bar there is no reading.
            value = shown if shown <= 64.0 else math.nan
            keys += [one.key for one in watch.look(0.2 * n, value, stand.shows_held(), stand.hold)]
        found[fault] = keys
    assert found[None] == []
    assert found[Fault.FROZEN] == ["frozen"]
    assert found[Fault.OUT_OF_RANGE] == ["out_of_range", "out_of_range"]
    assert found[Fault.WRONG_SCALE] == ["out_of_range", "out_of_range"]
    assert found[Fault.SPIKES] == ["spikes"]
    assert found[Fault.CLOCK] == ["clock"]


@pytest.mark.parametrize(
    ("shown", "says"),
    [
        (180.0, "ten times"), (1.8, "a tenth"), (18 * 14.504, "may be set to psi"), (18 / 14.504, "read as psi"),
        (1800.0, "a hundred times"), (0.18, "a hundredth"),
    ],
)  # fmt: skip
def test_a_scale_that_is_wrong_from_the_start(shown: float, says: str) -> None:
    (one,) = watched(ripple(1, mpa=shown))
    assert one.key == "wrong_scale"
    assert one.ends
    assert says in one.says


@pytest.mark.parametrize("shown", [18.0, 17.0, 12.0, 30.0])
def test_a_pressure_that_is_only_off_is_no_wrong_scale(shown: float) -> None:
    assert watched(ripple(3, mpa=shown)) == []
    assert watched(ripple(3, mpa=1.8), asked=None) == []


def test_a_scale_that_changes_on_the_way_ends_the_run() -> None:
    rows = [*ripple(50, mpa=2.0), (10.0, 20.0, 10.1, 7)]
    (one,) = watched(rows, asked=2.0)
    assert (one.key, one.ends, one.at) == ("wrong_scale", True, 10.0)
    # What falls is the unit, not the scale: a burst is recorded.
    assert watched([*ripple(50, mpa=2.0), (10.0, 0.2, 10.1, 7), (10.2, 0.1, 10.3, 7)], asked=2.0) == []


def test_another_hold_and_an_open_valve_end_it() -> None:
    assert [(one.key, one.ends) for one in watched([(0, 18.0, 0.1, 7), (1, 18.0, 1.1, 8)])] == [("other_hold", True)]
    assert [(one.key, one.ends) for one in watched([(0, 18.0, 0.1, 7), (1, 18.0, 0.0, 7)])] == [("opened", True)]
    # A stand that numbers no holds and tells no time is taken at its word.
    assert watched([(0, 18.0, None, None), (1, 18.0, None, None)]) == []


def test_no_reading_is_said_at_once_and_ends_it_when_it_lasts() -> None:
    rows = [*ripple(10), *((2.0 + 0.5 * n, math.nan, 2.1 + 0.5 * n, 7) for n in range(12))]
    first, last = watched(rows)
    assert (first.at, first.ends) == (2.0, False)
    assert (last.at, last.ends) == (2.0, True)
    assert f"for {NO_READING_S:.0f} s" in last.says
    # Back in time, it goes on.
    assert len(watched([*rows[:15], *((5.0 + n, 18.0, 5.1 + n, 7) for n in range(30))])) == 1


def test_a_stand_that_goes_and_comes_back() -> None:
    watch = Watch("Pressure", 7, 18.0)
    watch.look(0.0, 18.0, 0.1, 7)
    (gone,) = watch.away(1.0, "the cable")
    assert "the cable" in gone.says
    assert watch.away(20.0, "the cable") == []
    (back,) = watch.answered(21.0)
    assert watch.look(21.0, 18.0, 21.1, 7) == []
    assert watch.answered(21.2) == []
    assert "after 20.0 s" in back.says
    watch.away(22.0, "again")
    (ended,) = watch.away(22.0 + GONE_S, "again")
    assert ended.ends
    assert ended.at == 22.0
    assert watch.away(70.0, "again") == []


@pytest.mark.parametrize(("drift", "said"), [(0.01, False), (0.03, True), (-0.03, True)])
def test_the_stands_clock_may_drift_by_two_in_a_hundred(drift: float, said: bool) -> None:
    rows = [(float(n), 18.0 + 0.001 * (n % 2), 0.1 + n * (1 + drift), 7) for n in range(400)]
    assert [one.key for one in watched(rows)] == (["clock"] if said else [])


def test_a_dial_read_to_half_a_bar_is_not_frozen_and_one_that_died_is() -> None:
    still = [(0.2 * n, 18.0, 0.1 + 0.2 * n, 7) for n in range(600)]
    assert watched(still) == []
    died = [*ripple(60), *((12.0 + 0.2 * n, 18.0, 12.1 + 0.2 * n, 7) for n in range(150))]
    (one,) = watched(died)
    assert one.key == "frozen"
    assert not one.ends
    assert "since 12 s" in one.says


def test_a_step_that_stays_is_no_spike() -> None:
    rows = ripple(60)
    stays = [(t, p - (0.5 if t > 6 else 0.0), held, hold) for t, p, held, hold in rows]
    assert watched(stays) == []
    jumps = [(t, p - (0.5 if t == 6.0 else 0.0), held, hold) for t, p, held, hold in rows]
    (one,) = watched(jumps)
    assert one.key == "spikes"
    assert "by 5.0 bar and back at 6 s" in one.says


def test_rows_are_kept_as_read_and_chained() -> None:
    rows = [(0.02, 18.0001, 24.0), (0.04, math.nan, 24.1)]
    text = rows_text(rows)
    assert text == "[[0.02,18.0001,24.0],[0.04,null,24.1]]"
    back = read_rows(text)
    assert back[0] == rows[0]
    assert math.isnan(back[1][1])
    first = chained(FIRST_CHUNK, text)
    second = chained(first, text)
    assert first != second
    chunks = [(0, text, first), (1, text, second)]
    assert broken_at(chunks) is None
    assert broken_at([]) is None
    assert broken_at([(0, text, first), (1, text.replace("18.0001", "18.0002"), second)]) == 1
    assert broken_at([(0, text, first), (2, text, second)]) == 1
    assert broken_at([(1, text, second)]) == 0


def test_the_figures_of_a_row_stand_in_the_order_of_its_channels() -> None:
    channels = (RecordedChannel(key="a", name="A", unit="MPa"), RecordedChannel(key="b", name="B", unit="°C"))
    plan = RecordingPlan(channels=channels, pressure="a", temperature="b", rate_hz=5)
    assert (plan.place("a"), plan.place("b")) == (1, 2)
