"""New groove: section, ring and groove dimensions with tolerances for a bore, rod or face."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace

from ironkettle.core.base.quantities import Toleranced
from ironkettle.core.sealing.grooves.backup import groove_width_for
from ironkettle.core.sealing.grooves.check import GlandCheck
from ironkettle.core.sealing.grooves.extrusion import allowed_gap
from ironkettle.core.sealing.grooves.geometry import installed_section
from ironkettle.core.sealing.grooves.model import Gland, GlandRow, GlandTables, Medium, Motion, PressureDirection, Seat
from ironkettle.core.sealing.grooves.search import search_rings
from ironkettle.core.sealing.grooves.sift import COMFORTABLE_STRETCH_PCT
from ironkettle.core.sealing.rings.sizes import AS568, ISO_3601, RingSize, RingTable

INCH_BASIS = "usual inch grooves by section (handbook table)"
METRIC_BASIS = "by rule: squeeze at the middle of the limits, width by the usual ratio, groove diameter to IT9"
# A bore and rod fitted closer than this want honing: a backup ring is the easier way.
TIGHTEST_CLEARANCE_MM = 0.07
METRIC_SECTIONS_MM = (1.80, 2.65, 3.55, 5.30, 7.00)
_VERDICT_ORDER = {"good": 0, "caution": 1, "reject": 2}


@dataclass(frozen=True, slots=True)
class GrooveWish:
    """What a new groove must do. ``across`` is the bore, the rod, or the outer wall of a face groove. [mm, MPa, °C]"""

    seat: Seat
    across: Toleranced
    motion: Motion = Motion.STATIC
    medium: Medium = Medium.LIQUID
    pressure: float | None = None
    pressure_direction: PressureDirection = PressureDirection.ONE_SIDE
    hardness_shore_a: int = 70
    material: str = "NBR"
    temperature: float = 20.0
    diametral_clearance: Toleranced | None = None


@dataclass(frozen=True, slots=True)
class GrooveProposal:
    """One way to cut the groove, with the ring for it and its check.

    ``corner_radius`` is the least and most radius at the bottom [mm]; ``assumed`` says in words what
    was not given and therefore supposed.
    """

    gland: Gland
    ring: RingSize
    check: GlandCheck
    corner_radius: tuple[float, float]
    basis: str
    assumed: tuple[str, ...]


def tolerance_grade(diameter: float, grade: int) -> float:
    """Width of the tolerance grade IT8 or IT9 at a diameter. [mm]

    i = 0.45·∛D + 0.001·D in µm; IT8 = 25·i, IT9 = 40·i, here at the diameter itself rather than at the
    mean of the standard's step.

    Parameters: diameter, > 0 [mm]; grade 8 or 9. Source: ISO 286-1.
    """
    unit = 0.45 * math.cbrt(diameter) + 0.001 * diameter
    return {8: 25, 9: 40}[grade] * unit / 1000


def design_groove(wish: GrooveWish, table: RingTable, tables: GlandTables, *, limit: int = 4) -> list[GrooveProposal]:
    """Grooves for a wish, best first: every usual section, inch and metric, each with its best ring.

    Order: verdict over all tolerances, then nearness to the usual section for the diameter
    (1.5 mm + a thirtieth of it, a fifth more where it moves). Sections without a ring that fits are left out.

    Parameters: wish [mm, MPa, °C]; limit : how many, >= 1.
    Source: gland_inch.csv for inch sections; the shop limits for metric ones.
    """
    usual = (1.5 + wish.across.nominal / 30) * (1.0 if wish.motion is Motion.STATIC else 1.2)
    proposals = [p for plan in _plans(wish, tables) if (p := _best_ring(plan, table, tables)) is not None]
    proposals.sort(key=lambda p: (_VERDICT_ORDER[p.check.verdict], abs(math.log(p.ring.section / usual))))
    return proposals[:limit]


@dataclass(frozen=True, slots=True)
class _Plan:
    wish: GrooveWish
    series: str
    section: float
    depth: Toleranced
    width_tolerance: tuple[float, float]
    clearance: Toleranced
    corner_radius: tuple[float, float]
    basis: str


def _plans(wish: GrooveWish, tables: GlandTables) -> Iterator[_Plan]:
    use = "face_liquid" if wish.seat is Seat.FACE else "static_radial"
    use = "reciprocating" if wish.motion is Motion.RECIPROCATING else use
    rows = [row for row in tables.grooves if row.use == use]
    if wish.motion is not Motion.ROTARY and (wish.seat is not Seat.FACE or wish.motion is Motion.STATIC):
        for row in rows:
            middle = (row.depth_min + row.depth_max) / 2
            half = (row.depth_max - row.depth_min) / 2
            width = (0.0, row.width_tolerance)
            radius = (row.corner_radius_min, row.corner_radius_max)
            yield _Plan(
                wish, AS568, row.section, Toleranced(middle, half, half), width, _clearance(row), radius, INCH_BASIS
            )
    band = tables.limits.squeeze(wish.motion, wish.medium)
    for section in METRIC_SECTIONS_MM:
        stretched = section if wish.seat is not Seat.PISTON else _stretched(wish.across.nominal, section)
        depth = round(stretched * (1 - (band.low + band.high) / 200), 2)
        deeper = round(tolerance_grade(max(wish.across.nominal - 2 * depth, 1.0), 9), 2) / 2
        nearest = min(rows or tables.grooves, key=lambda row: abs(row.section - section))
        yield _Plan(
            wish,
            ISO_3601,
            section,
            Toleranced(depth, 0.0, deeper),
            (0.0, 0.25),
            _clearance(nearest),
            (0.2, 0.4) if section < 3 else (0.4, 0.8) if section < 6 else (0.8, 1.2),
            METRIC_BASIS,
        )


def _stretched(bore: float, section: float) -> float:
    """Section of a ring stretched by the comfortable 2 % on a piston in this bore. [mm]"""
    seat = max(bore - 1.7 * section, section)
    return float(installed_section(seat / (1 + COMFORTABLE_STRETCH_PCT / 100), section, seat))


def _clearance(row: GlandRow) -> Toleranced:
    """The row's clearance on the diameter, its upper end rounded down to 0.01 mm."""
    high = math.floor(row.clearance_max * 100) / 100
    return Toleranced((high + row.clearance_min) / 2, (high - row.clearance_min) / 2, (high - row.clearance_min) / 2)


