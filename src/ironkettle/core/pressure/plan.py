"""The plan of a pressure hold: how long this gauge must hold, in which steps, with what care."""

from __future__ import annotations

from dataclasses import dataclass

from ironkettle.core.findings import Finding, caution, info, reject
from ironkettle.core.pressure.decay import TestVolume
from ironkettle.core.pressure.energy import SHOP_GAS_LIMIT_J, stored_energy
from ironkettle.core.pressure.model import STANDARD_PRESSURE_MPA, Gauge

SHORTEST_HOLD_S = 60.0
STEPS_TO_SEE = 5.0
STEPS_TO_DETECT = 2.0


@dataclass(frozen=True, slots=True)
class HoldPlan:
    """Times in s, rate in ml/min, energy in J."""

    hold_needed: float
    detectable_leak: float
    stored_energy: float
    steps: tuple[str, ...]
    findings: tuple[Finding, ...]


def plan_hold(pressure: float, volume: TestVolume, gauge: Gauge, limit: float) -> HoldPlan:
    """How long to hold so that a leak at the limit moves this gauge by five of its steps.

    t = 5·r·V/(K·Q) for a liquid, with 1/K replaced by 1/p_std for a gas (isothermal, standard
    rate), not less than 60 s; detectable is a leak that moves it by two steps in that time.

    Parameters: pressure > 0 [MPa gauge]; limit > 0 [ml/min].
    Source: definition of the bulk modulus, ideal gas law.
    """
    softness = 1 / STANDARD_PRESSURE_MPA if volume.fluid.gas else 1 / volume.modulus
    per_step = gauge.resolution * volume.volume * softness
    hold = max(STEPS_TO_SEE * per_step / limit * 60, SHORTEST_HOLD_S)
    energy = stored_energy(pressure, volume.volume, volume.fluid, volume.bulk_modulus_gpa)
    findings: list[Finding] = []
    if volume.fluid.gas and energy > SHOP_GAS_LIMIT_J:
        text = f"{energy:.0f} J stored in gas is over the shop limit of {SHOP_GAS_LIMIT_J:g} J: test with liquid"
        findings.append(reject("gas-energy", text, "stored energy of the test volume"))
    if not 0.25 * gauge.range <= pressure <= gauge.range:
        text = f"{pressure:.1f} MPa is outside the useful part of a {gauge.range:.1f} MPa gauge (25 to 100 %)"
        findings.append(caution("gauge-range", text, "gauge practice"))
    findings.append(
        info(
            "stored-energy", f"{energy:.0f} J stored: guard in place, nobody in line with rod or plugs", "stored energy"
        )
    )
    if not volume.fluid.gas and volume.bulk_modulus_gpa is None:
        findings.append(
            caution(
                "nominal-modulus", f"nominal bulk modulus of {volume.fluid.name} used", "reference/tables/fluids.csv"
            )
        )
    bar = pressure * 10
    steps = (
        "Fill and bleed until no bubbles come; all persons out of line with the rod and the plugs",
        f"Low pressure first: {bar * 0.1:.0f} bar, look for weeping",
        f"Raise in steps: {bar * 0.5:.0f} bar, then {bar:.0f} bar",
        f"Shut the supply and hold {hold / 60:.0f} min or longer, reading pressure and temperature",
        "Release slowly to zero and see the gauge at zero before touching anything",
    )
    return HoldPlan(hold, STEPS_TO_DETECT * per_step / hold * 60, energy, steps, tuple(findings))
