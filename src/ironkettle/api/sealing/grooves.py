"""POST /api/glands/check and /api/glands/rings."""

from __future__ import annotations

from typing import Literal

from fastapi import APIRouter
from pydantic import BaseModel, Field

from ironkettle.api.base.deps import SettingsInForce
from ironkettle.api.base.problems import ERROR_RESPONSES
from ironkettle.api.base.schemas import (
    Body,
    Collector,
    FindingOut,
    LengthText,
    NameText,
    PressureText,
    SizeName,
    SizeOut,
    SpanOut,
    TemperatureText,
    findings_out,
    size_out,
)
from ironkettle.core.base.housing import HousingMaterial
from ironkettle.core.base.quantities import (
    Toleranced,
    read_gauge_pressure,
    read_length,
    read_temperature,
    read_toleranced_length,
)
from ironkettle.core.base.text import Figure
from ironkettle.core.machine.pressure import STANDARD_PRESSURE_MPA
from ironkettle.core.sealing.grooves import (
    Gland,
    GlandCheck,
    GrooveProposal,
    GrooveWish,
    Medium,
    Motion,
    PressedFrom,
    PressureDirection,
    Seat,
    check_gland,
    design_groove,
    search_rings,
)
from ironkettle.core.sealing.rings import RingSize
from ironkettle.reference import ring_table
from ironkettle.store.shop.tables import gland_tables

router = APIRouter(prefix="/api/glands", tags=["grooves"], responses=ERROR_RESPONSES)


class RingNamed(Body):
    series: NameText = Field(examples=["AS568"])
    designation: NameText = Field(examples=["214"])


class RingMeasured(Body):
    inside_diameter: LengthText
    section: LengthText


class GrooveBody(Body):
    """A groove; what the seat needs is checked."""

    seat: Seat
    motion: Motion = Motion.STATIC
    medium: Medium = Medium.LIQUID
    bore: LengthText | None = None
    rod: LengthText | None = None
    groove_diameter: LengthText
    groove_depth: LengthText | None = None
    groove_width: LengthText
    diametral_clearance: LengthText | None = None
    pressure: PressureText | None = Field(default=None, examples=["16 MPa"])
    pressure_direction: PressureDirection = PressureDirection.ONE_SIDE
    hardness_shore_a: int = Field(default=70, ge=40, le=98)
    material: NameText = "NBR"
    temperature: TemperatureText = Field(default="20 °C", examples=["20 °C"])
    swell_pct: Figure = Field(default=0, ge=-20, le=100)
    backup_rings_fitted: int = Field(default=0, ge=0, le=2)
    wall: LengthText | None = Field(default=None, examples=["8 mm"])
    housing: HousingMaterial = HousingMaterial.STEEL
    pressed_from: PressedFrom = PressedFrom.INSIDE

    def gland(self, prefix: str = "") -> Gland:
        """The gland for the core. Raises RuleError with every fault."""
        read = Collector()

        lengths = {
            name: read.get(read_toleranced_length, getattr(self, name), f"{prefix}{name}")
            for name in ("bore", "rod", "groove_diameter", "groove_depth", "groove_width")
        }
        clearance = read.get(_clearance, self.diametral_clearance, f"{prefix}diametral_clearance")
        pressure = read.get(_pressure, self.pressure, f"{prefix}pressure")
        temperature = read.get(read_temperature, self.temperature, f"{prefix}temperature")
        wall = read.get(read_length, self.wall, f"{prefix}wall")
        read.done()
        return Gland(
            seat=self.seat,
            motion=self.motion,
            medium=self.medium,
            diametral_clearance=clearance,
            pressure=pressure,
            pressure_direction=self.pressure_direction,
            hardness_shore_a=self.hardness_shore_a,
            material=self.material,
            temperature=temperature,
            swell_pct=self.swell_pct,
            backup_rings_fitted=self.backup_rings_fitted,
            wall=wall,
            housing=self.housing,
            pressed_from=self.pressed_from,
            **lengths,
        )


def _clearance(text: str, field: str) -> Toleranced:
    """None at all, 0 mm, is a clearance too: faces that meet metal to metal."""
    return read_toleranced_length(text, field, low=-1e-12)


def _pressure(text: str, field: str) -> float:
    """Gauge pressure; below 0 a vacuum. [MPa]"""
    return read_gauge_pressure(text, field, low=-STANDARD_PRESSURE_MPA)


