"""Drift of a rod under load, and what passes its piston for it."""

from __future__ import annotations

import re
from typing import Any, Literal

import numpy as np
from pydantic import Field

from ironkettle.core.base.errors import RuleError, fault
from ironkettle.core.base.findings import Finding, caution, reject
from ironkettle.core.base.quantities import Dimension, read_length, read_quantity, read_volume
from ironkettle.core.base.text import Figure
from ironkettle.core.machine.cylinders import Cylinder
from ironkettle.core.machine.pressure.trend import trend_of
from ironkettle.core.machine.tests.model import (
    MOST_ROWS,
    Criteria,
    Curve,
    Instrument,
    Outcome,
    Record,
    Result,
    Strict,
    Trial,
    TrialPlan,
    Verdict,
    Wanted,
    Written,
)
from ironkettle.core.machine.tests.reading import coarse, held, most_of, unit_named, worst

BASIS = "area times speed; oil 0.0007 1/K"
# Mineral oil; what another liquid may expand by; and how far a shop's air may drift where no temperature is read.
_EXPANSION, _ANY_LIQUID = 7e-4, (0.0, 1e-3)
# Gas oil is diesel, a liquid.
_GASES = re.compile(r"\b(air|nitrogen|oxygen|gas(?! oil)|argon|helium|steam|heliox)\b", re.IGNORECASE)
_K_PER_MIN = 0.1
_DIAL_MM = 0.01
_IN_TIME = re.compile(r"(?P<way>.+?)\s+in\s+(?P<time>.+)")
_LEAST_ROWS, _LEAST_SPAN_S = 5, 60.0
# Every two minutes for ten.
_READ_AT, _READ_EVERY_S = 6, 120.0


class DriftCriteria(Criteria):
    """``side``: which side holds the load; ``limit``: the most that passes, as a flow or a speed of the rod.

    ``other_side``: whether its port is open. ``volume``: the liquid under load, for what warming moves; ``medium``: what liquid
    that is, mineral oil where it is left out.
    """

    bore: Written
    rod: Written | None = None
    side: Literal["cap", "rod"] = "cap"
    other_side: Literal["open", "shut"] = "open"
    limit: Written
    volume: Written | None = None
    medium: Written | None = None
    resolution: Written | None = None

    @property
    def lasts(self) -> float | None:
        return _READ_EVERY_S * (_READ_AT - 1)


class Position(Strict):
    """How far the rod stands out. [s, mm]"""

    t_s: Figure = Field(ge=0, le=1e7)
    position_mm: Figure = Field(ge=-100_000, le=100_000)
    temperature_c: Figure | None = Field(default=None, ge=-100, le=300)


class DriftRecord(Record):
    samples: list[Position] = Field(min_length=3, max_length=MOST_ROWS)

    @property
    def lasted(self) -> float | None:
        return self.samples[-1].t_s - self.samples[0].t_s


def cylinder_of(criteria: DriftCriteria) -> Cylinder:
    """The cylinder that drifts. Raises RuleError where the rod side holds the load and no rod is given."""
    bore = read_length(criteria.bore, "bore")
    rod = read_length(criteria.rod, "rod") if criteria.rod else 0.0
    if criteria.side == "rod" and rod == 0.0:
        raise fault("rod", "is needed where the rod side holds the load", "36 mm")
    return Cylinder(bore, rod, 1.0)