def _best_ring(plan: _Plan, table: RingTable, tables: GlandTables) -> GrooveProposal | None:
    """The ring of the plan's section that fits best; a second round makes room for backup rings."""
    sizes = tuple(s for s in table.sizes if s.series == plan.series and abs(s.section - plan.section) < 0.01)
    found: GrooveProposal | None = None
    for backups in (0, 1, 2):
        gland, assumed = _gland(plan, backups, tables)
        if gland is None:
            return None
        search = search_rings(gland, RingTable(sizes), tables, limit=1) if sizes else None
        if search is None or not search.fits:
            return found
        fit = search.fits[0]
        found = GrooveProposal(gland, fit.size, fit.check, plan.corner_radius, plan.basis, assumed)
        if fit.check.backup.count <= backups:
            return found
    return found


def _gland(plan: _Plan, backups: int, tables: GlandTables) -> tuple[Gland | None, tuple[str, ...]]:
    wish, depth = plan.wish, plan.depth
    across, assumed = _with_tolerance(wish)
    clearance = wish.diametral_clearance
    if clearance is None and wish.seat is not Seat.FACE:
        clearance = _tight_enough(plan, tables)
        assumed = (*assumed, f"clearance on the diameter {clearance.low:.2f} to {clearance.high:.2f} mm")
    motion = Motion.STATIC if wish.motion is Motion.ROTARY else wish.motion
    width = round(groove_width_for(plan.section, backups, motion, tables.grooves), 2)
    common = Gland(
        seat=Seat.FACE,
        groove_diameter=across,
        groove_width=Toleranced(width, *plan.width_tolerance),
        groove_depth=depth,
        motion=wish.motion,
        medium=wish.medium,
        pressure=wish.pressure,
        pressure_direction=wish.pressure_direction,
        hardness_shore_a=wish.hardness_shore_a,
        material=wish.material,
        temperature=wish.temperature,
        diametral_clearance=clearance,
        backup_rings_fitted=backups,
    )
    if wish.seat is Seat.FACE:
        return common, assumed
    towards = -1 if wish.seat is Seat.PISTON else 1
    nominal = round(across.nominal + towards * 2 * depth.nominal, 2)
    if nominal <= plan.section:
        return None, assumed
    groove = Toleranced(nominal, 2 * depth.plus, 2 * depth.minus)
    if wish.seat is Seat.ROD:
        groove = Toleranced(nominal, 2 * depth.minus, 2 * depth.plus)
    bore, rod = (across, None) if wish.seat is Seat.PISTON else (None, across)
    return replace(common, seat=wish.seat, groove_diameter=groove, groove_depth=None, bore=bore, rod=rod), assumed


def _tight_enough(plan: _Plan, tables: GlandTables) -> Toleranced:
    """The usual clearance, tightened to what the ring stands unbacked where that can still be machined."""
    usual, wish = plan.clearance, plan.wish
    if wish.pressure is None:
        return usual
    allowed = allowed_gap(tables.extrusion, wish.hardness_shore_a, abs(wish.pressure), plan.section)
    if allowed is None or not TIGHTEST_CLEARANCE_MM <= allowed < usual.high:
        return usual
    low = min(usual.low, allowed / 2)
    return Toleranced((allowed + low) / 2, (allowed - low) / 2, (allowed - low) / 2)


def _with_tolerance(wish: GrooveWish) -> tuple[Toleranced, tuple[str, ...]]:
    """The bore or rod with its tolerance; H8 or f8-like where none was given, and said so."""
    if wish.seat is Seat.FACE or wish.across.minus or wish.across.plus:
        return wish.across, ()
    width = round(tolerance_grade(wish.across.nominal, 8), 3)
    if wish.seat is Seat.PISTON:
        return Toleranced(wish.across.nominal, 0.0, width), (f"bore +{width:g}/-0 mm (IT8)",)
    return Toleranced(wish.across.nominal, width, 0.0), (f"rod +0/-{width:g} mm (IT8)",)
