"""The record holds only what was said, and nothing leads the hand: laws over every task of every shipped sheet."""

from __future__ import annotations

import pytest

from ironkettle.core.base.errors import RefusedError, RuleError
from ironkettle.core.jobs import Status, Task, compose_statement, payload_words
from ironkettle.core.jobs.filling import as_proposed, records_of
from ironkettle.core.jobs.kinds.find import FOUND
from ironkettle.core.jobs.kinds.fitting import FITTED
from ironkettle.core.jobs.kinds.release import RELEASED
from ironkettle.core.jobs.lubricating import duty_of, proposed_lubricant, refused_lubricant
from ironkettle.core.jobs.screen import PlainScreen
from ironkettle.core.sealing.compounds import LUBRICANTS, STRICT, Lubricant
from ironkettle.core.sheets.document.parts import Read
from tests.bench import Job, filled
from tests.tiny import UNITS, plug, sheet_of, unit

EVERY = sorted(path.stem for path in UNITS.glob("*.yaml"))
# The most actions that the trade's patience allows, intake included.
MOST = {"header-tank-valve": 25, "swing-bridge-ram": 90}
GUARDED = [key for key in EVERY if unit(key)["service"].get("cleanliness") in {"breathing", "oxygen", "potable"}]


@pytest.mark.parametrize("key", EVERY)
def test_every_unit_comes_to_release_by_its_cards_and_the_log_says_what_they_said(key: str) -> None:
    """Taken as proposed, an entry says in the log, word for word, what its task said; a reversed seal is refused with the reason alone."""
    job, told = Job(sheet_of(unit(key))), 0
    while (task := job.next()) is not None:
        _is_refused_reversed(job, task)
        records, payload = records_of(job.case(), task), filled(task)
        job.take(task)
        if records and payload == as_proposed(task):
            assert (payload_words(job.resolved, job.entries[-1][0]),) == records, task.key
            told += 1
    assert told > 0
    assert job.state.has(RELEASED, "released")
    assert {task.status for task in job.tasks()} == {Status.DONE}
    assert len(job.entries) <= MOST.get(key, 120)
    # Nothing but the unit's own elements, each fitted once.
    assert set(job.state.book(FITTED)) == set(job.state.book(FOUND)) == set(job.resolved.elements)


def _is_refused_reversed(job: Job, task: Task) -> None:
    ask = next((ask for ask in task.asks if ask.field == "faces" and ask.right is not None), None)
    if ask is None:
        return
    wrong = next(choice.key for choice in ask.choices if choice.key != ask.right)
    with pytest.raises(RuleError, match="reversed: ") as caught:
        job.do(filled(task, faces=wrong))
    (fault,) = caught.value.faults
    assert caught.value.code == "reversed"
    assert fault.accepts == ()
    said = fault.message.replace(job.resolved.elements[task.subject].spec.name, "")
    assert job.resolved.zone_names[str(ask.right)] not in said


def _directed(job: Job) -> list[tuple[Task, str]]:
    return [(task, ask.field) for task in job.tasks() for ask in task.asks if ask.read is Read.ZONE]


@pytest.mark.parametrize("key", EVERY)
def test_choices_of_direction_stand_as_drawn_and_none_is_proposed(key: str) -> None:
    job = Job(sheet_of(unit(key)))
    for task, field in _directed(job):
        ask = next(ask for ask in task.asks if ask.field == field)
        element = job.resolved.elements[task.subject]
        assert [choice.key for choice in ask.choices] == list(element.station.between)
        assert ask.proposed is None
        assert ask.right == job.resolved.oriented[task.subject].faces


@pytest.mark.parametrize("key", EVERY)
def test_what_is_asked_about_a_fit_is_told_neither_by_its_text_nor_by_the_drawing(key: str) -> None:
    job = Job(sheet_of(unit(key)))
    for task in (task for task in job.tasks() if task.key.startswith("fit:")):
        right = job.resolved.oriented[task.subject].faces
        if right is None:
            continue
        assert f"towards {job.resolved.zone_names[right]}".casefold() not in task.text.casefold(), task.key
        screen = task.kind.screen(job.case(), task)
        assert isinstance(screen, PlainScreen)
        assert task.subject in screen.neutral


@pytest.mark.parametrize("key", EVERY)
def test_what_is_proposed_to_be_fitted_with_suits_compound_and_duty(key: str) -> None:
    case = Job(sheet_of(unit(key))).case()
    for at in case.resolved.elements.values():
        assert refused_lubricant(case, at, proposed_lubricant(case, at)) == ()


