"""The phases of a fastener group as figures: between what a reading is tight, told at a step or by the sheet, and in words."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ironkettle.core.base.errors import fault
from ironkettle.core.base.quantities import Dimension, read_quantity, read_torque, written_turns
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kinds.base import measured
from ironkettle.core.jobs.kinds.step import STEPS
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.jobs.screen import Dial
from ironkettle.core.machine.tightening import Layout, TorqueRange, Turn, turns_of
from ironkettle.core.sheets.document.fastening import (
    FastenerGroup,
    GapPhase,
    MarkPhase,
    Phase,
    PhaseTo,
    SlotPhase,
    TorquePhase,
    TurnsPhase,
)
from ironkettle.core.sheets.document.fields import Measure
from ironkettle.core.sheets.document.parts import Read


def told_group(case: Case, key: str) -> FastenerGroup:
    """A group with the figures that were written down at a step; until then, with what can be expected there."""
    group = case.resolved.groups[key]
    return group.model_copy(update={"phases": [_told(case, phase) for phase in group.phases]})


def _told(case: Case, phase: Phase) -> Phase:
    if not isinstance(phase, TorquePhase):
        return phase
    step = case.resolved.steps.get(phase.noted_at or "")
    if step is None or step.note is None:
        return phase
    marked = case.state.book(STEPS).get(step.key)
    if marked is not None and marked.value.note:
        return phase.model_copy(update={"target": _torque(marked.value.note)})
    unit, ends, _ = measured(Read.TORQUE, step.note.limit, "limit")
    low, high = ends or (0.0, 0.0)
    return phase.model_copy(update={name: _torque(f"{end:g} {unit}") for name, end in (("low", low), ("high", high))})


def _torque(text: str) -> Measure[float]:
    return Measure(text, read_torque(text, "note"))


def range_of(phase: TorquePhase) -> TorqueRange:
    """Between what a reading of a torque phase is tight: its range, else its target with the band at recording. [N·m]"""
    assert phase.tight is not None
    return phase.tight


def passes(group: FastenerGroup, phase: TorquePhase) -> tuple[Turn, ...]:
    """The passes of a torque phase: one for a single fastener, else those of the sheet or the usual ones, with a last round in order."""
    layout = group.layout if group.count > 1 else Layout.SINGLE
    return turns_of(layout, group.count, phase.passes_pct)


@dataclass(frozen=True, slots=True)
class Pass:
    """One pass of a phase of a group. ``index``: which phase, from 0; ``turn``: which of its passes, from 1. [-]"""

    group: FastenerGroup
    index: int
    phase: Phase
    turn: int
    turns: tuple[Turn, ...]

    @property
    def key(self) -> str:
        """The key of its task."""
        return f"tighten:{self.group.key}:{self.index}:{self.turn}"


def passes_of(group: FastenerGroup) -> Iterator[Pass]:
    """Every pass of every phase of a group, in order."""
    for index, phase in enumerate(group.phases):
        turns = passes(group, phase) if isinstance(phase, TorquePhase) else ()
        for turn in range(1, max(len(turns), 1) + 1):
            yield Pass(group, index, phase, turn, turns)


def turn_range(phase: TorquePhase, turn: Turn) -> TorqueRange:
    """Between what a reading of one pass is right: a share of the range before the last. [N·m]"""
    whole = range_of(phase)
    return TorqueRange(whole.low * turn.pct / 100, whole.high * turn.pct / 100)


def turns_between(phase: TurnsPhase) -> tuple[float, float]:
    """Between how many turns a phase by turns is right: its own range, or a twentieth either way. [turns]"""
    if isinstance(phase.turns, tuple):
        return phase.turns
    return phase.turns * 0.95, phase.turns * 1.05


def phase_words(resolved: Resolved, group: FastenerGroup, phase: Phase) -> str:
    """A phase in words."""
    if isinstance(phase, TurnsPhase):
        turns = phase.turns if isinstance(phase.turns, tuple) else (phase.turns, phase.turns)
        amount = " to ".join(dict.fromkeys(written_turns(turn) for turn in turns))
        return f"{amount} {'turn' if turns[1] <= 1 else 'turns'} {_way(phase)}"
    if isinstance(phase, SlotPhase):
        return f"{_way(phase)} to the nearest of {phase.slots} slots"
    if isinstance(phase, GapPhase):
        return f"a gap of {phase.gap[0]} to {phase.gap[1]} remains"
    return _PHASE_WORDS[phase.to]


_PHASE_WORDS = {
    PhaseTo.HAND: "hand tight", PhaseTo.LOOSEN: "loosen again", PhaseTo.STOP: "to the stop, metal to metal",
    PhaseTo.MARK: "to its mark", PhaseTo.TORQUE: "to torque",
}  # fmt: skip


def _way(phase: TurnsPhase | SlotPhase) -> str:
    return "back" if phase.back else "on"


def action_word(phase: Phase) -> str | None:
    """What was done where it is not tightening; None where it is."""
    if phase.to is PhaseTo.LOOSEN:
        return "Loosened"
    if isinstance(phase, TurnsPhase | SlotPhase) and phase.back:
        return "Backed off"
    return None


def dial_of(phase: Phase) -> Dial | None:
    """The dial of a phase that is turned by eye: so far, to a slot, to its line."""
    if isinstance(phase, TurnsPhase):
        low, high = turns_between(phase)
        back = -1 if phase.back else 1
        between = f", {360 * low:.0f}° to {360 * high:.0f}°" if isinstance(phase.turns, tuple) else ", as drawn"
        return Dial(
            turn_deg=back * 180 * (low + high),
            slots=None,
            words=f"{'back ' if phase.back else ''}from where it stands now{between}",
        )
    if isinstance(phase, SlotPhase):
        way = "back" if phase.back else "on"
        return Dial(
            turn_deg=(-360 if phase.back else 360) / phase.slots, slots=phase.slots, words=f"at most so far {way}"
        )
    return Dial(turn_deg=0, slots=None, words="line on line") if isinstance(phase, MarkPhase) else None


def check_measured(phase: Phase, turned: float | None, back: str | None, gap: str | None) -> None:
    """Raises RuleError for what was measured and does not fit the phase; what it must have and lacks too.

    ``turned``: not below 0 [turns]; ``back`` to the slot and the ``gap`` left as they were read, with their unit.
    """
    if isinstance(phase, TurnsPhase):
        low, high = turns_between(phase)
        if turned is None:
            raise fault("turned", "how far was it turned?", f"{low:g} to {high:g} turns")
        if not low - 1e-9 <= turned <= high + 1e-9:
            raise fault(
                "turned",
                f"{turned:g} turns are outside what is required",
                f"{low:g} to {high:g} turns",
                code="out-of-limits",
            )
    if isinstance(phase, SlotPhase) and back is not None:
        angle, most = read_quantity(back, Dimension.ANGLE, "back").value, 360 / phase.slots
        if not 0 <= angle <= most + 0.5:
            way = "back" if phase.back else "on"
            raise fault(
                "back",
                f"the nearest of {phase.slots} slots is at most {most:.0f}° {way}",
                f"0 to {most:.0f} °",
                code="out-of-limits",
            )
    if isinstance(phase, GapPhase):
        if gap is None:
            raise fault("gap", f"measure it: a gap of {phase.gap[0]} to {phase.gap[1]} must remain", *phase.gap)
        left = read_quantity(gap, Dimension.LENGTH, "gap").value
        low, high = (end.value for end in phase.gap)
        if not low - 1e-9 <= left <= high + 1e-9:
            text = f"a gap of {gap} is not {phase.gap[0]} to {phase.gap[1]}: the parts meet in the wrong place"
            raise fault("gap", text, f"{phase.gap[0]} to {phase.gap[1]}", code="out-of-limits")
