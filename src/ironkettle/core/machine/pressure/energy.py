"""Energy stored in a test volume."""

from __future__ import annotations

from ironkettle.core.base.errors import fault
from ironkettle.core.machine.pressure.model import STANDARD_PRESSURE_MPA, Fluid

HEAT_RATIO_AIR = 1.4


def stored_energy(pressure: float, volume: float, fluid: Fluid, bulk_modulus_gpa: float | None = None) -> float:
    """Energy released if the volume bursts. [J]

    Gas: p₁V/(γ−1)·(1 − (p_a/p₁)^((γ−1)/γ)), absolute pressures, γ = 1.4. Liquid: p²V/(2K).

    Parameters: pressure [MPa gauge], 0 J at or below zero; volume > 0 [ml]; bulk modulus [GPa], nominal when None.
    MPa·ml = J. Raises RuleError for a liquid without a modulus. Source: isentropic expansion of an ideal gas
    (Brode's counterpart leaves out the work on the air); compression of a linear liquid.

    >>> air = Fluid("air", True, None)
    >>> round(stored_energy(1.0, 1000.0, air))
    1361
    """
    if pressure <= 0:
        return 0.0
    if fluid.gas:
        absolute = pressure + STANDARD_PRESSURE_MPA
        share = 1 - (STANDARD_PRESSURE_MPA / absolute) ** ((HEAT_RATIO_AIR - 1) / HEAT_RATIO_AIR)
        return float(absolute * volume / (HEAT_RATIO_AIR - 1) * share)
    modulus = bulk_modulus_gpa or fluid.bulk_modulus_gpa
    if modulus is None:
        raise fault("bulk_modulus_gpa", f"{fluid.name} has no bulk modulus")
    return pressure**2 * volume / (2 * modulus * 1000)
