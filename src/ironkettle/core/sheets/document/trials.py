"""Tests by kind, what is looked at as found and as left, when it is due again, and where waste goes."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, Literal, TypeAlias, get_args

from pydantic import BaseModel, BeforeValidator, Field

from ironkettle.core.base.text import Figure
from ironkettle.core.sheets.document.fields import (
    Flow,
    Item,
    Key,
    Named,
    Names,
    Pressure,
    Text,
    Time,
    Volume,
    Written,
)
from ironkettle.core.sheets.document.parts import Read


class TestKind(StrEnum):
    __test__ = False

    PRESSURE_HOLD = "pressure_hold"
    DRIFT = "drift"
    OPENING_PRESSURE = "opening_pressure"
    SET_POINT = "set_point"
    EFFORT = "effort"
    FRICTION = "friction"
    COUNT = "count"
    PUMP_UP = "pump_up"
    READING = "reading"
    FUNCTION = "function"


class Within(Item):
    """A limit over a time: creep, or dribble so far below the opening."""

    limit: Written | None = None
    within: Written | None = Field(default=None, alias="in")
    below: Written | None = None
    seconds: Annotated[Figure, Field(ge=0.1, le=1e6)] | None = None
    flow: Written | None = None


Repeats: TypeAlias = Annotated[int, Field(ge=1, le=100)] | None


class _Test(Named):
    """What every test has. ``when``: as found, as left, or both; ``photo``: a sheet or picture of it is attached, as of a laboratory."""

    __test__ = False

    when: Literal["as_found", "as_left", "both"] = "as_left"
    place: Literal["machine", "stand", "bench"] = "bench"
    zone: Key | None = None
    zones: list[Key] = Field(default_factory=list)
    after: Names = Field(default_factory=list)
    state: Text | None = None
    how: Text | None = None
    caution: Text | None = None
    corrected_by: Key | None = None
    photo: bool = False

    @property
    def all_zones(self) -> tuple[str, ...]:
        return (*(() if self.zone is None else (self.zone,)), *self.zones)


class HoldTest(_Test):
    """A pressure hold. ``glass``: the open port at which a measuring glass stands meanwhile."""

    kind: Literal[TestKind.PRESSURE_HOLD] = TestKind.PRESSURE_HOLD
    pressure: Pressure
    volume: Volume
    medium: Text
    leak_limit: Flow
    bulk_modulus_gpa: Annotated[Figure, Field(ge=0.01, le=10)] | None = None
    hold: Time | None = None
    glass: Text | None = None


class DriftTest(_Test):
    """How far a loaded rod drifts in a time."""

    kind: Literal[TestKind.DRIFT]
    limit: Written
    load: Written | None = None
    pressure: Pressure | None = None
    side: Literal["cap", "rod"] | None = None
    other_side: Literal["open", "shut"] | None = None
    volume: Volume | None = None
    medium: Text | None = None


class OpeningPressureTest(_Test):
    """At which pressure it opens, and closes again."""

    kind: Literal[TestKind.OPENING_PRESSURE]
    value: Written
    tolerance: Written | None = None
    repeats: Repeats = None
    spread: Written | None = None
    reseat: Written | None = None
    dribble: Within | None = None


class SetPointTest(_Test):
    """What it holds, and how it moves from there."""

    kind: Literal[TestKind.SET_POINT]
    value: Written
    tolerance: Written | None = None
    repeats: Repeats = None
    lock_up: Written | None = None
    creep: Within | None = None
    droop: Within | None = None
    hysteresis: Written | None = None


class EffortTest(_Test):
    """What it takes to draw, turn or push it."""

    kind: Literal[TestKind.EFFORT]
    value: Written
    tolerance: Written | None = None
    floor: Written | None = None
    ceiling: Written | None = None
    repeats: Repeats = None


class FrictionTest(_Test):
    """What it takes to start it, and to keep it going."""

    kind: Literal[TestKind.FRICTION]
    breakaway: Written
    running: Written | None = None


class CountTest(_Test):
    """What is counted in a time: drops, strokes."""

    kind: Literal[TestKind.COUNT]
    what: Text
    limit: Written
    settle: Written | None = None


class PumpUpTest(_Test):
    """How quickly it brings a volume to a pressure."""

    kind: Literal[TestKind.PUMP_UP]
    volume: Volume
    to: Written
    within: Written


class ReadingTest(_Test):
    """A figure that is read."""

    kind: Literal[TestKind.READING]
    quantity: Text
    limit: Written
    repeats: Repeats = None


class FunctionTest(_Test):
    """A sign that is seen."""

    kind: Literal[TestKind.FUNCTION]
    sign: Text
    seconds: Annotated[Figure, Field(ge=0.1, le=1e6)] | None = None
    repeats: Repeats = None


FiguresTest: TypeAlias = (
    DriftTest
    | OpeningPressureTest
    | SetPointTest
    | EffortTest
    | FrictionTest
    | CountTest
    | PumpUpTest
    | ReadingTest
    | FunctionTest
)
TestSpec: TypeAlias = HoldTest | FiguresTest
TESTS: tuple[type[BaseModel], ...] = get_args(TestSpec)


def _hold_where_not_named(value: object) -> object:
    """A test without a kind is a hold."""
    return {"kind": TestKind.PRESSURE_HOLD.value, **value} if isinstance(value, dict) else value


AnyTest = Annotated[TestSpec, Field(discriminator="kind"), BeforeValidator(_hold_where_not_named)]


class Observation(Named):
    """Something looked at as found and again as left."""

    unit: Text | None = None
    read: Read | None = None
    ask: Text | None = None


def _as_list(value: object) -> object:
    return [value] if isinstance(value, str) else value


class Interval(Item):
    """When it is due again, whichever comes first; ``steps`` makes it quick service. ``key`` where two are of the same."""

    key: Key | None = None
    of: Key = "unit"
    every: Annotated[list[Text], BeforeValidator(_as_list)] = Field(min_length=1)
    what: Literal["reseal", "look", "oil", "replace"]
    steps: Names = Field(default_factory=list)

    @property
    def name(self) -> str:
        """What it is called by: its key, or what is done to what."""
        return self.key or f"{self.what}-{self.of}"


class Disposal(Item):
    what: Text
    where: Text
