"""A regulator's set point: what it holds, its lock-up, creep, droop, hysteresis and how well it comes back."""

from __future__ import annotations

from dataclasses import dataclass
from itertools import pairwise
from typing import Any

import numpy as np
from pydantic import Field, model_validator

from ironkettle.core.base.errors import fault
from ironkettle.core.base.findings import Finding, caution, reject
from ironkettle.core.base.quantities import Dimension, Unit, read_quantity
from ironkettle.core.base.text import Figure
from ironkettle.core.machine.pressure.trend import trend_of
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
    Target,
    Trial,
    TrialPlan,
    Verdict,
    Wanted,
    Written,
)
from ironkettle.core.machine.tests.reading import (
    allowed,
    alone,
    band_of,
    check_reach,
    coarse,
    doubt_of,
    doubt_words,
    held,
    in_unit,
    mean_of,
    most_of,
    read_each,
    read_one,
    worst,
)
from ironkettle.core.machine.tests.rise import risen_within

BASIS = "repeated settings, Student's t; creep by its trend; the maker's figures win"
_P = Dimension.PRESSURE
USUAL_REPEATS = 3
# Where the same setting was come to more than once, readings of it may differ by this share of it, and are one setting.
_SAME = 1e-3


class Creep(Strict):
    """At most ``limit`` of a rise ``in`` a time, at no flow."""

    limit: Written
    within: Written = Field(alias="in")


class Droop(Strict):
    """At most ``limit`` of a fall at a ``flow``."""

    limit: Written
    flow: Written


class SetPointCriteria(Criteria):
    """``lock_up``: the most it shows when the flow is shut off; ``repeats``: how often it is set anew."""

    value: Target
    tolerance: Written | None = None
    lock_up: Written | None = None
    creep: Creep | None = None
    droop: Droop | None = None
    hysteresis: Written | None = None
    repeats: int = Field(default=USUAL_REPEATS, ge=1, le=100)

    @property
    def lasts(self) -> float | None:
        return read_quantity(self.creep.within, Dimension.TIME, "creep.in").value if self.creep else None


class CreepReading(Strict):
    """A reading at no flow. [s]"""

    t_s: Figure = Field(ge=0, le=1e6)
    pressure: Written


class SetPointRecord(Record):
    """``readings``: one for each time it was set; with ``settings`` and ``flows`` beside them where they differ.

    Readings at no flow are its lock-up; ``lock_ups`` may be told apart instead. ``creep_readings``: how it rose with the flow shut.
    """

    readings: list[Written] = Field(min_length=1, max_length=MOST_READINGS)
    settings: list[Written] = Field(default_factory=list, max_length=MOST_READINGS)
    flows: list[Written] = Field(default_factory=list, max_length=MOST_READINGS)
    lock_ups: list[Written] = Field(default_factory=list, max_length=MOST_READINGS)
    creep_readings: list[CreepReading] = Field(default_factory=list, max_length=MOST_ROWS)

    @property
    def lasted(self) -> float | None:
        return self.creep_readings[-1].t_s if self.creep_readings else None

    @model_validator(mode="after")
    def _are_rows(self) -> SetPointRecord:
        for name in ("settings", "flows"):
            if getattr(self, name) and len(getattr(self, name)) != len(self.readings):
                raise ValueError(f"{name} must be as many as the readings they belong to")
        return self


def analyse(criteria: SetPointCriteria, record: SetPointRecord, instrument: Instrument) -> Outcome:
    """Set, repeat, lock-up, creep a minute, droop at its flow, hysteresis: each against its figure where it has one.

    What has a figure and was not read is undecided. Source: Student's t of the readings at the set point; least squares
    for creep and droop; hysteresis is the most by which readings of one setting differ, come to from below and from above.
    """
    target = band_of(criteria.value, criteria.tolerance, "value", [_P])
    unit = target.unit
    rows = _rows(record, target.nominal, instrument, unit)
    at_set = [row for row in rows if abs(row.setting - target.nominal) <= _SAME * abs(target.nominal) and row.flows]
    findings: list[Finding] = []
    # The droop is no fault of the setting: of several flows the smallest is the one it is set at.
    least_flow = min((row.flow for row in at_set if row.flow is not None), default=None)
    chosen = [row.reading for row in at_set if row.flow is None or row.flow == least_flow]
    within = allowed(target, findings, BASIS).within
    findings += doubt_words(instrument, chosen, within, BASIS)
    results = _set(criteria, chosen, within, instrument, unit, findings)
    results += _lock_up(criteria, record, rows, instrument, unit)
    results += _creep(criteria, record, instrument, unit, findings)
    results += _droop(criteria, rows, target.nominal, instrument, unit)
    results += _hysteresis(criteria, rows, instrument, unit)
    points = tuple((float(n + 1), row.reading.value) for n, row in enumerate(rows))
    curve = Curve("setting", "", "pressure", unit, points, band=within)
    return Outcome(worst(result.verdict for result in results), tuple(results), tuple(findings), curve)


