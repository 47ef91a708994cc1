"""What a job lets happen and what it refuses, with the words of what blocks it."""

from __future__ import annotations

from dataclasses import replace
from datetime import timedelta
from typing import Any

import pytest

from ironkettle.core.errors import NotAllowedError, RefusedError, RuleError
from ironkettle.core.house import House
from ironkettle.core.moves.model import Status
from ironkettle.core.moves.register import payload_words
from ironkettle.core.moves.slices.find import reversed_words
from ironkettle.core.moves.slices.measure import standing
from tests.bench import TAMSIN, Job, filled, trace
from tests.tiny import plug, sheet_of, unit


def at(key: str, move: str, **changes: Any) -> Job:
    """A job of a demo unit walked up to a move."""
    document = unit(key)
    for name, value in changes.items():
        document[name] = value
    job = Job(sheet_of(document))
    job.walk(until=lambda one: one.key == move)
    return job


def plugged(**changes: Any) -> Job:
    return Job(sheet_of(plug(**changes)))


def fields(caught: pytest.ExceptionInfo[RuleError]) -> list[str]:
    return [fault.field for fault in caught.value.faults]


# Making safe


def test_no_spanner_before_it_is_safe() -> None:
    job = plugged()
    with pytest.raises(RefusedError, match="Vent the oil side"):
        job.do({"kind": "step_done", "step": "out"})
    assert job.move("step:out").blocked_by[0].startswith("Vent the oil side")
    job.do({"kind": "step_done", "step": "vent"})
    job.do({"kind": "step_done", "step": "out"})


DRY = {"kind": "leak_seen", "zone": "none"}


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
    blocked = job.move("step:screws-out")
    assert blocked.status is Status.BLOCKED
    assert blocked.blocked_by == ("Spring slack, turns counted (Spring is not relieved yet)",)
    job.do({"kind": "step_done", "step": "slack"})
    assert job.move("step:screws-out").status is Status.NEXT


def test_a_danger_is_passed_over_only_on_a_ground_and_is_named() -> None:
    job = Job(sheet_of(unit("swing-bridge-ram")))
    with pytest.raises(RuleError, match="pinned by hand") as caught:
        job.do({"kind": "move_skipped", "move": "step:isolate", "reason": "not needed today"})
    assert fields(caught) == ["grounds"]
    job.do({"kind": "move_skipped", "move": "step:isolate", "reason": "not needed today", "grounds": "safe_elsewhere"})
    assert job.move("step:isolate").status is Status.SKIPPED
    # What is passed over does not block for ever what comes after it.
    assert job.move("step:bleed").status is Status.OPEN or job.move("step:bleed").status is Status.NEXT
    # A step of making safe without a caution is a danger too; one of the rebuild without one is not.
    with pytest.raises(RuleError):
        plugged().do({"kind": "move_skipped", "move": "step:vent", "reason": "not needed today"})
    plugged().do({"kind": "move_skipped", "move": "step:wash", "reason": "it is clean already"})
    for never in ("sign", "intake", "account"):
        with pytest.raises(RuleError, match="cannot be passed over"):
            plugged().do({"kind": "move_skipped", "move": never, "reason": "not needed today"})


def test_safe_steps_come_again_after_a_test_has_pressed_the_unit() -> None:
    job = at("dry-disconnect-coupler", "step:pins-in", tests=[
        {"key": "first", "kind": "function", "name": "As found", "when": "as_found", "place": "bench", "zone": "hose", "sign": "no drop"},
    ])  # fmt: skip
    # Walked: made safe, pressed for the test, and then safe again before the first spanner.
    done = [payload.step for payload, _ in job.entries if payload.kind == "step_done"]  # type: ignore[attr-defined]
    assert done == ["empty", "empty"]


# Strip-down


def test_a_reversed_lip_is_called_out_and_a_second_look_does_not_wipe_it_out() -> None:
    job = at("swing-bridge-ram", "find:rod-lip")
    with pytest.raises(RuleError, match="which side did it face"):
        job.do({"kind": "element_found", "element": "rod-lip", "present": True})
    job.do({"kind": "element_found", "element": "rod-lip", "present": True, "faced": "outside"})
    assert "the likely cause of the leak" in reversed_words(job.case())["rod-lip"]
    job.do({"kind": "element_found", "element": "rod-lip", "present": True, "faced": "rod_side"})
    assert "rod-lip" in reversed_words(job.case()), "as found is never overwritten"
    assert "open lips to open air" in payload_words(job.resolved, job.entries[-2][0])


def test_a_wiper_found_reversed_lets_dirt_in_and_is_not_blamed_for_the_leak() -> None:
    job = at("swing-bridge-ram", "find:rod-wiper-ring")
    job.do({"kind": "element_found", "element": "rod-wiper-ring", "present": True, "faced": "rod_side"})
    told = reversed_words(job.case())["rod-wiper-ring"]
    assert "dirt" in told
    assert "cause of the leak" not in told


