"""Groove check: every figure of a ring in its groove over all tolerances, with findings."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ironkettle.core.base.findings import Finding, verdict_of
from ironkettle.core.sealing.grooves.backup import BackupAdvice, advise_backup
from ironkettle.core.sealing.grooves.extrusion import Gap, gap_of, is_off_the_table
from ironkettle.core.sealing.grooves.geometry import Worst, worst_case
from ironkettle.core.sealing.grooves.judge import (
    compound_findings,
    fill_findings,
    gap_findings,
    oversize_findings,
    squeeze_findings,
    stretch_findings,
    stretch_floor,
    stretch_most,
)
from ironkettle.core.sealing.grooves.model import Band, Gland, GlandTables, GrooveLimits, Seat, Span
from ironkettle.core.sealing.rings.sizes import RingSize


@dataclass(frozen=True, slots=True)
class GlandCheck:
    """Ratios in per cent, lengths in mm, over all tolerances.

    ``vacuum``: the air presses the ring inwards. ``seat_diameter`` is what the ring sits on, its inside
    diameter there [mm]; ``squeeze_band`` and ``stretch_band`` are the limits that were held against [%].
    """

    vacuum: bool
    depth: float
    width: float
    seat_diameter: float
    free_section: float
    free_inside_diameter: float
    squeeze_pct: Span
    stretch_pct: Span
    fill_pct: Span
    installed_section: Span
    gap: Gap | None
    backup: BackupAdvice
    squeeze_band: Band
    stretch_band: Band
    limits: GrooveLimits
    verdict: str
    findings: tuple[Finding, ...]


def check_gland(gland: Gland, ring: RingSize, tables: GlandTables) -> GlandCheck:
    """Check one ring in one gland.

    Parameters
    ----------
    gland : the seat. [mm, MPa, °C]
    ring : the ring with its tolerances. [mm]
    tables : extrusion gaps, usual grooves, compounds and the shop's limits.

    Source of the sums: conservation of volume; limits per ``GrooveLimits``.
    """
    return check_rings(gland, [ring], tables)[0]


def check_rings(gland: Gland, rings: Sequence[RingSize], tables: GlandTables) -> list[GlandCheck]:
    """Check several rings in one gland in one array pass; the same answer as one by one.

    Parameters as ``check_gland`` [mm, MPa, °C].
    """
    if not rings:
        return []
    worst = worst_case(
        gland,
        np.array([ring.inside_diameter for ring in rings]),
        np.array([ring.inside_tolerance for ring in rings]),
        np.array([ring.section for ring in rings]),
        np.array([ring.section_tolerance for ring in rings]),
    )
    return [_judged(gland, ring, worst, place, tables) for place, ring in enumerate(rings)]


def _judged(gland: Gland, ring: RingSize, worst: Worst, place: int, tables: GlandTables) -> GlandCheck:
    limits = tables.limits
    band = limits.squeeze(gland.motion, gland.medium)
    squeeze, stretch, fill = (_span(worst, name, place, 100.0) for name in ("squeeze", "stretch", "fill"))
    gap = gap_of(gland, tables.extrusion, ring.section, limits.backup_pressure_factor)
    off_the_table = gap is None and is_off_the_table(gland, tables.extrusion, ring.section)
    backup = advise_backup(gland, gap, ring, tables.grooves, whatever_the_gap=off_the_table)
    findings = [
        *squeeze_findings(squeeze, band, gland, limits),
        *stretch_findings(stretch, gland, limits),
        *fill_findings(fill, limits),
        *oversize_findings(_span(worst, "oversize", place, 100.0), gland, limits),
        *gap_findings(gland, gap, backup, tables, ring.section),
        *compound_findings(gland, tables.compounds),
    ]
    return GlandCheck(
        vacuum=gland.pressure is not None and gland.pressure < 0,
        depth=depth_of(gland),
        width=gland.groove_width.nominal,
        seat_diameter=seat_diameter_of(gland, ring),
        free_section=ring.section,
        free_inside_diameter=ring.inside_diameter,
        squeeze_pct=squeeze,
        stretch_pct=stretch,
        fill_pct=fill,
        installed_section=_span(worst, "section", place, 1.0),
        gap=gap,
        backup=backup,
        squeeze_band=band,
        stretch_band=Band(round(stretch_floor(gland, limits), 6), stretch_most(gland, limits)),
        limits=limits,
        verdict=verdict_of(findings),
        findings=tuple(findings),
    )


def depth_of(gland: Gland) -> float:
    """Nominal depth of the gland, from groove bottom to the surface sealed against. [mm]"""
    if gland.seat is Seat.PISTON and gland.bore is not None:
        return (gland.bore.nominal - gland.groove_diameter.nominal) / 2
    if gland.seat is Seat.ROD and gland.rod is not None:
        return (gland.groove_diameter.nominal - gland.rod.nominal) / 2
    assert gland.groove_depth is not None  # Gland refuses a face seat without it
    return gland.groove_depth.nominal


def seat_diameter_of(gland: Gland, ring: RingSize) -> float:
    """Inside diameter the ring has in place, before squeeze, when it is stretched at all. [mm]"""
    if gland.seat is Seat.PISTON:
        return gland.groove_diameter.nominal
    if gland.seat is Seat.ROD and gland.rod is not None:
        return gland.rod.nominal
    if gland.on_inner_wall:
        return gland.groove_diameter.nominal
    return gland.groove_diameter.nominal - 2 * ring.section


def _span(worst: Worst, name: str, place: int, factor: float) -> Span:
    low, nominal, high = (float(getattr(f, name)[place]) * factor for f in (worst.low, worst.nominal, worst.high))
    return Span(low, nominal, high)
