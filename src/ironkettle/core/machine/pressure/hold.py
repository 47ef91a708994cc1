"""The verdict on a pressure hold: what was held, what fell, and what that can mean at both ends of every doubt."""

from __future__ import annotations

import math
from bisect import bisect_left
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ironkettle.core.base.errors import fault
from ironkettle.core.base.findings import Finding
from ironkettle.core.machine.pressure.early import early_fall
from ironkettle.core.machine.pressure.energy import stored_energy
from ironkettle.core.machine.pressure.held import Held, held_part
from ironkettle.core.machine.pressure.model import (
    LEAST_READINGS,
    TEMPERATURE_STEP_K,
    Gauge,
    HoldRules,
    Sample,
    TestVolume,
    check_samples,
)
from ironkettle.core.machine.pressure.plan import hold_needed
from ironkettle.core.machine.pressure.softness import ROOM_C, Softness, softness_of
from ironkettle.core.machine.pressure.tell import Against, Told, findings_of
from ironkettle.core.machine.pressure.touched import Swing, thermometer_step
from ironkettle.core.machine.pressure.trend import STEPS, Floats, Trend, trend_of

LONGEST_FURTHER_HOLD_S = 86_400.0
_PARTS = (0.0, 0.25, 0.5)


@dataclass(frozen=True, slots=True)
class Analysis:
    """Rates in ml/min (gas: standard ml/min), times in s, pressures in MPa, energy in J. A leak is positive.

    ``held_low`` and ``held_high``: the pressure over the part that was judged. ``judged``: from and to when.
    """

    leak_rate: float
    interval: tuple[float, float]
    temperature_corrected: bool
    judged: tuple[float, float]
    held_low: float
    held_high: float
    verdict: str
    hold_needed: float | None
    stored_energy: float
    findings: tuple[Finding, ...]

    @property
    def hold(self) -> float:
        """How long the part that was judged lasted. [s]"""
        return self.judged[1] - self.judged[0]


@dataclass(frozen=True, slots=True)
class _Part:
    """One part of the hold: how it fell and warmed, and how soft the volume is there."""

    fall: Trend
    warming: Trend | None
    soft: Softness
    sign: float
    wanted: float
    settling: float
    unsteady: float
    recovering: bool
    gas: bool
    read_temperature: bool

    @property
    def rate(self) -> float:
        """The rate with every doubt left out. [ml/s]"""
        warm = self.warming.slope if self.warming else 0.0
        return self.soft.lost.nominal * self.fall.slope + self.sign * self.soft.warmth.nominal * warm

    def bounds(self, span: float, rules: HoldRules) -> tuple[float, float]:
        """The least and the most rate, had it gone on so for a span. [ml/s]

        The upper one is scaled up to the wanted pressure: in proportion for a liquid, with the square
        for a gas in a narrow gap.
        """
        # Scatter and steps fade with time, and so does what the gauge may drift or stick by in one hold.
        half = (self.fall.half * self.fall.span + self.unsteady) / span
        cold, warm = warming_ends(self.warming, span, rules)
        # Air that leaks into a vacuum warms and cools the other way round.
        ends = sorted((self.sign * cold, self.sign * warm))
        low, high = self.soft.bounds((self.fall.slope - half, self.fall.slope + half), (ends[0], ends[1]))
        settled = self.soft.lost.high * self.settling / span
        ratio = max(1.0, self.wanted / max(abs(self.fall.mean), 1e-9))
        more = ratio**2 if self.gas and self.sign > 0 else ratio
        high += settled if self.recovering else 0.0
        return low - settled, max(high, high * more)


