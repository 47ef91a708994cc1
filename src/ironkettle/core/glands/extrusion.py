"""The gap beside the groove: how much a ring stands without a backup ring."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from ironkettle.core.glands.model import ExtrusionLimit, Gland

BASIS = "extrusion gap table by hardness, pressure and section (handbook guidance, static, to 80 °C)"


@dataclass(frozen=True, slots=True)
class Gap:
    """Radial gap [mm]: parts concentric, pushed to one side, and allowed (None: off the table)."""

    concentric: float
    worst: float
    allowed: float | None

    @property
    def needs_backup(self) -> bool:
        return self.allowed is None or self.worst > self.allowed + 1e-9


def allowed_gap(limits: Iterable[ExtrusionLimit], hardness: int, pressure: float, section: float) -> float | None:
    """Largest radial gap a ring stands unbacked, or None when the table says: use a backup. [mm]

    The row of the next lower hardness and the next higher pressure is taken, never interpolated.

    Parameters: hardness in Shore A, pressure in MPa gauge, section in mm.
    Source: reference/tables/extrusion_gap_mm.csv.
    """
    rows = list(limits)
    grades = [row.hardness for row in rows if row.hardness <= hardness]
    if not grades:
        return None
    grade = max(grades)
    fitting = [
        row
        for row in rows
        if row.hardness == grade
        and row.pressure_max >= pressure - 1e-9
        and row.section_over < section <= row.section_up_to
    ]
    return min(fitting, key=lambda row: row.pressure_max).gap_max if fitting else None


def gap_of(gland: Gland, limits: Iterable[ExtrusionLimit], section: float) -> Gap | None:
    """The gap of a gland against the table; None when clearance or pressure is not known. [mm]

    Concentric is half the diametral clearance; worst is the whole of it on one side, at its largest.
    """
    if gland.diametral_clearance is None or gland.pressure is None:
        return None
    clearance = gland.diametral_clearance
    return Gap(
        concentric=clearance.nominal / 2,
        worst=clearance.high,
        allowed=allowed_gap(limits, gland.hardness_shore_a, gland.pressure, section),
    )
