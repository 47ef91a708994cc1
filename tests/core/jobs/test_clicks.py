"""A wrench that clicks tells no torque: what it was set to is recorded, and that it clicked."""

from __future__ import annotations

from datetime import date
from typing import Any

import pytest

from ironkettle.core.base.errors import RuleError
from ironkettle.core.jobs import compose_statement, payload_words
from ironkettle.core.jobs.kinds.tightening import TIGHTENED
from ironkettle.core.jobs.runs import WrenchUsed
from tests.bench import Job
from tests.tiny import sheet_of, unit

SMALL = WrenchUsed(name="Small click wrench", low="5 N·m", high="25 N·m", accuracy_pct=4, clicks=True)
DIAL = WrenchUsed(name="Dial wrench", low="5 N·m", high="25 N·m", accuracy_pct=2)
PASS = "tighten:port-flange:0:1"


@pytest.fixture
def job() -> Job:
    job = Job(sheet_of(unit("swing-bridge-ram")))
    job.walk(until=lambda task: task.key == PASS)
    job.wrenches = {"small": SMALL, "dial": DIAL}
    return job


def entry(job: Job, wrench: str, **last: Any) -> dict[str, Any]:
    # The first of three passes on the flange is to 12.6 N·m.
    entered = dict(job.task(PASS).entry)
    readings = [{**read, "reading": "12.6 N·m", "clicked": True} for read in entered["readings"]]
    return {**entered, "wrench": wrench, "readings": [*readings[:-1], {**readings[-1], **last}]}


def test_clicks_are_told_in_one_go_with_what_it_was_set_to(job: Job) -> None:
    job.do(entry(job, "small"))
    done = job.state.get(TIGHTENED, ("port-flange", 0, 1))
    assert done is not None
    words = payload_words(job.resolved, done)
    assert words.endswith("1, 3, 2, 4 clicked at 12.6 N·m with Small click wrench")


def test_a_reading_among_clicks_stays_a_reading(job: Job) -> None:
    job.do(entry(job, "small", reading="12.8 N·m", clicked=False))
    done = job.state.get(TIGHTENED, ("port-flange", 0, 1))
    assert done is not None
    assert "1, 3, 2 clicked at 12.6 N·m, 4: 12.8 N·m with" in payload_words(job.resolved, done)


@pytest.mark.parametrize("wrench", ["dial", "a borrowed one"])
def test_what_shows_its_torque_or_nobody_knows_does_not_click(job: Job, wrench: str) -> None:
    with pytest.raises(RuleError) as refused:
        job.do(entry(job, wrench))
    assert refused.value.faults[0].field == "readings.0.clicked"
    assert "does not click" in refused.value.faults[0].message


def test_a_click_out_of_range_is_refused_as_a_reading_is(job: Job) -> None:
    with pytest.raises(RuleError) as refused:
        job.do(entry(job, "small", reading="21 N·m"))
    assert "too tight" in refused.value.faults[0].message


MIDDLE = WrenchUsed(name="Middle click wrench", low="10 N·m", high="60 N·m", accuracy_pct=4, clicks=True)


def proposed(job: Job, **wrenches: WrenchUsed) -> object:
    job.wrenches = wrenches
    return next(ask.proposed for ask in job.task(PASS).asks if ask.field == "wrench")


def test_the_only_wrench_that_holds_every_pass_is_proposed(job: Job) -> None:
    # The passes go from 12.6 to 21 N·m; a wrench to 15 N·m is changed on the way.
    short = SMALL.model_copy(update={"name": "Short", "high": "15 N·m"})
    assert proposed(job, small=SMALL, short=short) == "small"
    assert proposed(job, small=SMALL, middle=MIDDLE) is None
    assert proposed(job, short=short) is None
    assert proposed(job) is None


def test_a_wrench_out_of_calibration_or_too_coarse_is_not_proposed(job: Job) -> None:
    assert proposed(job, small=SMALL.model_copy(update={"calibrated_until": date(2026, 1, 1)})) is None
    assert proposed(job, small=SMALL.model_copy(update={"accuracy_pct": 15})) is None
    assert proposed(job, small=SMALL, old=MIDDLE.model_copy(update={"calibrated_until": date(2026, 1, 1)})) == "small"


