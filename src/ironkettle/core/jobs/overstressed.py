"""The thread of a fastener group by the tables, and whether a torque is more than it stands."""

from __future__ import annotations

from ironkettle.core.base.errors import RuleError, fault
from ironkettle.core.jobs.case import Case
from ironkettle.core.machine.tightening import Fastener, find_factor, find_proof, find_tapped, find_thread, over_proof
from ironkettle.core.sheets.document.fastening import FastenerGroup

_USUAL_CONDITION = "light oil"


def is_threaded(group: FastenerGroup) -> bool:
    """Whether the sheet names thread and grade, without which nothing can be said of preload and stripping."""
    return bool(group.thread and group.grade)


def fastener_of(case: Case, group: FastenerGroup, into: str | None = None, engaged: float | None = None) -> Fastener:
    """Thread, condition and strength of a group; ``into``: the material it is tapped into, ``engaged`` so deep, above 0 [mm].

    Raises RuleError for a thread, grade or material that no table has.
    """
    tables = case.tables.fasteners
    try:
        thread = find_thread(group.thread or "", tables.threads, "thread")
        factor = find_factor(group.condition or _USUAL_CONDITION, tables.nut_factors, "condition")
        proof = find_proof(group.grade or "", thread.major_diameter, tables.strengths, "grade")
        tapped = None if into is None else find_tapped(into, tables.tapped, "into")
    except RuleError as error:
        raise RuleError(found.under("fastener") for found in error.faults) from None
    return Fastener(thread, factor, proof, tapped, engaged)


def check_proof(case: Case, group: FastenerGroup, torque: float, field: str) -> None:
    """Raises RuleError naming the field where a torque, above 0 [N·m], is more than the thread of a group stands."""
    if not is_threaded(group):
        return
    for found in over_proof(torque, fastener_of(case, group)):
        raise fault(field, f"{group.name}: {found.message}", code="too-tight")
