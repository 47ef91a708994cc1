"""A torque that was read: is the fastener tight in this pass, not yet, or too tight."""

from __future__ import annotations

from dataclasses import dataclass

from ironkettle.core.base.quantities import show
from ironkettle.core.machine.tightening.passes import Turn
from ironkettle.core.machine.tightening.setting import TorqueRange

# An early pass only brings the parts together evenly.
EARLY_PCT = 15.0
_BELOW_FULL = 0.99


@dataclass(frozen=True, slots=True)
class Allowed:
    """What may be read in a pass [N·m], and whether it ends tight."""

    low: float
    high: float
    final: bool


def allowed_reading(torque: TorqueRange, turn: Turn, accuracy_pct: float | None) -> Allowed:
    """What a reading at the fastener may be in a pass. [N·m]

    At 100 % the range itself, or round a bare target the wrench's accuracy (5 % without one); in an
    early pass its share of that, 15 % either way, and always below the range.

    Parameters: accuracy_pct : of the wrench, None when not known [%].
    Source: the build sheet's range; evenness of early passes by shop practice.
    """
    band = torque.band(accuracy_pct)
    if turn.pct >= 100:
        return Allowed(band.low, band.high, True)
    share, slack = turn.pct / 100, EARLY_PCT / 100
    return Allowed(band.low * share * (1 - slack), min(band.high * share * (1 + slack), band.low * _BELOW_FULL), False)


def told_of_reading(value: float, allowed: Allowed, symbol: str = "N·m") -> str | None:
    """Why a reading, >= 0 [N·m], does not count, in a sentence in the unit ``symbol``; None when it does."""
    required = f"{show(allowed.low, symbol)} to {show(allowed.high, symbol)} is asked for"
    if value < allowed.low * (1 - 1e-9):
        return f"not tight: {required}. Go on to it, and read again"
    if value > allowed.high * (1 + 1e-9):
        if allowed.final:
            return f"too tight: {required}. Undo it, look at thread and seat, renew what was stretched, and begin again"
        return f"too tight for this pass: {required}. Undo all of them, and begin again with the first pass"
    return None
