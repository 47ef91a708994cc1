"""Readings and limits as written, and whether a value with its doubt holds a limit."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

from scipy.special import stdtrit

from ironkettle.core.base.errors import FieldFault, RuleError, fault
from ironkettle.core.base.findings import Finding, caution, reject
from ironkettle.core.base.quantities import (
    Dimension,
    Quantity,
    Unit,
    find_unit,
    from_base,
    read_band,
    read_quantity,
    read_tolerance,
    show,
    written_half,
)
from ironkettle.core.machine.tests.model import Instrument, InstrumentUsed, Reading, Result, Verdict

Within = tuple[float | None, float | None]
_WORST: tuple[Verdict, ...] = ("invalid", "fail", "undecided", "pass")
_MAGNITUDES = frozenset({Dimension.FLOW, Dimension.VOLUME, Dimension.TIME, Dimension.TORQUE})
# Readings of the same kind that differ more than this from their middle, in medians of their differences, are misread.
_FAR = 8.0


def pressure_of(text: str, field: str) -> Quantity:
    """A gauge pressure, below zero for a vacuum. [MPa] Raises RuleError for an absolute one."""
    found = read_quantity(text, Dimension.PRESSURE, field)
    if found.unit.absolute:
        raise _absolute(text, field)
    return found


def quantity_of(text: str, dimension: Dimension, field: str) -> Quantity:
    """A quantity of a dimension; pressures as gauge, a flow, volume, time or torque not below 0. Raises RuleError."""
    if dimension is Dimension.PRESSURE:
        return pressure_of(text, field)
    found = read_quantity(text, dimension, field)
    if found.value < 0 and dimension in _MAGNITUDES:
        raise fault(field, f"{text.strip()} is below 0: read it again", "0 or more")
    return found


def most_of(text: str, dimension: Dimension, field: str) -> float:
    """The most a figure may be, written bare or as ``at most 5 bar``. [base unit]

    Raises RuleError for a least, a range or a tolerance. Source: common notation; the reader is ``read_band``.
    """
    low, high = _ends_of(text, dimension, field)
    if high is None or low not in {None, high}:
        raise fault(field, f"“{text.strip()}” is no upper limit; enter the most it may be", "at most 5 bar", "5 bar")
    return high


def least_of(text: str, dimension: Dimension, field: str) -> float:
    """The least a figure may be, written bare or as ``at least 260 bar``. [base unit]

    Raises RuleError for a most, a range or a tolerance. Source: common notation; the reader is ``read_band``.
    """
    low, high = _ends_of(text, dimension, field)
    if low is None or high not in {None, low}:
        raise fault(
            field, f"“{text.strip()}” is no lower limit; enter the least it may be", "at least 260 bar", "260 bar"
        )
    return low


def _ends_of(text: str, dimension: Dimension, field: str) -> Within:
    found = read_band(text, dimension, field)
    if dimension is Dimension.PRESSURE and found.unit is not None and found.unit.absolute:
        raise _absolute(text, field)
    return found.low, found.high


def _absolute(text: str, field: str) -> RuleError:
    return fault(field, f"“{text.strip()}” is absolute; enter a gauge pressure", "bar", "psi", "MPa")


def unit_named(symbol: str) -> Unit:
    """A unit known to be there, by its symbol."""
    found = find_unit(symbol)
    assert found is not None
    return found


def any_of(text: str, dimensions: Sequence[Dimension], field: str) -> Quantity:
    """A quantity of one of several dimensions. Raises RuleError naming what fits the first."""
    first_error: RuleError | None = None
    for dimension in dimensions:
        try:
            return quantity_of(text, dimension, field)
        except RuleError as error:
            first_error = first_error or error
    assert first_error is not None
    raise first_error


@dataclass(frozen=True, slots=True)
class Wide:
    """What a figure is to be: between ``low`` and ``high``, None where there is no end [base unit]; its unit, and the value it
    was written with, or one within. ``stated``: whether it was written with anything but the value."""

    nominal: float
    low: float | None
    high: float | None
    unit: Unit
    stated: bool

    @property
    def within(self) -> Within:
        return self.low, self.high

    @property
    def width(self) -> float:
        """How wide it is, an open side as wide as the value is large. [base unit]"""
        low, high = self.ends
        return high - low

    @property
    def ends(self) -> tuple[float, float]:
        """Both ends, an open one as far off as the value is large. [base unit]"""
        size = abs(self.nominal)
        return (
            self.nominal - size if self.low is None else self.low,
            self.nominal + size if self.high is None else self.high,
        )


def band_of(value: str, tolerance: str | None, field: str, dimensions: Sequence[Dimension]) -> Wide:
    """A target with its tolerance, written behind it or apart, a range, a most or a least. [base unit] Raises RuleError."""
    first_error: RuleError | None = None
    for dimension in dimensions:
        try:
            found = read_band(value, dimension, field)
        except RuleError as error:
            first_error = first_error or error
            continue
        assert found.unit is not None
        if found.unit.absolute:
            raise fault(field, f"“{value.strip()}” is absolute; enter a gauge pressure", "bar", "psi", "MPa")
        ends = [bound for bound in (found.low, found.high) if bound is not None]
        nominal = sum(ends) / len(ends) if found.nominal is None else found.nominal
        if tolerance is None:
            return Wide(nominal, found.low, found.high, found.unit, found.low != found.high)
        if found.low != found.high:
            raise fault("tolerance", f"“{value.strip()}” has its tolerance already; leave this out")
        below, above = read_tolerance(tolerance, Quantity(nominal, found.unit, value), "tolerance")
        return Wide(nominal, nominal - below, nominal + above, found.unit, stated=True)
    assert first_error is not None
    raise first_error


def read_each(texts: Sequence[str], dimension: Dimension, field: str) -> list[Reading]:
    """Readings as written, every fault named by its place. [base unit] Raises RuleError with every fault."""
    found: list[Reading] = []
    faults: list[FieldFault] = []
    for place, text in enumerate(texts):
        try:
            found.append(read_one(text, dimension, f"{field}.{place}"))
        except RuleError as error:
            faults += error.faults
    if faults:
        raise RuleError(faults)
    return found


def read_one(text: str, dimension: Dimension, field: str) -> Reading:
    """One reading, with half of the last digit written. [base unit]"""
    quantity = quantity_of(text, dimension, field)
    return Reading(quantity.value, written_half(text, dimension, field))


def instrument_of(used: InstrumentUsed | None, dimension: Dimension) -> Instrument:
    """The instrument of a reading [base unit]. Raises RuleError naming the field."""
    if used is None:
        return Instrument()
    step = quantity_of(used.resolution, dimension, "gauge.resolution").value if used.resolution else None
    reach = quantity_of(used.range, dimension, "gauge.range").value if used.range else None
    if step is not None and step <= 0:
        raise fault("gauge.resolution", "must be above zero")
    if reach is not None and reach == 0:
        raise fault("gauge.range", "must be above zero")
    return Instrument(step, used.accuracy_pct, reach)


def check_reach(readings: Sequence[Reading], instrument: Instrument, field: str, unit: Unit) -> None:
    """Raises RuleError for a reading that lies past the end of the instrument."""
    for place, reading in enumerate(readings):
        if instrument.reach is not None and abs(reading.value) > 1.02 * abs(instrument.reach):
            text = f"{show(reading.value, unit)} is past the end of a gauge that reaches {show(instrument.reach, unit)}"
            raise fault(f"{field}.{place}", text, f"up to {show(instrument.reach, unit)}")


def mean_of(readings: Sequence[Reading], instrument: Instrument) -> tuple[float, tuple[float, float]]:
    """The mean, and the interval it lies in with 95 %: Student's of the scatter, and what the instrument is off by.

    Steps, rounding and accuracy are the same for every reading, so looking often does not narrow them. [base unit]
    Source: Student's t with n − 1; one reading has no scatter of its own.
    """
    values = [reading.value for reading in readings]
    mean = math.fsum(values) / len(values)
    half = doubt_of(readings, instrument, mean)
    if len(values) > 1:
        deviation = math.sqrt(math.fsum((value - mean) ** 2 for value in values) / (len(values) - 1))
        half += float(stdtrit(len(values) - 1, 0.975)) * deviation / math.sqrt(len(values))
    return mean, (mean - half, mean + half)


def alone(reading: Reading, instrument: Instrument) -> tuple[float, float]:
    """Between what a single reading lies, by what the instrument may be off. [base unit]"""
    half = doubt_of([reading], instrument, reading.value)
    return reading.value - half, reading.value + half


def doubt_of(readings: Sequence[Reading], instrument: Instrument, value: float) -> float:
    """How far readings of a value may be off: the instrument's accuracy and half its step; where it is not known, half of the
    last figure that was written. [base unit] Source: by definition of rounding.
    Range: every finite number, above or below 0.
    """
    rounded = max((reading.written for reading in readings), default=0.0)
    step = rounded if instrument.step is None else instrument.step / 2
    return step + (instrument.accuracy_pct or 0.0) / 100 * abs(value)


def held(interval: tuple[float, float], within: Within) -> Verdict:
    """pass where the whole interval lies within, fail where none of it does, else undecided. [base unit]

    Range: the interval from its lower end up to its upper; ends of ``within`` may be None.
    """
    low, high = interval
    least, most = within
    slack = 1e-9 * max(abs(low), abs(high), 1e-9)
    if (least is not None and high < least - slack) or (most is not None and low > most + slack):
        return "fail"
    if (least is None or low >= least - slack) and (most is None or high <= most + slack):
        return "pass"
    return "undecided"


def worst(verdicts: Iterable[Verdict | None]) -> Verdict:
    """The worst of the verdicts; undecided where nothing was judged."""
    first_error = [verdict for verdict in verdicts if verdict is not None]
    return min(first_error, key=_WORST.index) if first_error else "undecided"


def far_off(readings: Sequence[Reading]) -> int | None:
    """The place of a reading that lies far from all others, as a misread one does; None where none does. [base unit]"""
    if len(readings) < 4:
        return None
    values = sorted(reading.value for reading in readings)
    middle = values[len(values) // 2]
    usual = sorted(abs(value - middle) for value in values)[len(values) // 2]
    usual = max(usual, 1e-3 * abs(middle), *(reading.written for reading in readings))
    place = max(range(len(readings)), key=lambda n: abs(readings[n].value - middle))
    return place if abs(readings[place].value - middle) > _FAR * usual else None


def doubt_words(instrument: Instrument, readings: Sequence[Reading], within: Within, basis: str) -> tuple[Finding, ...]:
    """What of the instrument is not known, and so is not in the doubt; and whether it was written down too coarsely."""
    found = []
    if instrument.accuracy_pct is None:
        text = "no gauge selected: the uncertainty covers scatter only"
        found.append(caution("gauge-unknown", text, basis))
    least, most = within
    finest = min((reading.written for reading in readings), default=0.0)
    if least is not None and most is not None and 8 * finest > most - least:
        text = "recorded too coarsely for the tolerance: record every digit the gauge shows"
        found.append(caution("coarsely-written", text, basis))
    return tuple(found)


USUAL_TOLERANCE_PCT = 3.0


def allowed(target: Wide, findings: list[Finding], basis: str) -> Wide:
    """Between what a target is right; without a tolerance ±3 %, and said so. [base unit]

    Raises RuleError for a target of 0 without one.

    Source: ±3 % is what safety valves are commonly allowed in their set pressure (ASME BPVC VIII); guidance only.
    """
    if target.stated:
        return target
    half = abs(target.nominal) * USUAL_TOLERANCE_PCT / 100
    if half == 0:
        raise fault("value", "a target of zero needs a tolerance", "0 bar ±0.1")
    text = f"no tolerance is given: ±{USUAL_TOLERANCE_PCT:g} % is taken; the maker's figure wins"
    findings.append(caution("no-tolerance", text, basis))
    return replace(target, low=target.nominal - half, high=target.nominal + half)


def coarse(instrument: Instrument, coarsest: float | None, unit: Unit, top: float) -> tuple[Finding, ...]:
    """Whether the gauge can show what is asked of it: its step, and how far it reaches. [base unit] Range: ``coarsest`` and ``top`` above 0."""
    found = []
    if coarsest is not None and instrument.step is not None and instrument.step > coarsest * (1 + 1e-9):
        text = f"the gauge shows steps of {show(instrument.step, unit)}; {show(coarsest, unit)} or finer is needed to decide"
        found.append(caution("coarse", text, "a quarter of what is allowed"))
    if coarsest is not None and instrument.accuracy_pct is not None and instrument.half(top) > coarsest * (1 + 1e-9):
        text = f"the gauge may be off by {show(instrument.half(top), unit)}; {show(coarsest, unit)} or less is needed to decide"
        found.append(caution("inaccurate", text, "a quarter of what is allowed"))
    if instrument.reach is not None and abs(instrument.reach) < abs(top):
        text = f"the gauge reaches {show(instrument.reach, unit)}; up to {show(top, unit)} is read"
        found.append(reject("out-of-reach", text, "range of the gauge"))
    return tuple(found)


def shown(value: float, unit: Unit | str) -> str:
    """Any value in its unit, as it is told. [base unit, or the plain number] Range: every finite number, above or below 0."""
    return f"{value:.3g} {unit}".strip() if isinstance(unit, str) else show(value, unit)


def interval_words(result: Result) -> str | None:
    """The 95 % interval of a result, as it is told; None where it has none."""
    if result.interval is None:
        return None
    return " to ".join(shown(end, result.unit) for end in result.interval)


def within_words(result: Result) -> str | None:
    """What a result is held against, in words; None where it is only told."""
    least, most = (None if part is None else shown(part, result.unit) for part in result.within)
    if least and most:
        return f"{least} to {most}"
    return f"at most {most}" if most else least and f"at least {least}"


def in_unit(value: float, unit: Unit | str) -> float:
    """Any value [base unit] as the number in its unit. Source: the definition of the unit. Range: every finite number, above or below 0."""
    return value if isinstance(unit, str) else from_base(value, unit)
