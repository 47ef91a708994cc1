"""Tests by kind, what is looked at as found and as left, when it is due again, and where waste goes."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, Literal

from pydantic import BeforeValidator, Field, model_validator

from ironkettle.core.base.text import Figure
from ironkettle.core.machine.tests import TRIALS
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


class TestSpec(Named):
    """A test of one kind with the figures of that kind. ``when``: as found, as left, or both; ``glass``: the open port at which a
    measuring glass stands during a hold."""

    __test__ = False

    kind: TestKind = TestKind.PRESSURE_HOLD
    when: Literal["as_found", "as_left", "both"] = "as_left"
    place: Literal["machine", "stand", "bench"] = "bench"
    zone: Key | None = None
    zones: list[Key] = Field(default_factory=list)
    after: Names = Field(default_factory=list)
    state: Text | None = None
    how: Text | None = None
    caution: Text | None = None
    corrected_by: Key | None = None
    pressure: Pressure | None = None
    volume: Volume | None = None
    medium: Text | None = None
    bulk_modulus_gpa: Annotated[Figure, Field(ge=0.01, le=10)] | None = None
    leak_limit: Flow | None = None
    hold: Time | None = None
    glass: Text | None = None
    load: Written | None = None
    side: Literal["cap", "rod"] | None = None
    other_side: Literal["open", "shut"] | None = None
    limit: Written | None = None
    value: Written | None = None
    tolerance: Written | None = None
    repeats: int | None = Field(default=None, ge=1, le=100)
    spread: Written | None = None
    reseat: Written | None = None
    dribble: Within | None = None
    lock_up: Written | None = None
    creep: Within | None = None
    droop: Within | None = None
    hysteresis: Written | None = None
    floor: Written | None = None
    ceiling: Written | None = None
    breakaway: Written | None = None
    running: Written | None = None
    what: Text | None = None
    settle: Written | None = None
    to: Written | None = None
    within: Written | None = None
    quantity: Text | None = None
    sign: Text | None = None
    seconds: Annotated[Figure, Field(ge=0.1, le=1e6)] | None = None

    @model_validator(mode="after")
    def _has_its_figures(self) -> TestSpec:
        missing = [name for name in _needs(self.kind) if getattr(self, name) is None]
        if missing:
            words = ", ".join(name.replace("_", " ") for name in missing)
            raise ValueError(f"a test of kind {self.kind.replace('_', ' ')} needs {words}")
        return self

    @property
    def all_zones(self) -> tuple[str, ...]:
        return (*(() if self.zone is None else (self.zone,)), *self.zones)


_HOLD_NEEDS = ("pressure", "volume", "medium", "leak_limit")


def _needs(kind: TestKind) -> tuple[str, ...]:
    """The figures without which a kind says nothing; what the unit's cylinder tells is not among them."""
    trial = TRIALS.get(kind)
    if trial is None:
        return _HOLD_NEEDS
    required = (name for name, one in trial.criteria.model_fields.items() if one.is_required())
    return tuple(name for name in required if name in TestSpec.model_fields)


class Observation(Named):
    """Something looked at as found and again as left."""

    unit: Text | None = None
    read: Read | None = None
    ask: Text | None = None


def _as_list(value: object) -> object:
    return [value] if isinstance(value, str) else value


class Interval(Item):
    """When it is due again, whichever comes first; ``steps`` makes it quick care. ``key`` where two are of the same."""

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
