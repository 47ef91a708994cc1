"""What a part covers is tight before the part goes on: by the order of the strip-down and by the drawing's solids."""

from __future__ import annotations

from typing import Any

import pytest

from ironkettle.core.base.errors import FieldFault
from ironkettle.core.sheets.soundness.check import check_document
from tests.tiny import TABLES, checked, plug, unit


def later(key: str, group: str, step: str) -> list[FieldFault]:
    """The faults of a demo unit whose group is tightened at another step."""
    document = unit(key)
    for one in document["steps"]:
        if one["stage"] == "rebuild":
            one["tightens"] = [name for name in one.get("tightens", []) if name != group]
            if one["key"] == step:
                one["tightens"].append(group)
    return check_document(document, TABLES).faults


@pytest.mark.parametrize(
    ("key", "group", "step", "text"),
    [
        ("tilt-ram", "piston-nut", "rod-in", None),
        ("tilt-ram", "piston-nut", "fittings-on", "Rod goes on over Piston nut"),
        ("loader-lift-ram", "piston-bolt", "screw-in", "Rod goes on over Piston bolt"),
        ("net-pen-compressor", "cup-screw", "head-on", "Head plate goes on over Cup retainer screw"),
        # The nut of a packing is in reach with everything on: the sheet may tighten it last.
        ("ballast-globe-valve", "packing-nut", "actuator-on", None),
    ],
)
def test_what_is_tightened_under_a_part(key: str, group: str, step: str, text: str | None) -> None:
    found = [one for one in later(key, group, step) if "goes on over" in one.message]
    if text is None:
        assert found == []
    else:
        (one,) = found
        assert one.message.startswith(text)
        assert one.field.startswith("steps.")
        assert one.field.endswith(".puts_on")


def covered(cap: dict[str, Any], **changes: Any) -> list[str]:
    """A nut on the end of the plug, loosened once a cap is off and tightened once it is on again."""
    steps = plug()["steps"]
    steps[1] = {"key": "cap-off", "stage": "strip", "text": "Cap off", "takes_off": ["cap"]}
    steps.insert(
        2,
        {
            "key": "out",
            "stage": "strip",
            "text": "Plug out",
            "loosens": ["nuts"],
            "takes_off": ["nut", "plug"],
            "opens": ["ring-place"],
        },
    )
    steps[4].update(puts_on=["plug", "nut"])
    steps.append({"key": "cap-on", "stage": "rebuild", "text": "Cap on", "puts_on": ["cap"]})
    steps.append({"key": "tight", "stage": "rebuild", "text": "Nut tight", "tightens": ["nuts"]})
    document = plug(
        steps=steps, fasteners=[{"key": "nuts", "name": "Plug nut", "part": "nut", "phases": [{"to": "hand"}]}]
    )
    document["parts"] += [
        {"key": "nut", "name": "Nut", "material": "steel", "solid": {"tube": {"from": 60.5, "to": 66, "inner": 2, "outer": 8}}},
        {"key": "cap", "name": "Cap", "material": "steel", "solid": cap},
    ]  # fmt: skip
    for path, value in changes.items():
        document["fasteners"][0][path] = value
    return [fault.message for fault in check_document(document, TABLES).faults]


HOOD = [{"tube": {"from": 51, "to": 72, "inner": 12, "outer": 14}}, {"bar": {"from": 71, "to": 74, "outer": 14}}]
FAULT = ["Cap goes on over Plug nut, which is tightened later: tighten it before, or at this step"]


def test_a_hood_over_a_nut_hides_it() -> None:
    assert covered({"bar": {"from": 80, "to": 82, "outer": 3}}) == []
    assert covered(HOOD) == FAULT  # type: ignore[arg-type]


def test_a_sleeve_leaves_it_in_reach_from_its_end_and_a_washer_from_the_side() -> None:
    assert covered(HOOD[0]) == []
    assert covered({"bar": {"from": 71, "to": 74, "outer": 14}}) == []


def test_fasteners_without_a_place_in_the_drawing_are_not_judged() -> None:
    assert covered(HOOD, part=None) == []  # type: ignore[arg-type]


def test_the_plug_alone_covers_nothing() -> None:
    assert checked().faults == []


def test_what_would_take_too_long_to_judge_is_said_and_not_tried() -> None:
    """Fifty nuts under two caps that came off before them: a hundred pairs are too many."""
    steps = plug()["steps"]
    nuts = [f"n{number}" for number in range(50)]
    steps[1] = {"key": "caps-off", "stage": "strip", "text": "Caps off", "takes_off": ["one", "other"]}
    steps.insert(
        2,
        {
            "key": "out",
            "stage": "strip",
            "text": "Plug out",
            "loosens": nuts,
            "takes_off": ["plug"],
            "opens": ["ring-place"],
        },
    )
    steps.append({"key": "caps-on", "stage": "rebuild", "text": "Caps on", "puts_on": ["other", "one"]})
    steps.append({"key": "tight", "stage": "rebuild", "text": "Nuts tight", "tightens": nuts})
    document = plug(
        steps=steps,
        fasteners=[{"key": key, "name": f"Nut {key}", "part": "plug", "phases": [{"to": "hand"}]} for key in nuts],
    )
    document["parts"] += [{"key": key, "name": f"Cap {key}", "material": "steel"} for key in ("one", "other")]
    assert [fault.accepts for fault in check_document(document, TABLES).faults] == [
        ("up to 60 pairs of a part and a group",)
    ]
