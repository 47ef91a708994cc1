"""What a verdict on a hold rests on, in sentences."""

from __future__ import annotations

from ironkettle.core.findings import Finding, caution, info, reject
from ironkettle.core.pressure.held import Held
from ironkettle.core.pressure.model import HoldRules, TestVolume

BASIS = "rules of judging a hold (docs/guide/pressure-tests.md)"


def findings_of(
    verdict: str, held: Held, volume: TestVolume, needed: float, rules: HoldRules, *, grows: bool, blind: bool
) -> tuple[Finding, ...]:
    """Why it cannot be judged, what keeps it from a pass, and what the figures rest on."""
    found: list[Finding] = []
    invalid = _invalid(verdict, held, rules)
    if invalid is not None:
        found.append(invalid)
    found += _short_of_a_pass(verdict, held, needed, grows=grows)
    found += _doubts(held, volume, rules, blind=blind)
    return tuple(found)


def _bar(pressure: float) -> str:
    return f"{pressure * 10:.4g} bar"


def _invalid(verdict: str, held: Held, rules: HoldRules) -> Finding | None:
    if verdict != "invalid":
        return None
    first = _bar(float(held.pressure[0]))
    if held.fault == "nothing":
        return reject("nothing-held", f"the trace begins at {first}: nothing was held", BASIS)
    if held.fault == "below":
        text = (
            f"the trace begins at {first}, below the wanted {_bar(held.wanted)}: it says nothing about a test at that "
            f"pressure (up to {rules.start_below_pct:g} % below is taken, plus the gauge's doubt). Pump up and hold again"
        )
        return reject("below-test-pressure", text, BASIS)
    if held.fault == "pumped":
        text = "the pressure was raised during the hold: judge from the last pumping on, in a run of its own"
        return reject("pumped-up", text, BASIS)
    if held.fault == "frozen":
        text = "the gauge stood still in the middle of the hold, to the last digit, after it had moved: look at its channel"
        return reject("frozen", text, BASIS)
    text = (
        "the pressure rises by itself, more than can be doubt: warming, the wrong space, a drifting gauge, or a supply "
        "that still feeds"
    )
    return reject("inflow", text, BASIS)


def _short_of_a_pass(verdict: str, held: Held, needed: float, *, grows: bool) -> list[Finding]:
    if verdict not in {"undecided", "fail"}:
        return []
    found = []
    if held.half_unseen:
        text = (
            f"no reading for {held.unseen:.0f} s, more than half of the hold: it may have been pumped up meanwhile. "
            "Read it at least every quarter of the hold"
        )
        found.append(info("half-unseen", text, BASIS))
    if held.left_band:
        text = f"the pressure left the band at {held.end:.0f} s; nothing after that is judged"
        found.append(info("left-band", text, BASIS))
    if verdict == "fail":
        return found
    if held.left_band:
        found.append(caution("pump-up", "not decided while it held: pump up and hold again", BASIS))
    if grows:
        text = "the fall grows from the first half to the second; what settles does the opposite: look for a cause"
        found.append(caution("fall-grows", text, BASIS))
    if held.end - held.start < needed - 1e-9:
        text = f"held {held.end - held.start:.0f} s of the {needed:.0f} s that are needed to tell"
        found.append(caution("short-hold", text, BASIS))
    return found


def _doubts(held: Held, volume: TestVolume, rules: HoldRules, *, blind: bool) -> list[Finding]:
    found = []
    if not held.given:
        text = f"no test pressure was given: judged at the {_bar(held.wanted)} the trace begins with"
        found.append(caution("no-test-pressure", text, BASIS))
    if not volume.fluid.gas and volume.compliance is None:
        nominal = volume.bulk_modulus_gpa is None
        low = rules.nominal_least if nominal else rules.stated_least
        used = volume.fluid.bulk_modulus_gpa if nominal else volume.bulk_modulus_gpa
        word = f"nominal bulk modulus of {volume.fluid.name}" if nominal else "stated bulk modulus"
        text = (
            f"{word}, {used:g} GPa: with air and hoses the true one may be down to {low:g} of it, which makes a leak look "
            "smaller. Let a known volume out once and read the drop to be surer"
        )
        found.append(caution("nominal-modulus" if nominal else "stated-modulus", text, BASIS))
    if blind:
        text = (
            f"no temperature readings: a drift of {rules.drift_k_per_min:g} K/min, up to {rules.drift_most_k:g} K, is "
            "counted as doubt"
        )
        found.append(caution("no-temperature", text, BASIS))
    if volume.fluid.gas:
        found.append(info("standard-rate", "rate in standard ml/min at 101.325 kPa and 20 °C", BASIS))
    return found
