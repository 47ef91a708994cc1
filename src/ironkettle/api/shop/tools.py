"""The workshop's torque wrenches and gauges: list and add."""

from __future__ import annotations

from datetime import date
from typing import Annotated, TypeVar

from fastapi import APIRouter
from pydantic import BaseModel, ConfigDict, Field, StringConstraints, computed_field
from sqlalchemy.orm import Session

from ironkettle.api.base.deps import DbSession, now
from ironkettle.api.base.identity import allow
from ironkettle.api.base.problems import CONFLICT, ERROR_RESPONSES, GUARDED, NOT_THERE, NotThereError
from ironkettle.api.base.schemas import Body, Collector, NameText, PressureText, TorqueText
from ironkettle.api.policies import Caller, ToolPolicy
from ironkettle.core.base.errors import fault
from ironkettle.core.base.quantities import read_gauge_pressure, read_torque
from ironkettle.core.base.text import Figure, Plain
from ironkettle.core.sheets.document.fields import Key
from ironkettle.store.shop.tools import GaugeTool, WrenchTool, add_tool, all_gauges, all_wrenches
from ironkettle.store.shop.trail import leave_trail

Tool = TypeVar("Tool", WrenchTool, GaugeTool)

router = APIRouter(prefix="/api", tags=["tools"], responses=ERROR_RESPONSES | GUARDED)

Reader = Annotated[Caller, allow(ToolPolicy.read)]
Keeper = Annotated[Caller, allow(ToolPolicy.change)]


# No instrument of a workshop is better than a hundredth of a per cent.
Accuracy = Annotated[Figure, Field(ge=0.01, le=20)]
# What a gauge and a wrench of a workshop can be. [MPa, N·m]
_RANGE, _STEP, _TORQUE = (0.0005, 1000.0), (1e-7, 100.0), (0.005, 20_000.0)


class _FromRow(BaseModel):
    model_config = ConfigDict(from_attributes=True)


class _CalibratedOut(_FromRow):
    calibration: str
    calibrated_until: date | None

    @computed_field  # type: ignore[prop-decorator]
    @property
    def calibration_ended(self) -> bool:
        """Whether its last day is over."""
        return self.calibrated_until is not None and now().date() > self.calibrated_until


class WrenchToolOut(_CalibratedOut):
    key: str
    name: str
    low: str
    high: str
    accuracy_pct: float
    clicks: bool


class GaugeToolOut(_CalibratedOut):
    key: str
    name: str
    range: str
    resolution: str
    accuracy_pct: float
    stability_pct: float | None


class WrenchToolBody(Body):
    key: Key
    name: NameText
    low: TorqueText
    high: TorqueText
    accuracy_pct: Accuracy
    calibration: Annotated[str, StringConstraints(max_length=80, strip_whitespace=True), Plain] = ""
    calibrated_until: date | None = Field(default=None, examples=["2027-06-30"])
    clicks: bool = False


class GaugeToolBody(Body):
    key: Key
    name: NameText
    range: PressureText
    resolution: PressureText
    accuracy_pct: Accuracy
    stability_pct: Accuracy | None = Field(
        default=None,
        description="how far it may drift or stick during a hold, in % of the reading, as stated by its maker [%]",
    )
    calibration: Annotated[str, StringConstraints(max_length=80, strip_whitespace=True), Plain] = ""
    calibrated_until: date | None = Field(default=None, examples=["2027-06-30"])


@router.get("/wrenches", summary="Torque wrenches")
def wrenches(session: DbSession, caller: Reader) -> list[WrenchToolOut]:
    return [WrenchToolOut.model_validate(wrench) for wrench in all_wrenches(session)]


@router.get("/gauges", summary="Gauges")
def gauges(session: DbSession, caller: Reader) -> list[GaugeToolOut]:
    return [GaugeToolOut.model_validate(gauge) for gauge in all_gauges(session)]


@router.post("/wrenches", summary="Add a torque wrench", responses=CONFLICT)
def add_wrench(body: WrenchToolBody, session: DbSession, caller: Keeper) -> WrenchToolOut:
    read = Collector()
    low, high = read.get(read_torque, body.low, "low"), read.get(read_torque, body.high, "high")
    _plausible(read, "low", body.low, low, _TORQUE, "0.005 N·m to 20,000 N·m")
    _plausible(read, "high", body.high, high, _TORQUE, "0.005 N·m to 20,000 N·m")
    if low is not None and high is not None:
        read.require(low < high, "low", f"{body.low} is not below {body.high}")
    read.done()
    add_tool(session, WrenchTool(**body.model_dump()))
    leave_trail(session, caller.key, now(), "wrench", body.key, "added", after=body.model_dump(mode="json"))
    return WrenchToolOut(**body.model_dump())


