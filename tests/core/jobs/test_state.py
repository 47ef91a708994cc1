"""State, stages and seal of a job, on the pure function alone."""

from __future__ import annotations

import uuid
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import TypeAdapter

import ironkettle.demo
from ironkettle.core.buildsheets import read_sheet
from ironkettle.core.errors import RefusedError, RuleError
from ironkettle.core.jobs import (
    FIRST_LINK,
    Author,
    Bench,
    Entry,
    Payload,
    Sealed,
    Stage,
    check_chain,
    check_entry,
    job_state,
    link_of,
    next_stage,
    stage_reports,
)
from ironkettle.reference import fluids, ring_table
from tests import walk

SHEET = read_sheet((Path(ironkettle.demo.__file__).parent / "sheets/swing_bridge_ram.yaml").read_text(encoding="utf-8"))
BENCH = Bench(ring_table(), fluids())
AUTHOR = Author("bede", "Bede Harrowgate", False)
READ: TypeAdapter[Payload] = TypeAdapter(Payload)
INTAKE = {
    "kind": "intake_recorded",
    "unit": "ram",
    "serial": "FN-1",
    "customer": "bridges",
    "complaint": "leaks",
    "fluid": "mineral oil ISO VG 46",
    "pressure": "180 bar",
}
START = datetime(2026, 11, 24, 9, tzinfo=UTC)
JOB = uuid.UUID(int=1)


def entries(payloads: list[dict[str, Any]]) -> list[Entry]:
    return [
        Entry(
            id=uuid.UUID(int=100 + i),
            seq=i + 1,
            who="bede",
            bench_time=START + timedelta(minutes=i),
            server_time=START + timedelta(minutes=i),
            payload=READ.validate_python(payload),
        )
        for i, payload in enumerate(payloads)
    ]


FULL = entries([INTAKE, *walk.payloads()])


def status(log: list[Entry]) -> dict[Stage, str]:
    return {r.stage: r.status for r in stage_reports(SHEET, job_state(SHEET, log), fluids())}


def test_stages_close_one_after_the_other() -> None:
    seen = []
    for count in range(1, len(FULL) + 1):
        stage = next_stage(stage_reports(SHEET, job_state(SHEET, FULL[:count]), fluids()))
        if stage not in seen:
            seen.append(stage)
    assert seen == [s for s in Stage if s is not Stage.INTAKE]


@settings(max_examples=30, deadline=None)
@given(count=st.integers(1, len(FULL)))
def test_the_state_is_a_function_of_the_log_alone(count: int) -> None:
    assert job_state(SHEET, FULL[:count]) == job_state(SHEET, iter(FULL[:count]))


def test_every_entry_of_the_walk_is_allowed_in_order() -> None:
    for count in range(1, len(FULL)):
        check_entry(SHEET, FULL[:count], FULL[count].payload, AUTHOR, BENCH)


def test_as_found_is_never_overwritten_by_as_left() -> None:
    state = job_state(SHEET, FULL)
    assert state.observations[("rod-leak", "as_found")].value.value == "12"
    assert state.observations[("rod-leak", "as_left")].value.value == "0"
    assert state.faced_as_found()["rod-lip"] == "outside"


def test_a_struck_entry_counts_no_more_whatever_came_between() -> None:
    target = next(entry for entry in FULL if entry.payload.kind == "ring_chosen")
    strike = entries([{"kind": "entry_struck", "entry": str(target.id), "reason": "wrong ring read"}])[0]
    log = [*FULL, strike.model_copy(update={"id": uuid.uuid4(), "seq": len(FULL) + 1})]
    assert job_state(SHEET, log).rings == {}
    assert status(log)[Stage.MATCH] == "open"


def test_a_short_kit_stays_open_until_the_rest_is_ordered() -> None:
    def with_count(**fields: object) -> str:
        extra = entries([{"kind": "kit_counted", "line": "k-nut", "counted": 0, **fields}])
        return status([*FULL, *extra])[Stage.KIT]

    assert with_count() == "open"
    assert with_count(ordered=True) == "done"
    both = entries([{"kind": "kit_counted", "line": "k-wire-plain", "counted": 1}])
    assert status([*FULL, *both])[Stage.KIT] == "open"


