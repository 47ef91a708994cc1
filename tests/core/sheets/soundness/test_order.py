"""The order of work: circles, what the strip-down forbids, ends left open, questions asked too late."""

from __future__ import annotations

from typing import Any

import pytest

from ironkettle.core.sheets.document.positions import expanded
from ironkettle.core.sheets.soundness.order import after_of, dependencies, off_order
from tests.tiny import plug, sheet_of, told, unit

# Two parts more: a lid over the plug, held by a clip.
LID = {"key": "lid", "name": "Lid"}
CLIP = {"key": "clip", "name": "Clip"}
STRIP = [
    {"key": "vent", "stage": "safe", "text": "Vent", "after": []},
    {"key": "lid-off", "stage": "strip", "text": "Clip and lid off", "takes_off": ["clip", "lid"]},
    {"key": "out", "stage": "strip", "text": "Plug out", "takes_off": ["plug"], "opens": ["ring-place"]},
]
BACK = [
    {"key": "in", "stage": "rebuild", "text": "Plug in", "after": [], "puts_on": ["plug"], "closes": ["ring-place"]},
    {"key": "lid-on", "stage": "rebuild", "text": "Lid on", "after": [], "puts_on": ["lid"]},
    {"key": "clip-on", "stage": "rebuild", "text": "Clip on", "after": [], "puts_on": ["clip"]},
]


def lidded(*steps: dict[str, Any], **changes: Any) -> dict[str, Any]:
    return {"steps": [*STRIP, *(steps or BACK)], "parts__append": LID} | changes


def sheet(*steps: dict[str, Any]) -> Any:
    document = plug(steps=[*STRIP, *(steps or BACK)])
    document["parts"] += [LID, CLIP]
    return sheet_of(document)


def faults_of(*steps: dict[str, Any], strip: list[dict[str, Any]] | None = None, **changes: Any) -> dict[str, str]:
    document_parts = plug()["parts"] + [LID, CLIP]
    return told(steps=[*(strip or STRIP), *(steps or BACK)], parts=document_parts, **changes)


def test_a_step_without_after_follows_the_one_before_it() -> None:
    assert after_of(sheet()) == {
        "vent": [], "lid-off": ["vent"], "out": ["lid-off"], "in": [], "lid-on": [], "clip-on": [],
    }  # fmt: skip
    # Within one step parts come off by list.
    assert off_order(sheet()) == {"clip": 0, "lid": 1, "plug": 2}


def test_what_came_off_last_goes_on_first_with_the_reason() -> None:
    waits = dependencies(sheet())
    assert waits["in"] == {}
    assert waits["lid-on"] == {"in": "Plug came off after Lid"}
    assert waits["clip-on"]["in"] == "Plug came off after Clip"
    assert waits["clip-on"]["lid-on"] == "Lid came off after Clip"


def test_a_station_opened_with_a_part_or_after_it_is_closed_before_it_goes_on() -> None:
    steps = [
        {"key": "in", "stage": "rebuild", "text": "Plug in", "after": [], "puts_on": ["plug"]},
        {"key": "ring-in", "stage": "rebuild", "text": "Ring in", "after": [], "closes": ["ring-place"]},
    ]
    waits = dependencies(sheet(*steps))
    assert waits["in"] == {"ring-in": "Plug in its bore was opened with Plug or after it"}
    # Opened before the part came off, it does not hold it up.
    early = [
        {"key": "vent", "stage": "safe", "text": "Vent", "after": []},
        {"key": "ring-out", "stage": "strip", "text": "Ring out", "opens": ["ring-place"]},
        {"key": "out", "stage": "strip", "text": "Plug out", "takes_off": ["plug"]},
    ]
    document = plug(steps=[*early, *steps])
    assert dependencies(sheet_of(document))["in"] == {}
    # What is fitted in place goes in when the parts around are on already.
    document = plug(steps=[*STRIP[:1], STRIP[2], *steps], stations__0__fitted="in_place")
    assert dependencies(sheet_of(document))["in"] == {}


def test_ahead_of_lets_a_part_on_early() -> None:
    steps = [BACK[0], BACK[1] | {"ahead_of": ["plug"], "why": "the plug goes in through it"}, BACK[2]]
    waits = dependencies(sheet(*steps))
    assert waits["lid-on"] == {}
    assert "in" in waits["clip-on"]


def test_a_circle_is_told_with_its_way() -> None:
    steps = [BACK[0] | {"after": ["clip-on"]}, BACK[1] | {"after": ["in"]}, BACK[2] | {"after": ["lid-on"]}]
    found = faults_of(*steps)
    assert any("waits for itself in a circle" in message for message in found.values())
    assert any("in → " in message or "→ in" in message for message in found.values())


