"""What the figures of a ring in its gland mean: findings against the shop's limits."""

from __future__ import annotations

from ironkettle.core.base.errors import RuleError
from ironkettle.core.base.findings import Finding, caution, info, reject
from ironkettle.core.base.housing import HOUSINGS
from ironkettle.core.sealing.compounds import Compound, find_compound
from ironkettle.core.sealing.compounds.model import BASIS as COMPOUND_BASIS
from ironkettle.core.sealing.grooves import extrusion
from ironkettle.core.sealing.grooves.backup import WIDTH_BASIS, BackupAdvice
from ironkettle.core.sealing.grooves.extrusion import Gap, hardness_for
from ironkettle.core.sealing.grooves.model import Band, Gland, GlandTables, GrooveLimits, Motion, Seat, Span

# Up to the pressure of air lines a gap that is not known is told, not held against the groove: a shop's choice.
UNCHECKED_UP_TO_MPA = 1.0


def stretch_floor(gland: Gland, limits: GrooveLimits) -> float:
    """Least stretch allowed. [%] A static piston ring may sit a little loose: the bore still squeezes it."""
    if (gland.seat is Seat.PISTON or gland.on_inner_wall) and gland.motion is Motion.STATIC:
        return min(-1.0, limits.stretch.low)
    return limits.stretch.low - 1e-9


def stretch_most(gland: Gland, limits: GrooveLimits) -> float:
    """Most stretch allowed. [%] A ring on a turning shaft may not be stretched at all."""
    return 0.0 if gland.motion is Motion.ROTARY and gland.seat is Seat.ROD else limits.stretch.high


def squeeze_findings(squeeze: Span, band: Band, gland: Gland, limits: GrooveLimits) -> list[Finding]:
    """Squeeze [%]: nominal inside the limits, worst case never lost."""
    name = f"{gland.motion} squeeze {band.low:g} to {band.high:g} %"
    if squeeze.nominal < band.low or squeeze.nominal > band.high:
        side = "below" if squeeze.nominal < band.low else "above"
        return [reject("squeeze", f"squeeze {squeeze.nominal:.1f} % is {side} the limits ({name})", limits.basis)]
    if squeeze.min < 0 or squeeze.min == 0 < band.low:
        return [reject("squeeze-lost", f"squeeze can fall to {squeeze.min:.1f} %: no seal", limits.basis)]
    if squeeze.min < band.low or squeeze.max > band.high:
        text = f"squeeze {squeeze.min:.1f} to {squeeze.max:.1f} % leaves the limits at the worst tolerances ({name})"
        return [caution("squeeze-worst", text, limits.basis)]
    return []


def stretch_findings(stretch: Span, gland: Gland, limits: GrooveLimits) -> list[Finding]:
    """Stretch [%]: not over its limit, not hanging loose, none at all on a turning shaft."""
    if gland.motion is Motion.ROTARY and gland.seat is Seat.ROD and stretch.max > 1e-9:
        text = f"stretched up to {stretch.max:.1f} % on a turning shaft (limit 0 %): it heats and shrinks"
        return [reject("stretch-rotary", text, limits.basis)]
    most = limits.stretch.high
    if stretch.nominal > most:
        return [reject("stretch", f"stretch {stretch.nominal:.1f} % is above {most:g} %", limits.basis)]
    floor = stretch_floor(gland, limits)
    if stretch.nominal < floor:
        text = f"the ring is {-stretch.nominal:.1f} % larger than its groove and hangs loose (limit {-floor:.0f} %)"
        return [reject("loose", text, limits.basis)]
    if stretch.max > most:
        text = f"stretch can reach {stretch.max:.1f} % at the worst tolerances (limit {most:g} %)"
        return [caution("stretch-worst", text, limits.basis)]
    return []


def fill_findings(fill: Span, limits: GrooveLimits) -> list[Finding]:
    """Fill [%]: room left at the worst, and the usual reserve at the nominal."""
    if fill.max >= limits.fill_worst_max:
        text = f"the ring can fill {fill.max:.0f} % of the groove (limit below {limits.fill_worst_max:g} %): no room to move"
        return [reject("fill-worst", text, limits.basis)]
    if fill.nominal > limits.fill_nominal_max:
        text = f"fill {fill.nominal:.0f} % is above {limits.fill_nominal_max:g} %"
        return [caution("fill", text, limits.basis)]
    return []


def oversize_findings(oversize: Span, gland: Gland, limits: GrooveLimits) -> list[Finding]:
    """Outside diameter over the groove [%]: a rod or face ring too large buckles."""
    most = limits.rod_ring_oversize_max
    if gland.seat is Seat.PISTON or gland.on_inner_wall:
        return []
    if oversize.nominal > most:
        text = f"the ring's outside diameter is {oversize.nominal:.1f} % over the groove (limit {most:g} %): it buckles"
        return [reject("oversize", text, limits.basis)]
    if gland.seat is Seat.FACE and oversize.nominal < -1.0:
        text = f"the ring is {-oversize.nominal:.1f} % smaller than the wall it rests on (limit 1 %): pressure stretches it out"
        return [caution("face-small", text, limits.basis)]
    return []