def test_what_is_expected_and_not_found_asks_back() -> None:
    job = at("swing-bridge-ram", "find:gland-backup")
    with pytest.raises(RuleError, match="a gland backup ring belongs here: missing, or still in the groove"):
        job.do({"kind": "element_found", "element": "gland-backup", "present": False})
    with pytest.raises(RuleError, match="a missing element faced nothing"):
        job.do({"kind": "element_found", "element": "gland-backup", "present": False, "faced": "outside", "note": "no"})
    job.do({"kind": "element_found", "element": "gland-backup", "present": False, "note": "groove empty"})
    assert job.move("find:gland-backup").status is Status.DONE


def test_of_several_alike_a_wrong_number_asks_back() -> None:
    job = plugged(stations__0__seats__0__elements__0__count=2)
    job.walk(until=lambda one: one.key == "find:ring")
    with pytest.raises(RuleError, match="2 belong here, 1 were found"):
        job.do({"kind": "element_found", "element": "ring", "present": True, "counted": 1})
    job.do({"kind": "element_found", "element": "ring", "present": True, "counted": 1, "note": "one was never fitted"})


def test_a_mark_is_made_and_met_and_alignment_is_said() -> None:
    job = at("swing-bridge-ram", "step:witness-marks")
    with pytest.raises(RuleError, match="One mark across barrel with cap end and gland"):
        job.do({"kind": "step_done", "step": "witness-marks"})
    job.do({"kind": "step_done", "step": "witness-marks", "marked": True})
    job.walk(until=lambda one: one.key == "step:wire-in")
    with pytest.raises(RuleError, match="marks must meet") as caught:
        job.do({"kind": "step_done", "step": "wire-in"})
    assert fields(caught) == ["met"]
    with pytest.raises(RuleError, match="both ports on top"):
        job.do({"kind": "step_done", "step": "wire-in", "met": True, "aligned": False})
    job.do({"kind": "step_done", "step": "wire-in", "met": True, "aligned": True})


def test_parts_go_to_numbered_places_in_the_order_they_come_off() -> None:
    job = Job(sheet_of(unit("header-tank-valve")))
    off = job.move("step:pin-out").entry["parts_off"]
    assert off == [{"part": "pin", "place": 1}, {"part": "arm", "place": 2}]
    assert job.move("step:plunger-out").entry["parts_off"] == [{"part": "plunger", "place": 3}]
    job.walk(until=lambda one: one.key == "step:pin-out")
    with pytest.raises(RuleError) as caught:
        job.do({"kind": "step_done", "step": "pin-out", "parts_off": [{"part": "plunger", "place": 1}]})
    assert fields(caught) == ["parts_off.0.part"]


def test_what_is_handled_with_care_says_so_on_every_move_that_handles_it() -> None:
    job = Job(sheet_of(unit("swing-bridge-ram")))
    assert any("seal lands" in one for one in job.move("step:piston-off").delicate)
    assert any("seal lands" in one for one in job.move("step:piston-on").delicate)
    assert job.move("step:piston-off").hold == "Grip: rod in soft jaws by its eye"
    # 18 MPa · 50²/(50² − 28²) is 26.2 MPa, the rating times cap over annulus area.
    assert job.move("step:bleed").shows == "a blocked rod side reaches 262 bar: rating × cap area / annulus area"
    assert job.move("step:drain").shows == "up to 157 ml comes out: the bore over the whole stroke"


def test_a_note_that_a_step_asks_for_is_written() -> None:
    job = at("swing-bridge-ram", "step:drain")
    with pytest.raises(RuleError, match="How much oil came out"):
        job.do({"kind": "step_done", "step": "drain"})


# Questions


def test_a_question_is_asked_when_it_can_be_seen_and_what_depends_on_it_waits() -> None:
    job = at("swing-bridge-ram", "step:wire-out")
    assert job.move("answer:wire").status is Status.BLOCKED
    assert [one for one in job.resolved.kit_lines if one.startswith("k-wire")] == []
    assert "How does the retaining wire end?" in job.move("count:FN-K-5028").blocked_by
    job.walk(until=lambda one: one.key == "answer:wire")
    job.do({"kind": "question_answered", "question": "wire", "choice": "plain"})
    assert [one for one in job.resolved.kit_lines if one.startswith("k-wire")] == ["k-wire-plain"]
    assert job.move("count:FN-K-5028").status is Status.OPEN
    with pytest.raises(RuleError, match="answered “plain” before"):
        job.do({"kind": "question_answered", "question": "wire", "choice": "hook"})
    job.do({"kind": "question_answered", "question": "wire", "choice": "hook", "note": "looked again"})
    job.walk(until=lambda one: one.key == "step:gland-on")
    with pytest.raises(RefusedError, match="parts are fitted by that answer"):
        job.do({"kind": "question_answered", "question": "wire", "choice": "plain", "note": "and again"})
    for bad in ({"question": "moon", "choice": "a"}, {"question": "wire", "choice": "moon"}):
        with pytest.raises(RuleError):
            job.do({"kind": "question_answered", **bad})


# Kit


