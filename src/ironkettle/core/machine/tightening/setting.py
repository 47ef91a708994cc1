"""The wrench setting: inside the range whatever the wrench's error, and what the adapter does."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ironkettle.core.base.errors import fault

USABLE_FROM = 0.20
BARE_TARGET_PCT = 5.0


def torque_words(torque: float) -> str:
    """A torque in three figures, as it is read off a scale. [N·m]

    Parameters: torque >= 0 [N·m].
    Source: no published source: what a scale shows.

    >>> torque_words(0.8512), torque_words(9.588), torque_words(1234.0)
    ('0.851 N·m', '9.59 N·m', '1234 N·m')
    """
    return f"{torque:.3g} N·m" if torque < 1000 else f"{torque:.0f} N·m"


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

    def reaches(self, scale: float) -> bool:
        """Whether a reading of the scale [N·m] lies where it is trusted."""
        return self.usable_low * (1 - 1e-9) <= scale <= self.high * (1 + 1e-9)


@dataclass(frozen=True, slots=True)
class Adapter:
    """An extension on the wrench: lengths in mm, angle between them in degrees."""

    wrench_length: float
    extension: float
    angle_deg: float = 0.0

    def scale_setting(self, torque: float) -> float:
        """What the scale must read for a torque at the fastener: T·L/(L + E·cos θ). [N·m]

        At 90° nothing changes.

        Parameters: torque > 0 at the fastener [N·m].
        Raises RuleError when the adapter points back past the drive.
        Source: equal force at the hand, levers L and L + E·cos θ.

        >>> round(Adapter(300, 40).scale_setting(37), 2)
        32.65
        """
        reach = self.wrench_length + self.extension * math.cos(math.radians(self.angle_deg))
        if reach <= 0:
            raise fault("adapter", "points back past the square of the wrench", "angle 0 to 90 deg")
        return torque * self.wrench_length / reach


@dataclass(frozen=True, slots=True)
class TorqueRange:
    """Lowest and highest torque the fastener may get; equal for a bare target. [N·m]"""

    low: float
    high: float

    @property
    def middle(self) -> float:
        return (self.low + self.high) / 2

    @property
    def words(self) -> str:
        """The range as a scale can be set to it: in figures of a hundredth part at most, rounded inwards; as it is where none lies within. [N·m]

        >>> TorqueRange(9.588, 10.81).words
        '9.6 to 10.8 N·m'
        """
        if self.high <= 0:
            return f"{self.low:g} to {self.high:g} N·m"
        places = 2 - math.floor(math.log10(self.high))
        step = 10.0**-places
        low = round(math.ceil(self.low / step - 1e-9) * step, max(places, 0))
        high = round(math.floor(self.high / step + 1e-9) * step, max(places, 0))
        if low > high:
            low, high = self.low, self.high
        return f"{low:g} to {high:g} N·m"

    @property
    def bare(self) -> bool:
        """One figure without a range."""
        return self.low == self.high

    def band(self, accuracy_pct: float | None) -> TorqueRange:
        """What a reading may be: the range; round a bare target the wrench's accuracy, or 5 % without one. [N·m]"""
        if not self.bare:
            return self
        share = (BARE_TARGET_PCT if accuracy_pct is None else accuracy_pct) / 100
        return TorqueRange(self.low * (1 - share), self.high * (1 + share))


def setting_within(torque: TorqueRange, accuracy_pct: float, *, top: bool = False) -> float | None:
    """The middle of the range, moved so that setting × (1 ± accuracy) stays inside; None if it cannot. [N·m]

    ``top``: as high as that allows, where the shop tightens to the top of the range.

    Parameters: torque : low <= high [N·m]; accuracy_pct : 0 to 50 [%].
    Source: worst case of the wrench at both ends of the range.

    >>> setting_within(TorqueRange(34, 40), 4)
    37.0
    >>> round(setting_within(TorqueRange(34, 40), 4, top=True), 2)
    38.46
    """
    lowest, highest = _settable(torque, accuracy_pct)
    if lowest > highest * (1 + 1e-12):
        return None
    return highest if top else min(max(torque.middle, lowest), highest)


def soft_setting_within(torque: TorqueRange, accuracy_pct: float) -> float | None:
    """The setting for a soft thread: the torque stays at or below the middle, whatever the wrench errs. [N·m]

    Where the range is too narrow for that, the lowest setting that keeps inside it, which is never
    above the middle; None where the wrench cannot hold the range at all.

    Parameters: torque : low <= high [N·m]; accuracy_pct : 0 to 50 [%].
    Source: shop practice for threads in aluminium, brass and plastic.

    >>> round(soft_setting_within(TorqueRange(34, 40), 4), 2)
    35.58
    """
    if setting_within(torque, accuracy_pct) is None:
        return None
    lowest, _ = _settable(torque, accuracy_pct)
    return max(lowest, torque.middle / (1 + accuracy_pct / 100))


def _settable(torque: TorqueRange, accuracy_pct: float) -> tuple[float, float]:
    share = accuracy_pct / 100
    return torque.low / (1 - share), torque.high / (1 + share)


def accuracy_needed(torque: TorqueRange) -> float:
    """The poorest accuracy that still holds the range: (max − min)/(max + min). [%]

    Parameters: torque : low <= high [N·m].
    Source: low = s·(1 − a) and high = s·(1 + a), solved for a.

    >>> round(accuracy_needed(TorqueRange(36, 37)), 2)
    1.37
    """
    return 100 * (torque.high - torque.low) / (torque.high + torque.low)
