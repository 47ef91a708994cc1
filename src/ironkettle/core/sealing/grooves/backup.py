"""Backup rings: whether, how many, on which side, which size and kind, and the groove they need."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum

import numpy as np

from ironkettle.core.sealing.grooves.extrusion import Gap
from ironkettle.core.sealing.grooves.model import Gland, GlandRow, Motion, PressureDirection, Seat
from ironkettle.core.sealing.rings.sizes import AS568, RingSize

WIDTH_BASIS = "usual groove widths by section (inch groove table; between sections read off in proportion)"
SPLIT_UP_TO_MPA = 21.0


class BackupKind(StrEnum):
    SOLID = "solid"
    SPLIT = "split"
    CONTOURED = "contoured"


@dataclass(frozen=True, slots=True)
class BackupAdvice:
    """``sides`` names where each ring lies; ``groove_width_needed`` in mm, None when none is needed."""

    needed: bool
    count: int
    sides: tuple[str, ...]
    designation: str | None
    groove_width_needed: float | None
    kind: BackupKind | None = None
    why_kind: str | None = None


def advise_backup(
    gland: Gland, gap: Gap | None, ring: RingSize, rows: Sequence[GlandRow], *, whatever_the_gap: bool = False
) -> BackupAdvice:
    """Backup rings for this gland: one on the side away from pressure, two when it comes from both.

    ``whatever_the_gap``: the table gives no gap at this pressure, so one is needed without knowing it.
    The size is the dash number of the O-ring itself; a metric backup is named by groove and
    section. Source: common practice; reference/tables/gland_inch.csv.
    """
    if not whatever_the_gap and (gap is None or not gap.needs_backup):
        return BackupAdvice(False, 0, (), None, None)
    both = gland.pressure_direction is PressureDirection.BOTH_SIDES
    count = 2 if both else 1
    sides = ("each side of the ring",) * 2 if both else ("side away from pressure",)
    if ring.series == AS568:
        designation = f"backup ring for AS568-{ring.designation}"
    else:
        designation = f"backup ring for groove {gland.groove_diameter.nominal:.2f} mm, section {ring.section:.2f} mm"
    width = groove_width_for(ring.section, count, gland.motion, rows)
    return BackupAdvice(True, count, sides, designation, width, *_kind(gland))


def _kind(gland: Gland) -> tuple[BackupKind, str]:
    """Which kind of backup ring, and why; common practice."""
    if gland.motion is not Motion.STATIC:
        return (
            BackupKind.CONTOURED,
            "moving: the hollow face hugs the ring and keeps it from rolling; hollow towards the ring",
        )
    if (gland.load or 0.0) > SPLIT_UP_TO_MPA:
        return BackupKind.SOLID, f"above {SPLIT_UP_TO_MPA:g} MPa the cut of a split ring lets the O-ring through"
    if gland.seat is Seat.ROD:
        return BackupKind.SPLIT, "goes into a closed groove without being folded; lay the cut away from the fill port"
    return BackupKind.SOLID, "a piston groove is open: an uncut ring goes on over the edge, warmed if need be"


def groove_width_for(section: float, backups: int, motion: Motion, rows: Sequence[GlandRow]) -> float:
    """Groove width wanted for a section with 0, 1 or 2 backup rings. [mm]

    Read off the inch groove table in proportion between its sections; beyond its ends the
    nearest ratio of width to section is kept. Parameters: section in mm.
    Source: usual inch groove table (reference/tables/gland_inch.csv).
    """
    use = "static_radial" if motion is Motion.STATIC else "reciprocating"
    table = sorted((row for row in rows if row.use == use), key=lambda row: row.section)
    widths = [(row.width_no_backup, row.width_one_backup, row.width_two_backups)[backups] for row in table]
    known = [(row.section, width / row.section) for row, width in zip(table, widths, strict=True) if width is not None]
    ratio = np.interp(section, [s for s, _ in known], [r for _, r in known])
    return float(ratio * section)