@pytest.mark.parametrize("key", GUARDED)
def test_where_it_is_breathed_or_drunk_no_reason_brings_another_lubricant_on(key: str) -> None:
    job = Job(sheet_of(unit(key)))
    job.walk(until=lambda task: task.key.startswith("fit:"))
    task = job.next()
    assert task is not None
    duty = duty_of(job.case())
    assert duty in STRICT
    barred = [one for one, facts in LUBRICANTS.items() if duty not in facts.listed_for and one is not Lubricant.DRY]
    assert len(barred) > 10
    for lubricant in barred:
        with pytest.raises(RuleError, match="no reason overrules this") as caught:
            job.do(filled(task, lubricant=lubricant.value, against="the lead said it is all right this time"))
        assert caught.value.code == "wrong-lubricant"


def test_an_old_part_is_kept_and_a_new_one_comes_from_somewhere_by_an_answer_only() -> None:
    element = {"stations__0__seats__0__elements__0__one_use": False}
    job = Job(sheet_of(plug(kits=None, **element)))
    job.walk(until=lambda task: task.key == "fit:ring")
    task = job.next()
    assert task is not None
    assert records_of(job.case(), task) == ()
    with pytest.raises(RuleError, match=r"Is the old plug ring fitted again\?” is not answered"):
        job.do(as_proposed(task))
    with pytest.raises(RuleError, match="in no kit: where is the new one from"):
        job.do(as_proposed(task) | {"reused": False})
    job.do(filled(task, reused=False, source="ordered"))
    assert "new, ordered for this job" in payload_words(job.resolved, job.entries[-1][0])


def test_a_word_on_the_tin_becomes_its_entry_on_the_record() -> None:
    job = Job(sheet_of(plug()))
    job.walk(until=lambda task: task.key == "fit:ring")
    task = job.next()
    assert task is not None
    job.do(filled(task, lubricant="  White  Grease "))
    assert job.entries[-1][0].model_dump()["lubricant"] == "lithium_grease"
    assert payload_words(job.resolved, job.entries[-1][0]).endswith("lithium grease")


def test_only_what_is_open_is_taken() -> None:
    job = Job(sheet_of(plug()))
    waiting = next(task for task in job.tasks() if task.key == "fit:ring")
    assert waiting.status is Status.BLOCKED
    with pytest.raises(RefusedError):
        job.do(filled(waiting))


@pytest.mark.parametrize(
    ("sheet", "element", "wrong"),
    [("weed-skip-ram", "wiper", "40 × 50 × 7"), ("weed-skip-ram", "vees", "20 × 40"), ("weed-skip-ram", "vees", "the usual ones")],
)  # fmt: skip
def test_a_size_that_is_not_the_seat_s_is_refused_but_for_a_reason_in_writing(
    sheet: str, element: str, wrong: str
) -> None:
    job = Job(sheet_of(unit(sheet)))
    job.walk(until=lambda task: task.key == f"identify:{element}")
    chosen = {"kind": "size_chosen", "element": element, "size": wrong}
    with pytest.raises(RuleError, match=r"does not fit: the seat is|is no size") as caught:
        job.do(chosen)
    assert caught.value.faults[0].field == "size"
    if "×" not in wrong:
        return
    assert caught.value.code == "wrong-size"
    job.do({**chosen, "reason": "turned to this size by the machine shop"})
    told = compose_statement(job.case(), job.tasks())
    assert any("turned to this size by the machine shop" in line for line in told)


@pytest.mark.parametrize(
    ("reading", "code", "says"),
    [("5000 N·m", "too-tight", "loosen it, renew it"), ("1 N·m", "out-of-limits", "is not tight")],
)
def test_over_the_range_is_too_tight_and_under_it_not_tight(reading: str, code: str, says: str) -> None:
    tried = 0
    for key in EVERY[:6]:
        job = Job(sheet_of(unit(key)))
        job.walk(
            until=lambda task: task.key.startswith("tighten:") and any("readings" in ask.field for ask in task.asks)
        )
        task = job.next()
        if task is None:
            continue
        with pytest.raises(RuleError, match=says) as caught:
            job.do(filled(task, **{"readings.0.reading": reading}))
        assert caught.value.code == code
        tried += 1
    assert tried >= 4


def test_where_a_new_one_is_from_is_asked_once_the_old_one_does_not_go_back() -> None:
    job = Job(sheet_of(unit("swing-bridge-ram")))
    job.walk(until=lambda task: task.key == "fit:piston-band")
    source = next(ask for ask in job.task("fit:piston-band").asks if ask.field == "source")
    assert [choice.only for choice in source.choices] == [{"reused": "no"}] * 2
