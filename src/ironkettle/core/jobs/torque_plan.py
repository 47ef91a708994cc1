"""The plan of a fastener group in a job: settings, order and preload, from the sheet's figures and what it is done with."""

from __future__ import annotations

from dataclasses import dataclass

from ironkettle.core.base.quantities import read_torque
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.overstressed import fastener_of, is_threaded
from ironkettle.core.jobs.phases import told_group, turns_between
from ironkettle.core.jobs.runs import WrenchUsed
from ironkettle.core.machine.tightening import (
    Adapter,
    ByTorque,
    ByTurns,
    Layout,
    Locking,
    Spec,
    TorquePlan,
    TorqueRange,
    ToSlot,
    ToStop,
    Wrench,
    find_thread,
    plan_tightening,
)
from ironkettle.core.sheets.document.fastening import FastenerGroup, Phase, PhaseTo, SlotPhase, TorquePhase, TurnsPhase


@dataclass(frozen=True, slots=True)
class DoneWith:
    """What a phase is tightened with. ``into``: the material the thread is tapped into; ``engaged``: how deep it is in [mm]."""

    wrench: WrenchUsed | None = None
    adapter: Adapter | None = None
    locking: tuple[Locking, ...] = ()
    into: str | None = None
    engaged: float | None = None


def torque_plan(
    case: Case, group_key: str, index: int, done_with: DoneWith, turn: int | None = None
) -> TorquePlan | None:
    """The plan of one phase of a group; None for one without a figure: by hand, loosened, to a mark, to a gap. [N·m, deg]

    Raises RuleError for a thread, grade or material that no table has.
    ``index``: of the phase, from 0 up to the last; ``turn``: the pass in hand, from 1.
    """
    group = told_group(case, group_key)
    phase = group.phases[index]
    spec = _spec(case, group, phase)
    if spec is None:
        return None
    if not isinstance(phase, TorquePhase):
        return plan_tightening(
            spec, layout=layout_of(group), count=group.count, wrench=_wrench(done_with.wrench), adapter=done_with.adapter,
            locking=done_with.locking,
        )  # fmt: skip
    return plan_tightening(
        spec,
        layout=layout_of(group),
        count=group.count,
        passes_pct=phase.passes_pct,
        wrench=_wrench(done_with.wrench),
        adapter=done_with.adapter,
        soft_thread=group.soft_thread,
        fastener=fastener_of(case, group, done_with.into, done_with.engaged) if is_threaded(group) else None,
        locking=done_with.locking,
        top=case.tables.settings.follows("aim", 1),
        turn=turn,
    )


def layout_of(group: FastenerGroup) -> Layout:
    """How the fasteners of a group lie."""
    return group.layout if group.count > 1 else Layout.SINGLE


def _spec(case: Case, group: FastenerGroup, phase: Phase) -> Spec | None:
    if isinstance(phase, TorquePhase):
        return ByTorque(_range(phase))
    if phase.to is PhaseTo.STOP:
        return ToStop()
    if group.thread is None:
        return None
    if isinstance(phase, TurnsPhase):
        low, high = turns_between(phase)
        return ByTurns((low + high) / 2, _pitch(case, group.thread), from_bottom=phase.back)
    if isinstance(phase, SlotPhase):
        return ToSlot(phase.slots, _pitch(case, group.thread), from_bottom=phase.back)
    return None


def _pitch(case: Case, thread: str) -> float:
    return find_thread(thread, case.tables.fasteners.threads, "thread").pitch


def _range(phase: TorquePhase) -> TorqueRange:
    if phase.target is not None:
        target = phase.target.value
        spread = target * (phase.tolerance_pct or 0.0) / 100
        return TorqueRange(target - spread, target + spread)
    assert phase.low is not None
    assert phase.high is not None
    return TorqueRange(phase.low.value, phase.high.value)


def _wrench(used: WrenchUsed | None) -> Wrench | None:
    if used is None:
        return None
    return Wrench(read_torque(used.low, "low"), read_torque(used.high, "high"), used.accuracy_pct)


__all__ = ["DoneWith", "is_threaded", "layout_of", "torque_plan"]
