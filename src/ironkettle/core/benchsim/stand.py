"""The whole stand: pump, shut-off, relief, hoses, the unit with its leaks, and what its gauges show of it."""

from __future__ import annotations

import math
from dataclasses import dataclass, field
from random import Random

from ironkettle.core.benchsim.flows import gap_flow, orifice_flow
from ironkettle.core.benchsim.fluids import Liquid
from ironkettle.core.benchsim.gauges import Channel, Fault
from ironkettle.core.benchsim.parts import ReliefValve
from ironkettle.core.benchsim.volumes import LiquidVolume
from ironkettle.core.errors import fault

# A step of the sums: well below the time constants of pump and volume. [s]
STEP_S = 0.02
_MPA_PER_BAR = 0.1
MOST_MPA = 60.0
# The pump comes down to what leaks out as it nears its wanted pressure. [MPa]
_NEAR_MPA = 0.2


@dataclass(frozen=True, slots=True)
class Leaks:
    """What is open: a hole [mm], a gap along the rod [mm radial], and one past the piston [mm radial]; 0 where there is none."""

    hole: float = 0.0
    rod_gap: float = 0.0
    bypass_gap: float = 0.0


@dataclass(slots=True)
class Stand:
    """A simulated stand. Pressures in MPa, temperatures in °C, flows in ml/min.

    ``wanted``: what the pump is set to; ``shut``: whether the valve to the unit is shut; ``hold``: a number that changes with
    every hold; ``held``: since when it is shut [s].
    """

    unit: LiquidVolume = field(default_factory=lambda: LiquidVolume(Liquid(), 500.0, hoses=0.4))
    leaks: Leaks = Leaks(rod_gap=0.0009)
    rod: float = 28.0
    bore: float = 50.0
    seal: float = 8.0
    room: float = 23.96
    pump: float = 3000.0
    relief: ReliefValve = field(default_factory=lambda: ReliefValve(42.0))
    pressure: Channel = field(default_factory=lambda: Channel(step=0.001, noise=0.002, top=60.0))
    thermometer: Channel = field(default_factory=lambda: Channel(step=0.1, lag_s=20.0, top=150.0, chance=Random(418)))
    wanted: float = 0.0
    shut: bool = False
    held: float = 0.0
    hold: int = 0
    leaked: float = 0.0
    pumped: float = 0.0

    def raise_to(self, pressure: float, number: int) -> None:
        """Open the valve and pump up, or let down; it is shut when the pressure is there. ``number``: of the hold that follows.

        Raises RuleError for a pressure outside 0 to 60 MPa.
        """
        if not 0 <= pressure <= MOST_MPA:
            raise fault(
                "pressure", f"{pressure * 10:g} bar is outside what the stand can do", f"0 to {MOST_MPA * 10:g} bar"
            )
        self.wanted, self.shut, self.held, self.hold = pressure, False, 0.0, number

    def advance(self, seconds: float) -> None:
        """Let time go on, seconds from 0 up. Source: continuity, step by step."""
        steps = max(1, math.ceil(seconds / STEP_S)) if seconds > 0 else 0
        for _ in range(steps):
            self._step(seconds / steps)

    def outflow(self) -> float:
        """What leaks out of the unit now. [ml/min]"""
        p, liquid = self.unit.pressure, self.unit.liquid
        total = self.relief.flow(p) if not self.shut else 0.0
        if self.leaks.hole:
            total += orifice_flow(p, 0.0, self.leaks.hole, liquid)
        if self.leaks.rod_gap:
            total += gap_flow(p, 0.0, self.rod, self.leaks.rod_gap, self.seal, liquid)
        if self.leaks.bypass_gap:
            total += gap_flow(p, 0.0, self.bore, self.leaks.bypass_gap, self.seal, liquid)
        return total

    def _step(self, seconds: float) -> None:
        out = self.outflow()
        came = 0.0
        if not self.shut:
            lacks = self.wanted - self.unit.pressure
            # It never pumps past what it is set to, nor lets down below it, however small the unit is.
            wants = min(self.pump * abs(lacks) / _NEAR_MPA, abs(lacks) * self.unit.softness * 60 / seconds)
            came = max(-self.pump, min(math.copysign(wants, lacks) + out, self.pump))
        self.pumped += came * seconds / 60
        self.leaked += out * seconds / 60
        self.unit.step(seconds, came - out, self.room)
        if not self.shut and self.wanted > 0 and abs(self.unit.pressure - self.wanted) <= 0.001 * self.wanted:
            self.shut, self.held = True, 0.0
        elif self.shut:
            self.held += seconds

    def shows(self, seconds: float) -> tuple[float, float]:
        """What its gauges show, a time after they were read last: seconds above 0. [MPa gauge, °C]"""
        return self.pressure.read(self.unit.pressure, seconds), self.thermometer.read(self.unit.temperature, seconds)


__all__ = ["Fault", "Leaks", "Stand"]
