"""Pump-up: how long a compressor takes to fill a receiver, and the free air it delivers."""

from __future__ import annotations

from pydantic import Field

from ironkettle.core.base.errors import fault
from ironkettle.core.base.findings import Finding, caution
from ironkettle.core.base.quantities import Dimension, read_quantity, read_volume
from ironkettle.core.base.text import Figure
from ironkettle.core.machine.tests.model import (
    Criteria,
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
    coarse,
    doubt_words,
    held,
    most_of,
    quantity_of,
    read_one,
    unit_named,
    worst,
)

BASIS = "ideal gas; time by the clock"
ATMOSPHERE = 0.101325
# By hand on a stopwatch: at the start and at the end together.
_BY_HAND_S = 0.5
VOLUME_DOUBT_PCT = 5.0
_KELVIN = 273.15


class PumpUpCriteria(Criteria):
    """A receiver of ``volume`` is filled to ``to`` within ``within``; from ``start``, the air outside unless told."""

    volume: Written
    to: Written
    within: Written
    start: Written | None = None


class PumpUpRecord(Record):
    """``time`` it took; ``reached``, where it did not stop at ``to``; temperatures of the receiver's air where read. [°C]"""

    time: Written
    reached: Written | None = None
    temperature_start_c: Figure | None = Field(default=None, ge=-40, le=200)
    temperature_end_c: Figure | None = Field(default=None, ge=-40, le=200)


def analyse(criteria: PumpUpCriteria, record: PumpUpRecord, instrument: Instrument) -> Outcome:
    """The time against its limit, and the free air delivered.

    FAD = V·(p₂·T₁/T₂ − p₁)/(p_a·t), pressures absolute, of the air outside. Not hot air: where no temperatures were read,
    the receiver may be 20 K warmer at the end, and that is in the doubt. A gauge off by its accuracy stops the clock as much
    too early or late. Source: ideal gas law; definition of free air.
    Raises RuleError for a time of 0 or less, and a pressure that is not above its start.
    """
    volume = read_volume(criteria.volume, "volume")
    to, start = quantity_of(criteria.to, Dimension.PRESSURE, "to").value, _start(criteria)
    limit = most_of(criteria.within, Dimension.TIME, "within")
    time = read_one(record.time, Dimension.TIME, "time")
    reached = read_one(record.reached, Dimension.PRESSURE, "reached") if record.reached else None
    if time.value <= 0:
        raise fault("time", "must be above zero", "90 s")
    if to <= start:
        raise fault("to", "lies not above where it starts", "1.5 bar")
    end = to if reached is None else reached.value
    findings: list[Finding] = [*doubt_words(instrument, (), (None, None), BASIS)]
    gauge = instrument.half(end)
    share = gauge / (end - start) if end > start else 1.0
    half = _BY_HAND_S + time.value * share
    interval = (max(0.0, time.value - half), time.value + half)
    verdict = held(interval, (None, limit))
    if end < to - gauge:
        verdict = "fail" if time.value - half > limit else "undecided"
        findings.append(caution("not-reached", "it did not reach the pressure: pump on, or it is at its limit", BASIS))
    seconds, flow = unit_named("s"), unit_named("l/min")
    low, high = _delivered(record, volume, start, end, time.value, gauge)
    delivered = (low + high) / 2
    results = (
        Result("time", f"Time to {criteria.to}", time.value, seconds, Dimension.TIME, interval, (None, limit), verdict),
        Result("free_air", "Free air delivered", delivered, flow, Dimension.FLOW, (low, high)),
    )
    return Outcome(worst([verdict]), results, tuple(findings))


_WARMER_K = 20.0
_ROOM_K = 293.15


def _delivered(
    record: PumpUpRecord, volume: float, start: float, end: float, seconds: float, gauge: float
) -> tuple[float, float]:
    """The least and the most free air delivered. [ml/min]"""
    if record.temperature_start_c is not None and record.temperature_end_c is not None:
        ratio = (record.temperature_start_c + _KELVIN) / (record.temperature_end_c + _KELVIN)
        ratios = (ratio, ratio)
    else:
        ratios = (_ROOM_K / (_ROOM_K + _WARMER_K), 1.0)
    doubt = VOLUME_DOUBT_PCT / 100

    def free(pressure: float, ratio: float) -> float:
        return ((pressure + ATMOSPHERE) * ratio - (start + ATMOSPHERE)) / ATMOSPHERE * volume * 60 / seconds

    return max(0.0, free(end - gauge, ratios[0]) * (1 - doubt)), free(end + gauge, ratios[1]) * (1 + doubt)


def _start(criteria: PumpUpCriteria) -> float:
    return quantity_of(criteria.start, Dimension.PRESSURE, "start").value if criteria.start else 0.0


def wanted(criteria: PumpUpCriteria) -> tuple[Wanted, ...]:
    """The time it took."""
    limit = read_quantity(criteria.within, Dimension.TIME, "within")
    top = limit.value
    return (Wanted("time", "time", f"Time to {criteria.to}", "s", (0.5 * top, 0.9 * top)),)


def plan(criteria: PumpUpCriteria, instrument: Instrument) -> TrialPlan:
    """A receiver of known volume, a gauge whose step is at most a twentieth of the rise. [MPa]"""
    to = quantity_of(criteria.to, Dimension.PRESSURE, "to")
    narrow = (to.value - _start(criteria)) / 20
    steps = (
        f"Empty the receiver of {criteria.volume}; shut its outlet; let it cool",
        "Start the clock with the compressor",
        f"Stop it at {criteria.to}; it must come within {criteria.within}",
        "Let the air out slowly through its silencer",
    )
    return TrialPlan(
        steps, narrow, Dimension.PRESSURE, "Not over the receiver's ends",
        "Stored air: a receiver with a rating and a relief valve only", coarse(instrument, narrow, to.unit, to.value),
    )  # fmt: skip


def says(criteria: PumpUpCriteria) -> str:
    """Volume, pressure and time."""
    return f"{criteria.volume} to {criteria.to} within {criteria.within}"


PUMP_UP = Trial("pump_up", "Pump-up time", PumpUpCriteria, PumpUpRecord, wanted, plan, analyse, says)
