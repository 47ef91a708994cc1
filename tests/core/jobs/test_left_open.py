"""A question that is not optional is answered by somebody: at every task of every unit, an entry that leaves one open is refused."""

from __future__ import annotations

import copy
from typing import Any

import pytest
from pydantic import ValidationError

from ironkettle.core.base.errors import RefusedError, RuleError
from ironkettle.core.jobs.registry import payload_words
from tests.bench import Job, filled
from tests.tiny import UNITS, sheet_of, unit

EVERY = sorted(path.stem for path in UNITS.glob("*.yaml"))


def without(document: dict[str, Any], path: str) -> dict[str, Any]:
    """A copy of an entry in which nothing stands at a dotted path."""
    copied = copy.deepcopy(document)
    *way, last = path.split(".")
    at: Any = copied
    for name in way:
        at = at[int(name)] if isinstance(at, list) else at[name]
    if isinstance(at, list):
        at[int(last)] = None
    else:
        at.pop(last)
    return copied


@pytest.mark.parametrize("key", EVERY)
def test_what_is_asked_and_left_open_is_refused(key: str) -> None:
    job = Job(sheet_of(unit(key)))
    left_open = 0
    while (task := job.next()) is not None:
        full = filled(task)
        for ask in task.asks:
            # A run is taken as it was read, and judged: what is missing in it is no pass.
            if ask.optional or full["kind"] == "test_run":
                continue
            with pytest.raises((RuleError, RefusedError, ValidationError)):
                job.do(without(full, ask.field))
            left_open += 1
        job.take(task)
    assert left_open > 5
    assert job.task("sign").status.value == "done"


@pytest.mark.parametrize("signs", [[], ["none", "hard_cracked"]])
def test_a_find_says_what_was_seen_and_not_none_beside_a_sign(signs: list[str]) -> None:
    job = Job(sheet_of(unit("swing-bridge-ram")))
    job.walk(until=lambda task: task.key == "find:rod-lip")
    with pytest.raises(RuleError) as caught:
        job.do(filled(job.task("find:rod-lip"), signs=signs))
    assert [fault.field for fault in caught.value.faults] == ["signs"]


@pytest.mark.parametrize("seen", [[], ["none", "scored"]])
def test_a_look_says_what_was_seen_and_not_as_it_should_be_beside_a_sign(seen: list[str]) -> None:
    job = Job(sheet_of(unit("needle-scaler")))
    job.walk(until=lambda task: task.key == "measure:barrel")
    with pytest.raises(RuleError) as caught:
        job.do(filled(job.task("measure:barrel")) | {"points": [{"point": "bore", "seen": seen}]})
    assert caught.value.faults[0].field == "points.0.seen"


def test_counts_stand_in_the_log_with_their_seconds() -> None:
    job = Job(sheet_of(unit("dosing-motor")))
    job.walk(until=lambda task: task.key == "test:strokes:as_left")
    job.take(job.task("test:strokes:as_left"))
    assert "counts 8 at 15 s, 8 at 30 s" in payload_words(job.resolved, job.entries[-1][0])


def test_nothing_is_off_centre_on_a_seal_that_has_nothing_off_centre() -> None:
    job = Job(sheet_of(unit("swing-bridge-ram")))
    job.walk(until=lambda task: task.key == "fit:rod-lip")
    with pytest.raises(RuleError) as caught:
        job.do(filled(job.task("fit:rod-lip")) | {"offset": "as_must"})
    assert [fault.field for fault in caught.value.faults] == ["offset"]