@dataclass(frozen=True, slots=True)
class _Row:
    """A reading, the setting it was read at [MPa], and the flow that went [ml/min]; None where it was not told."""

    reading: Reading
    setting: float
    flow: float | None

    @property
    def flows(self) -> bool:
        return self.flow is None or self.flow > 0


def _rows(record: SetPointRecord, target: float, instrument: Instrument, unit: Unit) -> list[_Row]:
    readings = read_each(record.readings, _P, "readings")
    check_reach(readings, instrument, "readings", unit)
    settings = [setting.value for setting in read_each(record.settings, _P, "settings")] or [target] * len(readings)
    flows: list[float | None] = [each.value for each in read_each(record.flows, Dimension.FLOW, "flows")]
    for place, flow in enumerate(flows):
        if flow is not None and flow < 0:
            raise fault(f"flows.{place}", "a flow cannot be negative", "0 l/min")
    rows = zip(readings, settings, flows or [None] * len(readings), strict=True)
    return [_Row(reading, setting, flow) for reading, setting, flow in rows]


def _set(
    criteria: SetPointCriteria,
    readings: list[Reading],
    within: tuple[float | None, float | None],
    instrument: Instrument,
    unit: Unit,
    findings: list[Finding],
) -> list[Result]:
    if not readings:
        findings.append(caution("not-set", "no reading was taken at the set point with flow", BASIS))
        return [_unread("set", "Set", unit, within)]
    mean, interval = mean_of(readings, instrument)
    verdict: Verdict = held(interval, within)
    if any(held(alone(reading, instrument), within) == "fail" for reading in readings):
        verdict = "fail"
        findings.append(reject("one-outside", "one setting is outside the limits by itself", BASIS))
    if verdict == "pass" and len(readings) < criteria.repeats:
        verdict = "undecided"
        findings.append(caution("too-few", f"set {len(readings)} of {criteria.repeats} times", BASIS))
    found = [Result("set", "Set", mean, unit, _P, interval, within, verdict)]
    if len(readings) > 1:
        values = [reading.value for reading in readings]
        found.append(Result("repeat", "Comes back within", max(values) - min(values), unit, _P))
    return found


def _unread(key: str, name: str, unit: Unit, within: tuple[float | None, float | None]) -> Result:
    """What has a figure and was not read is not known."""
    return Result(key, f"{name}: not read", 0.0, unit, _P, None, within, "undecided")


def _lock_up(
    criteria: SetPointCriteria, record: SetPointRecord, rows: list[_Row], instrument: Instrument, unit: Unit
) -> list[Result]:
    """The highest it showed with the flow shut off: each time counts, not their mean."""
    shut = [*read_each(record.lock_ups, _P, "lock_ups"), *(row.reading for row in rows if not row.flows)]
    check_reach(shut, instrument, "lock_ups", unit)
    most = most_of(criteria.lock_up, _P, "lock_up") if criteria.lock_up else None
    if not shut:
        return [] if most is None else [_unread("lock_up", "Lock-up", unit, (None, most))]
    highest = max(shut, key=lambda reading: reading.value)
    interval = alone(highest, instrument)
    verdict = None if most is None else held(interval, (None, most))
    return [Result("lock_up", "Lock-up", highest.value, unit, _P, interval, (None, most), verdict)]


