"""What the test stand shows now, a pressure to hold, and the panel of the simulated one: its leaks and its faults."""

from __future__ import annotations

from typing import Annotated, Literal

from fastapi import APIRouter, Request
from pydantic import BaseModel, Field

from ironkettle.api.identity import allow
from ironkettle.api.policies import Caller, StandPolicy
from ironkettle.api.problems import ERROR_RESPONSES, GUARDED, problem
from ironkettle.api.schemas import Body, Collector, QuantityText
from ironkettle.core.errors import RefusedError
from ironkettle.core.quantities import read_gauge_pressure
from ironkettle.core.text import Figure
from ironkettle.stand.driver import StandAwayError, StandDriver, StandPanel

router = APIRouter(prefix="/api/stand", tags=["stand"], responses=ERROR_RESPONSES | GUARDED)

Reader = Annotated[Caller, allow(StandPolicy.read)]
Mover = Annotated[Caller, allow(StandPolicy.move)]


class ReadingOut(BaseModel):
    """``hold`` is the number of the hold: another one means that the stand holds something else now."""

    pressure_mpa: float
    temperature_c: float
    held_s: float
    simulated: bool
    hold: int
    flow_ml_min: float


class FaultOut(BaseModel):
    key: str
    says: str


class PanelOut(BaseModel):
    """The simulated stand: radial gaps along the rod and past the piston, a hole, what is wrong with its pressure channel."""

    rod_gap_um: float
    bypass_gap_um: float
    hole_mm: float
    fault: str
    faults: list[FaultOut]


class PanelBody(Body):
    rod_gap_um: Figure = Field(default=0.0, ge=0, le=200)
    bypass_gap_um: Figure = Field(default=0.0, ge=0, le=200)
    hole_mm: Figure = Field(default=0.0, ge=0, le=3)
    fault: Literal["", "frozen", "out_of_range", "spikes", "wrong_scale"] = ""


_FAULT_WORDS = {
    "": "sound", "frozen": "frozen: it shows what it showed last", "out_of_range": "past the end of its range",
    "spikes": "spikes now and then", "wrong_scale": "ten times too much",
}  # fmt: skip


class HoldSetBody(Body):
    pressure: QuantityText = Field(examples=["180 bar"])


def _driver(request: Request) -> StandDriver:
    driver: StandDriver = request.app.state.stand
    return driver


@router.get("/reading", summary="Pressure and temperature now", responses={503: {"description": "Stand not reachable"}})
async def reading(request: Request, caller: Reader) -> ReadingOut:
    return await _shown(request)


async def _shown(request: Request) -> ReadingOut:
    now = await _driver(request).read()
    return ReadingOut(
        pressure_mpa=now.pressure,
        temperature_c=now.temperature,
        held_s=now.held,
        simulated=now.simulated,
        hold=now.hold,
        flow_ml_min=now.flow,
    )


@router.get(
    "/panel", summary="How the simulated stand is set up", responses={503: {"description": "Stand not reachable"}}
)
async def panel(request: Request, caller: Reader) -> PanelOut:
    now = await _driver(request).panel()
    return PanelOut(
        rod_gap_um=round(now.rod_gap, 3),
        bypass_gap_um=round(now.bypass_gap, 3),
        hole_mm=round(now.hole, 4),
        fault=now.fault,
        faults=[FaultOut(key=key, says=says) for key, says in _FAULT_WORDS.items()],
    )


@router.post(
    "/panel",
    summary="Set leaks and faults of the simulated stand",
    responses={503: {"description": "Stand not reachable"}},
)
async def set_panel(body: PanelBody, request: Request, caller: Mover) -> PanelOut:
    stand = _driver(request)
    if not (await stand.read()).simulated:
        raise RefusedError("real-stand", "this stand is a real one: leaks and faults are set on the simulated one only")
    await stand.set_up(StandPanel(body.rod_gap_um, body.bypass_gap_um, body.hole_mm, body.fault))
    return await panel(request, caller)


@router.post(
    "/hold", summary="Raise to a pressure and shut the valve", responses={503: {"description": "Stand not reachable"}}
)
async def hold(body: HoldSetBody, request: Request, caller: Mover) -> ReadingOut:
    read = Collector()
    pressure = read.get(read_gauge_pressure, body.pressure, "pressure", high=40.0)
    read.done()
    await _driver(request).hold_at(pressure)
    return await _shown(request)


def stand_away(request: Request, error: Exception) -> object:
    return problem(503, "stand-away", "Test stand not reachable", str(error))


__all__ = ["StandAwayError", "router", "stand_away"]
