"""Laws of the log: every entry is taken or refused with a sentence, and striking takes back exactly its own effect."""

from __future__ import annotations

import uuid
from dataclasses import fields
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ironkettle.core.errors import RefusedError, RuleError
from ironkettle.core.jobs import Author, Entry, JobState, Stage, check_entry, job_state, stage_reports
from ironkettle.reference import fluids
from tests import walk
from tests.core.jobs.test_state import AUTHOR, BENCH, FULL, INTAKE, READ, SHEET, entries

LEAD = Author("tamsin", "Tamsin Orrell", True)
PAYLOADS = [INTAKE, *walk.payloads(), walk.RELEASE, {"kind": "reopened", "reason": "leaks again"}]


def without_marks(state: JobState) -> dict[str, Any]:
    """A state without what only tells how it was written."""
    return {f.name: getattr(state, f.name) for f in fields(state) if f.name not in {"struck", "count"}}


@settings(max_examples=150)
@given(count=st.integers(0, len(FULL)), payload=st.sampled_from(PAYLOADS), author=st.sampled_from([AUTHOR, LEAD]))
def test_any_entry_at_any_moment_is_taken_or_refused_with_a_sentence(
    count: int, payload: dict[str, Any], author: Author
) -> None:
    assert all(refusal(payload, FULL[:count], author))


def refusal(payload: dict[str, Any], log: list[Entry], author: Author) -> list[str]:
    """What a refusal consists of, each to be a sentence or a name; nothing when the entry is taken."""
    try:
        check_entry(SHEET, log, READ.validate_python(payload), author, BENCH)
    except RuleError as error:
        return [text for fault in error.faults for text in (fault.field, fault.message)] or [""]
    except RefusedError as error:
        return [error.code, str(error)]
    return []


@settings(max_examples=60)
@given(place=st.integers(1, len(FULL) - 1))
def test_striking_an_entry_is_as_if_it_had_never_been(place: int) -> None:
    target = FULL[place]
    strike = entries([{"kind": "entry_struck", "entry": str(target.id), "reason": "a mistake"}])[0]
    struck = job_state(SHEET, [*FULL, strike.model_copy(update={"id": uuid.uuid4(), "seq": len(FULL) + 1})])
    never = job_state(SHEET, [entry for entry in FULL if entry.id != target.id])
    assert without_marks(struck) == without_marks(never)
    assert set(struck.struck) == {target.id}


def test_work_in_order_never_reopens_a_stage_and_counts_upwards() -> None:
    before = dict.fromkeys(Stage, 0)
    closed: set[Stage] = set()
    for count in range(1, len(FULL) + 1):
        for report in stage_reports(SHEET, job_state(SHEET, FULL[:count]), fluids()):
            assert 0 <= report.done <= report.total
            assert report.done >= before[report.stage], (report.stage, count)
            assert (report.status == "done") == (not report.needs)
            before[report.stage] = report.done
            if report.status == "done":
                closed.add(report.stage)
            else:
                assert report.stage not in closed, f"{report.stage} opened again at entry {count}"


@pytest.mark.parametrize("stage", [s for s in Stage if s not in {Stage.INTAKE, Stage.RELEASE}])
def test_every_stage_may_be_passed_over_with_a_reason_and_release_then_waits_for_the_rest(stage: Stage) -> None:
    skip = {"kind": "stage_skipped", "stage": stage.value, "reason": "asked for by the customer"}
    log = entries([INTAKE, skip])
    check_entry(SHEET, log[:1], log[1].payload, AUTHOR, BENCH)
    reports = {r.stage: r.status for r in stage_reports(SHEET, job_state(SHEET, log), fluids())}
    assert reports[stage] == "skipped"
    with pytest.raises(RefusedError, match="not ready for release"):
        check_entry(SHEET, log, READ.validate_python(walk.RELEASE), LEAD, BENCH)


def test_a_job_passed_over_whole_can_be_released_by_name_only() -> None:
    skips = [
        {"kind": "stage_skipped", "stage": s.value, "reason": "scrapped by the customer"}
        for s in Stage
        if s not in {Stage.INTAKE, Stage.RELEASE}
    ]
    log: list[Entry] = entries([INTAKE, *skips])
    with pytest.raises(RefusedError, match="may not release"):
        check_entry(SHEET, log, READ.validate_python(walk.RELEASE), AUTHOR, BENCH)
    check_entry(SHEET, log, READ.validate_python(walk.RELEASE), LEAD, BENCH)


def test_after_release_only_a_reopening_is_taken() -> None:
    released = entries([INTAKE, walk.RELEASE])
    for payload in PAYLOADS[:-1]:
        with pytest.raises(RefusedError, match="reopen it with a reason first"):
            check_entry(SHEET, released, READ.validate_python(payload), LEAD, BENCH)
    check_entry(SHEET, released, READ.validate_python(PAYLOADS[-1]), LEAD, BENCH)
