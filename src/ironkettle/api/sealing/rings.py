"""Which O-ring is it: POST /api/rings/match."""

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
    SizeName,
    SizeOut,
    findings_out,
    size_out,
)
from ironkettle.api.sealing.grooves import GlandCheckOut, GrooveBody, check_out
from ironkettle.core.base.errors import fault
from ironkettle.core.base.quantities import read_length
from ironkettle.core.sealing.grooves import Gland, check_rings, sift_rings
from ironkettle.core.sealing.rings import (
    ACROSS,
    SERIES,
    Condition,
    Further,
    GrooveEvidence,
    Match,
    Measurement,
    Read,
    match_ring,
)
from ironkettle.core.shop.settings import ShopSettings
from ironkettle.reference import ring_table
from ironkettle.store.shop.tables import gland_tables

router = APIRouter(prefix="/api/rings", tags=["rings"], responses=ERROR_RESPONSES)

SeriesName = Literal["AS568", "ISO 3601", "JIS B 2401", "metric"]
FurtherRead = Literal[
    "inside_diameter",
    "outside_diameter",
    "inside_circumference",
    "cut_length",
    "cone_diameter",
    "section",
    "groove_diameter",
    "groove_width",
]


class FurtherBody(Body):
    """One reading more, taken to settle the matter; finer than the first unless said otherwise."""

    what: FurtherRead
    value: LengthText
    uncertainty: LengthText | None = Field(default=None, examples=["0.01 mm"])


class RingReadBody(Body):
    """``inside_diameter`` or, in its place, one of the other readings across the ring."""

    inside_diameter: LengthText | None = Field(default=None, examples=["24.9 mm"])
    outside_diameter: LengthText | None = Field(default=None, examples=["32.1 mm"])
    inside_circumference: LengthText | None = Field(default=None, examples=["314 mm"])
    cut_length: LengthText | None = Field(default=None, examples=["325 mm"])
    cone_diameter: LengthText | None = Field(default=None, examples=["24.9 mm"])
    section: LengthText = Field(examples=["3.5 mm"])
    section_crossed: LengthText | None = None
    condition: Condition = Condition.NEW
    conditions: list[Condition] = Field(
        default_factory=list,
        max_length=4,
        description="every condition that applies; the first is the main one",
    )
    hardness_shore_a: int | None = Field(
        default=None, ge=30, le=98, description="of its rubber: what a caliper squeezes"
    )
    uncertainty: LengthText | None = Field(default=None, examples=["0.05 mm"])
    further: list[FurtherBody] = Field(default_factory=list, max_length=8)
    series: list[SeriesName] | None = None
    limit: int = Field(default=10, ge=1, le=50)

    def measurement(self, default_uncertainty: float) -> Measurement:
        """The reading for the core. Raises RuleError with every fault."""
        read = Collector()
        section = read.get(read_length, self.section, "section", low=0.2, high=50.0)
        crossed = read.get(read_length, self.section_crossed, "section_crossed", low=0.2, high=50.0)
        uncertainty = read.get(read_length, self.uncertainty, "uncertainty", high=10.0)
        given = [way for way in ACROSS if getattr(self, way) is not None]
        values = {way: read.get(read_length, getattr(self, way), way, low=0.3, high=8000.0) for way in given}
        others = tuple(way.value for way in ACROSS)
        read.require(bool(given), Read.INSIDE.value, "is needed, or another reading across the ring", *others)
        if len(given) > 1:
            text = f"only one reading across the ring; {given[0]} is given too: put it under further"
            read.require(False, given[1].value, text)
        further = [self._further(read, place, reading) for place, reading in enumerate(self.further)]
        read.done()
        across = given[0]
        if across is Read.OUTSIDE and values[across] <= 2 * section:
            text = f"{self.outside_diameter} leaves no hole with a section of {self.section}"
            raise fault(across, text, f"above {2 * section:g} mm")
        return Measurement(
            diameter=values[across],
            section=section,
            condition=self.conditions[0] if self.conditions else self.condition,
            as_well=tuple(
                dict.fromkeys(condition for condition in self.conditions[1:] if condition is not self.conditions[0])
            ),
            hardness_shore_a=self.hardness_shore_a,
            section_crossed=crossed,
            uncertainty=uncertainty,
            across=across,
            default_uncertainty=default_uncertainty,
            further=tuple(further),
        )

    @staticmethod
    def _further(read: Collector, place: int, further: FurtherBody) -> Further:
        value = read.get(read_length, further.value, f"further.{place}.value", low=0.2, high=8000.0)
        uncertainty = read.get(read_length, further.uncertainty, f"further.{place}.uncertainty", high=10.0)
        return Further(Read(further.what), value, uncertainty)


