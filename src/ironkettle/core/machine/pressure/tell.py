"""What a verdict on a hold rests on, in sentences."""

from __future__ import annotations

from dataclasses import dataclass

from ironkettle.core.base.findings import Finding, caution, info, reject
from ironkettle.core.machine.pressure.held import Held
from ironkettle.core.machine.pressure.model import LEAST_READINGS, Gauge, HoldRules, TestVolume
from ironkettle.core.machine.pressure.touched import Gap

BASIS = "rules of judging a hold (guide: Pressure holds)"


@dataclass(frozen=True, slots=True)
class Against:
    """What stands against a pass beside the bounds: a fall that grows; ``early``: until when a first fall beyond what settles
    lasted [s]; ``gap``: one after which it went on otherwise; ``few``: too few readings to compare its parts."""

    grows: bool
    early: float | None
    gap: Gap | None
    few: bool

    @property
    def anything(self) -> bool:
        return self.grows or self.early is not None or self.gap is not None or self.few


@dataclass(frozen=True, slots=True)
class Told:
    """What the findings are made from. Rates in ml/min, times in s; ``blind``: without a thermometer that tells."""

    verdict: str
    held: Held
    volume: TestVolume
    gauge: Gauge
    needed: float
    limit: float
    high: float
    against: Against
    blind: bool


def findings_of(results: Told, rules: HoldRules) -> tuple[Finding, ...]:
    """Why it cannot be judged, what keeps it from a pass, and what the figures rest on."""
    found: list[Finding] = []
    if results.verdict == "invalid":
        found.append(_invalid(results.held, rules))
    found += _short_of_a_pass(results, rules)
    found += _uncertainties(results, rules)
    return tuple(found)


def _bar(pressure: float) -> str:
    return f"{pressure * 10:.4g} bar"


def _invalid(held: Held, rules: HoldRules) -> Finding:
    first = _bar(float(held.pressure[0]))
    if held.fault == "nothing":
        return reject("nothing-held", f"The trace begins at {first}: nothing was held.", BASIS)
    if held.fault == "unsuited":
        return reject("gauge-too-coarse", held.why, BASIS)
    if held.fault == "over_range":
        text = "A reading lies above the range of the gauge. Use a gauge that reaches the pressure, and hold again."
        return reject("over-range", text, BASIS)
    if held.fault == "below":
        text = (
            f"The trace begins at {first}, below the test pressure of {_bar(held.wanted)} (up to {rules.start_below_pct:g} % "
            "below is accepted, plus the gauge's uncertainty). Pump up and hold again."
        )
        return reject("below-test-pressure", text, BASIS)
    if held.fault == "pumped":
        text = (
            "The pressure rose by more than the gauge's steps, its scatter and the temperature explain: pumped or touched. "
            "Hold again without touching it."
        )
        return reject("pumped-up", text, BASIS)
    if held.fault == "frozen":
        text = (
            "The gauge stood still to the last digit where it must have moved. Check its channel, its range and its valve, and "
            "hold again."
        )
        return reject("frozen", text, BASIS)
    text = (
        "The pressure rises by itself, by more than its uncertainty: warming, the wrong space, a drifting gauge, or a supply "
        "that still feeds. Find the reason and hold again."
    )
    return reject("inflow", text, BASIS)


def _short_of_a_pass(results: Told, rules: HoldRules) -> list[Finding]:
    held, against = results.held, results.against
    if results.verdict not in {"undecided", "fail"}:
        return []
    found = []
    if held.gaps:
        text = (
            f"No reading from {held.gaps[0].start:.0f} s to {held.gaps[0].end:.0f} s: only the longest unbroken stretch is "
            "judged, since anything may have happened meanwhile."
        )
        found.append(info("gap", text, BASIS))
    if against.gap is not None:
        text = f"After the gap at {against.gap.start:.0f} s it did not go on as before. Hold again without a gap."
        found.append(caution("gap-differs", text, BASIS))
    if held.left_band:
        text = f"The pressure left the band at {held.end:.0f} s; nothing after that is judged."
        found.append(info("left-band", text, BASIS))
    if results.verdict == "fail":
        return found
    if held.left_band:
        found.append(caution("pump-up", "Undecided while it held. Pump up and hold again.", BASIS))
    if against.few:
        text = (
            f"Keep reading: whole, last three quarters and last half are compared, and each needs {LEAST_READINGS} readings "
            "or more."
        )
        found.append(caution("few-readings", text, BASIS))
    if against.early is not None:
        text = (
            f"In the first {against.early - held.start:.0f} s it fell by more than the {rules.settling_pct:g} % that may settle. "
            "A leak that closes below the test pressure looks like this. Pump up and hold again from there."
        )
        found.append(caution("early-fall", text, BASIS))
    if against.grows:
        text = "The fall grows from the first half to the second; settling does the opposite. Look for a cause."
        found.append(caution("fall-grows", text, BASIS))
    if held.end - held.start < results.needed - 1e-9:
        text = f"Held {held.end - held.start:.0f} s of the {results.needed:.0f} s that are needed."
        found.append(caution("short-hold", text, BASIS))
    if (
        not results.volume.fluid.gas
        and results.volume.compliance is None
        and not against.anything
        and results.high >= results.limit
    ):
        text = (
            "The result depends on how soft the volume is. Let a known volume out once at the test pressure, enter it with the "
            "drop it makes, and judge again."
        )
        found.append(caution("measure-compliance", text, BASIS))
    return found


def _uncertainties(results: Told, rules: HoldRules) -> list[Finding]:
    held, volume = results.held, results.volume
    found = []
    if not held.given:
        text = (
            f"No test pressure is stated, so it cannot pass: judged at the {_bar(held.wanted)} the trace begins with."
        )
        found.append(caution("no-test-pressure", text, BASIS))
    if not volume.fluid.gas and volume.compliance is None:
        nominal = volume.bulk_modulus_gpa is None
        low = rules.nominal_least if nominal else rules.stated_least
        used = volume.fluid.bulk_modulus_gpa if nominal else volume.bulk_modulus_gpa
        word = f"Nominal bulk modulus of {volume.fluid.name}" if nominal else "Stated bulk modulus"
        text = (
            f"{word}, {used:g} GPa: with trapped air and hoses the true one may be {low:g} of it, which makes a leak look "
            "smaller. Let a known volume out once and read the drop."
        )
        found.append(caution("nominal-modulus" if nominal else "stated-modulus", text, BASIS))
    if results.blind:
        why = "No temperature readings" if bool(_none(held)) else "The temperature never reads differently"
        text = f"{why}: a drift of {rules.drift_k_per_min:g} K/min, up to {rules.drift_most_k:g} K, is counted as uncertainty."
        found.append(caution("no-temperature", text, BASIS))
    if results.gauge.stability_pct is None:
        text = (
            f"No stability of the gauge is stated: a fifth of its accuracy, {100 * results.gauge.stability:.2g} % of the reading, "
            "is counted for the hold."
        )
        found.append(info("stability-taken", text, BASIS))
    if volume.fluid.gas:
        found.append(info("standard-rate", "Rate in standard ml/min at 101.325 kPa and 20 °C.", BASIS))
    return found


def _none(held: Held) -> bool:
    return bool((held.temperature != held.temperature).all())
