"""POST /api/tests/plan, /api/tests/analyse and /api/tests/read-csv."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import asdict
from functools import reduce
from operator import or_
from typing import Annotated, Any, Literal

from fastapi import APIRouter
from pydantic import BaseModel, Discriminator, Field, Tag

from ironkettle.api.base.deps import SettingsInForce
from ironkettle.api.base.problems import ERROR_RESPONSES
from ironkettle.api.base.schemas import (
    Body,
    Collector,
    FindingOut,
    FlowText,
    NameText,
    PressureText,
    VolumeText,
    findings_out,
)
from ironkettle.api.machine.tests import (
    ANALYSE_BODIES,
    PLAN_BODIES,
    TrialBody,
    TrialOut,
    TrialPlanOut,
    analyse_trial,
    plan_trial,
)
from ironkettle.core.base.errors import fault
from ironkettle.core.base.housing import HousingMaterial
from ironkettle.core.base.quantities import (
    Dimension,
    find_unit,
    read_flow,
    read_gauge_pressure,
    read_quantity,
    read_volume,
    to_base,
)
from ironkettle.core.base.text import Figure
from ironkettle.core.machine.pressure import (
    STANDARD_PRESSURE_MPA,
    Analysis,
    Compliance,
    Gauge,
    HoldPlan,
    HoldRules,
    Sample,
    TestVolume,
    TraceState,
    analyse_hold,
    check_samples,
    find_fluid,
    means_of,
    plan_hold,
    read_trace_part,
)
from ironkettle.core.shop.settings import ShopSettings
from ironkettle.reference import fluids

BAR_PER_MPA = 10.0

HOLD = "pressure_hold"
MOST_JUDGED_AT_ONCE = 10_000

router = APIRouter(prefix="/api/tests", tags=["tests"], responses=ERROR_RESPONSES)


class LimitBody(Body):
    leak_rate: FlowText = Field(examples=["0.5 ml/min"])


class GaugeBody(Body):
    range: PressureText
    resolution: PressureText
    accuracy_pct: Figure = Field(ge=0.01, le=20)
    stability_pct: Figure | None = Field(
        default=None,
        ge=0.001,
        le=20,
        description="how far it may drift or stick during a hold, in % of the reading, as stated by its maker [%]",
    )


class ComplianceBody(Body):
    """Measured in place: a known volume let out once at pressure, and the drop it made."""

    volume: VolumeText = Field(examples=["2.0 ml"])
    drop: PressureText = Field(examples=["31 bar"])


class HoldBody(Body):
    """What is under pressure and how well it is known.

    ``bulk_modulus_gpa`` is a statement with doubt, not the truth; ``compliance`` replaces it and the
    volume. ``let_down``: the pressure was let down to the wanted one instead of pumped up to it.
    """

    kind: Literal["pressure_hold"] = "pressure_hold"
    medium: NameText
    bulk_modulus_gpa: Figure | None = Field(default=None, ge=0.01, le=10)
    bulk_modulus_doubt_pct: Figure | None = Field(default=None, ge=0, le=90)
    volume: VolumeText
    volume_doubt_pct: Figure | None = Field(default=None, ge=0, le=50)
    compliance: ComplianceBody | None = None
    housing: HousingMaterial = HousingMaterial.STEEL
    limit: LimitBody
    gauge: GaugeBody
    pressure_unit: NameText = "bar"
    reference: Literal["gauge", "absolute"] = "gauge"
    atmosphere: PressureText = "1013.25 hPa"
    planned_hold_s: Figure | None = Field(default=None, ge=0, le=1e6)
    let_down: bool = False


class PlanBody(HoldBody):
    pressure: PressureText = Field(examples=["200 bar"])


class SampleBody(Body):
    t_s: Figure = Field(ge=0, le=1e7)
    pressure: Figure = Field(ge=-1e7, le=1e7)
    temperature_c: Figure | None = Field(default=None, ge=-100, le=300)


class AnalyseBody(HoldBody):
    """``pressure`` is the wanted test pressure: a trace that does not hold it cannot pass."""

    pressure: PressureText | None = Field(default=None, examples=["200 bar"])
    samples: list[SampleBody] = Field(max_length=200_000)


class PlanOut(BaseModel):
    """``longest_at_limit_s``: by then a leak at the limit has left the band under the test pressure.

    ``suited``: whether this gauge can judge this test at all, and ``why_not``: what keeps it from it and what could.
    """

    suited: bool
    why_not: str | None
    hold_needed_s: float
    longest_at_limit_s: float
    detectable_leak_ml_min: float
    stored_energy_j: float
    steps: list[str]
    findings: list[FindingOut]


class AnalysisOut(BaseModel):
    """``hold_needed_s``: how much longer to hold when undecided; none when holding alone will not decide it.

    Judged is the trace from ``settled_from_s`` for ``hold_s``, where ``held_low_bar`` to
    ``held_high_bar`` were held.
    """

    leak_rate_ml_min: float
    ci95_ml_min: tuple[float, float]
    temperature_corrected: bool
    settled_from_s: float
    hold_s: float
    held_low_bar: float
    held_high_bar: float
    verdict: Literal["pass", "fail", "undecided", "invalid"]
    hold_needed_s: float | None
    stored_energy_j: float
    findings: list[FindingOut]

    @classmethod
    def of(cls, analysis: Analysis) -> AnalysisOut:
        return cls(
            leak_rate_ml_min=analysis.leak_rate,
            ci95_ml_min=analysis.interval,
            temperature_corrected=analysis.temperature_corrected,
            settled_from_s=analysis.judged[0],
            hold_s=analysis.hold,
            held_low_bar=analysis.held_low * BAR_PER_MPA,
            held_high_bar=analysis.held_high * BAR_PER_MPA,
            verdict=analysis.verdict,
            hold_needed_s=analysis.hold_needed,
            stored_energy_j=analysis.stored_energy,
            findings=findings_out(analysis.findings),
        )


class TraceStateBody(Body):
    """Where the reading of a long file stands between two parts, as the answer to the part before told it."""

    header: str = Field(max_length=400)
    lines: int = Field(ge=1, le=2_000_000_000)
    last: Figure | None = None
    first_moment: Figure | None = None
    last_moment: Figure = 0.0
    days: Figure = 0.0


class TraceBody(Body):
    """A file, or a part of one in whole lines: the first part with the header, the others with ``state``.

    ``together``: means of so many rows are given, for a file with more rows than a run can hold.
    """

    text: str = Field(max_length=8_000_000)
    state: TraceStateBody | None = None
    together: int = 1


class TraceSampleOut(BaseModel):
    t_s: float
    pressure_mpa: float
    temperature_c: float | None


class TraceOut(BaseModel):
    """``rows`` that were read, and their lowest and highest pressure; ``state`` for the part that follows."""

    samples: list[TraceSampleOut]
    rows: int
    low_mpa: float | None
    high_mpa: float | None
    state: TraceStateBody


def _kind_of(body: Any) -> str:
    """Which body it is: a hold where no kind is told."""
    kind = body.get("kind", HOLD) if isinstance(body, dict) else getattr(body, "kind", HOLD)
    return str(kind)


def _one_of(hold: Any, others: dict[str, Any]) -> Any:
    bodies = {HOLD: hold, **others}
    union = reduce(or_, (Annotated[body, Tag(kind)] for kind, body in bodies.items()))
    return Annotated[union, Discriminator(_kind_of, custom_error_type="kind", custom_error_message=_kinds(bodies))]


def _kinds(bodies: Iterable[str]) -> str:
    return f"is not a kind of test; use one of {', '.join(bodies)}"


@router.post("/plan", summary="How a test is run; for a hold, how long this gauge must hold on this volume")
def plan(body: _one_of(PlanBody, PLAN_BODIES), settings: SettingsInForce) -> PlanOut | TrialPlanOut:  # type: ignore[valid-type]
    return plan_trial(body) if isinstance(body, TrialBody) else _plan_of_hold(body, settings)


def _plan_of_hold(body: PlanBody, settings: ShopSettings) -> PlanOut:
    volume, gauge, limit = _setup(body, settings.hold_rules)
    pressure = _wanted(body.pressure, body, volume)
    return hold_plan_out(plan_hold(pressure, volume, gauge, limit, settings.hold_rules))


def hold_plan_out(result: HoldPlan) -> PlanOut:
    """The plan of a hold as it is answered."""
    return PlanOut(
        suited=result.suited,
        why_not=result.why_not,
        hold_needed_s=result.hold_needed,
        longest_at_limit_s=result.longest_at_limit,
        detectable_leak_ml_min=result.detectable_leak,
        stored_energy_j=result.stored_energy,
        steps=list(result.steps),
        findings=findings_out(result.findings),
    )


@router.post("/analyse", summary="The result of a run: its figures with their uncertainty, and the verdict")
def analyse(body: _one_of(AnalyseBody, ANALYSE_BODIES), settings: SettingsInForce) -> AnalysisOut | TrialOut:  # type: ignore[valid-type]
    return analyse_trial(body) if isinstance(body, TrialBody) else _analyse_hold(body, settings)


def _analyse_hold(body: AnalyseBody, settings: ShopSettings) -> AnalysisOut:
    volume, gauge, limit = _setup(body, settings.hold_rules)
    unit = find_unit(body.pressure_unit)
    if unit is None or unit.dimension is not Dimension.PRESSURE:
        raise fault("pressure_unit", f"“{body.pressure_unit}” is not a pressure unit", "bar", "psi", "MPa", "kPa")
    if unit.absolute and body.reference != "absolute":
        raise fault("reference", f"{body.pressure_unit} is absolute, but the reference says gauge", "absolute")
    # Inside the core every pressure is gauge pressure.
    shift = volume.atmosphere if body.reference == "absolute" else 0.0
    samples = tuple(Sample(s.t_s, to_base(s.pressure, unit) - shift, s.temperature_c) for s in body.samples)
    # Open to all, so bounded: of more readings than this the means of as many as it takes are judged.
    together = -(-len(samples) // MOST_JUDGED_AT_ONCE)
    if together > 1:
        check_samples(samples)
        samples = means_of(samples, together)
    wanted = None if body.pressure is None else _wanted(body.pressure, body, volume)
    return AnalysisOut.of(
        analyse_hold(
            samples,
            volume,
            gauge,
            limit,
            wanted=wanted,
            planned_hold=body.planned_hold_s or 0.0,
            let_down=body.let_down,
            rules=settings.hold_rules,
        )
    )


@router.post("/read-csv", summary="Samples from a CSV file, every fault named by line")
def read_csv(body: TraceBody) -> TraceOut:
    before = None if body.state is None else TraceState(**body.state.model_dump())
    read, state = read_trace_part(body.text, before)
    kept = means_of(read, body.together)
    return TraceOut(
        samples=[TraceSampleOut(t_s=s.t, pressure_mpa=s.pressure, temperature_c=s.temperature) for s in kept],
        rows=len(read),
        low_mpa=min((reading.pressure for reading in read), default=None),
        high_mpa=max((reading.pressure for reading in read), default=None),
        state=TraceStateBody(**asdict(state)),
    )


def _setup(body: HoldBody, rules: HoldRules) -> tuple[TestVolume, Gauge, float]:
    read = Collector()
    volume = read.get(read_volume, body.volume, "volume")
    limit = read.get(
        lambda text, field: read_flow(text, field, drop_ml=rules.drop_ml), body.limit.leak_rate, "limit.leak_rate"
    )
    span = read.get(read_gauge_pressure, body.gauge.range, "gauge.range", low=1e-9)
    resolution = read.get(read_gauge_pressure, body.gauge.resolution, "gauge.resolution", low=1e-9)
    atmosphere = read.get(_atmosphere, body.atmosphere, "atmosphere")
    fluid = read.get(lambda text, field: find_fluid(text, fluids(), field), body.medium, "medium")
    read.done()
    measured = body.compliance
    compliance = None
    if measured is not None:
        let_out = read.get(read_volume, measured.volume, "compliance.volume")
        drop = read.get(read_gauge_pressure, measured.drop, "compliance.drop", low=1e-9)
        read.done()
        compliance = Compliance(let_out, drop)
    test_volume = TestVolume(
        volume,
        fluid,
        body.bulk_modulus_gpa,
        body.volume_doubt_pct,
        body.bulk_modulus_doubt_pct,
        compliance,
        body.housing,
        atmosphere or STANDARD_PRESSURE_MPA,
    )
    return test_volume, Gauge(span, resolution, body.gauge.accuracy_pct, body.gauge.stability_pct), limit


def _wanted(text: str, body: HoldBody, volume: TestVolume) -> float:
    """The test pressure as gauge pressure; below zero for a vacuum. [MPa]"""
    quantity = read_quantity(text, Dimension.PRESSURE, "pressure")
    absolute = quantity.unit.absolute or body.reference == "absolute"
    value = quantity.value - volume.atmosphere if absolute else quantity.value
    if not -volume.atmosphere <= value <= 1000.0:
        raise fault("pressure", f"“{text}” is outside the range of pressures", "above a vacuum", "up to 10000 bar")
    if abs(value) < 1e-6:
        raise fault("pressure", f"“{text}” is atmospheric pressure: there is nothing to hold", "200 bar", "-0.6 bar")
    return value


def _atmosphere(text: str, field: str) -> float:
    value = read_quantity(text, Dimension.PRESSURE, field).value
    if not 0.03 <= value <= 0.12:
        raise fault(field, f"“{text}” is not an atmospheric pressure", "1013 hPa", "300 to 1200 hPa")
    return value
