"""The shelf at the kit, at a size and at what is short; what a job takes of it. Stock and expectations made up by hand."""

from __future__ import annotations

from typing import Any

import pytest

from ironkettle.core.base.errors import RuleError
from ironkettle.core.jobs.case import OnShelf
from ironkettle.core.jobs.drawn_stock import taken
from ironkettle.core.jobs.shelf import for_ring, shelf_words
from tests.bench import Job
from tests.tiny import plug, sheet_of, unit

KIT = OnShelf("k", "kit", "kit", 2, "shelf 5", "T-1")
RING = OnShelf("r", "O-ring", "o_ring", 3, "ring box 1", "metric 16x2.5", compound="NBR")


def job_with(*shelf: OnShelf, **changes: Any) -> Job:
    job = Job(sheet_of(plug(**changes)))
    job.shelf = shelf
    return job


def test_seals_are_told_by_kind_and_size() -> None:
    job = Job(sheet_of(unit("swing-bridge-ram")))
    job.shelf = (
        OnShelf("s", "lip seal", "lip_seal", 6, "drawer 12", three=(28.0, 38.0, 6.3)),
        OnShelf("w", "wiper", "wiper", 9, "drawer 1", three=(50.0, 40.0, 8.0)),
    )
    hints = {ask.label: ask.hint for ask in job.task("count:FN-K-5028").asks}
    assert hints["rod lip seal 28 × 38 × 6.3: 1 needed"] == "on the shelf: 6 in drawer 12"
    # Another kind of the same size is another seal.
    assert hints["piston lip seal 50 × 40 × 8: 2 needed"] is None


def test_the_kit_itself_and_its_rings_are_told() -> None:
    task = job_with(KIT, RING).task("count:T-1")
    assert task.shows == "on the shelf: 2 in shelf 5"
    assert task.asks[0].hint == "on the shelf: 3 in ring box 1"


@pytest.mark.parametrize(
    ("written", "found"),
    [("metric 16x2.5", True), ("METRIC 16 × 2.5", True), ("metric-16x2.5", True), ("metric 16x2", False)],
)
def test_a_ring_is_known_however_it_is_written(written: str, found: bool) -> None:
    assert (for_ring([RING], written, None) is not None) is found


def test_a_ring_of_another_compound_is_another_ring() -> None:
    assert for_ring([RING], "metric 16x2.5", "FKM") is None
    assert for_ring([RING], "metric 16x2.5", "nbr") is RING


def test_of_two_places_the_fuller_is_told_and_an_empty_one_says_so() -> None:
    few = OnShelf("f", "O-ring", "o_ring", 0, "ring box 9", "metric 16x2.5")
    assert for_ring([few, RING], "metric 16x2.5", None) is RING
    assert shelf_words(few) == "none on the shelf (ring box 9)"
    assert shelf_words(None) is None


def test_a_ring_to_be_found_says_what_the_shelf_has_of_each_size() -> None:
    job = job_with(
        OnShelf("o", "O-ring", "o_ring", 4, "ring box 2", "ISO 3601 16x2.65"),
        stations__0__seats__0__elements__0__ring=None,
        stations__0__seats__0__elements__0__identify=True,
        kits=None,
    )
    signs = {choice.key: choice.sign or "" for choice in job.task("identify:ring").asks[0].choices}
    assert any("on the shelf: 4 in ring box 2" in sign for key, sign in signs.items() if key == "ISO 3601 16x2.65")
    assert not any("shelf" in sign for key, sign in signs.items() if key != "ISO 3601 16x2.65")


def short_job(*shelf: OnShelf) -> Job:
    job = job_with(*shelf)
    job.do({"kind": "kit_counted", "kit": "T-1", "lines": [{"line": "k-ring", "counted": 0, "used": True}]})
    return job


def test_what_is_short_comes_off_the_shelf_without_an_order() -> None:
    job = short_job(RING)
    keys = [task.key for task in job.tasks()]
    assert "order:k-ring" not in keys
    task = job.task("receive:k-ring")
    assert task.text == "Take from stock: O-ring 16 × 2.5, 1 missing"
    assert [choice.key for choice in task.asks[1].choices] == ["shelf", "delivery"]
    job.do({"kind": "part_arrived", "what": "k-ring", "counted": 1, "source": "shelf"})
    assert job.task("receive:k-ring").status.value == "done"
    assert taken(job.case()) == {"r": 1}


def test_what_the_shelf_lacks_is_ordered_and_not_taken_from_it() -> None:
    empty = OnShelf("r", "O-ring", "o_ring", 0, "ring box 1", "metric 16x2.5")
    job = short_job(empty)
    assert job.task("order:k-ring").shows == "none on the shelf (ring box 1)"
    job.do({"kind": "part_ordered", "what": "k-ring"})
    with pytest.raises(RuleError, match="none on the shelf") as refused:
        job.do({"kind": "part_arrived", "what": "k-ring", "counted": 1, "source": "shelf"})
    assert refused.value.faults[0].field == "source"
    job.do({"kind": "part_arrived", "what": "k-ring", "counted": 1})
    assert taken(job.case()) == {}


def test_a_kit_is_taken_whole_and_what_is_in_none_by_itself() -> None:
    line = {"key": "k-oil", "name": "oil can", "consumable": True, "count": 2, "not_in_kit": True}
    can = OnShelf("can", "Oil can", "part", 9, "cupboard")
    job = job_with(KIT, RING, can, kits__0__lines__append=line)
    lines = [{"line": "k-ring", "counted": 1, "used": True}, {"line": "k-oil", "counted": 3, "used": True}]
    job.do({"kind": "kit_counted", "kit": "T-1", "lines": lines})
    # The kit, and of the cans no more than are needed; the ring came with the kit.
    assert taken(job.case()) == {"k": 1, "can": 2}
    without = job_with(RING, can, kits__0__lines__append=line)
    without.do({"kind": "kit_counted", "kit": "T-1", "lines": lines})
    assert taken(without.case()) == {"r": 1, "can": 2}


def test_a_ring_on_no_kit_is_taken_when_it_is_fitted() -> None:
    job = job_with(RING, kits=None)
    assert taken(job.case()) == {}
    job.walk(until=lambda task: task.key == "step:in")
    assert taken(job.case()) == {"r": 1}
