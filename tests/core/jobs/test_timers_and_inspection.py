"""Timers on the clock, and parts judged by their points."""

from __future__ import annotations

from dataclasses import replace
from datetime import timedelta
from typing import Any

import pytest

from ironkettle.core.base.errors import NotAllowedError, RefusedError, RuleError
from ironkettle.core.jobs.kinds.inspection import standing
from ironkettle.core.jobs.kinds.release import RELEASED
from ironkettle.core.jobs.registry import payload_words
from ironkettle.core.jobs.task import Status
from ironkettle.core.shop.settings import ShopSettings
from tests.bench import TAMSIN, Job, filled
from tests.core.jobs.at_work import DRY, at, plugged
from tests.tiny import plug, sheet_of


def timed(**timer: Any) -> Job:
    job = plugged(steps__2__timer={"key": "soak", "minutes": 60, "for": "the ring to soak"} | timer)
    job.walk(until=lambda one: (one.key == "timer:soak" and one.status is Status.NEXT) or one.key == "fit:ring")
    return job


def test_a_timer_runs_on_the_clock_and_blocks_only_what_needs_it() -> None:
    job = plugged(steps__2__timer={"key": "soak", "minutes": 60, "for": "the ring to soak"})
    job.walk(until=lambda one: one.key == "step:wash")
    assert job.task("timer:soak").status is Status.BLOCKED
    job.do({"kind": "step_done", "step": "wash"})
    assert job.task("timer:soak").status is Status.WAITING
    # The kit can be counted meanwhile; the plug waits.
    assert job.next().key == "count:T-1"  # type: ignore[union-attr]
    assert "60 min for the ring to soak" in " ".join(job.task("step:in").blocked_by)
    job.do(filled(job.task("count:T-1")))
    assert job.task("timer:soak").status is Status.NEXT
    # After an hour on the server's clock it has run out, whoever looks; a clock set back starts it no more.
    job.now += timedelta(minutes=58)
    assert job.task("timer:soak").status is Status.NEXT
    job.now += timedelta(minutes=2)
    assert job.task("timer:soak").status is Status.DONE
    with pytest.raises(RefusedError, match="has already run out"):
        job.do({"kind": "timer_cut", "timer": "soak", "reason": "in a hurry"})


def test_a_timer_is_cut_by_a_lead_or_where_the_sheet_allows_it() -> None:
    job = plugged(steps__2__timer={"key": "soak", "minutes": 60, "for": "the ring to soak"})
    with pytest.raises(RefusedError, match="not running"):
        job.do({"kind": "timer_cut", "timer": "soak", "reason": "in a hurry"})
    with pytest.raises(RefusedError, match="not skipped"):
        job.do({"kind": "task_skipped", "task": "timer:soak", "reason": "in a hurry"})
    job.walk(until=lambda one: one.key == "timer:soak")
    with pytest.raises(NotAllowedError, match="only the workshop lead"):
        job.do({"kind": "timer_cut", "timer": "soak", "reason": "in a hurry"})
    job.author = TAMSIN
    job.do({"kind": "timer_cut", "timer": "soak", "reason": "in a hurry"})
    assert job.task("timer:soak").status is Status.DONE
    assert "timer cut short, the ring to soak: in a hurry" in payload_words(job.resolved, job.entries[-1][0])
    free = plugged(steps__2__timer={"key": "soak", "minutes": 60, "for": "x", "may_cut": True})
    free.walk()
    assert free.state.has(RELEASED, "released")


def test_an_early_timer_is_offered_at_once() -> None:
    step = {
        "key": "soak-set",
        "stage": "rebuild",
        "text": "Set to soak",
        "timer": {"key": "soak", "minutes": 5, "for": "it", "early": True, "may_cut": True},
    }
    document = plug()
    document["steps"].insert(3, step)
    job = Job(sheet_of(document))
    # Before anything else is touched, and it says so.
    assert job.next() == job.task("step:soak-set")
    assert job.task("step:soak-set").shows == "Begin it now: 5 min for it, while the other work goes on"
    job.do({"kind": "step_done", "step": "soak-set"})
    job.do(DRY)
    assert job.task("timer:soak").status is Status.WAITING
    assert job.next().key == "step:vent"  # type: ignore[union-attr]