def analyse(criteria: DriftCriteria, record: DriftRecord, instrument: Instrument) -> Outcome:
    """What passes the piston: the loaded area times the speed at which the rod gives way.

    Oil that cools shrinks and lets the rod sink too: V·α·dT/dt, as read, or in the doubt where it was not. A cap side that
    holds a pushing load with the rod side shut does not sink through a leaking piston: the pressures rise instead; such a
    trace can fail and never pass. Source: continuity; the trend's interval as for a pressure hold.
    """
    cylinder = cylinder_of(criteria)
    area = cylinder.cap_area if criteria.side == "cap" else cylinder.rod_area
    most = _most(criteria.limit, area)
    t, x = _rows(record)
    step = _step(criteria, x)
    trend = trend_of(t, x, step)
    # Cap side loaded: the rod goes in as it gives way; rod side loaded: out.
    sign = -1.0 if criteria.side == "cap" else 1.0
    to_flow = area * 60 / 1000
    findings: list[Finding] = []
    warm_low, warm_high = _warming(criteria, record, findings)
    rate = sign * trend.slope * to_flow
    low, high = rate - trend.half * to_flow - warm_high, rate + trend.half * to_flow - warm_low
    rate -= (warm_low + warm_high) / 2
    verdict: Verdict = held((low, high), (None, most))
    if high < 0:
        verdict = "invalid"
        findings.append(
            reject("against", "the rod moves against its load: something pushes, or the side is wrong", BASIS)
        )
    if verdict == "pass" and criteria.volume is None:
        verdict = "undecided"
    if verdict == "pass" and (len(t) < _LEAST_ROWS or t[-1] - t[0] < _LEAST_SPAN_S):
        verdict = "undecided"
        findings.append(
            caution("too-short", f"{_LEAST_ROWS} readings over {_LEAST_SPAN_S:g} s are the least that pass", BASIS)
        )
    if criteria.side == "cap" and criteria.other_side == "shut":
        findings.append(
            reject(
                "trapped",
                "with the rod side shut a leaking piston hardly sinks: pressures rise instead. Open the rod port to a glass",
                BASIS,
            )
        )
        verdict = "invalid" if verdict == "pass" else verdict
    results = (
        Result(
            "leak_rate",
            "Past the piston",
            rate,
            unit_named("ml/min"),
            Dimension.FLOW,
            (low, high),
            (None, most),
            verdict,
        ),
        Result("drift", "Drift of the rod", 60 * sign * trend.slope, "mm/min"),
    )
    points = tuple(zip((t / 60).tolist(), x.tolist(), strict=True))
    return Outcome(
        worst([verdict]), results, tuple(findings), Curve("time", "min", "position", "mm", points, line=True)
    )


def _most(limit: str, area: float) -> float:
    """The limit as a flow, written bare or as *at most*; a speed of the rod, or a way in a time, becomes one with the area. [ml/min] Raises RuleError."""
    if match := _IN_TIME.fullmatch(limit.strip()):
        way = most_of(match["way"], Dimension.LENGTH, "limit")
        time = read_quantity(match["time"], Dimension.TIME, "limit").value
        if time <= 0:
            raise fault("limit", "in no time at all", "2 mm in 10 min")
        most = way / time * 60 * area / 1000
    else:
        try:
            most = most_of(limit, Dimension.FLOW, "limit")
        except RuleError as error:
            try:
                # m/s times mm² is ml/s.
                most = most_of(limit, Dimension.SPEED, "limit") * area * 60
            except RuleError:
                raise error from None
    if most <= 0:
        raise fault("limit", "must be above zero", "1 ml/min", "2 mm/min", "2 mm in 10 min")
    return most


def _rows(record: DriftRecord) -> tuple[np.ndarray, np.ndarray]:
    before = -1.0
    for place, sampled in enumerate(record.samples):
        if sampled.t_s <= before:
            raise fault(
                f"samples.{place}.t_s",
                f"time {sampled.t_s:g} s does not come after {before:g} s",
                "times running forward",
            )
        before = sampled.t_s
    return np.array([sample.t_s for sample in record.samples]), np.array(
        [sample.position_mm for sample in record.samples]
    )


def _step(criteria: DriftCriteria, x: np.ndarray) -> float:
    """The smallest step of the measure: told, else the smallest seen, else the hundredth of a dial. [mm]"""
    if criteria.resolution:
        return read_length(criteria.resolution, "resolution")
    steps = np.abs(np.diff(x))
    seen = steps[steps > 1e-9]
    return float(max(seen.min(), _DIAL_MM)) if len(seen) else _DIAL_MM


