"""/api/torque: the plan of a group of fasteners, and what can be said of how it is held."""

from __future__ import annotations

from itertools import pairwise
from typing import Annotated, Literal

from fastapi import APIRouter
from pydantic import BaseModel, BeforeValidator, Field

from ironkettle.api.base.problems import ERROR_RESPONSES
from ironkettle.api.base.schemas import Body, Collector, FindingOut, LengthText, NameText, TorqueText, findings_out
from ironkettle.core.base.errors import RuleError, fault
from ironkettle.core.base.quantities import Dimension, Unit, read_length, read_quantity, read_torque, show, turns_of
from ironkettle.core.base.text import Figure
from ironkettle.core.machine.tightening import (
    LOCKING_WORD,
    Adapter,
    ByTorque,
    ByTurns,
    Fastener,
    Layout,
    Locking,
    Pass,
    Range,
    Spec,
    TorquePlan,
    TorqueRange,
    ToSlot,
    ToStop,
    Wrench,
    find_factor,
    find_proof,
    find_tapped,
    find_thread,
    plan_tightening,
)
from ironkettle.reference import fastener_tables, threads

router = APIRouter(prefix="/api/torque", tags=["torque"], responses=ERROR_RESPONSES)


class SpecBody(Body):
    """One way of saying how tight: min and max; target (with tolerance_pct); turns and thread; slots; to_stop.

    ``from_bottom``: bottomed first and then turned back; slots are so unless it is false, turns only when it is true.
    """

    min: TorqueText | None = None
    max: TorqueText | None = None
    target: TorqueText | None = None
    tolerance_pct: Figure | None = Field(default=None, ge=0.1, lt=50)
    turns: Annotated[Figure, BeforeValidator(turns_of)] | None = Field(default=None, ge=0.001, le=50)
    slots: int | None = Field(default=None, ge=1, le=60)
    from_bottom: bool | None = None
    thread: NameText | None = None
    to_stop: bool = False


class WrenchBody(Body):
    min: TorqueText
    max: TorqueText
    accuracy_pct: Figure = Field(ge=0.01, le=20)


class AdapterBody(Body):
    wrench_length: LengthText
    extension: LengthText
    angle_deg: Figure = Field(default=0, ge=-180, le=180)


class PatternBody(Body):
    layout: Layout = Layout.SINGLE
    count: int = Field(default=1, ge=1, le=64)


class FastenerBody(Body):
    """``into`` and ``engaged``: the material the thread is tapped into, and how deep it is in."""

    thread: NameText
    grade: NameText
    condition: NameText = "light oil"
    into: NameText | None = None
    engaged: LengthText | None = None


class TorquePlanBody(Body):
    spec: SpecBody
    wrench: WrenchBody | None = None
    adapter: AdapterBody | None = None
    pattern: PatternBody = Field(default_factory=PatternBody)
    passes_pct: list[Figure] = Field(default=[100.0], min_length=1, max_length=10)
    soft_thread: bool = False
    fastener: FastenerBody | None = None
    locking: list[Locking] = Field(default=[], max_length=len(Locking))
    aim: Literal["middle", "top"] = "middle"


class PassOut(BaseModel):
    """``wrench_setting_nm``: on the scale, adapter included; ``wrench_text``: the same in the scale's own unit.

    ``reached``: the scale is trusted there.
    """

    pct: float
    name: str
    setting_nm: float | None
    wrench_setting_nm: float | None
    wrench_text: str | None
    reached: bool | None
    sequence: list[int]


class WrenchOut(BaseModel):
    fits: bool
    reason: str


class RangeOut(BaseModel):
    low: float
    nominal: float
    high: float


class TorquePlanOut(BaseModel):
    setting_nm: float | None
    wrench_setting_nm: float | None
    setting_text: str
    passes: list[PassOut]
    wrench: WrenchOut | None
    preload_kn: RangeOut | None
    proof_pct: RangeOut | None
    travel_mm: float | None
    back_off_deg_max: float | None
    findings: list[FindingOut]


class LockingOut(BaseModel):
    key: Locking
    says: str


class IntoOut(BaseModel):
    key: str
    says: str


class TorqueChoicesOut(BaseModel):
    """Ways of keeping a fastener from turning, and materials that a thread may be tapped into."""

    locking: list[LockingOut]
    into: list[IntoOut]


@router.post("/plan", summary="Setting, order and preload of a group of fasteners")
def plan(body: TorquePlanBody) -> TorquePlanOut:
    scale = None if body.wrench is None else read_quantity(body.wrench.max, Dimension.TORQUE, "wrench.max").unit
    result = plan_tightening(
        _spec(body.spec),
        layout=body.pattern.layout,
        count=body.pattern.count,
        passes_pct=_passes(body.passes_pct),
        wrench=_wrench(body.wrench),
        adapter=read_adapter(body.adapter),
        soft_thread=body.soft_thread,
        fastener=_fastener(body.fastener),
        locking=body.locking,
        top=body.aim == "top",
    )
    return plan_out(result, scale)


