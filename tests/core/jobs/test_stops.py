"""What is marked as a stop stops: threads that are overloaded, figures that cannot be, counts that are none."""

from __future__ import annotations

from typing import Any

import pytest

from ironkettle.core.base.errors import RuleError
from ironkettle.core.jobs import compose_statement
from ironkettle.core.jobs.kinds.tightening import place_of
from ironkettle.core.jobs.runs import WrenchUsed
from ironkettle.core.jobs.torque_plan import DoneWith, torque_plan
from ironkettle.core.sheets.document.text import read_document
from ironkettle.core.sheets.soundness.check import check_document
from tests.bench import Job, filled
from tests.tiny import TABLES, UNITS, plug, sheet_of, unit

EVERY = sorted(path.stem for path in UNITS.glob("*.yaml"))
SHOP = {
    one["key"]: WrenchUsed(**{name: one[name] for name in ("name", "low", "high", "accuracy_pct")})
    for one in read_document((UNITS.parent / "workshop.yaml").read_text(encoding="utf-8"))["wrenches"]
}


@pytest.mark.parametrize("key", EVERY)
def test_no_task_of_a_shipped_sheet_proposes_what_its_plan_stops(key: str) -> None:
    """With the wrench that stands first of the demo's, every pass of every group."""
    job = Job(sheet_of(unit(key)))
    job.wrenches = SHOP
    for task in job.tasks():
        wrench = next((ask for ask in task.asks if ask.field == "wrench"), None)
        if wrench is None:
            continue
        index, turn = place_of(task)
        first = SHOP[wrench.choices[0].key]
        plan = torque_plan(job.case(), task.subject, index, DoneWith(wrench=first), turn)
        assert plan is not None
        assert [finding.message for finding in plan.findings if finding.severity == "reject"] == [], task.key


# M8 of class 8.8: As = 36.6 mm², 580 MPa, so 21.2 kN; at 33 N·m and K = 0.13: 31.7 kN, 149 %.
BOLTS = {
    "key": "bolts", "name": "Bolts", "count": 4, "layout": "rectangle", "thread": "M8", "condition": "light oil",
    "phases": [{"to": "torque", "low": "30 N·m", "high": "33 N·m"}],
}  # fmt: skip


def test_a_sheet_whose_own_torque_overloads_its_thread_is_refused() -> None:
    (found,) = check_document(plug(fasteners=[{**BOLTS, "grade": "8.8"}]), TABLES).faults
    assert found.field == "fasteners.0.phases.0"
    assert "149 % of proof load" in found.message
    assert check_document(plug(fasteners=[{**BOLTS, "grade": "12.9"}]), TABLES).faults == []
    # An everyday word for the condition is known; another is asked about.
    assert check_document(plug(fasteners=[{**BOLTS, "grade": "12.9", "condition": "oiled"}]), TABLES).faults == []
    (unknown,) = check_document(plug(fasteners=[{**BOLTS, "grade": "12.9", "condition": "honey"}]), TABLES).faults
    assert unknown.field == "fasteners.0.condition"


def noted(limit: str) -> Job:
    """A sheet whose torque stands in a manual: read at a step, tightened at a later one."""
    group = {**BOLTS, "grade": "8.8", "phases": [{"to": "torque", "noted_at": "wash", "tolerance_pct": 5}]}
    document = plug(
        fasteners=[group],
        steps__2__note={"ask": "Torque of the bolts by the manual", "read": "torque", "limit": limit},
        steps__3__tightens=["bolts"],
    )
    job = Job(sheet_of(document))
    job.walk(until=lambda task: task.key == "step:wash")
    return job


def test_a_figure_from_a_manual_is_held_against_the_thread_where_it_is_written_down() -> None:
    job = noted("5 N·m to 300 N·m")
    with pytest.raises(RuleError, match="of proof load") as caught:
        job.do({"kind": "step_done", "step": "wash", "note": "33 N·m"})
    assert caught.value.code == "too-tight"
    assert caught.value.faults[0].field == "note"
    job.do({"kind": "step_done", "step": "wash", "note": "18 N·m"})


