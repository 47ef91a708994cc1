"""What a certificate may claim: only what the log shows, and beside it whatever was not done."""

from __future__ import annotations

from datetime import date
from typing import Any

import pytest

from ironkettle.core.jobs.runs import GaugeUsed, WrenchUsed
from ironkettle.core.jobs.statement import compose_statement
from tests.bench import TAMSIN, Job, filled, trace
from tests.tiny import sheet_of, unit

RAM = sheet_of(unit("swing-bridge-ram"))
HOLD = "test:rod-side-hold:as_left"
FIT = "Repaired as recorded, and tested, and fit for service."


def stated(job: Job) -> tuple[str, ...]:
    return compose_statement(job.case(), job.tasks())


def worked(until: str, found: dict[str, dict[str, Any]] | None = None) -> Job:
    job = Job(RAM)
    while (task := job.next()) is not None and task.key != until:
        job.take(task, **(found or {}).get(task.key, {}))
    return job


def test_a_unit_that_was_worked_and_tested_is_fit_and_nothing_stands_beside_it_but_what_was_kept() -> None:
    told = stated(worked("sign"))
    assert told[0] == FIT
    assert set(told[1:]) == {
        "The old piston wear band was kept.",
        "The old rod wear band was kept.",
        "Not used: retaining wire 3 mm, plain end, into the shop's stock.",
    }


def test_one_that_was_not_tested_is_not_said_to_be() -> None:
    told = stated(worked(HOLD))
    claim = "Repaired as recorded, but not tested as required: Hold on the rod side, Hold on the cap side"
    assert told[0] == f"{claim}. See the remarks."
    assert "Hold on the rod side: not run." in told


def test_a_run_that_failed_stands_beside_the_one_that_passed() -> None:
    job = worked(HOLD)
    needs = dict(job.task(HOLD).asks[0].needs or {})
    # A tenth of the pressure.
    job.do(filled(job.task(HOLD)) | {"samples": list(trace(**needs | {"pressure_mpa": 1.8}))})
    assert "Hold on the rod side, run 1: was not held as required." in stated(job)
    job.walk(until=lambda task: task.key == "sign")
    told = stated(job)
    assert told[0] == FIT
    assert "Hold on the rod side, run 1: was not held as required; it was run again." in told


def test_a_run_given_up_is_told_with_its_word() -> None:
    job = worked(HOLD)
    gauge, run = dict(job.task(HOLD).entry)["gauge"], "00000000-0000-4000-8000-000000000001"
    job.do({"kind": "test_started", "test": "rod-side-hold", "run": run, "gauge": gauge, "source": "typed"})
    job.do({"kind": "test_closed", "run": run, "abandoned": True, "note": "the hose burst"})
    job.walk(until=lambda task: task.key == "sign")
    assert "Hold on the rod side, run 1: abandoned, the hose burst." in stated(job)


def test_work_after_a_test_takes_the_claim_back() -> None:
    job = worked("account")
    job.do(filled(job.task("fit:rod-lip")))
    told = stated(job)
    assert "not tested as required" in told[0]
    assert "Hold on the rod side: passed, and the unit was worked on after it." in told


def test_what_was_skipped_stands_against_it_with_ground_and_reason() -> None:
    job = worked("step:bleed")
    job.do({"kind": "task_skipped", "task": "step:bleed", "reason": "came in pieces", "grounds": "never_live"})
    job.author = TAMSIN
    job.walk(until=lambda task: task.key == "sign")
    told = stated(job)
    assert told[0].endswith("See the remarks.")
    assert any("Skipped: Bleed both sides" in one and "never under pressure; came in pieces." in one for one in told)


def test_a_part_that_was_short_and_never_came_stands_against_it() -> None:
    job = worked("order:k-lip", {"count:FN-K-5028": {"lines.0.counted": 1}})
    assert "piston lip seal 50 × 40 × 8: 1 missing and not delivered by the end." in stated(job)


@pytest.mark.parametrize(("until", "told"), [(date(2026, 11, 23), True), (date(2026, 11, 24), False)])
def test_a_tool_past_its_calibration_is_named(until: date, told: bool) -> None:
    job = Job(RAM)
    job.wrenches = {
        "w": WrenchUsed(name="Old wrench", low="5 N·m", high="300 N·m", accuracy_pct=4, calibrated_until=until)
    }
    job.gauges = {
        "g": GaugeUsed(
            name="Old gauge", range="250 bar", resolution="0.1 bar", accuracy_pct=0.5, calibrated_until=until
        )
    }
    job.walk(until=lambda task: task.key == "sign")
    found = {
        f"{name} was used past its calibration, which ended on 23 Nov 2026." for name in ("Old wrench", "Old gauge")
    }
    assert (found <= set(stated(job))) is told
    assert (found & set(stated(job)) == set()) is not told


def test_a_pressure_read_on_no_gauge_of_the_shop_stands_against_it() -> None:
    """A figure on a certificate is worth what it was read on."""
    words = "Opening pressure was not read on a gauge of the shop's list: its error is not known."
    with_gauge, without = (Job(sheet_of(unit("fuel-injector"))) for _ in range(2))
    with_gauge.gauges = {"g": GaugeUsed(name="Test gauge", range="600 bar", resolution="0.1 bar", accuracy_pct=0.25)}
    without.gauges = {}
    for job in (with_gauge, without):
        job.walk(until=lambda task: task.key == "sign")
    assert words in stated(without)
    assert stated(without)[0].endswith("See the remarks.")
    assert not any("not read on a gauge" in statement for statement in stated(with_gauge))
    assert not any(statement.startswith(("Spray was", "Leak-off was")) for statement in stated(without))


def test_a_timer_the_lead_cut_short_is_a_deviation_and_one_the_sheet_lets_go_is_none() -> None:
    document = unit("loader-lift-ram")
    timed = next(step for step in document["steps"] if "timer" in step)
    for may_cut in (True, False):
        timed["timer"]["may_cut"] = may_cut
        job = Job(sheet_of(document))
        job.author = TAMSIN
        job.walk(until=lambda task: task.key == "sign")
        cut = [statement for statement in stated(job) if statement.startswith("Cut short, 10 min for the piston ring")]
        assert len(cut) == (0 if may_cut else 1)


def test_a_size_that_does_not_fit_its_groove_is_told_whoever_chose_it() -> None:
    job = worked(
        "count:FN-K-5028", {"identify:gland-ring": {"size": "AS568 222", "reason": "the groove was cut wider"}}
    )
    text = "The size chosen for the gland outer O-ring, AS568 222: outside the usual limits of its groove. Reason: the groove was cut wider."
    assert text in stated(job)