def counted(job: Job, **short: int) -> dict[str, Any]:
    """The count of the kit with these lines counted otherwise."""
    move = next(one for one in job.moves() if one.kind.value == "count")
    payload = filled(move)
    for line in payload["lines"]:
        line["counted"] = short.get(line["line"], line["counted"])
    return payload


def test_nothing_new_is_fitted_before_the_kit_is_counted() -> None:
    job = at("header-tank-valve", "count:FN-K-HT15")
    with pytest.raises(RefusedError, match="count the kit FN-K-HT15"):
        job.do({"kind": "element_fitted", "element": "end-disc"})


def test_a_line_counted_short_is_ordered_and_fitted_when_it_has_come() -> None:
    job = at("dosing-check-valve", "count:FN-K-CV14")
    job.do(counted(job, **{"k-guide": 1}))
    assert job.move("order:k-guide").status is Status.NEXT
    assert job.move("receive:k-guide").status is Status.BLOCKED
    with pytest.raises(RefusedError, match="guide ring: 1 short"):
        job.do({"kind": "element_fitted", "element": "guide-ring-1"})
    assert "guide ring has not come yet" in " ".join(job.move("fit:guide-ring-1").blocked_by)
    with pytest.raises(RuleError, match="only 1 were missing"):
        job.do({"kind": "part_arrived", "what": "k-guide", "counted": 2})
    with pytest.raises(RuleError, match="not a thing that is short"):
        job.do({"kind": "part_arrived", "what": "k-disc", "counted": 1})
    job.do({"kind": "part_ordered", "what": "k-guide"})
    job.do({"kind": "part_arrived", "what": "k-guide", "counted": 1})
    assert job.move("receive:k-guide").status is Status.DONE
    job.walk()
    assert job.state.has("released", "released")


def test_what_never_came_is_not_fitted_though_its_arrival_is_passed_over() -> None:
    job = at("dosing-check-valve", "count:FN-K-CV14")
    job.do(counted(job, **{"k-guide": 1}))
    job.do({"kind": "move_skipped", "move": "receive:k-guide", "reason": "the maker has none left"})
    with pytest.raises(RefusedError, match="1 short"):
        job.do({"kind": "element_fitted", "element": "guide-ring-1"})
    for key in ("fit:guide-ring-1", "fit:guide-ring-2", "order:k-guide"):
        job.do({"kind": "move_skipped", "move": key, "reason": "the maker has none left"})
    job.walk()
    assert job.state.has("released", "released")


def test_a_count_passed_over_does_not_forbid_to_fit() -> None:
    job = at("header-tank-valve", "count:FN-K-HT15")
    job.do({"kind": "move_skipped", "move": "count:FN-K-HT15", "reason": "loose seals from the drawer"})
    job.walk()
    assert set(job.state.book("fitted")) == {"end-disc", "plunger-ring"}


def test_a_count_names_every_line_once() -> None:
    job = at("dosing-check-valve", "count:FN-K-CV14")
    payload = counted(job)
    with pytest.raises(RuleError, match="not counted: body ring"):
        job.do(payload | {"lines": payload["lines"][1:]})
    with pytest.raises(RuleError, match="is no kit of this build sheet"):
        job.do(payload | {"kit": "FN-K-0"})
    payload["lines"][0]["used"] = False
    with pytest.raises(RuleError, match="has no alternative"):
        job.do(payload)


# Rebuild


def test_a_reversed_one_is_refused_at_fitting() -> None:
    job = at("swing-bridge-ram", "fit:rod-lip")
    with pytest.raises(
        RuleError, match="reversed: open lips of the rod lip seal towards rod side, not open air"
    ) as caught:
        job.do({"kind": "element_fitted", "element": "rod-lip", "faces": "outside"})
    assert fields(caught) == ["faces"]
    with pytest.raises(RuleError, match="say to which side: open lips"):
        job.do({"kind": "element_fitted", "element": "rod-lip"})
    with pytest.raises(RuleError, match="not a zone beside this station"):
        job.do({"kind": "element_fitted", "element": "rod-lip", "faces": "cap_side"})
    choices = [choice.key for choice in job.move("fit:rod-lip").asks[0].choices]
    assert choices == ["rod_side", "outside"], "the right one stands first"
    job.do({"kind": "element_fitted", "element": "rod-lip", "faces": "rod_side"})
    assert "rod lip seal fitted, open lips to rod side" in payload_words(job.resolved, job.entries[-1][0])


def test_one_use_is_new_and_what_is_kept_is_kept() -> None:
    job = at("swing-bridge-ram", "fit:rod-lip")
    with pytest.raises(RuleError, match="for one use only"):
        job.do({"kind": "element_fitted", "element": "rod-lip", "faces": "rod_side", "reused": True})
    assert job.move("fit:rod-band").entry["reused"] is True
    assert job.move("fit:rod-lip").entry["reused"] is False


