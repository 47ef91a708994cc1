"""A gland as measured or drawn, and the limits a shop holds it against."""

from __future__ import annotations

from dataclasses import dataclass, field
from enum import StrEnum

from ironkettle.core.base.errors import FieldFault, RuleError
from ironkettle.core.base.housing import HousingMaterial
from ironkettle.core.base.quantities import Toleranced
from ironkettle.core.sealing.compounds import Compound


class Seat(StrEnum):
    PISTON = "piston"
    ROD = "rod"
    FACE = "face"


class Motion(StrEnum):
    STATIC = "static"
    RECIPROCATING = "reciprocating"
    ROTARY = "rotary"


class Medium(StrEnum):
    LIQUID = "liquid"
    GAS = "gas"


class PressedFrom(StrEnum):
    """Where the pressure on a face seal comes from: the ring rests on the wall opposite."""

    INSIDE = "inside"
    OUTSIDE = "outside"


class PressureDirection(StrEnum):
    ONE_SIDE = "one_side"
    BOTH_SIDES = "both_sides"


@dataclass(frozen=True, slots=True)
class Gland:
    """The seat of an O-ring. Lengths in mm with tolerance, pressure in MPa gauge (below 0: a vacuum), hardness Shore A.

    A piston seat needs ``bore``, a rod seat ``rod``, a face seat ``groove_depth``; all need
    ``groove_diameter`` (piston: groove bottom; rod: groove bottom in the housing; face: the wall the
    ring rests on, the outer one when ``pressed_from`` inside, the inner one when from outside or by a
    vacuum inside) and ``groove_width``. ``diametral_clearance`` [mm] is between the parts beside the groove.
    ``swell_pct`` is growth of volume. ``temperature`` is where the gland works [°C]. ``wall`` [mm] is
    the thickness of the housing around the clearance, ``housing`` its material: given, the growth of
    the housing under pressure counts in the gap.
    """

    seat: Seat
    groove_diameter: Toleranced
    groove_width: Toleranced
    motion: Motion = Motion.STATIC
    medium: Medium = Medium.LIQUID
    bore: Toleranced | None = None
    rod: Toleranced | None = None
    groove_depth: Toleranced | None = None
    diametral_clearance: Toleranced | None = None
    pressure: float | None = None
    pressure_direction: PressureDirection = PressureDirection.ONE_SIDE
    hardness_shore_a: int = 70
    material: str = "NBR"
    temperature: float = 20.0
    swell_pct: float = 0.0
    backup_rings_fitted: int = 0
    wall: float | None = None
    housing: HousingMaterial = HousingMaterial.STEEL
    pressed_from: PressedFrom = PressedFrom.INSIDE

    def __post_init__(self) -> None:
        needed = {Seat.PISTON: "bore", Seat.ROD: "rod", Seat.FACE: "groove_depth"}[self.seat]
        if getattr(self, needed) is None:
            raise RuleError([FieldFault(needed, f"is needed for a {self.seat} seat", ("mm", "in"))])
        if self.seat is Seat.PISTON and self.bore is not None and self.bore.nominal <= self.groove_diameter.nominal:
            raise RuleError([FieldFault("groove_diameter", "must be smaller than the bore of a piston seat")])
        if self.seat is Seat.ROD and self.rod is not None and self.rod.nominal >= self.groove_diameter.nominal:
            raise RuleError([FieldFault("groove_diameter", "must be larger than the rod of a rod seat")])
        if self._least_depth() <= 0:
            place = "groove_depth" if self.seat is Seat.FACE else "groove_diameter"
            raise RuleError([FieldFault(place, "leaves no depth at all at the worst of the tolerances given")])

    def _least_depth(self) -> float:
        """Depth of the groove at the worst of the tolerances. [mm]"""
        if self.seat is Seat.PISTON and self.bore is not None:
            return (self.bore.low - self.groove_diameter.high) / 2
        if self.seat is Seat.ROD and self.rod is not None:
            return (self.groove_diameter.low - self.rod.high) / 2
        assert self.groove_depth is not None  # refused above
        return self.groove_depth.low

    @property
    def on_inner_wall(self) -> bool:
        """Whether a face ring is pressed onto the inner wall of its groove."""
        vacuum = self.pressure is not None and self.pressure < 0
        return self.seat is Seat.FACE and (vacuum or self.pressed_from is PressedFrom.OUTSIDE)

    @property
    def load(self) -> float | None:
        """The pressure across the ring, whichever way. [MPa]"""
        return None if self.pressure is None else abs(self.pressure)


@dataclass(frozen=True, slots=True)
class Span:
    """A figure over all tolerances: worst cases and nominal."""

    min: float
    nominal: float
    max: float


@dataclass(frozen=True, slots=True)
class Band:
    """Allowed range of a figure. [%]"""

    low: float
    high: float


@dataclass(frozen=True, slots=True)
class GrooveLimits:
    """The shop's limits in per cent; shipped values are the usual ones.

    ``backup_pressure_factor`` [-] is how much more pressure a backup ring stands than a 90 Shore A ring
    in the same gap: a shop estimate for PTFE.

    Source: common O-ring handbook guidance, held against the nominal unless said otherwise.
    """

    squeeze_static: Band = Band(10, 30)
    squeeze_reciprocating: Band = Band(8, 20)
    squeeze_pneumatic: Band = Band(6, 16)
    squeeze_rotary: Band = Band(0, 11)
    stretch: Band = Band(0, 5)
    fill_nominal_max: float = 85.0
    fill_worst_max: float = 100.0
    rod_ring_oversize_max: float = 3.0
    backup_pressure_factor: float = 3.0

    @property
    def basis(self) -> str:
        """Where the limits come from, for a finding."""
        if self == GrooveLimits():
            return "shop settings (usual handbook values; the maker's drawing wins)"
        return "shop settings (changed by this shop; the maker's drawing wins)"

    def squeeze(self, motion: Motion, medium: Medium) -> Band:
        if motion is Motion.STATIC:
            return self.squeeze_static
        if motion is Motion.ROTARY:
            return self.squeeze_rotary
        return self.squeeze_pneumatic if medium is Medium.GAS else self.squeeze_reciprocating


@dataclass(frozen=True, slots=True)
class ExtrusionLimit:
    """One row of the extrusion table: the largest radial gap without a backup ring. [Shore A, MPa, mm]"""

    hardness: int
    pressure_max: float
    section_over: float
    section_up_to: float
    gap_max: float


@dataclass(frozen=True, slots=True)
class GlandRow:
    """One row of the usual inch groove sizes. Section, depths and widths in mm, squeeze in per cent."""

    use: str
    section: float
    depth_min: float
    depth_max: float
    squeeze_min: float
    squeeze_max: float
    clearance_min: float
    clearance_max: float
    width_no_backup: float
    width_one_backup: float | None
    width_two_backups: float | None
    width_tolerance: float
    corner_radius_min: float
    corner_radius_max: float


@dataclass(frozen=True)
class GlandTables:
    """The tables the gland rules read."""

    extrusion: tuple[ExtrusionLimit, ...]
    grooves: tuple[GlandRow, ...]
    limits: GrooveLimits = field(default_factory=GrooveLimits)
    compounds: tuple[Compound, ...] = ()
