"""What is asked: units, finite ranges, values; a reading in the range is a reading that holds."""

from __future__ import annotations

import math
from typing import Any

import pytest

from ironkettle.core.base.errors import RuleError
from ironkettle.core.jobs.kinds.base import measured, value_of
from ironkettle.core.sheets.document.parts import Read
from tests.bench import Job
from tests.tiny import UNITS, plug, sheet_of, unit


@pytest.mark.parametrize(
    ("read", "limit", "unit_", "ends"),
    [
        (Read.LENGTH, "at most 0.05 mm", "mm", (0.0, 0.05)),
        # From what it must be at least up to twice that.
        (Read.LENGTH, "at least 12 mm", "mm", (12.0, 24.0)),
        (Read.LENGTH, "1 mm to 4 mm", "mm", (1.0, 4.0)),
        (Read.LENGTH, "28 mm +0/-0.052", "mm", (27.948, 28.0)),
        # In the unit the sheet writes: a quarter to half an inch.
        (Read.LENGTH, "0.25 in to 0.5 in", "in", (0.25, 0.5)),
        (Read.PRESSURE, "at most 7 bar", "bar", (0.0, 7.0)),
        (Read.LENGTH, None, "mm", (0.0, 1000.0)),
        (Read.TORQUE, None, "N·m", (0.0, 1000.0)),
        (Read.NUMBER, "at most 3", None, (0.0, 3.0)),
        (Read.NUMBER, "at least 0", None, (0.0, 1000.0)),
        (Read.NUMBER, None, None, (0.0, 1000.0)),
        (Read.NUMBER, "at most -2", None, (-2.0, -2.0)),
        (Read.TEXT, None, None, None),
        (Read.LOOK, None, None, None),
    ],
)
def test_unit_and_range_of_what_is_measured(
    read: Read, limit: str | None, unit_: str | None, ends: tuple[float, float] | None
) -> None:
    found_unit, found_ends, _ = measured(read, limit, "limit")
    assert found_unit == unit_
    assert found_ends == (None if ends is None else pytest.approx(ends))


def test_a_value_is_in_the_base_unit_or_a_plain_number() -> None:
    assert value_of("0.5 in", Read.LENGTH, "x") == pytest.approx(12.7)
    assert value_of("7 bar", Read.PRESSURE, "x") == pytest.approx(0.7)
    assert value_of("3,5", Read.NUMBER, "x") == 3.5
    for text, read in (("five", Read.NUMBER), ("5", Read.LENGTH), ("5 bar", Read.LENGTH)):
        with pytest.raises(RuleError):
            value_of(text, read, "x")


@pytest.mark.parametrize("key", sorted(path.stem for path in UNITS.glob("*.yaml")))
def test_every_ask_can_be_filled_and_every_number_has_finite_ends(key: str) -> None:
    job = Job(sheet_of(unit(key)))
    for task in job.tasks():
        fields = [ask.field for ask in task.asks]
        assert len(set(fields)) == len(fields)
        for ask in task.asks:
            assert ask.label
            if ask.read in {Read.CHOICE, Read.ZONE, Read.LOOK}:
                assert ask.choices, (task.key, ask.field)
                assert len({choice.key for choice in ask.choices}) == len(ask.choices)
            if ask.limit is not None:
                assert all(math.isfinite(end) for end in ask.limit)
                assert ask.limit[0] <= ask.limit[1]


def test_a_note_with_a_unit_is_read_as_one() -> None:
    note = {"ask": "Turns counted", "read": "number", "limit": "1 to 9"}
    job = Job(sheet_of(plug(steps__1__note=note)))
    job.do({"kind": "step_done", "step": "vent"})
    (ask,) = [ask for ask in job.task("step:out").asks if ask.field == "note"]
    assert (ask.read, ask.limit) == (Read.NUMBER, (1.0, 9.0))
    with pytest.raises(RuleError, match="is not a number"):
        job.do({"kind": "step_done", "step": "out", "note": "a few"})
    job.do({"kind": "step_done", "step": "out", "note": "4"})


@pytest.mark.parametrize(
    ("figures", "words"),
    [
        ({"kind": "function", "sign": "no drop"}, "no drop"),
        # No cylinder, no unit, no time: figures that the rule of the kind cannot read.
        ({"kind": "drift", "limit": "1 mm/min"}, "T: limit 1 mm/min"),
        ({"kind": "set_point", "value": "four bar", "lock_up": "4.4 bar"}, "T: four bar, lock-up 4.4 bar"),
        ({"kind": "count", "what": "drops", "limit": "hardly any"}, "drops: limit hardly any"),
        ({"kind": "reading", "quantity": "level", "limit": "5 mm"}, "level: limit 5 mm"),
    ],
)
def test_a_test_whose_figures_cannot_be_read_is_asked_in_words(figures: dict[str, Any], words: str) -> None:
    job = Job(sheet_of(plug(tests=[{"key": "t", "name": "T", **figures}])))
    ask = job.task("test:t:as_left").asks[0]
    assert ask.label == words


def test_what_comes_off_has_its_place_in_the_tray_and_what_will_not_come_its_ladder() -> None:
    job = Job(sheet_of(unit("loader-lift-ram")))
    gland = job.task("step:gland-turned")
    assert gland.tray
    assert gland.ladder[0].do
    assert gland.stop
    assert job.task("step:bleed").ladder == ()


def test_a_change_of_grip_is_called_out() -> None:
    steps = [
        {"key": "one", "stage": "strip", "text": "One", "hold": "by its eye"},
        {"key": "two", "stage": "strip", "text": "Two", "hold": "by its eye"},
        {"key": "three", "stage": "strip", "text": "Three", "hold": "both sets of flats"},
    ]
    document = plug()
    document["steps"][1:1] = steps
    job = Job(sheet_of(document))
    assert [job.task(f"step:{key}").hold for key in ("one", "two", "three", "wash")] == [
        "Grip: by its eye", "Grip: by its eye", "Change of grip: both sets of flats", None,
    ]  # fmt: skip
