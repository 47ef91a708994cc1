"""The bodies and answers of POST /api/tests/plan and /api/tests/analyse for every kind that is told in figures."""

from __future__ import annotations

from typing import Any, Literal, cast

from pydantic import BaseModel, ConfigDict, Field, create_model

from ironkettle.api.base.schemas import Body, FindingOut, findings_out
from ironkettle.core.base.quantities import Dimension, find_unit
from ironkettle.core.machine.tests import (
    TRIALS,
    Curve,
    Instrument,
    InstrumentUsed,
    Outcome,
    Result,
    Trial,
    TrialPlan,
    in_unit,
    instrument_of,
    shown,
    within_words,
)

# The unit a number of an answer is in, as its key names it.
_ANSWERED = {
    Dimension.PRESSURE: ("bar", "bar"), Dimension.FLOW: ("ml/min", "ml_min"), Dimension.TIME: ("s", "s"),
    Dimension.LENGTH: ("mm", "mm"), Dimension.TORQUE: ("N·m", "nm"), Dimension.FORCE: ("kN", "kn"),
    Dimension.VOLUME: ("ml", "ml"), Dimension.TEMPERATURE: ("°C", "c"), Dimension.ANGLE: ("°", "deg"),
    Dimension.SPEED: ("m/s", "m_s"), Dimension.AREA: ("mm²", "mm2"),
}  # fmt: skip
_PLAIN = {"%": "pct", "/min": "per_min", "mm/min": "mm_min", "s": "s"}


class ResultOut(BaseModel):
    """One figure: its value, its 95 % interval and what it is held against, in ``unit`` and as it is told."""

    key: str
    name: str
    value: float
    low: float | None
    high: float | None
    least: float | None
    most: float | None
    unit: str
    shown: str
    interval_shown: str | None
    within_shown: str | None
    verdict: Literal["pass", "fail", "undecided", "invalid"] | None

    @classmethod
    def of(cls, result: Result) -> ResultOut:
        def number(value: float | None) -> float | None:
            return None if value is None else in_unit(value, result.unit)

        low, high = result.interval or (None, None)
        least, most = result.within
        return cls(
            key=result.key,
            name=result.name,
            value=in_unit(result.value, result.unit),
            low=number(low),
            high=number(high),
            least=number(least),
            most=number(most),
            unit=result.unit if isinstance(result.unit, str) else result.unit.symbol,
            shown=shown(result.value, result.unit),
            interval_shown=None
            if low is None or high is None
            else f"{shown(low, result.unit)} to {shown(high, result.unit)}",
            within_shown=within_words(result),
            verdict=result.verdict,
        )


class CurveOut(BaseModel):
    """What to draw: points in the units of both axes, and the band they are held against."""

    across: str
    across_unit: str
    up: str
    up_unit: str
    points: list[tuple[float, float]]
    line: bool
    least: float | None
    most: float | None
    judged: tuple[float, float] | None

    @classmethod
    def of(cls, curve: Curve) -> CurveOut:
        least, most = (None if edge is None else in_unit(edge, curve.up_unit) for edge in curve.band)
        return cls(
            across=curve.across,
            across_unit=curve.across_unit,
            up=curve.up,
            up_unit=curve.up_unit if isinstance(curve.up_unit, str) else curve.up_unit.symbol,
            points=[(x, in_unit(y, curve.up_unit)) for x, y in curve.points],
            line=curve.line,
            least=least,
            most=most,
            judged=curve.judged,
        )


class TrialOut(BaseModel):
    """The verdict and every figure; each figure also stands by its own key with its unit, as ``mean_bar``, ``ci95_bar``."""

    model_config = ConfigDict(extra="allow")

    kind: str
    verdict: Literal["pass", "fail", "undecided", "invalid"]
    results: list[ResultOut]
    curve: CurveOut | None
    findings: list[FindingOut]

    @classmethod
    def of(cls, kind: str, outcome: Outcome) -> TrialOut:
        return cls(
            kind=kind,
            verdict=outcome.verdict,
            results=[ResultOut.of(result) for result in outcome.results],
            curve=None if outcome.curve is None else CurveOut.of(outcome.curve),
            findings=findings_out(outcome.findings),
            **_by_key(outcome.results),
        )


