"""What is written down at a step and used: a torque of the manual with its page, a limit at the rebuild; a unit refused."""

from __future__ import annotations

from typing import Any

import pytest

from ironkettle.core.base.errors import RefusedError, RuleError
from ironkettle.core.jobs.kinds.ending import closed_by
from ironkettle.core.jobs.registry import payload_words
from ironkettle.core.jobs.task import Status
from tests.bench import Job, filled
from tests.tiny import plug, sheet_of, told, unit

NOTE = {"ask": "Torque by the manual", "read": "torque", "limit": "20 N·m to 60 N·m", "page": True}
FIGURE = {"key": "figure", "stage": "clean", "text": "Find the torque", "note": NOTE}
GROUP = {"key": "screw", "name": "Screw", "count": 2, "layout": "circle",
         "phases": [{"to": "torque", "noted_at": "figure", "tolerance_pct": 5, "passes_pct": [50, 100]}]}  # fmt: skip


def with_figure(**changes: Any) -> dict[str, Any]:
    document = plug(fasteners=[GROUP], steps__append=FIGURE, **changes)
    document["steps"][3]["tightens"] = ["screw"]
    # The figure is looked for before anything goes back on.
    document["steps"].insert(3, document["steps"].pop())
    return document


def test_a_torque_of_the_manual_is_held_once_it_is_told() -> None:
    job = Job(sheet_of(with_figure()))
    before = job.task("tighten:screw:0:1")
    assert before.status is Status.BLOCKED
    # What can be expected: half of 20 to 60 N·m at the first pass.
    assert before.asks[-1].limit == (10.0, 30.0)
    job.walk(until=lambda task: task.key == "step:figure")
    done = filled(job.task("step:figure"))
    for change, field, words in (
        ({"page": None}, "page", "enter the manual and page"),
        ({"note": "much"}, "note", "is not a torque with a unit"),
        ({"note": ""}, "note", "write down: Torque by the manual"),
    ):
        with pytest.raises(RuleError, match=words) as caught:
            job.do({**done, **change})
        assert caught.value.faults[0].field == field
    job.do({**done, "note": "30 N·m", "page": "Works manual 4, page 17"})
    told_words = payload_words(job.resolved, job.entries[-1][0])
    assert told_words == "done: Find the torque; Torque by the manual: 30 N·m (Works manual 4, page 17)"
    # 30 N·m ±5 %: 28.5 to 31.5, half of that at the first pass.
    assert job.task("tighten:screw:0:1").asks[-1].limit == (14.25, 15.75)
    assert job.task("tighten:screw:0:2").asks[-1].limit == (28.5, 31.5)
    job.walk(until=lambda task: task.key == "tighten:screw:0:2")
    wrong = filled(job.task("tighten:screw:0:2"))
    wrong["readings"][0]["reading"] = "40 N·m"
    with pytest.raises(RuleError, match=r"outside 28\.5 to 31\.5 N·m"):
        job.do(wrong)
    job.walk()
    assert closed_by(job.state) is not None


def test_a_torque_in_another_unit_is_the_same() -> None:
    job = Job(sheet_of(with_figure()))
    job.walk(until=lambda task: task.key == "step:figure")
    job.do({**filled(job.task("step:figure")), "note": "22 lbf·ft", "page": "p. 3"})
    low, high = job.task("tighten:screw:0:2").asks[-1].limit or (0, 0)
    # 22 lbf·ft is 22 · 1.35582 = 29.83 N·m.
    assert (low, high) == (pytest.approx(28.34, abs=0.01), pytest.approx(31.32, abs=0.01))


@pytest.mark.parametrize(
    ("phase", "note", "words"),
    [
        ({"to": "torque", "noted_at": "moon"}, NOTE, "moon"),
        ({"to": "torque", "noted_at": "figure"}, {"ask": "Torque", "read": "torque"}, "writes down no torque"),
        (
            {"to": "torque", "noted_at": "figure"},
            {"ask": "Turns", "read": "number", "limit": "1 to 3"},
            "writes down no torque",
        ),
        ({"to": "torque", "noted_at": "figure", "target": "3 N·m"}, NOTE, "without figures of its own"),
        ({"to": "hand", "noted_at": "figure"}, NOTE, "does not belong here"),
    ],
)
def test_a_figure_that_nobody_tells_is_refused_with_the_sheet(
    phase: dict[str, Any], note: dict[str, Any], words: str
) -> None:
    group = {**GROUP, "phases": [phase]}
    found = told(fasteners=[group], steps__append={**FIGURE, "note": note})
    assert any(words in message for message in found.values()), found


def test_what_must_be_at_the_rebuild_is_held_and_what_is_found_before_it_needs_a_reason() -> None:
    document = plug()
    document["steps"][1]["note"] = {"ask": "Gap as found", "read": "length", "limit": "0 mm to 2 mm"}
    document["steps"][3]["note"] = {"ask": "Gap that is left", "read": "length", "limit": "at most 0.5 mm"}
    job = Job(sheet_of(document))
    job.walk(until=lambda task: task.key == "step:out")
    with pytest.raises(RuleError, match="9 mm is not 0 mm to 2 mm: Gap as found; read again"):
        job.do({**filled(job.task("step:out")), "note": "9 mm"})
    job.do({**filled(job.task("step:out")), "note": "9 mm", "against": "it was run with half its gasket"})
    job.walk(until=lambda task: task.key == "step:in")
    with pytest.raises(RuleError, match=r"0\.6 mm is not at most 0\.5 mm: Gap that is left") as caught:
        job.do({**filled(job.task("step:in")), "note": "0.6 mm"})
    assert caught.value.faults[0].field == "note"
    job.do({**filled(job.task("step:in")), "note": "0.5 mm"})


def test_a_unit_the_sheet_does_not_serve_is_refused_by_its_answer() -> None:
    job = Job(sheet_of(unit("boring-head")))
    job.walk(until=lambda task: task.key == "answer:model")
    with pytest.raises(RefusedError, match="so it needs its own sheet"):
        job.do({"kind": "question_answered", "question": "model", "choice": "six"})
    choices = [{"key": "a", "says": "a", "refuses": "not here"}, {"key": "b", "says": "b", "refuses": "nor this"}]
    question = {"key": "q", "ask": "Which?", "seen_at": "out", "choices": choices}
    assert "every choice refuses" in told(questions=[question])["questions.0.choices"]
    # They stand as the sheet lists them; a script takes the one that is served.
    question["choices"][1] = {"key": "b", "says": "b"}
    job = Job(sheet_of(plug(questions=[question])))
    (ask,) = job.task("answer:q").asks
    assert ([choice.key for choice in ask.choices], ask.right) == (["a", "b"], "b")