def test_what_must_never_meet_it_is_refused_but_for_a_reason_in_writing() -> None:
    job = at("dosing-check-valve", "fit:disc-seal")
    with pytest.raises(RuleError, match="never mineral grease on the disc seal: it swells EPDM"):
        job.do({"kind": "element_fitted", "element": "disc-seal", "lubricant": "Mineral Grease NLGI 2"})
    job.do(
        {
            "kind": "element_fitted",
            "element": "disc-seal",
            "lubricant": "mineral grease",
            "against": "maker's letter of May",
        }
    )
    assert "overruled: maker's letter" in payload_words(job.resolved, job.entries[-1][0])


def test_a_size_left_to_measuring_is_chosen_before_it_is_fitted() -> None:
    job = at("swing-bridge-ram", "identify:gland-ring")
    first = job.move("identify:gland-ring").asks[0].choices[0]
    with pytest.raises(RuleError, match="999"):
        job.do({"kind": "size_chosen", "element": "gland-ring", "size": "AS568 999"})
    job.do({"kind": "size_chosen", "element": "gland-ring", "size": first.key})
    assert first.key in job.move("fit:gland-ring").text
    # The best that fits is offered first, and a groove that it fits says so.
    assert first.sign == "good"


def test_a_given_depth_and_offset_are_asked_for() -> None:
    changes: dict[str, Any] = {
        "stations__0__seats__0__elements__0__depth_below": "1.5 mm",
        "stations__0__seats__0__elements__0__offset": "short side down",
        "stations__0__seats__0__elements__0__marks": ["dot up"],
    }
    job = plugged(**changes)
    job.walk(until=lambda one: one.key == "fit:ring")
    fit = {"kind": "element_fitted", "element": "ring"}
    with pytest.raises(RuleError, match="short side down"):
        job.do(fit)
    with pytest.raises(RuleError, match=r"1.5 mm is wanted"):
        job.do(fit | {"offset": "short side down"})
    with pytest.raises(RuleError, match=r"2 mm is not 1\.5 mm"):
        job.do(fit | {"offset": "short side down", "depth_below": "2 mm", "marks": True})
    with pytest.raises(RuleError, match="dot up"):
        job.do(fit | {"offset": "short side down", "depth_below": "1.5 mm"})
    for good in ("1.2 mm", "1.8 mm"):
        again = plugged(**changes)
        again.walk(until=lambda one: one.key == "fit:ring")
        again.do(fit | {"offset": "short side down", "depth_below": good, "marks": True})


def test_what_does_not_move_freely_goes_back_to_the_step_that_put_it_on() -> None:
    job = at("swing-bridge-ram", "step:free-stroke")
    with pytest.raises(RuleError, match="moves the full stroke"):
        job.do({"kind": "step_done", "step": "free-stroke"})
    with pytest.raises(RuleError, match="say how it moved"):
        job.do({"kind": "step_done", "step": "free-stroke", "free": False})
    job.do({"kind": "step_done", "step": "free-stroke", "free": False, "note": "catches at half stroke"})
    assert job.move("step:free-stroke").status is Status.BLOCKED
    # The last step before it that put a part on.
    assert job.next().key == "step:wire-in"  # type: ignore[union-attr]
    job.walk()
    assert job.state.has("released", "released")


def test_the_reason_with_a_refusal_is_that_of_the_step_that_blocks() -> None:
    job = at("swing-bridge-ram", "step:gland-on")
    with pytest.raises(RefusedError, match="Gland with its seals over the rod"):
        job.do(filled(job.move("fit:rod-spigot-ring")))


# Tightening


def test_a_reading_out_of_range_is_not_tight_and_a_pass_has_all_its_numbers() -> None:
    job = at("swing-bridge-ram", "tighten:port-flange:0:1")
    good = filled(job.move("tighten:port-flange:0:1"))
    assert [one["number"] for one in good["readings"]] == [1, 3, 2, 4]
    for reading in ("14 N·m", "11.3 N·m", "21 N·m"):
        bad = {**good, "readings": [good["readings"][0] | {"reading": reading}, *good["readings"][1:]]}
        with pytest.raises(RuleError, match="number 1 is not tight"):
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
    assert [move.text.split(":")[1].strip() for move in job.moves() if move.key.startswith("tighten:port-flange")] == [
        "11.4 to 13.8 N·m, pass 1 of 3 (60 %)", "19 to 23 N·m, pass 2 of 3 (100 %)",
        "19 to 23 N·m, pass 3 of 3 (last round in order)",
    ]  # fmt: skip


def test_a_target_has_its_own_band_or_the_one_at_recording() -> None:
    # 38 N·m ±5 % is 36.1 to 39.9; a bare target of 6.5 takes 5 %: 6.175 to 6.825.
    job = at("dry-disconnect-coupler", "tighten:handle-nut:0:1")
    (ask,) = [ask for ask in job.move("tighten:handle-nut:0:1").asks if ask.read.value == "torque"]
    assert ask.limit == pytest.approx((36.1, 39.9))