class GlandCheckBody(GrooveBody):
    ring: RingNamed | RingMeasured


class GapOut(BaseModel):
    """Radial gap; ``growth`` is the housing's under pressure, ``safe_…`` what this gap stands."""

    concentric: float | None
    worst: float | None
    allowed: float | None
    growth: float | None
    safe_without_backup_mpa: float | None
    safe_with_backup_mpa: float | None


class BackupOut(BaseModel):
    needed: bool
    count: int
    sides: list[str]
    designation: str | None
    groove_width_needed_mm: float | None
    kind: str | None
    why_kind: str | None


class BandOut(BaseModel):
    low: float
    high: float


class LimitsOut(BaseModel):
    """The limits the figures were held against [%] and where they come from."""

    squeeze_pct: BandOut
    stretch_pct: BandOut
    fill_nominal_max_pct: float
    fill_worst_max_pct: float
    basis: str


class GlandCheckOut(BaseModel):
    limits: LimitsOut
    vacuum: bool
    depth_mm: float
    width_mm: float
    seat_diameter_mm: float
    free_section_mm: float
    free_inside_diameter_mm: float
    squeeze_pct: SpanOut
    stretch_pct: SpanOut
    fill_pct: SpanOut
    installed_section_mm: SpanOut
    radial_gap_mm: GapOut
    backup: BackupOut
    verdict: Literal["good", "caution", "reject"]
    findings: list[FindingOut]


def check_out(check: GlandCheck) -> GlandCheckOut:
    gap, backup, limits = check.gap, check.backup, check.limits
    return GlandCheckOut(
        limits=LimitsOut(
            squeeze_pct=BandOut(low=check.squeeze_band.low, high=check.squeeze_band.high),
            stretch_pct=BandOut(low=check.stretch_band.low, high=check.stretch_band.high),
            fill_nominal_max_pct=limits.fill_nominal_max,
            fill_worst_max_pct=limits.fill_worst_max,
            basis=limits.basis,
        ),
        vacuum=check.vacuum,
        depth_mm=check.depth,
        width_mm=check.width,
        seat_diameter_mm=check.seat_diameter,
        free_section_mm=check.free_section,
        free_inside_diameter_mm=check.free_inside_diameter,
        squeeze_pct=SpanOut.of(check.squeeze_pct),
        stretch_pct=SpanOut.of(check.stretch_pct),
        fill_pct=SpanOut.of(check.fill_pct),
        installed_section_mm=SpanOut.of(check.installed_section),
        radial_gap_mm=GapOut(
            concentric=gap and gap.concentric,
            worst=gap and gap.worst,
            allowed=gap and gap.allowed,
            growth=gap and gap.growth,
            safe_without_backup_mpa=gap and gap.safe_bare,
            safe_with_backup_mpa=gap and gap.safe_backed,
        ),
        backup=BackupOut(
            needed=backup.needed,
            count=backup.count,
            sides=list(backup.sides),
            designation=backup.designation,
            groove_width_needed_mm=backup.groove_width_needed,
            kind=backup.kind,
            why_kind=backup.why_kind,
        ),
        verdict=check.verdict,
        findings=findings_out(check.findings),
    )


@router.post("/check", summary="One ring in one groove")
def check(body: GlandCheckBody, settings: SettingsInForce) -> GlandCheckOut:
    gland = body.gland()
    return check_out(check_gland(gland, ring_of(body.ring), gland_tables(settings)))


def ring_of(named: RingNamed | RingMeasured, field: str = "ring") -> RingSize:
    """The ring a body names or measured. Raises RuleError naming the field."""
    if isinstance(named, RingNamed):
        return ring_table().find(named.series, named.designation, field)
    read = Collector()
    diameter = read.get(read_toleranced_length, named.inside_diameter, f"{field}.inside_diameter")
    section = read.get(read_toleranced_length, named.section, f"{field}.section")
    read.done()
    return RingSize(
        "measured",
        "as measured",
        diameter.middle,
        (diameter.high - diameter.low) / 2,
        section.middle,
        (section.high - section.low) / 2,
        "measurement",
    )


class GrooveSearchBody(GrooveBody):
    limit: int = Field(default=10, ge=1, le=50)


class FitOut(SizeOut):
    source: str
    check: GlandCheckOut
    also: list[SizeName]


class NearMissOut(SizeOut):
    reasons: list[str]


