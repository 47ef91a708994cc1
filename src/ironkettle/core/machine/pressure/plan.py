"""The plan of a pressure hold: how long this gauge must hold, in which steps, with what care."""

from __future__ import annotations

from dataclasses import dataclass

from ironkettle.core.base.errors import fault
from ironkettle.core.base.findings import Finding, caution, info, reject
from ironkettle.core.machine.pressure.energy import stored_energy
from ironkettle.core.machine.pressure.model import LEAST_READINGS, TEMPERATURE_STEP_K, Gauge, HoldRules, TestVolume
from ironkettle.core.machine.pressure.softness import ROOM_C, Softness, softness_of
from ironkettle.core.machine.pressure.suited import readable_step, unsuited
from ironkettle.core.machine.pressure.tell import BASIS

STEPS_TO_SEE = 3.0
STEPS_TO_DETECT = 1.5
# The whole, its last three quarters and its last half are compared; the last half must hold the fewest.
_READINGS = 2 * LEAST_READINGS


# Findings by which a gauge cannot judge a test.
UNSUITED = frozenset({"gauge-too-coarse", "cannot-decide"})


@dataclass(frozen=True, slots=True)
class HoldPlan:
    """Times in s, rate in ml/min, energy in J. ``longest_at_limit``: then a leak at the limit leaves the band."""

    hold_needed: float
    longest_at_limit: float
    detectable_leak: float
    stored_energy: float
    steps: tuple[str, ...]
    findings: tuple[Finding, ...]

    @property
    def suited(self) -> bool:
        """Whether this gauge, on this volume, can judge it at all."""
        return not any(finding.code in UNSUITED for finding in self.findings)

    @property
    def why_not(self) -> str | None:
        """Why it cannot, and what could."""
        return next((finding.message for finding in self.findings if finding.code in UNSUITED), None)


def hold_needed(volume: TestVolume, gauge: Gauge, limit: float, pressure: float, rules: HoldRules) -> float:
    """How long to hold so that the steps of gauge and thermometer leave at most half the limit in doubt. [s]

    3 steps of each and 3 times what the gauge may drift or stick by, by what the volume takes up for it at most, over the limit;
    not less than the shop's least hold. A thermometer is taken to show 0.1 K.

    Parameters: limit > 0 [ml/min]; pressure [MPa gauge].
    Source: 1.5 steps over the span is the half-width of a slope (trend.py).
    """
    soft = softness_of(volume, gauge, rules, pressure, ROOM_C)
    return max(STEPS_TO_SEE * _one_step(soft, gauge, pressure) * 60 / limit, rules.least_hold_s)


def _one_step(soft: Softness, gauge: Gauge, pressure: float) -> float:
    """The volume that a step of the gauge, its drift in a hold and a step of the thermometer stand for together, at most. [ml]"""
    shown = gauge.resolution + gauge.stability * abs(pressure)
    return shown * soft.lost.high + TEMPERATURE_STEP_K * max(abs(soft.warmth.low), abs(soft.warmth.high))


def plan_hold(
    pressure: float, volume: TestVolume, gauge: Gauge, limit: float, rules: HoldRules = HoldRules()
) -> HoldPlan:
    """How long to hold, what can be seen in that time, how a leak at the limit shows, and what to mind.

    A leak at the limit leaves the band under the test pressure after band · p · C / limit; before
    that it must be decided, or the unit be pumped up and held again.

    Parameters: pressure above 0, or below for a vacuum [MPa gauge]; limit > 0 [ml/min].
    Raises RuleError for a gauge that does not reach the pressure.
    Source: definition of the bulk modulus, ideal gas law, docs/guide/pressure-tests.md.
    """
    if limit <= 0:
        raise fault("limit.leak_rate", "must be above zero", "0.5 ml/min")
    _check_gauge(pressure, gauge)
    hold = hold_needed(volume, gauge, limit, pressure, rules)
    soft = softness_of(volume, gauge, rules, pressure, ROOM_C)
    longest = rules.band_pct / 100 * abs(pressure) * soft.lost.nominal / (limit / 60)
    energy = stored_energy(pressure, volume.volume, volume.fluid, volume.bulk_modulus_gpa)
    findings = [
        *_energy(energy, volume, rules),
        *_too_coarse(gauge, pressure, rules),
        *_undecidable(hold, longest, gauge, rules),
        *_useful_range(pressure, gauge),
        *_by_temperature(volume, hold, soft.warmth.high, limit, rules),
        *_modulus(volume, rules),
        *_stability(pressure, gauge, soft, limit, hold),
        info(
            "readings", f"Read it {_READINGS} times or more, evenly: every {hold / _READINGS:.0f} s or oftener.", BASIS
        ),
    ]
    detectable = STEPS_TO_DETECT * _one_step(soft, gauge, pressure) / hold * 60
    return HoldPlan(hold, longest, detectable, energy, _steps(pressure, hold), tuple(findings))


def _check_gauge(pressure: float, gauge: Gauge) -> None:
    if abs(pressure) > gauge.range * (1 + 1e-9):
        wanted = f"a gauge to {abs(pressure) * 12.5:.3g} bar or more"
        raise fault(
            "gauge.range",
            f"{gauge.range * 10:.4g} bar does not reach the test pressure {pressure * 10:.4g} bar",
            wanted,
        )


