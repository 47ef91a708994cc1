"""POST /api/glands/check and /api/glands/rings."""

from __future__ import annotations

from dataclasses import replace
from functools import cache
from typing import Literal

from fastapi import APIRouter
from pydantic import BaseModel, Field

from ironkettle.api.problems import ERROR_RESPONSES
from ironkettle.api.schemas import Body, Collector, FindingOut, Finite, NameText, QuantityText, SpanOut, findings_out
from ironkettle.core.glands import (
    Gland,
    GlandCheck,
    GlandTables,
    Medium,
    Motion,
    PressureDirection,
    Seat,
    check_gland,
    search_rings,
)
from ironkettle.core.quantities import read_gauge_pressure, read_temperature, read_toleranced_length
from ironkettle.core.rings import RingSize
from ironkettle.reference import extrusion_limits, gland_rows, ring_table

router = APIRouter(prefix="/api/glands", tags=["glands"], responses=ERROR_RESPONSES)


class RingNamed(Body):
    series: NameText = Field(examples=["AS568"])
    designation: NameText = Field(examples=["214"])


class RingMeasured(Body):
    inside_diameter: QuantityText
    section: QuantityText


class GrooveBody(Body):
    """A groove; what the seat needs is checked."""

    seat: Seat
    motion: Motion = Motion.STATIC
    medium: Medium = Medium.LIQUID
    bore: QuantityText | None = None
    rod: QuantityText | None = None
    groove_diameter: QuantityText
    groove_depth: QuantityText | None = None
    groove_width: QuantityText
    diametral_clearance: QuantityText | None = None
    pressure: QuantityText | None = Field(default=None, examples=["16 MPa"])
    pressure_direction: PressureDirection = PressureDirection.ONE_SIDE
    hardness_shore_a: int = Field(default=70, ge=40, le=98)
    material: NameText = "NBR"
    temperature: QuantityText = Field(default="20 °C", examples=["20 °C"])
    swell_pct: Finite = Field(default=0, ge=-20, le=100)
    backup_rings_fitted: int = Field(default=0, ge=0, le=2)

    def gland(self, prefix: str = "") -> Gland:
        """The gland for the core. Raises RuleError with every fault."""
        read = Collector()

        lengths = {
            name: read.get(read_toleranced_length, getattr(self, name), f"{prefix}{name}")
            for name in ("bore", "rod", "groove_diameter", "groove_depth", "groove_width")
        }
        clearance = read.get(read_toleranced_length, self.diametral_clearance, f"{prefix}diametral_clearance")
        pressure = read.get(read_gauge_pressure, self.pressure, f"{prefix}pressure")
        temperature = read.get(read_temperature, self.temperature, f"{prefix}temperature")
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
            **lengths,
        )


class GlandCheckBody(GrooveBody):
    ring: RingNamed | RingMeasured


class GapOut(BaseModel):
    concentric: float | None
    worst: float | None
    allowed: float | None


class BackupOut(BaseModel):
    needed: bool
    count: int
    sides: list[str]
    designation: str | None
    groove_width_needed_mm: float | None


class BandOut(BaseModel):
    low: float
    high: float


class LimitsOut(BaseModel):
    """The limits the figures were held against. [%]"""

    squeeze_pct: BandOut
    stretch_pct: BandOut
    fill_nominal_max_pct: float
    fill_worst_max_pct: float


class GlandCheckOut(BaseModel):
    limits: LimitsOut
    depth_mm: float
    free_section_mm: float
    squeeze_pct: SpanOut
    stretch_pct: SpanOut
    fill_pct: SpanOut
    installed_section_mm: SpanOut
    radial_gap_mm: GapOut
    backup: BackupOut
    verdict: Literal["good", "caution", "reject"]
    findings: list[FindingOut]


@cache
def gland_tables() -> GlandTables:
    return GlandTables(extrusion_limits(), gland_rows())


def check_out(check: GlandCheck) -> GlandCheckOut:
    gap = check.gap
    band, stretch = check.squeeze_band, check.limits.stretch
    return GlandCheckOut(
        limits=LimitsOut(
            squeeze_pct=BandOut(low=band.low, high=band.high),
            stretch_pct=BandOut(low=stretch.low, high=stretch.high),
            fill_nominal_max_pct=check.limits.fill_nominal_max,
            fill_worst_max_pct=check.limits.fill_worst_max,
        ),
        depth_mm=check.depth,
        free_section_mm=check.free_section,
        squeeze_pct=SpanOut.of(check.squeeze_pct),
        stretch_pct=SpanOut.of(check.stretch_pct),
        fill_pct=SpanOut.of(check.fill_pct),
        installed_section_mm=SpanOut.of(check.installed_section),
        radial_gap_mm=GapOut(concentric=gap and gap.concentric, worst=gap and gap.worst, allowed=gap and gap.allowed),
        backup=BackupOut(
            needed=check.backup.needed,
            count=check.backup.count,
            sides=list(check.backup.sides),
            designation=check.backup.designation,
            groove_width_needed_mm=check.backup.groove_width_needed,
        ),
        verdict=check.verdict,
        findings=findings_out(check.findings),
    )


@router.post("/check", summary="One ring in one groove")
def check(body: GlandCheckBody) -> GlandCheckOut:
    gland = body.gland()
    return check_out(check_gland(gland, _ring(body.ring), gland_tables()))


def _ring(named: RingNamed | RingMeasured) -> RingSize:
    if isinstance(named, RingNamed):
        return ring_table().find(named.series, named.designation)
    read = Collector()
    diameter = read.get(read_toleranced_length, named.inside_diameter, "ring.inside_diameter")
    section = read.get(read_toleranced_length, named.section, "ring.section")
    read.done()
    plain = RingSize("measured", "as measured", diameter.nominal, 0.0, section.nominal, 0.0, "measurement")
    return replace(
        plain,
        inside_tolerance=max(diameter.minus, diameter.plus),
        section_tolerance=max(section.minus, section.plus),
    )


class GrooveSearchBody(GrooveBody):
    limit: int = Field(default=10, ge=1, le=50)


class FitOut(BaseModel):
    series: str
    designation: str
    inside_diameter_mm: float
    section_mm: float
    source: str
    check: GlandCheckOut


class NearMissOut(BaseModel):
    series: str
    designation: str
    inside_diameter_mm: float
    section_mm: float
    reasons: list[str]


class GrooveSearchOut(BaseModel):
    """``rings``: sizes that fit, best first; ``near``: near sizes that do not, and why."""

    rings: list[FitOut]
    near: list[NearMissOut]


@router.post("/rings", summary="The sizes that fit a groove, best first")
def rings(body: GrooveSearchBody) -> GrooveSearchOut:
    found = search_rings(body.gland(), ring_table(), gland_tables(), limit=body.limit)
    return GrooveSearchOut(
        rings=[
            FitOut(
                series=fit.size.series,
                designation=fit.size.designation,
                inside_diameter_mm=fit.size.inside_diameter,
                section_mm=fit.size.section,
                source=f"{fit.size.source}: {fit.size.sure}",
                check=check_out(fit.check),
            )
            for fit in found.fits
        ],
        near=[
            NearMissOut(
                series=miss.size.series,
                designation=miss.size.designation,
                inside_diameter_mm=miss.size.inside_diameter,
                section_mm=miss.size.section,
                reasons=list(miss.reasons),
            )
            for miss in found.near
        ],
    )
