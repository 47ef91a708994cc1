"""What goes to and fro by itself: an air motor, the air end of a pump, a water-driven dosing motor."""

from __future__ import annotations

import math
from dataclasses import dataclass

# The pressure at which ``passes`` is told. [MPa]
_ONE_BAR = 0.1


@dataclass(slots=True)
class Stroker:
    """A piston that its own pilot sends back at each end. [ml, MPa, s]

    ``swept``: what a stroke takes; ``passes`` what comes in at 1 bar above what it runs at, past its throttle [ml/min];
    ``starts`` and ``runs``: the pressure that overcomes its friction at rest and on the way; ``past``: what passes its
    rings without pushing, at 1 bar [ml/min]; ``turns``: how long its pilot takes at an end; ``outlet``: share of it that
    is open. ``strokes``, ``came`` and ``lost`` [ml] are counted from the first.
    """

    swept: float = 30.0
    passes: float = 1000.0
    starts: float = 0.03
    runs: float = 0.02
    past: float = 0.0
    turns: float = 0.1
    outlet: float = 1.0
    moving: bool = False
    filled: float = 0.0
    waits: float = 0.0
    strokes: int = 0
    came: float = 0.0
    lost: float = 0.0

    def lets_in(self, pressure: float) -> float:
        """What comes past the throttle while it moves, at a pressure, any [MPa]. [ml/min] Source: orifice, q ~ √Δp."""
        return self.passes * min(self.outlet, 1.0) * math.sqrt(max(pressure - self.runs, 0.0) / _ONE_BAR)

    def loses(self, pressure: float) -> float:
        """What passes its rings at a pressure, any [MPa]. [ml/min] Source: orifice, q ~ √Δp."""
        return self.past * math.sqrt(max(pressure, 0.0) / _ONE_BAR)

    def pushes(self, pressure: float) -> float:
        """What of it moves the piston, at a pressure, any [MPa]: nothing once its rings pass all that comes. [ml/min]"""
        return max(self.lets_in(pressure) - self.loses(pressure), 0.0)

    def rate(self, pressure: float) -> float:
        """Strokes a minute while it runs at a pressure, any [MPa]; 0 where it stalls.

        Source: a stroke is what it sweeps over what pushes, and the time its pilot takes.
        """
        pushes = self.pushes(pressure)
        return 60.0 / (self.swept / pushes * 60.0 + self.turns) if pushes > 0 else 0.0

    def step(self, seconds: float, pressure: float) -> None:
        """One step under a pressure, any [MPa]; seconds : above 0. Source: continuity; Coulomb friction with a break."""
        self.moving = pressure > self.runs and (self.moving or pressure >= self.starts)
        self.lost += self.loses(pressure) * seconds / 60
        self.came += self.loses(pressure) * seconds / 60
        left = seconds
        while self.moving and left > 0:
            if self.waits > 0:
                pause = min(self.waits, left)
                self.waits -= pause
                left -= pause
                continue
            pushes = self.pushes(pressure) / 60
            if pushes <= 0:
                # It stands, and needs what overcomes its friction at rest to go on.
                self.moving = False
                break
            taken = min(pushes * left, self.swept - self.filled)
            self.filled += taken
            self.came += taken
            left -= taken / pushes
            if self.filled >= self.swept * (1 - 1e-12):
                self.strokes, self.filled, self.waits = self.strokes + 1, 0.0, self.turns
                left = left if left > 1e-12 else 0.0

    @property
    def place(self) -> float:
        """Where it is between its ends. [0 to 1]"""
        done = self.filled / self.swept
        return done if self.strokes % 2 == 0 else 1.0 - done
