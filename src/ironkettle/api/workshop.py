"""GET /api/people, /api/wrenches, /api/gauges, /api/fluids: what the workshop has."""

from __future__ import annotations

from fastapi import APIRouter
from pydantic import BaseModel, ConfigDict

from ironkettle.api.deps import DbSession
from ironkettle.reference import fluids
from ironkettle.store.people import all_people
from ironkettle.store.tools import all_gauges, all_wrenches

router = APIRouter(prefix="/api", tags=["workshop"])


class _FromRow(BaseModel):
    model_config = ConfigDict(from_attributes=True)


class PersonOut(_FromRow):
    key: str
    name: str
    role: str
    may_release: bool


class WrenchToolOut(_FromRow):
    key: str
    name: str
    low: str
    high: str
    accuracy_pct: float


class GaugeToolOut(_FromRow):
    key: str
    name: str
    range: str
    resolution: str
    accuracy_pct: float


class FluidOut(BaseModel):
    name: str
    gas: bool


@router.get("/people")
def people(session: DbSession) -> list[PersonOut]:
    return [PersonOut.model_validate(person) for person in all_people(session)]


@router.get("/wrenches")
def wrenches(session: DbSession) -> list[WrenchToolOut]:
    return [WrenchToolOut.model_validate(wrench) for wrench in all_wrenches(session)]


@router.get("/gauges")
def gauges(session: DbSession) -> list[GaugeToolOut]:
    return [GaugeToolOut.model_validate(gauge) for gauge in all_gauges(session)]


@router.get("/fluids")
def known_fluids() -> list[FluidOut]:
    return [FluidOut(name=fluid.name, gas=fluid.gas) for fluid in fluids()]
