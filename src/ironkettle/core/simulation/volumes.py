"""Closed volumes that press, leak and change their heat: one of liquid with its hoses, one of gas."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ironkettle.core.simulation.fluids import AIR_MPA, GAMMA_AIR, R_AIR, ZERO_CELSIUS_K, Liquid

_CV_AIR = R_AIR / (GAMMA_AIR - 1)


@dataclass(slots=True)
class LiquidVolume:
    """A volume filled with liquid. ``volume`` of the space [ml], ``hoses``: what they give [ml/MPa].

    ``pressure`` [MPa gauge], ``temperature`` of the liquid [°C]; ``warm_s``: how slowly it follows its surroundings.
    ``settles``: share of the pressure that creeping walls and air take within ``settle_s``.
    """

    liquid: Liquid
    volume: float
    hoses: float = 0.0
    pressure: float = 0.0
    temperature: float = 24.0
    warm_s: float = 900.0
    settles: float = 0.006
    settle_s: float = 8.0
    taken: float = 0.0

    @property
    def softness(self) -> float:
        """What it takes up for a rise of pressure. [ml/MPa]"""
        return self.volume / self.liquid.effective_modulus(max(self.pressure, 0.0)) + self.hoses

    def step(self, seconds: float, inflow: float, surroundings: float) -> None:
        """One step of time: what came in [ml/min], what its heat does, what settles.

        Parameters: seconds : above 0, well below the time constants; inflow : any; surroundings : any [°C].
        Source: continuity, dp = (dV_in + V·α·dT)/(V/K + C); first-order heat exchange.
        """
        warmed = (surroundings - self.temperature) * (1 - math.exp(-seconds / self.warm_s))
        wanted = self.settles * self.softness * max(self.pressure, 0.0)
        settled = (wanted - self.taken) * (1 - math.exp(-seconds / self.settle_s))
        self.taken += settled
        self.temperature += warmed
        came = inflow * seconds / 60 + self.volume * self.liquid.expansion * warmed - settled
        self.pressure = max(self.pressure + came / self.softness, -AIR_MPA)


@dataclass(slots=True)
class GasVolume:
    """A volume of air: its space [ml], what is in it [g] and its temperature [°C]."""

    volume: float
    mass: float = 0.0
    temperature: float = 24.0
    warm_s: float = 60.0

    def __post_init__(self) -> None:
        if self.mass == 0.0:
            self.mass = self._mass_at(0.0)

    def _mass_at(self, pressure: float) -> float:
        """What of air makes a pressure [MPa gauge]. [g]"""
        return (pressure + AIR_MPA) * self.volume / (R_AIR * (self.temperature + ZERO_CELSIUS_K)) * 1000

    @property
    def pressure(self) -> float:
        """Gauge pressure. [MPa] Source: ideal gas law."""
        return self.mass / 1000 * R_AIR * (self.temperature + ZERO_CELSIUS_K) / self.volume - AIR_MPA

    @property
    def energy(self) -> float:
        """Inner energy, from absolute zero. [J]"""
        return self.mass / 1000 * _CV_AIR * (self.temperature + ZERO_CELSIUS_K)

    def step(self, seconds: float, inflow: float, of: float, surroundings: float) -> float:
        """One step: air comes in [g/s] at a temperature ``of`` [°C], or goes out at its own; heat goes to the walls.

        Gives the heat that came in from the surroundings. [J]

        Parameters: seconds : above 0; inflow, of, surroundings : any. Source: energy of an open system, first-order
        heat exchange.
        """
        moved = max(inflow * seconds, -self.mass * 0.5)
        carried = of if moved > 0 else self.temperature
        enthalpy = moved / 1000 * GAMMA_AIR * _CV_AIR * (carried + ZERO_CELSIUS_K)
        energy = self.energy + enthalpy
        self.mass += moved
        kelvin = energy / (self.mass / 1000 * _CV_AIR)
        target = surroundings + ZERO_CELSIUS_K
        settled = target + (kelvin - target) * math.exp(-seconds / self.warm_s)
        self.temperature = settled - ZERO_CELSIUS_K
        return self.mass / 1000 * _CV_AIR * (settled - kelvin)
