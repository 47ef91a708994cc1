"""What the demo's tests read comes from the stand: it shows what its dials say."""

from __future__ import annotations

from collections.abc import Mapping

import pytest

from ironkettle.core.jobs import Status
from ironkettle.core.jobs.kinds.release import RELEASED
from ironkettle.core.machine.tests import TRIALS, Instrument
from ironkettle.demo.simulated import from_stand, simulated_trace
from ironkettle.demo.walker import filled
from tests.bench import Job
from tests.tiny import UNITS, sheet_of, unit


def test_what_is_no_reading_stays_as_it_is() -> None:
    assert from_stand({"value": "12", "signs": ["pitted"], "points": {"0": None}}) == {
        "value": "12",
        "signs": ["pitted"],
        "points": {"0": None},
    }


def test_an_injector_opens_where_its_spring_is() -> None:
    wanted = {
        "rig": "opening",
        "dials": {"opens": 252, "shuts": 25},
        "raise": "300 bar",
        "read": "openings",
        "count": 3,
    }
    read = [float(one.removesuffix(" bar")) for one in from_stand({"from_stand": wanted})]
    assert len(read) == 3
    # Above its setting by what one stroke of the pump makes at most.
    assert all(252 <= reading <= 257 for reading in read)
    with pytest.raises(LookupError, match="does not open"):
        from_stand({"from_stand": wanted | {"raise": "100 bar"}})


def test_a_regulator_with_a_seat_that_passes_creeps_by_it() -> None:
    wanted = {
        "rig": "regulator", "dials": {"set_to": 4.0, "seat_leak": 40}, "raise": "16 bar", "read": "creep",
        "at_s": [60, 120, 300],
    }  # fmt: skip
    read = from_stand({"from_stand": wanted})
    bars = [float(reading["pressure"].removesuffix(" bar")) for reading in read]
    # 40 ml/min of standard air into 500 ml: 0.081 bar a minute.
    assert bars[1] - bars[0] == pytest.approx(0.081, abs=0.02)
    assert bars[2] - bars[0] == pytest.approx(0.324, abs=0.03)


def test_an_effort_is_the_deepest_of_each_breath() -> None:
    wanted = {"rig": "demand", "dials": {"cracks": 220, "rises": 0.9}, "raise": "9 bar", "read": "efforts", "count": 2}
    # 220 + 0.9 · 60 = 274 Pa = 1.10 inH2O.
    assert from_stand({"from_stand": wanted}) == ["1.10 inH2O", "1.10 inH2O"]


@pytest.mark.parametrize(
    ("past", "counts"),
    [
        # 1 l/min into 30 ml and 0.1 s at the end: 31.6 strokes a minute; the supply takes its first second.
        (0.0, {31, 32}),
        # Rings that pass 0.37·√1.2 = 0.405 l/min leave 0.595: 3.03 s and 0.1 s are 19.2 a minute.
        (0.37, {19, 20}),
        (1.2, {0}),
    ],
)
def test_a_motor_strokes_by_what_its_rings_leave(past: float, counts: set[int]) -> None:
    wanted = {"rig": "stroking", "dials": {"past": past}, "raise": "1.2 bar", "read": "counts", "count": 3}
    read = from_stand({"from_stand": wanted})
    assert [reading["t_s"] for reading in read] == [60, 120, 180]
    assert {reading["count"] for reading in read[1:]} <= counts


AIR_END = {"swept": 1500.0, "passes": 100.0, "starts": 0.6, "runs": 0.3}


@pytest.mark.parametrize(
    ("test", "pressure", "settings", "verdict"),
    [
        # A dosing motor: 30 to 36 strokes a minute at 1 l/min.
        ("strokes", "1.2 bar", {}, "pass"),
        # Rings that pass a third of what comes: too slow. Rings that pass all: it stalls.
        ("strokes", "1.2 bar", {"past": 0.35}, "fail"),
        ("strokes", "1.2 bar", {"past": 1.2}, "fail"),
        ("strokes", "1.2 bar", {"outlet": 0.0}, "fail"),
        # An air end at 1 bar: 12 to 30 cycles a minute; a dry pilot does not start at that.
        ("cycles", "1 bar", AIR_END, "pass"),
        ("cycles", "1 bar", {**AIR_END, "starts": 1.1}, "fail"),
    ],
)
def test_motors_are_judged_by_what_the_stand_shows(
    test: str, pressure: str, settings: Mapping[str, float], verdict: str
) -> None:
    """By the figures of the shipped sheets."""
    wanted = {"rig": "stroking", "dials": settings, "raise": pressure, "read": "counts", "count": 5}
    counts = from_stand({"from_stand": wanted})
    if test == "cycles":
        counts = [{**count, "count": count["count"] // 2} for count in counts]
    sheets = (unit("dosing-motor"), unit("air-pump-air-end"))
    (figures,) = (one for sheet in sheets for one in sheet["tests"] if one["key"] == test)
    trial = TRIALS["count"]
    asked = trial.criteria_of(figures)
    given = trial.record.model_validate({"counts": counts})
    assert trial.analyse(asked, given, Instrument()).verdict == verdict


def holds(key: str) -> bool:
    return any(test.kind == "pressure_hold" for test in sheet_of(unit(key)).tests)


@pytest.mark.parametrize("key", [path.stem for path in sorted(UNITS.glob("*.yaml")) if holds(path.stem)])
def test_a_unit_is_walked_to_its_release_with_the_stand_as_the_other_party(key: str) -> None:
    """Every hold of every unit on the simulated stand: one that leaks six times its limit is not passed, mended it is."""
    sheet = sheet_of(unit(key))
    job = Job(sheet)
    held = []
    while (task := job.next()) is not None:
        if not any(ask.read.value == "trace" for ask in task.asks):
            job.walk(until=lambda one, stay=task.key: one.key != stay)
            continue
        # A gap of 9 µm along 28 mm: π·0.028·(9e-6)³·p/(12·0.04·0.008), 8 to 24 ml/min where a fifth to one is allowed.
        job.do(filled(task, samples=simulated_trace(sheet, task, rod_um=9.0)))
        assert job.task(task.key).status is not Status.DONE
        # What settles in the first minute counts as well: held longer it weighs less.
        job.do(filled(job.task(task.key), samples=simulated_trace(sheet, task, longer=3.0)))
        assert job.task(task.key).status is Status.DONE, job.state.runs_of(task.subject)[-1].judgement
        held.append(task.subject)
    assert job.state.has(RELEASED, "released")
    assert held == [test.key for test in sheet.tests if test.kind == "pressure_hold"]
