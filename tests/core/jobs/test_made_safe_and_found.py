"""Making safe, what is found, marks, trays and questions."""

from __future__ import annotations

import pytest

from ironkettle.core.base.errors import RefusedError, RuleError
from ironkettle.core.jobs.kinds.find import reversed_words
from ironkettle.core.jobs.registry import payload_words
from ironkettle.core.jobs.task import Status
from tests.bench import Job
from tests.core.jobs.at_work import DRY, at, fields, plugged
from tests.tiny import UNITS, plug, sheet_of, unit


def test_no_spanner_before_it_is_safe() -> None:
    job = plugged()
    with pytest.raises(RefusedError, match="Vent the oil side"):
        job.do({"kind": "step_done", "step": "out"})
    assert job.task("step:out").blocked_by[0].startswith("Vent the oil side")
    job.do({"kind": "step_done", "step": "vent"})
    job.do({"kind": "step_done", "step": "out"})


def test_what_is_not_relieved_is_not_loosened_and_the_words_say_so() -> None:
    # A spring under a cover: its tension comes out before the cover's screws.
    document = plug()
    document["parts"] += [{"key": "spring", "name": "Spring"}, {"key": "cover", "name": "Cover"}]
    document["fasteners"] = [{"key": "screws", "name": "Screws", "part": "spring", "phases": [{"to": "hand"}]}]
    document["steps"] = [
        document["steps"][0],
        {"key": "slack", "stage": "strip", "text": "Spring slack, turns counted", "after": ["vent"], "relieves": ["spring"]},
        {"key": "screws-out", "stage": "strip", "text": "Screws out", "after": ["vent"], "loosens": ["screws"], "takes_off": ["cover"]},
        *[step | {"after": ["screws-out"]} if step["key"] == "out" else step for step in document["steps"][1:]],
        {"key": "cover-on", "stage": "rebuild", "text": "Cover on", "puts_on": ["cover"], "tightens": ["screws"]},
    ]  # fmt: skip
    job = Job(sheet_of(document))
    job.do(DRY)
    job.do({"kind": "step_done", "step": "vent"})
    blocked = job.task("step:screws-out")
    assert blocked.status is Status.BLOCKED
    assert blocked.blocked_by == ("Spring slack, turns counted (Spring is not relieved yet)",)
    job.do({"kind": "step_done", "step": "slack"})
    assert job.task("step:screws-out").status is Status.NEXT


def test_a_danger_is_passed_over_only_on_a_ground_and_is_named() -> None:
    job = Job(sheet_of(unit("swing-bridge-ram")))
    with pytest.raises(RuleError, match="Pin the bridge latch by hand") as caught:
        job.do({"kind": "task_skipped", "task": "step:isolate", "reason": "not needed today"})
    assert fields(caught) == ["grounds"]
    job.do({"kind": "task_skipped", "task": "step:isolate", "reason": "not needed today", "grounds": "safe_elsewhere"})
    assert job.task("step:isolate").status is Status.SKIPPED
    # What is skipped does not block for ever what comes after it.
    assert job.task("step:bleed").status is Status.OPEN or job.task("step:bleed").status is Status.NEXT
    # A step of making safe without a caution is a danger too; one of the rebuild without one is not.
    with pytest.raises(RuleError):
        plugged().do({"kind": "task_skipped", "task": "step:vent", "reason": "not needed today"})
    plugged().do({"kind": "task_skipped", "task": "step:wash", "reason": "it is clean already"})
    for never in ("sign", "intake", "account"):
        with pytest.raises(RuleError, match="cannot be skipped"):
            plugged().do({"kind": "task_skipped", "task": never, "reason": "not needed today"})


