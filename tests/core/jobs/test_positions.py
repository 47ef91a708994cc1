"""Several alike in one unit: their items repeat, one is worked through before the next, kits count over all."""

from __future__ import annotations

from typing import Any

import pytest

from ironkettle.core.jobs.kinds.release import RELEASED
from ironkettle.core.sheets.document.positions import base_key, expanded
from ironkettle.core.sheets.soundness.check import check_document
from tests.bench import Job
from tests.tiny import TABLES, UNITS, plug, sheet_of, unit


def twin(**changes: Any) -> dict[str, Any]:
    """The plug, three of them in one body."""
    position = {
        "key": "place", "name": "Place", "of": [1, 2, 3], "parts": ["plug"], "stations": ["ring-place"],
        "steps": ["out", "in"], "fasteners": ["nut"],
    }  # fmt: skip
    document = plug(positions=[position], **changes)
    document["fasteners"] = [{"key": "nut", "name": "Nut", "part": "plug", "phases": [{"to": "hand"}]}]
    document["steps"][3]["tightens"] = ["nut"]
    document["kits"][0]["lines"][0]["count"] = 3
    return document


def test_items_repeat_with_their_references_within_the_position() -> None:
    sheet = expanded(sheet_of(twin()))
    assert [part.key for part in sheet.parts] == ["body", "plug@1", "plug@2", "plug@3"]
    assert [part.name for part in sheet.parts][1] == "Plug, place 1"
    station = sheet.stations[1]
    assert (station.key, station.carrier, station.counterface) == ("ring-place@2", "plug@2", "body")
    assert station.seats[0].elements[0].key == "ring@2"
    assert [step.key for step in sheet.steps] == ["vent", "out@1", "out@2", "out@3", "wash", "in@1", "in@2", "in@3"]
    second = next(step for step in sheet.steps if step.key == "in@2")
    assert (second.puts_on, second.closes, second.tightens) == (["plug@2"], ["ring-place@2"], ["nut@2"])
    # A shared step waits for all; a repeated one for the shared one, and for its own.
    wash = next(step for step in sheet.steps if step.key == "wash")
    assert wash.after == ["out@1", "out@2", "out@3"]
    assert next(step for step in sheet.steps if step.key == "out@3").after == ["vent"]
    assert second.after == ["wash"]
    # From outside a bare key means all.
    assert sheet.kits[0].lines[0].all_elements == ("ring@1", "ring@2", "ring@3")
    assert base_key("ring@2") == "ring"


def test_one_position_is_worked_through_before_the_next() -> None:
    document = twin()
    assert check_document(document, TABLES).faults == []
    job = Job(sheet_of(document))
    order = []
    while (task := job.next()) is not None:
        order.append(task.key)
        job.take(task)
    assert job.state.has(RELEASED, "released")
    strip = [key for key in order if key.startswith(("step:out", "find:"))]
    assert strip == ["step:out@1", "find:ring@1", "step:out@2", "find:ring@2", "step:out@3", "find:ring@3"]
    rebuild = [key for key in order if key.startswith(("fit:", "step:in", "tighten"))]
    assert rebuild[:3] == ["fit:ring@1", "step:in@1", "tighten:nut@1:0:1"]
    assert rebuild[3:6] == ["fit:ring@2", "step:in@2", "tighten:nut@2:0:1"]


def test_a_step_done_for_all_in_turn_comes_before_each_goes_on() -> None:
    document = twin()
    document["steps"].insert(1, {"key": "mark", "stage": "strip", "text": "Mark", "each": True})
    document["positions"][0]["steps"].append("mark")
    keys = [step.key for step in expanded(sheet_of(document)).steps]
    assert keys[:7] == ["vent", "mark@1", "mark@2", "mark@3", "out@1", "out@2", "out@3"]


def test_one_of_several_can_fail_alone() -> None:
    document = twin(steps__3__free="slides")
    job = Job(sheet_of(document))
    job.walk(until=lambda task: task.key == "step:in@2")
    job.do({"kind": "step_done", "step": "in@2", "free": False, "note": "sticks"})
    assert job.next().key == "step:in@2"  # type: ignore[union-attr]
    assert job.task("step:in@1").status.value == "done"


def test_lists_that_name_shared_and_repeated_things_keep_both() -> None:
    document = twin()
    document["steps"][3]["ahead_of"] = ["body", "plug"]
    document["steps"][2]["after"] = ["vent", "out"]
    document["ladders"] = [
        {"part": "plug", "rungs": [{"key": "pull", "do": "pull"}]},
        {"part": "body", "rungs": [{"key": "a", "do": "b"}]},
    ]
    sheet = expanded(sheet_of(document))
    assert next(step for step in sheet.steps if step.key == "in@3").ahead_of == ["body", "plug@3"]
    assert next(step for step in sheet.steps if step.key == "wash").after == ["vent", "out@1", "out@2", "out@3"]
    assert [ladder.part for ladder in sheet.ladders] == ["plug@1", "plug@2", "plug@3", "body"]
    assert next(step for step in sheet.steps if step.key == "vent").after == []
    # A sheet without positions is left as it is.
    single = sheet_of(plug())
    assert expanded(single) is single


@pytest.mark.parametrize("key", sorted(path.stem for path in UNITS.glob("*.yaml")))
def test_a_kit_holds_what_is_fitted_from_it_over_all_positions(key: str) -> None:
    resolved = Job(sheet_of(unit(key))).resolved
    for kit in resolved.sheet.kits:
        for line in kit.lines:
            fitted = [
                resolved.elements[all_element].spec.count
                for all_element in line.all_elements
                if all_element in resolved.elements
            ]
            assert sum(fitted) <= line.count, line.key


def test_counts_given_for_one_position_are_those_of_all() -> None:
    document = unit("jetting-pump-box")
    for line in document["kits"][0]["lines"]:
        line.pop("count", None)
    lines = {line.key: line.count for kit in Job(sheet_of(document)).resolved.sheet.kits for line in kit.lines}
    # Three boxes, each with one bottom ring and two pressure rings.
    assert (lines["k-bottom"], lines["k-vees"]) == (3, 6)
