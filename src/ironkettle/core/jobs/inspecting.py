"""The points of a part as they stand in a job: held against the sheet's limit or the shop's, and what follows of them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum

from pydantic import Field

from ironkettle.core.base.quantities import Dimension, read_toleranced
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kinds.base import ItemKey, Short, Written, value_of
from ironkettle.core.jobs.rungs import RUNGS
from ironkettle.core.jobs.state import Payload
from ironkettle.core.machine.parts import Limit, figure_of, read_limit
from ironkettle.core.sheets.document.facts import dimension_of
from ironkettle.core.sheets.document.parts import LookPoint, MeasuredPoint, PartSpec, PointSpec, YesNoPoint
from ironkettle.core.sheets.document.parts import Rung as RungSpec
from ironkettle.core.shop.settings import part_limit


class Verdict(StrEnum):
    REUSE = "reuse"
    DRESS = "dress"
    REPLACE = "replace"
    SEND_OUT = "send_out"


VERDICT_WORD = {
    Verdict.REUSE: "reuse", Verdict.DRESS: "dress", Verdict.REPLACE: "replace", Verdict.SEND_OUT: "send out",
}  # fmt: skip


# From the mildest to the hardest.
ORDER = (Verdict.REUSE, Verdict.DRESS, Verdict.REPLACE, Verdict.SEND_OUT)


NOTHING_SEEN = "none"


# A reading this many times its limit, or this far from its nominal, is a slip of unit or point until somebody says it is not.
_FAR, _FAR_FROM_NOMINAL = 20.0, 1.5


_DRESS_PITS = 1


class PointRead(Payload):
    """``values`` as typed with their unit; ``seen``: the signs seen, *none* where there are none; ``good``: yes or no."""

    point: ItemKey
    values: list[Written] = Field(default_factory=list, max_length=24)
    seen: list[Short] | Short | None = None
    good: bool | None = None

    @property
    def signs(self) -> list[str]:
        return [sign for sign in self._given if sign != NOTHING_SEEN]

    @property
    def contradicts(self) -> bool:
        """Whether a sign was told beside *none*."""
        return bool(self.signs) and NOTHING_SEEN in self._given

    @property
    def _given(self) -> list[str]:
        return [self.seen] if isinstance(self.seen, str) else list(self.seen or ())


@dataclass(frozen=True, slots=True)
class Harmful:
    """A rung of a ladder that was tried and did harm: what it became a point of inspection for."""

    part: str
    rung: RungSpec

    @property
    def point(self) -> LookPoint:
        """Look at what the rung may have spoilt."""
        may = self.rung.may or "harm"
        return LookPoint.model_validate(
            {
                "key": f"harm-{self.rung.key}",
                "ask": f"After “{self.rung.do}”: check what it did",
                "read": "look",
                "bad": [may],
            }
        )


def harmful(case: Case) -> list[Harmful]:
    """The rungs that were tried and did harm, in the order of the sheet's ladders."""
    tried = case.state.book(RUNGS)
    return [
        Harmful(ladder.part, rung)
        for ladder in case.resolved.sheet.ladders
        for rung in ladder.rungs
        if (ladder.part, rung.key) in tried and tried[ladder.part, rung.key].value.harm
    ]


def points_of(case: Case, part: PartSpec) -> list[PointSpec]:
    """The points of a part in this job: those of the sheet, with the shop's limit where it names one, and harm done."""
    own = [_limited(case, point) for point in part.points]
    return [*own, *(harm.point for harm in harmful(case) if harm.part == part.key)]


def _limited(case: Case, point: PointSpec) -> PointSpec:
    if not isinstance(point, MeasuredPoint) or point.limit is not None or point.rule is None:
        return point
    limit = part_limit(case.resolved.sheet.family, point.rule)
    return (
        point
        if limit is None
        else point.model_copy(update={"limit": f"at most {case.tables.settings.most(limit):g} mm"})
    )


def limit_words(point: PointSpec) -> str | None:
    """The limit as a person reads it, with where it comes from; what is worked out of several readings by its name, after the nominal."""
    if not isinstance(point, MeasuredPoint) or point.limit is None:
        return None
    words = f"{point.limit}{' (shop setting)' if point.rule else ''}"
    if point.compute is None:
        return words
    nominal = f"nominal {point.nominal}; " if point.nominal else ""
    return f"{nominal}{point.compute.replace('_', '-')} {words}"


def verdict_of(case: Case, part: PartSpec, points: Sequence[PointRead]) -> Verdict:
    """What the readings of a part come to: the hardest of its points.

    A point that does not hold its limit may be dressed where the sheet says so, the shop's practice option allows it, and it is
    not beyond that; else the sheet says what follows.
    """
    specs = {point.key: point for point in points_of(case, part)}
    found = [_verdict_of(case, specs[point.point], point) for point in points if point.point in specs]
    return max(found, key=ORDER.index, default=Verdict.REUSE)


