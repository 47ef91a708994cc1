"""POST /api/stacks/orient."""

from __future__ import annotations

from typing import Literal

from fastapi import APIRouter
from pydantic import BaseModel, Field

from ironkettle.api.base.problems import ERROR_RESPONSES
from ironkettle.api.base.schemas import Body, Collector, FindingOut, NameText, PressureText, findings_out
from ironkettle.core.base.quantities import read_gauge_pressure
from ironkettle.core.sealing.catalogue import ElementKind
from ironkettle.core.sealing.facing import Element, Orientation, Station, Zone, ZoneKind, orient

router = APIRouter(prefix="/api/stacks", tags=["stacks"], responses=ERROR_RESPONSES)


class ZoneBody(Body):
    key: NameText
    kind: ZoneKind
    pressure: PressureText | None = None
    name: NameText | None = None


class ElementBody(Body):
    key: NameText
    kind: ElementKind


class StationBody(Body):
    key: NameText
    between: tuple[NameText, NameText]
    motion: Literal["static", "reciprocating", "rotary"] = "static"
    elements: list[ElementBody] = Field(max_length=40)
    entered_from: NameText | None = None


class OrientBody(Body):
    zones: list[ZoneBody] = Field(max_length=40)
    stations: list[StationBody] = Field(max_length=60)
    as_found: dict[NameText, NameText] = Field(default_factory=dict, max_length=400)


class OrientedElementOut(BaseModel):
    key: str
    kind: ElementKind
    faces: str | None
    instruction: str


class OrientedStationOut(BaseModel):
    key: str
    elements: list[OrientedElementOut]
    fitting_order: list[str]
    removal_order: list[str]


class OrientOut(BaseModel):
    stations: list[OrientedStationOut]
    findings: list[FindingOut]


def orientation_out(orientation: Orientation) -> OrientOut:
    return OrientOut(
        stations=[
            OrientedStationOut(
                key=station.key,
                elements=[
                    OrientedElementOut(key=e.key, kind=e.kind, faces=e.faces, instruction=e.instruction)
                    for e in station.elements
                ],
                fitting_order=list(station.fitting_order),
                removal_order=list(station.removal_order),
            )
            for station in orientation.stations
        ],
        findings=findings_out(orientation.findings),
    )


@router.post("/orient", summary="Which way round each element goes, and in what order")
def orient_stacks(body: OrientBody) -> OrientOut:
    read = Collector()
    keys = [zone.key for zone in body.zones]
    zones = []
    for index, zone in enumerate(body.zones):
        read.require(keys.count(zone.key) == 1, f"zones.{index}.key", f"“{zone.key}” is used twice")
        pressure = read.get(read_gauge_pressure, zone.pressure, f"zones.{index}.pressure")
        needed = zone.kind is not ZoneKind.PRESSURE or zone.pressure is not None
        read.require(needed, f"zones.{index}.pressure", "is needed for a pressure zone", "bar", "psi", "MPa")
        zones.append(Zone(zone.key, zone.kind, pressure or 0.0, zone.name or ""))
    read.done()
    stations = tuple(
        Station(
            station.key,
            station.between,
            tuple(Element(element.key, element.kind) for element in station.elements),
            station.motion,
            station.entered_from,
        )
        for station in body.stations
    )
    return orientation_out(orient(tuple(zones), stations, body.as_found))
