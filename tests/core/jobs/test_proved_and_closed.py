"""Tests of the finished unit, settings, and what stands before the signature."""

from __future__ import annotations

from datetime import timedelta

import pytest

from ironkettle.core.base.errors import RefusedError, RuleError
from ironkettle.core.jobs.kinds.release import RELEASED
from ironkettle.core.jobs.kinds.step import STEPS
from ironkettle.core.jobs.registry import payload_words
from ironkettle.core.jobs.task import Status
from tests.bench import filled, trace
from tests.core.jobs.at_work import DRY, at, fields, hold, plugged, run


def test_a_unit_that_is_apart_is_not_tested() -> None:
    job = plugged(tests=[hold()])
    job.walk(until=lambda one: one.key == "step:in")
    with pytest.raises(RefusedError, match="the unit is apart: Plug in"):
        job.do(run(job))
    found = plugged(tests=[hold(when="as_found", place="machine")])
    found.walk(until=lambda one: one.key == "step:wash")
    with pytest.raises(RefusedError, match="can no longer be tested as found"):
        found.do(run(found, "test:hold:as_found"))


def test_only_a_passed_hold_is_done_and_a_failed_one_stays_in_the_log() -> None:
    job = plugged(tests=[hold(volume="4 l", leak_limit="0.1 ml/min")])
    job.walk(until=lambda one: one.key == "test:hold:as_left")
    needs = dict(job.task("test:hold:as_left").asks[0].needs or {})
    # A tenth of the pressure is no test of it.
    job.do(run(job, samples=list(trace(**needs | {"pressure_mpa": 1.0}))))
    assert job.task("test:hold:as_left").status is Status.NEXT
    # By hand: 1 bar in a minute of 4 l at 1.4 GPa is 4000 · 0.1 / 1400 = 0.29 ml/min, three times the limit.
    falling = [one | {"pressure_mpa": 10.0 - 0.1 * one["t_s"] / 60} for one in trace(**needs)]
    job.do(run(job, samples=falling))
    assert job.task("test:hold:as_left").status is Status.NEXT
    # The thermometer that never reads otherwise counts as none: 0.1 K/min of 4 l are 0.27 ml/min, over any limit so small.
    read = [one | {"temperature_c": 24.0 + 0.1 * (n % 2)} for n, one in enumerate(trace(**needs))]
    job.do(run(job, samples=read))
    assert job.task("test:hold:as_left").status is Status.DONE
    assert len(job.state.runs_of("hold", "as_left")) == 3
    with pytest.raises(RuleError, match="does not come after"):
        job.do(run(job, samples=[{"t_s": 1, "pressure_mpa": 10}, {"t_s": 1, "pressure_mpa": 10}]))
    with pytest.raises(RuleError, match="does not reach the test pressure"):
        job.do(run(job, gauge={"name": "g", "range": "60 bar", "resolution": "1 bar", "accuracy_pct": 1}))
    with pytest.raises(RuleError, match="needs its readings"):
        job.do(run(job, samples=[]))
    # A hold is not said to be seen: its trace tells.
    with pytest.raises(RuleError, match="needs a trace"):
        job.do(run(job, record={"seen": True}))


def test_a_sign_that_was_not_seen_is_no_pass() -> None:
    job = plugged(tests=[{"key": "t", "kind": "function", "name": "Works", "sign": "no drop"}])
    job.walk(until=lambda one: one.key == "test:t:as_left")
    with pytest.raises(RuleError, match="no drop"):
        job.do({"kind": "test_run", "test": "t", "when": "as_left"})
    job.do({"kind": "test_run", "test": "t", "when": "as_left", "record": {"seen": False}})
    assert job.task("test:t:as_left").status is Status.NEXT
    # As an earlier version told it.
    job.do({"kind": "test_run", "test": "t", "when": "as_left", "seen": True, "value": "dry"})
    assert job.task("test:t:as_left").status is Status.DONE


def test_a_pressure_above_the_rating_is_no_intake() -> None:
    job = plugged()
    intake = {**job.entries[0][0].model_dump(mode="json"), "pressure": "101 bar"}
    with pytest.raises(RuleError, match="above the rating"):
        job.do(intake)
    job.do(intake | {"pressure": "100 bar"})


