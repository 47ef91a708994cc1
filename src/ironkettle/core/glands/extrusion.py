"""The gap beside the groove: how wide it is under pressure, and how much a ring stands in it."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from ironkettle.core.glands.model import ExtrusionLimit, Gland, HousingMaterial, Seat

BASIS = "extrusion gap table by hardness, pressure and section (handbook guidance, static, to 80 °C)"
BACKED_BASIS = "90 Shore A row of the extrusion gap table times the shop's backup factor; the maker's figure wins"

# Young's modulus [MPa] and Poisson's ratio [-], usual handbook values at 20 °C.
_ELASTIC = {
    HousingMaterial.STEEL: (206_000.0, 0.29),
    HousingMaterial.STAINLESS: (193_000.0, 0.30),
    HousingMaterial.CAST_IRON: (110_000.0, 0.26),
    HousingMaterial.ALUMINIUM: (70_000.0, 0.33),
    HousingMaterial.BRONZE: (105_000.0, 0.34),
}
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
        return self.allowed is None or self.worst > self.allowed + 1e-9


def allowed_gap(limits: Iterable[ExtrusionLimit], hardness: int, pressure: float, section: float) -> float | None:
    """Largest radial gap a ring stands unbacked, or None when the table says: use a backup. [mm]

    The row of the next lower hardness and the next higher pressure is taken, never interpolated.

    Parameters: hardness in Shore A, pressure in MPa gauge, section in mm.
    Source: reference/tables/extrusion_gap_mm.csv.
    """
    rows = [row for row in _rows(limits, hardness, section) if row.pressure_max >= pressure - 1e-9]
    return min(rows, key=lambda row: row.pressure_max).gap_max if rows else None


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
    modulus, poisson = _ELASTIC[material]
    outside = diameter + 2 * wall
    ratio = (outside**2 + diameter**2) / (outside**2 - diameter**2)
    return pressure * diameter / modulus * (ratio + poisson)


def gap_of(gland: Gland, limits: Iterable[ExtrusionLimit], section: float, backup_factor: float = 3.0) -> Gap | None:
    """The gap of a gland against the table; None when clearance or pressure is not known. [mm, MPa]

    Concentric is half the diametral clearance; worst is the whole of it on one side, at its largest.
    Growth of the housing widens both where wall and material are given.

    Parameters: section of the ring [mm]; backup_factor: pressure a backup stands over that of a
    90 Shore A ring in the same gap [-].
    """
    if gland.diametral_clearance is None or gland.pressure is None:
        return None
    rows = list(limits)
    clearance, pressure = gland.diametral_clearance, gland.pressure
    growth = growth_at(gland, pressure)

    def worst(at: float) -> float:
        return clearance.high + growth_at(gland, at)

    bare = [
        r.pressure_max
        for r in _rows(rows, gland.hardness_shore_a, section)
        if worst(r.pressure_max) <= r.gap_max + 1e-9
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
    """Growth of the housing around the clearance at a pressure; 0 where the wall is not given. [mm]"""
    around = {Seat.PISTON: gland.bore, Seat.ROD: gland.rod, Seat.FACE: None}[gland.seat]
    if gland.wall is None or around is None:
        return 0.0
    return bore_growth(around.nominal, gland.wall, pressure, gland.housing)


def hardness_for(limits: Iterable[ExtrusionLimit], worst_gap: float, pressure: float, section: float) -> int | None:
    """The softest hardness of the table that stands a gap without a backup ring, None when none does. [Shore A]

    Parameters: worst radial gap [mm], pressure [MPa], section [mm].
    """
    rows = list(limits)
    for grade in sorted({row.hardness for row in rows}):
        allowed = allowed_gap(rows, grade, pressure, section)
        if allowed is not None and worst_gap <= allowed + 1e-9:
            return grade
    return None


def _rows(limits: Iterable[ExtrusionLimit], hardness: int, section: float) -> list[ExtrusionLimit]:
    """The rows of the next lower hardness for a section."""
    rows = list(limits)
    grades = [row.hardness for row in rows if row.hardness <= hardness]
    if not grades:
        return []
    grade = max(grades)
    return [row for row in rows if row.hardness == grade and row.section_over < section <= row.section_up_to]
