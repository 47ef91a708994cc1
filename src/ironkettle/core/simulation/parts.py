"""Parts with a behaviour of their own: a relief valve that sticks a little, a regulator that leaks, a rod that jumps."""

from __future__ import annotations

import math
from dataclasses import dataclass


@dataclass(slots=True)
class ReliefValve:
    """Opens at ``opens`` and shuts at ``opens`` less ``friction`` twice over; open it passes so much a MPa above. [MPa]"""

    opens: float
    friction: float = 0.2
    passes: float = 4000.0
    is_open: bool = False

    def flow(self, pressure: float) -> float:
        """What it lets out at a pressure, any [MPa gauge]. [ml/min] Source: spring and friction, a line above its reseat."""
        shuts = self.opens - 2 * self.friction
        if self.is_open and pressure <= shuts:
            self.is_open = False
        elif not self.is_open and pressure >= self.opens:
            self.is_open = True
        return self.passes * max(pressure - shuts, 0.0) if self.is_open else 0.0


@dataclass(slots=True)
class Regulator:
    """A reducing regulator: ``set_to`` [MPa] at no flow and a tight seat, ``droop`` [MPa a l/min], ``friction`` either way.

    ``seat_leak``: what passes its shut seat into a closed outlet [ml/min of standard air]; ``lock_up``: how far above its
    setting the seat is quite shut [MPa].
    """

    set_to: float
    droop: float = 0.00005
    friction: float = 0.002
    lock_up: float = 0.02
    seat_leak: float = 0.0
    risen: float = 0.0

    def outlet(self, flow: float, rising: bool) -> float:
        """What it holds at a flow from 0 up [l/min], come to from below or above. [MPa gauge] Source: spring rate and friction."""
        side = -self.friction if rising else self.friction
        if flow <= 0:
            return self.set_to + self.lock_up + self.risen
        return max(self.set_to - self.droop * flow + side, 0.0)

    def wait(self, seconds: float, outlet_ml: float, inlet: float) -> None:
        """Time with the outlet shut: what leaks past the seat lifts it, up to the inlet's pressure.

        Parameters: seconds : above 0; outlet_ml : above 0; inlet : any [MPa gauge]. Source: ideal gas at rest.
        """
        rise = self.seat_leak * seconds / 60 * 0.101325 / outlet_ml
        self.risen = min(self.risen + rise, max(inlet - self.set_to - self.lock_up, 0.0))


@dataclass(slots=True)
class Sliding:
    """A rod pushed through its seals by a spring of oil: it sticks, breaks away, and slips.

    ``breakaway`` and ``running`` friction [N], ``stiffness`` of what pushes [N/mm], ``damping`` [N·s/mm], moving ``mass`` [kg].
    """

    breakaway: float
    running: float
    stiffness: float
    damping: float = 0.05
    mass: float = 5.0
    position: float = 0.0
    speed: float = 0.0

    def step(self, seconds: float, pushed_to: float) -> float:
        """One step; the push comes from a spring whose far end stands at ``pushed_to`` [mm]. Gives the force. [N]

        Parameters: seconds : above 0, below a thousandth for a stiff push; pushed_to : any [mm].
        Source: Coulomb friction with a break, Newton's law.
        """
        force = self.stiffness * (pushed_to - self.position)
        if self.speed == 0.0 and abs(force) <= self.breakaway:
            return force
        against = math.copysign(self.running, self.speed if self.speed else force) + self.damping * self.speed
        before = self.speed
        self.speed += (force - against) / self.mass * 1000 * seconds
        if before * self.speed < 0:
            self.speed = 0.0
        self.position += self.speed * seconds
        return force


@dataclass(slots=True)
class DemandValve:
    """A valve that opens to a breath: ``cracks`` [Pa] below the surroundings, and ``rises`` [Pa a l/min] with the flow."""

    cracks: float
    rises: float = 3.0

    def effort(self, flow: float) -> float:
        """How far below its surroundings the mouthpiece goes at a flow, from 0 up [l/min]. [Pa] Source: spring and lever, a line."""
        return self.cracks + self.rises * flow if flow > 0 else 0.0
