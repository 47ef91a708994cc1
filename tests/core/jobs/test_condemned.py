"""A part that inspection condemned stays out: on every shipped sheet, against every way round it that a technician has."""

from __future__ import annotations

from datetime import date

import pytest

from ironkettle.core.base.errors import NotAllowedError, RefusedError, RuleError
from ironkettle.core.jobs import compose_statement
from ironkettle.core.jobs.kinds.inspection import standing
from ironkettle.core.jobs.kinds.release import RELEASED
from ironkettle.core.shop.people import Author, Authorisation, Authority, Role
from tests.bench import BEDE, TAMSIN, Job, filled
from tests.tiny import UNITS, plug, sheet_of, unit

EVERY = sorted(path.stem for path in UNITS.glob("*.yaml"))
HOLDER = Author(
    "holder", "Rowan Tideway", Role.LEAD, tuple(Authorisation(one, date(2027, 12, 31)) for one in Authority)
)


def condemned(key: str, verdict: str = "replace") -> tuple[Job, str]:
    """A job whose first part that is read, goes back on and is in no kit was condemned by its reader."""
    job = Job(sheet_of(unit(key)))
    in_kit = {part for line in job.resolved.kit_lines.values() for part in line.all_parts}
    back_on = {part for step in job.resolved.sheet.steps for part in step.puts_on}
    while (task := job.next()) is not None:
        if task.key.startswith("measure:") and task.subject in back_on - in_kit:
            job.do(filled(task, verdict=verdict, note="scored from end to end"))
            return job, task.subject
        job.take(task)
    pytest.skip("no part of this unit is read, goes back on and is in no kit")


@pytest.mark.parametrize("key", EVERY)
def test_it_goes_on_no_more_and_is_tested_no_more_until_a_new_one_has_come(key: str) -> None:
    job, part = condemned(key)
    on = next(step.key for step in job.resolved.sheet.steps if part in step.puts_on)
    tested = [test.key for test in job.resolved.sheet.tests if test.when != "as_found"]
    job.walk(until=lambda task: task.key == f"receive:part-{part}")
    for task in (f"step:{on}", *(f"test:{one}:as_left" for one in tested)):
        assert job.task(task).refusal == "condemned", task
    with pytest.raises(RefusedError, match="is condemned") as caught:
        job.do(filled(job.task(f"step:{on}")))
    assert caught.value.code == "condemned"
    with pytest.raises(RuleError, match="what serial or batch stands on the new one"):
        job.do({"kind": "part_arrived", "what": f"part-{part}", "counted": job.resolved.parts[part].count})
    job.walk(until=lambda task: task.key == f"step:{on}")
    assert job.next() is not None
    told = compose_statement(job.case(), job.tasks())
    name = job.resolved.parts[part].name
    assert any(line.startswith(f"{name}: condemned; the new one was ordered 24 Nov 2026") for line in told)


def test_all_that_is_short_is_ordered_before_anybody_waits_for_the_first_of_it() -> None:
    job = Job(sheet_of(unit("needle-scaler")))
    while (task := job.next()) is not None and not task.key.startswith("order:"):
        reads = task.key.startswith("measure:") and task.subject in ("barrel", "nose")
        job.do(filled(task, **{"verdict": "replace", "note": "scored from end to end"} if reads else {}))
    coming = [task.key for task in job.tasks() if task.key.startswith(("order:", "receive:"))]
    assert coming == ["order:part-barrel", "order:part-nose", "receive:part-barrel", "receive:part-nose"]
    assert job.task("order:part-nose").text == "Order 1 × Nose"


def test_what_is_sent_out_is_not_ordered_new() -> None:
    job, part = condemned("header-tank-valve", "send_out")
    job.walk(until=lambda task: task.key == f"order:part-{part}")
    assert job.task(f"order:part-{part}").text.startswith("Order the work on 1 × ")


