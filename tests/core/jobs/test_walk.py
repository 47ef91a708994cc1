"""Whoever fills the asks of the next move, again and again, arrives at release: the demo units, and sheets made up here."""

from __future__ import annotations

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.jobs.kinds.release import RELEASED
from ironkettle.core.jobs.task import Stage, Status
from ironkettle.core.sheets.soundness.check import check_document
from tests.bench import BEDE, INTAKE, TAMSIN, Job, filled
from tests.laws import tried
from tests.tiny import TABLES, UNITS, plug, sheet_of, unit


@pytest.mark.parametrize("key", sorted(path.stem for path in UNITS.glob("*.yaml")))
def test_the_tests_of_the_demo_are_told_in_figures(key: str) -> None:
    """A test whose figures its kind cannot read falls back to words: right for a stranger's sheet, a slip in ours."""
    assert {
        test: told.unreadable
        for test, told in Job(sheet_of(unit(key))).resolved.figure_tests.items()
        if told.unreadable
    } == {}


def test_there_is_one_next_task_at_every_moment_and_it_is_the_first_that_can_be_done() -> None:
    job = Job(sheet_of(unit("swing-bridge-ram")))
    while (task := job.next()) is not None:
        tasks = job.tasks()
        assert [one.key for one in tasks if one.status is Status.NEXT] == [task.key]
        before = tasks[: tasks.index(task)]
        assert all(one.status in {Status.DONE, Status.BLOCKED, Status.SKIPPED, Status.WAITING} for one in before)
        for one in tasks:
            assert (one.status is Status.BLOCKED) == bool(one.blocked_by)
        job.take(task)


def test_stages_come_in_their_order_and_those_without_tasks_not_at_all() -> None:
    stages = [task.stage for task in Job(sheet_of(unit("header-tank-valve"))).tasks()]
    assert stages == sorted(stages, key=list(Stage).index)
    assert Stage.MATCH not in stages
    assert Stage.SET not in stages


def test_what_came_off_is_recorded_at_once_in_the_order_it_comes_out() -> None:
    job = Job(sheet_of(unit("swing-bridge-ram")))
    job.walk(until=lambda task: task.key == "step:rod-out")
    keys = [task.key for task in job.tasks()]
    at = keys.index("step:rod-out")
    # From the rod side: the seal nearest it first; at the gland the ring before the backup behind it.
    assert keys[at + 1 : at + 6] == [
        "find:piston-lip-rod", "find:piston-band", "find:piston-lip-cap", "find:gland-ring", "find:gland-backup",
    ]  # fmt: skip
    assert keys[at + 6] == "step:piston-off"


def test_tightening_comes_at_the_step_that_tightens() -> None:
    keys = [task.key for task in Job(sheet_of(unit("swing-bridge-ram"))).tasks()]
    assert keys.index("tighten:piston-thread:0:1") == keys.index("step:piston-on") + 1
    assert keys.index("tighten:piston-thread:0:1") < keys.index("step:rod-in")


def chain(parts: int, rings: int, backups: bool, band: bool) -> dict[str, Any]:
    """Plugs one behind the other in one bore, each with rings of its own; the outermost comes off first."""
    length = 20
    bottom = 5
    mouth = bottom + 4 + parts * length
    body = [
        {"bar": {"from": 0, "to": bottom, "outer": 20}},
        {"tube": {"from": bottom - 1, "to": mouth, "inner": 10, "outer": 20}},
    ]
    document: dict[str, Any] = plug(parts__0__solid=body, zones__0__seeds=[{"at": [bottom + 2, 5]}])
    document["parts"] = document["parts"][:1]
    document["stations"], document["kits"][0]["lines"] = [], []
    strip, rebuild = [], []
    for n in range(parts):
        start = bottom + 4 + n * length
        # Only the innermost seals; the others are held by bands, and so part nothing.
        document["parts"].append(
            {
                "key": f"plug{n}",
                "name": f"Plug {n}",
                "solid": {"bar": {"from": start, "to": start + length - 0.5, "outer": 9.95}},
            }
        )
        elements: list[dict[str, Any]] = []
        if n == 0:
            for r in range(rings):
                elements.append({"key": f"ring{r}", "name": f"ring {r}", "kind": "o_ring", "ring": "metric 16x2.5"})
            if backups:
                elements.append({"key": "backup", "name": "backup", "kind": "backup_ring", "length": "1.2 mm"})
        if n > 0 or band:
            document["stations"].append(
                _station(
                    f"band{n}", f"plug{n}", start + 13, [{"key": f"band{n}", "name": f"band {n}", "kind": "wear_band"}]
                )
            )
        if elements:
            document["stations"].append(_station("seal", "plug0", start + 4, elements))
            document["kits"][0]["lines"] += [
                {"key": f"k{e['key']}", "name": e["name"], "element": e["key"]} for e in elements
            ]
        opens = [s["key"] for s in document["stations"] if s["carrier"] == f"plug{n}"]
        strip.insert(
            0, {"key": f"out{n}", "stage": "strip", "text": f"Plug {n} out", "takes_off": [f"plug{n}"], "opens": opens}
        )
        rebuild.append(
            {"key": f"in{n}", "stage": "rebuild", "text": f"Plug {n} in", "puts_on": [f"plug{n}"], "closes": opens}
        )
    document["steps"] = [document["steps"][0], *strip, {"key": "wash", "stage": "clean", "text": "Wash"}, *rebuild]
    return document


