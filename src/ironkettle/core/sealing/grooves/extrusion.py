"""The gap beside the groove: how wide it is under pressure, and how much a ring stands in it."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from ironkettle.core.base.housing import HOUSINGS, REFERENCE_TEMPERATURE_C, HousingMaterial
from ironkettle.core.sealing.grooves.model import ExtrusionLimit, Gland, Seat

BASIS = "extrusion gap table by hardness, pressure and section (handbook guidance, static, to 80 °C)"
BACKED_BASIS = "90 Shore A row of the extrusion gap table times the shop's backup factor; the maker's figure wins"

_BACKUP_HARDNESS = 90
BACKED_CAP_MPA = 40.0


@dataclass(frozen=True, slots=True)
class Gap:
    """Radial gap under pressure [mm]: parts concentric, pushed to one side, allowed (None: off the table).

    ``growth`` is how much of the worst gap is the housing growing under pressure [mm]; ``safe_bare`` and
    ``safe_backed`` are the pressures this gap stands without and with a backup ring, 0 when none [MPa].
    """

    concentric: float
    worst: float
    allowed: float | None
    growth: float
    safe_bare: float
    safe_backed: float

    @property
    def needs_backup(self) -> bool:
        return self.worst > 1e-9 and (self.allowed is None or self.worst > self.allowed + 1e-9)


def allowed_gap(limits: Iterable[ExtrusionLimit], hardness: int, pressure: float, section: float) -> float | None:
    """Largest radial gap a ring stands unbacked, or None when the table says: use a backup. [mm]

    The row of the next lower hardness and the next higher pressure is taken, never interpolated. A ring
    softer than the table counts as its softest at a pressure as much higher as that one is stiffer.

    Parameters: hardness in Shore A, pressure in MPa gauge, section in mm.
    Source: reference/tables/extrusion_gap_mm.csv.
    Range: hardness from 1 up to 100 Shore A, pressure ≥ 0 MPa, section above 0 mm.
    """
    known = list(limits)
    counted = pressure * softer_by(known, hardness)
    rows = [row for row in _rows(known, hardness, section) if row.pressure_max >= counted - 1e-9]
    return min(rows, key=lambda row: row.pressure_max).gap_max if rows else None


def highest_pressure(limits: Iterable[ExtrusionLimit], hardness: int, section: float) -> float:
    """The pressure above which the table gives no gap at all without a backup ring. [MPa]

    Parameters: hardness in Shore A, section in mm. Source: reference/tables/extrusion_gap_mm.csv.
    """
    known = list(limits)
    rows = _rows(known, hardness, section)
    return max((row.pressure_max for row in rows), default=0.0) / softer_by(known, hardness)


def is_off_the_table(gland: Gland, limits: Iterable[ExtrusionLimit], section: float) -> bool:
    """Whether a radial gland is above the pressure to which the table gives any gap; section in mm.

    A face that is bolted metal to metal has no gap at any pressure.
    ``section`` above 0. [mm]
    """
    if gland.load is None or gland.seat is Seat.FACE:
        return False
    return gland.load > highest_pressure(limits, gland.hardness_shore_a, section) + 1e-9


def softer_by(limits: Iterable[ExtrusionLimit], hardness: int) -> float:
    """How many times stiffer the table's softest ring is than one of this hardness, at least 1. [-]

    Parameters: hardness in Shore A, 20 to 98.
    Source: Gent, relation between indentation hardness and Young's modulus (1958).
    """
    softest = min(row.hardness for row in limits)
    return max(_stiffness(softest) / _stiffness(hardness), 1.0)


def _stiffness(shore_a: float) -> float:
    """Young's modulus of rubber by its hardness [Shore A], by Gent. [MPa]"""
    return 0.0981 * (56 + 7.62336 * shore_a) / (0.137505 * (254 - 2.54 * shore_a))


