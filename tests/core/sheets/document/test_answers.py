"""What answers leave of a sheet: items in, out, and waiting; what refers to what is out drops with it."""

from __future__ import annotations

from typing import Any

import pytest

from ironkettle.core.base.errors import RuleError
from ironkettle.core.sheets.document.answers import answered, counts, depending, first_answers, geometry_answers, served
from ironkettle.core.sheets.document.sheet import Sheet
from tests.tiny import plug, sheet_of

KIND = {
    "key": "kind", "ask": "Which diaphragm?",
    "choices": [{"key": "metal", "says": "metal"}, {"key": "cloth", "says": "cloth"}],
}  # fmt: skip
METAL = {"only": {"kind": ["metal"]}}


def test_a_choice_that_refuses_the_unit_is_no_first_answer_unless_all_do() -> None:
    metal, cloth = KIND["choices"]  # type: ignore[misc]
    refused = {"refuses": "another sheet"}
    one = sheet_of(plug(questions=[{**KIND, "choices": [{**metal, **refused}, cloth]}]))  # type: ignore[dict-item]
    assert served(one.questions[0]) == ["cloth"]
    both = sheet_of(plug(questions=[{**KIND, "choices": [{**metal, **refused}, {**cloth, **refused}]}]))  # type: ignore[dict-item]
    assert served(both.questions[0]) == ["metal", "cloth"]


def sheet(**extra: Any) -> Sheet:
    """The plug with a lid that only the metal kind has, and everything that can refer to it."""
    document = plug(questions=[KIND])
    document["parts"].append(
        {"key": "lid", "name": "Lid", "points": [{"key": "p", "ask": "x", "read": "look"}], **METAL}
    )
    document["zones"].append({"key": "vent", "name": "vent", "kind": "drain", "seed": [1, 30], **METAL})
    document["stations"].append(
        {
            "key": "lid-place", "name": "Lid", "between": ["oil", "air"], "carrier": "lid",
            "seats": [{"kind": "clamped", "at": 60, "inner": "1 mm", "outer": "2 mm", "thickness": "1 mm",
                       "elements": [{"key": "gasket", "name": "gasket", "kind": "gasket", "part": "lid"}]}],
        }
    )  # fmt: skip
    document["steps"] = [
        {"key": "vent-it", "stage": "safe", "text": "Vent", "after": []},
        {
            "key": "lid-off",
            "stage": "strip",
            "text": "Lid off",
            "after": ["vent-it"],
            "takes_off": ["lid"],
            "opens": ["lid-place"],
        },
        {"key": "mark", "stage": "strip", "text": "Mark", "after": ["lid-off"], "mark": {"key": "m"}, **METAL},
        {
            "key": "out",
            "stage": "strip",
            "text": "Plug out",
            "after": ["mark"],
            "takes_off": ["plug"],
            "opens": ["ring-place"],
        },
        {"key": "look", "stage": "clean", "text": "Look", "reads": [{"part": "lid", "point": "p"}]},
        {
            "key": "in",
            "stage": "rebuild",
            "text": "Plug in",
            "after": ["out"],
            "puts_on": ["plug"],
            "closes": ["ring-place"],
            "meets": ["m"],
            "ahead_of": ["lid"],
        },
        {
            "key": "lid-on",
            "stage": "rebuild",
            "text": "Lid on",
            "after": ["mark"],
            "puts_on": ["lid"],
            "closes": ["lid-place"],
        },
    ]
    document["kits"][0]["lines"] += [
        {"key": "k-gasket", "name": "gasket", "element": "gasket"},
        {"key": "k-both", "name": "both", "elements": ["gasket", "ring"], "count": 2},
        {"key": "k-rag", "name": "rag", "consumable": True},
    ]
    document["fasteners"] = [
        {"key": "lid-screw", "name": "Lid screw", "part": "lid", "phases": [{"to": "hand"}]},
        {"key": "plug-screw", "name": "Plug screw", "phases": [{"to": "hand", "at": "mark"}, {"to": "stop"}]},
    ]
    document["ladders"] = [{"part": "lid", "rungs": [{"key": "a", "do": "pull"}]}]
    document["tests"] = [
        {"key": "t-vent", "name": "T", "kind": "function", "sign": "x", "zone": "vent"},
        {"key": "t-oil", "name": "T", "kind": "function", "sign": "x", "zone": "oil", "after": ["mark", "in"]},
    ]
    document["intervals"] = [{"of": "lid", "every": "1 year", "what": "look"}, {"every": "2 years", "what": "reseal"}]
    return sheet_of(document | extra)


