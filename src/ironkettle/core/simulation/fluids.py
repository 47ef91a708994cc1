"""What a simulated volume is filled with: a liquid with entrained air, or a gas."""

from __future__ import annotations

import math
from dataclasses import dataclass

AIR_MPA = 0.101325
ZERO_CELSIUS_K = 273.15
# Air: specific gas constant [J/(kg·K)] and ratio of heats.
R_AIR, GAMMA_AIR = 287.06, 1.4


@dataclass(frozen=True, slots=True)
class Liquid:
    """Modulus without air [MPa], expansion [1/K], density [kg/m³], viscosity [Pa·s]; ``air``: share of free air at the open."""

    modulus: float = 1600.0
    expansion: float = 7e-4
    density: float = 870.0
    viscosity: float = 0.04
    air: float = 0.005

    def shrunk(self, pressure: float) -> float:
        """The share of its open volume that it takes up at a pressure, from 0 up [MPa gauge]. [-]

        Liquid by its modulus, air by its adiabate. Source: sum of both volumes, p·V^1.4 of air.
        """
        squeezed = math.pow(AIR_MPA / (AIR_MPA + pressure), 1 / GAMMA_AIR)
        return (1 - self.air) * math.exp(-pressure / self.modulus) + self.air * squeezed

    def effective_modulus(self, pressure: float) -> float:
        """The modulus with the air in it, at a pressure from 0 up [MPa gauge]. [MPa]

        K = −V/(dV/dp): low where the air is not squeezed yet, the liquid's own far above. Source: definition.
        """
        total = self.shrunk(pressure)
        absolute = AIR_MPA + pressure
        liquid = (1 - self.air) * math.exp(-pressure / self.modulus) / self.modulus
        bubbles = self.air / GAMMA_AIR * math.pow(AIR_MPA / absolute, 1 / GAMMA_AIR) / absolute
        return total / (liquid + bubbles)
