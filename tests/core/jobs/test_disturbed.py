"""Every place that was opened, with the test that proved it. Expected: by which zones the tests of the loader ram and of the plug press."""

from __future__ import annotations

from ironkettle.core.jobs.disturbed import disturbed
from tests.bench import Job, filled
from tests.tiny import plug, sheet_of, unit

LOOK = {"key": "look", "kind": "function", "name": "Look", "place": "bench", "zone": "oil", "sign": "dry"}


def test_each_place_is_told_with_the_tests_that_load_it() -> None:
    job = Job(sheet_of(unit("loader-lift-ram")))
    job.walk(until=lambda task: task.key == "sign")
    told = {disturbance.station: (disturbance.seals, disturbance.proof) for disturbance in disturbed(job.case())}
    assert told["Rod seal in the gland"] == (("rod lip seal",), "Hold on the rod side: passed")
    assert told["Piston on the rod"][1] == "Hold on the rod side: passed; Hold on the cap side: passed"
    assert len(told) == 6


def looked(**changes: object) -> Job:
    job = Job(sheet_of(plug(stations__0__unproven=None, tests=[LOOK], **changes)))
    job.walk(until=lambda task: task.key == "test:look:as_left")
    return job


def proof(job: Job) -> list[str]:
    return [disturbance.proof for disturbance in disturbed(job.case())]


def test_what_a_test_came_to_is_told_with_it() -> None:
    job = looked()
    assert proof(job) == ["Look: not run"]
    job.do(filled(job.task("test:look:as_left"), **{"record.seen": False}))
    assert proof(job) == ["Look: failed"]
    job.do(filled(job.task("test:look:as_left")))
    assert proof(job) == ["Look: passed"]


def test_one_that_passed_stands_for_one_that_did_not() -> None:
    other = {**LOOK, "key": "again", "name": "Again"}
    job = Job(sheet_of(plug(stations__0__unproven=None, tests=[LOOK, other])))
    job.walk(until=lambda task: task.key == "test:look:as_left")
    job.do(filled(job.task("test:look:as_left"), **{"record.seen": False}))
    job.do(filled(job.task("test:again:as_left")))
    assert proof(job) == ["Again: passed"]


def test_why_none_presses_it_is_told_and_what_is_shut_still_is_not_told() -> None:
    job = Job(sheet_of(plug()))
    job.walk(until=lambda task: task.key == "step:out")
    assert proof(job) == []
    job.walk(until=lambda task: task.key == "sign")
    assert proof(job) == ["not pressed by a test: nothing is tested of a plug that seals nothing"]
