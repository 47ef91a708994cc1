"""An element fitted: the right way round, of what has come, with what it may meet."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import replace
from typing import Literal

from ironkettle.core.base.errors import RefusedError, fault
from ironkettle.core.base.json import JsonObject
from ironkettle.core.base.quantities import read_length
from ironkettle.core.jobs.ask import Ask, Choice
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.fluids import attacked, attacked_seals, fluid_words
from ironkettle.core.jobs.kind import EntryKind, Line, Section, keep
from ironkettle.core.jobs.kinds.base import (
    AS_MUST,
    ItemKey,
    Note,
    Short,
    after_steps,
    ask_yes,
    check_confirmed,
    delicate_of,
    known,
    merged,
    not_answered,
    offset_choices,
    offset_label,
    offset_words,
    zone_choices,
)
from ironkettle.core.jobs.kinds.find import FOUND
from ironkettle.core.jobs.kinds.size import SIZES
from ironkettle.core.jobs.kinds.skip import is_skipped
from ironkettle.core.jobs.kinds.take_apart import undone
from ironkettle.core.jobs.lubricating import (
    check_fitting_lubricant,
    is_refused_word,
    lubricant_choices,
    proposed_lubricant,
)
from ironkettle.core.jobs.practice import may_be_kept, practice_of, signs_on, was_missing
from ironkettle.core.jobs.resolved import ElementAt, Resolved
from ironkettle.core.jobs.screen import PlainScreen, Screen
from ironkettle.core.jobs.shortage import refuse_short
from ironkettle.core.jobs.state import Book, Payload
from ironkettle.core.jobs.task import Draft, Stage, Task, TaskKind, all_as_should
from ironkettle.core.sealing.compounds import find_lubricant, lubricant_words
from ironkettle.core.sheets.document.parts import Read


def _screen(case: Case, task: Task) -> Screen:
    """Its asks; the way round of what is not fitted yet is not drawn: the hand answers, not the eye on the screen."""
    directed = [key for key, oriented in case.resolved.oriented.items() if oriented.faces is not None]
    neutral = [key for key in directed if not _is_fitted(case, key)]
    return PlainScreen(in_line=False, as_should=all_as_should(case, task), neutral=neutral)


_TASK = TaskKind("fit", "Fitted", rank=0, screen=_screen)
_DRY = "dry"


class ElementFitted(Payload):
    """``faces`` as seen by the one who fitted it; ``reused``: the old one was kept; ``source``: where a new one comes from that is in no kit.

    ``lubricant``: a key of the list, or a word it goes by; none in older logs, where it was fitted dry. ``against``: why a caution is overruled.
    """

    kind: Literal["element_fitted"] = "element_fitted"
    element: ItemKey
    faces: ItemKey | None = None
    reused: bool | None = None
    source: Literal["stock", "ordered"] | None = None
    lubricant: Short | None = None
    offset: Short | None = None
    depth_below: Short | None = None
    marks: bool | None = None
    against: Note = ""
    note: Note = ""


FITTED: Book[str, ElementFitted] = Book("fitted")


# A depth is read with a depth gauge on rubber: so far from what the sheet gives it still is that.
_DEPTH_SHARE = 0.2
_SHORTEST_REASON = 5


def _check(case: Case, payload: ElementFitted) -> None:
    known("element", payload.element, case.resolved.elements, "element")
    at = case.resolved.elements[payload.element]
    name = at.spec.name
    for ask in _asks_of_origin(case, at):
        if ask.field == "reused" and ask.proposed is None and payload.reused is None:
            raise not_answered("reused", ask.label, "yes", "no")
    if payload.reused:
        _check_kept(case, at, payload.against)
    _check_facing(case, at, payload)
    if not payload.reused:
        refuse_short(case, payload.element, name)
        if payload.source is None and not case.resolved.lines_of(payload.element):
            text = f"the {name} is in no kit: where is the new one from?"
            raise fault("source", text, *(source.key for source in _SOURCES))
    sized = case.state.has(SIZES, payload.element) or is_skipped(case.state, f"identify:{payload.element}")
    if at.spec.identify and not sized:
        raise RefusedError("blocked", f"choose the size of the {name} first")
    _check_offset(case, at, payload)
    _check_depth(at, payload)
    if payload.lubricant is None:
        raise fault("lubricant", f"what is the {name} fitted with? Dry is an answer too", proposed_lubricant(case, at))
    check_fitting_lubricant(case, at, payload.lubricant, payload.against)
    if at.spec.marks:
        check_confirmed("marks", payload.marks, f"the {name} does not lie as marked: {', '.join(at.spec.marks)}")


def _check_kept(case: Case, at: ElementAt, against: str) -> None:
    """Raises RuleError for an old one that was not there, may not be kept, or was found with a sign and is kept without a reason."""
    name = at.spec.name
    if was_missing(case, at):
        raise fault("reused", f"the {name} was found missing: there is no old one; fit a new one", "a new part")
    if not may_be_kept(case, at):
        only = at.spec.one_use or not case.tables.settings.follows("seals", 1)
        why = "is for one use only" if only else "does not look sound"
        raise fault("reused", f"the {name} {why}; fit a new one", "a new part")
    if not case.state.has(FOUND, at.key):
        raise fault("reused", f"nobody has looked at the old {name}: record first how it came off", "a new part")
    if (signs := signs_on(case, at)) and len(against) < _SHORTEST_REASON:
        text = f"the {name} was found with a sign on it ({signs}): fit a new one; only a written reason overrules this"
        raise fault("against", text, "why it is kept")


def _check_facing(case: Case, at: ElementAt, payload: ElementFitted) -> None:
    must = case.resolved.oriented[at.key].faces
    if payload.faces is not None:
        known("faces", payload.faces, at.station.between, "zone next to this station")
        if must is None:
            raise fault("faces", f"the {at.spec.name} has no side that faces a zone; leave this out")
    if must is None or payload.faces == must:
        return
    oriented, names = case.resolved.oriented[at.key], case.resolved.zone_names
    sides = [names[key] for key in at.station.between]
    if payload.faces is None:
        raise fault("faces", f"say which side: {oriented.word}", *sides)
    # Which side is right is not said: the next tap would only repeat it.
    text = (
        f"reversed: the {at.spec.name} goes with its {oriented.reason}; turn it round, look again, then say which side"
    )
    raise fault("faces", text, code="reversed")


def _check_offset(case: Case, at: ElementAt, payload: ElementFitted) -> None:
    """Raises RuleError for the short side of what sits off centre that is not said, or lies to the other zone."""
    offset = at.spec.offset
    if offset is None:
        if payload.offset is not None:
            raise fault("offset", f"nothing of the {at.spec.name} sits off centre; leave this out")
        return
    names = (
        [case.resolved.zone_names[key] for key in at.station.between]
        if offset.towards
        else ["as it must be", "otherwise"]
    )
    if payload.offset is None:
        raise fault("offset", f"{at.spec.name}, off centre: {offset_label(at)}", *names)
    known("offset", payload.offset, [choice.key for choice in offset_choices(case.resolved, at)], "answer")
    if payload.offset != (offset.towards or AS_MUST):
        text = f"off centre the wrong way: look again at the {at.spec.name}, turn its ring, then say which side"
        raise fault("offset", text, code="reversed")


def _check_depth(at: ElementAt, payload: ElementFitted) -> None:
    if at.spec.depth_below is None:
        return
    if payload.depth_below is None:
        raise fault("depth_below", f"how deep does the {at.spec.name} lie? {at.spec.depth_below} is wanted")
    wanted, read = at.spec.depth_below.value, read_length(payload.depth_below, "depth_below")
    if abs(read - wanted) > _DEPTH_SHARE * wanted + 1e-9:
        raise fault("depth_below", f"{payload.depth_below} is not {at.spec.depth_below}", at.spec.depth_below)


def _drafts(case: Case) -> Iterator[Draft]:
    resolved = case.resolved
    counts = {f"count:{kit.number}": "count the kit first" for kit in resolved.sheet.kits}
    for step in resolved.sheet.steps:
        for station in step.closes:
            before: str | None = None
            for key in resolved.fitting_order.get(station, ()):
                at = resolved.elements[key]
                after = merged(after_steps(case, step.key), counts, _own(case, at))
                if before is not None:
                    after[f"fit:{before}"] = f"the {resolved.elements[before].spec.name} goes in first"
                yield Draft(_task(case, at), _is_fitted(case, key), step=step.key, after=after)
                before = key


def _is_fitted(case: Case, element: str) -> bool:
    marked = case.state.book(FITTED).get(element)
    return marked is not None and not undone(case, "elements", element, marked.mark)


def _own(case: Case, at: ElementAt) -> dict[str, str]:
    """What of the element itself comes first: found, its size chosen, come where it was short."""
    after: dict[str, str] = {}
    if any(at.station.key in step.opens for step in case.resolved.sheet.steps):
        after[f"find:{at.key}"] = "first record what came off"
    if at.spec.identify:
        after[f"identify:{at.key}"] = "its size is not chosen yet"
    for line in case.resolved.lines_of(at.key):
        after[f"receive:{line.key}"] = f"{line.name} has not come yet"
    return after


def _task(case: Case, at: ElementAt) -> Task:
    resolved, spec = case.resolved, at.spec
    must, word = resolved.oriented[at.key].faces, resolved.oriented[at.key].word
    entry: JsonObject = {"kind": "element_fitted", "element": at.key}
    if at.one_use:
        entry["reused"] = False
    asks: list[Ask] = []
    if must is not None:
        choices = zone_choices(resolved, at.station.between)
        asks.append(Ask("faces", Read.ZONE, f"Which side now: {word}?", choices, right=must))
    if spec.offset:
        right = spec.offset.towards or AS_MUST
        asks.append(Ask("offset", Read.ZONE, offset_label(at), offset_choices(resolved, at), right=right))
    if spec.depth_below:
        wanted = spec.depth_below.value
        low, high = 0.9 * wanted, 1.1 * wanted
        asks.append(
            Ask("depth_below", Read.LENGTH, "How deep does it lie below the rim?", unit="mm", limit=(low, high))
        )
    if spec.marks:
        asks.append(ask_yes("marks", f"As marked: {', '.join(spec.marks)}?"))
    asks += _asks_of_origin(case, at)
    lubricant = proposed_lubricant(case, at).value
    asks.append(
        Ask("lubricant", Read.CHOICE, "Fitted with", lubricant_choices(case, at), proposed=lubricant, right=lubricant)
    )
    size = case.state.get(SIZES, at.key)
    named = size.size if size else f"{spec.ring.series} {spec.ring.designation}" if spec.ring else spec.size
    # Why the maker has it so stands below, as the reason of the task.
    way_round = resolved.oriented[at.key].reason.removesuffix(f": {spec.why}")
    return Task(
        f"fit:{at.key}",
        Stage.REBUILD,
        _TASK,
        at.key,
        f"Fit the {spec.name}{f', {named}' if named else ''}: {way_round}",
        entry,
        why=spec.why,
        delicate=(*delicate_of([resolved.parts[spec.part]] if spec.part in resolved.parts else []), *_attack(case, at)),
        place=at.station.key,
        practice=practice_of(case, at),
        asks=tuple(asks),
    )


def _attack(case: Case, at: ElementAt) -> tuple[str, ...]:
    why = attacked(case, at)
    return () if why is None else (f"{why}: the unit came in with it",)


_CAME = {"stock": ", new from stock", "ordered": ", new, ordered for this job"}
_SOURCES = (Choice("stock", "From the shop's stock"), Choice("ordered", "Ordered for this job"))
# Asked once the old one does not go back.
_NEW_ONE = {"reused": "no"}


def _asks_of_origin(case: Case, at: ElementAt) -> Iterator[Ask]:
    """Whether the old one is kept, and where a new one comes from that is in no kit: nobody knows that but the hand."""
    in_kit = bool(case.resolved.lines_of(at.key))
    spoiled = was_missing(case, at) or bool(signs_on(case, at)) or not case.state.has(FOUND, at.key)
    if not at.one_use:
        yield Ask("reused", Read.YES_NO, f"Is the old {at.spec.name} fitted again?", right=not in_kit and not spoiled)
        if signs_on(case, at):
            yield Ask("against", Read.TEXT, "Why the old one is kept all the same", optional=True)
    elif may_be_kept(case, at):
        yield Ask("reused", Read.YES_NO, "Is the old one kept?", proposed=False)
    if not in_kit:
        asked = not at.one_use or may_be_kept(case, at)
        sources = tuple(replace(source, only=_NEW_ONE) for source in _SOURCES) if asked else _SOURCES
        yield Ask("source", Read.CHOICE, "Where is the new one from?", sources, optional=not at.one_use and not spoiled)


def _words(resolved: Resolved, payload: ElementFitted) -> str:
    at, oriented = resolved.elements.get(payload.element), resolved.oriented.get(payload.element)
    name = at.spec.name if at else payload.element
    facing = (
        f", {oriented.word} to {resolved.zone_names.get(payload.faces, payload.faces)}"
        if oriented and payload.faces
        else ""
    )
    against = f"; overruled: {payload.against}" if payload.against else ""
    off = f", {offset_words(resolved, at, payload.offset)}" if at and payload.offset else ""
    deep = f", {payload.depth_below} deep" if payload.depth_below else ""
    came = _CAME.get(payload.source or "", "")
    how = "old one kept" if payload.reused else f"fitted{came}"
    return f"{name} {how}{facing}{off}{deep}, {lubricant_words(payload.lubricant or _DRY)}{against}"


def _against(case: Case, tasks: Sequence[Task]) -> Iterator[str]:
    for key, fitted in case.state.book(FITTED).items():
        at = case.resolved.elements.get(key)
        if not fitted.value.against or at is None:
            continue
        signs = signs_on(case, at) if fitted.value.reused else ""
        if signs:
            yield f"{at.spec.name}: the old one is kept, found with a sign on it ({signs}): {fitted.value.against}."
        # One reason may stand for both.
        if not signs or is_refused_word(case, at, fitted.value.lubricant or _DRY):
            yield f"{at.spec.name} fitted with {lubricant_words(fitted.value.lubricant or _DRY)} against the build sheet: {fitted.value.against}."
    yield from (f"{words}." for words in attacked_seals(case))


def _remarks(case: Case) -> Iterator[str]:
    for key, fitted in case.state.book(FITTED).items():
        at = case.resolved.elements.get(key)
        if fitted.value.reused and at is not None:
            yield f"The old {at.spec.name} was kept."
    if (words := fluid_words(case)) is not None:
        yield f"{words}."


def _hand_over(case: Case) -> Iterator[Line]:
    found = [*attacked_seals(case), *([words] if (words := fluid_words(case)) is not None else [])]
    yield from (Line(Section.DECIDED, words, caution=True) for words in found)


KIND = EntryKind(
    payload=ElementFitted,
    check=_check,
    apply=keep(FITTED, lambda payload: payload.element),
    complete=lambda case, payload: payload.model_copy(
        update={"lubricant": find_lubricant(payload.lubricant or _DRY, own=case.lubricants).value}
    ),
    words=_words,
    tasks=_drafts,
    completes="fit:{element}",
    against=_against,
    remarks=_remarks,
    hand_over=_hand_over,
)
