"""The spaces that are drawn under pressure are those that are, at each task."""

from __future__ import annotations

import pytest

from ironkettle.core.jobs.pressed import pressed_at
from ironkettle.core.jobs.task import Stage
from tests.bench import Job, shipped, walked
from tests.tiny import UNITS


def at(key: str, task: str) -> Job:
    sheet = shipped(key)
    assert sheet is not None
    job = Job(sheet)
    job.walk(lambda one: one.key == task)
    return job


def pressed(job: Job, task: str) -> set[str] | None:
    found = pressed_at(job.case(), job.task(task))
    return None if found is None else set(found)


def test_a_unit_just_taken_in_stands_as_in_service() -> None:
    assert pressed(at("swing-bridge-ram", "observe:rod-leak:as_found"), "observe:rod-leak:as_found") is None


def test_until_it_is_made_safe_it_is_under_pressure_and_not_afterwards() -> None:
    assert pressed(at("swing-bridge-ram", "step:drain"), "step:drain") is None
    job = at("swing-bridge-ram", "step:wire-out")
    assert pressed(job, "step:drain") == set()
    assert pressed(job, "step:wire-out") == set()


def test_a_hold_presses_the_side_that_its_sheet_names_and_no_other() -> None:
    # Its sheet: the rod side is held with the cap port open to a measuring glass.
    job = at("swing-bridge-ram", "test:rod-side-hold:as_left")
    assert pressed(job, "test:rod-side-hold:as_left") == {"rod_side"}
    assert pressed(job, "test:cap-side-hold:as_left") == {"cap_side"}


def test_a_test_of_several_positions_presses_each_of_them() -> None:
    job = at("jetting-pump-box", "test:run-in:as_left")
    assert pressed(job, "test:run-in:as_left") == {"chamber@1", "chamber@2", "chamber@3"}


def test_what_a_test_pressed_is_under_pressure_until_it_is_made_safe_again() -> None:
    job = at("swing-bridge-ram", "account")
    job.do({"kind": "taken_apart", "step": "gland-off", "reason": "drips at the rod again"})
    assert pressed(job, "step:gland-off") is None
    while (task := job.next()) is not None and task.stage is Stage.SAFE:
        job.take(task)
    assert pressed(job, "step:gland-off") == set()


def test_what_is_looked_at_under_load_stands_as_in_service() -> None:
    assert pressed(at("swing-bridge-ram", "observe:drift:as_left"), "observe:drift:as_left") is None


@pytest.mark.parametrize(
    ("key", "task", "under_pressure"),
    [
        # Until it just touches the spring: with the line shut off.
        ("control-air-regulator", "set:touch", False),
        ("control-air-regulator", "set:line", True),
        # On the test pump, while the unit is put together.
        ("fuel-injector", "set:opening", True),
    ],
)
def test_where_a_pressure_is_set_the_unit_is_under_it(key: str, task: str, under_pressure: bool) -> None:
    assert pressed(at(key, task), task) == (None if under_pressure else set())


@pytest.mark.parametrize("key", sorted(sheet.stem for sheet in UNITS.glob("*.yaml")))
def test_nothing_is_under_pressure_while_a_unit_lies_open(key: str) -> None:
    for moment in walked(key):
        if moment.task is not None and moment.task.stage in {Stage.STRIP, Stage.INSPECT, Stage.KIT, Stage.REBUILD}:
            assert pressed(at(key, moment.task.key), moment.task.key) == set()
            return