@pytest.mark.parametrize(
    ("phase", "words"),
    [
        ({"to": "hand"}, "hand tight"),
        ({"to": "loosen"}, "loosen again"),
        ({"to": "stop"}, "to the stop, metal to metal"),
        ({"to": "turns", "turns": 0.25}, "0.25 turns on"),
        ({"to": "turns", "turns": [0.6, 0.8], "back": True}, "0.6 to 0.8 turns back"),
        ({"to": "slot", "slots": 6, "back": True}, "back to the nearest of 6 slots"),
        ({"to": "gap", "gap": ["1 mm", "4 mm"]}, "a gap of 1 mm to 4 mm remains"),
    ],
)
def test_phases_other_than_torque_are_moves_in_words(phase: dict[str, Any], words: str) -> None:
    group = {"key": "nut", "name": "Nut", "thread": "M42x2", "phases": [phase]}
    job = plugged(fasteners=[group], steps__3__tightens=["nut"])
    job.walk(until=lambda one: one.key == "tighten:nut:0:1")
    assert job.move("tighten:nut:0:1").text == f"Nut: {words}"
    with pytest.raises(RuleError) as caught:
        job.do({"kind": "group_tightened", "group": "nut", "phase": 0})
    assert fields(caught) == ["done"]
    job.walk()
    assert job.state.has("released", "released")


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
    told = job.state.get("tightened", ("nut", 0, 1))
    assert "1: 32.6 N·m on the scale, adapter of 40 mm at 0° on 300 mm, with" in payload_words(
        job.case().resolved, told
    )
    assert job.move("tighten:nut:0:1").status is Status.DONE


def test_phases_follow_one_another_and_may_be_split_over_steps() -> None:
    group = {
        "key": "nut", "name": "Nut",
        "phases": [{"to": "torque", "target": "38 N·m"}, {"to": "loosen"}, {"to": "torque", "target": "38 N·m", "at": "wash2"}],
    }  # fmt: skip
    document = plug(fasteners=[group], steps__3__tightens=["nut"])
    document["steps"].append({"key": "wash2", "stage": "rebuild", "text": "Pipe joint on"})
    job = Job(sheet_of(document))
    order = []
    while (move := job.next()) is not None:
        order.append(move.key)
        job.do(filled(move))
    at_nut = [key for key in order if key.startswith("tighten") or key in {"step:in", "step:wash2"}]
    assert at_nut == ["step:in", "tighten:nut:0:1", "tighten:nut:1:1", "step:wash2", "tighten:nut:2:1"]


# Timers


def timed(**timer: Any) -> Job:
    job = plugged(steps__2__timer={"key": "soak", "minutes": 60, "for": "the ring to soak"} | timer)
    job.walk(until=lambda one: (one.key == "timer:soak" and one.status is Status.NEXT) or one.key == "fit:ring")
    return job


def test_a_timer_runs_on_the_clock_and_blocks_only_what_needs_it() -> None:
    job = plugged(steps__2__timer={"key": "soak", "minutes": 60, "for": "the ring to soak"})
    job.walk(until=lambda one: one.key == "step:wash")
    assert job.move("timer:soak").status is Status.BLOCKED
    job.do({"kind": "step_done", "step": "wash"})
    assert job.move("timer:soak").status is Status.WAITING
    # The kit can be counted meanwhile; the plug waits.
    assert job.next().key == "count:T-1"  # type: ignore[union-attr]
    assert "60 min for the ring to soak" in " ".join(job.move("step:in").blocked_by)
    job.do(filled(job.move("count:T-1")))
    assert job.move("timer:soak").status is Status.NEXT
    # After an hour on the server's clock it has run out, whoever looks; a clock set back starts it no more.
    job.now += timedelta(minutes=58)
    assert job.move("timer:soak").status is Status.NEXT
    job.now += timedelta(minutes=2)
    assert job.move("timer:soak").status is Status.DONE
    with pytest.raises(RefusedError, match="has run out already"):
        job.do({"kind": "timer_cut", "timer": "soak", "reason": "in a hurry"})


def test_a_timer_is_cut_by_a_lead_or_where_the_sheet_allows_it() -> None:
    job = plugged(steps__2__timer={"key": "soak", "minutes": 60, "for": "the ring to soak"})
    with pytest.raises(RefusedError, match="not running"):
        job.do({"kind": "timer_cut", "timer": "soak", "reason": "in a hurry"})
    with pytest.raises(RefusedError, match="not passed over"):
        job.do({"kind": "move_skipped", "move": "timer:soak", "reason": "in a hurry"})
    job.walk(until=lambda one: one.key == "timer:soak")
    with pytest.raises(NotAllowedError, match="only the workshop lead"):
        job.do({"kind": "timer_cut", "timer": "soak", "reason": "in a hurry"})
    job.author = TAMSIN
    job.do({"kind": "timer_cut", "timer": "soak", "reason": "in a hurry"})
    assert job.move("timer:soak").status is Status.DONE
    assert "timer cut short, the ring to soak: in a hurry" in payload_words(job.resolved, job.entries[-1][0])
    free = plugged(steps__2__timer={"key": "soak", "minutes": 60, "for": "x", "may_cut": True})
    free.walk()
    assert free.state.has("released", "released")


