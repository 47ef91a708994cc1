"""Seals that are not O-rings: matched by housing, stacked in a box, pressed into a bore."""

from __future__ import annotations

from typing import Literal

from fastapi import APIRouter
from pydantic import BaseModel, Field

from ironkettle.api.base.deps import DbSession
from ironkettle.api.base.identity import MaybeCaller
from ironkettle.api.base.problems import ERROR_RESPONSES
from ironkettle.api.base.schemas import Body, Collector, FindingOut, LengthText, findings_out
from ironkettle.core.base.quantities import read_length, read_toleranced_length
from ironkettle.core.base.text import Figure
from ironkettle.core.sealing.seals import (
    Cladding,
    Housing,
    PackingBox,
    SealCandidate,
    SealKind,
    SealSide,
    check_press_fit,
    match_seal,
    plan_packing,
)
from ironkettle.reference import seal_sizes
from ironkettle.store.shop.stock import seals_in_stock

router = APIRouter(prefix="/api/seals", tags=["seals"], responses=ERROR_RESPONSES)


class HousingBody(Body):
    """``surface`` is the rod or bore the seal runs on; ``tolerance`` how far a size may lie off."""

    kind: SealKind
    side: SealSide
    surface: LengthText = Field(examples=["28 mm"])
    groove: LengthText = Field(examples=["38 mm"])
    length: LengthText = Field(examples=["6.3 mm"])
    tolerance: LengthText = Field(default="0.15 mm", examples=["0.15 mm"])

    def housing(self) -> Housing:
        """The housing for the core. Raises RuleError with every fault."""
        read = Collector()
        surface = read.get(read_length, self.surface, "surface", low=1.0)
        groove = read.get(read_length, self.groove, "groove", low=1.0)
        length = read.get(read_length, self.length, "length", low=0.2)
        tolerance = read.get(read_length, self.tolerance, "tolerance", high=5.0)
        if surface is not None and groove is not None:
            larger = self.side is SealSide.ROD
            words = "larger than the rod" if larger else "smaller than the bore"
            read.require(groove > surface if larger else groove < surface, "groove", f"must be {words}")
        read.done()
        return Housing(self.kind, self.side, surface, groove, length, tolerance)


class SealCandidateOut(BaseModel):
    """A size against the housing; ``…_off_mm`` is housing minus size; ``changes`` what would have to change."""

    name: str
    surface_mm: float
    groove_mm: float
    length_mm: float
    source: str
    in_stock: int | None
    surface_off_mm: float
    groove_off_mm: float
    length_off_mm: float
    changes: list[str]

    @classmethod
    def of(cls, candidate: SealCandidate) -> SealCandidateOut:
        size = candidate.size
        return cls(
            name=size.name,
            surface_mm=size.surface,
            groove_mm=size.groove,
            length_mm=size.length,
            source=size.source,
            in_stock=size.in_stock,
            surface_off_mm=candidate.surface_off,
            groove_off_mm=candidate.groove_off,
            length_off_mm=candidate.length_off,
            changes=list(candidate.changes),
        )


class SealMatchOut(BaseModel):
    fits: list[SealCandidateOut]
    smaller: list[SealCandidateOut]
    larger: list[SealCandidateOut]


@router.post("/match", summary="Which seal fits this housing")
def match(body: HousingBody, session: DbSession, caller: MaybeCaller) -> SealMatchOut:
    # The calculation is open to everybody; what lies in the drawers is the shop's.
    stock = seals_in_stock(session) if caller else []
    found = match_seal(body.housing(), [*stock, *seal_sizes()])
    return SealMatchOut(
        fits=[SealCandidateOut.of(fit) for fit in found.fits],
        smaller=[SealCandidateOut.of(candidate) for candidate in found.smaller],
        larger=[SealCandidateOut.of(candidate) for candidate in found.larger],
    )


class PackingBody(Body):
    bore: LengthText = Field(examples=["45 mm"])
    rod: LengthText = Field(examples=["30 mm"])
    depth: LengthText = Field(examples=["40 mm"])
    ring_height: LengthText = Field(examples=["5 mm"])
    header: LengthText | None = Field(default=None, examples=["6 mm"])
    follower: LengthText | None = Field(default=None, examples=["6 mm"])
    nut_reach: LengthText | None = Field(default=None, examples=["4 mm"])
    lead: LengthText | None = Field(default=None, description="travel of the gland nut in one turn")
    compression_pct: Figure = Field(default=5, ge=0, le=30)


class PackingOut(BaseModel):
    """``turns`` of the nut from first contact, when its lead is given."""

    section_mm: float
    rings: int
    stack_mm: float
    compression_mm: float
    turns: float | None
    findings: list[FindingOut]


@router.post("/packing", summary="A V-packing set in its box")
def packing(body: PackingBody) -> PackingOut:
    read = Collector()
    must = {name: read.get(read_length, getattr(body, name), name) for name in ("bore", "rod", "depth", "ring_height")}
    may = {
        name: read.get(read_length, getattr(body, name), name) or 0.0 for name in ("header", "follower", "nut_reach")
    }
    lead = read.get(read_length, body.lead, "lead", high=50.0)
    read.done()
    plan = plan_packing(PackingBox(**must, **may, lead=lead, compression_pct=body.compression_pct))
    return PackingOut(
        section_mm=plan.section,
        rings=plan.rings,
        stack_mm=plan.stack,
        compression_mm=plan.compression,
        turns=plan.turns,
        findings=findings_out(plan.findings),
    )


class PressFitBody(Body):
    """``outside_diameter`` of the seal as measured; without it the usual allowance on the bore is taken."""

    bore: LengthText = Field(examples=["42 mm +0.039/-0"])
    outside_diameter: LengthText | None = Field(default=None, examples=["42.13 mm"])
    width: LengthText = Field(examples=["7 mm"])
    depth: LengthText = Field(examples=["7 mm"])
    cladding: Cladding = Cladding.METAL


class PressFitOut(BaseModel):
    interference_low_mm: float
    interference_mm: float
    interference_high_mm: float
    wanted_low_mm: float
    wanted_high_mm: float
    verdict: Literal["good", "caution", "reject"]
    findings: list[FindingOut]


@router.post("/press-fit", summary="A pressed-in wiper or shaft seal and its interference")
def press_fit(body: PressFitBody) -> PressFitOut:
    read = Collector()
    bore = read.get(read_toleranced_length, body.bore, "bore", low=3.0)
    outside = read.get(read_toleranced_length, body.outside_diameter, "outside_diameter", low=3.0)
    width = read.get(read_length, body.width, "width")
    depth = read.get(read_length, body.depth, "depth")
    read.done()
    fit = check_press_fit(outside, bore, width, depth, body.cladding)
    return PressFitOut(
        interference_low_mm=fit.low,
        interference_mm=fit.nominal,
        interference_high_mm=fit.high,
        wanted_low_mm=fit.wanted_low,
        wanted_high_mm=fit.wanted_high,
        verdict=fit.verdict,
        findings=findings_out(fit.findings),
    )