class RingMatchBody(RingReadBody):
    """A reading, and the groove it belongs in where that is known."""

    groove: GrooveBody | None = None


class CandidateOut(SizeOut):
    probability: float
    fits_groove: bool | None
    reasons: list[str]
    also: list[SizeName]
    groove: GlandCheckOut | None


class NextMeasurementOut(BaseModel):
    """``read`` names the dimension as ``further`` takes it; ``expected`` the probability to come."""

    read: str
    what: str
    why: str
    resolution_mm: float
    expected: float


class ReadsAsOut(SizeOut):
    """What the old ring reads as, the groove left out."""

    probability: float
    fits_groove: bool | None


class RingMatchOut(BaseModel):
    """``known``: some size is near the readings. ``fitting``: the sizes that fit the groove best, whatever came out."""

    candidates: list[CandidateOut]
    decided: bool
    known: bool
    findings: list[FindingOut]
    next_measurement: NextMeasurementOut | None
    reads_as: ReadsAsOut
    fitting: list[SizeOut]
    sizes_considered: int
    measured_section_mm: float


@router.post("/match", summary="Which O-ring is it")
def match(body: RingMatchBody, settings: SettingsInForce) -> RingMatchOut:
    return match_out(body, settings)


def match_out(body: RingMatchBody, settings: ShopSettings) -> RingMatchOut:
    """The answer to a match, for this endpoint and for the puzzles."""
    return match_in(body.groove.gland("groove.") if body.groove else None, body, settings)


def match_in(gland: Gland | None, body: RingReadBody, settings: ShopSettings) -> RingMatchOut:
    """The answer to a match in a groove that is known already."""
    measurement = body.measurement(settings.uncertainty)
    table = ring_table() if body.series is None else ring_table().of_series(body.series)
    if not table.sizes:
        raise fault("series", "name at least one series", *SERIES)
    evidence = None
    if gland is not None:
        sifted = sift_rings(gland, table, settings.limits)
        evidence = GrooveEvidence(sifted.misfit, sifted.discomfort, sifted.reasons)
    found = match_ring(measurement, table, groove=evidence, prior=settings.prior, limit=body.limit)
    checks: list[GlandCheckOut | None] = [None] * len(found.candidates)
    if gland is not None:
        sizes = [candidate.size for candidate in found.candidates]
        checks = [check_out(check) for check in check_rings(gland, sizes, gland_tables(settings))]
    return _answer(found, checks, len(table.sizes), measurement)


def _answer(
    found: Match, checks: list[GlandCheckOut | None], considered: int, measurement: Measurement
) -> RingMatchOut:
    advice = found.next_measurement
    return RingMatchOut(
        candidates=[
            CandidateOut(
                **size_out(candidate.size),
                probability=candidate.probability,
                fits_groove=candidate.fits_groove,
                reasons=list(candidate.reasons),
                also=[SizeName.of(other) for other in candidate.also],
                groove=check,
            )
            for candidate, check in zip(found.candidates, checks, strict=True)
        ],
        decided=found.decided,
        known=found.known,
        findings=findings_out(found.findings),
        next_measurement=advice
        and NextMeasurementOut(
            read=advice.read,
            what=advice.what,
            why=advice.why,
            resolution_mm=advice.resolution_mm,
            expected=advice.expected,
        ),
        reads_as=ReadsAsOut(
            **size_out(found.reads_as.size),
            probability=found.reads_as.probability,
            fits_groove=found.reads_as.fits_groove,
        ),
        fitting=[SizeOut(**size_out(size)) for size in found.fitting],
        sizes_considered=considered,
        measured_section_mm=measurement.round_section,
    )