def test_an_early_timer_is_offered_at_once() -> None:
    step = {
        "key": "soak-set",
        "stage": "rebuild",
        "text": "Set to soak",
        "timer": {"key": "soak", "minutes": 5, "for": "it", "early": True, "may_cut": True},
    }
    document = plug()
    document["steps"].insert(3, step)
    job = Job(sheet_of(document))
    assert job.move("step:soak-set").status is Status.OPEN
    job.do({"kind": "step_done", "step": "soak-set"})
    job.do(DRY)
    assert job.move("timer:soak").status is Status.WAITING
    assert job.next().key == "step:vent"  # type: ignore[union-attr]


# Inspection


def test_a_part_is_judged_by_its_hardest_point() -> None:
    # A shop that dresses a pit within its limit.
    house = House({"school_pits": 1.0})
    job = at("swing-bridge-ram", "measure:rod")
    job.tables = replace(job.tables, house=house)
    good = {"point": "bend", "values": ["0.05 mm"]}

    def read(pit: str, **more: Any) -> dict[str, Any]:
        return {"kind": "points_read", "part": "rod", "points": [{"point": "pit", "values": [pit]}, good], **more}

    with pytest.raises(RuleError, match="not read yet: Run-out"):
        job.do({"kind": "points_read", "part": "rod", "points": [{"point": "pit", "values": ["0.02 mm"]}]})
    with pytest.raises(RuleError, match="unit"):
        job.do(read("0.02"))
    with pytest.raises(RuleError, match="say why it is “reuse”"):
        job.do(read("0.08 mm", verdict="reuse"))
    # The same verdict, or a harder one, needs no word.
    again = at("swing-bridge-ram", "measure:rod")
    again.tables = job.tables
    again.do(read("0.08 mm", verdict="dress"))
    again.do(read("0.08 mm", verdict="replace"))
    # At most 0.05 mm is good, up to 0.10 mm may be dressed, beyond that it is replaced.
    job.do(read("0.08 mm"))
    assert job.next().key == "dress:rod"  # type: ignore[union-attr]
    assert "chrome dust" in str(job.next().caution)  # type: ignore[union-attr]
    job.do({"kind": "part_dressed", "part": "rod"})
    assert job.next().key == "measure:rod"  # type: ignore[union-attr]
    job.do(read("0.12 mm"))
    assert job.move("order:part-rod").status is Status.OPEN
    job.walk()
    assert job.state.has("released", "released")
    assert job.state.arrived == {"part-rod": 1}


@pytest.mark.parametrize(
    ("point", "values", "verdict"),
    [
        ({"limit": "at most 0.05 mm"}, ["0.05 mm"], "reuse"),
        ({"limit": "at most 0.05 mm"}, ["0.06 mm"], "replace"),
        ({"limit": "at least 12 mm"}, ["12 mm"], "reuse"),
        ({"limit": "at least 12 mm"}, ["11.9 mm"], "replace"),
        ({"limit": "1 mm to 2 mm", "places": 3}, ["1 mm", "1.5 mm", "2 mm"], "reuse"),
        ({"limit": "1 mm to 2 mm", "places": 3}, ["1 mm", "0.9 mm", "2 mm"], "replace"),
        ({"limit": "1 mm to 2 mm", "places": 2}, ["1 mm", "2.1 mm"], "replace"),
        # Ovality: 28.00 less 27.96 is 0.04 mm.
        ({"limit": "at most 0.03 mm", "places": 2, "compute": "ovality", "nominal": "28 mm"}, ["28 mm", "27.96 mm"], "replace"),
        ({"limit": "at most 0.05 mm", "places": 2, "compute": "ovality", "nominal": "28 mm"}, ["28 mm", "27.96 mm"], "reuse"),
        # Wear: from the largest it may be when new, 28.00, to the smallest read.
        ({"limit": "at most 0.1 mm", "places": 2, "compute": "wear", "nominal": "28 mm +0/-0.05"}, ["27.95 mm", "27.91 mm"], "reuse"),
        ({"limit": "at most 0.1 mm", "places": 2, "compute": "wear", "nominal": "28 mm +0/-0.05"}, ["27.95 mm", "27.89 mm"], "replace"),
        ({"limit": "at most 2 mm", "places": 2, "compute": "mean"}, ["1 mm", "3 mm"], "reuse"),
        ({"limit": "at most 2 mm", "places": 2, "compute": "mean"}, ["1 mm", "3.1 mm"], "replace"),
        ({"limit": "at most 4 mm", "places": 2, "compute": "sum"}, ["1 mm", "3 mm"], "reuse"),
        ({"limit": "at most 4 mm", "places": 2, "compute": "sum"}, ["1 mm", "3.1 mm"], "replace"),
        ({"limit": "at most 1 mm", "dress": {"to": "2 mm"}}, ["1.5 mm"], "dress"),
        ({"limit": "at most 1 mm", "dress": {"to": "2 mm"}}, ["2 mm"], "dress"),
        ({"limit": "at most 1 mm", "dress": {"to": "2 mm"}, "else": "send_out"}, ["2.1 mm"], "send_out"),
    ],
)  # fmt: skip
def test_readings_against_their_limit(point: dict[str, Any], values: list[str], verdict: str) -> None:
    """Limits include their ends; what several readings come to is worked out by hand above."""
    job = plugged(parts__1__points=[{"key": "p", "ask": "How much?", "read": "length", **point}])
    job.walk(until=lambda one: one.key == "measure:plug")
    job.do({"kind": "points_read", "part": "plug", "points": [{"point": "p", "values": values}]})
    assert standing(job.case(), "plug") == verdict


