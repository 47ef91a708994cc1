"""Opening pressure: opened again and again, where it opened and shut, and whether it dribbles below."""

from __future__ import annotations

from itertools import pairwise
from typing import Annotated

from pydantic import Field, StringConstraints, model_validator

from ironkettle.core.base.errors import fault
from ironkettle.core.base.findings import Finding, caution, reject
from ironkettle.core.base.quantities import Dimension, Unit
from ironkettle.core.base.text import Figure, Plain
from ironkettle.core.machine.tests.model import (
    MOST_READINGS,
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
    far_off,
    held,
    in_unit,
    least_of,
    mean_of,
    most_of,
    read_each,
    shown,
    worst,
)

BASIS = "repeated openings, Student's t; the maker's figures win"
_P = Dimension.PRESSURE
# Openings that tell a scatter; fewer only where the sheet says so.
USUAL_REPEATS = 3


class Dribble(Strict):
    """Held so far below its opening for so long, and no drop."""

    below: Written
    seconds: Figure = Field(gt=0, le=3600)


# From here a jet goes through skin: 100 psi, as safety sheets on injection injuries have it. [MPa]
PIERCES_MPA = 0.7


class OpeningCriteria(Criteria):
    """``value`` with its tolerance; ``spread``: the most between highest and lowest; ``reseat``: the least it shuts at."""

    value: Target
    tolerance: Written | None = None
    repeats: int = Field(default=USUAL_REPEATS, ge=1, le=100)
    spread: Written | None = None
    reseat: Written | None = None
    dribble: Dribble | None = None

    @property
    def lasts(self) -> float | None:
        return self.dribble.seconds if self.dribble else None


class OpeningRecord(Record):
    """``dry``: no drop in the time of the dribble test; ``pattern``: the spray in a word."""

    openings: list[Written] = Field(min_length=1, max_length=MOST_READINGS)
    reseats: list[Written] = Field(default_factory=list, max_length=MOST_READINGS)
    dry: bool | None = None
    pattern: Annotated[str, StringConstraints(max_length=120), Plain] | None = None

    @model_validator(mode="after")
    def _is_paired(self) -> OpeningRecord:
        if len(self.reseats) > len(self.openings):
            raise ValueError("there are more reseats than openings")
        return self


def analyse(criteria: OpeningCriteria, record: OpeningRecord, instrument: Instrument) -> Outcome:
    """The mean opening with its interval, spread, repeatability and reseat, each against its figure.

    pass: the whole interval and every opening lie in the band, the spread is small enough, with as many openings as are
    wanted. fail: the interval lies outside, or one opening does by more than the gauge can be off. Source: Student's t;
    repeatability is the spread in per cent of the mean.
    """
    target = band_of(criteria.value, criteria.tolerance, "value", [_P])
    unit = target.unit
    openings = read_each(record.openings, _P, "openings")
    reseats = read_each(record.reseats, _P, "reseats")
    _check(openings, reseats, instrument, unit)
    findings: list[Finding] = []
    within = allowed(target, findings, BASIS).within
    mean, interval = mean_of(openings, instrument)
    findings += doubt_words(instrument, openings, within, BASIS)
    verdict = held(interval, within)
    single = worst(held(alone(opening, instrument), within) for opening in openings)
    if single == "fail":
        verdict = "fail"
        findings.append(reject("one-outside", "one opening is outside the limits by itself", BASIS))
    if len(openings) < criteria.repeats and verdict == "pass":
        verdict = "undecided"
        findings.append(
            caution(
                "too-few",
                f"{len(openings)} of {criteria.repeats} openings: open it again, so that the scatter is known",
                BASIS,
            )
        )
    if (place := far_off(openings)) is not None:
        findings.append(
            caution("far-off", f"opening {place + 1} lies far from the others: misread, or it sticks", BASIS)
        )
    if _climbs(openings):
        findings.append(
            caution(
                "climbs",
                "each opening is higher than the one before, or lower: it settles or warms; go on until it stands",
                BASIS,
            )
        )
    results = [Result("mean", "Mean opening", mean, unit, _P, interval, within, verdict)]
    results += _spread(criteria, openings, instrument, mean, unit)
    results += _reseat(criteria, reseats, instrument, unit)
    dribble = _dribble(criteria, record, findings)
    points = tuple((float(n + 1), opening.value) for n, opening in enumerate(openings))
    curve = Curve("opening", "", "opening pressure", unit, points, band=within)
    return Outcome(worst([*(result.verdict for result in results), dribble]), tuple(results), tuple(findings), curve)


def _check(openings: list[Reading], reseats: list[Reading], instrument: Instrument, unit: Unit) -> None:
    for place, opening in enumerate(openings):
        if opening.value <= 0:
            raise fault(f"openings.{place}", "an opening lies above the pressure of the air", "281 bar")
    check_reach(openings, instrument, "openings", unit)
    for place, (opened, shut) in enumerate(zip(openings, reseats, strict=False)):
        if shut.value > opened.value + opened.written + shut.written:
            text = f"it cannot shut at {shown(shut.value, unit)} when it opened at {shown(opened.value, unit)}"
            raise fault(f"reseats.{place}", text, f"up to {shown(opened.value, unit)}")
        if shut.value < 0:
            raise fault(f"reseats.{place}", "lies below the pressure of the air", "265 bar")