def test_safe_steps_come_again_after_a_test_has_pressed_the_unit() -> None:
    job = at("dry-disconnect-coupler", "step:pins-in", tests=[
        {"key": "first", "kind": "function", "name": "As found", "when": "as_found", "place": "bench", "zone": "hose", "sign": "no drop"},
    ])  # fmt: skip
    # Walked: made safe, pressed for the test, and then safe again before the first spanner.
    done = [payload.step for payload, _ in job.entries if payload.kind == "step_done"]  # type: ignore[attr-defined]
    assert done == ["empty", "empty"]


def test_a_reversed_lip_is_called_out_and_a_second_look_does_not_wipe_it_out() -> None:
    job = at("swing-bridge-ram", "find:rod-lip")
    with pytest.raises(RuleError, match="which side did it face"):
        job.do({"kind": "element_found", "element": "rod-lip", "present": True})
    job.do({"kind": "element_found", "element": "rod-lip", "present": True, "faced": "outside", "signs": "none"})
    assert "the likely cause of the leak" in reversed_words(job.case())["rod-lip"]
    job.do({"kind": "element_found", "element": "rod-lip", "present": True, "faced": "rod_side", "signs": "none"})
    assert "rod-lip" in reversed_words(job.case()), "as found is never overwritten"
    assert "open lips to open air" in payload_words(job.resolved, job.entries[-2][0])


def test_a_wiper_found_reversed_lets_dirt_in_and_is_not_blamed_for_the_leak() -> None:
    job = at("swing-bridge-ram", "find:rod-wiper-ring")
    job.do(
        {"kind": "element_found", "element": "rod-wiper-ring", "present": True, "faced": "rod_side", "signs": "none"}
    )
    told = reversed_words(job.case())["rod-wiper-ring"]
    assert "dirt" in told
    assert "cause of the leak" not in told


def test_what_is_expected_and_not_found_asks_back() -> None:
    job = at("swing-bridge-ram", "find:gland-backup")
    with pytest.raises(RuleError, match="a gland backup ring belongs here: missing, or still in the groove"):
        job.do({"kind": "element_found", "element": "gland-backup", "present": False})
    with pytest.raises(RuleError, match="a direction is not needed for a missing seal"):
        job.do({"kind": "element_found", "element": "gland-backup", "present": False, "faced": "outside", "note": "no"})
    job.do({"kind": "element_found", "element": "gland-backup", "present": False, "note": "groove empty"})
    assert job.task("find:gland-backup").status is Status.DONE


def test_of_several_alike_a_wrong_number_asks_back() -> None:
    job = plugged(stations__0__seats__0__elements__0__count=2)
    job.walk(until=lambda one: one.key == "find:ring")
    with pytest.raises(RuleError, match="2 belong here, 1 were found"):
        job.do({"kind": "element_found", "element": "ring", "present": True, "signs": "none", "counted": 1})
    job.do(
        {
            "kind": "element_found",
            "element": "ring",
            "present": True,
            "signs": "none",
            "counted": 1,
            "note": "one was never fitted",
        }
    )


def test_a_mark_is_made_and_met_and_alignment_is_said() -> None:
    job = at("swing-bridge-ram", "step:witness-marks")
    with pytest.raises(RuleError, match="One mark across barrel with cap end and gland"):
        job.do({"kind": "step_done", "step": "witness-marks"})
    job.do({"kind": "step_done", "step": "witness-marks", "marked": True})
    job.walk(until=lambda one: one.key == "step:wire-in")
    with pytest.raises(RuleError, match="marks must line up") as caught:
        job.do({"kind": "step_done", "step": "wire-in"})
    assert fields(caught) == ["met"]
    with pytest.raises(RuleError, match="both ports on top"):
        job.do({"kind": "step_done", "step": "wire-in", "met": True, "aligned": False})
    job.do({"kind": "step_done", "step": "wire-in", "met": True, "aligned": True})