def test_looks_and_gauges_are_judged_too() -> None:
    points = [
        {"key": "look", "ask": "Pinhole?", "read": "look", "bad": ["pinhole", "fold"], "else": "replace"},
        {"key": "gauge", "ask": "Go gauge runs through?", "read": "go_no_go", "else": "send_out"},
    ]
    job = plugged(parts__1__points=points)
    job.walk(until=lambda one: one.key == "measure:plug")

    def read(seen: Any, good: bool | None) -> str | None:
        document = {
            "kind": "points_read",
            "part": "plug",
            "points": [{"point": "look", "seen": seen}, {"point": "gauge", "good": good}],
        }
        job.do(document)
        return standing(job.case(), "plug")

    assert read("none", True) == "reuse"
    assert read(["pinhole"], True) == "replace"
    assert read(["pinhole"], False) == "send_out"
    for seen, good in ((None, True), ("none", None)):
        with pytest.raises(RuleError):
            read(seen, good)


# Tests


def hold(**changes: Any) -> dict[str, Any]:
    return {
        "key": "hold", "name": "Hold", "zone": "oil", "pressure": "100 bar", "volume": "400 ml",
        "medium": "mineral oil ISO VG 46", "bulk_modulus_gpa": 1.4, "leak_limit": "1 ml/min",
    } | changes  # fmt: skip


def run(job: Job, key: str = "test:hold:as_left", **changes: Any) -> dict[str, Any]:
    return filled(job.move(key)) | changes


def test_a_unit_that_is_apart_is_not_tested() -> None:
    job = plugged(tests=[hold()])
    job.walk(until=lambda one: one.key == "step:in")
    with pytest.raises(RefusedError, match="the unit is apart: Plug in"):
        job.do(run(job))
    found = plugged(tests=[hold(when="as_found", place="machine")])
    found.walk(until=lambda one: one.key == "step:wash")
    with pytest.raises(RefusedError, match="can be tested no more"):
        found.do(run(found, "test:hold:as_found"))


def test_only_a_passed_hold_is_done_and_a_failed_one_stays_in_the_log() -> None:
    job = plugged(tests=[hold(volume="4 l", leak_limit="0.1 ml/min")])
    job.walk(until=lambda one: one.key == "test:hold:as_left")
    needs = dict(job.move("test:hold:as_left").asks[0].needs or {})
    # A tenth of the pressure is no test of it.
    job.do(run(job, samples=list(trace(**needs | {"pressure_mpa": 1.0}))))
    assert job.move("test:hold:as_left").status is Status.NEXT
    # By hand: 1 bar in a minute of 4 l at 1.4 GPa is 4000 · 0.1 / 1400 = 0.29 ml/min, three times the limit.
    falling = [one | {"pressure_mpa": 10.0 - 0.1 * one["t_s"] / 60} for one in trace(**needs)]
    job.do(run(job, samples=falling))
    assert job.move("test:hold:as_left").status is Status.NEXT
    # The thermometer that never reads otherwise counts as none: 0.1 K/min of 4 l are 0.27 ml/min, over any limit so small.
    read = [one | {"temperature_c": 24.0 + 0.1 * (n % 2)} for n, one in enumerate(trace(**needs))]
    job.do(run(job, samples=read))
    assert job.move("test:hold:as_left").status is Status.DONE
    assert len(job.state.runs_of("hold", "as_left")) == 3
    with pytest.raises(RuleError, match="does not come after"):
        job.do(run(job, samples=[{"t_s": 1, "pressure_mpa": 10}, {"t_s": 1, "pressure_mpa": 10}]))
    with pytest.raises(RuleError, match="does not reach the test pressure"):
        job.do(run(job, gauge={"name": "g", "range": "60 bar", "resolution": "1 bar", "accuracy_pct": 1}))
    with pytest.raises(RuleError, match="needs its readings"):
        job.do(run(job, samples=[]))
    # A hold is not said to be seen: its trace tells.
    with pytest.raises(RuleError, match="told by its trace"):
        job.do(run(job, record={"seen": True}))


def test_a_sign_that_was_not_seen_is_no_pass() -> None:
    job = plugged(tests=[{"key": "t", "kind": "function", "name": "Works", "sign": "no drop"}])
    job.walk(until=lambda one: one.key == "test:t:as_left")
    with pytest.raises(RuleError, match="no drop"):
        job.do({"kind": "test_run", "test": "t", "when": "as_left"})
    job.do({"kind": "test_run", "test": "t", "when": "as_left", "record": {"seen": False}})
    assert job.move("test:t:as_left").status is Status.NEXT
    # As an earlier version told it.
    job.do({"kind": "test_run", "test": "t", "when": "as_left", "seen": True, "value": "dry"})
    assert job.move("test:t:as_left").status is Status.DONE


