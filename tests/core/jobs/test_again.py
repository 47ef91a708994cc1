"""A unit taken apart again: it goes back through what that touches, and through nothing else."""

from __future__ import annotations

from typing import Any

import pytest

from ironkettle.core.base.errors import RefusedError, RuleError
from ironkettle.core.jobs.kinds.release import RELEASED
from ironkettle.core.jobs.kinds.take_apart import touched_by
from ironkettle.core.jobs.task import Stage, Status
from tests.bench import Job, filled
from tests.tiny import sheet_of, unit

RAM = sheet_of(unit("swing-bridge-ram"))


def apart(step: str) -> dict[str, Any]:
    return {"kind": "taken_apart", "step": step, "reason": "drips at the rod again"}


@pytest.fixture
def tested() -> Job:
    job = Job(RAM)
    job.walk(until=lambda task: task.key == "account")
    return job


def test_the_gland_off_again_leaves_the_piston_seals_where_they_are(tested: Job) -> None:
    # By hand from the sheet: the gland comes off the rod last, after the piston; its three elements, what puts it
    # back, and whatever is rebuilt after it are to be done anew.
    tested.do(apart("gland-off"))
    redo = {task.key for task in tested.tasks() if task.status not in {Status.DONE, Status.SKIPPED}}
    assert {
        "step:gland-off",
        "fit:rod-lip",
        "fit:rod-band",
        "fit:rod-wiper-ring",
        "step:gland-on",
        "step:rod-in",
    } <= redo
    assert "count:FN-K-5028" in redo
    assert "test:rod-side-hold:as_left" in redo
    assert not {"find:rod-lip", "fit:piston-lip-cap", "measure:rod"} & redo
    # The hold pressed it: it is made safe again before the spanner goes on.
    next_ = tested.next()
    assert next_ is not None
    assert next_.key == "step:isolate"
    while (task := tested.next()) is not None and task.stage is Stage.SAFE:
        tested.take(task)
    assert task is not None
    assert task.key == "step:gland-off"


def test_it_is_worked_again_to_its_release(tested: Job) -> None:
    tested.do(apart("rod-out"))
    tested.walk()
    assert tested.state.has(RELEASED, "released")
    assert len(tested.state.runs_of("rod-side-hold", "as_left")) == 2


def test_what_came_for_the_kit_before_counts_no_more_when_it_is_counted_again(tested: Job) -> None:
    tested.do(apart("gland-off"))
    count = tested.task("count:FN-K-5028")
    place = next(at for at, line in enumerate(count.entry["lines"]) if line["line"] == "k-rod-lip")
    tested.do(filled(count, **{f"lines.{place}.counted": 0}))
    assert tested.task("order:k-rod-lip").status is not Status.DONE
    tested.do({"kind": "part_ordered", "what": "k-rod-lip"})
    tested.do({"kind": "part_arrived", "what": "k-rod-lip", "counted": 1})
    assert tested.task("receive:k-rod-lip").status is Status.DONE
    tested.do(filled(tested.task("count:FN-K-5028"), **{f"lines.{place}.counted": 0}))
    assert tested.task("receive:k-rod-lip").status is not Status.DONE


def test_only_a_step_of_the_strip_down_that_is_done_and_only_with_a_reason() -> None:
    job = Job(RAM)
    with pytest.raises(RefusedError, match="not done yet"):
        job.do(apart("rod-out"))
    with pytest.raises(RuleError, match="is not a step of the strip-down"):
        job.do(apart("rod-in"))


def test_the_first_step_touches_all_that_comes_after_it(tested: Job) -> None:
    resolved = tested.resolved
    whole = touched_by(resolved, "wire-out")
    assert whole.elements == frozenset(resolved.elements)
    assert whole.groups >= {"piston-thread"}
    assert touched_by(resolved, "gland-off").elements < whole.elements
