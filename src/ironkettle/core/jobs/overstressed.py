"""The thread of a fastener group by the tables, and whether a torque is more than it stands."""

from __future__ import annotations

from dataclasses import replace

from ironkettle.core.base.errors import RuleError, fault
from ironkettle.core.jobs.case import Case
from ironkettle.core.machine.tightening import Fastener, find_tapped, over_proof
from ironkettle.core.machine.tightening import fastener_of as by_tables
from ironkettle.core.sheets.document.fastening import FastenerGroup


def is_threaded(group: FastenerGroup) -> bool:
    """Whether the sheet names thread and grade, without which nothing can be said of preload and stripping."""
    return bool(group.thread and group.grade)


def fastener_of(case: Case, group: FastenerGroup, into: str | None = None, engaged: float | None = None) -> Fastener:
    """Thread, condition and strength of a group; ``into``: the material it is tapped into, ``engaged`` so deep, above 0 [mm].

    Raises RuleError for a thread, grade or material that no table has.
    """
    tables = case.tables.fasteners
    try:
        bare = by_tables(group.thread or "", group.grade or "", group.condition, tables)
        tapped = None if into is None else find_tapped(into, tables.tapped, "into")
    except RuleError as error:
        raise RuleError(found.under("fastener") for found in error.faults) from None
    return replace(bare, tapped=tapped, engaged=engaged)


def check_proof(case: Case, group: FastenerGroup, torque: float, field: str) -> None:
    """Raises RuleError naming the field where a torque, above 0 [N·m], is more than the thread of a group stands."""
    if not is_threaded(group):
        return
    for found in over_proof(torque, fastener_of(case, group)):
        raise fault(field, f"{group.name}: {found.message}", code="too-tight")
