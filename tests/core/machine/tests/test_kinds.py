"""Every kind of test: a good unit passes as it is asked for, a bad one does not, and nothing is held by nothing."""

from __future__ import annotations

from typing import Any

import pytest
from pydantic import ValidationError

from ironkettle.core.base.errors import RuleError
from ironkettle.core.machine.tests import TRIALS, Instrument, Outcome
from ironkettle.demo.walker import put

# Figures as sheets write them, two or more a kind, with a record that must not pass.
FIGURES: list[tuple[str, dict[str, Any], dict[str, Any]]] = [
    ("opening_pressure", {"value": "280 bar +10/-0", "repeats": 5, "spread": "5 bar"}, {"openings": ["252 bar"] * 5}),
    ("opening_pressure", {"value": "0.05 bar"}, {"openings": ["0.09 bar"] * 3}),
    (
        "opening_pressure",
        {"value": "18 bar ±1", "reseat": "16 bar", "dribble": {"below": "2 bar", "seconds": 10}},
        {"openings": ["18 bar"] * 3, "reseats": ["17 bar"] * 3, "dry": False},
    ),
    ("set_point", {"value": "4 bar ±0.1"}, {"readings": ["4.3 bar"] * 3}),
    (
        "set_point",
        {
            "value": "4 bar", "tolerance": "0.1 bar", "lock_up": "4.4 bar", "repeats": 5,
            "creep": {"in": "5 min", "limit": "0.1 bar"}, "droop": {"flow": "200 l/min", "limit": "0.5 bar"},
        },
        {"readings": ["4.0 bar"] * 5, "lock_ups": ["4.6 bar"]},
    ),
    ("effort", {"value": "1.4 inH2O", "floor": "1.3 inH2O"}, {"readings": ["1.1 inH2O"] * 3}),
    ("effort", {"target": "40 N", "tolerance": "5 N", "repeats": 1}, {"readings": ["60 N"]}),
    ("friction", {"breakaway": "8 bar", "running": "5 bar"}, {"breakaways": ["9 bar"], "runs": ["4 bar"], "smooth": True}),
    ("friction", {"breakaway": "200 N"}, {"breakaways": ["150 N"], "smooth": False}),
    ("count", {"what": "drops", "limit": "at most 10 /min", "settle": "20 min"}, {"start_s": 1200, "counts": [{"t_s": 1500, "count": 500}]}),
    ("count", {"what": "strokes", "limit": "27 to 33 /min"}, {"counts": [{"t_s": 60 * n, "count": 20} for n in (1, 2, 3)]}),
    ("count", {"what": "drops", "limit": "1 an hour".replace("an", "a")}, {"counts": [{"t_s": 3600, "count": 9}]}),
    ("pump_up", {"volume": "10 l", "to": "1.5 bar", "within": "120 s"}, {"time": "150 s"}),
    ("reading", {"quantity": "Vacuum at the blocked inlet", "limit": "at most -0.6 bar"}, {"readings": ["-0.4 bar"]}),
    ("reading", {"quantity": "Level below the mark", "limit": "0 mm ±5"}, {"readings": ["9 mm"]}),
    ("reading", {"quantity": "Housing", "limit": "at most 60 °C", "repeats": 3}, {"readings": ["70 °C"] * 3}),
    ("function", {"sign": "no bubble", "seconds": 120}, {"seen": False}),
    (
        "drift",
        {"bore": "63 mm", "rod": "36 mm", "side": "cap", "limit": "1 ml/min", "volume": "800 ml"},
        {"samples": [{"t_s": 60 * n, "position_mm": 100 - n} for n in range(8)]},
    ),
    (
        "drift",
        {"bore": "63 mm", "rod": "36 mm", "side": "rod", "limit": "2 mm in 10 min", "volume": "300 ml"},
        {"samples": [{"t_s": 60 * n, "position_mm": 100 + n} for n in range(8)]},
    ),
]  # fmt: skip


def run(kind: str, figures: dict[str, Any], record: dict[str, Any], gauge: Instrument = Instrument()) -> Outcome:
    trial = TRIALS[kind]
    return trial.analyse(trial.criteria_of(figures), trial.record.model_validate(record), gauge)


def asked(kind: str, figures: dict[str, Any]) -> dict[str, Any]:
    """The record of a careful hand at a good unit: every reading in the middle of what is good."""
    trial = TRIALS[kind]
    criteria = trial.criteria_of(figures)
    record = trial.blank(criteria)
    for one in trial.wanted(criteria):
        if one.optional:
            continue
        middle = sum(one.good) / 2 if one.good else None
        value: Any = True if middle is None else f"{middle:.6g} {one.unit}"
        if one.read == "number" and middle is not None:
            value = int(middle) if middle == int(middle) else middle
        put(record, one.path, value)
    return record


