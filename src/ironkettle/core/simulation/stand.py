"""The whole stand: its pump and shut-off, what is put on it, and what its gauges show of that."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, field
from random import Random

from ironkettle.core.base.errors import fault
from ironkettle.core.simulation.gauges import Channel, Fault
from ironkettle.core.simulation.rigs import RIGS, OilUnit, Rig

# A step of the sums: well below the time constants of pump and volume. [s]
STEP_S = 0.02
MOST_MPA = 60.0
# The valve is shut once the pressure is this near to what is wanted.
_THERE = 0.001
# What a stand whose clock jumps is ahead by. [s]
_JUMP_S = 3600.0


def _channels() -> dict[str, Channel]:
    def gauge(seed: int) -> Channel:
        return Channel(step=0.001, noise=0.002, top=64.0, chance=Random(seed))

    def warm(seed: int) -> Channel:
        return Channel(step=0.1, lag_s=20.0, top=150.0, chance=Random(seed))

    return {
        "pressure": gauge(417), "other_side": gauge(418), "supply": gauge(419),
        "temperature": warm(420), "room": warm(421),
        "flow": Channel(step=0.001, chance=Random(422)),
        "position": Channel(step=0.01, chance=Random(423)),
        "force": Channel(step=0.1, noise=0.5, chance=Random(424)),
    }  # fmt: skip


@dataclass(slots=True)
class Stand:
    """A simulated stand. Pressures in MPa gauge, temperatures in °C, flows in ml/min.

    ``settings`` are the dials of what is on it; ``wanted``: what the pump is set to; ``shut``: whether the valve to the unit
    is shut; ``hold``: a number that changes with every hold; ``held``: since when it is shut [s].
    """

    rig: Rig = field(default_factory=OilUnit)
    settings: dict[str, float] = field(default_factory=dict)
    channels: dict[str, Channel] = field(default_factory=_channels)
    fault: Fault | None = None
    room: float = 24.0
    wanted: float = 0.0
    shut: bool = False
    held: float = 0.0
    hold: int = 0

    def __post_init__(self) -> None:
        self.settings = {dial.key: self.settings.get(dial.key, dial.first) for dial in self.rig.dials}

    def put_on(self, key: str) -> None:
        """Put something else on the stand, without pressure and with its dials as they are at first; the same stays as it is.

        Raises RuleError for a kind it does not know.
        """
        if key not in RIGS:
            raise fault("rig", f"“{key}” cannot be put on the stand", *RIGS)
        if key == self.rig.key:
            return
        self.rig = RIGS[key]()
        self.settings = {dial.key: dial.first for dial in self.rig.dials}
        self.wanted, self.shut, self.held = 0.0, False, 0.0

    def set_dials(self, settings: Mapping[str, float]) -> None:
        """Set dials of what is on it; each is kept between its ends."""
        for dial in self.rig.dials:
            value = settings.get(dial.key, self.settings[dial.key])
            self.settings[dial.key] = min(max(value, dial.low), dial.high)

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
            self.rig.advance(seconds / steps, self.wanted, self.shut, self.settings)
            if not self.shut and self.wanted > 0 and self._there():
                self.shut, self.held = True, 0.0
            elif self.shut:
                self.held += seconds / steps

    def _there(self) -> bool:
        return abs(self.rig.reading().supply - self.wanted) <= _THERE * self.wanted

    def shows(self, seconds: float) -> dict[str, float]:
        """What its channels show, a time after they were read last: seconds above 0. [MPa gauge, °C, ml/min, mm, N]"""
        now = self.rig.reading()
        truth = {
            "pressure": now.pressure, "other_side": now.other_side, "supply": now.supply,
            "temperature": now.temperature, "room": self.room, "flow": now.flow, "position": now.position,
            "force": now.force,
        }  # fmt: skip
        self.channels["pressure"].fault = None if self.fault is Fault.CLOCK else self.fault
        return {key: channel.read(truth[key], seconds) for key, channel in self.channels.items()}

    def shows_held(self) -> float:
        """Since when the valve is shut, by the stand's own clock; 0 while it is open. [s]"""
        if not self.shut or self.wanted <= 0:
            return 0.0
        return self.held + (_JUMP_S if self.fault is Fault.CLOCK else 0.0)


__all__ = ["MOST_MPA", "STEP_S", "Fault", "Stand"]
