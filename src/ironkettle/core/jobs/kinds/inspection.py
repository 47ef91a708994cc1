"""The points of a part read, held against their limits, and what becomes of the part."""

from __future__ import annotations

import math
import re
from collections.abc import Iterator
from typing import Literal

from pydantic import Field

from ironkettle.core.base.errors import RefusedError, fault
from ironkettle.core.base.quantities import unit_slip
from ironkettle.core.jobs.ask import Ask, Choice
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.condemned import CONDEMNED, check_may_overrule
from ironkettle.core.jobs.inspecting import (
    NOTHING_SEEN,
    ORDER,
    SIGNED,
    VERDICT_WORD,
    PointRead,
    Verdict,
    far_off,
    figure_words,
    limit_of,
    limit_words,
    points_of,
    verdict_of,
)
from ironkettle.core.jobs.kind import EntryKind, Line, Section, keep
from ironkettle.core.jobs.kinds.base import (
    ItemKey,
    Note,
    delicate_of,
    known,
    measured,
    not_answered,
    refuse_below_zero,
    value_of,
)
from ironkettle.core.jobs.kinds.step import STEPS
from ironkettle.core.jobs.kinds.take_apart import undone
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.jobs.state import Book, Mark, Payload
from ironkettle.core.jobs.task import Draft, Stage, Task, TaskKind
from ironkettle.core.sheets.document.parts import LookPoint, MeasuredPoint, PartSpec, PointSpec, Read, YesNoPoint

_TASK = TaskKind("measure", "Record the readings", rank=9)


class PointsRead(Payload):
    """``verdict``: as the person judged, where other than the readings say; ``judged``: what the readings come to by the
    limits of the day, set by the server."""

    kind: Literal["points_read"] = "points_read"
    part: ItemKey
    points: list[PointRead] = Field(min_length=1, max_length=60)
    verdict: Verdict | None = None
    judged: Verdict | None = None
    note: Note = ""


POINTS: Book[str, PointsRead] = Book("points")


def _check(case: Case, payload: PointsRead) -> None:
    known("part", payload.part, case.resolved.parts, "part")
    part = case.resolved.parts[payload.part]
    specs = {point.key: point for point in points_of(case, part)}
    for index, read in enumerate(payload.points):
        known(f"points.{index}.point", read.point, specs, "point of this part")
        _check_point(f"points.{index}", part, specs[read.point], read, sure=bool(payload.note))
    missing = [spec.ask for key, spec in specs.items() if key not in {point.point for point in payload.points}]
    if missing:
        raise fault("points", f"not read yet: {missing[0]}")
    found = verdict_of(case, part, payload.points)
    if payload.verdict is not None and ORDER.index(payload.verdict) < ORDER.index(found) and not payload.note:
        text = f"by its readings it is “{VERDICT_WORD[found]}”; say why it is “{VERDICT_WORD[payload.verdict]}”"
        raise fault("note", text)
    _check_still_off(case, part, payload.verdict or found)
    before = case.state.book(POINTS).get(part.key)
    softer = standing(case, part.key) in CONDEMNED and (payload.verdict or found) not in CONDEMNED
    if before is not None and softer and not has_come(case, part.key, before.mark):
        check_may_overrule(case, part.key)


def _check_still_off(case: Case, part: PartSpec, verdict: Verdict) -> None:
    """Raises RefusedError where a part that is on the unit again is condemned: it has to come off first."""
    before = standing(case, part.key)
    if before is None or ORDER.index(verdict) <= ORDER.index(before):
        return
    on = next(
        (step for step in case.resolved.sheet.steps if step.stage == "rebuild" and part.key in step.puts_on), None
    )
    marked = case.state.book(STEPS).get(on.key) if on else None
    if on is not None and marked is not None and not undone(case, "steps", on.key, marked.mark):
        text = f"the {part.name.lower()} is on the unit again; take it apart first, from the step that takes it off"
        raise RefusedError("part-on", text)