def _by_key(results: tuple[Result, ...]) -> dict[str, Any]:
    found: dict[str, Any] = {}
    for place, reading in enumerate(results):
        if reading.dimension is None:
            suffix, unit = _PLAIN.get(str(reading.unit)), reading.unit
            name = reading.key if suffix is None else f"{reading.key}_{suffix}"
        else:
            symbol, suffix = _ANSWERED[reading.dimension]
            known = find_unit(symbol)
            assert known is not None
            name, unit = f"{reading.key}_{suffix}", known
        found[name] = in_unit(reading.value, unit)
        if reading.interval is not None:
            ends = [in_unit(end, unit) for end in reading.interval]
            found[f"{reading.key}_ci95_{suffix}"] = ends
            if place == 0:
                found[f"ci95_{suffix}"] = ends
    return found


class TrialPlanOut(BaseModel):
    """How to run it: the steps, the coarsest step a gauge may have, where to stand, what to mind."""

    kind: str
    says: str
    steps: list[str]
    coarsest: str | None
    stand: str
    caution: str | None
    findings: list[FindingOut]


class TrialBody(Body):
    """A kind with its figures; ``gauge``: what it is read on."""

    kind: str
    gauge: InstrumentUsed | None = Field(default=None)


def _body(trial: Trial[Any, Any], word: str, *bases: type[BaseModel]) -> Any:
    name = f"{trial.criteria.__name__.removesuffix('Criteria')}{word}"
    return create_model(
        name, __base__=(TrialBody, *bases), __doc__=f"{trial.word}. {trial.criteria.__doc__ or ''}",
        kind=(cast(Any, Literal[trial.key]), ...),
    )  # fmt: skip


ANALYSE_BODIES = {key: _body(kind, "AnalyseBody", kind.criteria, kind.record) for key, kind in TRIALS.items()}
PLAN_BODIES = {key: _body(kind, "PlanBody", kind.criteria) for key, kind in TRIALS.items()}


def analyse_trial(body: TrialBody) -> TrialOut:
    """The verdict of a run of one of the kinds."""
    trial = TRIALS[body.kind]
    criteria = _part(trial.criteria, body)
    outcome = trial.analyse(criteria, _part(trial.record, body), _instrument(trial, criteria, body))
    return TrialOut.of(body.kind, outcome)


def plan_trial(body: TrialBody) -> TrialPlanOut:
    """How a run of one of the kinds is made."""
    trial = TRIALS[body.kind]
    criteria = _part(trial.criteria, body)
    found = trial.plan(criteria, _instrument(trial, criteria, body))
    return TrialPlanOut(
        kind=body.kind,
        says=trial.says(criteria),
        steps=list(found.steps),
        coarsest=_coarsest(found, body),
        stand=found.stand,
        caution=found.caution,
        findings=findings_out(found.findings),
    )


def _coarsest(found: TrialPlan, body: TrialBody) -> str | None:
    if found.coarsest is None or found.dimension is None:
        return None
    unit = find_unit(_ANSWERED[found.dimension][0])
    assert unit is not None
    return shown(found.coarsest, unit)


def _part(model: type[BaseModel], body: TrialBody) -> Any:
    return model.model_construct(**{name: getattr(body, name) for name in model.model_fields})


def _instrument(trial: Trial[Any, Any], criteria: Any, body: TrialBody) -> Instrument:
    """The gauge in the dimension of what this kind reads; unknown where none is told."""
    if body.gauge is None:
        return Instrument()
    dimension = trial.plan(criteria, Instrument()).dimension
    return Instrument() if dimension is None else instrument_of(body.gauge, dimension)
