"""Units of no shop, written from the guide alone: sound, worked to their release, and each told by its place."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import pytest

from ironkettle.core.jobs.kinds.release import RELEASED
from ironkettle.core.jobs.task import Status
from ironkettle.core.sheets.document.text import read_document
from ironkettle.core.sheets.soundness.check import check_document
from tests.bench import Job
from tests.tiny import TABLES, faults, plug, sheet_of

UNSEEN = Path(__file__).resolve().parents[2] / "data/unseen"


def document(key: str) -> dict[str, Any]:
    return read_document((UNSEEN / f"{key}.yaml").read_text(encoding="utf-8"))


@pytest.mark.parametrize("key", ["drain-cocks", "winch-relief-valve"])
def test_it_is_sound_and_comes_to_its_release(key: str) -> None:
    found = check_document(document(key), TABLES)
    assert found.faults == []
    assert all(found.proof.parting.values())
    job = Job(sheet_of(document(key)))
    job.walk()
    assert job.state.has(RELEASED, "released")


def test_what_is_there_twice_is_told_by_its_place() -> None:
    job = Job(sheet_of(document("drain-cocks")))
    texts = {task.key: task.text for task in job.tasks()}
    assert texts["find:disc@1"] == "Seat disc, cock 1: as it came off"
    assert texts["fit:disc@2"].startswith("Fit the seat disc, cock 2: ")
    assert texts["step:first-cap-on@2"].endswith("spring on the stem (cock 2)")
    # The lever of the other cock is not at hand.
    leave = [words for words in job.task("step:pin-out@1").delicate if "leave on" in words]
    assert leave == ["Lever, cock 1: leave on, it stays on the tank's bracket and only swings aside"]


def test_work_that_comes_first_is_a_task_before_the_fits() -> None:
    job = Job(sheet_of(document("drain-cocks")))
    job.walk(until=lambda task: task.key == "step:first-cap-on@1")
    first = job.task("step:first-cap-on@1")
    assert first.text == "Lever held aside, seat brushed once more, spring on the stem (cock 1)"
    assert first.tools == ("seat brush",)
    assert job.task("fit:disc@1").blocked_by == (first.text,)
    assert job.task("step:cap-on@1").status is Status.BLOCKED
    job.take(first)
    assert job.next().key == "fit:disc@1"  # type: ignore[union-attr]


def put_in_first(**first: Any) -> dict[str, Any]:
    return plug(steps__3__first={"takes": ["body"], "does": "Body turned over", **first})


def test_what_comes_first_may_handle_what_stays_and_put_on_what_nobody_does() -> None:
    job = Job(sheet_of(put_in_first()))
    job.walk(until=lambda task: task.key == "step:first-in")
    assert job.task("step:first-in").place == "body"
    assert job.task("fit:ring").blocked_by == ("Body turned over",)
    # A cap that no other step puts on goes on there, and is back in the tray's account.
    document = put_in_first(takes=["cap"], does="Cap on from behind")
    document["parts"].append({"key": "cap", "name": "Cap", "material": "steel"})
    document["steps"][1]["takes_off"] = ["plug", "cap"]
    assert check_document(document, TABLES).faults == []
    job = Job(sheet_of(document))
    job.walk(until=lambda task: task.key == "step:first-in")
    assert [step.puts_on for step in job.resolved.sheet.steps if step.stage == "rebuild"] == [["cap"], ["plug"]]


def test_its_text_is_needed_and_its_order_is_that_of_the_sheet() -> None:
    assert [fault.field for fault in faults(steps__3__first={"takes": ["body"]})] == ["steps.3.first.does"]
    late = plug(steps__3__first={"takes": [], "does": "Body turned over"}, steps__3__after=["in"])
    (found,) = check_document(late, TABLES).faults
    assert found.field == "steps.3.after"


def test_what_is_nearly_a_part_is_no_tool() -> None:
    """Words are tools; a slip of the pen is asked about."""
    (found,) = faults(steps__3__first={"takes": ["boddy"], "does": "Body turned over"})
    assert (found.field, found.accepts) == ("steps.3.first.takes.0", ("body",))
    assert faults(steps__3__first={"takes": ["hook spanner"], "does": "Body turned over"}) == []
