"""Fastenings: readings, targets, phases and adapters."""

from __future__ import annotations

from typing import Any

import pytest

from ironkettle.core.base.errors import RuleError
from ironkettle.core.jobs.kinds.release import RELEASED
from ironkettle.core.jobs.kinds.tightening import TIGHTENED
from ironkettle.core.jobs.registry import payload_words
from ironkettle.core.jobs.task import Status
from tests.bench import Job, filled
from tests.core.jobs.at_work import at, fields, plugged
from tests.tiny import plug, sheet_of


def test_a_reading_out_of_range_is_not_tight_and_a_pass_has_all_its_numbers() -> None:
    job = at("swing-bridge-ram", "tighten:port-flange:0:1")
    good = filled(job.task("tighten:port-flange:0:1"))
    assert [one["number"] for one in good["readings"]] == [1, 3, 2, 4]
    for reading in ("14 N·m", "11.3 N·m", "21 N·m"):
        bad = {**good, "readings": [good["readings"][0] | {"reading": reading}, *good["readings"][1:]]}
        with pytest.raises(RuleError, match=r"number 1 is (not|too) tight"):
            job.do(bad)
    with pytest.raises(RuleError, match="number 4 is not read"):
        job.do({**good, "readings": good["readings"][:-1]})
    with pytest.raises(RuleError, match="which wrench"):
        job.do({**good, "wrench": None})
    with pytest.raises(RuleError, match="there are 3 passes"):
        job.do({**good, "turn": 4})
    with pytest.raises(RuleError, match="there are 1 phases"):
        job.do({**good, "phase": 1})
    job.do(good)
    # 60 % of 19 to 23 is 11.4 to 13.8 N·m, by hand; then the whole, then the last round in order.
    assert [task.text.split(":")[1].strip() for task in job.tasks() if task.key.startswith("tighten:port-flange")] == [
        "11.4 to 13.8 N·m, pass 1 of 3 (60 %)", "19 to 23 N·m, pass 2 of 3 (100 %)",
        "19 to 23 N·m, pass 3 of 3 (last round in order)",
    ]  # fmt: skip


def test_a_target_has_its_own_band_or_the_one_at_recording() -> None:
    # 38 N·m ±5 % is 36.1 to 39.9; a bare target of 6.5 takes 5 %: 6.175 to 6.825.
    job = at("dry-disconnect-coupler", "tighten:handle-nut:0:1")
    (ask,) = [ask for ask in job.task("tighten:handle-nut:0:1").asks if ask.read.value == "torque"]
    assert ask.limit == pytest.approx((36.1, 39.9))


@pytest.mark.parametrize(
    ("phase", "words"),
    [
        ({"to": "hand"}, "hand tight"),
        ({"to": "loosen"}, "loosen again"),
        ({"to": "stop"}, "to the stop, metal to metal"),
        ({"to": "turns", "turns": 0.25}, "1/4 turn on"),
        ({"to": "turns", "turns": [0.6, 0.8], "back": True}, "0.6 to 0.8 turn back"),
        ({"to": "slot", "slots": 6, "back": True}, "back to the nearest of 6 slots"),
        ({"to": "gap", "gap": ["1 mm", "4 mm"]}, "a gap of 1 mm to 4 mm remains"),
    ],
)
def test_phases_other_than_torque_are_tasks_in_words(phase: dict[str, Any], words: str) -> None:
    group = {"key": "nut", "name": "Nut", "thread": "M42x2", "phases": [phase]}
    job = plugged(fasteners=[group], steps__3__tightens=["nut"])
    job.walk(until=lambda one: one.key == "tighten:nut:0:1")
    assert job.task("tighten:nut:0:1").text == f"Nut: {words}"
    with pytest.raises(RuleError) as caught:
        job.do({"kind": "group_tightened", "group": "nut", "phase": 0})
    assert fields(caught) == ["done"]
    job.walk()
    assert job.state.has(RELEASED, "released")


def adapted(reading: str, **adapter: Any) -> dict[str, Any]:
    lever = {"wrench_length": "300 mm", "extension": "40 mm"} | adapter
    return {
        "kind": "group_tightened", "group": "nut", "phase": 0, "turn": 1, "wrench": "w2",
        "readings": [{"number": 1, "reading": reading}], "adapter": lever,
    }  # fmt: skip


def test_with_an_adapter_the_readings_are_those_of_the_scale() -> None:
    """37 N·m at the nut are 37 · 300/340 = 32.65 on the scale of a 300 mm wrench with 40 mm straight on."""
    group = {"key": "nut", "name": "Nut", "phases": [{"to": "torque", "target": "37 N·m"}]}
    job = Job(sheet_of(plug(fasteners=[group], steps__3__tightens=["nut"])))
    job.walk(until=lambda one: one.key == "tighten:nut:0:1")
    with pytest.raises(RuleError, match=r"37 N·m, which the adapter makes 41\.9 N·m, is outside"):
        job.do(adapted("37 N·m"))
    with pytest.raises(RuleError, match="points back past"):
        job.do(adapted("32.6 N·m", extension="400 mm", angle_deg=180))
    # At a right angle nothing changes.
    with pytest.raises(RuleError, match="is not tight"):
        job.do(adapted("32.6 N·m", angle_deg=90))
    job.do(adapted("32.6 N·m"))
    told = job.state.get(TIGHTENED, ("nut", 0, 1))
    assert "1: 32.6 N·m on the scale, adapter of 40 mm at 0° on 300 mm, with" in payload_words(
        job.case().resolved, told
    )
    assert job.task("tighten:nut:0:1").status is Status.DONE


def test_phases_follow_one_another_and_may_be_split_over_steps() -> None:
    group = {
        "key": "nut", "name": "Nut",
        "phases": [{"to": "torque", "target": "38 N·m"}, {"to": "loosen"}, {"to": "torque", "target": "38 N·m", "at": "wash2"}],
    }  # fmt: skip
    document = plug(fasteners=[group], steps__3__tightens=["nut"])
    document["steps"].append({"key": "wash2", "stage": "rebuild", "text": "Pipe joint on"})
    job = Job(sheet_of(document))
    order = []
    while (task := job.next()) is not None:
        order.append(task.key)
        job.take(task)
    at_nut = [key for key in order if key.startswith("tighten") or key in {"step:in", "step:wash2"}]
    assert at_nut == ["step:in", "tighten:nut:0:1", "tighten:nut:1:1", "step:wash2", "tighten:nut:2:1"]
