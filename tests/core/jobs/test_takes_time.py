"""What takes time takes time: on every shipped sheet, whatever has a time is begun, waited out or cut short by a lead, in writing."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import timedelta
from typing import Any

import pytest

from ironkettle.core.base.errors import NotAllowedError, RefusedError, RuleError
from ironkettle.core.jobs import Task, compose_statement, payload_words
from ironkettle.core.jobs.kinds.begin import begin_entry
from ironkettle.core.jobs.kinds.release import RELEASED
from ironkettle.core.jobs.running import running
from ironkettle.core.sheets.soundness.check import check_document
from tests.bench import BEDE, TAMSIN, Job, filled
from tests.core.jobs.at_work import at
from tests.tiny import TABLES, UNITS, plug, sheet_of, unit

EVERY = sorted(path.stem for path in UNITS.glob("*.yaml"))
LOOK = {"key": "look", "kind": "function", "name": "Look", "place": "bench", "zone": "oil", "sign": "no drip in 10 min"}
REASON = "the boat sails with the tide"


def timed_tasks(job: Job) -> Iterator[Task]:
    """Each task that takes time, as it comes; taken after it was looked at."""
    while (task := job.next()) is not None:
        if task.lasts is not None:
            yield task
        if not job.state.has(RELEASED, "released") and job.next() is not None and job.next().key == task.key:  # type: ignore[union-attr]
            job.take(task)


def refused(job: Job, payload: dict[str, Any], code: str, says: str) -> None:
    before = len(job.entries)
    with pytest.raises((RefusedError, NotAllowedError), match=says) as caught:
        job.do(payload)
    assert caught.value.code == code
    assert len(job.entries) == before


@pytest.mark.parametrize("key", EVERY)
def test_it_is_closed_when_its_time_has_run_and_not_before(key: str) -> None:
    job = Job(sheet_of(unit(key)))
    for task in timed_tasks(job):
        assert task.lasts is not None
        # A step that runs it has begun it.
        refused(job, filled(task), "too-early", "begin it first" if task.until is None else "to go")
        job.do(begin_entry(task.key))
        assert task.key in {runner.key for runner in running(job.case())}
        # It stays in hand: nobody works on a unit that is looked at.
        assert job.next().key == task.key  # type: ignore[union-attr]
        job.now += timedelta(seconds=task.lasts - 1)
        refused(job, filled(task), "too-early", "1 s to go")
        job.now += timedelta(seconds=1)
        assert task.key not in {runner.key for runner in running(job.case())}
        refused_word(job, filled(task, cut_short=REASON), "have run")
        job.do(filled(task))
    assert job.state.has(RELEASED, "released")
    assert not any("cut short" in line for line in compose_statement(job.case(), job.tasks()))


def refused_word(job: Job, payload: dict[str, Any], says: str) -> None:
    with pytest.raises(RuleError, match=says) as caught:
        job.do(payload)
    assert caught.value.faults[0].field == "cut_short"


def test_what_is_read_after_a_time_that_only_the_procedure_says_takes_that_time() -> None:
    """*Outlet into the glass for five minutes*: what is read after one is another figure."""
    job = Job(sheet_of(unit("ballast-globe-valve")))
    key = "test:seat-leak:as_left"
    job.walk(until=lambda task: task.key == key)
    assert job.task(key).lasts == 300
    refused(job, filled(job.task(key)), "too-early", "begin it first")


def test_what_carries_its_own_times_waits_for_no_word_of_its_procedure() -> None:
    strokes = {
        "key": "s",
        "kind": "count",
        "name": "Strokes",
        "place": "bench",
        "zone": "oil",
        "what": "strokes",
        "limit": "30 to 36 /min",
    }
    with_words = [{**strokes, "how": "Let it run in for 20 min, then count minute by minute."}]
    job = Job(sheet_of(plug(tests=with_words)))
    assert (
        job.resolved.figure_tests["s"].bound.lasts
        == Job(sheet_of(plug(tests=[strokes]))).resolved.figure_tests["s"].bound.lasts
    )


def looked(**changes: Any) -> Job:
    job = Job(sheet_of(plug(tests=[{**LOOK, **changes}])))
    job.walk(until=lambda task: task.key == "test:look:as_left")
    return job


def test_what_fails_fails_at_once() -> None:
    job = looked()
    job.do(filled(job.task("test:look:as_left"), **{"record.seen": False, "record.value": "drips at the gland"}))
    assert job.state.runs_of("look")[0].judgement.verdict == "fail"  # type: ignore[union-attr]


def test_a_lead_cuts_it_short_in_writing_and_the_certificate_says_after_how_long() -> None:
    job = looked()
    job.do(begin_entry("test:look:as_left"))
    job.now += timedelta(minutes=2)
    short = filled(job.task("test:look:as_left"), cut_short=REASON)
    refused(job, short, "not-allowed", "only the workshop lead")
    job.author = TAMSIN
    job.do(short)
    assert payload_words(job.resolved, job.entries[-1][0]).endswith(f"seen; cut short: {REASON}")
    job.author = BEDE
    job.walk(until=lambda task: task.key == "sign")
    told = compose_statement(job.case(), job.tasks())
    # The clock of the bench goes on by a minute with every entry.
    assert f"Look, as left: cut short, after 3 min of 10 min: {REASON}." in told
    assert told[0] == "Repaired as recorded, and tested. See the remarks."


def test_one_that_never_began_says_so() -> None:
    job = looked()
    job.author = TAMSIN
    job.do(filled(job.task("test:look:as_left"), cut_short=REASON))
    told = compose_statement(job.case(), job.tasks())
    assert f"Look, as left: cut short, its 10 min were not begun: {REASON}." in told


def test_what_was_begun_before_it_was_recorded_or_worked_on_counts_no_more() -> None:
    job = looked()
    job.do(begin_entry("test:look:as_left"))
    job.now += timedelta(minutes=10)
    job.do(filled(job.task("test:look:as_left"), **{"record.seen": False}))
    # It failed; the next look has a time of its own.
    refused(job, filled(job.task("test:look:as_left")), "too-early", "begin it first")
    job.do(begin_entry("test:look:as_left"))
    job.now += timedelta(minutes=10)
    step = next(one.key for one in job.resolved.sheet.steps if one.stage == "rebuild")
    job.do({"kind": "step_done", "step": step})
    refused(job, filled(job.task("test:look:as_left")), "too-early", "begin it first")


def test_begun_again_its_time_begins_anew() -> None:
    job = looked()
    job.do(begin_entry("test:look:as_left"))
    job.now += timedelta(minutes=9)
    job.do(begin_entry("test:look:as_left"))
    job.now += timedelta(minutes=5)
    refused(job, filled(job.task("test:look:as_left")), "too-early", "5 min to go")


def test_what_takes_no_time_is_neither_begun_nor_cut_short() -> None:
    job = looked(sign="dry")
    with pytest.raises(RuleError, match="is not a task of this job that takes a time"):
        job.do(begin_entry("test:look:as_left"))
    refused_word(job, filled(job.task("test:look:as_left"), cut_short=REASON), "takes no time")


def test_what_waits_for_others_does_not_begin() -> None:
    job = Job(sheet_of(plug(tests=[LOOK])))
    with pytest.raises(RefusedError):
        job.do(begin_entry("test:look:as_left"))


def test_times_in_a_record_are_held_against_the_clock_too() -> None:
    """A count of 35 min that comes after ten is made up, whatever its figures say."""
    job = Job(sheet_of(unit("jetting-pump-box")))
    job.walk(until=lambda task: task.key == "test:run-in:as_left")
    task = job.task("test:run-in:as_left")
    assert task.lasts == 2100
    job.do(begin_entry(task.key))
    job.now += timedelta(minutes=10)
    refused(job, filled(task), "too-early", "it takes 35 min")


def test_a_time_shorter_than_the_sign_says_is_a_fault_of_the_sheet() -> None:
    (found,) = [
        fault
        for fault in check_document(plug(tests=[{**LOOK, "seconds": 60}]), TABLES).faults
        if "tests" in fault.field
    ]
    assert (found.field, found.accepts) == ("tests.0.seconds", ("600",))
    assert found.message == "1 min is less than the 10 min that the sign says"
    assert check_document(plug(tests=[{**LOOK, "seconds": 900}]), TABLES).faults == []


def test_who_lets_the_pressure_down_meanwhile_ends_the_look() -> None:
    """A drift under load, and the unit made safe while it runs: what then stands still proves nothing."""
    job = Job(sheet_of(unit("swing-bridge-ram")))
    job.walk(until=lambda task: task.key == "observe:drift:as_found")
    job.do(begin_entry("observe:drift:as_found"))
    job.do(filled(job.task("step:isolate")))
    job.now += timedelta(minutes=10)
    refused(job, filled(job.task("observe:drift:as_found"), value="0"), "too-early", "begin it first")


def test_what_was_cut_short_as_found_stands_on_the_certificate_too() -> None:
    job = Job(sheet_of(plug(tests=[{**LOOK, "when": "both"}])))
    job.walk(until=lambda task: task.key == "test:look:as_found")
    job.author = TAMSIN
    job.do(filled(job.task("test:look:as_found"), cut_short=REASON))
    told = compose_statement(job.case(), job.tasks())
    assert f"Look, as found: cut short, its 10 min were not begun: {REASON}." in told


def test_a_step_that_leaves_something_to_set_does_not_begin_its_test() -> None:
    """The injector is set after its step is recorded: what dribbles is looked at once it opens at its figure."""
    job = at("fuel-injector", "set:opening")
    assert [runner.key for runner in running(job.case())] == []
    job.take(job.task("set:opening"))
    job.walk(until=lambda task: task.key == "test:opening-test:as_left")
    refused(job, filled(job.task("test:opening-test:as_left")), "too-early", "begin it first")