def analyse_hold(
    samples: tuple[Sample, ...],
    volume: TestVolume,
    gauge: Gauge,
    limit: float,
    *,
    wanted: float | None = None,
    planned_hold: float = 0.0,
    let_down: bool = False,
    rules: HoldRules = HoldRules(),
) -> Analysis:
    """Leak rate, interval and verdict of a pressure hold.

    Only the longest unbroken stretch of the trace that held the wanted pressure is judged (``held_part``). The least rate is
    the largest lower bound over it, its last three quarters and its last half, less what settling may have taken; the most is
    the upper bound over the whole stretch, in which everything that fell counts. Both are bounded from every doubt: slope,
    steps and stability of the gauge, softness, temperature with the thermometer's step and lag; the upper one is scaled up to
    the wanted pressure. Settling can so soften a *fail*, and never helps a *pass*.

    pass: the most is below the limit, after the hold that is needed, at a stated test pressure, with at least 5 readings in
    each part that is compared, and nothing stands against it: a fall that grows, a first fall beyond what settles
    (``early_fall``), or a gap after which it went on otherwise. fail: the least is above the limit, or the fall from end to end
    is. invalid: the trace does not hold the pressure, was pumped or touched, stood still where it cannot, lies above the
    gauge's range, or rises by itself. Otherwise undecided.

    Parameters
    ----------
    samples : at least 3, times running forward. [s, MPa gauge, °C or None]
    volume : what is under pressure and how well it is known. [ml]
    gauge : resolution [MPa] and accuracy [%].
    limit : largest leak allowed, > 0. [ml/min]
    wanted : the test pressure; the first reading when None. Negative for a vacuum. [MPa gauge]
    planned_hold : a shorter hold cannot pass. [s]
    let_down : the pressure was let down to the wanted one: the volume then recovers, which hides a leak.

    Raises RuleError for samples that cannot be read as a hold.
    Source: definition of the bulk modulus; ideal gas law; docs/guide/pressure-tests.md.
    """
    check_samples(samples)
    if limit <= 0:
        raise fault("limit.leak_rate", "must be above zero", "0.5 ml/min")
    if min(sample.pressure for sample in samples) < -volume.atmosphere - gauge.resolution:
        raise fault("samples", "a pressure is below a full vacuum; is it gauge or absolute?", "gauge", "absolute")
    swing = swing_of(volume, gauge, wanted, samples, rules, let_down=let_down)
    held = held_part(samples, gauge, wanted, rules, swing)
    needed = max(hold_needed(volume, gauge, limit, held.wanted, rules), planned_hold)
    parts = [part for share in _PARTS if (part := _part(held, share, volume, gauge, rules, let_down)) is not None]
    early = early_fall(held, gauge, swing, rules)
    begun = None if early is None else _begun(held, early, volume, gauge, rules)
    against = Against(
        grows=_grows(held, gauge),
        early=early if begun is None or begun.bounds(begun.fall.span, rules)[1] >= limit / 60 else None,
        gap=next((gap for gap in held.gaps if gap.differs), None),
        few=len(parts) < len(_PARTS),
    )
    slowed = _slowed(held, volume, gauge, rules)
    verdict, low, high = _verdict(parts, begun, slowed, held, volume, gauge, limit / 60, needed, against, rules)
    peak = max(sample.pressure for sample in samples)
    whole = parts[0] if parts else None
    return Analysis(
        # The rate of the whole hold, as far as the bounds allow it: they may come from a later part.
        leak_rate=60 * min(max(whole.rate if whole else (low + high) / 2, low), high),
        interval=(60 * low, 60 * high),
        temperature_corrected=whole is not None and whole.read_temperature,
        judged=(held.start, held.end),
        held_low=held.low,
        held_high=held.high,
        verdict=verdict,
        hold_needed=_further(whole, held, limit / 60, needed, rules) if verdict == "undecided" else None,
        stored_energy=stored_energy(peak, volume.volume, volume.fluid, volume.bulk_modulus_gpa),
        findings=findings_of(
            Told(
                verdict=verdict,
                held=held,
                volume=volume,
                gauge=gauge,
                needed=needed,
                limit=limit,
                high=60 * high,
                against=against,
                blind=whole is not None and whole.warming is None,
            ),
            rules,
        ),
    )


def _part(held: Held, share: float, volume: TestVolume, gauge: Gauge, rules: HoldRules, let_down: bool) -> _Part | None:
    """The last part of the hold from a share of it on; None with fewer than five readings there."""
    begin = held.start + share * (held.end - held.start)
    return _part_of(held, held.t >= begin - 1e-9, volume, gauge, rules, let_down)


