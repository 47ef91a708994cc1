"""A made-up kind of test in one module, with its figures in a sheet: asked, planned, judged, logged, and told on the certificate."""

from __future__ import annotations

from typing import Annotated, Literal

import pytest
from pydantic import Field

from ironkettle.core.base.quantities import Dimension
from ironkettle.core.jobs import compose_statement
from ironkettle.core.jobs.figure_tests import written_figures
from ironkettle.core.jobs.registry import payload_words
from ironkettle.core.jobs.task import Status
from ironkettle.core.jobs.test_forms import FiguresScreen
from ironkettle.core.machine.tests import (
    TRIALS,
    Criteria,
    Curve,
    Instrument,
    Outcome,
    Record,
    Result,
    Trial,
    TrialPlan,
    Wanted,
)
from ironkettle.core.sheets.document.sheet import Sheet
from ironkettle.core.sheets.document.trials import _Test
from tests.bench import Job
from tests.tiny import PLUG

# --- the made-up kind: how long a drop of oil takes to run down the plug, in s -------------------------------------


class DropCriteria(Criteria):
    slowest_s: float


class DropRecord(Record):
    took_s: Annotated[float, Field(gt=0)]


def _analyse(criteria: DropCriteria, record: DropRecord, instrument: Instrument) -> Outcome:
    verdict: Literal["pass", "fail"] = "pass" if record.took_s <= criteria.slowest_s else "fail"
    run = Result("took", "Ran down in", record.took_s, "s", None, None, (None, criteria.slowest_s), verdict)
    return Outcome(verdict, (run,), (), Curve("time", "s", "drop", "mm", ((0, 0), (record.took_s, 60))))


DROP = Trial(
    "drop", "Running drop", DropCriteria, DropRecord,
    wanted=lambda criteria: (Wanted("took_s", "number", "Seconds it took", "s", (0.5, criteria.slowest_s)),),
    plan=lambda criteria, instrument: TrialPlan(("Put a drop on", "Start the clock"), None, None, "Beside it", "It drips"),
    analyse=_analyse,
    says=lambda criteria: f"within {criteria.slowest_s:g} s",
)  # fmt: skip


class DropTest(_Test):
    kind: Literal["drop"] = "drop"
    slowest_s: float


# -------------------------------------------------------------------------------------------------------------------


@pytest.fixture
def dropping(monkeypatch: pytest.MonkeyPatch) -> Job:
    """A job on a sheet that asks for it, walked until it is next."""
    monkeypatch.setitem(TRIALS, "drop", DROP)
    plain = Sheet.model_validate({**PLUG, "tests": []})
    spec = DropTest(key="run-down", name="Drop runs down", slowest_s=8)
    job = Job(plain.model_copy(update={"tests": [spec]}))
    job.walk(until=lambda task: task.kind.key == "test")
    return job


def test_it_is_asked_with_its_plan_on_the_screen_of_figures(dropping: Job) -> None:
    task = dropping.next()
    assert task is not None
    assert [(ask.field, ask.label, ask.unit) for ask in task.asks if "record" in ask.field] == [
        ("record.took_s", "Seconds it took", "s")
    ]
    screen = task.kind.screen(dropping.case(), task)
    assert isinstance(screen, FiguresScreen)
    assert (screen.word, screen.says, screen.steps) == (
        "Running drop",
        "within 8 s",
        ["Put a drop on", "Start the clock"],
    )
    assert (screen.stand, screen.caution, screen.on_gauge) == ("Beside it", "It drips", False)
    assert dropping.task("sign").status is Status.BLOCKED


def run(took: float) -> dict[str, object]:
    return {"kind": "test_run", "test": "run-down", "when": "as_left", "record": {"took_s": took}}


def test_it_is_judged_logged_and_told(dropping: Job) -> None:
    dropping.do(run(12.5))
    (failed,) = dropping.state.runs.values()
    assert failed.judgement is not None
    assert (failed.judgement.verdict, failed.judgement.limit) == ("fail", "within 8 s")
    assert [(result.name, result.shown) for result in failed.judgement.results] == [("Ran down in", "12.5 s")]
    payload, _ = dropping.entries[-1]
    assert "took s 12.5" in payload_words(dropping.resolved, payload)
    told = compose_statement(dropping.case(), dropping.tasks())
    assert any("Drop runs down" in one and "fail" in one for one in told), told
    dropping.do(run(6.0))
    assert [one.judgement.verdict for one in dropping.state.runs.values() if one.judgement] == ["fail", "pass"]
    assert dropping.task("test:run-down:as_left").status is Status.DONE


def test_its_curve_and_its_figures_are_its_own(dropping: Job) -> None:
    test = dropping.resolved.figure_tests["run-down"]
    curve = test.outcome({"took_s": 6.0}, None).curve
    assert curve is not None
    assert curve.points[-1] == (6.0, 60)
    assert written_figures(dropping.resolved.sheet.tests[0]) == "Drop runs down: "
    assert Dimension.PRESSURE is not test.plan(None).dimension