def test_a_last_pass_read_low_on_the_scale_needs_a_reason_and_stands_on_the_certificate() -> None:
    """ISO 6789: calibrated from 20 % of the scale; 6 N·m is the end, 1.2 N·m the least that is trusted, 0.81 to 0.99 asked for."""
    driver = WrenchUsed(name="Torque screwdriver", low="0.4 N·m", high="6 N·m", accuracy_pct=4)
    fine = driver.model_copy(update={"name": "Fine one", "low": "0.1 N·m", "high": "1.5 N·m"})
    job = Job(sheet_of(unit("escape-set-regulator")))
    job.walk(until=lambda task: task.key == "tighten:cover-group:0:1")
    job.wrenches = {"driver": driver}
    task = job.task("tighten:cover-group:0:1")
    asks = {ask.field: ask for ask in task.asks}
    assert asks["wrench"].proposed is None
    assert not asks["overdue"].optional
    readings = [{**read, "reading": "0.9 N·m"} for read in task.entry["readings"]]
    told = {**task.entry, "wrench": "driver", "readings": readings}
    with pytest.raises(RuleError, match=r"0\.9 N·m is below the 1\.2 N·m from which .* or give the reason") as refused:
        job.do(told)
    assert refused.value.faults[0].field == "overdue"
    job.wrenches = {"driver": driver, "fine": fine}
    asks = {ask.field: ask for ask in job.task(task.key).asks}
    assert asks["wrench"].proposed == "fine"
    assert [choice.key for choice in asks["wrench"].choices] == ["fine", "driver"]
    assert asks["overdue"].optional
    job.do({**told, "overdue": "the fine one is lent to the docks"})
    assert any("0.9 N·m is below the 1.2 N·m" in line for line in compose_statement(job.case(), job.tasks()))


def test_a_wrench_that_is_not_on_the_list_needs_a_reason_and_stands_on_the_certificate() -> None:
    job = Job(sheet_of(unit("escape-set-regulator")))
    job.walk(until=lambda task: task.key == "tighten:cover-group:0:1")
    job.wrenches = {"small": SMALL}
    task = job.task("tighten:cover-group:0:1")
    readings = [{**read, "reading": "0.9 N·m"} for read in task.entry["readings"]]
    told = {**task.entry, "wrench": "small click wrench", "readings": readings}
    with pytest.raises(RuleError, match="small click wrench is not on the shop's list, so its calibration") as refused:
        job.do(told)
    assert refused.value.faults[0].field == "overdue"
    job.do({**told, "overdue": "lent by the docks over the weekend"})
    assert any(
        "small click wrench is not on the shop's list" in line for line in compose_statement(job.case(), job.tasks())
    )


def test_a_pass_before_the_last_may_be_read_low_on_the_scale(job: Job) -> None:
    """12.6 N·m on a scale to 100 N·m, trusted from 20: the pass is checked again by the next."""
    job.wrenches = {"long": WrenchUsed(name="Long", low="5 N·m", high="100 N·m", accuracy_pct=4, clicks=True)}
    job.do(entry(job, "long"))
    task = job.task("tighten:port-flange:0:2")
    readings = [{**read, "reading": "21 N·m"} for read in task.entry["readings"]]
    job.do({**task.entry, "wrench": "long", "readings": readings})


def test_the_lowest_of_several_readings_counts_and_a_wrench_is_named() -> None:
    """A scale to 4.5 N·m is trusted from 0.9; three readings are, the last is not."""
    job = Job(sheet_of(unit("escape-set-regulator")))
    job.walk(until=lambda task: task.key == "tighten:cover-group:0:1")
    job.wrenches = {"w": WrenchUsed(name="To 4.5", low="0.4 N·m", high="4.5 N·m", accuracy_pct=4)}
    entered = dict(job.task("tighten:cover-group:0:1").entry)
    values = ["0.95 N·m", "0.95 N·m", "0.95 N·m", "0.85 N·m"]
    readings = [{**read, "reading": value} for read, value in zip(entered["readings"], values, strict=True)]
    with pytest.raises(RuleError, match=r"0\.85 N·m is below the 0\.9 N·m"):
        job.do({**entered, "wrench": "w", "readings": readings})
    with pytest.raises(RuleError, match="which wrench was it") as refused:
        job.do({**entered, "wrench": None, "readings": readings})
    assert refused.value.faults[0].field == "wrench"
    job.do({**entered, "wrench": "w", "readings": [{**read, "reading": "0.95 N·m"} for read in readings]})


def test_a_wrench_that_need_not_be_changed_stands_before_a_smaller_one(job: Job) -> None:
    # The passes go from 12.6 to 21 N·m.
    short = SMALL.model_copy(update={"name": "Short", "high": "15 N·m"})
    job.wrenches = {"short": short, "middle": MIDDLE}
    asked = next(ask for ask in job.task(PASS).asks if ask.field == "wrench")
    assert [choice.key for choice in asked.choices] == ["middle", "short"]
