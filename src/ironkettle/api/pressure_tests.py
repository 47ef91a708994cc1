"""POST /api/tests/plan, /api/tests/analyse and /api/tests/read-csv."""

from __future__ import annotations

from typing import Literal

from fastapi import APIRouter
from pydantic import BaseModel, Field

from ironkettle.api.problems import ERROR_RESPONSES
from ironkettle.api.schemas import Body, Collector, FindingOut, Finite, NameText, QuantityText, findings_out
from ironkettle.core.errors import fault
from ironkettle.core.pressure import (
    STANDARD_PRESSURE_MPA,
    Analysis,
    Gauge,
    Sample,
    TestVolume,
    analyse_hold,
    find_fluid,
    plan_hold,
    read_trace,
)
from ironkettle.core.quantities import (
    Dimension,
    find_unit,
    read_flow,
    read_gauge_pressure,
    read_quantity,
    read_volume,
    to_base,
)
from ironkettle.reference import fluids

router = APIRouter(prefix="/api/tests", tags=["tests"], responses=ERROR_RESPONSES)


class LimitBody(Body):
    leak_rate: QuantityText = Field(examples=["0.5 ml/min"])


class GaugeBody(Body):
    range: QuantityText
    resolution: QuantityText
    accuracy_pct: Finite = Field(gt=0, le=20)


class HoldBody(Body):
    kind: Literal["pressure_hold"] = "pressure_hold"
    medium: NameText
    bulk_modulus_gpa: Finite | None = Field(default=None, gt=0, le=10)
    volume: QuantityText
    limit: LimitBody
    gauge: GaugeBody
    pressure_unit: NameText = "bar"
    reference: Literal["gauge", "absolute"] = "gauge"
    atmosphere: QuantityText = "1013.25 hPa"


class PlanBody(HoldBody):
    pressure: QuantityText = Field(examples=["200 bar"])


class SampleBody(Body):
    t_s: Finite = Field(ge=0, le=1e7)
    pressure: Finite = Field(ge=-1e7, le=1e7)
    temperature_c: Finite | None = Field(default=None, ge=-100, le=300)


class AnalyseBody(HoldBody):
    samples: list[SampleBody] = Field(max_length=200_000)


class PlanOut(BaseModel):
    hold_needed_s: float
    detectable_leak_ml_min: float
    stored_energy_j: float
    steps: list[str]
    findings: list[FindingOut]


class AnalysisOut(BaseModel):
    """``hold_needed_s``: how much longer to hold when undecided."""

    leak_rate_ml_min: float
    ci95_ml_min: tuple[float, float]
    temperature_corrected: bool
    settled_from_s: float
    hold_s: float
    verdict: Literal["pass", "fail", "undecided"]
    hold_needed_s: float | None
    stored_energy_j: float
    findings: list[FindingOut]

    @classmethod
    def of(cls, analysis: Analysis) -> AnalysisOut:
        return cls(
            leak_rate_ml_min=analysis.leak_rate,
            ci95_ml_min=analysis.interval,
            temperature_corrected=analysis.temperature_corrected,
            settled_from_s=analysis.settled_from,
            hold_s=analysis.hold,
            verdict=analysis.verdict,
            hold_needed_s=analysis.hold_needed,
            stored_energy_j=analysis.stored_energy,
            findings=findings_out(analysis.findings),
        )


class TraceBody(Body):
    text: str = Field(max_length=8_000_000)


class TraceSampleOut(BaseModel):
    t_s: float
    pressure_mpa: float
    temperature_c: float | None


class TraceOut(BaseModel):
    samples: list[TraceSampleOut]


@router.post("/plan", summary="How long this gauge must hold on this volume")
def plan(body: PlanBody) -> PlanOut:
    volume, gauge, limit = _setup(body)
    result = plan_hold(read_gauge_pressure(body.pressure, "pressure", low=1e-6), volume, gauge, limit)
    return PlanOut(
        hold_needed_s=result.hold_needed,
        detectable_leak_ml_min=result.detectable_leak,
        stored_energy_j=result.stored_energy,
        steps=list(result.steps),
        findings=findings_out(result.findings),
    )


@router.post("/analyse", summary="Leak rate, interval and verdict of a hold")
def analyse(body: AnalyseBody) -> AnalysisOut:
    volume, gauge, limit = _setup(body)
    unit = find_unit(body.pressure_unit)
    if unit is None or unit.dimension is not Dimension.PRESSURE:
        raise fault("pressure_unit", f"“{body.pressure_unit}” is not a pressure unit", "bar", "psi", "MPa", "kPa")
    if unit.absolute != (body.reference == "absolute") and unit.absolute:
        raise fault("reference", f"{body.pressure_unit} is absolute, but the reference says gauge", "absolute")
    shift = 0.0
    if volume.absolute and not volume.fluid.gas:
        shift = volume.atmosphere  # a liquid's decay only needs differences; keep gauge figures inside
    samples = tuple(Sample(s.t_s, to_base(s.pressure, unit) - shift, s.temperature_c) for s in body.samples)
    return AnalysisOut.of(analyse_hold(samples, volume, gauge, limit))


@router.post("/read-csv", summary="Samples from a CSV file, every fault named by line")
def read_csv(body: TraceBody) -> TraceOut:
    return TraceOut(
        samples=[
            TraceSampleOut(t_s=s.t, pressure_mpa=s.pressure, temperature_c=s.temperature) for s in read_trace(body.text)
        ]
    )


def _setup(body: HoldBody) -> tuple[TestVolume, Gauge, float]:
    read = Collector()
    volume = read.get(read_volume, body.volume, "volume")
    limit = read.get(read_flow, body.limit.leak_rate, "limit.leak_rate")
    span = read.get(read_gauge_pressure, body.gauge.range, "gauge.range", low=1e-9)
    resolution = read.get(read_gauge_pressure, body.gauge.resolution, "gauge.resolution", low=1e-9)
    atmosphere = read.get(_atmosphere, body.atmosphere, "atmosphere")
    fluid = read.get(lambda text, field: find_fluid(text, fluids(), field), body.medium, "medium")
    read.done()
    test_volume = TestVolume(
        volume, fluid, body.bulk_modulus_gpa, atmosphere or STANDARD_PRESSURE_MPA, body.reference == "absolute"
    )
    return test_volume, Gauge(span, resolution, body.gauge.accuracy_pct), limit


def _atmosphere(text: str, field: str) -> float:
    value = read_quantity(text, Dimension.PRESSURE, field).value
    if not 0.03 <= value <= 0.12:
        raise fault(field, f"“{text}” is not the pressure of the air", "1013 hPa", "300 to 1200 hPa")
    return value