def plan_out(result: TorquePlan, scale: Unit | None) -> TorquePlanOut:
    """A plan as it is answered; ``scale``: the unit of the wrench's own scale."""
    return TorquePlanOut(
        setting_nm=result.setting,
        wrench_setting_nm=result.wrench_setting,
        setting_text=result.setting_text,
        passes=[_pass(tightening_pass, scale) for tightening_pass in result.passes],
        wrench=result.wrench and WrenchOut(fits=result.wrench.fits, reason=result.wrench.reason),
        preload_kn=_range(result.preload),
        proof_pct=_range(result.proof_pct),
        travel_mm=result.travel,
        back_off_deg_max=result.back_off_deg_max,
        findings=findings_out(result.findings),
    )


@router.get("/choices", summary="Locking methods, and materials that threads are tapped into")
def choices() -> TorqueChoicesOut:
    return TorqueChoicesOut(
        locking=[LockingOut(key=way, says=LOCKING_WORD[way]) for way in Locking],
        into=[IntoOut(key=tapped.material, says=tapped.material) for tapped in fastener_tables().tapped],
    )


def _pass(tightening_pass: Pass, scale: Unit | None) -> PassOut:
    return PassOut(
        pct=tightening_pass.pct,
        name=tightening_pass.turn.name,
        setting_nm=tightening_pass.setting,
        wrench_setting_nm=tightening_pass.wrench_setting,
        wrench_text=None
        if scale is None or tightening_pass.wrench_setting is None
        else show(tightening_pass.wrench_setting, scale),
        reached=tightening_pass.reached,
        sequence=list(tightening_pass.sequence),
    )


def _range(figure: Range | None) -> RangeOut | None:
    return None if figure is None else RangeOut(low=figure.low, nominal=figure.nominal, high=figure.high)


def _spec(spec: SpecBody) -> Spec:
    ways = [
        name
        for name, given in (
            ("min and max", spec.min is not None or spec.max is not None),
            ("target", spec.target is not None),
            ("turns", spec.turns is not None),
            ("slots", spec.slots is not None),
            ("to_stop", spec.to_stop),
        )
        if given
    ]
    if len(ways) != 1:
        came = " with ".join(ways) if ways else "nothing"
        raise fault(
            "spec", f"give it in one way only; {came} came", "min and max", "target", "turns", "slots", "to_stop"
        )
    if spec.to_stop:
        return ToStop()
    if spec.turns is not None or spec.slots is not None:
        if spec.thread is None:
            raise fault("spec.thread", "is needed for turns and slots", "M42x2")
        pitch = find_thread(spec.thread, threads(), "spec.thread").pitch
        if spec.turns is not None:
            return ByTurns(spec.turns, pitch, from_bottom=spec.from_bottom is True)
        return ToSlot(spec.slots or 1, pitch, from_bottom=spec.from_bottom is not False)
    return ByTorque(_torque_range(spec))


def _torque_range(spec: SpecBody) -> TorqueRange:
    read = Collector()
    if spec.target is not None:
        target = read.get(read_torque, spec.target, "spec.target")
        read.done()
        spread = target * (spec.tolerance_pct or 0.0) / 100
        return TorqueRange(target - spread, target + spread)
    read.require(spec.min is not None, "spec.min", "is needed beside max", "N·m", "lbf·ft")
    read.require(spec.max is not None, "spec.max", "is needed beside min", "N·m", "lbf·ft")
    low = read.get(read_torque, spec.min, "spec.min")
    high = read.get(read_torque, spec.max, "spec.max")
    if low is not None and high is not None:
        read.require(low <= high, "spec.min", f"{spec.min} is above {spec.max}")
    read.done()
    return TorqueRange(low, high)


def _passes(passes: list[float]) -> list[float]:
    rising = all(earlier < later for earlier, later in pairwise(passes))
    if not rising or passes[0] <= 0 or passes[-1] != 100:
        raise fault("passes_pct", "must rise from above 0 to 100", "30, 70, 100")
    return passes


def _wrench(wrench: WrenchBody | None) -> Wrench | None:
    if wrench is None:
        return None
    read = Collector()
    low = read.get(read_torque, wrench.min, "wrench.min")
    high = read.get(read_torque, wrench.max, "wrench.max")
    if low is not None and high is not None:
        read.require(low < high, "wrench.min", f"{wrench.min} is not below {wrench.max}")
    read.done()
    return Wrench(low, high, wrench.accuracy_pct)


def read_adapter(adapter: AdapterBody | None) -> Adapter | None:
    """An adapter for the core. Raises RuleError with every fault."""
    if adapter is None:
        return None
    read = Collector()
    length = read.get(read_length, adapter.wrench_length, "adapter.wrench_length")
    extension = read.get(read_length, adapter.extension, "adapter.extension")
    read.done()
    return Adapter(length, extension, adapter.angle_deg)


def _fastener(body: FastenerBody | None) -> Fastener | None:
    if body is None:
        return None
    tables = fastener_tables()
    try:
        thread = find_thread(body.thread, tables.threads, "thread")
        factor = find_factor(body.condition, tables.nut_factors, "condition")
        proof = find_proof(body.grade, thread.major_diameter, tables.strengths, "grade")
        tapped = None if body.into is None else find_tapped(body.into, tables.tapped, "into")
        engaged = None if body.engaged is None else read_length(body.engaged, "engaged", high=1000)
    except RuleError as error:
        raise RuleError(found.under("fastener") for found in error.faults) from None
    return Fastener(thread, factor, proof, tapped, engaged)
