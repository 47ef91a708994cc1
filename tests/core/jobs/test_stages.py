"""The stages of the latch ram while it is stripped: how far each is, what is laid out for it, what stands beside it."""

from __future__ import annotations

from ironkettle.core.jobs import Stage, Status, Task, tasks_of
from ironkettle.core.jobs.stages import Panel, StageState, stages_of
from tests.core.jobs.at_work import at


def stripped_so_far() -> tuple[tuple[Task, ...], dict[Stage, StageState]]:
    tasks = tasks_of(at("swing-bridge-ram", "step:piston-off").case())
    return tasks, {state.key: state for state in stages_of(tasks)}


def test_what_is_done_is_counted_and_what_is_next_is_worked() -> None:
    tasks, states = stripped_so_far()
    own = [task for task in tasks if task.stage is Stage.STRIP]
    assert (states[Stage.STRIP].done, states[Stage.STRIP].total) == (
        [task.status for task in own].count(Status.DONE),
        len(own),
    )
    assert 0 < states[Stage.STRIP].done < len(own)
    assert states[Stage.STRIP].current == "step:piston-off"
    assert [states[stage].status for stage in (Stage.SAFE, Stage.STRIP, Stage.REBUILD)] == ["done", "open", "later"]


def test_tools_are_laid_out_for_what_is_still_to_be_done() -> None:
    # By the sheet: a wire hook for the wire, which is out; a hook spanner for the piston, which is next.
    tools = stripped_so_far()[1][Stage.STRIP].tools
    assert "wire hook" not in tools
    assert "hook spanner" in tools


def test_the_tray_stands_beside_the_stages_that_use_it() -> None:
    states = stripped_so_far()[1]
    assert {stage for stage, state in states.items() if Panel.TRAY in state.panels} == {
        Stage.STRIP,
        Stage.INSPECT,
        Stage.REBUILD,
    }
