"""The build sheet, format 2: one open, versioned document per kind of unit. It carries facts, never code.

Quantities stay as text with their unit and are checked on reading, so a sheet goes out as it came in.
"""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import BeforeValidator, Field

from ironkettle.core.sheets.document.fastening import FastenerGroup, SettingSpec
from ironkettle.core.sheets.document.fields import (
    Item,
    Key,
    Keyed,
    Length,
    Names,
    Pressure,
    Strict,
    Temperature,
    Text,
    TolerancedLength,
)
from ironkettle.core.sheets.document.parts import LadderSpec, PartSpec, QuestionSpec
from ironkettle.core.sheets.document.places import ElementSpec, SeatSpec, StationSpec, ZoneSpec
from ironkettle.core.sheets.document.supplies import Kit
from ironkettle.core.sheets.document.trials import AnyTest, Disposal, Interval, Observation
from ironkettle.core.sheets.document.work import StepSpec
from ironkettle.core.shop.people import Authority

FORMAT_2 = "iron-kettle/build-sheet/2"


class Service(Strict):
    """What the unit works in."""

    medium: Literal["oil", "water", "air", "gas", "steam", "fuel", "fluid"]
    fluids: list[Text] = Field(default_factory=list)
    pressure: Pressure
    temperature: tuple[Temperature, Temperature] | None = None
    cleanliness: Literal["none", "potable", "food", "breathing", "oxygen"] = "none"


class View(Keyed):
    name: Text


class CylinderSpec(Strict):
    bore: TolerancedLength
    rod: TolerancedLength
    stroke: Length


class PositionSpec(Item):
    """What is there several times in one unit; the named items repeat, their keys become ``piston@1``."""

    key: Key
    name: Text
    of: Annotated[list[Key], BeforeValidator(lambda v: [str(mark) for mark in v] if isinstance(v, list) else v)] = (
        Field(min_length=2, max_length=24)
    )
    zones: Names = Field(default_factory=list)
    parts: Names = Field(default_factory=list)
    stations: Names = Field(default_factory=list)
    steps: Names = Field(default_factory=list)
    fasteners: Names = Field(default_factory=list)
    settings: Names = Field(default_factory=list)
    tests: Names = Field(default_factory=list)
    kits: Names = Field(default_factory=list)
    points: Names = Field(default_factory=list)
    marks: Names = Field(default_factory=list)
    questions: Names = Field(default_factory=list)


class Sheet(Strict):
    """Everything the application tells about a unit is computed from this document."""

    format: Literal["iron-kettle/build-sheet/2"]
    key: Key
    version: int = Field(ge=1, le=100_000)
    name: Text
    family: Text = Field(description="one of GET /api/sheets/choices")
    markings: list[Text] = Field(default_factory=list)
    like: list[Text] = Field(default_factory=list, description="words it is searched by")
    authority: Authority = Authority.NONE
    service: Service
    views: list[View] = Field(default_factory=list)
    questions: list[QuestionSpec] = Field(default_factory=list, max_length=40)
    cylinder: CylinderSpec | None = None
    zones: list[ZoneSpec] = Field(min_length=2, max_length=60)
    parts: list[PartSpec] = Field(default_factory=list, max_length=200)
    stations: list[StationSpec] = Field(default_factory=list, max_length=120)
    steps: list[StepSpec] = Field(min_length=1, max_length=400)
    ladders: list[LadderSpec] = Field(default_factory=list)
    kits: list[Kit] = Field(default_factory=list)
    fasteners: list[FastenerGroup] = Field(default_factory=list)
    settings: list[Annotated[SettingSpec, Field(discriminator="kind")]] = Field(default_factory=list)
    tests: list[AnyTest] = Field(default_factory=list)
    positions: list[PositionSpec] = Field(default_factory=list)
    observations: list[Observation] = Field(default_factory=list)
    intervals: list[Interval] = Field(default_factory=list)
    disposal: list[Disposal] = Field(default_factory=list)

    @property
    def seats(self) -> list[tuple[StationSpec, SeatSpec]]:
        return [(station, seat) for station in self.stations for seat in station.seats]

    @property
    def elements(self) -> list[tuple[StationSpec, SeatSpec, ElementSpec]]:
        return [(station, seat, element) for station, seat in self.seats for element in seat.elements]


def sheet_schema() -> dict[str, Any]:
    """The published JSON Schema of a build sheet."""
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **Sheet.model_json_schema()}


def document_of(sheet: Sheet) -> dict[str, Any]:
    """The sheet as a document to store or hand out: what says no more than the format does is left out."""
    document = sheet.model_dump(mode="json", by_alias=True, exclude_defaults=True)
    return {"format": FORMAT_2, "key": sheet.key, "version": sheet.version, **document}
