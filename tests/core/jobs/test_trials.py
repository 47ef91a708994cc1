"""Tests told in figures within a job: what is asked, what is refused, what a failed one does to its setting."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any

import pytest

from ironkettle.core.base.errors import RuleError
from ironkettle.core.jobs import compose_statement
from ironkettle.core.jobs.kinds.begin import begin_entry
from ironkettle.core.jobs.kinds.release import RELEASED
from ironkettle.core.jobs.registry import payload_words, read_payload
from ironkettle.core.jobs.runs import GaugeUsed, WrenchUsed
from ironkettle.core.jobs.task import Status
from tests.bench import START, Job, filled
from tests.core.jobs.at_work import at, fields
from tests.tiny import plug, sheet_of, unit

REGULATOR = sheet_of(unit("escape-set-regulator"))
TEST, SETTING = "test:effort:as_left", "set:effort-set"
LOW = ["1.1 inH2O"] * 5


@pytest.fixture
def job() -> Job:
    made = Job(REGULATOR)
    made.walk(until=lambda task: task.key == TEST)
    return made


def told(job: Job, readings: list[str], **changes: Any) -> None:
    job.do({**filled(job.task(TEST)), "record": {"readings": readings}, **changes})


def test_what_is_asked_is_a_reading_between_what_is_right(job: Job) -> None:
    asks = job.task(TEST).asks
    assert [ask.field for ask in asks] == [f"record.readings.{n}" for n in range(5)]
    assert asks[0].unit == "inH2O"
    assert asks[0].limit == (pytest.approx(1.3), pytest.approx(1.5))


def test_too_light_is_refused_as_unstable_and_its_setting_is_to_be_made_again(job: Job) -> None:
    assert job.task(SETTING).status is Status.DONE
    told(job, LOW)
    judgement = job.state.runs_of("effort", "as_left")[-1].judgement
    assert judgement is not None
    assert judgement.verdict == "fail"
    assert "readings 1, 2, 3, 4, 5 below the floor of 1.30 inH2O" in judgement.words[-1]
    assert [(result.name, result.shown, result.within) for result in judgement.results] == [
        ("Mean effort", "1.10 inH2O", "1.30 inH2O to 1.50 inH2O")
    ]
    assert job.task(SETTING).status is Status.NEXT
    assert job.task(TEST).status is not Status.DONE
    job.walk()
    assert job.state.has(RELEASED, "released")


def test_an_undecided_run_decides_nothing(job: Job) -> None:
    told(job, ["1.31 inH2O", "1.42 inH2O", "1.33 inH2O", "1.47 inH2O", "1.36 inH2O"])
    assert job.task(TEST).status is Status.NEXT
    assert job.task(SETTING).status is Status.DONE


@pytest.mark.parametrize(
    ("changes", "field"),
    [
        ({"record": None}, "record"),
        ({"record": {"readings": ["1.4"]}}, "record.readings.0"),
        ({"record": {"readings": []}}, "record.readings"),
        ({"record": {"readings": ["1.4 inH2O"], "spray": "fine"}}, "record.spray"),
        ({"samples": [{"t_s": 0, "pressure_mpa": 1}]}, "samples"),
        ({"when": "sometimes"}, None),
    ],
)
def test_what_is_no_record_is_refused_by_its_field(job: Job, changes: dict[str, Any], field: str | None) -> None:
    if field is None:
        with pytest.raises(ValueError, match="when"):
            told(job, LOW, **changes)
        return
    with pytest.raises(RuleError) as caught:
        job.do({**filled(job.task(TEST)), **changes})
    assert caught.value.faults[0].field == field


def test_a_record_as_long_as_a_book_is_refused(job: Job) -> None:
    with pytest.raises(ValueError, match="longer than"):
        told(job, ["1.4 inH2O" + " " * 40] * 20_000)


def gauge(**changes: Any) -> GaugeUsed:
    figures: dict[str, Any] = {"name": "Water gauge", "range": "5 inH2O", "resolution": "0.02 inH2O", "accuracy_pct": 1}
    return GaugeUsed(**{**figures, **changes})


def test_the_gauge_that_can_tell_is_proposed_and_no_other() -> None:
    job = Job(REGULATOR)
    job.gauges = {
        "coarse": gauge(name="Coarse", resolution="0.2 inH2O"),
        "short": gauge(name="Short", range="1 inH2O"),
        "poor": gauge(name="Poor", accuracy_pct=8),
        "ended": gauge(name="Ended", accuracy_pct=0.5, calibrated_until=date(2026, 1, 1)),
        "good": gauge(),
    }
    assert job.now == START + (job.now - START)
    job.walk(until=lambda task: task.key == TEST)
    entry = job.task(TEST).entry
    assert entry["gauge"]["name"] == "Water gauge"
    told(job, ["1.4 inH2O"] * 5)
    assert job.state.runs_of("effort", "as_left")[-1].gauge == gauge()
    with pytest.raises(RuleError, match="take it from there"):
        told(job, ["1.4 inH2O"] * 5, gauge=gauge(accuracy_pct=0.1).model_dump(mode="json"))


def test_what_a_person_wrote_stands_in_the_log_in_a_line(job: Job) -> None:

    payload = read_payload({**filled(job.task(TEST)), "record": {"readings": ["1.4 inH2O", "1.5 inH2O"]}})
    assert payload_words(job.resolved, payload) == "Effort to open, as left: readings 1.4 inH2O, 1.5 inH2O"


def test_a_stranger_to_the_rules_is_told_in_words() -> None:
    sheet = plug(tests=[{"key": "t", "kind": "set_point", "name": "Set", "value": "about four bar"}])
    job = Job(sheet_of(sheet))
    assert "about four bar" in job.resolved.figure_tests["t"].bound.says
    assert job.resolved.figure_tests["t"].unreadable
    job.walk()
    assert job.state.has(RELEASED, "released")


def test_a_target_is_set_only_within_its_band_and_read_again_once_locked() -> None:
    job = Job(sheet_of(unit("control-air-regulator")))
    job.walk(until=lambda task: task.key == "set:line")
    made = {"kind": "setting_made", "setting": "line", "reached": True}
    for changes, field in (
        ({}, "value"),
        ({"value": "4.5 bar"}, "value"),
        ({"value": "3.8 bar"}, "value"),
        ({"value": "4 N"}, "value"),
        ({"value": "4.0 bar"}, "locked"),
        ({"value": "4.0 bar", "locked": "4.2 bar"}, "locked"),
    ):
        with pytest.raises(RuleError) as caught:
            job.do({**made, **changes})
        assert caught.value.faults[0].field == field, changes
    job.do({**made, "value": "4.05 bar", "locked": "4.0 bar", "readings": [{"turns": 0, "value": "3 bar"}]})
    assert job.task("set:line").status is Status.DONE


def test_counted_turns_and_degrees_are_held_to_their_figures() -> None:
    job = Job(REGULATOR)
    job.walk(until=lambda task: task.key == "set:orifice-preset")
    made = {"kind": "setting_made", "setting": "orifice-preset", "reached": True}
    for changes, field in (({"turns": 2.5}, "turns"), ({"turns": 1.75, "leaves": "2 mm"}, "leaves")):
        with pytest.raises(RuleError) as caught:
            job.do({**made, **changes})
        assert caught.value.faults[0].field == field
    job.do({**made, "turns": 1.8, "leaves": "1.1 mm"})
    job.walk(until=lambda task: task.key == "set:edge")
    edge = {"kind": "setting_made", "setting": "edge", "reached": True}
    with pytest.raises(RuleError, match="further is not"):
        job.do({**edge, "degrees": "40 °"})
    job.do({**edge, "degrees": "28 °"})


def test_a_gap_a_slot_and_turns_are_measured_at_the_nut() -> None:
    group = {
        "key": "g", "name": "Head", "thread": "M60x2", "phases": [
            {"to": "stop"}, {"to": "turns", "turns": [0.5, 0.75], "back": True}, {"to": "slot", "slots": 8, "back": True},
            {"to": "gap", "gap": ["1 mm", "4 mm"]},
        ],
    }  # fmt: skip
    job = Job(sheet_of(plug(fasteners=[group])))
    job.walk(until=lambda task: task.key == "tighten:g:1:1")
    base = {"kind": "group_tightened", "group": "g", "done": True}
    with pytest.raises(RuleError, match="turns are outside what is required"):
        job.do({**base, "phase": 1, "turned": 1.0})
    job.do({**base, "phase": 1, "turned": 0.6})
    with pytest.raises(RuleError, match="at most 45° back"):
        job.do({**base, "phase": 2, "back": "90 °"})
    job.do({**base, "phase": 2, "back": "30 °"})
    for changes in ({}, {"gap": "6 mm"}):
        with pytest.raises(RuleError) as caught:
            job.do({**base, "phase": 3, **changes})
        assert caught.value.faults[0].field == "gap"
    job.do({**base, "phase": 3, "gap": "2 mm"})
    job.walk()
    assert job.state.has(RELEASED, "released")


def test_a_wrench_past_its_calibration_is_used_in_writing_only() -> None:

    group = {"key": "g", "name": "Screw", "phases": [{"to": "torque", "low": "20 N·m", "high": "24 N·m"}]}
    job = Job(sheet_of(plug(fasteners=[group])))
    ended = WrenchUsed(name="Old", low="5 N·m", high="60 N·m", accuracy_pct=4, calibrated_until=date(2026, 1, 1))
    poor = WrenchUsed(name="Poor", low="5 N·m", high="60 N·m", accuracy_pct=15)
    good = WrenchUsed(name="Good", low="10 N·m", high="60 N·m", accuracy_pct=4)
    job.wrenches = {"ended": ended, "poor": poor, "good": good}
    job.walk(until=lambda task: task.key == "tighten:g:0:1")
    asks = {ask.field: ask for ask in job.task("tighten:g:0:1").asks}
    assert [choice.key for choice in asks["wrench"].choices] == ["good", "poor", "ended"]
    assert asks["overdue"].optional
    entry = {"kind": "group_tightened", "group": "g", "phase": 0, "readings": [{"number": 1, "reading": "22 N·m"}]}
    with pytest.raises(RuleError) as caught:
        job.do({**entry, "wrench": "ended"})
    assert caught.value.faults[0].field == "overdue"
    job.wrenches = {"ended": ended}
    assert not {ask.field: ask for ask in job.task("tighten:g:0:1").asks}["overdue"].optional
    job.do({**entry, "wrench": "ended", "overdue": "the only one that reaches"})
    assert job.task("tighten:g:0:1").status is Status.DONE


def test_an_opening_read_in_another_unit_is_asked_back() -> None:
    job = at("fuel-injector", "test:as-found:as_found")
    entry = filled(job.task("test:as-found:as_found")) | {"record": {"openings": ["250 bar"] * 4 + ["252 psi"]}}
    with pytest.raises(RuleError) as caught:
        job.do(entry)
    assert fields(caught) == ["record.openings.4"]
    assert "was it 252 bar? Write it in its unit, or confirm it in the note" in caught.value.faults[0].message
    job.do(entry | {"note": "it does open at 252 psi, the spring is broken"})
    assert job.task("test:as-found:as_found").status is Status.DONE


def test_a_point_read_in_another_unit_is_asked_back() -> None:
    job = at("weed-skip-ram", "measure:barrel")
    entry = filled(job.task("measure:barrel"))
    entry["points"][1]["values"][0] = "50.01 in"
    with pytest.raises(RuleError, match=r"was it 50\.01 mm"):
        job.do(entry)


def test_what_a_laboratory_writes_is_attached_or_it_is_said_why_not() -> None:
    job = at("diver-compressor", "test:air:as_left")
    task = job.task("test:air:as_left")
    assert task.photo
    assert [ask.label for ask in task.asks if ask.field == "note"] == [
        "Nothing is attached yet: attach the photo, or why is there none?"
    ]
    entry = filled(task) | {"note": ""}
    with pytest.raises(RuleError) as caught:
        job.do(entry)
    assert fields(caught) == ["note"]
    # It is sampled after an hour's running.
    job.do(begin_entry(task.key))
    job.now += timedelta(hours=1)
    job.do(entry | {"note": "the laboratory sends it on Friday"})
    told = compose_statement(job.case(), job.tasks())
    assert "Air analysis: nothing is attached; the laboratory sends it on Friday." in told
