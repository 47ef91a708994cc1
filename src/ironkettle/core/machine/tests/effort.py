"""Effort to open, as a breath draws it: a target, and a floor under which the unit is not stable."""

from __future__ import annotations

from dataclasses import replace

from pydantic import Field

from ironkettle.core.base.findings import Finding, caution, reject
from ironkettle.core.base.quantities import Dimension, Unit
from ironkettle.core.machine.tests.model import (
    MOST_READINGS,
    Criteria,
    Curve,
    Instrument,
    Outcome,
    Record,
    Result,
    Target,
    Trial,
    TrialPlan,
    Verdict,
    Wanted,
    Written,
)
from ironkettle.core.machine.tests.reading import (
    Wide,
    allowed,
    any_of,
    band_of,
    check_reach,
    coarse,
    doubt_words,
    far_off,
    held,
    in_unit,
    mean_of,
    read_each,
    shown,
    worst,
)

BASIS = "repeated readings, Student's t; the maker's figures win"
_EFFORTS = (Dimension.PRESSURE, Dimension.FORCE, Dimension.TORQUE)
USUAL_REPEATS = 3


class EffortCriteria(Criteria):
    """``value`` with its tolerance; ``floor`` and ``ceiling`` are never passed, by no single reading."""

    value: Target
    tolerance: Written | None = None
    floor: Written | None = None
    ceiling: Written | None = None
    repeats: int = Field(default=USUAL_REPEATS, ge=1, le=100)


class EffortRecord(Record):
    readings: list[Written] = Field(min_length=1, max_length=MOST_READINGS)


def analyse(criteria: EffortCriteria, record: EffortRecord, instrument: Instrument) -> Outcome:
    """The mean effort with its interval against target, floor and ceiling.

    One reading below the floor, or above the ceiling, fails, whatever the mean is. Source: Student's t.
    """
    target = band_of(criteria.value, criteria.tolerance, "value", _EFFORTS)
    unit, dimension = target.unit, target.unit.dimension
    floor = any_of(criteria.floor, [dimension], "floor").value if criteria.floor else None
    ceiling = any_of(criteria.ceiling, [dimension], "ceiling").value if criteria.ceiling else None
    readings = read_each(record.readings, dimension, "readings")
    check_reach(readings, instrument, "readings", unit)
    mean, interval = mean_of(readings, instrument)
    findings: list[Finding] = []
    least, most = _allowed(target, floor, ceiling, findings)
    findings += doubt_words(instrument, readings, (least, most), BASIS)
    verdict: Verdict = held(interval, (least, most))
    for end, low in ((floor, True), (ceiling, False)):
        beyond = [
            n + 1
            for n, reading in enumerate(readings)
            if end is not None and (reading.value < end if low else reading.value > end)
        ]
        if beyond and end is not None:
            verdict = "fail"
            which = f"reading{'s' if len(beyond) > 1 else ''} {', '.join(str(n) for n in beyond)}"
            side = "below the floor of" if low else "above the ceiling of"
            why = "not stable, it may open by itself" if low else "too hard to open"
            text = f"{which} {side} {shown(end, unit)}: {why}"
            findings.append(reject("below-floor" if low else "above-ceiling", text, BASIS))
    if len(readings) < criteria.repeats and verdict == "pass":
        verdict = "undecided"
        findings.append(caution("too-few", f"{len(readings)} of {criteria.repeats} readings", BASIS))
    if (place_off := far_off(readings)) is not None:
        findings.append(
            caution("far-off", f"reading {place_off + 1} lies far from the others: misread, or it sticks", BASIS)
        )
    results = (Result("mean", "Mean effort", mean, unit, dimension, interval, (least, most), verdict),)
    points = tuple((float(n + 1), reading.value) for n, reading in enumerate(readings))
    curve = Curve("reading", "", "effort", unit, points, band=(least, most))
    return Outcome(worst([verdict]), results, tuple(findings), curve)


def _allowed(
    target: Wide, floor: float | None, ceiling: float | None, findings: list[Finding]
) -> tuple[float | None, float | None]:
    """Between what the mean is right. A floor without a tolerance allows as much above the target as it lies below."""
    if not target.stated and floor is not None and floor < target.nominal:
        text = "no tolerance is given: as far above the target as its floor lies below is allowed"
        findings.append(caution("no-tolerance", text, BASIS))
        target = replace(target, low=floor, high=2 * target.nominal - floor, stated=True)
    low, high = allowed(target, findings, BASIS).within
    lows, highs = (
        [bound for bound in (low, floor) if bound is not None],
        [bound for bound in (high, ceiling) if bound is not None],
    )
    return max(lows, default=None), min(highs, default=None)


def _good(criteria: EffortCriteria) -> tuple[Unit, float, float]:
    target = band_of(criteria.value, criteria.tolerance, "value", _EFFORTS)
    dimension = target.unit.dimension
    floor = any_of(criteria.floor, [dimension], "floor").value if criteria.floor else None
    ceiling = any_of(criteria.ceiling, [dimension], "ceiling").value if criteria.ceiling else None
    low, high = _allowed(target, floor, ceiling, [])
    around = replace(target, low=low, high=high)
    return (target.unit, *around.ends)


def wanted(criteria: EffortCriteria) -> tuple[Wanted, ...]:
    """The readings of the effort, as many as are asked for."""
    unit, low, high = _good(criteria)
    good = in_unit(low, unit), in_unit(high, unit)
    return tuple(
        Wanted(f"readings.{n}", unit.dimension.value, f"Effort {n + 1}", unit.symbol, good)
        for n in range(criteria.repeats)
    )


def plan(criteria: EffortCriteria, instrument: Instrument) -> TrialPlan:
    """Drawn slowly, read at the instant it opens; a gauge whose step is at most a quarter of the band. [base unit]"""
    unit, low, high = _good(criteria)
    narrow = (high - low) / 4
    steps = (
        "Supply at its figure; the selector at its lightest",
        "Draw slowly; read the effort at the instant the supply dips",
        f"Let it come to rest, and again: {criteria.repeats} times in all",
    )
    return TrialPlan(
        steps, narrow, unit.dimension, "In front of the gauge, level with it", None,
        coarse(instrument, narrow, unit, high),
    )  # fmt: skip


def says(criteria: EffortCriteria) -> str:
    """The figures in words."""
    tolerance = f" ± {criteria.tolerance.strip().lstrip('±')}" if criteria.tolerance else ""
    parts = [f"opens at an effort of {criteria.value}{tolerance}"]
    parts += [f"never below {criteria.floor}"] if criteria.floor else []
    parts += [f"never above {criteria.ceiling}"] if criteria.ceiling else []
    return ", ".join(parts)


EFFORT = Trial("effort", "Effort to open", EffortCriteria, EffortRecord, wanted, plan, analyse, says)
