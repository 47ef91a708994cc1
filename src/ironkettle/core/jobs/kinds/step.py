"""A step of work done, with everything that rides on it: parts off and their places, marks, alignment, free movement."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from pydantic import Field

from ironkettle.core.base.errors import RefusedError, fault
from ironkettle.core.base.json import JsonObject
from ironkettle.core.jobs.ask import Ask
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.cleaning import check_cleaner, cleaner_choices, cleaning_words, proposed_cleaner
from ironkettle.core.jobs.flammable import Act, check_heat
from ironkettle.core.jobs.kind import EntryKind, Line, Section, keep
from ironkettle.core.jobs.kinds.base import (
    ItemKey,
    Note,
    Reason,
    Short,
    after_steps,
    ask_yes,
    check_confirmed,
    delicate_of,
    known,
    merged,
)
from ironkettle.core.jobs.kinds.rinse import check_residue
from ironkettle.core.jobs.kinds.skip import is_skipped
from ironkettle.core.jobs.kinds.take_apart import undone
from ironkettle.core.jobs.noting import check_noted, noted_words, noting_asks
from ironkettle.core.jobs.relief import relief_of
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.jobs.rungs import rung_acts, rungs_of
from ironkettle.core.jobs.state import Book, Payload
from ironkettle.core.jobs.step_words import grip_words, left_on, mark_words, met_words, shown_at
from ironkettle.core.jobs.task import Draft, Task, TaskKind, stage_of
from ironkettle.core.sealing.compounds import cleaner_words, find_cleaner
from ironkettle.core.sheets.document.hazards import is_hot
from ironkettle.core.sheets.document.parts import Fate, Read
from ironkettle.core.sheets.document.work import StepSpec
from ironkettle.core.sheets.soundness.order import off_order

STEP = TaskKind("step", "Done", rank=1)


class PartOff(Payload):
    """A part that came off, and its numbered place in the tray."""

    part: ItemKey
    place: int = Field(ge=1, le=999)


class StepDone(Payload):
    """``note``: what the step asks for; ``readings``: where it asks for several; ``against``: why it is so all the same outside its limit.

    ``cleaner``: what its parts were cleaned with, a key of the list.
    """

    kind: Literal["step_done"] = "step_done"
    step: ItemKey
    note: Note = ""
    readings: list[Short] = Field(default_factory=list, max_length=12)
    parts_off: list[PartOff] = Field(default_factory=list, max_length=200)
    marked: bool | None = None
    met: bool | None = None
    aligned: bool | None = None
    free: bool | None = None
    page: Short | None = None
    against: Reason | None = None
    cleaner: Short | None = None


STEPS: Book[str, StepDone] = Book("steps")


def _check(case: Case, payload: StepDone) -> None:
    known("step", payload.step, case.resolved.steps, "step")
    step = case.resolved.steps[payload.step]
    if step.note is not None and step.note.page and not payload.page:
        raise fault("page", f"{step.note.ask}: enter the manual and page")
    check_noted(case, step, payload.note, payload.readings, payload.against)
    for index, off in enumerate(payload.parts_off):
        known(f"parts_off.{index}.part", off.part, step.takes_off, "part removed in this step")
    if step.mark:
        check_confirmed("marked", payload.marked, f"make the mark first: {mark_words(case.resolved, step)}")
    if step.meets:
        check_confirmed("met", payload.met, "the marks must line up before work goes on")
    if step.align:
        check_confirmed("aligned", payload.aligned, f"align it before work goes on: {step.align}")
    if step.free and payload.free is None:
        raise fault("free", f"does it move freely: {step.free}?", "yes", "no")
    if step.free and payload.free is False and not payload.note:
        raise fault("note", "say how it moved")
    cleaner = check_cleaner(case, step, payload.cleaner)
    if cleaner is not None:
        check_residue(case, [cleaner], step.key)
    check_heat(case, acts_of(case), hot=is_hot(step.text, step.hot), liquids=_liquids(step, payload))


def _liquids(step: StepSpec, payload: StepDone) -> tuple[str, ...]:
    return (*step.consumables, *([payload.cleaner] if payload.cleaner else []))


def acts_of(case: Case) -> Iterator[Act]:
    """What was done to the unit by steps and rungs, as far as heat and flammable liquids go."""
    yield from rung_acts(case)
    for key, marked in case.state.book(STEPS).items():
        step = case.resolved.steps.get(key)
        if step is not None:
            yield Act(step.text, marked.mark, is_hot(step.text, step.hot), _liquids(step, marked.value))


def is_done(case: Case, step: StepSpec) -> bool:
    """Whether a step counts as done: not where it did not move freely, nor where a test has pressed the unit since."""
    marked = case.state.book(STEPS).get(step.key)
    if marked is None or marked.value.free is False or undone(case, "steps", step.key, marked.mark):
        return False
    stuck = _stuck_since(case, marked.mark.seq)
    if stuck and step.key in stuck:
        return False
    if _dressed_since(case, step, marked.mark.seq):
        return False
    return not (_pressed_since(case, step, marked.mark.seq) and _work_ahead(case))


def _dressed_since(case: Case, step: StepSpec, seq: int) -> bool:
    """Whether a part that this step cleans was dressed after it: what came off lies on it. One that no step names goes into every wash."""
    named = {part for other in case.resolved.sheet.steps for part in other.cleans}
    unnamed = {part.key for part in case.resolved.sheet.parts} - named if step.stage == "clean" else set()
    return any(case.state.changed.get(f"part:{part}", 0) > seq for part in {*step.cleans, *unnamed})


def _stuck_since(case: Case, seq: int) -> set[str]:
    """The step that put it on, for what was found not to move freely after it."""
    found: set[str] = set()
    if all(marked.value.free is not False for marked in case.state.book(STEPS).values()):
        return found
    listed = [step for step in case.resolved.sheet.steps if step.stage == "rebuild"]
    for place, step in enumerate(listed):
        marked = case.state.book(STEPS).get(step.key)
        if step.free and marked is not None and marked.value.free is False and marked.mark.seq > seq:
            back = next((earlier for earlier in reversed(listed[:place]) if earlier.puts_on), None)
            if back is not None and not step.puts_on:
                found.add(back.key)
    return found


def _pressed_since(case: Case, step: StepSpec, seq: int) -> bool:
    """Whether a step comes back because a test pressed the unit after it.

    By rule every step of making safe, after a test on machine or stand; where the sheet says so any step, after any test.
    """
    if step.again_after_pressure is False or (step.again_after_pressure is None and step.stage != "safe"):
        return False
    places = {test.key: test.place for test in case.resolved.sheet.tests}
    # What was opened after a test holds its pressure no more.
    opened = [case.state.book(STEPS).get(other.key) for other in case.resolved.sheet.steps if is_stripping(other)]
    last = max([seq, *(marked.mark.seq for marked in opened if marked is not None)])
    since = [run for run in case.state.runs.values() if run.mark.seq > last]
    return any(step.again_after_pressure or places.get(run.test) in {"machine", "stand"} for run in since)


def _work_ahead(case: Case) -> bool:
    """Whether a spanner goes on again: a step of taking apart or of putting together is open, or was taken back."""
    done = case.state.book(STEPS)
    work = [step.key for step in case.resolved.sheet.steps if step.stage in {"strip", "rebuild"}]
    return any(key not in done or undone(case, "steps", key, done[key].mark) for key in work)


def _drafts(case: Case) -> Iterator[Draft]:
    resolved = case.resolved
    safe = {f"step:{other.key}": "" for other in resolved.sheet.steps if other.stage == "safe"}
    found = {f"test:{test.key}:as_found": "" for test in resolved.sheet.tests if test.when in {"as_found", "both"}}
    places = off_order(resolved.sheet)
    for step in resolved.sheet.steps:
        early = step.timer is not None and step.timer.early
        after: dict[str, str] = {} if early else merged(after_steps(case, step.key), relief_of(case, step))
        if step.stage in {"strip", "clean"} and not early:
            after = merged(after, dict.fromkeys(safe, "make it safe first"))
        if is_stripping(step):
            after = merged(after, dict.fromkeys(found, "it cannot be tested as found once it is stripped"))
        after.update({f"fit:{key}": "" for key in _fits_of(resolved, step)})
        refusal = "not-safe" if step.stage == "safe" else "blocked"
        yield Draft(_task(case, step, places), is_done(case, step), step=step.key, after=after, refusal=refusal)


def _fits_of(resolved: Resolved, step: StepSpec) -> list[str]:
    """The elements that go in before a step is done: those of the stations it closes."""
    return [key for station in step.closes for key in resolved.fitting_order.get(station, ())]


def _task(case: Case, step: StepSpec, places: dict[str, int]) -> Task:
    resolved = case.resolved
    handled = [resolved.parts[key] for key in (*step.takes_off, *step.puts_on, *step.handles) if key in resolved.parts]
    entry: JsonObject = {"kind": "step_done", "step": step.key}
    off = {key: places.get(key, 0) + 1 for key in step.takes_off}
    if step.takes_off:
        entry["parts_off"] = [{"part": key, "place": place} for key, place in off.items()]
    # A part seizes where its fasteners are loosened, or else where it comes off.
    moved = {resolved.groups[key].part for key in step.loosens if key in resolved.groups} | set(step.takes_off)
    ladder = next((other for other in resolved.sheet.ladders if other.part in moved), None)
    if step.mark:
        entry["marked"] = True
    return Task(
        f"step:{step.key}",
        stage_of(step),
        STEP,
        step.key,
        step.text,
        entry,
        why=step.why,
        caution=step.caution,
        tools=(*step.tools, *step.consumables),
        delicate=(*delicate_of(handled), *cleaning_words(case, step), *left_on(resolved, step)),
        place=next(iter((*step.opens, *step.closes, *step.handles, *step.takes_off, *step.puts_on)), None),
        hold=grip_words(resolved, step),
        asks=(*_asks(resolved, step), *_ask_cleaner(case, step)),
        tray=tuple(f"place {place}: {resolved.parts[key].name}" for key, place in off.items() if key in resolved.parts),
        ladder=rungs_of(case, ladder) if ladder else (),
        stop=ladder.stop if ladder else None,
        photo=step.photo,
        practice=case.tables.settings.practice["scrap"] if step.stage == "strip" and step.takes_off else None,
        again=step.stage == "strip",
        shows=shown_at(resolved, step),
    )


def _asks(resolved: Resolved, step: StepSpec) -> Iterator[Ask]:
    if step.mark:
        yield Ask("marked", Read.YES_NO, mark_words(resolved, step), proposed=True)
    if step.meets:
        yield ask_yes("met", f"Do the marks line up: {', '.join(met_words(resolved, step))}?")
    if step.align:
        yield ask_yes("aligned", f"Aligned: {step.align}?")
    if step.free:
        yield ask_yes("free", f"Free: {step.free}?")
    yield from noting_asks(step)


def _ask_cleaner(case: Case, step: StepSpec) -> Iterator[Ask]:
    choices, proposed = cleaner_choices(case, step), proposed_cleaner(case, step)
    if choices and proposed is not None:
        yield Ask("cleaner", Read.CHOICE, "Cleaned with", choices, proposed=proposed.value, right=proposed.value)


def renewed(resolved: Resolved, part: str) -> bool:
    """Whether a part is always new: of one use, or renewed by the sheet."""
    return resolved.parts[part].fate in {Fate.RENEW, Fate.ONE_USE}


def _words(resolved: Resolved, payload: StepDone) -> str:
    step = resolved.steps.get(payload.step)
    text = step.text if step else payload.step
    freely = {True: ", moves freely", False: ", does not move freely", None: ""}[payload.free]
    page = f" ({payload.page})" if payload.page else ""
    against = f"; outside its limit: {payload.against}" if payload.against else ""
    used = f"; cleaned with {cleaner_words(payload.cleaner)}" if payload.cleaner else ""
    done = "".join(f"; {words}" for words in _done_with(resolved, step, payload)) if step else ""
    noted = noted_words(step.note if step else None, payload.note, payload.readings)
    if noted:
        noted = f"; {step.note.ask}: {noted}{page}" if step and step.note else f": {noted}"
    return f"done: {text}{used}{done}{freely}{noted}{against}"


def _done_with(resolved: Resolved, step: StepSpec, payload: StepDone) -> Iterator[str]:
    """What was marked, met and aligned at a step."""
    if payload.marked and step.mark:
        yield f"marked: {mark_words(resolved, step).lower()}"
    if payload.met and step.meets:
        yield "the marks line up"
    if payload.aligned and step.align:
        yield f"aligned: {step.align}"


def _remarks(case: Case) -> Iterator[str]:
    """Readings that were recorded though they lay outside their limit."""
    for key, marked in case.state.book(STEPS).items():
        step = case.resolved.steps.get(key)
        if step is not None and step.note is not None and marked.value.against:
            noted = noted_words(step.note, marked.value.note, marked.value.readings)
            yield f"{step.note.ask}: {noted}, outside {step.note.limit}; {marked.value.against}."


def is_stripping(step: StepSpec) -> bool:
    """Whether a step changes what there was: a step of the strip-down, but for a soak that may begin early."""
    return step.stage == "strip" and not (step.timer is not None and step.timer.early)


def being_stripped(case: Case) -> bool:
    """Whether the strip-down has begun: what the unit was like before can be tested no more."""
    return any(is_stripping(step) and step.key in case.state.book(STEPS) for step in case.resolved.sheet.steps)


def refuse_if_apart(case: Case) -> None:
    """Raises RefusedError while something that came off has not gone back on."""
    for step in case.resolved.sheet.steps:
        if is_skipped(case.state, f"step:{step.key}"):
            continue
        if step.stage == "rebuild" and (step.puts_on or step.closes) and not is_done(case, step):
            raise RefusedError("blocked", f"the unit is apart: {step.text}")


def parts_off(case: Case) -> frozenset[str]:
    """The parts that are off the unit now: taken off, and put back by no step that stands."""
    steps = case.state.book(STEPS)
    off: set[str] = set()
    back: set[str] = set()
    for step in case.resolved.sheet.steps:
        marked = steps.get(step.key)
        if marked is None:
            continue
        off |= {*step.takes_off, *(laid.part for laid in marked.value.parts_off)}
        if not undone(case, "steps", step.key, marked.mark):
            back |= set(step.puts_on)
    return frozenset((off - back) & set(case.resolved.parts))


def _hand_over(case: Case) -> Iterator[Line]:
    """Parts that are off and have not gone back, with their places in the tray; steps marked between."""
    steps, off = case.state.book(STEPS), parts_off(case)
    for step in case.resolved.sheet.steps:
        marked = steps.get(step.key)
        if marked is None:
            continue
        for part in marked.value.parts_off:
            if part.part in off:
                yield Line.by(
                    Section.OFF, f"{case.resolved.parts[part.part].name}: tray, place {part.place}", marked.mark
                )
        if step.mark and marked.value.marked:
            across = " and ".join(
                case.resolved.parts[key].name.lower() for key in step.mark.across if key in case.resolved.parts
            )
            count = f"{step.mark.count} {'mark' if step.mark.count == 1 else 'marks'}"
            yield Line.by(Section.OFF, f"{count} across {across}", marked.mark)
        if step.note and (noted := noted_words(step.note, marked.value.note, marked.value.readings)):
            yield Line.by(Section.OFF, f"{step.note.ask}: {noted}", marked.mark)


KIND = EntryKind(
    payload=StepDone,
    check=_check,
    apply=keep(STEPS, lambda payload: payload.step),
    complete=lambda case, payload: (
        payload
        if payload.cleaner is None
        else payload.model_copy(update={"cleaner": find_cleaner(payload.cleaner).value})
    ),
    words=_words,
    tasks=_drafts,
    completes="step:{step}",
    remarks=_remarks,
    hand_over=_hand_over,
)