def _energy(energy: float, volume: TestVolume, rules: HoldRules) -> list[Finding]:
    found = []
    if volume.fluid.gas and energy > rules.gas_energy_j:
        text = f"{energy:.0f} J stored in gas is over the shop limit of {rules.gas_energy_j:g} J: test with liquid"
        found.append(reject("gas-energy", text, "stored energy of the test volume"))
    text = f"{energy:.0f} J stored: guard in place, nobody in line with rod or plugs"
    return [*found, info("stored-energy", text, "stored energy of the test volume")]


def _undecidable(hold: float, longest: float, gauge: Gauge, rules: HoldRules) -> list[Finding]:
    """A leak near the limit must be seen before it has left the band; at half the limit there is twice the time."""
    if hold <= longest:
        return []
    if hold > 2 * longest:
        way = "connect a larger volume"
        if hold > rules.least_hold_s and 2 * longest >= rules.least_hold_s:
            finest = readable_step(gauge.resolution * 2 * longest / hold)
            way = f"take a gauge with steps of {finest * 10:g} bar or finer"
        text = (
            f"this volume, gauge and limit cannot decide at all: a leak of half the limit leaves the band after "
            f"{2 * longest:.0f} s, and {hold:.0f} s are needed; {way}"
        )
        return [reject("cannot-decide", text, BASIS)]
    text = f"a leak at the limit leaves the band after {longest:.0f} s: pump up and hold again when it is not decided by then"
    return [caution("leaves-band", text, BASIS)]


def _too_coarse(gauge: Gauge, pressure: float, rules: HoldRules) -> list[Finding]:
    why = unsuited(gauge, pressure, rules)
    return [] if why is None else [reject("gauge-too-coarse", why, BASIS)]


def _stability(pressure: float, gauge: Gauge, soft: Softness, limit: float, hold: float) -> list[Finding]:
    """What the gauge may drift or stick by, and how it weighs."""
    moves = gauge.stability * abs(pressure)
    word = "as stated" if gauge.stability_pct is not None else "not stated: a fifth of its accuracy"
    text = f"The gauge may drift or stick by {moves * 10:.2g} bar in a hold ({word})."
    seeming = moves * soft.lost.high / hold * 60
    if seeming < 0.25 * limit:
        return [info("stability", text, BASIS)]
    longer = moves * soft.lost.high * 60 / (0.25 * limit)
    return [
        caution(
            "stability",
            f"{text} Hold {longer / 60:.0f} min, or use a gauge whose stability is stated and smaller.",
            BASIS,
        )
    ]


def _useful_range(pressure: float, gauge: Gauge) -> list[Finding]:
    if abs(pressure) >= 0.25 * gauge.range:
        return []
    text = f"{pressure * 10:.4g} bar is in the lowest quarter of a {gauge.range * 10:.4g} bar gauge"
    return [caution("gauge-range", text, "gauge practice: 25 to 100 % of the range")]


def _by_temperature(volume: TestVolume, hold: float, warmth: float, limit: float, rules: HoldRules) -> list[Finding]:
    drift = min(rules.drift_k_per_min, rules.drift_most_k * 60 / hold)
    seeming = abs(warmth) * drift
    if seeming < 0.25 * limit:
        return []
    unit = "standard ml/min" if volume.fluid.gas else "ml/min"
    text = (
        f"a drift of {drift:.2g} K/min looks like {seeming:.3g} {unit}: read the temperature with the pressure, or hold "
        "until nothing drifts"
    )
    return [caution("temperature-matters", text, BASIS)]


def _modulus(volume: TestVolume, rules: HoldRules) -> list[Finding]:
    if volume.fluid.gas or volume.compliance is not None:
        return []
    low = rules.nominal_least if volume.bulk_modulus_gpa is None else rules.stated_least
    text = (
        f"With trapped air the volume may be as soft as {low:g} of the "
        f"{'nominal' if volume.bulk_modulus_gpa is None else 'stated'} bulk modulus says. Where the leak turns out above "
        f"{low:.0%} of the limit, the result depends on it: let a known volume out once at the test pressure and read the drop."
    )
    return [caution("measure-compliance", text, BASIS)]


def _steps(pressure: float, hold: float) -> tuple[str, ...]:
    bar = pressure * 10
    if pressure < 0:
        return (
            "Dry and close the volume; check that the pump can be shut off tightly",
            f"Draw down to {bar:.3g} bar and shut the valve",
            f"Hold {hold / 60:.0f} min or longer, reading pressure and temperature; a leak lets the pressure rise",
            "Let air in slowly and check that the gauge reads zero",
        )
    return (
        "Fill and bleed until no bubbles come; all persons out of line with the rod and the plugs",
        f"Low pressure first: {bar * 0.1:.3g} bar, look for weeping",
        f"Raise in steps: {bar * 0.5:.3g} bar, then up to {bar:.3g} bar; pump up to it, never let down to it: what was "
        "stretched recovers, and hides a leak",
        f"Shut the supply and hold {hold / 60:.0f} min or longer, reading pressure and temperature",
        "Release slowly to zero and check that the gauge reads zero before touching anything",
    )