def _station(key: str, carrier: str, at: float, elements: list[dict[str, Any]]) -> dict[str, Any]:
    seat = {
        "kind": "piston", "at": at, "bore": "20 mm", "groove_diameter": "15.9 mm", "groove_width": "5 mm", "elements": elements,
    }  # fmt: skip
    return {
        "key": key, "name": f"Place {key}", "between": ["oil", "air"], "unproven": "made up", "carrier": carrier, "counterface": "body",
        "entered_from": "oil", "seats": [seat],
    }  # fmt: skip


@given(parts=st.integers(1, 4), rings=st.integers(1, 2), backups=st.booleans(), band=st.booleans())
@tried(20)
def test_sound_sheets_made_up_here_are_walked_too(parts: int, rings: int, backups: bool, band: bool) -> None:
    document = chain(parts, rings, backups, band)
    assert check_document(document, TABLES).faults == []
    job = Job(sheet_of(document))
    order = []
    while (task := job.next()) is not None:
        order.append(task.key)
        job.take(task)
    assert job.state.has(RELEASED, "released")
    # The order never fits a part under one that is already on: the innermost goes in first.
    put_on = [key for key in order if key.startswith("step:in")]
    assert put_on == [f"step:in{n}" for n in range(parts)]
    # Every element before the part that carries it, a backup before its ring where it is entered from that side.
    for key in job.resolved.elements:
        assert order.index(f"fit:{key}") < order.index(f"step:in{_part_of(job, key)}")
    if backups:
        assert order.index("fit:backup") < order.index("fit:ring0")


def _part_of(job: Job, key: str) -> str:
    return str(job.resolved.elements[key].station.carrier).removeprefix("plug")


def test_the_walk_is_the_same_when_it_is_folded_again() -> None:
    """A state is rebuilt from the log alone: the same tasks with the same status."""
    job = Job(sheet_of(unit("header-tank-valve")))
    job.walk(until=lambda task: task.key == "step:plunger-in")
    again = Job(job.sheet, intake=False)
    again.entries = list(job.entries)
    again.now = job.now
    assert again.tasks() == job.tasks()


def test_an_entry_needs_an_intake_first() -> None:
    job = Job(sheet_of(plug()), intake=False)
    with pytest.raises(Exception, match="the first entry of a job is its intake"):
        job.do({"kind": "note_made", "text": "hello"})
    job.do(INTAKE)
    job.do({"kind": "note_made", "text": "hello"})


@pytest.mark.parametrize("key", sorted(path.stem for path in UNITS.glob("*.yaml")))
@given(chance=st.randoms(use_true_random=False))
@tried(2)
def test_whatever_open_task_is_taken_the_job_still_ends(key: str, chance: Any) -> None:
    """Two people, interruptions, another order: anything that is open may be done, and nothing is ever stuck."""
    job = Job(sheet_of(unit(key)))
    for _ in range(200):
        tasks = job.tasks()
        ready = [task for task in tasks if task.status in {Status.NEXT, Status.OPEN}]
        if not ready:
            break
        job.take(chance.choice(ready))
    assert job.state.has(RELEASED, "released")
    assert {task.status for task in job.tasks()} == {Status.DONE}


@given(chance=st.randoms(use_true_random=False))
@tried(6)
def test_whatever_is_passed_over_blocks_nothing_for_ever(chance: Any) -> None:
    """A third of the tasks skipped with a reason; the rest can still be done, and it can be signed."""
    job = Job(sheet_of(unit("swing-bridge-ram")))
    for _ in range(200):
        tasks = job.tasks()
        ready = [task for task in tasks if task.status in {Status.NEXT, Status.OPEN}]
        if not ready:
            break
        task = chance.choice(ready)
        if chance.random() < 0.33 and task.key not in {"sign", "account", "intake"}:
            job.do(
                {"kind": "task_skipped", "task": task.key, "reason": "not needed today", "grounds": "safe_elsewhere"}
            )
            continue
        # What is there against a danger was skipped: the lead answers for it.
        job.author = TAMSIN if task.key == "sign" else BEDE
        job.take(task)
    assert job.state.has(RELEASED, "released")


def test_what_came_in_is_tested_before_it_is_taken_apart() -> None:
    """Stripped, it can be tested as found no more; so the strip-down waits, and a test struck out afterwards is no move."""
    job = Job(sheet_of(unit("weed-skip-ram")))
    first = next(one.key for one in job.tasks() if one.stage is Stage.STRIP and one.kind.key == "step")
    job.walk(until=lambda task: task.kind.key == "test")
    assert job.task(first).status is Status.BLOCKED
    assert "cannot be tested as found" in " ".join(job.task(first).blocked_by)
    test = job.next()
    assert test is not None
    entry = job.take(test)
    job.walk(until=lambda task: task.key == first)
    job.do(filled(job.task(first)))
    job.do({"kind": "entry_struck", "entry": str(entry), "reason": "another unit on the stand"})
    assert job.task(test.key).status is Status.SKIPPED
    job.walk()
    assert job.state.has(RELEASED, "released")
