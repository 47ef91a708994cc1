"""The points of a part read, held against their limits, and what becomes of the part."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any, Literal

from pydantic import Field

from ironkettle.core.base.errors import RefusedError, fault
from ironkettle.core.jobs.inspecting import (
    NOTHING_SEEN,
    ORDER,
    VERDICT_WORD,
    PointRead,
    Verdict,
    far_off,
    figure_words,
    harmful,
    is_measured,
    limit_words,
    may_dress,
    points_of,
    verdict_of,
)
from ironkettle.core.jobs.kinds.again import undone
from ironkettle.core.jobs.kinds.base import ItemKey, Note, delicate_of, known, measured, value_of
from ironkettle.core.jobs.log import Case, Mark, Marked, Payload, State
from ironkettle.core.jobs.model import Ask, Chapter, Choice, Draft, Kind, Move
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.sheets.document.parts import PartSpec, PointSpec, Read


class PointsRead(Payload):
    """``verdict``: as the person judged, where other than the readings say; ``judged``: what the readings come to by the
    limits of the day, set by the server."""

    kind: Literal["points_read"] = "points_read"
    part: ItemKey
    points: list[PointRead] = Field(min_length=1, max_length=60)
    verdict: Verdict | None = None
    judged: Verdict | None = None
    note: Note = ""


class PartDressed(Payload):
    """A part dressed as its point says; it is read again after that."""

    kind: Literal["part_dressed"] = "part_dressed"
    part: ItemKey
    note: Note = ""


PAYLOADS = (PointsRead, PartDressed)


def check(case: Case, payload: PointsRead | PartDressed) -> None:
    known("part", payload.part, case.resolved.parts, "part")
    part = case.resolved.parts[payload.part]
    if isinstance(payload, PartDressed):
        return
    specs = {point.key: point for point in points_of(case, part)}
    for index, one in enumerate(payload.points):
        known(f"points.{index}.point", one.point, specs, "point of this part")
        _check_point(f"points.{index}", specs[one.point], one, sure=bool(payload.note))
    missing = [spec.ask for key, spec in specs.items() if key not in {one.point for one in payload.points}]
    if missing:
        raise fault("points", f"not read yet: {missing[0]}")
    found = verdict_of(case, part, payload.points)
    if payload.verdict is not None and ORDER.index(payload.verdict) < ORDER.index(found) and not payload.note:
        text = f"by its readings it is “{VERDICT_WORD[found]}”; say why it is “{VERDICT_WORD[payload.verdict]}”"
        raise fault("note", text)
    _check_still_off(case, part, payload.verdict or found)


def _check_still_off(case: Case, part: PartSpec, verdict: Verdict) -> None:
    """Raises RefusedError where a part that is on the unit again is condemned: it has to come off first."""
    before = standing(case, part.key)
    if before is None or ORDER.index(verdict) <= ORDER.index(before):
        return
    on = next(
        (step for step in case.resolved.sheet.steps if step.stage == "rebuild" and part.key in step.puts_on), None
    )
    marked = case.state.book("steps").get(on.key) if on else None
    if on is not None and marked is not None and not undone(case, "steps", on.key, marked.mark):
        text = f"the {part.name.lower()} is on the unit again; take it apart first, from the step that takes it off"
        raise RefusedError("part-on", text)


def _check_point(path: str, spec: PointSpec, one: PointRead, *, sure: bool) -> None:
    if spec.read in {Read.YES_NO, Read.GO_NO_GO}:
        if one.good is None:
            raise fault(f"{path}.good", spec.ask, "yes", "no")
    elif spec.read is Read.LOOK:
        if one.seen is None:
            raise fault(f"{path}.seen", spec.ask, NOTHING_SEEN, *spec.bad)
    elif is_measured(spec):
        if len(one.values) != spec.places:
            raise fault(f"{path}.values", f"{spec.ask}: {spec.places} readings, {len(one.values)} came")
        for place, text in enumerate(one.values):
            value = value_of(text, spec.read, f"{path}.values.{place}")
            odd = far_off(spec, value)
            if odd and not sure:
                raise fault(f"{path}.values.{place}", f"{text} {odd}; look again, or say in the note that it is so")
    elif not one.values:
        raise fault(f"{path}.values", spec.ask)


def complete(case: Case, payload: PointsRead) -> PointsRead:
    """With what the readings come to, as the server works it out."""
    judged = verdict_of(case, case.resolved.parts[payload.part], payload.points)
    return payload.model_copy(update={"judged": judged})


def as_sent(payload: PointsRead) -> PointsRead:
    return payload.model_copy(update={"judged": None})


def apply(state: State, payload: PointsRead | PartDressed, mark: Mark) -> None:
    state.note("points" if isinstance(payload, PointsRead) else "dressed", payload.part, payload, mark)


def standing(case: Case, part: str) -> Verdict | None:
    """The verdict on a part as it stands: that given, else that of its readings; None before it is read."""
    marked = case.state.get("points", part)
    if marked is None:
        return None
    return marked.verdict or marked.judged or verdict_of(case, case.resolved.parts[part], marked.points)


def drafts(case: Case) -> Iterator[Draft]:
    resolved = case.resolved
    reads: dict[str, list[str]] = {}
    for step in resolved.sheet.steps:
        for name in step.reads:
            reads.setdefault(name.part, []).append(step.key)
    off = {part: step.key for step in resolved.sheet.steps for part in step.takes_off}
    for part in resolved.sheet.parts:
        if not points_of(case, part):
            continue
        at = reads.get(part.key) or ([off[part.key]] if part.key in off else [])
        after = {f"step:{key}": "" for key in at}
        read = case.state.book("points").get(part.key)
        to_dress = read is not None and standing(case, part.key) is Verdict.DRESS
        again = read is not None and _changed_since(case, part, read)
        yield Draft(_move(case, part), read is not None and not again, step=next(iter(at), None), after=after)
        if to_dress and not again:
            yield Draft(_dress(case, part), False, step=next(iter(at), None), after={f"measure:{part.key}": ""})


def _changed_since(case: Case, part: PartSpec, read: Marked[Any]) -> bool:
    """Whether a part was dressed, came back from outside, or had harm done to it after it was read."""
    dressed = case.state.book("dressed").get(part.key)
    came = case.state.book("came").get(f"part-{part.key}")
    back = came is not None and standing(case, part.key) is Verdict.SEND_OUT
    since = [mark.mark.seq for mark, counts in ((dressed, True), (came, back)) if mark is not None and counts]
    since += [
        case.state.book("rungs")[part.key, one.rung.key].mark.seq for one in harmful(case) if one.part == part.key
    ]
    return any(seq > read.mark.seq for seq in since)


def _move(case: Case, part: PartSpec) -> Move:
    asks: list[Ask] = []
    points = points_of(case, part)
    for index, point in enumerate(points):
        asks += _asks(index, point)
    asks.append(Ask("verdict", Read.CHOICE, "Verdict", tuple(Choice(v, VERDICT_WORD[v]) for v in ORDER), optional=True))
    return Move(
        f"measure:{part.key}",
        Chapter.INSPECT,
        Kind.MEASURE,
        part.key,
        f"Inspect: {part.name[0].lower()}{part.name[1:]}",
        {"kind": "points_read", "part": part.key, "points": [{"point": point.key} for point in points]},
        caution=next((point.caution for point in points if point.caution), None),
        delicate=delicate_of([part]),
        place=part.key,
        asks=tuple(asks),
    )


def _asks(index: int, point: PointSpec) -> Iterator[Ask]:
    if point.read in {Read.YES_NO, Read.GO_NO_GO}:
        yield Ask(f"points.{index}.good", point.read, point.ask)
    elif point.read is Read.LOOK:
        choices = (Choice(NOTHING_SEEN, "nothing of the kind"), *(Choice(bad, bad) for bad in point.bad))
        yield Ask(f"points.{index}.seen", Read.LOOK, point.ask, choices)
    else:
        # Of what is worked out from several readings, each lies within the nominal.
        single = point.compute in {None, "mean", "sum"} or point.nominal is None
        unit, limit, _ = measured(point.read, point.limit if single else point.nominal, "limit")
        for place in range(point.places):
            label = point.ask if point.places == 1 else f"{point.ask}, {place + 1} of {point.places}"
            yield Ask(
                f"points.{index}.values.{place}", point.read, label, unit=unit, limit=limit, hint=limit_words(point)
            )


def _dress(case: Case, part: PartSpec) -> Move:
    ways = [point.dress for point in part.points if point.dress and may_dress(case, point)]
    how = "; ".join(way.how for way in ways if way.how) or "dress it"
    return Move(
        f"dress:{part.key}",
        Chapter.INSPECT,
        Kind.STEP,
        part.key,
        f"Dress the {part.name.lower()}: {how}",
        {"kind": "part_dressed", "part": part.key},
        caution=next((way.caution for way in ways if way.caution), None),
        shows="; ".join(f"it costs: {way.costs}" for way in ways if way.costs) or None,
        delicate=delicate_of([part]),
        place=part.key,
    )


def words(resolved: Resolved, payload: PointsRead | PartDressed) -> str:
    part = resolved.parts.get(payload.part)
    name = part.name if part else payload.part
    if isinstance(payload, PartDressed):
        return f"{name} dressed{f': {payload.note}' if payload.note else ''}"
    read = "; ".join(_told(part, one) for one in payload.points)
    verdict = payload.verdict or payload.judged
    judged = f"; {VERDICT_WORD[verdict]}" if verdict else ""
    note = f": {payload.note}" if payload.note else ""
    return f"{name} inspected: {read}{judged}{note}"


def _told(part: PartSpec | None, one: PointRead) -> str:
    spec = next((point for point in part.points if point.key == one.point), None) if part else None
    what = spec.ask.rstrip("?") if spec else one.point
    if one.values:
        figure = figure_words(spec, one.values) if spec else None
        return f"{what} {', '.join(one.values)}{f' ({figure})' if figure else ''}"
    if one.good is not None:
        return f"{what} {'yes' if one.good else 'no'}"
    return f"{what}: {', '.join(one.signs) or 'nothing of the kind'}"