def _creep(
    criteria: SetPointCriteria, record: SetPointRecord, instrument: Instrument, unit: Unit, findings: list[Finding]
) -> list[Result]:
    """How far it rose with the flow shut, over the time of its figure, and how fast a minute at the end."""
    spec = criteria.creep
    most = most_of(spec.limit, _P, "creep.limit") if spec else None
    lasts = read_quantity(spec.within, Dimension.TIME, "creep.in").value if spec else None
    if not record.creep_readings:
        return [] if most is None else [_unread("creep", "Creep", unit, (None, most))]
    readings = [
        read_one(creep.pressure, _P, f"creep_readings.{place}.pressure")
        for place, creep in enumerate(record.creep_readings)
    ]
    t = [creep_reading.t_s for creep_reading in record.creep_readings]
    for place in range(1, len(t)):
        if t[place] <= t[place - 1]:
            text = f"time {t[place]:g} s does not come after {t[place - 1]:g} s"
            raise fault(f"creep_readings.{place}.t_s", text, "times running forward")
    if len(t) < 3:
        raise fault("creep_readings", f"{len(t)} readings; a creep needs at least 3", "3 or more")
    step = max(instrument.step or 0.0, *(2 * reading.written for reading in readings))
    values = [reading.value for reading in readings]
    trend = trend_of(np.array(t), np.array(values), step)
    span = t[-1] - t[0]
    rise, most_risen = values[-1] - values[0], values[-1] - values[0]
    verdict: Verdict | None = None
    if most is not None and lasts is not None:
        rise, most_risen = risen_within(t, values, lasts)
        verdict = held((rise - step, most_risen + step), (None, most))
        if verdict == "pass" and span < lasts - 1e-9:
            verdict = "undecided"
            findings.append(caution("too-short", f"watched for {span:g} s of {lasts:g} s", BASIS))
    interval = (rise - step, most_risen + step)
    per_minute = Result(
        "creep_per_min", "Creep a minute", 60 * trend.slope, unit, _P, (60 * trend.ends[0], 60 * trend.ends[1])
    )
    return [Result("creep", "Creep", rise, unit, _P, interval, (None, most), verdict), per_minute]


def _droop(
    criteria: SetPointCriteria, rows: list[_Row], target: float, instrument: Instrument, unit: Unit
) -> list[Result]:
    """How far it falls from the smallest flow to the flow of its figure, by the line through what was read."""
    spec = criteria.droop
    most = most_of(spec.limit, _P, "droop.limit") if spec else None
    words = [
        row
        for row in rows
        if row.flow is not None and row.flow > 0 and abs(row.setting - target) <= _SAME * abs(target)
    ]
    flows = [row.flow for row in words if row.flow is not None]
    if len(set(flows)) < 2:
        return [] if most is None else [_unread("droop", "Droop", unit, (None, most))]
    x, y = np.array(flows), np.array([row.reading.value for row in words])
    slope = float(np.polyfit(x, y, 1)[0])
    to = read_quantity(spec.flow, Dimension.FLOW, "droop.flow").value if spec else float(x.max())
    fall = -slope * (to - float(x.min()))
    half = (
        2 * doubt_of([row.reading for row in words], instrument, 0.0) * max(1.0, (to - x.min()) / (x.max() - x.min()))
    )
    verdict = None if most is None else held((fall - half, fall + half), (None, most))
    if verdict == "pass" and to > x.max() * (1 + 1e-9):
        # Past what was read a line is a guess: the valve may be fully open.
        verdict = "undecided"
    return [
        Result(
            "droop", f"Droop at {to / 1000:g} l/min", fall, unit, _P, (fall - half, fall + half), (None, most), verdict
        )
    ]


def _hysteresis(criteria: SetPointCriteria, rows: list[_Row], instrument: Instrument, unit: Unit) -> list[Result]:
    """The most by which readings of one setting differ, come to from below and from above."""
    most = most_of(criteria.hysteresis, _P, "hysteresis") if criteria.hysteresis else None
    came: dict[float, tuple[list[float], list[float]]] = {}
    for before, row in pairwise(rows):
        if row.setting != before.setting:
            came.setdefault(row.setting, ([], []))[row.setting < before.setting].append(row.reading.value)
    gaps = [sum(down) / len(down) - sum(up) / len(up) for up, down in came.values() if up and down]
    if not gaps:
        return [] if most is None else [_unread("hysteresis", "Hysteresis", unit, (None, most))]
    widest = max(abs(gap) for gap in gaps)
    half = 2 * doubt_of([row.reading for row in rows], instrument, 0.0)
    interval = (max(0.0, widest - half), widest + half)
    verdict = None if most is None else held(interval, (None, most))
    return [Result("hysteresis", "Hysteresis", widest, unit, _P, interval, (None, most), verdict)]