def _check_point(path: str, part: PartSpec, spec: PointSpec, read: PointRead, *, sure: bool) -> None:
    if isinstance(spec, YesNoPoint):
        if read.good is None:
            raise not_answered(f"{path}.good", spec.ask, "yes", "no")
    elif isinstance(spec, LookPoint):
        _check_look(f"{path}.seen", part, spec, read)
    elif isinstance(spec, MeasuredPoint):
        if len(read.values) != spec.places:
            raise fault(f"{path}.values", f"{spec.ask}: {spec.places} readings, {len(read.values)} came")
        for place, text in enumerate(read.values):
            value = value_of(text, spec.read, f"{path}.values.{place}")
            if spec.compute not in SIGNED:
                refuse_below_zero(text, value, spec.read, limit_of(spec), f"{path}.values.{place}")
            _check_count(f"{path}.values.{place}", part, spec, text, value)
            slip = unit_slip(text, [figure for figure in (spec.limit, spec.nominal) if figure])
            odd = slip or (f"{text} {far}" if (far := far_off(spec, value)) else None)
            if odd and not sure:
                raise fault(f"{path}.values.{place}", f"{odd}; check again, or confirm it in the note")
    elif not read.values:
        raise not_answered(f"{path}.values", spec.ask)


def _check_look(field: str, part: PartSpec, spec: LookPoint, read: PointRead) -> None:
    signs = (NOTHING_SEEN, *spec.bad)
    if not read.seen:
        raise not_answered(field, spec.ask, *signs)
    if read.contradicts:
        raise fault(field, f"“as it should be” beside “{', '.join(read.signs)}”: choose one of them", *signs)
    for sign in read.signs:
        if sign not in spec.bad:
            text = f"“{sign}” is none of the signs of {part.name}; put anything else into the note"
            raise fault(field, text, *signs)


_COUNTED = re.compile(r"\b(how many|number of|count of)\b", re.IGNORECASE)


def _check_count(path: str, part: PartSpec, spec: MeasuredPoint, text: str, value: float) -> None:
    """Raises RuleError for a count of pieces that is not whole, or is more than there are."""
    if not _is_count(part, spec):
        return
    of_all = _of_all(part, spec)
    if value != int(value) or value < 0 or (of_all and value > part.count):
        raise fault(path, f"{text} is no count: {spec.ask}", f"0 to {part.count}" if of_all else "a whole number")


def _of_all(part: PartSpec, spec: MeasuredPoint) -> bool:
    return part.count > 1 and re.search(rf"\bof (the )?{part.count}\b", spec.ask) is not None


def _is_count(part: PartSpec, spec: MeasuredPoint) -> bool:
    """Whether a point counts pieces of a part, which are whole."""
    return spec.read is Read.NUMBER and (_of_all(part, spec) or _COUNTED.search(spec.ask) is not None)


def complete(case: Case, payload: PointsRead) -> PointsRead:
    """With what the readings come to, as the server works it out."""
    judged = verdict_of(case, case.resolved.parts[payload.part], payload.points)
    return payload.model_copy(update={"judged": judged})


def _as_sent(payload: PointsRead) -> PointsRead:
    return payload.model_copy(update={"judged": None})


def standing(case: Case, part: str) -> Verdict | None:
    """The verdict on a part as it stands: that given, else that of its readings; None before it is read."""
    marked = case.state.get(POINTS, part)
    if marked is None:
        return None
    return marked.verdict or marked.judged or verdict_of(case, case.resolved.parts[part], marked.points)


def reading_steps(case: Case, part: str) -> list[str]:
    """The steps at which a part is read: those that say so, else those that wash it, else the one that takes it off.

    A part that no washing names goes into every one. What is under dirt cannot be judged.
    """
    steps = case.resolved.sheet.steps
    named = [step.key for step in steps if any(name.part == part for name in step.reads)]
    washed = [step.key for step in steps if part in step.cleans]
    every = [step.key for step in steps if step.stage == "clean" and step.cleans]
    off = [step.key for step in steps if part in step.takes_off]
    return named or washed or every or off[-1:]


def _tasks(case: Case) -> Iterator[Draft]:
    for part in case.resolved.sheet.parts:
        if points_of(case, part):
            at = reading_steps(case, part.key)
            read = case.state.book(POINTS).get(part.key)
            done = read is not None and not changed_since(case, part.key, read.mark)
            yield Draft(_task(case, part), done, step=next(iter(at), None), after={f"step:{key}": "" for key in at})


def has_come(case: Case, part: str, read: Mark) -> bool:
    """Whether a new one came, or the old one came back, after a part was read."""
    return case.state.changed.get(f"back:{part}", 0) > read.seq