def test_a_part_is_judged_by_its_hardest_point() -> None:
    # A shop that dresses a pit within its limit.
    settings = ShopSettings({"practice_pits": 1.0})
    job = at("swing-bridge-ram", "measure:rod")
    job.tables = replace(job.tables, settings=settings)
    good = {"point": "bend", "values": ["0.05 mm"]}

    def read(pit: str, **more: Any) -> dict[str, Any]:
        return {"kind": "points_read", "part": "rod", "points": [{"point": "pit", "values": [pit]}, good], **more}

    with pytest.raises(RuleError, match="not read yet: Run-out"):
        job.do({"kind": "points_read", "part": "rod", "points": [{"point": "pit", "values": ["0.02 mm"]}]})
    with pytest.raises(RuleError, match="unit"):
        job.do(read("0.02"))
    with pytest.raises(RuleError, match="say why it is “reuse”"):
        job.do(read("0.08 mm", verdict="reuse"))
    # The same verdict, or a harder one, needs no word.
    again = at("swing-bridge-ram", "measure:rod")
    again.tables = job.tables
    again.do(read("0.08 mm", verdict="dress"))
    again.do(read("0.08 mm", verdict="replace"))
    # At most 0.05 mm is good, up to 0.10 mm may be dressed, beyond that it is replaced.
    job.do(read("0.08 mm"))
    assert job.next().key == "dress:rod"  # type: ignore[union-attr]
    assert "chrome dust" in str(job.next().caution)  # type: ignore[union-attr]
    job.do({"kind": "part_dressed", "part": "rod"})
    # What came off lies on it: it is washed and read again.
    assert job.next().key == "step:wash"  # type: ignore[union-attr]
    job.take(job.task("step:wash"))
    assert job.next().key == "measure:rod"  # type: ignore[union-attr]
    job.do(read("0.12 mm"))
    assert job.task("order:part-rod").status is Status.OPEN
    job.walk()
    assert job.state.has(RELEASED, "released")
    assert job.state.arrived == {"part-rod": 1}


@pytest.mark.parametrize(
    ("point", "values", "verdict"),
    [
        ({"limit": "at most 0.05 mm"}, ["0.05 mm"], "reuse"),
        ({"limit": "at most 0.05 mm"}, ["0.06 mm"], "replace"),
        ({"limit": "at least 12 mm"}, ["12 mm"], "reuse"),
        ({"limit": "at least 12 mm"}, ["11.9 mm"], "replace"),
        ({"limit": "1 mm to 2 mm", "places": 3}, ["1 mm", "1.5 mm", "2 mm"], "reuse"),
        ({"limit": "1 mm to 2 mm", "places": 3}, ["1 mm", "0.9 mm", "2 mm"], "replace"),
        ({"limit": "1 mm to 2 mm", "places": 2}, ["1 mm", "2.1 mm"], "replace"),
        # Ovality: 28.00 less 27.96 is 0.04 mm.
        ({"limit": "at most 0.03 mm", "places": 2, "compute": "ovality", "nominal": "28 mm"}, ["28 mm", "27.96 mm"], "replace"),
        ({"limit": "at most 0.05 mm", "places": 2, "compute": "ovality", "nominal": "28 mm"}, ["28 mm", "27.96 mm"], "reuse"),
        # Wear: from the largest it may be when new, 28.00, to the smallest read.
        ({"limit": "at most 0.1 mm", "places": 2, "compute": "wear", "nominal": "28 mm +0/-0.05"}, ["27.95 mm", "27.91 mm"], "reuse"),
        ({"limit": "at most 0.1 mm", "places": 2, "compute": "wear", "nominal": "28 mm +0/-0.05"}, ["27.95 mm", "27.89 mm"], "replace"),
        ({"limit": "at most 2 mm", "places": 2, "compute": "mean"}, ["1 mm", "3 mm"], "reuse"),
        ({"limit": "at most 2 mm", "places": 2, "compute": "mean"}, ["1 mm", "3.1 mm"], "replace"),
        ({"limit": "at most 4 mm", "places": 2, "compute": "sum"}, ["1 mm", "3 mm"], "reuse"),
        ({"limit": "at most 4 mm", "places": 2, "compute": "sum"}, ["1 mm", "3.1 mm"], "replace"),
        ({"limit": "at most 1 mm", "dress": {"to": "2 mm"}}, ["1.5 mm"], "dress"),
        ({"limit": "at most 1 mm", "dress": {"to": "2 mm"}}, ["2 mm"], "dress"),
        ({"limit": "at most 1 mm", "dress": {"to": "2 mm"}, "else": "send_out"}, ["2.1 mm"], "send_out"),
    ],
)  # fmt: skip
def test_readings_against_their_limit(point: dict[str, Any], values: list[str], verdict: str) -> None:
    """Limits include their ends; what several readings come to is worked out by hand above."""
    job = plugged(parts__1__points=[{"key": "p", "ask": "How much?", "read": "length", **point}])
    job.walk(until=lambda one: one.key == "measure:plug")
    job.do({"kind": "points_read", "part": "plug", "points": [{"point": "p", "values": values}]})
    assert standing(job.case(), "plug") == verdict


def test_looks_and_gauges_are_judged_too() -> None:
    points = [
        {"key": "look", "ask": "Pinhole?", "read": "look", "bad": ["pinhole", "fold"], "else": "replace"},
        {"key": "gauge", "ask": "Go gauge runs through?", "read": "go_no_go", "else": "send_out"},
    ]
    job = plugged(parts__1__points=points)
    job.walk(until=lambda one: one.key == "measure:plug")

    def read(seen: Any, good: bool | None) -> str | None:
        document = {
            "kind": "points_read",
            "part": "plug",
            "points": [{"point": "look", "seen": seen}, {"point": "gauge", "good": good}],
        }
        job.do(document)
        return standing(job.case(), "plug")

    assert read("none", True) == "reuse"
    assert read(["pinhole"], True) == "replace"
    assert read(["pinhole"], False) == "send_out"
    for seen, good in ((None, True), ("none", None)):
        with pytest.raises(RuleError):
            read(seen, good)