@pytest.mark.parametrize(("kind", "figures", "bad"), FIGURES)
def test_a_good_unit_passes_as_it_is_asked_for_and_a_bad_one_does_not(
    kind: str, figures: dict[str, Any], bad: dict[str, Any]
) -> None:
    trial = TRIALS[kind]
    coarsest = trial.plan(trial.criteria_of(figures), Instrument()).coarsest
    fine = Instrument() if coarsest is None else Instrument(coarsest / 10)
    assert run(kind, figures, asked(kind, figures), fine).verdict == "pass"
    assert run(kind, figures, bad, fine).verdict == "fail"


@pytest.mark.parametrize(("kind", "figures", "bad"), FIGURES)
def test_each_says_what_it_is_held_against_and_how_it_is_run(
    kind: str, figures: dict[str, Any], bad: dict[str, Any]
) -> None:
    trial = TRIALS[kind]
    criteria = trial.criteria_of(figures)
    plan = trial.plan(criteria, Instrument())
    assert plan.steps
    assert plan.stand
    assert plan.coarsest is None or plan.coarsest > 0
    value = figures.get("value") or figures.get("target") or figures.get("limit") or figures.get("sign")
    assert (value or figures.get("breakaway") or figures["to"]).split()[0] in trial.says(criteria)


@pytest.mark.parametrize(
    ("value", "pierces"), [("50 mbar ±10", False), ("6 bar ±0.5", False), ("6 bar ±1", True), ("280 bar", True)]
)
def test_a_jet_is_warned_of_where_it_goes_through_skin(value: str, pierces: bool) -> None:
    """From 7 bar (100 psi) at the top of what it may open at."""
    trial = TRIALS["opening_pressure"]
    told = trial.plan(trial.criteria_of({"value": value}), Instrument())
    assert (told.caution is not None, "guard" in told.stand) == (pierces, pierces)
    assert "never in front" in told.stand


def test_every_kind_is_tried() -> None:
    assert {kind for kind, _, _ in FIGURES} == set(TRIALS)


def test_what_is_wanted_and_not_read_is_not_decided() -> None:
    regulator = {"value": "4 bar ±0.1", "lock_up": "4.4 bar", "creep": {"in": "5 min", "limit": "0.1 bar"}}
    outcome = run("set_point", regulator, {"readings": ["4.0 bar", "4.02 bar", "3.99 bar"]})
    assert outcome.verdict == "undecided"
    assert [result.name for result in outcome.results if result.verdict == "undecided"] == [
        "Lock-up: not read",
        "Creep: not read",
    ]
    assert (
        run("opening_pressure", {"value": "18 bar ±1", "reseat": "16 bar"}, {"openings": ["18 bar"] * 3}).verdict
        == "undecided"
    )
    assert run("friction", {"breakaway": "8 bar", "running": "5 bar"}, {"breakaways": ["4 bar"]}).verdict == "undecided"
    dribble = {"value": "18 bar ±1", "dribble": {"below": "2 bar", "seconds": 10}}
    assert run("opening_pressure", dribble, {"openings": ["18 bar"] * 3}).verdict == "undecided"


def test_fewer_readings_than_are_wanted_do_not_pass() -> None:
    assert (
        run("opening_pressure", {"value": "18 bar ±1", "repeats": 5}, {"openings": ["18 bar"] * 4}).verdict
        == "undecided"
    )
    assert (
        run("effort", {"value": "1.4 inH2O", "floor": "1.3 inH2O"}, {"readings": ["1.4 inH2O"] * 2}).verdict
        == "undecided"
    )
    assert (
        run("reading", {"quantity": "x", "limit": "at most 5 mm", "repeats": 2}, {"readings": ["1 mm"]}).verdict
        == "undecided"
    )
    assert run("set_point", {"value": "4 bar ±0.1"}, {"readings": ["4 bar"] * 2}).verdict == "undecided"
    assert run("function", {"sign": "runs", "repeats": 3}, {"seen": True, "times": 2}).verdict == "undecided"


