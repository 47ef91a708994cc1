"""What goes wrong on the seven units that came last, said by the application from their sheets."""

from __future__ import annotations

from datetime import timedelta

import pytest

from ironkettle.core.base.errors import RefusedError, RuleError
from ironkettle.core.jobs.kinds.ending import closed_by
from ironkettle.core.jobs.registry import payload_words
from ironkettle.core.jobs.task import Status
from tests.bench import Job, filled
from tests.tiny import sheet_of, unit


def job_at(key: str, until: str) -> Job:
    job = Job(sheet_of(unit(key)))
    job.walk(until=lambda task: task.key == until)
    assert job.next() is not None
    return job


def facing(key: str) -> dict[str, str | None]:
    return {name: one.faces for name, one in Job(sheet_of(unit(key))).resolved.oriented.items() if one.faces}


def test_jetting_head_lies_as_it_must() -> None:
    """Contoured backup hollow to its ring, hard seat chamfer up, both shaft seals lip up, weep seal thin edge out."""
    assert facing("rotary-jetting-head") == {
        "inlet-backup": "jet", "weep-seal": "outside", "hard-seat": "bath", "high-seal": "jet", "upper-lip": "bath",
        "lower-lip": "bath",
    }  # fmt: skip
    resolved = Job(sheet_of(unit("rotary-jetting-head"))).resolved
    # The backup goes on before its ring.
    assert resolved.fitting_order["inlet-ring"] == ("inlet-backup", "inlet-o-ring")
    assert resolved.oriented["weep-seal"].instruction.startswith("thin edge")


def test_jetting_head_seal_off_centre_and_too_deep_is_asked_back() -> None:
    job = job_at("rotary-jetting-head", "fit:high-seal")
    entry = filled(job.task("fit:high-seal"))
    with pytest.raises(RuleError, match=r"1\.8 mm is not 1\.2 mm"):
        job.do({**entry, "depth_below": "1.8 mm"})
    with pytest.raises(RuleError, match="off centre: Which side: short side of its O-ring"):
        job.do({**entry, "offset": None})
    with pytest.raises(RuleError, match="off centre the wrong way"):
        job.do({**entry, "offset": "bath"})
    with pytest.raises(RuleError, match="turn it round"):
        job.do({**entry, "faces": "bath"})
    job.do(entry)


def test_jetting_head_is_poured_four_times_and_each_waits() -> None:
    job = job_at("rotary-jetting-head", "step:pour-1")
    for pour in (1, 2, 3, 4):
        job.take(job.task(f"step:pour-{pour}"))
        after = f"pour-{pour + 1}" if pour < 4 else "level"
        with pytest.raises(RefusedError, match="bubbles to rise"):
            job.do({"kind": "step_done", "step": after, "note": "4 mm"})
        job.now += timedelta(minutes=3)
    grips = [task.hold for task in job.tasks() if task.hold and task.hold.startswith("Change of grip")]
    assert "Change of grip: the body by its flats, the head free" in grips


def test_dosing_motor_shows_what_leaks_if_left_out_and_never_takes_mineral_grease() -> None:
    job = job_at("dosing-motor", "find:screw-ring")
    assert "left out, the cover leaks at its screws" in job.task("find:screw-ring").text
    job.walk(until=lambda task: task.key == "fit:outlet-ring")
    with pytest.raises(RuleError, match="not listed for food service"):
        job.do({**filled(job.task("fit:outlet-ring")), "lubricant": "mineral grease"})


def test_dosing_motor_left_down_goes_no_further() -> None:
    job = job_at("dosing-motor", "step:moved")
    job.do({"kind": "step_done", "step": "moved", "free": False, "note": "stands down, catches"})
    assert job.task("step:cover-on").status is Status.BLOCKED


def test_fastening_tool_goes_back_to_the_nearest_of_eight_grooves() -> None:
    job = job_at("fastening-tool", "tighten:gland-slot:1:1")
    entry = filled(job.task("tighten:gland-slot:1:1"))
    # A groove of eight is never more than 45° away.
    with pytest.raises(RuleError, match="the nearest of 8 slots is at most 45°"):
        job.do({**entry, "back": "50 °"})
    job.do({**entry, "back": "31 °"})
    job.walk(until=lambda task: task.key == "step:line-up")
    with pytest.raises(RuleError, match="the gauge rod passes through"):
        job.do({**filled(job.task("step:line-up")), "aligned": False})


