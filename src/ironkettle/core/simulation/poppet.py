"""A relief valve as what it is: a poppet of some mass on a spring, over a seat, fed by a pump: it settles, or it flutters."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ironkettle.core.simulation.fluids import Liquid

_MPA, _PER_MIN = 1e6, 1e-6 / 60


@dataclass(slots=True)
class Poppet:
    """A poppet on its spring. SI inside: ``lift`` [m], ``speed`` [m/s].

    ``opens`` [MPa]; ``seat`` its diameter [mm]; ``stiffness`` of the spring [N/mm]; ``mass`` [kg]; ``damping`` [N·s/m];
    ``friction`` of its guide [N]; ``bounce``: share of its speed that it keeps when it strikes the seat.
    """

    opens: float
    seat: float = 8.0
    stiffness: float = 50.0
    mass: float = 0.05
    damping: float = 400.0
    friction: float = 0.0
    bounce: float = 0.3
    lift: float = 0.0
    speed: float = 0.0
    discharge: float = 0.7

    @property
    def area(self) -> float:
        """What the pressure acts on. [m²]"""
        return math.pi / 4 * (self.seat / 1000) ** 2

    def gain(self, pressure: float, liquid: Liquid) -> float:
        """Flow for each metre of lift at a pressure, from 0 up [MPa]. [m²/s] Source: orifice, C·π·d·√(2p/ρ)."""
        return self.discharge * math.pi * self.seat / 1000 * math.sqrt(2 * max(pressure, 0.0) * _MPA / liquid.density)

    def flow(self, pressure: float, liquid: Liquid) -> float:
        """What it lets out at its lift and a pressure, any [MPa]. [ml/min]"""
        return self.gain(pressure, liquid) * self.lift / _PER_MIN

    def settles(self, inflow: float, softness: float, liquid: Liquid) -> bool:
        """Whether it comes to rest with an inflow above 0 [ml/min] into a volume of a softness above 0 [ml/MPa].

        Source: Routh on m·C·s³ + (c·C + m·Qp)·s² + (k·C + c·Qp + A²)·s + k·Qp + A·Qx about the point of rest.
        """
        rest = inflow * _PER_MIN
        give = softness * 1e-12
        pressure = self.opens * _MPA
        by_pressure = rest / (2 * pressure)
        by_lift = self.gain(self.opens, liquid)
        spring = self.stiffness * 1000
        cubic, square = self.mass * give, self.damping * give + self.mass * by_pressure
        linear = spring * give + self.damping * by_pressure + self.area**2
        return square * linear > cubic * (spring * by_pressure + self.area * by_lift)

    def step(self, seconds: float, pressure: float) -> None:
        """One step of its movement under a pressure, any [MPa]. seconds : above 0, well below its own time.

        Source: Newton's law; Coulomb friction; a stroke on the seat gives back ``bounce`` of its speed.
        """
        push = self.area * (pressure - self.opens) * _MPA - self.stiffness * 1000 * self.lift
        if self.speed == 0.0:
            drive = math.copysign(max(abs(push) - self.friction, 0.0), push)
        else:
            drive = push - math.copysign(self.friction, self.speed) - self.damping * self.speed
        before = self.speed
        self.speed += drive / self.mass * seconds
        if self.friction and before * self.speed < 0:
            self.speed = 0.0
        self.lift += self.speed * seconds
        if self.lift <= 0.0:
            self.lift, self.speed = 0.0, max(-self.bounce * self.speed, 0.0)