def _begun(held: Held, early: float, volume: TestVolume, gauge: Gauge, rules: HoldRules) -> _Part | None:
    """The first part of the hold, while it fell faster than it goes on; None with fewer than five readings there."""
    return _part_of(held, held.t <= early + 1e-9, volume, gauge, rules, False)


def _slowed(held: Held, volume: TestVolume, gauge: Gauge, rules: HoldRules) -> _Part | None:
    """The first half of the hold, where it fell faster than the second; None with fewer than five readings in either."""
    first, second = (_part_of(held, inside, volume, gauge, rules, False) for inside in _halves(held))
    return first if first is not None and second is not None and first.fall.slope > second.fall.slope else None


def _part_of(
    held: Held, inside: NDArray[np.bool_], volume: TestVolume, gauge: Gauge, rules: HoldRules, let_down: bool
) -> _Part | None:
    t, pressure = held.t[inside], held.pressure[inside]
    if len(t) < LEAST_READINGS:
        return None
    temperature = held.temperature[inside]
    there = _enough(t, temperature)
    return _Part(
        fall=trend_of(t, -held.sign * pressure, gauge.resolution),
        warming=_warming(t[there], temperature[there]),
        soft=softness_of(
            volume, gauge, rules, float(pressure.mean()), float(temperature[there].mean()) if there.any() else ROOM_C
        ),
        sign=held.sign,
        wanted=held.size,
        settling=rules.settling_pct / 100 * held.size,
        unsteady=STEPS * gauge.stability * abs(float(pressure.mean())),
        recovering=let_down,
        gas=volume.fluid.gas,
        read_temperature=bool(there.any()),
    )


def warming_ends(warming: Trend | None, span: float, rules: HoldRules) -> tuple[float, float]:
    """The least and the most the fluid may have warmed. [K/s]

    A sensor lags: over a short hold hardly anything of what it shows is sure. Without a sensor a drift
    is assumed, which ends at some kelvin.
    ``span`` above 0 [s]. Source: no published source; first-order lag of a sensor.
    """
    if warming is None:
        drift = min(rules.drift_k_per_min / 60, rules.drift_most_k / span)
        return -drift, drift
    lag = abs(warming.slope) * min(1.0, 1.5 * rules.sensor_lag_s / span)
    half = warming.half * warming.span / span
    return warming.slope - half - lag, warming.slope + half + lag


def _enough(t: Floats, temperature: Floats) -> NDArray[np.bool_]:
    """Where a temperature was read; nowhere when too few carry one to speak for the whole part."""
    there = ~np.isnan(temperature)
    if there.sum() < LEAST_READINGS or t[there][-1] - t[there][0] < 0.6 * (t[-1] - t[0]):
        return np.zeros_like(there)
    return there


def _warming(t: Floats, read: Floats) -> Trend | None:
    """The trend of the temperature, by the step its readings show.

    None where there is none, and where it never differs: a figure typed at every row may hide as much drift as no reading, and
    must not beat a blank.
    """
    if not len(read) or float(np.ptp(read)) == 0:
        return None
    return trend_of(t, read, max(thermometer_step(read), TEMPERATURE_STEP_K))


def swing_of(
    volume: TestVolume,
    gauge: Gauge,
    wanted: float | None,
    samples: tuple[Sample, ...],
    rules: HoldRules,
    *,
    let_down: bool,
) -> Swing:
    """How far temperature may move the pressure of this volume, at the most and at the least. Raises RuleError for a pressure below vacuum.

    Source: definition of the bulk modulus; ideal gas law.
    [MPa]
    """
    pressure = samples[0].pressure if wanted is None else wanted
    soft = softness_of(volume, gauge, rules, pressure, ROOM_C)
    ends = (abs(soft.warmth.low), abs(soft.warmth.high))
    least, most = min(ends) / max(soft.lost.high, 1e-12), max(ends) / max(soft.lost.low, 1e-12)
    recovery = rules.settling_pct / 100 * abs(pressure) if let_down else 0.0
    return Swing(most, least, rules.drift_k_per_min / 60, rules.drift_most_k, rules.sensor_lag_s, recovery)