@pytest.mark.parametrize("verdict", ["replace", "send_out"])
def test_no_way_round_it_is_open_to_a_technician_and_each_is_to_the_lead(verdict: str) -> None:
    job, part = condemned("header-tank-valve", verdict)
    read = job.entries[-1][1].entry
    job.walk(until=lambda task: task.key == f"receive:part-{part}")
    skip = {"kind": "task_skipped", "task": f"receive:part-{part}", "reason": "it will do for this season"}
    strike = {"kind": "entry_struck", "entry": str(read), "reason": "it was not so bad"}
    again = filled(job.task(f"measure:{part}"), verdict="reuse", note="looked at it again in better light")
    for way in (skip, strike, again):
        with pytest.raises(NotAllowedError, match="only the lead overrules that, in writing") as caught:
            job.do(way)
        assert caught.value.code == "condemned"
    # As hard, or harder: that is nobody's favour.
    job.do(filled(job.task(f"measure:{part}"), verdict=verdict, note="as bad as before"))
    job.author = TAMSIN
    job.do(again)
    assert standing(job.case(), part) == "reuse"
    job.author = BEDE
    job.walk()
    assert job.state.has(RELEASED, "released")


def test_for_life_support_the_lead_is_not_enough() -> None:
    job, part = condemned("escape-set-regulator")
    job.walk(until=lambda task: task.key == f"receive:part-{part}")
    skip = {"kind": "task_skipped", "task": f"receive:part-{part}", "reason": "it will do for this season"}
    for author in (BEDE, TAMSIN):
        job.author = author
        with pytest.raises(NotAllowedError, match="only a person authorised for"):
            job.do(skip)
    job.author = HOLDER
    job.do(skip)
    assert any("it will do for this season" in line for line in compose_statement(job.case(), job.tasks()))


def test_what_came_before_it_was_condemned_is_no_new_one() -> None:
    job, part = condemned("swing-bridge-ram")
    job.walk(until=lambda task: task.key == f"receive:part-{part}")
    job.take(job.task(f"receive:part-{part}"))
    # The new one is bad as well.
    job.do(filled(job.task(f"measure:{part}"), verdict="replace", note="bent in its box"))
    assert job.task(f"receive:part-{part}").status != "done"
    job.walk(until=lambda task: task.key == f"receive:part-{part}")
    job.take(job.task(f"receive:part-{part}"))
    job.walk()
    assert job.state.has(RELEASED, "released")


@pytest.mark.parametrize("key", EVERY)
def test_a_part_that_was_dressed_is_read_and_washed_again_before_it_goes_on(key: str) -> None:
    job = Job(sheet_of(unit(key)))
    washes = [step.key for step in job.resolved.sheet.steps if step.stage == "clean"]
    read = [part.key for part in job.resolved.sheet.parts if part.points]
    if not washes or not read:
        pytest.skip("nothing is washed, or nothing is read")
    job.walk(until=lambda task: task.key == f"measure:{read[0]}")
    job.take(job.task(f"measure:{read[0]}"))
    before = {wash for wash in washes if job.task(f"step:{wash}").status == "done"}
    job.do({"kind": "part_dressed", "part": read[0]})
    assert job.task(f"measure:{read[0]}").status != "done"
    assert not before or any(job.task(f"step:{wash}").status != "done" for wash in before)


def test_a_kit_that_nobody_counted_brings_no_new_part() -> None:
    """Condemned, and in a kit: counted with it the new one is there; with its count skipped nobody has seen one."""
    document = plug(
        parts__1__points=[{"key": "face", "ask": "Sealing face without a mark?", "read": "yes_no", "else": "replace"}],
        parts__1__fate="judge",
    )
    document["kits"][0]["lines"].append({"key": "k-plug", "name": "plug", "part": "plug"})
    counted, skipped = Job(sheet_of(document)), Job(sheet_of(document))
    for job in (counted, skipped):
        job.walk(until=lambda task: task.key == "measure:plug")
        job.do(filled(job.task("measure:plug"), **{"points.0.good": False}))
        assert standing(job.case(), "plug") == "replace"
        job.walk(until=lambda task: task.key == "count:T-1")
    counted.take(counted.task("count:T-1"))
    counted.walk()
    assert counted.state.has(RELEASED, "released")
    skipped.do({"kind": "task_skipped", "task": "count:T-1", "reason": "the bag was shut and labelled"})
    assert skipped.task("step:in").refusal == "condemned"
    skipped.walk(until=lambda task: task.key == "receive:part-plug")
    assert skipped.next() is not None
