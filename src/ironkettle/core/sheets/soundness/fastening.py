"""Fasteners of a sheet: threads the tables know, phases that can be, and no torque that is more than the thread stands."""

from __future__ import annotations

from collections.abc import Iterator

from ironkettle.core.base.errors import FieldFault, RuleError
from ironkettle.core.machine.tightening import FastenerTables, fastener_of, find_thread, over_proof
from ironkettle.core.sheets.document.fastening import (
    FastenerGroup,
    GapPhase,
    Phase,
    SlotPhase,
    TorquePhase,
    TurnsPhase,
)


def group_faults(path: str, group: FastenerGroup, tables: FastenerTables) -> Iterator[FieldFault]:
    """What cannot be in a group of fasteners, and what would overload it. [N·m against the proof load]"""
    fastener = None
    if group.thread:
        try:
            find_thread(group.thread, tables.threads, "thread")
            if group.grade:
                fastener = fastener_of(group.thread, group.grade, group.condition, tables)
        except RuleError as error:
            yield from (found.under(path) for found in error.faults)
    for place, phase in enumerate(group.phases):
        at = f"{path}.phases.{place}"
        if isinstance(phase, TurnsPhase | SlotPhase) and group.thread is None:
            yield FieldFault(f"{path}.thread", "is needed for turns and slots", ("M42x2",))
        yield from _phase_faults(at, phase)
        if fastener is not None and isinstance(phase, TorquePhase) and phase.tight is not None:
            for found in over_proof(phase.tight.high, fastener):
                yield FieldFault(at, found.message)


def _phase_faults(at: str, phase: Phase) -> Iterator[FieldFault]:
    if isinstance(phase, TorquePhase) and phase.low and phase.high:
        if phase.low.value > phase.high.value:
            yield FieldFault(f"{at}.low", f"{phase.low} is above {phase.high}")
    elif isinstance(phase, TurnsPhase) and isinstance(phase.turns, tuple) and phase.turns[0] > phase.turns[1]:
        yield FieldFault(f"{at}.turns", f"{phase.turns[0]:g} is above {phase.turns[1]:g}")
    elif isinstance(phase, GapPhase) and phase.gap[0].value > phase.gap[1].value:
        yield FieldFault(f"{at}.gap", f"{phase.gap[0]} is above {phase.gap[1]}")