@router.post("/gauges", summary="Add a gauge", responses=CONFLICT)
def add_gauge(body: GaugeToolBody, session: DbSession, caller: Keeper) -> GaugeToolOut:
    read = Collector()
    span = read.get(read_gauge_pressure, body.range, "range", low=1e-9)
    step = read.get(read_gauge_pressure, body.resolution, "resolution", low=1e-9)
    _plausible(read, "range", body.range, span, _RANGE, "5 mbar to 10,000 bar")
    _plausible(read, "resolution", body.resolution, step, _STEP, "0.001 mbar to 1,000 bar")
    if span is not None and step is not None:
        read.require(step < span, "resolution", f"{body.resolution} is not finer than {body.range}")
    read.done()
    add_tool(session, GaugeTool(**body.model_dump()))
    leave_trail(session, caller.key, now(), "gauge", body.key, "added", after=body.model_dump(mode="json"))
    return GaugeToolOut(**body.model_dump())


def _plausible(
    read: Collector, field: str, text: str, value: float | None, ends: tuple[float, float], accepts: str
) -> None:
    if value is not None:
        read.require(ends[0] <= value <= ends[1], field, f"{text} is not possible for such an instrument", accepts)


class ToolChange(Body):
    """What changes of a wrench or gauge; what is left out stays. ``active``: False once it is withdrawn."""

    name: NameText | None = None
    accuracy_pct: Accuracy | None = None
    active: bool | None = None


class GaugeChange(ToolChange):
    stability_pct: Accuracy | None = None


@router.patch("/wrenches/{key}", summary="Change a wrench, or withdraw it", responses=NOT_THERE)
def change_wrench(key: NameText, body: ToolChange, session: DbSession, caller: Keeper) -> WrenchToolOut:
    return WrenchToolOut.model_validate(_changed(session, caller, WrenchTool, "wrench", key, body))


@router.patch("/gauges/{key}", summary="Change a gauge, or withdraw it", responses=NOT_THERE)
def change_gauge(key: NameText, body: GaugeChange, session: DbSession, caller: Keeper) -> GaugeToolOut:
    return GaugeToolOut.model_validate(_changed(session, caller, GaugeTool, "gauge", key, body))


def _changed(session: Session, caller: Caller, kind: type[Tool], noun: str, key: str, body: ToolChange) -> Tool:
    tool = session.get(kind, key)
    if tool is None:
        raise NotThereError(noun, key)
    changes = body.model_dump(exclude_none=True)
    if not changes:
        raise fault("name", "nothing to change was given", *type(body).model_fields)
    before = {name: getattr(tool, name) for name in changes}
    for name, value in changes.items():
        setattr(tool, name, value)
    session.flush()
    leave_trail(session, caller.key, now(), noun, key, "changed", before, changes)
    return tool


class CalibrationBody(Body):
    """A new calibration: its certificate and its last day."""

    calibration: NameText
    calibrated_until: date


@router.put("/wrenches/{key}/calibration", summary="Record a new calibration of a wrench", responses=NOT_THERE)
def calibrate_wrench(key: NameText, body: CalibrationBody, session: DbSession, caller: Keeper) -> WrenchToolOut:
    return WrenchToolOut.model_validate(_calibrated(session, caller, WrenchTool, "wrench", key, body))


@router.put("/gauges/{key}/calibration", summary="Record a new calibration of a gauge", responses=NOT_THERE)
def calibrate_gauge(key: NameText, body: CalibrationBody, session: DbSession, caller: Keeper) -> GaugeToolOut:
    return GaugeToolOut.model_validate(_calibrated(session, caller, GaugeTool, "gauge", key, body))


def _calibrated(session: Session, caller: Caller, kind: type[Tool], noun: str, key: str, body: CalibrationBody) -> Tool:
    tool = session.get(kind, key)
    if tool is None:
        raise NotThereError(noun, key)
    before = {"calibration": tool.calibration, "calibrated_until": str(tool.calibrated_until or "")}
    tool.calibration, tool.calibrated_until = body.calibration, body.calibrated_until
    session.flush()
    leave_trail(session, caller.key, now(), noun, key, "calibrated", before, body.model_dump(mode="json"))
    return tool