def test_parts_go_to_numbered_places_in_the_order_they_come_off() -> None:
    job = Job(sheet_of(unit("header-tank-valve")))
    off = job.task("step:pin-out").entry["parts_off"]
    assert off == [{"part": "pin", "place": 1}, {"part": "arm", "place": 2}]
    assert job.task("step:plunger-out").entry["parts_off"] == [{"part": "plunger", "place": 3}]
    job.walk(until=lambda one: one.key == "step:pin-out")
    with pytest.raises(RuleError) as caught:
        job.do({"kind": "step_done", "step": "pin-out", "parts_off": [{"part": "plunger", "place": 1}]})
    assert fields(caught) == ["parts_off.0.part"]


def test_what_is_handled_with_care_says_so_on_every_task_that_handles_it() -> None:
    job = Job(sheet_of(unit("swing-bridge-ram")))
    assert any("seal lands" in one for one in job.task("step:piston-off").delicate)
    assert any("seal lands" in one for one in job.task("step:piston-on").delicate)
    assert job.task("step:piston-off").hold == "Grip: rod in soft jaws by its eye"
    # 18 MPa · 50²/(50² − 28²) is 26.2 MPa, the rating times cap over annulus area.
    assert job.task("step:bleed").shows == "a blocked rod side reaches 262 bar: rating × cap area / annulus area"
    assert job.task("step:drain").shows == "up to 157 ml comes out: the bore over the whole stroke"


def test_a_note_that_a_step_asks_for_is_written() -> None:
    job = at("swing-bridge-ram", "step:drain")
    with pytest.raises(RuleError, match="How much oil came out"):
        job.do({"kind": "step_done", "step": "drain"})


def test_a_question_is_asked_when_it_can_be_seen_and_what_depends_on_it_waits() -> None:
    job = at("swing-bridge-ram", "step:wire-out")
    assert job.task("answer:wire").status is Status.BLOCKED
    assert [kit_line for kit_line in job.resolved.kit_lines if kit_line.startswith("k-wire")] == []
    assert "How does the retaining wire end?" in job.task("count:FN-K-5028").blocked_by
    job.walk(until=lambda one: one.key == "answer:wire")
    job.do({"kind": "question_answered", "question": "wire", "choice": "plain"})
    assert [kit_line for kit_line in job.resolved.kit_lines if kit_line.startswith("k-wire")] == ["k-wire-plain"]
    assert job.task("count:FN-K-5028").status is Status.OPEN
    with pytest.raises(RuleError, match="answered “plain” before"):
        job.do({"kind": "question_answered", "question": "wire", "choice": "hook"})
    job.do({"kind": "question_answered", "question": "wire", "choice": "hook", "note": "looked again"})
    job.walk(until=lambda one: one.key == "step:gland-on")
    with pytest.raises(RefusedError, match="parts were fitted on that answer"):
        job.do({"kind": "question_answered", "question": "wire", "choice": "plain", "note": "and again"})
    for bad in ({"question": "moon", "choice": "a"}, {"question": "wire", "choice": "moon"}):
        with pytest.raises(RuleError):
            job.do({"kind": "question_answered", **bad})


@pytest.mark.parametrize("key", sorted(path.stem for path in UNITS.glob("*.yaml")))
def test_what_a_test_pressed_is_made_safe_again_before_it_is_taken_apart_again(key: str) -> None:
    job = Job(sheet_of(unit(key)))
    sheet = job.resolved.sheet
    pressed = [test.key for test in sheet.tests if test.when != "as_found" and test.place in {"machine", "stand"}]
    safe = [step.key for step in sheet.steps if step.stage == "safe"]
    if not pressed or not safe:
        pytest.skip("no test of it presses it on machine or stand")
    job.walk(until=lambda task: task.key == "account")
    assert all(job.task(f"step:{one}").status == "done" for one in safe)
    apart = next(step for step in sheet.steps if step.stage == "strip" and (step.takes_off or step.opens))
    job.do({"kind": "taken_apart", "step": apart.key, "reason": "it drips at the gland"})
    for one in safe:
        assert job.task(f"step:{one}").status in {"next", "open", "blocked"}, one
    assert job.task(f"step:{apart.key}").refusal == "not-safe"
