"""Quick service: the sheet narrowed to the steps of an interval, on any sheet; made full; what a release begins anew."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

import pytest

from ironkettle.core.base.errors import RefusedError, RuleError
from ironkettle.core.jobs.kinds.ending import closed_by
from ironkettle.core.jobs.kinds.full_job import condemned
from ironkettle.core.jobs.kinds.intake import INTAKE as INTAKE_BOOK
from ironkettle.core.jobs.kinds.release import fulfilled
from ironkettle.core.jobs.registry import payload_words
from ironkettle.core.jobs.statement import compose_statement
from ironkettle.core.jobs.task import Status
from ironkettle.core.sheets.document.quick_service import counters_of, every_of, interval_of
from ironkettle.core.sheets.document.trials import Interval
from ironkettle.core.shop.service import EveryKind
from tests.bench import INTAKE, Job, filled
from tests.tiny import plug, sheet_of, told, unit

# The plug is looked at every 50 h: out, looked at, in with a new ring; its ring is of the kit.
POINTS = [{"key": "look", "ask": "Scored?", "read": "look", "bad": ["scored"]}, {"key": "wear", "ask": "Wear", "read": "length", "limit": "at most 1 mm"}]  # fmt: skip
CARE = {"key": "fifty", "every": ["50 h", "4 strokes"], "what": "look", "steps": ["vent", "out", "in"]}
RESEAL = {"every": ["12 months"], "what": "reseal"}


def serviced(quick_service: str | None = "fifty", **changes: Any) -> Job:
    document = plug(
        parts__1__points=POINTS, intervals=[CARE, RESEAL], steps__1__reads=[{"part": "plug", "point": "look"}],
        disposal=[{"what": "rags", "where": "bin"}], **changes,
    )  # fmt: skip
    return Job(sheet_of(document), quick_service=quick_service)


def test_a_quick_service_asks_what_its_steps_do_and_no_more() -> None:
    job = serviced()
    assert [task.key for task in job.tasks()] == [
        "intake", "step:vent", "step:out", "find:ring", "measure:plug", "count:T-1", "fit:ring", "step:in", "account",
        "dispose", "sign",
    ]  # fmt: skip
    # Of two points only the one that its step reads; the wash is no step of it, and nobody asks where it leaks.
    assert [ask.label for ask in job.task("measure:plug").asks][:1] == ["Scored?"]
    full = {task.key for task in serviced(None).tasks()}
    assert {"leak", "step:wash"} <= full
    job.walk()
    assert closed_by(job.state) is not None
    assert compose_statement(job.case(), job.tasks()) == (
        "Serviced as recorded: look, due every 50 h or 4 strokes, and fit for service.",
    )


def test_a_question_that_its_steps_ask_or_nobody_is_asked_and_the_others_are_not() -> None:
    choices = [{"key": "a", "says": "a"}, {"key": "b", "says": "b"}]
    questions = [
        {"key": "outside", "ask": "Which?", "choices": choices}, {"key": "at-out", "ask": "Which?", "seen_at": "out", "choices": choices},
        {"key": "at-wash", "ask": "Which?", "seen_at": "wash", "choices": choices},
    ]  # fmt: skip
    asked = {task.key for task in serviced(questions=questions).tasks() if task.key.startswith("answer:")}
    assert asked == {"answer:outside", "answer:at-out"}


def test_its_drawing_is_that_of_the_whole_unit() -> None:
    job = Job(sheet_of(unit("needle-scaler")), quick_service="six-hourly")
    assert [station.key for station in job.resolved.drawn.stations] == ["anvil-seat"]
    assert {part.key for part in job.resolved.drawn.parts} == {part.key for part in job.sheet.parts}


def test_made_full_it_keeps_what_was_done_and_asks_the_rest() -> None:
    job = serviced()
    job.walk(until=lambda task: task.key == "fit:ring")
    job.do({"kind": "service_widened", "reason": "More is wrong with it"})
    done = {task.key for task in job.tasks() if task.status is Status.DONE}
    assert {"step:vent", "step:out", "find:ring", "count:T-1"} <= done
    assert job.next() is not None
    with pytest.raises(RefusedError, match="already a full job"):
        job.do({"kind": "service_widened", "reason": "More is wrong with it"})
    assert fulfilled(job.case()) == ("fifty", "reseal-unit")
    job.walk()
    assert closed_by(job.state) is not None
    assert payload_words(job.resolved, job.entries[-1][0]).startswith("released")
    assert "made a full job: More is wrong with it" in [payload_words(job.resolved, p) for p, _ in job.entries]


def test_what_it_condemns_is_told_and_stands_on_its_statement() -> None:
    job = Job(sheet_of(unit("needle-scaler")), quick_service="six-hourly")
    job.walk(until=lambda task: task.key == "measure:needles")
    assert condemned(job.case()) == ()
    job.do(filled(job.task("measure:needles"), **{"points.0.values": ["7"], "points.1.values": ["140 mm"]}))
    assert condemned(job.case()) == ("Needles",)


def test_a_job_stays_what_it_was_opened_as() -> None:
    job = serviced()
    with pytest.raises(RefusedError, match="stays the service or the full job"):
        job.do({**INTAKE, "pressure": "100 bar"})
    job.do({**INTAKE, "pressure": "90 bar", "quick_service": "fifty"})
    # What corrects it proposes the same.
    assert job.task("intake").entry["quick_service"] == "fifty"
    with pytest.raises(RuleError, match="no quick service “moon”"):
        serviced("moon")
    with pytest.raises(RuleError, match="no quick service “reseal-unit”"):
        serviced("reseal-unit")


def test_a_full_release_begins_all_anew_but_what_was_not_replaced() -> None:
    intervals = [
        CARE,
        RESEAL,
        {"of": "plug", "every": ["2,000 h"], "what": "replace"},
        {"of": "body", "every": ["1 year"], "what": "look"},
    ]
    job = Job(sheet_of(plug(intervals=intervals, parts__1__points=POINTS)))
    assert fulfilled(job.case()) == ("fifty", "reseal-unit", "look-body")
    job.walk(until=lambda task: task.key == "measure:plug")
    job.do(filled(job.task("measure:plug"), **{"points.0.seen": ["scored"]}))
    assert fulfilled(job.case()) == ("fifty", "reseal-unit", "replace-plug", "look-body")
    renewed = Job(sheet_of(plug(intervals=intervals, parts__1__fate="renew")))
    assert "replace-plug" in fulfilled(renewed.case())


def test_the_next_service_is_filled_in_from_the_day_of_signing() -> None:
    job = serviced(None)
    # Signed on 24 November 2026; the service has a list of its own.
    assert job.task("sign").entry["next_service"] == "reseal by 2027-11-24"
    assert serviced().task("sign").entry["next_service"] == "look after 50 h or after 4 strokes, whichever comes first"
    job.now += timedelta(days=98)
    assert job.task("sign").entry["next_service"] == "reseal by 2028-03-02"


def test_counters_at_intake_are_those_of_its_intervals_and_run_forwards() -> None:
    sheet = sheet_of(plug(intervals=[CARE, RESEAL, {"key": "d", "every": ["when it drips", "100 h"], "what": "look"}]))
    assert counters_of(sheet) == ("h", "strokes")
    job = Job(sheet, intake=False)
    told_at = {**INTAKE, "pressure": "100 bar"}
    assert [ask.label for ask in job.task("intake").asks][-2:] == ["Counter [h]", "Counter [strokes]"]
    with pytest.raises(RuleError, match="moons") as caught:
        job.do({**told_at, "counters": [{"counter": "moons", "value": 3}]})
    assert caught.value.faults[0].field == "counters.0.counter"
    with pytest.raises(ValueError, match="may be 1250"):
        job.do({**told_at, "counters": [{"counter": "h", "value": "1,250"}]})
    job.do({**told_at, "counters": [{"counter": "h", "value": "1250,5"}, {"counter": "strokes"}]})
    assert [counter.value for counter in job.state.book(INTAKE_BOOK)["intake"].value.counters] == [1250.5, None]


def test_what_an_older_sheet_wrote_and_nobody_can_read_is_something_to_be_seen() -> None:
    every = every_of(Interval(every=["each season"], what="look"))
    assert [(one.kind, one.counter) for one in every] == [(EveryKind.CONDITION, "each season")]


@pytest.mark.parametrize(
    ("interval", "field", "words"),
    [
        ({**CARE, "every": ["often"]}, "intervals.0.every.0", "does not say how often"),
        (
            {**CARE, "steps": ["vent", "out"]},
            "intervals.0.steps",
            "opens ring-place, and no step of it closes it again",
        ),
        (
            {**CARE, "steps": ["out", "in"]},
            "intervals.0.steps",
            "takes things apart without making safe: Vent the oil side",
        ),
        ({**CARE, "steps": ["moon"]}, "intervals.0.steps.0", "moon"),
        ({**CARE, "key": "reseal-unit"}, "intervals.0.key", "is there 2 times"),
    ],
)
def test_an_interval_that_cannot_be_kept_is_refused(interval: dict[str, Any], field: str, words: str) -> None:
    assert words in told(intervals=[interval, RESEAL])[field]


def test_its_interval_is_found_by_its_key_or_by_what_is_done() -> None:
    sheet = sheet_of(plug(intervals=[{**CARE, "key": None}, RESEAL]))
    assert interval_of(sheet, "look-unit").every == ["50 h", "4 strokes"]
