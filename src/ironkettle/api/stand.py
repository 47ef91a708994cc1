"""GET /api/stand/reading: what the test stand shows now. POST /api/stand/hold: set up the simulated one."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Request
from pydantic import BaseModel, Field

from ironkettle.api.identity import allow
from ironkettle.api.policies import Caller, StandPolicy
from ironkettle.api.problems import ERROR_RESPONSES, GUARDED, problem
from ironkettle.api.schemas import Body, Collector, QuantityText
from ironkettle.core.quantities import read_gauge_pressure
from ironkettle.stand.driver import StandAwayError, StandDriver

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
    )


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
