"""A sheet's tasks before there is a job, and sheets that nobody could work."""

from __future__ import annotations

from ironkettle.core.jobs.preview import preview, work_faults
from tests.bench import TABLES
from tests.tiny import plug, sheet_of, unit


def test_tasks_by_stage_are_those_of_a_job_with_the_first_choices() -> None:
    counted = preview(sheet_of(unit("swing-bridge-ram")), TABLES)
    # By the sheet: 4 steps of making safe; 5 of the strip-down, 10 elements and a question; 1 wash and 3 parts.
    assert counted["safe"] == 4
    assert counted["strip"] == 5 + 9 + 1
    assert counted["inspect"] == 1 + 3
    assert counted["match"] == 1
    # 6 steps, 9 elements, one torque, three passes of the flange.
    assert counted["rebuild"] == 6 + 9 + 1 + 3
    # And where it is wet.
    assert sum(counted.values()) == 55


def test_tasks_that_wait_for_each_other_are_a_fault() -> None:
    # A phase of the nut belongs to a step that is done only after the nut is tight.
    group = {"key": "nut", "name": "Nut", "phases": [{"to": "hand", "at": "later"}, {"to": "stop"}]}
    document = plug(fasteners=[group], steps__3__tightens=["nut"])
    document["steps"].append({"key": "later", "stage": "rebuild", "text": "Later", "after": ["in"]})
    faults = work_faults(sheet_of(document), TABLES)
    assert [fault.field for fault in faults] == ["steps"]
    assert "tighten:nut" in faults[0].message
    assert work_faults(sheet_of(plug()), TABLES) == []