def wanted(criteria: SetPointCriteria) -> tuple[Wanted, ...]:
    """Set so many times; its lock-up; its creep; at no flow what was read."""
    target = allowed(band_of(criteria.value, criteria.tolerance, "value", [_P]), [], BASIS)
    symbol = target.unit.symbol
    low, high = target.ends
    good = in_unit(low, target.unit), in_unit(high, target.unit)
    found = [
        Wanted(f"readings.{n}", "pressure", f"Setting {n + 1}, with flow", symbol, good)
        for n in range(criteria.repeats)
    ]
    if criteria.lock_up:
        top = in_unit(most_of(criteria.lock_up, _P, "lock_up"), target.unit)
        found.append(Wanted("lock_ups.0", "pressure", "Lock-up, flow shut off", symbol, (min(good[1], top), top)))
    if criteria.creep:
        start = (good[0] + good[1]) / 2
        rise = 0.2 * in_unit(most_of(criteria.creep.limit, _P, "creep.limit"), target.unit)
        found += [
            Wanted(
                f"creep_readings.{n}.pressure", "pressure", f"Flow shut, after {at:g} s", symbol, (start, start + rise)
            )
            for n, at in enumerate(_creep_times(criteria))
        ]
    if criteria.droop:
        place = criteria.repeats
        fall = in_unit(most_of(criteria.droop.limit, _P, "droop.limit"), target.unit)
        middle = (good[0] + good[1]) / 2
        found.append(
            Wanted(f"readings.{place}", "pressure", f"At {criteria.droop.flow}", symbol, (middle - 0.6 * fall, middle))
        )
    return tuple(found)


def blank(criteria: SetPointCriteria) -> dict[str, Any]:
    """The record with its times and flows filled in."""
    found: dict[str, Any] = {}
    if criteria.creep:
        found["creep_readings"] = [{"t_s": at} for at in _creep_times(criteria)]
    if criteria.droop:
        full = read_quantity(criteria.droop.flow, Dimension.FLOW, "droop.flow")
        small = f"{full.value / 20000:.4g} l/min"
        found["flows"] = [*[small] * criteria.repeats, criteria.droop.flow]
    return found


def _creep_times(criteria: SetPointCriteria) -> tuple[float, ...]:
    assert criteria.creep is not None
    lasts = read_quantity(criteria.creep.within, Dimension.TIME, "creep.in").value
    return tuple(lasts * n / 5 for n in range(6))


def plan(criteria: SetPointCriteria, instrument: Instrument) -> TrialPlan:
    """A gauge whose step is at most a quarter of the narrowest band. [MPa]"""
    target = allowed(band_of(criteria.value, criteria.tolerance, "value", [_P]), [], BASIS)
    low, high = target.ends
    bands = [high - low]
    bands += [most_of(bound.limit, _P, "limit") for bound in (criteria.creep, criteria.droop) if bound]
    narrow = min(bands) / 4
    creep, droop = criteria.creep, criteria.droop
    steps = (
        "Spring slack; supply on slowly; a little flow",
        f"Set {criteria.value}, coming from below; read; slack again: {criteria.repeats} times",
        *([f"Shut the flow off: lock-up at most {criteria.lock_up}"] if criteria.lock_up else []),
        *([f"Leave it shut for {creep.within}: a rise of {creep.limit} at most"] if creep else []),
        *([f"Open to {droop.flow}: a fall of {droop.limit} at most"] if droop else []),
        "Supply off, let the outlet down before any spanner",
    )
    return TrialPlan(
        steps, narrow, _P, "To the side of the spring chamber", "Supply on slowly: a regulator that sticks open lets all through",
        coarse(instrument, narrow, target.unit, high),
    )  # fmt: skip


def says(criteria: SetPointCriteria) -> str:
    """The figures in words."""
    tolerance = f" ± {criteria.tolerance.strip().lstrip('±')}" if criteria.tolerance else ""
    parts = [f"set {criteria.value}{tolerance}, {criteria.repeats} times"]
    parts += [f"lock-up at most {criteria.lock_up}"] if criteria.lock_up else []
    parts += [f"creep at most {criteria.creep.limit} in {criteria.creep.within}"] if criteria.creep else []
    parts += [f"droop at most {criteria.droop.limit} at {criteria.droop.flow}"] if criteria.droop else []
    return ", ".join(parts)


SET_POINT = Trial(
    "set_point", "Set point of a regulator", SetPointCriteria, SetPointRecord, wanted, plan, analyse, says, blank
)