def _expansion(criteria: DriftCriteria) -> tuple[float, float]:
    """The least and the most the liquid under load expands by. [1/K] Raises RuleError for a gas.

    Source: no published source; mineral oil 0.0007, liquids of a shop up to 0.001.
    """
    medium = (criteria.medium or "mineral oil").strip()
    if _GASES.search(medium):
        text = f"“{medium}” is a gas: the rod moves without any leak. Test with a liquid"
        raise fault("medium", text, "mineral oil ISO VG 46")
    return (_EXPANSION, _EXPANSION) if "mineral oil" in medium.casefold() else _ANY_LIQUID


def _warming(criteria: DriftCriteria, record: DriftRecord, findings: list[Finding]) -> tuple[float, float]:
    """What cooling oil moves, that no leak is: least and most. [ml/min]"""
    expands = _expansion(criteria)
    if criteria.volume is None:
        findings.append(
            caution(
                "volume-unknown",
                "The volume of oil under load is not entered, so warming oil could hide a leak: enter the volume and read the temperature.",
                BASIS,
            )
        )
        return 0.0, 0.0
    volume = read_volume(criteria.volume, "volume")
    read = [(sample.t_s, sample.temperature_c) for sample in record.samples if sample.temperature_c is not None]
    # A figure typed at every row is no reading.
    differs = len({reading[1] for reading in read}) > 1
    if (
        differs
        and len(read) >= 3
        and read[-1][0] - read[0][0] >= 0.6 * (record.samples[-1].t_s - record.samples[0].t_s)
    ):
        found = trend_of(np.array([reading[0] for reading in read]), np.array([reading[1] for reading in read]), 0.1)
        # Cooling, a negative trend, lets the rod sink.
        ends = [-60 * volume * expand * each for expand in expands for each in found.ends]
        return min(ends), max(ends)
    drift = volume * max(expands) * _K_PER_MIN
    findings.append(
        caution("temperature-unknown", f"no temperature: {drift:.2g} ml/min either way may be warming", BASIS)
    )
    return -drift, drift


def wanted(criteria: DriftCriteria) -> tuple[Wanted, ...]:
    """Positions over ten minutes, standing still."""
    return tuple(
        Wanted(f"samples.{n}.position_mm", "number", f"Rod out after {2 * n} min, in mm", "mm", (99.99, 100.01))
        for n in range(_READ_AT)
    )


def blank(criteria: DriftCriteria) -> dict[str, Any]:
    """The record with the times to read at: every two minutes for ten."""
    return {"samples": [{"t_s": _READ_EVERY_S * n} for n in range(_READ_AT)]}


def plan(criteria: DriftCriteria, instrument: Instrument) -> TrialPlan:
    """A dial that shows the limit within the time: at most a quarter of what the rod may move in ten minutes. [mm]"""
    cylinder = cylinder_of(criteria)
    _expansion(criteria)
    area = cylinder.cap_area if criteria.side == "cap" else cylinder.rod_area
    narrow = _most(criteria.limit, area) * 1000 / area * 10 / 4
    other = "rod" if criteria.side == "cap" else "cap"
    steps = (
        f"Load on the {criteria.side} side, its port shut; the {other} port open to a glass",
        "Let it stand until oil and room are of one temperature",
        "Read how far the rod stands out, every two minutes, for ten",
    )
    return TrialPlan(
        steps, narrow, Dimension.LENGTH, "Never under the load; props ready", "A held load: prop it before any hand goes near",
        coarse(instrument, narrow, unit_named("mm"), 0.0),
    )  # fmt: skip


def says(criteria: DriftCriteria) -> str:
    """Side and limit."""
    return f"held on the {criteria.side} side, past the piston at most {criteria.limit.removeprefix('at most ')}"


DRIFT = Trial("drift", "Drift under load", DriftCriteria, DriftRecord, wanted, plan, analyse, says, blank)