def bore_growth(diameter: float, wall: float, pressure: float, material: HousingMaterial) -> float:
    """How much a bore grows in diameter under pressure inside. [mm]

    Δd = p·d/E · ((D² + d²)/(D² − d²) + ν), D = d + 2·wall.

    Parameters
    ----------
    diameter : of the bore, > 0. [mm]
    wall : thickness around it, > 0. [mm]
    pressure : inside, >= 0. [MPa]
    material : gives E and ν.

    Source: Lamé, thick-walled cylinder, open ends, no pressure outside.
    """
    made_of = HOUSINGS[material]
    outside = diameter + 2 * wall
    ratio = (outside**2 + diameter**2) / (outside**2 - diameter**2)
    return pressure * diameter / made_of.youngs_modulus * (ratio + made_of.poisson)


def gap_of(gland: Gland, limits: Iterable[ExtrusionLimit], section: float, backup_factor: float = 3.0) -> Gap | None:
    """The gap of a gland against the table; None when clearance or pressure is not known. [mm, MPa]

    Concentric is half the diametral clearance; worst is the whole of it on one side, at its largest.
    Growth of the housing widens both where wall and material are given.

    Parameters: section of the ring [mm]; backup_factor: pressure a backup stands over that of a
    90 Shore A ring in the same gap [-].
    Range: section and backup factor above 0.
    """
    if gland.diametral_clearance is None or gland.pressure is None:
        return None
    rows = list(limits)
    clearance, pressure = gland.diametral_clearance, abs(gland.pressure)
    growth = growth_at(gland, pressure)
    softer = softer_by(rows, gland.hardness_shore_a)

    def worst(at: float) -> float:
        return clearance.high + growth_at(gland, at)

    bare = [
        r.pressure_max / softer
        for r in _rows(rows, gland.hardness_shore_a, section)
        if worst(r.pressure_max / softer) <= r.gap_max + 1e-9
    ]
    backed = [
        min(r.pressure_max * backup_factor, BACKED_CAP_MPA)
        for r in _rows(rows, _BACKUP_HARDNESS, section)
        if worst(min(r.pressure_max * backup_factor, BACKED_CAP_MPA)) <= r.gap_max + 1e-9
    ]
    return Gap(
        concentric=(clearance.nominal + growth) / 2,
        worst=worst(pressure),
        allowed=allowed_gap(rows, gland.hardness_shore_a, pressure, section),
        growth=growth,
        safe_bare=max(bare, default=0.0),
        safe_backed=max(backed, default=0.0),
    )


def growth_at(gland: Gland, pressure: float) -> float:
    """Growth of the clearance by pressure [MPa] and heat; by pressure only where the wall is given. [mm]

    A housing that grows more with heat than the steel inside it opens the gap; one that grows less is
    not reckoned to close it.
    Range: pressure ≥ 0. Source: thick-walled cylinder (Lamé), open ends; linear expansion.
    """
    around = {Seat.PISTON: gland.bore, Seat.ROD: gland.rod, Seat.FACE: None}[gland.seat]
    if around is None:
        return 0.0
    apart = HOUSINGS[gland.housing].linear_expansion - HOUSINGS[HousingMaterial.STEEL].linear_expansion
    by_heat = max(around.nominal * apart * (gland.temperature - REFERENCE_TEMPERATURE_C), 0.0)
    by_pressure = 0.0 if gland.wall is None else bore_growth(around.nominal, gland.wall, pressure, gland.housing)
    return by_heat + by_pressure


def hardness_for(limits: Iterable[ExtrusionLimit], worst_gap: float, pressure: float, section: float) -> int | None:
    """The softest hardness of the table that stands a gap without a backup ring, None when none does. [Shore A]

    Parameters: worst radial gap, >= 0 [mm]; pressure, >= 0 [MPa]; section, > 0 [mm].
    Source: reference/tables/extrusion_gap_mm.csv.
    """
    rows = list(limits)
    for grade in sorted({row.hardness for row in rows}):
        allowed = allowed_gap(rows, grade, pressure, section)
        if allowed is not None and worst_gap <= allowed + 1e-9:
            return grade
    return None


def _rows(limits: Iterable[ExtrusionLimit], hardness: int, section: float) -> list[ExtrusionLimit]:
    """The rows of the next lower hardness for a section; of the softest for one softer than the table."""
    rows = list(limits)
    grade = max((row.hardness for row in rows if row.hardness <= hardness), default=min(row.hardness for row in rows))
    return [row for row in rows if row.hardness == grade and row.section_over < section <= row.section_up_to]