def test_tray_and_kit_are_accounted_for_before_it_is_signed() -> None:
    job = at("swing-bridge-ram", "account")
    assert job.task("sign").status is Status.BLOCKED
    assert "retaining wire" in job.task("account").asks[0].label
    with pytest.raises(RuleError) as caught:
        job.do({"kind": "accounted", "tray": False, "kit": True})
    assert fields(caught) == ["tray"]
    assert caught.value.faults[0].accepts == (), "who says No is not told to say Yes"
    with pytest.raises(RuleError) as caught:
        job.do({"kind": "accounted", "tray": True, "kit": False})
    assert fields(caught) == ["kit"]
    with pytest.raises(RefusedError, match="Tray and kit"):
        job.do({"kind": "released"})
    job.do(filled(job.task("account")))
    with pytest.raises(RuleError, match="say when it is done"):
        job.do({"kind": "disposed", "done": False})
    job.walk()
    with pytest.raises(RefusedError, match="takes no entries"):
        job.do({"kind": "note_made", "text": "late"})
    job.do({"kind": "reopened", "reason": "came back leaking"})
    assert job.next().key == "account"  # type: ignore[union-attr]


def test_a_struck_entry_counts_no_more() -> None:
    job = plugged()
    job.do(DRY)
    entry = job.do({"kind": "step_done", "step": "vent"})
    assert job.task("step:vent").status is Status.DONE
    job.do({"kind": "entry_struck", "entry": str(entry), "reason": "the wrong unit"})
    assert job.task("step:vent").status is Status.NEXT


def test_settings_are_made_at_their_step_or_in_their_stage() -> None:
    spec = {
        "key": "spring", "name": "Spring", "kind": "preset",
        "preset": {"bottom": "counter_clockwise", "turns": 2, "tolerance": 0.1, "leaves": "1 mm"},
    }  # fmt: skip
    job = plugged(settings=[spec])
    job.walk(until=lambda one: one.key == "set:spring")
    assert job.task("set:spring").stage.value == "set"
    assert job.task("set:spring").text == (
        "Set spring: to the bottom counter-clockwise, then 2 ±0.1 turns clockwise, which leaves 1 mm"
    )
    with pytest.raises(RuleError):
        job.do({"kind": "setting_made", "setting": "spring", "reached": False})
    bound = plugged(settings=[spec], steps__3__sets=["spring"])
    keys = [task.key for task in bound.tasks()]
    assert keys.index("set:spring") == keys.index("step:in") + 1
    target = {
        "key": "spring",
        "name": "Spring",
        "kind": "target",
        "target": {"reading": "pressure", "value": "280 bar +10/-0", "floor": "270 bar"},
    }
    job = plugged(settings=[target])
    job.walk(until=lambda one: one.key == "set:spring")
    with pytest.raises(RuleError, match="what was read"):
        job.do({"kind": "setting_made", "setting": "spring", "reached": True})
    job.walk()
    assert job.state.has(RELEASED, "released")


def test_a_hold_is_asked_for_as_long_as_it_needs_and_not_too_often() -> None:
    job = plugged(tests=[hold()])
    needs = dict(job.task("test:hold:as_left").asks[0].needs or {})
    assert needs["pressure_mpa"] == 10.0
    # At least a minute and five readings are needed whatever the sums say; a reading every two seconds at most.
    assert needs["seconds"] >= 60 * 1.1
    assert needs["every_s"] >= 2.0
    planned = plugged(tests=[hold(hold="30 min")])
    needs = dict(planned.task("test:hold:as_left").asks[0].needs or {})
    assert needs["seconds"] == pytest.approx(1800 * 1.1 + 20)
    assert needs["every_s"] == 30.0


def test_a_timer_that_ends_this_very_moment_has_run_out() -> None:
    job = plugged(steps__2__timer={"key": "soak", "minutes": 60, "for": "the ring to soak"})
    job.walk(until=lambda one: one.key == "step:wash")
    job.do({"kind": "step_done", "step": "wash"})
    started = job.state.book(STEPS)["wash"].mark.when
    job.now = started + timedelta(minutes=60)
    assert job.task("timer:soak").status is Status.DONE
    with pytest.raises(RefusedError, match="has already run out"):
        job.do({"kind": "timer_cut", "timer": "soak", "reason": "in a hurry"})


def test_the_log_tells_what_was_inspected_accounted_for_and_when_it_is_due() -> None:
    points = [
        {"key": "look", "ask": "Pinhole?", "read": "look", "bad": ["pinhole"]},
        {"key": "gauge", "ask": "Go gauge runs through?", "read": "go_no_go"},
        {"key": "wear", "ask": "Wear", "read": "length", "limit": "at most 1 mm"},
    ]
    intervals = [{"of": "plug", "every": "1 month", "what": "look"}, {"every": ["2 years", "500 h"], "what": "reseal"}]
    job = plugged(parts__1__points=points, intervals=intervals)
    job.walk()
    told = [payload_words(job.resolved, payload) for payload, _ in job.entries]
    assert "Plug inspected: Pinhole: as it should be; Go gauge runs through: yes; Wear: 0.50 mm; reuse" in told
    assert "tray and kit accounted for" in told
    assert told[-1] == "released"
    assert job.task("sign").entry["next_service"] == "reseal by 2028-11-24 or after 500 h, whichever comes first"
