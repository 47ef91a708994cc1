"""What several kinds share: names that must be known, limits read, asks."""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping
from typing import Annotated

from pydantic import BeforeValidator, StringConstraints

from ironkettle.core.base.errors import RuleError, fault
from ironkettle.core.base.quantities import BASE_UNIT, Dimension, find_unit, from_base, read_quantity
from ironkettle.core.base.text import Plain, PlainLines
from ironkettle.core.jobs.ask import Ask, Choice
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.resolved import ElementAt, Resolved
from ironkettle.core.machine.parts import Limit, read_limit
from ironkettle.core.sheets.document.facts import dimension_of
from ironkettle.core.sheets.document.parts import PartSpec, Read

ItemKey = Annotated[str, StringConstraints(pattern=r"^[a-z0-9][a-z0-9_\-]{0,59}(@[a-z0-9_\-]{1,20})?$")]


def _as_written(value: object) -> object:
    """A number counted or read, as it would be written down."""
    return f"{value:.12g}" if isinstance(value, int | float) and not isinstance(value, bool) else value


Short = Annotated[str, StringConstraints(min_length=1, max_length=120, strip_whitespace=True), Plain]
Written = Annotated[
    str, BeforeValidator(_as_written), StringConstraints(min_length=1, max_length=120, strip_whitespace=True), Plain
]
Note = Annotated[
    str, BeforeValidator(_as_written), StringConstraints(max_length=2000, strip_whitespace=True), *PlainLines
]
Reason = Annotated[str, StringConstraints(min_length=5, max_length=600, strip_whitespace=True), *PlainLines]

# What a length or a pressure is asked in where the sheet's limit does not say.
ASKED_IN = {
    Dimension.LENGTH: "mm", Dimension.PRESSURE: "bar", Dimension.TORQUE: "N·m", Dimension.VOLUME: "ml",
    Dimension.FLOW: "ml/min", Dimension.TEMPERATURE: "°C", Dimension.TIME: "min", Dimension.ANGLE: "°",
    Dimension.FORCE: "N", Dimension.SPEED: "m/s", Dimension.AREA: "mm²",
}  # fmt: skip
# Where a limit has one end only, the other is asked up to this multiple of it.
_OPEN_END = 2.0
_WIDEST = 1000.0


def known(field: str, key: str, names: Iterable[str], what: str) -> None:
    """Raises RuleError naming the field when the key is none of these."""
    found = tuple(names)
    if key not in found:
        article = "an" if what[0] in "aeiou" else "a"
        raise fault(field, f"“{key}” is not {article} {what} of this build sheet", *found[:12])


def check_confirmed(field: str, said: bool | None, undone: str) -> None:
    """Raises RuleError with what there is still to do where a condition was not said to hold; to *No* it does not offer *Yes*."""
    if said is not True:
        raise fault(field, undone, *(("yes", "no") if said is None else ()))


def not_answered(field: str, question: str, *accepts: str) -> RuleError:
    """The error for a question of a task that was left open: what nobody said is not recorded."""
    return fault(field, f"“{question}” is not answered", *accepts)


def delicate_of(parts: Iterable[PartSpec]) -> tuple[str, ...]:
    """What is delicate about some parts, each with its name."""
    return tuple(dict.fromkeys(f"{part.name}: {part.delicate}" for part in parts if part.delicate))


def zone_choices(resolved: Resolved, between: tuple[str, str]) -> tuple[Choice, ...]:
    """The two zones to point at, in the order of the drawing: that at smaller z first."""
    return tuple(Choice(key, resolved.zone_names.get(key, key)) for key in between)


# What is off centre as its sheet says, where the sheet names no zone to point at; and the other way.
AS_MUST, OTHERWISE = "as_must", "otherwise"


def offset_label(at: ElementAt) -> str:
    """What is asked of an element that has something off centre."""
    assert at.spec.offset is not None
    return (
        f"Which side: {at.spec.offset.says}?" if at.spec.offset.towards else f"How does it lie: {at.spec.offset.says}?"
    )