def _verdict(
    parts: list[_Part], begun: _Part | None, slowed: _Part | None, held: Held, volume: TestVolume, gauge: Gauge,
    limit: float, needed: float, against: Against, rules: HoldRules,
) -> tuple[str, float, float]:  # fmt: skip
    """Verdict, and the bounds that are told. [ml/s]"""
    bounds = [part.bounds(part.fall.span, rules) for part in (*parts, *([] if begun is None else [begun]))]
    fell = _end_to_end(held, volume, gauge, rules)
    first = bounds[0] if bounds else fell or (0.0, 0.0)
    # What it leaked at first may be what it leaks at the test pressure.
    at_first = -math.inf if slowed is None else slowed.bounds(slowed.fall.span, rules)[1]
    if held.fault is not None:
        return "invalid", first[0], max(first[1], at_first)
    # Later parts and the first fall may show that it leaks; only the whole of it shows that it does not.
    low, high = max((b[0] for b in bounds), default=first[0]), first[1]
    reported = (low, max(low, high, *(b[1] for b in bounds[len(parts) :])))
    if bounds and high < 0:
        return "invalid", *reported
    if low > limit:
        return "fail", *reported
    long_enough = held.end - held.start >= needed - 1e-9 and len(parts) == len(_PARTS)
    if bounds and high < limit and long_enough and held.given and not against.anything:
        return "pass", *reported
    if fell is not None and fell[0] > limit:
        return "fail", *fell
    return "undecided", reported[0], max(reported[1], at_first)


def _halves(held: Held) -> tuple[NDArray[np.bool_], NDArray[np.bool_]]:
    """Which readings lie in the first half of the hold and which in the second; that in the middle in both."""
    middle = held.start + (held.end - held.start) / 2
    return held.t <= middle, held.t >= middle


def _grows(held: Held, gauge: Gauge) -> bool:
    """Whether the fall grew from the first half to the second beyond its doubt: nothing settles that way."""
    first, second = _halves(held)
    if first.sum() < 3 or second.sum() < 3:
        return False
    before = trend_of(held.t[first], -held.sign * held.pressure[first], gauge.resolution)
    after = trend_of(held.t[second], -held.sign * held.pressure[second], gauge.resolution)
    return after.slope - before.slope > after.half + before.half


def _end_to_end(held: Held, volume: TestVolume, gauge: Gauge, rules: HoldRules) -> tuple[float, float] | None:
    """The least and the most rate from the first reading to the one that left the band; None if none did. [ml/s]

    What settling may take and a step of the gauge at either end are taken off the least.
    """
    if held.out is None:
        return None
    t, pressure = held.out
    span = t - held.start
    soft = softness_of(volume, gauge, rules, held.wanted, ROOM_C)
    fallen = held.sign * (float(held.pressure[0]) - pressure)
    least = fallen - gauge.resolution - rules.settling_pct / 100 * held.size
    return soft.bounds((least / span, (fallen + gauge.resolution) / span), warming_ends(None, span, rules))


def _further(whole: _Part | None, held: Held, limit: float, needed: float, rules: HoldRules) -> float | None:
    """How much longer to hold until it is decided, if it goes on so; None when holding alone never will. [s]"""
    hold = held.end - held.start
    if whole is None:
        return needed
    totals = np.geomspace(max(1.05 * hold, needed), LONGEST_FURTHER_HOLD_S, 80)

    def decides(place: int) -> bool:
        low, high = whole.bounds(float(totals[place]), rules)
        return high < limit or low > limit

    # Every doubt fades with time: what is decided stays so.
    first = bisect_left(range(len(totals)), True, key=decides)
    if first < len(totals):
        return float(totals[first]) - hold
    # So early nothing can be foretold; the shortest hold is to be held in any case.
    return needed - hold if hold < needed else None