def _climbs(openings: list[Reading]) -> bool:
    steps = [b.value - a.value for a, b in pairwise(openings)]
    beyond = 2 * max(opening.written for opening in openings)
    total = abs(openings[-1].value - openings[0].value)
    return len(steps) >= 3 and (all(step > 0 for step in steps) or all(step < 0 for step in steps)) and total > beyond


def _spread(
    criteria: OpeningCriteria, openings: list[Reading], instrument: Instrument, mean: float, unit: Unit
) -> list[Result]:
    """Highest less lowest. Both ends are read on one gauge: its accuracy falls out, half a step or rounding at each end does not."""
    if len(openings) < 2:
        return []
    values = [opening.value for opening in openings]
    spread = max(values) - min(values)
    half = 2 * doubt_of(openings, instrument, 0.0)
    interval = (max(0.0, spread - half), spread + half)
    most = most_of(criteria.spread, _P, "spread") if criteria.spread else None
    verdict = None if most is None else held(interval, (None, most))
    return [
        Result("spread", "Spread", spread, unit, _P, interval, (None, most), verdict),
        Result("repeatability", "Repeatability", 100 * spread / mean, "%"),
    ]


def _reseat(criteria: OpeningCriteria, reseats: list[Reading], instrument: Instrument, unit: Unit) -> list[Result]:
    least = least_of(criteria.reseat, _P, "reseat") if criteria.reseat else None
    if not reseats:
        # What is held against a figure and was not read is not known.
        return (
            []
            if least is None
            else [Result("reseat", "Reseat: not read", 0.0, unit, _P, None, (least, None), "undecided")]
        )
    mean, interval = mean_of(reseats, instrument)
    verdict = None if least is None else held(interval, (least, None))
    return [Result("reseat", "Mean reseat", mean, unit, _P, interval, (least, None), verdict)]


def _dribble(criteria: OpeningCriteria, record: OpeningRecord, findings: list[Finding]) -> Verdict | None:
    if criteria.dribble is None:
        return None
    words = f"held {criteria.dribble.below} below its opening for {criteria.dribble.seconds:g} s"
    if record.dry is None:
        findings.append(caution("not-held", f"not recorded whether it stays dry {words}", BASIS))
        return "undecided"
    if not record.dry:
        findings.append(reject("dribbles", f"it dribbles {words}", BASIS))
    return "pass" if record.dry else "fail"


def wanted(criteria: OpeningCriteria) -> tuple[Wanted, ...]:
    """The openings, a reseat to each where it counts, the dribble."""
    target = allowed(band_of(criteria.value, criteria.tolerance, "value", [_P]), [], BASIS)
    low, high = target.ends
    good = in_unit(low, target.unit), in_unit(high, target.unit)
    symbol = target.unit.symbol
    found = [Wanted(f"openings.{n}", "pressure", f"Opening {n + 1}", symbol, good) for n in range(criteria.repeats)]
    if criteria.reseat:
        least = in_unit(least_of(criteria.reseat, _P, "reseat"), target.unit)
        found += [
            Wanted(f"reseats.{n}", "pressure", f"Reseat {n + 1}", symbol, (least, max(least, good[0])))
            for n in range(criteria.repeats)
        ]
    if criteria.dribble:
        below, seconds = criteria.dribble.below, criteria.dribble.seconds
        found.append(Wanted("dry", "yes_no", f"Held {below} below for {seconds:g} s: dry at the tip or seat?"))
    found.append(Wanted("pattern", "text", "The spray, in a word", optional=True))
    return tuple(found)


def plan(criteria: OpeningCriteria, instrument: Instrument) -> TrialPlan:
    """Raised slowly each time; a gauge whose step is at most a quarter of the band. [MPa] A jet pierces skin from 0.7 MPa."""
    target = allowed(band_of(criteria.value, criteria.tolerance, "value", [_P]), [], BASIS)
    low, high = target.ends
    narrow = (high - low) / 4
    steps = (
        f"Fill and bleed; raise quickly to about {shown(0.9 * target.nominal, target.unit)}",
        "From there slowly: read the highest it shows as it opens",
        "Shut off: read where it comes to rest",
        f"Again, {criteria.repeats} times in all",
        *(
            [f"Hold {criteria.dribble.below} below its opening for {criteria.dribble.seconds:g} s and look for a drop"]
            if criteria.dribble
            else []
        ),
    )
    stand = "Beside the unit, never in front of where it blows"
    pierces = high >= PIERCES_MPA
    return TrialPlan(
        steps, narrow, _P, f"{stand}; the jet goes into a guard" if pierces else stand,
        "A jet at this pressure goes through skin: hands away, glasses on" if pierces else None,
        findings=coarse(instrument, narrow, target.unit, high),
    )  # fmt: skip


def says(criteria: OpeningCriteria) -> str:
    """The figures in words."""
    tolerance = f" ± {criteria.tolerance.strip().lstrip('±')}" if criteria.tolerance else ""
    parts = [f"opens at {criteria.value}{tolerance}, {criteria.repeats} times"]
    parts += [f"spread at most {criteria.spread}"] if criteria.spread else []
    parts += [f"shuts at {criteria.reseat} or above"] if criteria.reseat else []
    parts += [f"dry {criteria.dribble.below} below for {criteria.dribble.seconds:g} s"] if criteria.dribble else []
    return ", ".join(parts)


OPENING = Trial("opening_pressure", "Opening pressure", OpeningCriteria, OpeningRecord, wanted, plan, analyse, says)