def test_a_reading_outside_the_range_reopens_tightening() -> None:
    loose = entries([walk.tightened("port-flange", 2, 3, "18 N·m", walk.SMALL)])
    reports = stage_reports(SHEET, job_state(SHEET, [*FULL, *loose]), fluids())
    needs = next(r.needs for r in reports if r.stage is Stage.TIGHTEN)
    assert "number 3 read 18 N·m, outside 21 N·m to 25 N·m" in needs[0].text


def test_a_stage_passed_over_needs_a_reason_and_is_named() -> None:
    skip = entries([INTAKE, {"kind": "stage_skipped", "stage": "match", "reason": "size stamped on the bag"}])
    assert status(skip)[Stage.MATCH] == "skipped"


def refuse(payload: dict[str, Any], log: list[Entry] | None = None, author: Author = AUTHOR) -> str:
    with pytest.raises((RuleError, RefusedError)) as caught:
        check_entry(SHEET, FULL if log is None else log, READ.validate_python(payload), author, BENCH)
    return str(caught.value)


def test_what_the_state_forbids() -> None:
    assert "first entry of a job is its intake" in refuse({"kind": "step_done", "step": "isolate"}, [])
    assert "may not release" in refuse(walk.RELEASE)
    early = entries([INTAKE])
    assert "not ready for release" in refuse(walk.RELEASE, early, Author("t", "T", True))
    assert "not released" in refuse({"kind": "reopened", "reason": "because of"})
    assert "write down" in refuse({"kind": "step_done", "step": "drain"})
    assert "choose the size" in refuse({"kind": "element_fitted", "element": "gland-ring"}, early)
    assert "which side did it face" in refuse({"kind": "element_found", "element": "rod-lip", "present": True})
    assert "never reused" in refuse(
        {"kind": "element_found", "element": "rod-lip", "present": True, "faced": "rod_side", "tray": "reuse"}
    )
    assert "faced nothing" in refuse(
        {"kind": "element_found", "element": "rod-lip", "present": False, "faced": "rod_side"}
    )
    assert "not beside this station" in refuse(
        {"kind": "element_found", "element": "rod-lip", "present": True, "faced": "cap_side"}
    )
    run = walk.RUNS["rod-side-hold"]
    assert "is closed" in refuse({"kind": "test_samples", "run": run, "samples": [{"t_s": 999, "pressure_mpa": 1}]})
    assert "cannot be passed over" in refuse({"kind": "stage_skipped", "stage": "release", "reason": "no time left"})
    assert "no such entry" in refuse({"kind": "entry_struck", "entry": str(uuid.uuid4()), "reason": "mistake"})
    assert "corrected intake first" in refuse({"kind": "entry_struck", "entry": str(FULL[0].id), "reason": "mistake"})


def test_a_gauge_that_does_not_reach_is_refused() -> None:
    gauge = {**walk.GAUGE, "range": "100 bar"}
    payload = {
        "kind": "test_started",
        "test": "rod-side-hold",
        "run": str(uuid.uuid4()),
        "gauge": gauge,
        "source": "typed",
    }
    assert "does not reach the test pressure" in refuse(payload)


def sealed(log: list[Entry]) -> tuple[list[Sealed], str]:
    links, previous = [], FIRST_LINK
    for entry in log:
        link = Sealed(entry, previous, link_of(previous, JOB, entry))
        links.append(link)
        previous = link.hash
    return links, previous


def test_the_seal_shows_change_removal_and_cutting_off() -> None:
    links, head = sealed(FULL)
    assert check_chain(JOB, links, head) == []
    changed = links[:]
    payload = READ.validate_python({"kind": "note_made", "stage": "test", "text": "forged"})
    changed[5] = Sealed(links[5].entry.model_copy(update={"payload": payload}), links[5].previous, links[5].hash)
    assert [b.seq for b in check_chain(JOB, changed, head)] == [6]
    assert any("missing" in b.reason for b in check_chain(JOB, links[:3] + links[4:], head))
    assert any("at the end" in b.reason for b in check_chain(JOB, links[:-1], head))
    assert check_chain(uuid.UUID(int=2), links, head)
