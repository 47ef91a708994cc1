"""What a step moves is drawn before and after it: what hangs on a part goes along with it."""

from __future__ import annotations

import pytest

from ironkettle.core.jobs.away import away_after, parts_away
from tests.bench import Job
from tests.core.jobs.at_work import at
from tests.tiny import UNITS, sheet_of, unit


def off_after(job: Job, key: str) -> set[str] | None:
    after = away_after(job.case(), job.task(key))
    return None if after is None else set(after)


def test_gland_and_piston_come_out_on_the_rod() -> None:
    # By the ram's sheet: "Draw the rod out straight, gland and piston on it"; the wire came off before.
    job = at("swing-bridge-ram", "step:rod-out")
    assert parts_away(job.case()) == {"wire"}
    assert off_after(job, "step:rod-out") == {"wire", "rod", "gland", "piston"}


def test_a_gland_put_on_a_rod_in_the_vice_is_no_more_in_the_barrel_than_before() -> None:
    job = at("swing-bridge-ram", "step:gland-on")
    assert {"rod", "gland", "piston"} <= parts_away(job.case())
    assert off_after(job, "step:gland-on") is None
    job.take(job.task("step:gland-on"))
    assert "gland" in parts_away(job.case())


def test_with_the_rod_all_that_is_on_it_goes_in() -> None:
    job = at("swing-bridge-ram", "step:rod-in")
    assert off_after(job, "step:rod-in") == parts_away(job.case()) - {"rod", "gland", "piston"}


@pytest.mark.parametrize("key", sorted(path.stem for path in UNITS.glob("*.yaml")))
def test_no_housing_goes_along_and_a_whole_unit_has_nothing_away(key: str) -> None:
    job = Job(sheet_of(unit(key)))
    come_off = {part for step in job.resolved.sheet.steps for part in step.takes_off}
    assert parts_away(job.case()) == set()
    job.walk(until=lambda task: not parts_away(job.case()) <= come_off)
    assert job.next() is None


def test_a_step_that_moves_nothing_is_drawn_once() -> None:
    assert off_after(at("swing-bridge-ram", "step:isolate"), "step:isolate") is None


def test_a_step_that_cannot_be_done_yet_is_drawn_once() -> None:
    assert off_after(at("swing-bridge-ram", "step:rod-out"), "step:piston-off") is None


def test_a_step_that_is_done_is_drawn_once() -> None:
    assert off_after(at("swing-bridge-ram", "step:piston-off"), "step:rod-out") is None


@pytest.mark.parametrize("key", sorted(path.stem for path in UNITS.glob("*.yaml")))
def test_what_was_told_before_a_step_is_so_after_it(key: str) -> None:
    """A law over all units: the drawing of *after this step* is that of the job once the step is recorded."""
    job = Job(sheet_of(unit(key)))
    for _ in range(400):
        task = job.next()
        if task is None:
            break
        told = off_after(job, task.key) if task.kind.key == "step" else None
        before = parts_away(job.case())
        job.take(task)
        if task.kind.key == "step":
            assert parts_away(job.case()) == (before if told is None else told), task.key
