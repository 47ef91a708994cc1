"""A made-up kind of entry in one module: listed, asked, recorded, logged, told, struck out; and what every kind declares."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Literal

import pytest

from ironkettle.core.base.errors import NotAllowedError, RefusedError, RuleError, fault
from ironkettle.core.jobs import Case, Mark, Payload, State, Task, compose_statement, registry
from ironkettle.core.jobs.ask import Ask
from ironkettle.core.jobs.handover import hand_over
from ironkettle.core.jobs.kind import AND_STORES, EntryKind, Line, Section, keep
from ironkettle.core.jobs.kinds.base import Short
from ironkettle.core.jobs.registry import ENTRY_KINDS, Registry, payload_words, read_payload, task_key_of
from ironkettle.core.jobs.screen import Screen
from ironkettle.core.jobs.signing import check_may_write, needs_signature
from ironkettle.core.jobs.snapshot import from_snapshot, to_snapshot
from ironkettle.core.jobs.state import Book
from ironkettle.core.jobs.task import Draft, Stage, Status, TaskKind
from ironkettle.core.sheets.document.parts import Read
from ironkettle.core.shop.people import Author, Role
from tests.bench import BEDE, TAMSIN, Job
from tests.tiny import sheet_of, unit

# --- the made-up kind: a painter paints the unit once it is together -----------------------------------------------


class PaintScreen(Screen):
    kind: Literal["paint"] = "paint"
    tin: str


_TASK = TaskKind("paint", "Painted", screen=lambda case, task: PaintScreen(tin="grey"))


class Painted(Payload):
    kind: Literal["painted"] = "painted"
    colour: Short


PAINTED: Book[str, Painted] = Book("painted")


def _check(case: Case, payload: Painted) -> None:
    if payload.colour == "pink":
        raise fault("colour", "the shop has no pink", "grey")


def _tasks(case: Case) -> Iterator[Draft]:
    rebuilt = {f"step:{step.key}": "" for step in case.resolved.sheet.steps if step.stage == "rebuild"}
    task = Task(
        "paint",
        Stage.RELEASE,
        _TASK,
        "paint",
        "Paint it",
        {"kind": "painted"},
        asks=(Ask("colour", Read.TEXT, "Colour"),),
    )
    yield Draft(task, case.state.has(PAINTED, "paint"), after=rebuilt)


def _against(case: Case, tasks: Sequence[Task]) -> Iterator[str]:
    for marked in case.state.book(PAINTED).values():
        if marked.value.colour == "primer":
            yield "Painted with primer only."


def _hand_over(case: Case) -> Iterator[Line]:
    for marked in case.state.book(PAINTED).values():
        yield Line.by(Section.DECIDED, f"painted {marked.value.colour}", marked.mark)


PAINT = EntryKind(
    payload=Painted,
    former=("coated",),
    check=_check,
    apply=keep(PAINTED, lambda one: "paint"),
    words=lambda resolved, payload: f"painted {payload.colour}",
    tasks=_tasks,
    completes="paint",
    writers=AND_STORES,
    screens=(PaintScreen,),
    against=_against,
    hand_over=_hand_over,
)

# -------------------------------------------------------------------------------------------------------------------


@pytest.fixture
def painting(monkeypatch: pytest.MonkeyPatch) -> Job:
    """A job of a shop that paints, walked until the paint is next."""
    monkeypatch.setattr(registry, "REGISTRY", Registry([*ENTRY_KINDS, PAINT]))
    job = Job(sheet_of(unit("header-tank-valve")))
    job.walk(until=lambda task: task.key == "paint")
    return job


def test_it_is_listed_and_asked_in_its_stage_and_waits_for_what_it_says(painting: Job) -> None:
    task = painting.task("paint")
    assert (task.stage, task.status, task.kind.action) == (Stage.RELEASE, Status.NEXT, "Painted")
    assert [ask.label for ask in task.asks] == ["Colour"]
    assert task.kind.screen(painting.case(), task) == PaintScreen(tin="grey")
    # The signature waits for everything, so for the paint as well.
    assert painting.task("sign").status is Status.BLOCKED
    early = Job(sheet_of(unit("header-tank-valve")))
    with pytest.raises(RefusedError, match="first: "):
        early.do({"kind": "painted", "colour": "grey"})


def test_it_is_checked_recorded_logged_and_told(painting: Job) -> None:
    with pytest.raises(RuleError, match="no pink"):
        painting.do({"kind": "painted", "colour": "pink"})
    painting.do({"kind": "painted", "colour": "primer"})
    assert painting.task("paint").status is Status.DONE
    payload, _ = painting.entries[-1]
    assert (payload_words(painting.case().resolved, payload), task_key_of(payload)) == ("painted primer", "paint")
    assert "Painted with primer only." in compose_statement(painting.case(), painting.tasks())
    assert [line.words for line in hand_over(painting.case(), painting.tasks()).decided if "painted" in line.words] == [
        "painted primer"
    ]
    assert from_snapshot(to_snapshot(painting.state)) == painting.state


def test_it_is_struck_out_and_asked_again(painting: Job) -> None:
    entry = painting.do({"kind": "painted", "colour": "primer"})
    painting.do({"kind": "entry_struck", "entry": entry, "reason": "it was the other valve"})
    assert painting.task("paint").status is Status.NEXT
    assert not painting.state.book(PAINTED)


def test_its_former_name_is_read_and_who_writes_it_follows(painting: Job) -> None:
    payload = read_payload({"kind": "coated", "colour": "grey"})
    assert payload == Painted(colour="grey")
    assert not needs_signature(payload)
    check_may_write(Author("s", "Stores", Role.STORES, ()), payload)
    with pytest.raises(NotAllowedError):
        check_may_write(Author("s", "Stores", Role.STORES, ()), read_payload({"kind": "released"}))


def test_a_move_of_an_older_log_is_read_as_a_task() -> None:
    old = read_payload({"kind": "move_skipped", "move": "step:bleed", "reason": "came in pieces"})
    assert old == read_payload({"kind": "task_skipped", "task": "step:bleed", "reason": "came in pieces"})
    assert old.model_dump(mode="json")["kind"] == "task_skipped"


def test_names_of_kinds_books_and_screens_are_each_one() -> None:
    names = [name for kind in ENTRY_KINDS for name in (kind.name, *kind.former)]
    assert len(names) == len(set(names))
    screens = [screen.model_fields["kind"].default for screen in registry.SCREENS]
    assert len(screens) == len(set(screens))


def test_what_stays_signs_and_reopens_is_declared() -> None:
    by = {kind.name: kind for kind in ENTRY_KINDS}
    assert {name for name, kind in by.items() if kind.signed} == {"released", "job_ended", "reopened", "task_skipped"}
    assert {name for name, kind in by.items() if kind.stays} == {"released", "job_ended", "reopened", "entry_struck"}
    assert {name for name, kind in by.items() if kind.reopens} == {"reopened"}
    assert {name for name, kind in by.items() if kind.opens} == {"intake_recorded"}


def test_a_payload_of_another_kind_is_no_entry_of_this_one() -> None:
    mark = Mark.__new__(Mark)
    with pytest.raises(TypeError, match="is no Painted"):
        PAINT.apply_payload(State(), read_payload({"kind": "disposed", "done": True}), mark)
    assert (BEDE.role, TAMSIN.role) == (Role.TECHNICIAN, Role.LEAD)