def test_a_pressure_above_the_rating_is_no_intake() -> None:
    job = plugged()
    intake = {**job.entries[0][0].model_dump(mode="json"), "pressure": "101 bar"}
    with pytest.raises(RuleError, match="above the rating"):
        job.do(intake)
    job.do(intake | {"pressure": "100 bar"})


# Closing


def test_tray_and_kit_are_accounted_for_before_it_is_signed() -> None:
    job = at("swing-bridge-ram", "account")
    assert job.move("sign").status is Status.BLOCKED
    assert "retaining wire" in job.move("account").text
    with pytest.raises(RuleError) as caught:
        job.do({"kind": "accounted", "tray": False, "kit": True})
    assert fields(caught) == ["tray"]
    with pytest.raises(RuleError) as caught:
        job.do({"kind": "accounted", "tray": True, "kit": False})
    assert fields(caught) == ["kit"]
    with pytest.raises(RefusedError, match="Tray and kit"):
        job.do({"kind": "released"})
    job.do({"kind": "accounted", "tray": True, "kit": True})
    with pytest.raises(RuleError, match="say when it is done"):
        job.do({"kind": "disposed", "done": False})
    job.walk()
    with pytest.raises(RefusedError, match="takes no entry"):
        job.do({"kind": "note_made", "text": "late"})
    job.do({"kind": "reopened", "reason": "came back leaking"})
    assert job.next().key == "account"  # type: ignore[union-attr]


def test_a_struck_entry_counts_no_more() -> None:
    job = plugged()
    job.do(DRY)
    entry = job.do({"kind": "step_done", "step": "vent"})
    assert job.move("step:vent").status is Status.DONE
    job.do({"kind": "entry_struck", "entry": str(entry), "reason": "the wrong unit"})
    assert job.move("step:vent").status is Status.NEXT


def test_settings_are_made_at_their_step_or_in_their_chapter() -> None:
    spec = {
        "key": "spring", "name": "Spring", "kind": "preset",
        "preset": {"bottom": "counter_clockwise", "turns": 2, "tolerance": 0.1, "leaves": "1 mm"},
    }  # fmt: skip
    job = plugged(settings=[spec])
    job.walk(until=lambda one: one.key == "set:spring")
    assert job.move("set:spring").stage.value == "set"
    assert job.move("set:spring").text == (
        "Set spring: to the bottom counter-clockwise, then 2 ±0.1 turns clockwise, which leaves 1 mm"
    )
    with pytest.raises(RuleError):
        job.do({"kind": "setting_made", "setting": "spring", "reached": False})
    bound = plugged(settings=[spec], steps__3__sets=["spring"])
    keys = [move.key for move in bound.moves()]
    assert keys.index("set:spring") == keys.index("step:in") + 1
    target = spec | {"kind": "target", "target": {"reading": "pressure", "value": "280 bar +10/-0", "floor": "270 bar"}}
    job = plugged(settings=[target])
    job.walk(until=lambda one: one.key == "set:spring")
    with pytest.raises(RuleError, match="what was read"):
        job.do({"kind": "setting_made", "setting": "spring", "reached": True})
    job.walk()
    assert job.state.has("released", "released")


def test_a_hold_is_asked_for_as_long_as_it_needs_and_not_too_often() -> None:
    job = plugged(tests=[hold()])
    needs = dict(job.move("test:hold:as_left").asks[0].needs or {})
    assert needs["pressure_mpa"] == 10.0
    # At least a minute and five readings are needed whatever the sums say; a reading every two seconds at most.
    assert needs["seconds"] >= 60 * 1.1
    assert needs["every_s"] >= 2.0
    planned = plugged(tests=[hold(hold="30 min")])
    needs = dict(planned.move("test:hold:as_left").asks[0].needs or {})
    assert needs["seconds"] == pytest.approx(1800 * 1.1 + 20)
    assert needs["every_s"] == 30.0


def test_a_timer_that_ends_this_very_moment_has_run_out() -> None:
    job = plugged(steps__2__timer={"key": "soak", "minutes": 60, "for": "the ring to soak"})
    job.walk(until=lambda one: one.key == "step:wash")
    job.do({"kind": "step_done", "step": "wash"})
    started = job.state.book("steps")["wash"].mark.when
    job.now = started + timedelta(minutes=60)
    assert job.move("timer:soak").status is Status.DONE
    with pytest.raises(RefusedError, match="has run out already"):
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
    assert "Plug inspected: Pinhole: nothing of the kind; Go gauge runs through yes; Wear 0.50 mm; reuse" in told
    assert "tray and kit accounted for" in told
    assert told[-1] == "released"
    assert job.move("sign").entry["next_service"] == "reseal by 2028-11-24 or after 500 h, whichever comes first"
