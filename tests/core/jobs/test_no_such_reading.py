"""Readings that nobody can have taken: below nothing, no number, a point lost, another ring than the one chosen."""

from __future__ import annotations

from typing import Any

import pytest
from pydantic import ValidationError

from ironkettle.core.base.errors import NotAllowedError, RefusedError, RuleError
from ironkettle.core.jobs.task import Task
from tests.bench import Job, filled
from tests.core.jobs.at_work import at, plugged
from tests.tiny import UNITS, faults, plug, sheet_of, unit

EVERY = sorted(path.stem for path in UNITS.glob("*.yaml"))


def refused(job: Job, document: dict[str, Any], field: str, words: str) -> None:
    before = len(job.entries)
    with pytest.raises(RuleError, match=words) as caught:
        job.do(document)
    assert caught.value.faults[0].field == field
    assert len(job.entries) == before


@pytest.mark.parametrize("text", ["nan", "inf", "-inf", "1e400"])
def test_what_is_no_number_is_no_count(text: str) -> None:
    job = at("needle-scaler", "measure:needles")
    refused(
        job, filled(job.task("measure:needles"), **{"points.0.values.0": text}), "points.0.values.0", "is not a number"
    )


def test_a_pit_is_not_less_than_nothing_deep() -> None:
    """A rod with a pit of −0.026 mm was within its limit of at most 0.05 mm once."""
    job = at("loader-lift-ram", "measure:rod")
    deep = {"points.0.values.0": "-0.026 mm"}
    refused(job, filled(job.task("measure:rod"), **deep), "points.0.values.0", "is below 0: read it again")


@pytest.mark.parametrize("key", EVERY)
def test_no_reading_of_a_magnitude_is_taken_below_nothing(key: str) -> None:
    """Over every task of a sheet as it comes: a depth, a torque, a flow or a count with a minus before it."""
    job = Job(sheet_of(unit(key)))
    while (task := job.next()) is not None:
        for ask in task.asks:
            if (
                ask.limit is not None
                and ask.limit[0] >= 0
                and ask.read.value in {"length", "torque", "flow", "volume", "time"}
            ):
                taken = _taken(job, filled(task, **{ask.field: f"-1 {ask.unit}"}))
                assert not taken or _both_ways(task, ask.field, job), (task.key, ask.field)
        job.take(task)


def _both_ways(task: Task, field: str, job: Job) -> bool:
    """Whether a dial is read there from a zero of its own."""
    if task.kind.key != "measure":
        return False
    point = job.resolved.parts[task.subject].points[int(field.split(".")[1])]
    return getattr(point, "compute", None) in {"run_out", "flatness", "difference"}


def _taken(job: Job, document: dict[str, Any]) -> bool:
    entries, now = list(job.entries), job.now
    try:
        job.do(document)
    except (RuleError, RefusedError, NotAllowedError, ValidationError):
        return False
    job.entries, job.now, job._folded, job._case = entries, now, None, None
    return True


def test_a_dial_goes_both_ways() -> None:
    point = {
        "key": "round",
        "ask": "Dial round the plug",
        "read": "length",
        "places": 2,
        "compute": "run_out",
        "limit": "at most 0.1 mm",
        "else": "replace",
    }
    job = plugged(parts__1__points=[point])
    job.walk(until=lambda task: task.key == "measure:plug")
    job.do(filled(job.task("measure:plug"), **{"points.0.values.0": "-0.02 mm", "points.0.values.1": "0.03 mm"}))
    assert job.task("measure:plug").status.value == "done"


@pytest.mark.parametrize(
    ("limit", "note", "good"), [("1 to 15", "-3", False), ("-5 to 5", "-3", True), ("1 to 15", "nan", False)]
)
def test_a_note_goes_below_nothing_only_where_its_limit_does(limit: str, note: str, good: bool) -> None:
    job = Job(sheet_of(plug(steps__1__note={"ask": "Turns until slack", "read": "number", "limit": limit})))
    job.walk(until=lambda task: task.key == "step:out")
    document = filled(job.task("step:out"), note=note)
    if good:
        job.do(document)
    else:
        refused(job, document, "note", "is below 0|is not a number")