def changed_since(case: Case, part: str, read: Mark) -> bool:
    """Whether a part was dressed, came back from outside, or had harm done to it after it was read."""
    changed = case.state.changed
    back = changed.get(f"back:{part}", 0) if standing(case, part) is Verdict.SEND_OUT else 0
    return max(changed.get(f"part:{part}", 0), back) > read.seq


def _task(case: Case, part: PartSpec) -> Task:
    asks: list[Ask] = []
    points = points_of(case, part)
    for index, point in enumerate(points):
        asks += _asks(index, part, point)
    asks.append(Ask("verdict", Read.CHOICE, "Verdict", tuple(Choice(v, VERDICT_WORD[v]) for v in ORDER), optional=True))
    return Task(
        f"measure:{part.key}",
        Stage.INSPECT,
        _TASK,
        part.key,
        f"Inspect: {part.name[0].lower()}{part.name[1:]}",
        {"kind": "points_read", "part": part.key, "points": [{"point": point.key} for point in points]},
        caution=next((point.caution for point in points if point.caution), None),
        delicate=delicate_of([part]),
        place=part.key,
        practice=case.tables.settings.practice["pits"] if _asks_for_pits(part) else None,
        asks=tuple(asks),
    )


def _asks(index: int, part: PartSpec, point: PointSpec) -> Iterator[Ask]:
    if isinstance(point, YesNoPoint):
        yield Ask(f"points.{index}.good", point.read, point.ask)
    elif isinstance(point, LookPoint):
        choices = (Choice(NOTHING_SEEN, "as it should be"), *(Choice(bad, bad) for bad in point.bad))
        yield Ask(f"points.{index}.seen", Read.LOOK, point.ask, choices)
    elif not isinstance(point, MeasuredPoint):
        yield Ask(f"points.{index}.values.0", point.read, point.ask)
    else:
        # Of what is worked out from several readings, each lies within the nominal.
        single = point.compute in {None, "mean", "sum"} or point.nominal is None
        unit, limit, _ = measured(point.read, point.limit if single else point.nominal, "limit")
        for place in range(point.places):
            label = point.ask if point.places == 1 else f"{point.ask}, {place + 1} of {point.places}"
            # Pieces are whole: a count in the middle of its limit may be half of one.
            right = f"{math.ceil(limit[0])}" if limit is not None and _is_count(part, point) else None
            yield Ask(
                f"points.{index}.values.{place}", point.read, label, unit=unit, limit=limit, hint=limit_words(point),
                right=right,
            )  # fmt: skip


def _words(resolved: Resolved, payload: PointsRead) -> str:
    part = resolved.parts.get(payload.part)
    name = part.name if part else payload.part
    read = "; ".join(_told(part, point) for point in payload.points)
    verdict = payload.verdict or payload.judged
    judged = f"; {VERDICT_WORD[verdict]}" if verdict else ""
    note = f": {payload.note}" if payload.note else ""
    return f"{name} inspected: {read}{judged}{note}"


def _told(part: PartSpec | None, read: PointRead) -> str:
    spec = next((point for point in part.points if point.key == read.point), None) if part else None
    what = spec.ask.rstrip("?") if spec else read.point
    if read.values:
        figure = figure_words(spec, read.values) if spec else None
        return f"{what}: {', '.join(read.values)}{f' ({figure})' if figure else ''}"
    if read.good is not None:
        return f"{what}: {'yes' if read.good else 'no'}"
    return f"{what}: {', '.join(read.signs) or 'as it should be'}"


def _asks_for_pits(part: PartSpec) -> bool:
    return any(point.dress is not None and point.dress.pits for point in part.points)


def _hand_over(case: Case) -> Iterator[Line]:
    for key, marked in case.state.book(POINTS).items():
        verdict, part = standing(case, key), case.resolved.parts.get(key)
        if verdict is not None and part is not None:
            words = f"{part.name}: {VERDICT_WORD[verdict]}"
            yield Line.by(Section.DECIDED, words, marked.mark, caution=verdict is not Verdict.REUSE)


KIND = EntryKind(
    payload=PointsRead,
    check=_check,
    apply=keep(POINTS, lambda payload: payload.part),
    words=_words,
    tasks=_tasks,
    completes="measure:{part}",
    complete=complete,
    as_sent=_as_sent,
    hand_over=_hand_over,
)
