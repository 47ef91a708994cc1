"""The passes of a group: how far, in which order, what the wrench is set to, and whether it reaches."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from ironkettle.core.base.findings import Finding, caution
from ironkettle.core.machine.tightening.pattern import Layout, tightening_sequence
from ironkettle.core.machine.tightening.setting import Adapter, Wrench, torque_words

_BASIS = "20 to 100 % of the scale"


@dataclass(frozen=True, slots=True)
class Turn:
    """One pass round the group: share of the final torque [%], whether it is the last round in order, the order."""

    pct: float
    last_round: bool
    sequence: tuple[int, ...]

    @property
    def name(self) -> str:
        return "last round in order" if self.last_round else f"{self.pct:g} %"


@dataclass(frozen=True, slots=True)
class Pass:
    """A turn with its settings, at the fastener and on the wrench's scale. [N·m]

    None where no figure is asked for; ``reached``: the scale is trusted there.
    """

    turn: Turn
    setting: float | None
    wrench_setting: float | None
    reached: bool | None

    @property
    def pct(self) -> float:
        return self.turn.pct

    @property
    def sequence(self) -> tuple[int, ...]:
        return self.turn.sequence


def turns_of(layout: Layout, count: int, passes_pct: Sequence[float]) -> tuple[Turn, ...]:
    """The passes round a group; where there are several, a last round in order at full torque follows.

    Crushing the one lets its neighbours go slack: in order, none is left out.

    Parameters: count : 1 to 64 [-]; passes_pct : shares of the final torque, rising to 100 [%].
    Raises RuleError for a count outside.
    Source: common flange practice (ASME PCC-1).
    """
    star = tightening_sequence(layout, count)
    turns = tuple(Turn(pct, False, star) for pct in passes_pct)
    if len(turns) < 2 or count < 2:
        return turns
    return (*turns, Turn(100.0, True, tuple(range(1, count + 1))))


def settings_of(
    turns: Sequence[Turn], setting: float, wrench: Wrench | None, adapter: Adapter | None
) -> tuple[Pass, ...]:
    """Each pass with its torque at the fastener and on the scale of this wrench. [N·m]

    Parameters: setting > 0, the final torque at the fastener [N·m]. Source: share × setting; the adapter's lever.
    """
    found = []
    for turn in turns:
        torque = setting * turn.pct / 100
        scale = adapter.scale_setting(torque) if adapter else torque
        found.append(Pass(turn, torque, scale, None if wrench is None else wrench.reaches(scale)))
    return tuple(found)


def unreached(passes: Sequence[Pass], wrench: Wrench) -> Iterator[Finding]:
    """Which passes before the last this wrench cannot be trusted with, and what to do."""
    final = passes[-1].wrench_setting
    for number, tightening_pass in enumerate(passes, start=1):
        if (
            tightening_pass.reached is not False
            or tightening_pass.wrench_setting is None
            or not final
            or tightening_pass.pct >= 100
        ):
            continue
        # Rounded up: what is advised must not be refused again.
        first = min(math.ceil(wrench.usable_low / final * 100 - 1e-9), 100)
        text = (
            f"pass {number} wants {torque_words(tightening_pass.wrench_setting)} on the scale, below the {wrench.usable_low:g} N·m from "
            f"which this wrench is trusted: take a smaller wrench for it, run down by hand to the same feel all "
            f"round, or begin at {first:.0f} %"
        )
        yield caution("pass-below-range", text, _BASIS)
