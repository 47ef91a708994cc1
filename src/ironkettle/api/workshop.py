"""People, wrenches, gauges and fluids of the workshop: list and add."""

from __future__ import annotations

from fastapi import APIRouter
from pydantic import BaseModel, ConfigDict, Field

from ironkettle.api.deps import DbSession
from ironkettle.api.problems import CONFLICT, ERROR_RESPONSES
from ironkettle.api.schemas import Body, Collector, Finite, NameText, QuantityText
from ironkettle.core.buildsheets.model import Key
from ironkettle.core.quantities import read_gauge_pressure, read_torque
from ironkettle.reference import fluids
from ironkettle.store.people import Person, add_person, all_people
from ironkettle.store.tools import GaugeTool, WrenchTool, add_tool, all_gauges, all_wrenches

router = APIRouter(prefix="/api", tags=["workshop"], responses=ERROR_RESPONSES)


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


class PersonBody(Body):
    key: Key = Field(examples=["tamsin"])
    name: NameText
    role: NameText
    may_release: bool = False


class WrenchToolBody(Body):
    key: Key
    name: NameText
    low: QuantityText
    high: QuantityText
    accuracy_pct: Finite = Field(gt=0, le=20)


class GaugeToolBody(Body):
    key: Key
    name: NameText
    range: QuantityText
    resolution: QuantityText
    accuracy_pct: Finite = Field(gt=0, le=20)


@router.post("/people", summary="Add a person", responses=CONFLICT)
def add_one_person(body: PersonBody, session: DbSession) -> PersonOut:
    return PersonOut.model_validate(add_person(session, Person(**body.model_dump())))


@router.post("/wrenches", summary="Add a torque wrench", responses=CONFLICT)
def add_wrench(body: WrenchToolBody, session: DbSession) -> WrenchToolOut:
    read = Collector()
    low, high = read.get(read_torque, body.low, "low"), read.get(read_torque, body.high, "high")
    if low is not None and high is not None:
        read.require(low < high, "low", f"{body.low} is not below {body.high}")
    read.done()
    add_tool(session, WrenchTool(**body.model_dump()))
    return WrenchToolOut(**body.model_dump())


@router.post("/gauges", summary="Add a gauge", responses=CONFLICT)
def add_gauge(body: GaugeToolBody, session: DbSession) -> GaugeToolOut:
    read = Collector()
    span = read.get(read_gauge_pressure, body.range, "range", low=1e-9)
    step = read.get(read_gauge_pressure, body.resolution, "resolution", low=1e-9)
    if span is not None and step is not None:
        read.require(step < span, "resolution", f"{body.resolution} is not finer than {body.range}")
    read.done()
    add_tool(session, GaugeTool(**body.model_dump()))
    return GaugeToolOut(**body.model_dump())