def test_needle_scaler_is_looked_at_in_fifteen_actions_at_most() -> None:
    job = Job(sheet_of(unit("needle-scaler")), quick_service="six-hourly")
    assert job.walk() + 1 <= 15
    assert "flat side of the anvil outwards" in job.task("step:oil").asks[0].label


def test_boring_head_keeps_its_clip_and_its_gap() -> None:
    job = job_at("boring-head", "step:stretch")
    job.take(job.task("step:stretch"))
    assert job.task("timer:shaft-clip").status in {Status.WAITING, Status.NEXT}
    with pytest.raises(RefusedError):
        job.do({"kind": "step_done", "step": "shaft-in"})
    job.walk(until=lambda task: task.key == "tighten:front-bottom:1:1")
    entry = filled(job.task("tighten:front-bottom:1:1"))
    for gap in ("0.5 mm", "5 mm"):
        with pytest.raises(RuleError, match="the parts meet in the wrong place"):
            job.do({**entry, "gap": gap})
    job.do({**entry, "gap": "2 mm"})
    job.walk(until=lambda task: task.key == "tighten:rear-meet:0:1")
    low, high = job.task("tighten:rear-meet:0:1").asks[-1].limit or (0, 0)
    # 400 N·m told at its step, ±4 %.
    assert (low, high) == (pytest.approx(384), pytest.approx(416))


def test_air_end_kit_holds_only_some_of_it() -> None:
    job = job_at("air-pump-air-end", "count:FN-K-AP100A")
    lines = {ask.label: ask.hint for ask in job.task("count:FN-K-AP100A").asks if ask.field.endswith("counted")}
    assert any("star washer" in label for label in lines)
    entry = filled(job.task("count:FN-K-AP100A"), **{"lines.5.counted": 0})
    job.do(entry)
    assert {"order:k-star"} <= {task.key for task in job.tasks()}
    # A stack without its washer is not set in.
    assert job.task("fit:upper-star").status is Status.BLOCKED
    assert "the tool that builds the stacks" in (job.resolved.parts["stem"].why or "")


def test_liquid_end_says_what_is_not_put_back_and_measures_its_pins() -> None:
    job = job_at("air-pump-liquid-end", "step:wire-cut")
    assert "it is single-use and not refitted here" in job.task("step:wire-cut").text
    job.walk(until=lambda task: task.key == "step:pin-in")
    pins = job.task("step:pin-in")
    assert [ask.label for ask in pins.asks if ask.field.startswith("readings")] == [
        "How far the roll pins stand out: at the window",
        "How far the roll pins stand out: at the far side",
    ]
    apart = {"readings.0": "12.4 mm", "readings.1": "11.6 mm"}
    words = r"at the window 12\.4 mm, at the far side 11\.6 mm: 0\.8\d* mm apart is not at most 0\.5 mm"
    with pytest.raises(RuleError, match=words) as caught:
        job.do(filled(pins, **apart))
    assert caught.value.faults[0].field == "readings"
    with pytest.raises(RuleError, match="enter a reading for each: at the window, at the far side"):
        job.do({**filled(pins), "readings": ["12 mm"]})
    with pytest.raises(RuleError, match="a bit more"):
        job.do(filled(pins, **{"readings.1": "a bit more"}))
    with pytest.raises(RuleError, match="marks must line up"):
        job.do({**filled(job.task("step:pin-in")), "met": False})
    # What a hand writes beside its readings is kept with them.
    done = {**filled(pins, **{"readings.0": "12.4 mm", "readings.1": "12.0 mm"}), "note": "one was pressed through"}
    job.do(done)
    assert payload_words(job.resolved, job.entries[-1][0]).endswith(
        "; How far the roll pins stand out: at the window 12.4 mm, at the far side 12.0 mm: 0.40 mm apart; one was pressed through"
    )
    job.walk()
    assert closed_by(job.state) is not None