def gap_findings(
    gland: Gland, gap: Gap | None, backup: BackupAdvice, tables: GlandTables, section: float
) -> list[Finding]:
    """The gap against the table, and the way out in order of ease: backup ring, tighter gap, harder compound. ``section`` above 0. [mm]"""
    if gap is None:
        return _gap_unknown(gland, backup)
    found = [] if gap.growth == 0.0 else [_growth(gland, gap)]
    found += _at_the_edges(gland, gap)
    if not backup.needed:
        return found
    if gap.allowed is None:
        why = f"{gland.load:.1f} MPa is off the table for {gland.hardness_shore_a} Shore A"
    else:
        why = f"worst gap {gap.worst:.2f} mm is over the {gap.allowed:.2f} mm allowed"
    if gland.backup_rings_fitted < backup.count:
        text = f"{why}: fit {backup.count} backup ring{'s' if backup.count > 1 else ''} ({backup.sides[0]})"
        found.append(reject("backup-missing", f"{text}{_other_ways(gland, gap, tables, section)}", extrusion.BASIS))
    elif gland.load is not None and gland.load > gap.safe_backed + 1e-9:
        text = f"{why}, and {gland.load:.1f} MPa is over the {gap.safe_backed:.1f} MPa a backup ring is taken to withstand here"
        found.append(caution("backup-overloaded", text, extrusion.BACKED_BASIS))
    else:
        found.append(info("backup-present", f"{why}: the backup rings fitted carry it", extrusion.BASIS))
    if backup.groove_width_needed and gland.groove_width.nominal < backup.groove_width_needed * 0.97:
        text = f"a groove about {backup.groove_width_needed:.2f} mm wide is usual for this; it is {gland.groove_width.nominal:.2f} mm"
        found.append(caution("groove-narrow", text, WIDTH_BASIS))
    return found


# The gap table is for static seats to this temperature. [°C]
_TABLE_TO_C = 80.0


def _at_the_edges(gland: Gland, gap: Gap) -> list[Finding]:
    """What the gap table does not say: a seat that moves without clearance, and rubber softer with heat than in the table."""
    found = []
    if gland.motion is not Motion.STATIC and gap.worst <= 0:
        text = "The clearance of a moving seat is 0 mm: it could not move. Enter the clearance that was measured."
        found.append(caution("no-clearance", text, extrusion.BASIS))
    if gland.temperature > _TABLE_TO_C and gap.worst > 0:
        text = (
            f"{gland.temperature:g} °C is beyond the {_TABLE_TO_C:g} °C of the gap table: hot rubber is softer and goes into "
            "smaller gaps. Use a backup ring, or the maker's figure."
        )
        found.append(caution("gap-beyond-table", text, extrusion.BASIS))
    return found


def _gap_unknown(gland: Gland, backup: BackupAdvice) -> list[Finding]:
    """Nothing is good while the gap is not known, but at the pressure of air lines and where faces meet metal to metal."""
    if gland.load is None:
        given = "" if gland.diametral_clearance is not None else " and no clearance"
        text = f"Extrusion was not judged: no pressure{given} is given. Enter the pressure it holds."
        return [caution("not-judged", text, extrusion.BASIS)]
    if backup.needed:
        why = f"{gland.load:.1f} MPa is above what the table gives any gap for {gland.hardness_shore_a} Shore A"
        if gland.backup_rings_fitted < backup.count:
            text = f"{why}: fit {backup.count} backup ring{'s' if backup.count > 1 else ''} ({backup.sides[0]}), whatever the gap"
            return [reject("backup-missing", text, extrusion.BASIS)]
        text = f"{why}, and the clearance is not given: give it, so that what the backup rings stand can be checked"
        return [caution("gap-unknown", text, extrusion.BASIS)]
    text = "the clearance beside the groove is not given, so extrusion was not checked: give the clearance"
    if gland.seat is Seat.FACE:
        text += " (0 mm where the faces meet metal to metal)"
    if gland.load <= UNCHECKED_UP_TO_MPA:
        return [info("gap-unknown", text, extrusion.BASIS)]
    return [caution("gap-unknown", text, extrusion.BASIS)]


def compound_findings(gland: Gland, compounds: tuple[Compound, ...]) -> list[Finding]:
    """The working temperature against the compound's range; a compound not in the table is said so."""
    if not compounds:
        return []
    try:
        compound = find_compound(gland.material, compounds)
    except RuleError:
        text = f"{gland.material} is not in the compound table, so its temperatures were not checked"
        return [info("material-unknown", text, COMPOUND_BASIS)]
    if compound.low <= gland.temperature <= compound.high:
        return []
    side = "cold" if gland.temperature < compound.low else "hot"
    text = f"{gland.temperature:g} °C is too {side} for {compound.name} ({compound.low:g} to {compound.high:g} °C)"
    return [reject("temperature", text, COMPOUND_BASIS)]


def _growth(gland: Gland, gap: Gap) -> Finding:
    at = f"{gland.load:.1f} MPa and {gland.temperature:g} °C"
    text = f"the gap round the {HOUSINGS[gland.housing].word} housing grows by {gap.growth:.3f} mm at {at}; it counts"
    return info("bore-growth", text, "thick-walled cylinder (Lamé), open ends; expansion against steel")


def _other_ways(gland: Gland, gap: Gap, tables: GlandTables, section: float) -> str:
    ways = []
    if gap.allowed is not None:
        ways.append(f"tighten the gap to {gap.allowed:.2f} mm")
    grade = hardness_for(tables.extrusion, gap.worst, gland.load or 0.0, section)
    if grade is not None and grade > gland.hardness_shore_a:
        ways.append(f"take a compound of {grade} Shore A")
    return "".join(f", or {way}" for way in ways)