def offset_choices(resolved: Resolved, at: ElementAt) -> tuple[Choice, ...]:
    """The two ways in which it can lie: to the zones in the order of the drawing, else as the sheet says or not."""
    if at.spec.offset is not None and at.spec.offset.towards:
        return zone_choices(resolved, at.station.between)
    return Choice(AS_MUST, "Yes, so"), Choice(OTHERWISE, "The other way")


def offset_words(resolved: Resolved, at: ElementAt, answer: str) -> str:
    """How it lies, for the record; the words themselves where an older entry has others."""
    says = at.spec.offset.says if at.spec.offset else "off centre"
    if answer in {AS_MUST, OTHERWISE}:
        return f"{says}: {'yes' if answer == AS_MUST else 'the other way'}"
    return f"{says} to {resolved.zone_names[answer]}" if answer in resolved.zone_names else answer


def measured(read: Read, limit: str | None, field: str) -> tuple[str | None, tuple[float, float] | None, Limit | None]:
    """Unit, finite range and limit of something measured; the range within the limit where there is one. [unit of what is read]"""
    dimension = dimension_of(read)
    if dimension is None and read is not Read.NUMBER:
        return None, None, None
    found = None if limit is None else read_limit(limit, field, dimension)
    unit = None if dimension is None else _unit_in(limit, dimension)
    ends = _finite(found)
    if dimension is not None and unit is not None:
        symbol = find_unit(unit)
        if symbol is not None:
            ends = (from_base(ends[0], symbol), from_base(ends[1], symbol))
    return unit, ends, found


def value_of(text: str, read: Read, field: str) -> float:
    """A reading in the base unit of what is read; a plain number where it has none. Raises RuleError. [base unit]"""
    dimension = dimension_of(read)
    if dimension is None:
        try:
            value = float(text.replace(",", "."))
        except ValueError:
            value = math.nan
        if not math.isfinite(value):
            raise fault(field, f"“{text}” is not a number", "12")
        return value
    return read_quantity(text, dimension, field).value


# What has no direction: a depth, a torque, a count.
_MAGNITUDES = frozenset({
    Read.NUMBER, Read.LENGTH, Read.TORQUE, Read.VOLUME, Read.FLOW, Read.TIME, Read.FORCE, Read.SPEED,
})  # fmt: skip


def refuse_below_zero(text: str, value: float, read: Read, limit: Limit | None, field: str) -> None:
    """Raises RuleError for a reading below 0 of what cannot be; not where its limit itself goes below. ``value``: as read [base unit]."""
    may = limit is not None and any(end is not None and end < 0 for end in (limit.low, limit.high))
    if value < 0 and read in _MAGNITUDES and not may:
        raise fault(field, f"{text} is below 0: read it again", "0 or more", code="out-of-limits")


def _unit_in(limit: str | None, dimension: Dimension) -> str:
    if limit is not None:
        for word in reversed(limit.replace("/", " / ").split()):
            unit = find_unit(word)
            if unit is not None and unit.dimension is dimension:
                return word
    return ASKED_IN.get(dimension, BASE_UNIT[dimension])


def _finite(limit: Limit | None) -> tuple[float, float]:
    if limit is None:
        return 0.0, _WIDEST
    low, high = limit.low, limit.high
    if low is None and high is None:
        return 0.0, _WIDEST
    if low is None:
        return min(0.0, high or 0.0), high or 0.0
    if high is None:
        return low, low * _OPEN_END if low > 0 else low + _WIDEST
    return low, high


def ask_yes(field: str, label: str) -> Ask:
    """A question that only *yes* answers well."""
    return Ask(field, Read.YES_NO, label, right=True)


def after_steps(case: Case, step: str) -> dict[str, str]:
    """The tasks a step waits for: the steps before it with everything that rides on them, and why."""
    return {f"step:{before}": why for before, why in case.resolved.before.get(step, {}).items()}


def merged(*afters: Mapping[str, str]) -> dict[str, str]:
    """Several lists of what comes before as one; the first reason given for each is kept."""
    found: dict[str, str] = {}
    for after in afters:
        found.update({key: why for key, why in after.items() if key not in found})
    return found