def test_an_order_against_the_strip_down_is_told_with_both_reasons() -> None:
    steps = [BACK[0] | {"after": ["lid-on"], "why": "the lid guides it"}, BACK[1], BACK[2]]
    found = faults_of(*steps)
    message = next(message for message in found.values() if "contradicts itself" in message)
    assert "the lid guides it" in message
    assert "Plug came off after Lid" in message


@pytest.mark.parametrize(
    ("strip", "back", "field", "words"),
    [
        ([*STRIP, {"key": "o2", "stage": "strip", "text": "x", "opens": ["ring-place"]}], BACK, "steps.3.opens.0", "opened at out already"),
        ([*STRIP, {"key": "o2", "stage": "strip", "text": "x", "takes_off": ["lid"]}], BACK, "steps.3.takes_off.0", "came off at lid-off already"),
        (STRIP, [BACK[0] | {"closes": []}], "steps.2.opens.0", "never closed"),
        ([STRIP[0] | {"after": ["in"]}, *STRIP[1:]], BACK, "steps.0.after.0", "later stage"),
        ([STRIP[0] | {"timer": {"key": "t", "minutes": 5}}, *STRIP[1:]], BACK, "steps.0.timer.for", "say what it waits for"),
    ],
)  # fmt: skip
def test_ends_left_open(strip: list[dict[str, Any]], back: list[dict[str, Any]], field: str, words: str) -> None:
    found = faults_of(*back, strip=strip)
    assert field in found, found
    assert words in found[field]


def test_a_part_to_be_left_on_does_not_come_off() -> None:
    document = plug()["parts"] + [LID | {"fate": "leave", "why": "locked at the works"}, CLIP]
    found = told(steps=[*STRIP, *BACK], parts=document)
    assert found["steps.1.takes_off.1"] == "lid is to be left on"


def test_a_question_is_seen_before_what_depends_on_it() -> None:
    question = {
        "key": "kind",
        "ask": "Which?",
        "seen_at": "out",
        "choices": [{"key": "a", "says": "a"}, {"key": "b", "says": "b"}],
    }
    late = [STRIP[0], STRIP[1] | {"only": {"kind": ["a"]}}, STRIP[2]]
    assert "not before this step" in faults_of(strip=late, questions=[question])["steps.1.only"]
    good = [*BACK[:2], BACK[2] | {"only": {"kind": ["a"]}}]
    assert faults_of(*good, questions=[question]) == {}
    seen_late = question | {"seen_at": "in"}
    assert (
        "after this station is opened"
        in faults_of(questions=[seen_late], stations__0__only={"kind": ["a"]})["stations.0.only"]
    )
    unknown = faults_of(*[*BACK[:2], BACK[2] | {"only": {"kind": ["c"]}}], questions=[question])
    assert unknown["steps.5.only.kind"] == "“c” is not a choice of kind of this sheet"


@pytest.mark.parametrize("key", ["swing-bridge-ram", "loader-lift-ram", "dry-disconnect-coupler"])
def test_the_rebuild_of_a_demo_unit_follows_its_strip_down(key: str) -> None:
    """By hand: of any two parts that come off one after the other, the later goes on no later."""
    made = sheet_of(unit(key))
    waits = dependencies(made)
    off = off_order(made)
    on = {part: step.key for step in made.steps if step.stage == "rebuild" for part in step.puts_on}

    def before(step: str) -> set[str]:
        found: set[str] = set()
        for wait in waits[step]:
            found |= {wait} | before(wait)
        return found

    for part, place in off.items():
        for other, later in off.items():
            if part in on and other in on and later > place and on[part] != on[other]:
                assert on[other] in before(on[part]), f"{other} must be on before {part}"


def test_a_step_cannot_hang_on_a_question_that_is_seen_at_it() -> None:
    question = {
        "key": "kind",
        "ask": "Which?",
        "seen_at": "out",
        "choices": [{"key": "a", "says": "a"}, {"key": "b", "says": "b"}],
    }
    strip = [STRIP[0], STRIP[1], STRIP[2] | {"only": {"kind": ["a"]}}]
    assert "not before this step" in faults_of(strip=strip, questions=[question])["steps.2.only"]


def test_of_several_alike_each_waits_for_its_own_and_not_for_its_neighbour() -> None:
    document = plug(steps=[*STRIP, *BACK])
    document["parts"] += [LID, CLIP]
    document["positions"] = [
        {"key": "p", "name": "Place", "of": [1, 2], "parts": ["plug", "lid"], "stations": ["ring-place"],
         "steps": ["lid-off", "out", "in", "lid-on"]},
    ]  # fmt: skip
    document["steps"][1]["takes_off"] = ["lid"]
    waits = dependencies(expanded(sheet_of(document)))
    assert waits["lid-on@1"] == {"in@1": "Plug, place 1 came off after Lid, place 1"}
    assert waits["lid-on@2"] == {"in@2": "Plug, place 2 came off after Lid, place 2"}
