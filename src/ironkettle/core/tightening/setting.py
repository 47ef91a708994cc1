"""The wrench setting: inside the range whatever the wrench's error, and what the adapter does."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ironkettle.core.errors import fault

USABLE_FROM = 0.20


@dataclass(frozen=True, slots=True)
class Wrench:
    """A torque wrench: scale in N·m, accuracy in per cent of the reading (ISO 6789 class as marked)."""

    low: float
    high: float
    accuracy_pct: float

    @property
    def usable_low(self) -> float:
        """The scale is trusted from 20 % of its end upwards. [N·m]"""
        return max(self.low, USABLE_FROM * self.high)


@dataclass(frozen=True, slots=True)
class Adapter:
    """An extension on the wrench: lengths in mm, angle between them in degrees."""

    wrench_length: float
    extension: float
    angle_deg: float = 0.0

    def scale_setting(self, torque: float) -> float:
        """What the scale must read for a torque at the fastener: T·L/(L + E·cos θ). [N·m]

        At 90° nothing changes. Raises RuleError when the adapter points back past the drive.
        """
        reach = self.wrench_length + self.extension * math.cos(math.radians(self.angle_deg))
        if reach <= 0:
            raise fault("adapter", "points back past the square of the wrench", "angle 0 to 90 deg")
        return torque * self.wrench_length / reach


@dataclass(frozen=True, slots=True)
class TorqueRange:
    """Lowest and highest torque the fastener may get. [N·m]"""

    low: float
    high: float

    @property
    def middle(self) -> float:
        return (self.low + self.high) / 2


def setting_within(torque: TorqueRange, accuracy_pct: float) -> float | None:
    """The middle of the range, moved so that setting × (1 ± accuracy) stays inside; None if it cannot. [N·m]

    Parameters: accuracy_pct : 0 to 50. [%]
    """
    share = accuracy_pct / 100
    lowest, highest = torque.low / (1 - share), torque.high / (1 + share)
    if lowest > highest * (1 + 1e-12):
        return None
    return min(max(torque.middle, lowest), highest)


def accuracy_needed(torque: TorqueRange) -> float:
    """The poorest accuracy that still holds the range: (max − min)/(max + min). [%]"""
    return 100 * (torque.high - torque.low) / (torque.high + torque.low)
