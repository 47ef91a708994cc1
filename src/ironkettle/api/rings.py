"""POST /api/rings/match."""

from __future__ import annotations

from typing import Literal

from fastapi import APIRouter
from pydantic import BaseModel, Field

from ironkettle.api.glands import GlandCheckOut, GrooveBody, check_out, gland_tables
from ironkettle.api.problems import ERROR_RESPONSES
from ironkettle.api.schemas import Body, Collector, QuantityText
from ironkettle.core.errors import fault
from ironkettle.core.glands import check_gland, fits_of
from ironkettle.core.quantities import read_length
from ironkettle.core.rings import DEFAULT_UNCERTAINTY_MM, SERIES, Condition, GrooveEvidence, Measurement, match_ring
from ironkettle.reference import ring_table

router = APIRouter(prefix="/api/rings", tags=["rings"], responses=ERROR_RESPONSES)

SeriesName = Literal["AS568", "ISO 3601", "JIS B 2401", "metric"]


class RingMatchBody(Body):
    inside_diameter: QuantityText = Field(examples=["24.9 mm"])
    section: QuantityText = Field(examples=["3.5 mm"])
    section_crossed: QuantityText | None = None
    condition: Condition = Condition.NEW
    uncertainty: QuantityText | None = Field(default=None, examples=["0.05 mm"])
    groove: GrooveBody | None = None
    series: list[SeriesName] | None = None
    limit: int = Field(default=10, ge=1, le=50)


class CandidateOut(BaseModel):
    series: str
    designation: str
    inside_diameter_mm: float
    inside_diameter_tolerance_mm: float
    section_mm: float
    section_tolerance_mm: float
    probability: float
    fits_groove: bool | None
    reasons: list[str]
    groove: GlandCheckOut | None


class NextMeasurementOut(BaseModel):
    what: str
    why: str
    resolution_mm: float


class RingMatchOut(BaseModel):
    candidates: list[CandidateOut]
    decided: bool
    next_measurement: NextMeasurementOut | None
    sizes_considered: int


@router.post("/match", summary="Which O-ring is it")
def match(body: RingMatchBody) -> RingMatchOut:
    read = Collector()
    inside = read.get(read_length, body.inside_diameter, "inside_diameter", low=0.3, high=2000.0)
    section = read.get(read_length, body.section, "section", low=0.2, high=50.0)
    crossed = read.get(read_length, body.section_crossed, "section_crossed", low=0.2, high=50.0)
    uncertainty = read.get(read_length, body.uncertainty, "uncertainty", high=10.0)
    read.done()
    gland = body.groove.gland("groove.") if body.groove else None
    table = ring_table() if body.series is None else ring_table().of_series(body.series)
    if not table.sizes:
        raise fault("series", "name at least one series", *SERIES)
    measurement = Measurement(inside, section, body.condition, crossed, uncertainty or DEFAULT_UNCERTAINTY_MM)
    evidence = None
    if gland is not None:
        evidence = GrooveEvidence(*fits_of(gland, table, gland_tables().limits))
    found = match_ring(measurement, table, groove=evidence, limit=body.limit)
    advice = found.next_measurement
    return RingMatchOut(
        candidates=[
            CandidateOut(
                series=candidate.size.series,
                designation=candidate.size.designation,
                inside_diameter_mm=round(candidate.size.inside_diameter, 4),
                inside_diameter_tolerance_mm=round(candidate.size.inside_tolerance, 4),
                section_mm=round(candidate.size.section, 4),
                section_tolerance_mm=round(candidate.size.section_tolerance, 4),
                probability=candidate.probability,
                fits_groove=candidate.fits_groove,
                reasons=list(candidate.reasons),
                groove=None if gland is None else check_out(check_gland(gland, candidate.size, gland_tables())),
            )
            for candidate in found.candidates
        ],
        decided=found.decided,
        next_measurement=advice
        and NextMeasurementOut(what=advice.what, why=advice.why, resolution_mm=advice.resolution_mm),
        sizes_considered=len(table.sizes),
    )
