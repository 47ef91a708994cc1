"""The snapshot of a job says what its log says, at every entry and through everything that can stand in it."""

from __future__ import annotations

import json
import uuid
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.jobs.kinds.observation import OBSERVED
from ironkettle.core.jobs.kinds.release import release_of
from ironkettle.core.jobs.kinds.strike import STRUCK
from ironkettle.core.jobs.kinds.tightening import TIGHTENED
from ironkettle.core.jobs.registry import apply_entry, fold, read_payload
from ironkettle.core.jobs.snapshot import from_snapshot, to_snapshot
from ironkettle.core.jobs.state import Mark, State
from ironkettle.core.jobs.task import Status
from tests.bench import START, TAMSIN, Job
from tests.laws import tried
from tests.tiny import sheet_of, unit


def through_text(state: State) -> State:
    return from_snapshot(json.loads(json.dumps(to_snapshot(state))))


@given(chance=st.randoms(use_true_random=False), key=st.sampled_from(["header-tank-valve", "swing-bridge-ram"]))
@tried(8)
def test_entry_by_entry_it_is_the_state_of_the_whole_log(chance: Any, key: str) -> None:
    job, kept = Job(sheet_of(unit(key)), intake=False), State()
    job.author = TAMSIN
    for _ in range(60):
        ready = [task for task in job.tasks() if task.status in {Status.NEXT, Status.OPEN, Status.DONE}]
        if not ready:
            break
        before = len(job.entries)
        task = chance.choice(ready)
        try:
            job.take(task)
        except Exception:  # what the rules refuse changes nothing
            continue
        for payload, mark in job.entries[before:]:
            apply_entry(kept, payload, mark)
        kept = through_text(kept)
        assert kept == fold(job.entries)


def test_what_was_seen_first_and_what_was_struck_out_come_through() -> None:
    job = Job(sheet_of(unit("swing-bridge-ram")))
    note: dict[str, Any] = {"kind": "observation_noted", "observation": "rod-leak", "when": "as_found", "value": "12"}
    entry = job.do(note)
    job.do(note | {"value": "3"})
    job.do({"kind": "entry_struck", "entry": entry, "reason": "read at the other ram"})
    job.do({"kind": "note_made", "text": "wet at the wiper"})
    state = through_text(job.state)
    assert state == job.state
    assert state.first(OBSERVED)["rod-leak", "as_found"].value.value == "3"
    assert [one.value.reason for one in state.book(STRUCK).values()] == ["read at the other ram"]


def test_a_released_and_reopened_job_comes_through() -> None:
    job = Job(sheet_of(unit("header-tank-valve")))
    job.walk()
    assert through_text(job.state) == job.state
    job.author = TAMSIN
    job.do({"kind": "reopened", "reason": "it drips again"})
    assert through_text(job.state) == job.state
    assert release_of(through_text(job.state)) is None


@pytest.mark.parametrize("document", [{}, {"books": {"steps": [["a", {}]]}, "first": {}, "runs": []}, {"books": 1}])
def test_what_is_no_snapshot_is_refused(document: dict[str, Any]) -> None:
    with pytest.raises((KeyError, ValueError, TypeError, AttributeError)):
        from_snapshot(document)


def test_readings_of_one_pass_that_came_one_by_one_are_kept_together() -> None:
    state = State()
    for seq, number in enumerate((1, 3, 2), start=1):
        payload = read_payload({
            "kind": "group_tightened", "group": "g", "phase": 0, "turn": 1, "wrench": "w",
            "readings": [{"number": number, "reading": "20 N·m"}],
        })  # fmt: skip
        apply_entry(state, payload, Mark(uuid.uuid4(), seq, "bede", START))
    assert [reading.number for reading in state.get(TIGHTENED, ("g", 0, 1)).readings] == [1, 3, 2]
    assert through_text(state) == state
