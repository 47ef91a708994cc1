"""What runs through a leak: an orifice, an annular gap, a hole that gas goes through."""

from __future__ import annotations

import math

from ironkettle.core.simulation.fluids import AIR_MPA, GAMMA_AIR, R_AIR, ZERO_CELSIUS_K, Liquid

# Below this difference an orifice runs as a gap does, in proportion: its root has no slope at nothing. [MPa]
_LAMINAR_MPA = 0.01
_MPA, _ML, _MIN = 1e6, 1e-6, 60.0


def orifice_flow(up: float, down: float, diameter: float, liquid: Liquid, discharge: float = 0.62) -> float:
    """Liquid through a sharp-edged hole; back where the difference is below 0, nothing where there is none. [ml/min]

    Parameters: up, down : any [MPa]; diameter : above 0 [mm]; discharge : 0 to 1.
    Source: q = C·A·√(2Δp/ρ), in proportion below 0.01 MPa.
    """
    difference = up - down
    area = math.pi / 4 * (diameter / 1000) ** 2
    whole = discharge * area * math.sqrt(2 * max(abs(difference), _LAMINAR_MPA) * _MPA / liquid.density) / _ML * _MIN
    share = min(1.0, abs(difference) / _LAMINAR_MPA)
    return math.copysign(whole * share, difference) if difference else 0.0


def gap_flow(
    up: float, down: float, diameter: float, gap: float, length: float, liquid: Liquid, off: float = 0.0
) -> float:
    """Liquid through the annular gap along a rod or piston. [ml/min]

    Parameters: up, down : any [MPa]; diameter, gap, length : above 0 [mm], gap radial; ``off`` : eccentricity, 0 to 1.
    Source: q = π·d·h³·Δp/(12·μ·l)·(1 + 1.5·ε²).
    """
    d, h, long = diameter / 1000, gap / 1000, length / 1000
    flow = math.pi * d * h**3 * (up - down) * _MPA / (12 * liquid.viscosity * long) * (1 + 1.5 * off**2)
    return flow / _ML * _MIN


def gas_flow(up: float, down: float, temperature: float, diameter: float, discharge: float = 0.8) -> float:
    """Air through a hole, choked above the critical ratio; back where ``down`` is higher. [g/s]

    Parameters: up, down : from -0.1 up [MPa gauge]; temperature : above -273 [°C]; diameter : above 0 [mm].
    Source: isentropic flow of an ideal gas.
    """
    high, low = max(up, down) + AIR_MPA, min(up, down) + AIR_MPA
    if high <= low:
        return 0.0
    kelvin = temperature + ZERO_CELSIUS_K
    critical = (2 / (GAMMA_AIR + 1)) ** (GAMMA_AIR / (GAMMA_AIR - 1))
    ratio = max(low / high, critical)
    shape = ratio ** (2 / GAMMA_AIR) - ratio ** ((GAMMA_AIR + 1) / GAMMA_AIR)
    area = math.pi / 4 * (diameter / 1000) ** 2
    flux = math.sqrt(2 * GAMMA_AIR / ((GAMMA_AIR - 1) * R_AIR * kelvin) * shape)
    return math.copysign(1000 * discharge * area * high * _MPA * flux, up - down)