def keys(items: Any) -> list[str]:
    return [item.key for item in items]


def test_an_item_counts_waits_or_is_out() -> None:
    lid = sheet().parts[2]
    assert counts(lid, {"kind": "metal"}) is True
    assert counts(lid, {"kind": "cloth"}) is False
    assert counts(lid, {}) is None
    assert counts(sheet().parts[0], {}) is True
    both = lid.model_copy(update={"only": {"kind": ["metal"], "size": ["big"]}})
    assert counts(both, {"size": "small"}) is False
    assert counts(both, {"kind": "metal"}) is None


def test_with_the_lid_nothing_is_lost() -> None:
    whole, kept = sheet(), answered(sheet(), {"kind": "metal"})
    for name in ("parts", "zones", "stations", "steps", "fasteners", "tests", "ladders", "intervals", "questions"):
        assert len(getattr(kept, name)) == len(getattr(whole, name)), name
    assert keys(kept.kits[0].lines) == ["k-ring", "k-gasket", "k-both", "k-rag"]


@pytest.mark.parametrize("answers", [{"kind": "cloth"}, {}])
def test_what_refers_to_the_lid_drops_with_it(answers: dict[str, str]) -> None:
    kept = answered(sheet(), answers)
    assert keys(kept.parts) == ["body", "plug"]
    assert keys(kept.zones) == ["oil", "air"]
    assert keys(kept.stations) == ["ring-place"]
    # Steps that did nothing but with the lid are gone; what they stood between is joined.
    assert keys(kept.steps) == ["vent-it", "out", "in"]
    assert kept.steps[1].after == ["vent-it"]
    assert kept.steps[2].meets == []
    assert kept.steps[2].ahead_of == []
    assert keys(kept.kits[0].lines) == ["k-ring", "k-both", "k-rag"]
    assert kept.kits[0].lines[1].all_elements == ("ring",)
    assert keys(kept.fasteners) == ["plug-screw"]
    assert [phase.to for phase in kept.fasteners[0].phases] == ["stop"]
    assert kept.ladders == []
    assert keys(kept.tests) == ["t-oil"]
    assert kept.tests[0].after == ["in"]
    assert [interval.of for interval in kept.intervals] == ["unit"]


def test_an_after_passes_to_what_stood_before_whatever_is_out() -> None:
    kept = answered(sheet(), {"kind": "cloth"})
    known = set(keys(kept.steps))
    for step in kept.steps:
        assert set(step.after or []) <= known, step.key
    out = next(step for step in kept.steps if step.key == "out")
    assert out.after == ["vent-it"]


def test_first_answers_keep_those_given() -> None:
    assert first_answers(sheet(), {}) == {"kind": "metal"}
    assert first_answers(sheet(), {"kind": "cloth"}) == {"kind": "cloth"}


def test_what_waits_is_named_with_its_question() -> None:
    waiting = [(getattr(item, "key", None), question) for item, question in depending(sheet(), {})]
    assert ("lid", "kind") in waiting
    assert ("vent", "kind") in waiting
    assert ("mark", "kind") in waiting
    assert depending(sheet(), {"kind": "cloth"}) == []


def test_only_questions_that_change_the_drawing_are_combined() -> None:
    other = {"key": "school", "ask": "How?", "choices": [{"key": "a", "says": "a"}, {"key": "b", "says": "b"}]}
    combined = geometry_answers(sheet(questions=[KIND, other]), 10)
    assert combined == [{"kind": "metal"}, {"kind": "cloth"}]
    assert geometry_answers(sheet_of(plug()), 10) == [{}]
    with pytest.raises(RuleError, match="2 combinations"):
        geometry_answers(sheet(), 1)