def test_no_ring_is_as_thick_as_a_thumb() -> None:
    job = at("ballast-globe-valve", "find:plug-ring")
    refused(job, filled(job.task("find:plug-ring"), section="33.8 mm"), "section", "is not the section of a ring")
    job.do(filled(job.task("find:plug-ring"), section="20 mm"))


def test_a_count_of_thousands_is_asked_back() -> None:
    job = at("jetting-pump-box", "count:FN-K-JP320")
    count = job.task("count:FN-K-JP320")
    refused(job, filled(count, **{"lines.0.counted": 7}), "lines.0.counted", "bottom ring: 7 counted, 3 needed")
    job.do({**filled(count, **{"lines.0.counted": 7}), "note": "two bags in one"})


@pytest.mark.parametrize(
    ("value", "good"),
    [
        ("as it should be", False),
        ("12 drops", False),
        ("nan", False),
        ("10001", False),
        ("12", True),
        (12, True),
        ("-3.5", True),
    ],
)
def test_what_is_observed_in_a_unit_is_a_number(value: Any, good: bool) -> None:
    job = at("header-tank-valve", "observe:level:as_found")
    document = {**filled(job.task("observe:level:as_found")), "value": value}
    if good:
        job.do(document)
    else:
        refused(job, document, "value", "is not a number|is out of range")


def test_what_is_observed_without_a_unit_is_told_in_words() -> None:
    job = plugged(
        observations=[
            {"key": "look", "name": "How it looks"},
            {"key": "gap", "name": "Gap", "read": "length"},
            {"key": "wet", "name": "Wet", "read": "yes_no"},
        ]
    )
    asks = {task.key: task.asks[0] for task in job.tasks() if task.kind.key == "observe"}
    assert (asks["observe:look:as_found"].read.value, asks["observe:gap:as_found"].unit) == ("text", "mm")
    assert asks["observe:wet:as_found"].read.value == "text"
    job.do({"kind": "observation_noted", "observation": "look", "when": "as_found", "value": "rusty"})
    refused(
        job, {"kind": "observation_noted", "observation": "gap", "when": "as_found", "value": "wide"}, "value", "wide"
    )


def test_a_size_that_its_readings_do_not_bear_out_needs_a_reason() -> None:
    job = at("swing-bridge-ram", "identify:gland-ring")
    task = job.task("identify:gland-ring")
    read = {"inside_diameter": "30 mm", "section": "3.5 mm"}
    refused(job, filled(task, **read), "size", "its inside diameter is .* mm, 30 mm was read")
    refused(job, filled(task, section="5.2 mm"), "size", "its section is .* mm, 5.2 mm was read")
    job.do({**filled(task, **read), "reason": "cut, measured flat"})
    # The words of a seal that is no O-ring tell its sizes too: 38 × 52 × 8.
    job = at("weed-skip-ram", "identify:wiper")
    task = job.task("identify:wiper")
    refused(job, filled(task, inside_diameter="52 mm"), "size", "its inside diameter is 38 mm, 52 mm was read")
    job.do(filled(task, inside_diameter="39 mm", section="7.4 mm"))


def test_a_disc_has_no_hole_that_its_size_could_belie() -> None:
    seat = {"kind": "press_in", "at": 25, "bore": "20 mm", "shaft": "0 mm", "length": "4 mm"}
    disc = {"key": "ring", "name": "disc", "kind": "seat_disc", "identify": True}
    job = plugged(stations__0__seats=[{**seat, "elements": [disc]}], kits=[])
    job.walk(until=lambda task: task.key == "identify:ring")
    job.do(filled(job.task("identify:ring"), size="0 × 20 × 4", inside_diameter="1 mm", section="9.8 mm"))


@pytest.mark.parametrize(
    ("note", "field", "words"),
    [
        ({"ask": "How it looks", "readings": ["left", "right"]}, "steps.1.note.read", "have to be measured or counted"),
        (
            {"ask": "How far", "read": "length", "readings": ["left"]},
            "steps.1.note.readings",
            "a difference needs two readings",
        ),
    ],
)
def test_readings_that_cannot_differ_are_a_fault_of_the_sheet(note: dict[str, Any], field: str, words: str) -> None:
    (found,) = faults(steps__1__note=note)
    assert found.field == field
    assert words in found.message