@pytest.mark.parametrize(
    ("kind", "figures", "record", "field"),
    [
        ("opening_pressure", {"value": "18 bar ±1"}, {"openings": ["18 bar", "18"]}, "openings.1"),
        ("opening_pressure", {"value": "18 bar ±1"}, {"openings": ["18 bar abs"]}, "openings.0"),
        ("opening_pressure", {"value": "18 bar ±1"}, {"openings": ["-1 bar"]}, "openings.0"),
        ("opening_pressure", {"value": "18 bar ±1"}, {"openings": ["18 bar"], "reseats": ["19.5 bar"]}, "reseats.0"),
        ("opening_pressure", {"value": "18 bar abs ±1"}, {"openings": ["18 bar"]}, "value"),
        ("effort", {"value": "0 bar"}, {"readings": ["1 bar"]}, "value"),
        ("count", {"what": "x", "limit": "10"}, {"counts": [{"t_s": 60, "count": 1}]}, "limit"),
        ("count", {"what": "x", "limit": "10 /min"}, {"counts": [{"t_s": 60, "count": 1}, {"t_s": 60, "count": 1}]}, "counts.1.t_s"),
        ("count", {"what": "x", "limit": "10 /min"}, {"events_s": [5, 4], "end_s": 60}, "events_s.1"),
        ("count", {"what": "x", "limit": "10 /min"}, {"events_s": [], "end_s": 5, "start_s": 9}, "end_s"),
        ("drift", {"bore": "63 mm", "limit": "1 ml/min", "side": "rod"}, {"samples": [{"t_s": n, "position_mm": 1} for n in range(3)]}, "rod"),
        ("drift", {"bore": "63 mm", "limit": "1 ml/min"}, {"samples": [{"t_s": 1, "position_mm": 1}] * 3}, "samples.1.t_s"),
        ("drift", {"bore": "63 mm", "limit": "2 mm in 0 s"}, {"samples": [{"t_s": n, "position_mm": 1} for n in range(3)]}, "limit"),
        ("pump_up", {"volume": "10 l", "to": "1 bar", "within": "9 s", "start": "2 bar"}, {"time": "5 s"}, "to"),
        ("pump_up", {"volume": "10 l", "to": "1 bar", "within": "9 s"}, {"time": "0 s"}, "time"),
        ("friction", {"breakaway": "8 bar"}, {"unit": "N", "samples": [{"position_mm": n, "value": 1} for n in range(20)]}, "unit"),
        ("friction", {"breakaway": "8 bar"}, {"samples": [{"position_mm": 5, "value": 1}] * 20}, "samples"),
        ("friction", {"breakaway": "8 bar"}, {"samples": [{"position_mm": n, "value": 1} for n in range(5)]}, "samples"),
        ("set_point", {"value": "4 bar ±0.1"}, {"readings": ["4 bar"], "flows": ["-1 l/min"]}, "flows.0"),
        ("set_point", {"value": "4 bar ±0.1"}, {"readings": ["4 bar"], "creep_readings": [{"t_s": 1, "pressure": "4 bar"}] * 3}, "creep_readings.1.t_s"),
        ("set_point", {"value": "4 bar ±0.1"}, {"readings": ["4 bar"], "creep_readings": [{"t_s": 1, "pressure": "4 bar"}]}, "creep_readings"),
        ("reading", {"quantity": "x", "limit": "5 mm"}, {"readings": ["5 mm"]}, "limit"),
    ],
)  # fmt: skip
def test_what_cannot_be_is_refused_by_its_field(
    kind: str, figures: dict[str, Any], record: dict[str, Any], field: str
) -> None:
    with pytest.raises(RuleError) as caught:
        run(kind, figures, record)
    assert caught.value.faults[0].field == field


@pytest.mark.parametrize(
    ("kind", "record"),
    [
        ("opening_pressure", {"openings": []}),
        ("opening_pressure", {"openings": ["1 bar"], "reseats": ["1 bar", "1 bar"]}),
        ("set_point", {"readings": ["4 bar"], "flows": ["1 l/min", "2 l/min"]}),
        ("count", {}),
        ("count", {"counts": [{"t_s": 60, "count": 1}], "end_s": 60}),
        ("count", {"counts": [{"t_s": 60, "count": -1}]}),
        ("friction", {}),
        ("drift", {"samples": [{"t_s": 0, "position_mm": float("nan")}] * 3}),
        ("function", {}),
    ],
)
def test_a_record_that_is_none_is_refused(kind: str, record: dict[str, Any]) -> None:
    with pytest.raises(ValidationError):
        TRIALS[kind].record.model_validate(record)


def test_a_gauge_past_its_end_or_too_coarse_is_told() -> None:
    with pytest.raises(RuleError, match="past the end of a gauge that reaches"):
        run("opening_pressure", {"value": "280 bar ±10"}, {"openings": ["280 bar"]}, Instrument(0.01, 0.5, 25.0))
    trial = TRIALS["opening_pressure"]
    criteria = trial.criteria_of({"value": "280 bar +10/-0"})
    codes = [finding.code for finding in trial.plan(criteria, Instrument(0.5, 2.5, 25.0)).findings]
    assert codes == ["coarse", "inaccurate", "out-of-reach"]
    # Half of 0.05 bar and 0.5 % of 290 bar is 1.5 bar: less than a quarter of the 10 bar that are allowed.
    assert trial.plan(criteria, Instrument(0.005, 0.5, 40.0)).findings == ()
