"""A reading held against a limit: the vacuum of a blocked inlet, a level, a leak into a glass."""

from __future__ import annotations

import re
from typing import Annotated

from pydantic import Field, StringConstraints

from ironkettle.core.base.errors import RuleError, fault
from ironkettle.core.base.findings import caution
from ironkettle.core.base.quantities import Dimension, Unit, find_unit, stated_seconds
from ironkettle.core.base.text import Plain
from ironkettle.core.machine.parts import Limit, read_limit
from ironkettle.core.machine.tests.model import (
    MOST_READINGS,
    Criteria,
    Curve,
    Instrument,
    Outcome,
    Record,
    Result,
    Trial,
    TrialPlan,
    Wanted,
    Written,
)
from ironkettle.core.machine.tests.reading import (
    alone,
    check_reach,
    coarse,
    doubt_words,
    far_off,
    held,
    in_unit,
    mean_of,
    read_each,
    worst,
)

BASIS = "reading with the uncertainty of its instrument"
_READ = (
    Dimension.PRESSURE, Dimension.LENGTH, Dimension.FLOW, Dimension.TIME, Dimension.VOLUME, Dimension.TEMPERATURE,
    Dimension.FORCE, Dimension.TORQUE, Dimension.ANGLE, Dimension.SPEED,
)  # fmt: skip


class ReadingCriteria(Criteria):
    """``quantity``: what is read, in words; ``limit``: ``at most -0.6 bar``, ``at least 12 mm``, ``1 to 4 mm``."""

    quantity: Annotated[str, StringConstraints(min_length=1, max_length=120), Plain]
    limit: Written
    repeats: int = Field(default=1, ge=1, le=100)

    @property
    def lasts(self) -> float | None:
        return stated_seconds(self.quantity)


class ReadingRecord(Record):
    readings: list[Written] = Field(min_length=1, max_length=MOST_READINGS)


def limit_of(text: str, field: str = "limit") -> tuple[Limit, Dimension]:
    """The limit, and what it is of. [base unit] Raises RuleError."""
    first_error: RuleError | None = None
    for dimension in _READ:
        try:
            found = read_limit(text, field, dimension)
            if found.low == found.high:
                raise fault(field, f"“{text}”: at most, at least, or with which tolerance?")
            return found, dimension
        except RuleError as error:
            first_error = first_error or error
    assert first_error is not None
    raise fault(field, first_error.faults[0].message, "at most -0.6 bar", "at least 12 mm", "1 to 4 mm")


def analyse(criteria: ReadingCriteria, record: ReadingRecord, instrument: Instrument) -> Outcome:
    """The mean of the readings with its interval against the limit; each by itself must not surely lie outside.

    Source: Student's t for several, the instrument alone for one.
    """
    limit, dimension = limit_of(criteria.limit)
    unit = unit_in(criteria.limit, dimension)
    readings = read_each(record.readings, dimension, "readings")
    check_reach(readings, instrument, "readings", unit)
    within = (limit.low, limit.high)
    mean, interval = mean_of(readings, instrument)
    findings = [*doubt_words(instrument, readings, within, BASIS)]
    verdict = held(interval, within)
    if any(held(alone(reading, instrument), within) == "fail" for reading in readings):
        verdict = "fail"
    if len(readings) < criteria.repeats and verdict == "pass":
        verdict = "undecided"
        findings.append(caution("too-few", f"{len(readings)} of {criteria.repeats} readings", BASIS))
    if (place := far_off(readings)) is not None:
        findings.append(caution("far-off", f"reading {place + 1} lies far from the others: misread?", BASIS))
    results = (Result("mean", criteria.quantity, mean, unit, dimension, interval, within, verdict),)
    points = tuple((float(n + 1), reading.value) for n, reading in enumerate(readings))
    return Outcome(
        worst([verdict]), results, tuple(findings), Curve("reading", "", criteria.quantity, unit, points, band=within)
    )


_UNIT_WORD = re.compile(r"[^\W\d_][\w/·²³]*|[°\"µ]\w*")


def unit_in(limit: str, dimension: Dimension) -> Unit:
    """The unit a limit is written in: the last word of it that is one. Raises RuleError where none is."""
    for word in reversed(_UNIT_WORD.findall(limit)):
        unit = find_unit(word)
        if unit is not None and unit.dimension is dimension:
            return unit
    raise fault("limit", f"“{limit}” names no unit")


def wanted(criteria: ReadingCriteria) -> tuple[Wanted, ...]:
    """The reading, as often as it is asked for."""
    limit, dimension = limit_of(criteria.limit)
    unit = unit_in(criteria.limit, dimension)
    good = good_of(limit, unit)
    return tuple(
        Wanted(
            f"readings.{n}",
            dimension.value,
            criteria.quantity if criteria.repeats == 1 else f"{criteria.quantity}, {n + 1}",
            unit.symbol,
            good,
        )
        for n in range(criteria.repeats)
    )


def good_of(limit: Limit, unit: Unit) -> tuple[float, float]:
    """Between what a good reading lies, both ends there. [unit]"""
    low, high = limit.low, limit.high
    low = low if low is not None else (0.0 if high is not None and high > 0 else 1.5 * (high or 0.0))
    high = high if high is not None else (2 * low if low > 0 else low / 2)
    first, second = in_unit(low, unit), in_unit(high, unit)
    return min(first, second), max(first, second)


def plan(criteria: ReadingCriteria, instrument: Instrument) -> TrialPlan:
    """Read when it stands still; a step of at most a tenth of the limit, or a quarter of its band. [base unit]"""
    limit, dimension = limit_of(criteria.limit)
    unit = unit_in(criteria.limit, dimension)
    ends = [bound for bound in (limit.low, limit.high) if bound is not None]
    narrow = (ends[1] - ends[0]) / 4 if len(ends) == 2 else abs(ends[0]) / 10
    steps = ("Bring it to its state and let it stand still", f"Read {criteria.quantity}: {criteria.limit}")
    top = max(abs(end) for end in ends)
    return TrialPlan(
        steps,
        narrow or None,
        dimension,
        "In front of the gauge, level with it",
        None,
        coarse(instrument, narrow or None, unit, top),
    )


def says(criteria: ReadingCriteria) -> str:
    """What is read, and its limit."""
    return f"{criteria.quantity}: {criteria.limit}"


READING = Trial("reading", "Reading against a limit", ReadingCriteria, ReadingRecord, wanted, plan, analyse, says)
