"""Friction: what it takes to break away, to keep running, and whether it sticks and slips."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

import numpy as np
from pydantic import Field, StringConstraints, model_validator

from ironkettle.core.base.errors import fault
from ironkettle.core.base.findings import Finding, caution, reject
from ironkettle.core.base.quantities import Dimension, Unit, find_unit, to_base
from ironkettle.core.base.text import Figure, Plain
from ironkettle.core.machine.tests.model import (
    MOST_READINGS,
    MOST_ROWS,
    Criteria,
    Curve,
    Instrument,
    Outcome,
    Reading,
    Record,
    Result,
    Strict,
    Trial,
    TrialPlan,
    Verdict,
    Wanted,
    Written,
)
from ironkettle.core.machine.tests.reading import (
    any_of,
    check_reach,
    coarse,
    doubt_of,
    doubt_words,
    held,
    in_unit,
    read_each,
    shown,
    worst,
)

BASIS = "pressure or force over the stroke"
_READ = (Dimension.PRESSURE, Dimension.FORCE)
# Moved by more than this share of the whole stroke it has broken away.
_MOVED = 0.005
# Its ends are left out: starting and stopping.
_ENDS = 0.1
# Swings wider than this share of the running figure are stick-slip.
_STICKS = 0.3
_LEAST_ROWS = 10


class FrictionCriteria(Criteria):
    """The most to break away, and the most while running."""

    breakaway: Written
    running: Written | None = None


class Stroke(Strict):
    """Where the rod is, and what moves it, in the unit of the record. [mm]"""

    position_mm: Figure = Field(ge=-100_000, le=100_000)
    value: Figure = Field(ge=-1e9, le=1e9)


class FrictionRecord(Record):
    """A stroke as ``samples`` in ``unit``; or what was read, stroke by stroke: ``breakaways``, ``runs``. ``smooth``: no judder."""

    unit: Annotated[str, StringConstraints(min_length=1, max_length=20), Plain] | None = None
    samples: list[Stroke] = Field(default_factory=list, max_length=MOST_ROWS)
    breakaways: list[Written] = Field(default_factory=list, max_length=MOST_READINGS)
    runs: list[Written] = Field(default_factory=list, max_length=MOST_READINGS)
    smooth: bool | None = None

    @model_validator(mode="after")
    def _has_readings(self) -> FrictionRecord:
        if bool(self.samples) == bool(self.breakaways):
            raise ValueError("give a stroke as samples, or what was read as it broke away")
        return self


@dataclass(frozen=True, slots=True)
class _Read:
    """The highest breakaway, the highest running figure or median, and the swing over it. [base unit]"""

    peak: Reading
    running: Reading | None
    swing: float | None = None
    curve: Curve | None = None


def analyse(criteria: FrictionCriteria, record: FrictionRecord, instrument: Instrument) -> Outcome:
    """Breakaway: the highest before it moved. Running: the median between the ends. Stick-slip: the swing over it, in %.

    pass: both lie below their figure by more than the gauge can be off, and it was not felt to judder. Source: definitions.
    """
    limit = any_of(criteria.breakaway, _READ, "breakaway")
    unit, dimension = limit.unit, limit.unit.dimension
    findings: list[Finding] = [*doubt_words(instrument, (), (None, None), BASIS)]
    read = _of_stroke(record, unit, dimension) if record.samples else _as_read(record, dimension, instrument, unit)
    results = [_judged("breakaway", "Breakaway", read.peak, limit.value, unit, instrument)]
    most = any_of(criteria.running, [dimension], "running").value if criteria.running else None
    if read.running is not None:
        results.append(_judged("running", "Running", read.running, most, unit, instrument))
    elif most is not None:
        results.append(Result("running", "Running: not read", 0.0, unit, dimension, None, (None, most), "undecided"))
    verdict = worst(result.verdict for result in results)
    if read.swing is not None and read.running is not None and read.running.value:
        share = 100 * read.swing / abs(read.running.value)
        results.append(Result("stick_slip", "Swing while running", share, "%"))
        if share > 100 * _STICKS:
            text = f"it sticks and slips: the swing is {share:.0f} % of what keeps it running"
            findings.append(caution("stick-slip", text, BASIS))
            verdict = "undecided" if verdict == "pass" else verdict
    if record.smooth is False:
        findings.append(reject("judders", "it was felt to judder", BASIS))
        verdict = "fail"
    return Outcome(verdict, tuple(results), tuple(findings), read.curve)


def _as_read(record: FrictionRecord, dimension: Dimension, instrument: Instrument, unit: Unit) -> _Read:
    first, after = read_each(record.breakaways, dimension, "breakaways"), read_each(record.runs, dimension, "runs")
    check_reach(first, instrument, "breakaways", unit)
    check_reach(after, instrument, "runs", unit)
    return _Read(
        max(first, key=lambda reading: reading.value), max(after, key=lambda reading: reading.value, default=None)
    )


def _judged(key: str, name: str, read: Reading, most: float | None, unit: Unit, instrument: Instrument) -> Result:
    half = doubt_of([read], instrument, read.value)
    interval = (read.value - half, read.value + half)
    verdict: Verdict | None = None if most is None else held(interval, (None, most))
    return Result(key, name, read.value, unit, unit.dimension, interval, (None, most), verdict)


def _of_stroke(record: FrictionRecord, unit: Unit, dimension: Dimension) -> _Read:
    unit_read = find_unit(record.unit) if record.unit else unit
    if unit_read is None or unit_read.dimension is not dimension or unit_read.absolute:
        raise fault("unit", f"“{record.unit}” is no unit of a {dimension.value} here", unit.symbol)
    if len(record.samples) < _LEAST_ROWS:
        raise fault("samples", f"{len(record.samples)} readings over a stroke; it needs at least {_LEAST_ROWS}")
    x = np.array([sample.position_mm for sample in record.samples])
    y = np.array([to_base(sample.value, unit_read) for sample in record.samples])
    travel = abs(x - x[0])
    whole = float(travel.max())
    if whole < 1.0:
        raise fault("samples", "it did not move: there is no breakaway to read", "a stroke of 1 mm or more")
    moved = int(np.argmax(travel > _MOVED * whole))
    peak = float(y[: moved + 1].max())
    inside = (travel >= _ENDS * whole) & (travel <= (1 - _ENDS) * whole)
    if inside.sum() < 3:
        raise fault("samples", "too few readings between the ends of the stroke", "10 or more")
    running = float(np.median(y[inside]))
    swing = float(np.percentile(y[inside], 95) - np.percentile(y[inside], 5))
    points = tuple(zip(x.tolist(), y.tolist(), strict=True))
    curve = Curve("position", "mm", "to move it", unit, points, line=True)
    return _Read(Reading(peak, 0.0), Reading(running, 0.0), swing, curve)


def wanted(criteria: FrictionCriteria) -> tuple[Wanted, ...]:
    """What to read as it breaks away and while it runs."""
    limit = any_of(criteria.breakaway, _READ, "breakaway")
    read = limit.unit.dimension.value

    def good(text: str) -> tuple[float, float]:
        top = in_unit(any_of(text, _READ, "breakaway").value, limit.unit)
        return 0.3 * top, 0.7 * top

    found = [Wanted("breakaways.0", read, "As it breaks away", limit.unit.symbol, good(criteria.breakaway))]
    if criteria.running:
        found.append(Wanted("runs.0", read, "While it runs", limit.unit.symbol, good(criteria.running)))
    return (*found, Wanted("smooth", "yes_no", "Runs smoothly, without judder?"))


def plan(criteria: FrictionCriteria, instrument: Instrument) -> TrialPlan:
    """A gauge whose step is at most a tenth of what is allowed. [MPa or N]"""
    limit = any_of(criteria.breakaway, _READ, "breakaway")
    narrow = limit.value / 10
    steps = (
        "Both ports open to tank or air; the rod free of any load",
        "Raise slowly: read the highest before it moves",
        f"Over the whole stroke: it runs at {criteria.running or shown(limit.value, limit.unit)} or less, evenly",
        "Again the other way",
    )
    return TrialPlan(
        steps, narrow, limit.unit.dimension, "Clear of the rod's whole stroke", "It starts with a jump: hands away",
        coarse(instrument, narrow, limit.unit, limit.value),
    )  # fmt: skip


def says(criteria: FrictionCriteria) -> str:
    """Both figures."""
    running = f", runs at {criteria.running} at most" if criteria.running else ""
    return f"breaks away at {criteria.breakaway} at most{running}"


FRICTION = Trial("friction", "Friction over the stroke", FrictionCriteria, FrictionRecord, wanted, plan, analyse, says)