def _verdict_of(case: Case, spec: PointSpec, read: PointRead) -> Verdict:
    if holds(spec, read):
        return Verdict.REUSE
    if spec.dress is not None and may_dress(case, spec) and _within_dressing(spec, read):
        return Verdict.DRESS
    otherwise = {
        "replace": Verdict.REPLACE,
        "send_out": Verdict.SEND_OUT,
        "dress": Verdict.DRESS,
        "reuse": Verdict.REUSE,
    }
    return otherwise.get(spec.otherwise, Verdict.REPLACE)


def may_dress(case: Case, spec: PointSpec) -> bool:
    """Whether the shop dresses such a fault at all."""
    return spec.dress is not None and (not spec.dress.pits or case.tables.settings.follows("pits", _DRESS_PITS))


def holds(spec: PointSpec, read: PointRead) -> bool:
    """Whether what was read at a point is as it must be."""
    if isinstance(spec, YesNoPoint):
        return read.good is True
    if isinstance(spec, LookPoint):
        return not read.signs
    if not isinstance(spec, MeasuredPoint):
        return True
    if spec.limit is None:
        # A shop limit that this family does not have: nothing says that it may stay.
        return spec.rule is None
    return read_limit(spec.limit, "limit", dimension_of(spec.read)).holds(computed(spec, read.values))


def _within_dressing(spec: PointSpec, read: PointRead) -> bool:
    assert spec.dress is not None
    if isinstance(spec, LookPoint) and spec.dress.of:
        return set(read.signs) <= set(spec.dress.of)
    if not isinstance(spec, MeasuredPoint) or (dimension := dimension_of(spec.read)) is None:
        return True
    limit = read_limit(spec.dress.to, "dress.to", dimension)
    most = limit.high if limit.high is not None else limit.low
    return most is not None and computed(spec, read.values) <= most + 1e-9


# What is read off a dial from a zero of its own, both ways.
SIGNED = frozenset({"run_out", "flatness", "difference"})


def limit_of(spec: MeasuredPoint) -> Limit | None:
    """The limit of a point as figures; None where it has none. [base unit]"""
    return read_limit(spec.limit, "limit", dimension_of(spec.read)) if spec.limit else None


def computed(spec: MeasuredPoint, values: Sequence[str]) -> float:
    """What the readings of a point come to, in the base unit: what the sheet computes of them, else the worst of them. [base unit]"""
    read = [value_of(text, spec.read, "values") for text in values]
    if spec.compute is not None:
        return figure_of(spec.compute, read, nominal_of(spec))
    limit = limit_of(spec)
    if limit is not None and limit.high is None:
        return min(read)
    return max(read, key=lambda value: _how_far(value, limit.low if limit else None, limit.high if limit else None))


def nominal_of(spec: MeasuredPoint) -> float | None:
    """What a point was made to, in the base unit; None where the sheet does not say. [base unit]"""
    dimension = dimension_of(spec.read)
    if spec.nominal is None or dimension is None:
        return None
    _, toleranced = read_toleranced(spec.nominal, dimension, "nominal")
    return toleranced.nominal


def _how_far(value: float, low: float | None, high: float | None) -> float:
    return max(value - high if high is not None else float("-inf"), low - value if low is not None else float("-inf"))


def far_off(spec: MeasuredPoint, value: float) -> str | None:
    """Why a reading looks like a slip of unit or of point, in words; None where it does not.

    ``value``: every finite number, above or below 0. [base unit]
    """
    nominal = nominal_of(spec)
    if nominal is not None:
        far = not nominal / _FAR_FROM_NOMINAL <= value <= nominal * _FAR_FROM_NOMINAL
        return f"is far from {spec.nominal}" if far else None
    if spec.limit is None or spec.compute is not None or dimension_of(spec.read) is not Dimension.LENGTH:
        return None
    limit = read_limit(spec.limit, "limit", dimension_of(spec.read))
    if limit.high is not None and limit.high > 0 and value > _FAR * limit.high:
        return f"is {value / limit.high:.0f} times the limit, {spec.limit}"
    return None


def figure_words(spec: PointSpec, values: Sequence[str]) -> str | None:
    """The computed figure in words with its unit; None where nothing is computed."""
    if not isinstance(spec, MeasuredPoint) or spec.compute is None or not values:
        return None
    unit = "mm" if dimension_of(spec.read) is Dimension.LENGTH else ""
    return f"{spec.compute.replace('_', '-')} {computed(spec, values):.3g} {unit}".rstrip()
