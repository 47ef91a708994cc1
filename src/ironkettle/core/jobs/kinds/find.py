"""An element as it came off: there or missing, and which way round."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Annotated, Literal

from pydantic import BeforeValidator, Field

from ironkettle.core.base.errors import fault
from ironkettle.core.base.json import JsonObject
from ironkettle.core.jobs.ask import Ask, Choice
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kind import EntryKind, Line, Section, keep
from ironkettle.core.jobs.kinds.base import (
    AS_MUST,
    ItemKey,
    Note,
    known,
    not_answered,
    offset_choices,
    offset_label,
    offset_words,
    zone_choices,
)
from ironkettle.core.jobs.kinds.leak import suspicions
from ironkettle.core.jobs.resolved import ElementAt, Resolved
from ironkettle.core.jobs.screen import Screen
from ironkettle.core.jobs.state import Book, Payload
from ironkettle.core.jobs.task import Draft, Stage, Task, TaskKind, plain_screen
from ironkettle.core.sealing.catalogue import ElementKind
from ironkettle.core.sealing.compounds import LUBRICANTS, Lubricant
from ironkettle.core.sealing.facing import reversed_finding
from ironkettle.core.sealing.failures import Sign
from ironkettle.core.sheets.document.facts import zones_by_key
from ironkettle.core.sheets.document.fields import Length
from ironkettle.core.sheets.document.parts import Read

_SEEN, _HOW_MANY = "What can be seen on it?", "How many were there?"


class FindScreen(Screen):
    """What comes off with one step is told on one card: the tasks with the same ``card``, under ``title``, each by its ``name``.

    ``signs``: the field that one answer for all of them fills, and ``none``: that answer.
    """

    kind: Literal["find"] = "find"
    card: str
    name: str
    title: str = "As they came off"
    signs: str = "signs"
    none: str = Sign.NONE.value


def _screen(case: Case, task: Task) -> Screen:
    opens = next(step for step in case.resolved.sheet.steps if task.place in step.opens)
    together = sum(len(case.resolved.fitting_order.get(station, ())) for station in opens.opens)
    alone = case.resolved.quick_service is not None or together == 1
    return (
        plain_screen(case, task)
        if alone
        else FindScreen(card=opens.key, name=case.resolved.elements[task.subject].spec.name)
    )


_TASK = TaskKind("find", "Record as found", rank=2, screen=_screen)


def _as_list(value: object) -> object:
    return [value] if isinstance(value, str) else value


# One sign may be told by its name alone.
Signs = Annotated[list[Sign], BeforeValidator(_as_list)]


class ElementFound(Payload):
    """``counted``: how many of several alike were there; ``faced``: the zone it faced; ``offset``: where what is off centre on it
    lay; ``section``: as measured, where it looks like another ring;
    ``signs``: what was seen on it; ``lubricant``: what was on it, where it can be told."""

    kind: Literal["element_found"] = "element_found"
    element: ItemKey
    present: bool
    counted: int | None = Field(default=None, ge=0, le=99)
    faced: ItemKey | None = None
    offset: ItemKey | None = None
    section: Length | None = None
    signs: Signs = Field(default_factory=list, max_length=24)
    lubricant: Lubricant | None = None
    note: Note = ""


# Sections of rings, from the smallest of any series to the largest. [mm]
_SECTION = (0.5, 20.0)
FOUND: Book[str, ElementFound] = Book("found")


def _check(case: Case, payload: ElementFound) -> None:
    known("element", payload.element, case.resolved.elements, "element")
    at = case.resolved.elements[payload.element]
    if payload.faced is not None:
        if not payload.present:
            raise fault("faced", "a direction is not needed for a missing seal")
        known("faced", payload.faced, at.station.between, "zone next to this station")
    elif payload.present and case.resolved.oriented[payload.element].faces is not None:
        names = [case.resolved.zone_names[key] for key in at.station.between]
        raise fault("faced", "which side did it face? The cause depends on it", *names)
    if payload.offset is not None:
        if at.spec.offset is None or not payload.present:
            raise fault("offset", f"nothing of the {at.spec.name} to be seen off centre; leave this out")
        known(
            "offset",
            payload.offset,
            [offset_choice.key for offset_choice in offset_choices(case.resolved, at)],
            "answer",
        )
    elif payload.present and at.spec.offset is not None:
        names = [offset_choice.says for offset_choice in offset_choices(case.resolved, at)]
        raise fault("offset", f"{at.spec.name}, off centre: {offset_label(at)}", *names)
    if payload.present:
        _check_looked_at(case, at, payload)
    if not payload.present and not payload.note:
        raise fault("note", f"{_belongs(at)}: missing, or still in the groove? Say what you saw")
    if payload.counted is not None and payload.counted != at.spec.count and not payload.note:
        raise fault("note", f"{at.spec.count} belong here, {payload.counted} were found; say what you saw")
    if payload.section is not None and not _SECTION[0] <= payload.section.value <= _SECTION[1]:
        raise fault(
            "section",
            f"{payload.section} is not the section of a ring: measure it again",
            "0.5 mm to 20 mm",
            code="out-of-limits",
        )
    if not payload.present and set(payload.signs) - {Sign.NONE}:
        raise fault("signs", "signs are not needed for a missing seal", Sign.NONE.value)
    if not payload.present and payload.lubricant is not None:
        raise fault("lubricant", "a lubricant is not needed for a missing seal")


def _check_looked_at(case: Case, at: ElementAt, payload: ElementFound) -> None:
    """Raises RuleError where nobody said what can be seen on it, or how many of several there were."""
    offered = [offer.sign.value for offer in case.tables.failures.offered[at.spec.kind]]
    if not payload.signs:
        raise not_answered("signs", _SEEN, *offered)
    if Sign.NONE in payload.signs and len(set(payload.signs)) > 1:
        raise fault("signs", f"“{Sign.NONE.words}” beside “{_signs(payload)}”: choose one of them", *offered)
    if at.spec.count > 1 and payload.counted is None:
        raise not_answered("counted", _HOW_MANY, str(at.spec.count))


def _drafts(case: Case) -> Iterator[Draft]:
    resolved = case.resolved
    suspected = suspicions(case)
    for step in resolved.sheet.steps:
        for station in step.opens:
            for key in reversed(resolved.fitting_order.get(station, ())):
                after = {f"step:{step.key}": ""}
                yield Draft(
                    _task(case, resolved.elements[key], suspected),
                    case.state.has(FOUND, key),
                    step=step.key,
                    after=after,
                )


# As a hand can tell them apart on a part; the fluid of the unit itself says nothing.
_LUBRICANTS = tuple(
    Choice(key.value, LUBRICANTS[key].name)
    for key in (
        Lubricant.DRY,
        Lubricant.MINERAL_OIL,
        Lubricant.MINERAL_GREASE,
        Lubricant.SILICONE_GREASE,
        Lubricant.PFPE_GREASE,
    )
)


def _task(case: Case, at: ElementAt, suspected: Mapping[str, str]) -> Task:
    resolved = case.resolved
    must = resolved.oriented[at.key].faces
    entry: JsonObject = {"kind": "element_found", "element": at.key, "present": True}
    asks = [Ask("present", Read.YES_NO, "Was it there?", proposed=True)]
    if at.spec.count > 1:
        asks.append(Ask("counted", Read.NUMBER, _HOW_MANY, limit=(at.spec.count, at.spec.count)))
    if must is not None:
        word = resolved.oriented[at.key].word
        choices = zone_choices(resolved, at.station.between)
        asks.append(Ask("faced", Read.ZONE, f"Which side: {word}?", choices, right=must))
    if at.spec.offset:
        right = at.spec.offset.towards or AS_MUST
        asks.append(Ask("offset", Read.ZONE, offset_label(at), offset_choices(resolved, at), right=right))
    signs = tuple(Choice(offer.sign.value, offer.sign.words) for offer in case.tables.failures.offered[at.spec.kind])
    asks.append(Ask("signs", Read.LOOK, _SEEN, signs))
    if at.spec.kind is ElementKind.O_RING:
        label = "Section, if it looks like the wrong ring"
        asks.append(Ask("section", Read.LENGTH, label, unit="mm", limit=_SECTION, optional=True))
    asks.append(Ask("lubricant", Read.CHOICE, "Lubricant on it, if known", _LUBRICANTS, optional=True))
    asks.append(Ask("note", Read.TEXT, "What you saw", optional=True))
    missed = f"; easily missed{f': {at.spec.why}' if at.spec.why else ''}" if at.spec.easily_missed else ""
    return Task(
        f"find:{at.key}",
        Stage.STRIP,
        _TASK,
        at.key,
        f"{at.spec.name[0].upper()}{at.spec.name[1:]}: as it came off{missed}",
        entry,
        why=suspected.get(at.station.key),
        place=at.station.key,
        practice=case.tables.settings.practice["pry"],
        asks=tuple(asks),
    )


def _belongs(at: ElementAt) -> str:
    return f"a {at.spec.name} belongs here"


def reversed_words(case: Case) -> dict[str, str]:
    """What was found the wrong way round, by element, with what comes of it. As found first, not as looked at later."""
    zones = zones_by_key(case.resolved.sheet)
    words = {}
    for key, marked in case.state.first(FOUND).items():
        oriented = case.resolved.oriented.get(key)
        finding = reversed_finding(oriented, marked.value.faced, zones) if oriented else None
        if finding is not None:
            words[key] = finding.message
    return words


def _words(resolved: Resolved, payload: ElementFound) -> str:
    at, oriented = resolved.elements.get(payload.element), resolved.oriented.get(payload.element)
    name = at.spec.name if at else payload.element
    facing = ""
    if payload.faced and oriented:
        facing = f", {oriented.word} to {resolved.zone_names.get(payload.faced, payload.faced)}"
    off = f", {offset_words(resolved, at, payload.offset)}" if at and payload.offset else ""
    signs = _signs(payload)
    looked = f", {signs}" if signs else ", no sign seen on it" if payload.signs else ""
    how = f"found{facing}{off}{looked}" if payload.present else "found missing"
    return f"{name} {how}{f': {payload.note}' if payload.note else ''}"


def _signs(found: ElementFound) -> str:
    return ", ".join(sign.words for sign in found.signs if sign is not Sign.NONE)


def _hand_over(case: Case) -> Iterator[Line]:
    """How each element was found, the ones that speak first."""
    lines = []
    for key, marked in case.state.book(FOUND).items():
        at, oriented = case.resolved.elements.get(key), case.resolved.oriented.get(key)
        if at is None or oriented is None:
            continue
        found = marked.value
        if not found.present:
            lines.append(Line.by(Section.LAY, f"{at.spec.name}: missing; {found.note}", marked.mark, caution=True))
            continue
        turned = oriented.faces is not None and found.faced is not None and found.faced != oriented.faces
        faced = f", {oriented.word} to {case.resolved.zone_names[found.faced]}" if found.faced else ""
        signs = _signs(found)
        words = f"{at.spec.name}{faced}{', the wrong way round' if turned else ''}{f': {signs}' if signs else ''}"
        words += f"; {found.note}" if found.note else ""
        lines.append(Line.by(Section.LAY, words, marked.mark, caution=turned or bool(signs)))
    yield from sorted(lines, key=lambda line: not line.caution)


KIND = EntryKind(
    payload=ElementFound,
    check=_check,
    apply=keep(FOUND, lambda payload: payload.element),
    words=_words,
    tasks=_drafts,
    completes="find:{element}",
    hand_over=_hand_over,
    screens=(FindScreen,),
)
