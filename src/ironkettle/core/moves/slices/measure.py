"""The points of a part read, held against their limits, and what becomes of the part."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from enum import StrEnum
from typing import Annotated, Literal

from pydantic import BeforeValidator, Field

from ironkettle.core.buildsheets.facts import dimension_of
from ironkettle.core.buildsheets.parts import PartSpec, PointSpec, Read
from ironkettle.core.errors import fault
from ironkettle.core.moves.log import Case, Mark, Payload, State
from ironkettle.core.moves.model import Ask, Chapter, Choice, Draft, Kind, Move
from ironkettle.core.moves.resolved import Resolved
from ironkettle.core.moves.slices.base import ItemKey, Note, Short, delicate_of, known, measured, value_of
from ironkettle.core.parts import read_limit


class Verdict(StrEnum):
    REUSE = "reuse"
    DRESS = "dress"
    REPLACE = "replace"
    SEND_OUT = "send_out"


VERDICT_WORD = {
    Verdict.REUSE: "reuse", Verdict.DRESS: "dress", Verdict.REPLACE: "replace", Verdict.SEND_OUT: "send out",
}  # fmt: skip
_NOTHING_SEEN = "none"


def _as_text(value: object) -> object:
    """A bare number read is kept as text, as readings with a unit are."""
    return f"{value:g}" if isinstance(value, int | float) and not isinstance(value, bool) else value


class PointRead(Payload):
    """``values`` as typed with their unit; ``seen``: the signs seen, *none* where there are none; ``good``: yes or no."""

    point: ItemKey
    values: list[Annotated[Short, BeforeValidator(_as_text)]] = Field(default_factory=list, max_length=24)
    seen: list[Short] | Short | None = None
    good: bool | None = None

    @property
    def signs(self) -> list[str]:
        given = [self.seen] if isinstance(self.seen, str) else list(self.seen or ())
        return [sign for sign in given if sign != _NOTHING_SEEN]


class PointsRead(Payload):
    kind: Literal["points_read"] = "points_read"
    part: ItemKey
    points: list[PointRead] = Field(min_length=1, max_length=60)
    verdict: Verdict | None = None
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
    specs = {point.key: point for point in part.points}
    for index, one in enumerate(payload.points):
        known(f"points.{index}.point", one.point, specs, "point of this part")
        _check_point(f"points.{index}", specs[one.point], one)
    missing = [spec.ask for key, spec in specs.items() if key not in {one.point for one in payload.points}]
    if missing:
        raise fault("points", f"not read yet: {missing[0]}")
    found = verdict_of(part, payload.points)
    if payload.verdict is not None and _ORDER.index(payload.verdict) < _ORDER.index(found) and not payload.note:
        text = f"by its readings it is “{VERDICT_WORD[found]}”; say why it is “{VERDICT_WORD[payload.verdict]}”"
        raise fault("note", text)


def _check_point(path: str, spec: PointSpec, one: PointRead) -> None:
    if spec.read in {Read.YES_NO, Read.GO_NO_GO}:
        if one.good is None:
            raise fault(f"{path}.good", spec.ask, "yes", "no")
    elif spec.read is Read.LOOK:
        if one.seen is None:
            raise fault(f"{path}.seen", spec.ask, _NOTHING_SEEN, *spec.bad)
    elif dimension_of(spec.read) is not None or spec.read is Read.NUMBER:
        if len(one.values) != spec.places:
            raise fault(f"{path}.values", f"{spec.ask}: {spec.places} readings, {len(one.values)} came")
        for place, text in enumerate(one.values):
            value_of(text, spec.read, f"{path}.values.{place}")
    elif not one.values:
        raise fault(f"{path}.values", spec.ask)


# From the mildest to the hardest.
_ORDER = (Verdict.REUSE, Verdict.DRESS, Verdict.REPLACE, Verdict.SEND_OUT)


def verdict_of(part: PartSpec, points: Sequence[PointRead]) -> Verdict:
    """What the readings of a part come to: the hardest of its points.

    A point that does not hold its limit may be dressed where the sheet says so and it is not beyond that; else
    the sheet says what follows.
    """
    specs = {point.key: point for point in part.points}
    found = [_verdict_of(specs[one.point], one) for one in points if one.point in specs]
    return max(found, key=_ORDER.index, default=Verdict.REUSE)


def _verdict_of(spec: PointSpec, one: PointRead) -> Verdict:
    if _holds(spec, one):
        return Verdict.REUSE
    if spec.dress is not None and _within_dressing(spec, one):
        return Verdict.DRESS
    otherwise = {
        "replace": Verdict.REPLACE,
        "send_out": Verdict.SEND_OUT,
        "dress": Verdict.DRESS,
        "reuse": Verdict.REUSE,
    }
    return otherwise.get(spec.otherwise, Verdict.REPLACE)


def _holds(spec: PointSpec, one: PointRead) -> bool:
    if spec.read in {Read.YES_NO, Read.GO_NO_GO}:
        return one.good is True
    if spec.read is Read.LOOK:
        return not one.signs
    if spec.limit is None or (dimension_of(spec.read) is None and spec.read is not Read.NUMBER):
        return True
    return read_limit(spec.limit, "limit", dimension_of(spec.read)).holds(computed(spec, one.values))


def _within_dressing(spec: PointSpec, one: PointRead) -> bool:
    assert spec.dress is not None
    dimension = dimension_of(spec.read)
    if dimension is None:
        return True
    limit = read_limit(spec.dress.to, "dress.to", dimension)
    most = limit.high if limit.high is not None else limit.low
    return most is not None and computed(spec, one.values) <= most + 1e-9


def computed(spec: PointSpec, values: Sequence[str]) -> float:
    """What the readings of a point come to, in the base unit: the worst of them, or what the sheet computes.

    ovality, taper, flatness, run-out, difference: largest less smallest; wear: the nominal less the smallest;
    mean and sum as they are called.
    """
    read = [value_of(text, spec.read, "values") for text in values]
    if spec.compute in {"ovality", "taper", "flatness", "run_out", "difference"}:
        return max(read) - min(read)
    if spec.compute == "mean":
        return sum(read) / len(read)
    if spec.compute == "sum":
        return sum(read)
    if spec.compute == "wear" and spec.nominal:
        nominal = read_limit(spec.nominal, "nominal", dimension_of(spec.read))
        return (nominal.high or 0.0) - min(read)
    limit = read_limit(spec.limit, "limit", dimension_of(spec.read)) if spec.limit else None
    if limit is not None and limit.high is None:
        return min(read)
    return max(read, key=lambda value: _how_far(value, limit.low if limit else None, limit.high if limit else None))


def _how_far(value: float, low: float | None, high: float | None) -> float:
    return max(value - high if high is not None else float("-inf"), low - value if low is not None else float("-inf"))


def apply(state: State, payload: PointsRead | PartDressed, mark: Mark) -> None:
    state.note("points" if isinstance(payload, PointsRead) else "dressed", payload.part, payload, mark)


def standing(case: Case, part: str) -> Verdict | None:
    """The verdict on a part as it stands: that given, else that of its readings; None before it is read."""
    marked = case.state.get("points", part)
    if marked is None:
        return None
    return marked.verdict or verdict_of(case.resolved.parts[part], marked.points)


def drafts(case: Case) -> Iterator[Draft]:
    resolved = case.resolved
    reads: dict[str, list[str]] = {}
    for step in resolved.sheet.steps:
        for name in step.reads:
            reads.setdefault(name.part, []).append(step.key)
    off = {part: step.key for step in resolved.sheet.steps for part in step.takes_off}
    for part in resolved.sheet.parts:
        if not part.points:
            continue
        at = reads.get(part.key) or ([off[part.key]] if part.key in off else [])
        after = {f"step:{key}": "" for key in at}
        dressed = case.state.book("dressed").get(part.key)
        read = case.state.book("points").get(part.key)
        to_dress = read is not None and standing(case, part.key) is Verdict.DRESS
        again = dressed is not None and read is not None and dressed.mark.seq > read.mark.seq
        yield Draft(_move(resolved, part), read is not None and not again, step=next(iter(at), None), after=after)
        if to_dress and not again:
            yield Draft(_dress(resolved, part), False, step=next(iter(at), None), after={f"measure:{part.key}": ""})


def _move(resolved: Resolved, part: PartSpec) -> Move:
    asks: list[Ask] = []
    for index, point in enumerate(part.points):
        asks += _asks(index, point)
    asks.append(
        Ask("verdict", Read.CHOICE, "Verdict", tuple(Choice(v, VERDICT_WORD[v]) for v in _ORDER), optional=True)
    )
    return Move(
        f"measure:{part.key}",
        Chapter.INSPECT,
        Kind.MEASURE,
        part.key,
        f"Inspect: {part.name[0].lower()}{part.name[1:]}",
        {"kind": "points_read", "part": part.key, "points": [{"point": point.key} for point in part.points]},
        caution=next((point.caution for point in part.points if point.caution), None),
        delicate=delicate_of([part]),
        place=part.key,
        asks=tuple(asks),
    )


def _asks(index: int, point: PointSpec) -> Iterator[Ask]:
    if point.read in {Read.YES_NO, Read.GO_NO_GO}:
        yield Ask(f"points.{index}.good", point.read, point.ask)
    elif point.read is Read.LOOK:
        choices = (Choice(_NOTHING_SEEN, "nothing of the kind"), *(Choice(bad, bad) for bad in point.bad))
        yield Ask(f"points.{index}.seen", Read.LOOK, point.ask, choices)
    else:
        # Of what is worked out from several readings, each lies within the nominal.
        single = point.compute in {None, "mean", "sum"} or point.nominal is None
        unit, limit, _ = measured(point.read, point.limit if single else point.nominal, "limit")
        for place in range(point.places):
            label = point.ask if point.places == 1 else f"{point.ask}, {place + 1} of {point.places}"
            yield Ask(f"points.{index}.values.{place}", point.read, label, unit=unit, limit=limit, hint=point.limit)


def _dress(resolved: Resolved, part: PartSpec) -> Move:
    ways = [point.dress for point in part.points if point.dress]
    how = "; ".join(way.how for way in ways if way.how) or "dress it"
    return Move(
        f"dress:{part.key}",
        Chapter.INSPECT,
        Kind.STEP,
        part.key,
        f"Dress the {part.name.lower()}: {how}",
        {"kind": "part_dressed", "part": part.key},
        caution=next((way.caution for way in ways if way.caution), None),
        delicate=delicate_of([part]),
        place=part.key,
    )


def words(resolved: Resolved, payload: PointsRead | PartDressed) -> str:
    part = resolved.parts.get(payload.part)
    name = part.name if part else payload.part
    if isinstance(payload, PartDressed):
        return f"{name} dressed{f': {payload.note}' if payload.note else ''}"
    verdict = payload.verdict or (verdict_of(part, payload.points) if part else None)
    read = "; ".join(_told(part, one) for one in payload.points)
    return f"{name} inspected: {read}; {VERDICT_WORD[verdict] if verdict else ''}"


def _told(part: PartSpec | None, one: PointRead) -> str:
    spec = next((point for point in part.points if point.key == one.point), None) if part else None
    what = spec.ask.rstrip("?") if spec else one.point
    if one.values:
        return f"{what} {', '.join(one.values)}"
    if one.good is not None:
        return f"{what} {'yes' if one.good else 'no'}"
    return f"{what}: {', '.join(one.signs) or 'nothing of the kind'}"
