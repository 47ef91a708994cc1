"""Groove check: every figure of a ring in its groove, held against the limits, with findings."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ironkettle.core.findings import Finding, caution, info, reject, verdict_of
from ironkettle.core.glands import extrusion
from ironkettle.core.glands.backup import WIDTH_BASIS, BackupAdvice, advise_backup
from ironkettle.core.glands.extrusion import Gap, gap_of
from ironkettle.core.glands.geometry import Worst, nominal_case, worst_case
from ironkettle.core.glands.model import Band, Gland, GlandTables, HouseLimits, Motion, Seat, Span
from ironkettle.core.rings.sizes import RingSize, RingTable

HOUSE_BASIS = "house limits (usual handbook values; the maker's drawing wins)"


@dataclass(frozen=True, slots=True)
class GlandCheck:
    """Ratios in per cent, lengths in mm, over all tolerances."""

    depth: float
    free_section: float
    squeeze_pct: Span
    stretch_pct: Span
    fill_pct: Span
    installed_section: Span
    gap: Gap | None
    backup: BackupAdvice
    squeeze_band: Band
    limits: HouseLimits
    verdict: str
    findings: tuple[Finding, ...]


def check_gland(gland: Gland, ring: RingSize, tables: GlandTables) -> GlandCheck:
    """Check one ring in one gland.

    Parameters
    ----------
    gland : the seat. [mm, MPa, °C]
    ring : the ring with its tolerances. [mm]
    tables : extrusion gaps, usual grooves and the shop's limits.

    Source of the sums: conservation of volume; limits per ``HouseLimits``.
    """
    worst = worst_case(
        gland,
        np.array([ring.inside_diameter]),
        np.array([ring.inside_tolerance]),
        np.array([ring.section]),
        np.array([ring.section_tolerance]),
    )
    band = tables.limits.squeeze(gland.motion, gland.medium)
    squeeze, stretch, fill = (_span(worst, name, 100.0) for name in ("squeeze", "stretch", "fill"))
    gap = gap_of(gland, tables.extrusion, ring.section)
    backup = advise_backup(gland, gap, ring, ring.section, tables.grooves)
    findings = [
        *_squeeze_findings(squeeze, band, gland),
        *_stretch_findings(stretch, tables.limits, gland),
        *_fill_findings(fill, tables.limits),
        *_oversize_findings(_span(worst, "oversize", 100.0), tables.limits, gland),
        *_gap_findings(gland, gap, backup),
    ]
    return GlandCheck(
        depth_of(gland),
        ring.section,
        squeeze,
        stretch,
        fill,
        _span(worst, "section", 1.0),
        gap,
        backup,
        band,
        tables.limits,
        verdict_of(findings),
        tuple(findings),
    )


def depth_of(gland: Gland) -> float:
    """Nominal depth of the gland, from groove bottom to the surface sealed against. [mm]"""
    if gland.seat is Seat.PISTON and gland.bore is not None:
        return (gland.bore.nominal - gland.groove_diameter.nominal) / 2
    if gland.seat is Seat.ROD and gland.rod is not None:
        return (gland.groove_diameter.nominal - gland.rod.nominal) / 2
    assert gland.groove_depth is not None  # Gland refuses a face seat without it
    return gland.groove_depth.nominal


def fits_of(gland: Gland, table: RingTable, limits: HouseLimits) -> tuple[list[bool], list[tuple[str, ...]]]:
    """For every size of the table: whether it can live in the gland, and why not.

    The same limits as the check, nominal figures, in one array pass.
    """
    nominal = nominal_case(gland, table.inside_diameter, table.inside_tolerance, table.section, table.section_tolerance)
    band = limits.squeeze(gland.motion, gland.medium)
    squeeze, stretch, fill = nominal.squeeze * 100, nominal.stretch * 100, nominal.fill * 100
    rules = [
        (squeeze < band.low, "squeeze {:.1f} % is below {:g} %", squeeze, band.low),
        (squeeze > band.high, "squeeze {:.1f} % is above {:g} %", squeeze, band.high),
        (
            stretch < _stretch_floor(gland, limits),
            "ring is loose by {:.1f} % of its diameter (limit {:g} %)",
            stretch,
            0.0,
        ),
        (stretch > limits.stretch.high, "stretch {:.1f} % is above {:g} %", stretch, limits.stretch.high),
        (fill > limits.fill_worst_max, "fills {:.0f} % of the groove (limit {:g} %)", fill, limits.fill_worst_max),
    ]
    if gland.seat is not Seat.PISTON:
        oversize = nominal.oversize * 100
        most = limits.rod_ring_oversize_max
        rules.append((oversize > most, "outside diameter is {:.1f} % over the groove (limit {:g} %)", oversize, most))
    failed = np.any([rule[0] for rule in rules], axis=0)
    reasons: list[tuple[str, ...]] = [()] * len(table.sizes)
    for index in np.flatnonzero(failed):
        reasons[index] = tuple(
            text.format(float(values[index]), limit) for wrong, text, values, limit in rules if wrong[index]
        )
    return [not bad for bad in failed], reasons


def _span(worst: Worst, name: str, factor: float) -> Span:
    low, nominal, high = (float(getattr(f, name)[0]) * factor for f in (worst.low, worst.nominal, worst.high))
    return Span(low, nominal, high)


def _stretch_floor(gland: Gland, limits: HouseLimits) -> float:
    # A static piston ring may sit a little loose before assembly: the bore still squeezes it.
    return -1.0 if gland.seat is Seat.PISTON and gland.motion is Motion.STATIC else limits.stretch.low - 1e-9


def _squeeze_findings(squeeze: Span, band: Band, gland: Gland) -> list[Finding]:
    name = f"{gland.motion} squeeze {band.low:g} to {band.high:g} %"
    if squeeze.nominal < band.low or squeeze.nominal > band.high:
        side = "below" if squeeze.nominal < band.low else "above"
        return [reject("squeeze", f"squeeze {squeeze.nominal:.1f} % is {side} the limits ({name})", HOUSE_BASIS)]
    if squeeze.min <= 0:
        return [reject("squeeze-lost", f"squeeze can fall to {squeeze.min:.1f} %: no seal", HOUSE_BASIS)]
    if squeeze.min < band.low or squeeze.max > band.high:
        text = f"squeeze {squeeze.min:.1f} to {squeeze.max:.1f} % leaves the limits at the worst tolerances ({name})"
        return [caution("squeeze-worst", text, HOUSE_BASIS)]
    return []


def _stretch_findings(stretch: Span, limits: HouseLimits, gland: Gland) -> list[Finding]:
    if gland.motion is Motion.ROTARY and gland.seat is Seat.ROD and stretch.nominal > 0:
        return [
            reject(
                "stretch-rotary",
                f"stretched {stretch.nominal:.1f} % on a turning shaft: it heats and shrinks",
                HOUSE_BASIS,
            )
        ]
    if stretch.nominal > limits.stretch.high:
        return [reject("stretch", f"stretch {stretch.nominal:.1f} % is above {limits.stretch.high:g} %", HOUSE_BASIS)]
    if stretch.nominal < _stretch_floor(gland, limits):
        return [
            reject("loose", f"the ring is {-stretch.nominal:.1f} % larger than its groove and hangs loose", HOUSE_BASIS)
        ]
    if stretch.max > limits.stretch.high:
        return [caution("stretch-worst", f"stretch can reach {stretch.max:.1f} % at the worst tolerances", HOUSE_BASIS)]
    return []


def _fill_findings(fill: Span, limits: HouseLimits) -> list[Finding]:
    if fill.max >= limits.fill_worst_max:
        return [reject("fill-worst", f"the ring can fill {fill.max:.0f} % of the groove: no room to move", HOUSE_BASIS)]
    if fill.nominal > limits.fill_nominal_max:
        return [caution("fill", f"fill {fill.nominal:.0f} % is above {limits.fill_nominal_max:g} %", HOUSE_BASIS)]
    return []


def _oversize_findings(oversize: Span, limits: HouseLimits, gland: Gland) -> list[Finding]:
    most = limits.rod_ring_oversize_max
    if gland.seat is Seat.PISTON or oversize.nominal <= most:
        if gland.seat is Seat.FACE and oversize.nominal < -1.0:
            text = f"the ring is {-oversize.nominal:.1f} % smaller than the wall it rests on: pressure stretches it out"
            return [caution("face-small", text, HOUSE_BASIS)]
        return []
    text = f"the ring's outside diameter is {oversize.nominal:.1f} % over the groove (limit {most:g} %): it buckles"
    return [reject("oversize", text, HOUSE_BASIS)]


def _gap_findings(gland: Gland, gap: Gap | None, backup: BackupAdvice) -> list[Finding]:
    if gap is None:
        if gland.pressure is None:
            return []
        return [
            info("gap-unknown", "the gap beside the groove is not given, so extrusion was not checked", extrusion.BASIS)
        ]
    if not backup.needed:
        return []
    if gap.allowed is None:
        why = f"{gland.pressure:.1f} MPa is off the table for {gland.hardness_shore_a} Shore A"
    else:
        why = f"worst gap {gap.worst:.2f} mm is over the {gap.allowed:.2f} mm allowed"
    found: list[Finding] = []
    if gland.backup_rings_fitted < backup.count:
        text = f"{why}: fit {backup.count} backup ring{'s' if backup.count > 1 else ''} ({backup.sides[0]})"
        found.append(
            reject("backup-missing", f"{text}, or tighten the gap, or take a harder compound", extrusion.BASIS)
        )
    else:
        found.append(info("backup-present", f"{why}: the backup rings fitted carry it", extrusion.BASIS))
    if backup.groove_width_needed and gland.groove_width.nominal < backup.groove_width_needed * 0.97:
        text = f"a groove about {backup.groove_width_needed:.2f} mm wide is usual for this; it is {gland.groove_width.nominal:.2f} mm"
        found.append(caution("groove-narrow", text, WIDTH_BASIS))
    return found