def test_a_reading_over_the_proof_load_is_too_tight_whatever_the_range_says() -> None:
    """A sheet from before the rule, with a range that overloads its thread."""
    job = Job(sheet_of(plug(fasteners=[{**BOLTS, "grade": "8.8"}], steps__3__tightens=["bolts"])))
    job.walk(until=lambda task: task.kind.key == "tighten")
    task = job.next()
    assert task is not None
    with pytest.raises(RuleError, match="of proof load") as caught:
        job.do(filled(task))
    assert caught.value.code == "too-tight"
    assert caught.value.faults[0].field == "readings.0.reading"


def read_at(step: int, **changes: Any) -> Job:
    note = {"ask": "Turns of the screw until slack", "read": "number", "limit": "2 to 8"}
    job = Job(sheet_of(plug(**{f"steps__{step}__note": note}, **changes)))
    key = job.resolved.sheet.steps[step].key
    job.walk(until=lambda task: task.key == f"step:{key}")
    return job


def test_a_figure_outside_its_limit_is_asked_about_and_stands_on_the_certificate() -> None:
    job = read_at(1)
    task = job.next()
    assert task is not None
    assert next(ask for ask in task.asks if ask.field == "against").optional
    with pytest.raises(RuleError, match=r"0 is not 2 to 8.*or give the reason") as caught:
        job.do(filled(task, note="0"))
    assert caught.value.code == "out-of-limits"
    job.do(filled(task, note="9", against="somebody had shortened the spring"))
    job.walk(until=lambda one: one.key == "sign")
    told = compose_statement(job.case(), job.tasks())
    assert "Turns of the screw until slack: 9, outside 2 to 8; somebody had shortened the spring." in told


@pytest.mark.parametrize("step", [0, 3])
def test_no_reason_helps_where_it_is_made_safe_or_put_together(step: int) -> None:
    job = read_at(step)
    task = job.next()
    assert task is not None
    assert "against" not in {ask.field for ask in task.asks}
    with pytest.raises(RuleError, match="is not 2 to 8") as caught:
        job.do(filled(task, note="0", against="somebody had shortened the spring"))
    assert caught.value.code == "out-of-limits"


@pytest.mark.parametrize("count", ["1.5", "-1", "20"])
def test_half_a_needle_is_none(count: str) -> None:
    job = Job(sheet_of(unit("needle-scaler")))
    job.walk(until=lambda task: task.key == "measure:needles")
    task = job.next()
    assert task is not None
    with pytest.raises(RuleError, match=r"is no count|is below 0") as caught:
        job.do(filled(task, **{"points.0.values.0": count}))
    assert caught.value.faults[0].field == "points.0.values.0"
    job.do(filled(task, **{"points.0.values.0": "2"}))


def test_a_wrench_too_coarse_for_the_range_needs_a_reason_and_stands_on_the_certificate() -> None:
    """±4 % of 20 N·m is ±0.8 N·m: no setting of it stays within 19.8 to 20.2 N·m."""
    narrow = {**BOLTS, "phases": [{"to": "torque", "low": "19.8 N·m", "high": "20.2 N·m"}]}
    job = Job(sheet_of(plug(fasteners=[narrow], steps__3__tightens=["bolts"])))
    job.wrenches = {"w2-middle": SHOP["w2-middle"]}
    job.walk(until=lambda task: task.kind.key == "tighten")
    while (task := job.next()) is not None and task.kind.key == "tighten":
        asked = next(ask for ask in task.asks if ask.field == "overdue")
        assert not asked.optional
        with pytest.raises(RuleError, match=r"±4 %, cannot hold .* use another, or give the reason") as caught:
            job.do(filled(task, overdue="tight"))
        assert caught.value.faults[0].field == "overdue"
        job.do(filled(task, overdue="the finer one is being calibrated"))
    told = compose_statement(job.case(), job.tasks())
    assert any(
        line.startswith("Bolts: Middle click wrench, ±4 %, cannot hold 19.8 to 20.2 N·m; the finer one")
        for line in told
    )