class GrooveSearchOut(BaseModel):
    """``rings``: sizes that fit, best first; ``near``: near sizes that do not, and why."""

    rings: list[FitOut]
    near: list[NearMissOut]


@router.post("/rings", summary="The sizes that fit a groove, best first")
def rings(body: GrooveSearchBody, settings: SettingsInForce) -> GrooveSearchOut:
    found = search_rings(body.gland(), ring_table(), gland_tables(settings), limit=body.limit)
    return GrooveSearchOut(
        rings=[
            FitOut(
                **size_out(fit.size),
                source=f"{fit.size.source}: {fit.size.sure}",
                check=check_out(fit.check),
                also=[SizeName.of(other) for other in fit.also],
            )
            for fit in found.fits
        ],
        near=[NearMissOut(**size_out(miss.size), reasons=list(miss.reasons)) for miss in found.near],
    )


class GrooveDesignBody(Body):
    """What a new groove must do: ``across`` is the bore, the rod, or the outer wall of a face groove."""

    seat: Seat
    across: LengthText = Field(examples=["50 mm +0.039/-0"])
    motion: Motion = Motion.STATIC
    medium: Medium = Medium.LIQUID
    pressure: PressureText | None = Field(default=None, examples=["16 MPa"])
    pressure_direction: PressureDirection = PressureDirection.ONE_SIDE
    hardness_shore_a: int = Field(default=70, ge=40, le=98)
    material: NameText = "NBR"
    temperature: TemperatureText = Field(default="20 °C", examples=["20 °C"])
    diametral_clearance: LengthText | None = None
    limit: int = Field(default=4, ge=1, le=10)


class TolerancedOut(BaseModel):
    nominal: float
    minus: float
    plus: float

    @classmethod
    def of(cls, value: Toleranced | None) -> TolerancedOut | None:
        return None if value is None else cls(nominal=value.nominal, minus=value.minus, plus=value.plus)


class ProposalOut(BaseModel):
    """One way to cut the groove. ``assumed`` says what was not given and therefore supposed."""

    ring: SizeOut
    groove_diameter_mm: TolerancedOut | None
    groove_depth_mm: TolerancedOut | None
    groove_width_mm: TolerancedOut | None
    clearance_mm: TolerancedOut | None
    corner_radius_mm: BandOut
    backup_rings: int
    check: GlandCheckOut
    basis: str
    assumed: list[str]


class GrooveDesignOut(BaseModel):
    proposals: list[ProposalOut]


@router.post("/design", summary="New groove for a bore, rod or face")
def design(body: GrooveDesignBody, settings: SettingsInForce) -> GrooveDesignOut:
    read = Collector()
    across = read.get(read_toleranced_length, body.across, "across", low=1.0)
    pressure = read.get(read_gauge_pressure, body.pressure, "pressure")
    temperature = read.get(read_temperature, body.temperature, "temperature")
    clearance = read.get(read_toleranced_length, body.diametral_clearance, "diametral_clearance")
    read.done()
    wish = GrooveWish(
        seat=body.seat,
        across=across,
        motion=body.motion,
        medium=body.medium,
        pressure=pressure,
        pressure_direction=body.pressure_direction,
        hardness_shore_a=body.hardness_shore_a,
        material=body.material,
        temperature=temperature,
        diametral_clearance=clearance,
    )
    found = design_groove(wish, ring_table(), gland_tables(settings), limit=body.limit)
    return GrooveDesignOut(proposals=[_proposal(proposal) for proposal in found])


def _proposal(proposal: GrooveProposal) -> ProposalOut:
    face = proposal.gland.seat is Seat.FACE
    return ProposalOut(
        ring=SizeOut(**size_out(proposal.ring)),
        groove_diameter_mm=TolerancedOut.of(proposal.gland.groove_diameter),
        groove_depth_mm=TolerancedOut.of(proposal.gland.groove_depth) if face else None,
        groove_width_mm=TolerancedOut.of(proposal.gland.groove_width),
        clearance_mm=TolerancedOut.of(proposal.gland.diametral_clearance),
        corner_radius_mm=BandOut(low=proposal.corner_radius[0], high=proposal.corner_radius[1]),
        backup_rings=proposal.gland.backup_rings_fitted,
        check=check_out(proposal.check),
        basis=proposal.basis,
        assumed=list(proposal.assumed),
    )
