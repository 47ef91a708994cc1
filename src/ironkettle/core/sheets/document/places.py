"""Where a unit seals: zones, stations, seats with their figures, and the elements in them."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, Any, Literal

from pydantic import BeforeValidator, Field, model_validator

from ironkettle.core.sealing.catalogue import ElementKind
from ironkettle.core.sealing.facing import ZoneKind
from ironkettle.core.sealing.grooves import Medium, Motion, PressureDirection
from ironkettle.core.sheets.document.fields import (
    InnerDiameter,
    Item,
    Key,
    Length,
    Millimetres,
    Name,
    Named,
    Place,
    Strict,
    Text,
    TolerancedLength,
    ZonePressure,
)


class Seed(Strict):
    at: Place
    view: Key | None = None


class ZoneSpec(Named):
    """A pressure space, a drain, a vacuum or the open air; its seeds are points that lie in it."""

    kind: ZoneKind
    pressure: ZonePressure | None = None
    seed: Place | None = None
    view: Key | None = None
    seeds: list[Seed] = Field(default_factory=list)

    @property
    def all_seeds(self) -> tuple[Seed, ...]:
        own = () if self.seed is None else (Seed(at=self.seed, view=self.view),)
        return (*own, *self.seeds)


class SeatKind(StrEnum):
    PISTON = "piston"
    ROD = "rod"
    FACE = "face"
    BOX = "box"
    PRESS_IN = "press_in"
    CLAMPED = "clamped"
    SEAT = "seat"
    JOINT = "joint"


class RingName(Strict):
    series: Text
    designation: Text


def _ring(value: Any) -> Any:
    """``AS568 214`` as series and designation."""
    if isinstance(value, str):
        series, _, designation = value.strip().rpartition(" ")
        return {"series": series, "designation": designation}
    return value


class Never(Strict):
    """What must not be used with an element, and why: refused at fitting."""

    what: Text
    why: Text | None = None


class ElementSpec(Named):
    """One element of a seat. ``faces`` is the maker's own way round and outranks the rule, with ``why``."""

    kind: ElementKind
    part: Key | None = None
    ring: Annotated[RingName, BeforeValidator(_ring)] | None = None
    size: Text | None = None
    length: Length | None = None
    count: int = Field(default=1, ge=1, le=40)
    identify: bool = False
    one_use: bool | None = None
    easily_missed: bool = False
    faces: Key | None = None
    side: Text | None = None
    why: Text | None = None
    offset: Text | None = None
    depth_below: Length | None = None
    marks: Annotated[list[Text], BeforeValidator(lambda v: [v] if isinstance(v, str) else v)] = Field(
        default_factory=list
    )
    seals: bool | None = None
    lubricant: Text | None = None
    compound: Text | None = None
    hardness_shore_a: int | None = Field(default=None, ge=20, le=98)
    never: list[Never] = Field(default_factory=list)
    same_as: Name | None = None


class SeatSpec(Item):
    """The figures of a seat; quantities are diameters. ``at``: where it begins along the axis, in a face groove its floor. [mm]"""

    kind: SeatKind
    at: Millimetres | None = None
    bore: TolerancedLength | None = None
    rod: TolerancedLength | None = None
    shaft: TolerancedLength | None = None
    groove_diameter: TolerancedLength | None = None
    groove_width: TolerancedLength | None = None
    groove_depth: TolerancedLength | None = None
    length: TolerancedLength | None = None
    inner: InnerDiameter | None = None
    outer: TolerancedLength | None = None
    thickness: TolerancedLength | None = None
    diametral_clearance: TolerancedLength | None = None
    medium: Medium | None = None
    pressure_direction: PressureDirection | None = None
    hardness_shore_a: int = Field(default=70, ge=40, le=98)
    view: Key | None = None
    axis: Millimetres = 0.0
    elements: list[ElementSpec] = Field(default_factory=list)

    @model_validator(mode="after")
    def _has_its_figures(self) -> SeatSpec:
        missing = [name for name in NEEDS[self.kind] if getattr(self, name) is None]
        if missing:
            words = ", ".join(name.replace("_", " ") for name in missing)
            raise ValueError(f"a {self.kind.replace('_', '-')} seat needs {words}")
        return self


NEEDS: dict[SeatKind, tuple[str, ...]] = {
    SeatKind.PISTON: ("at", "bore", "groove_diameter", "groove_width"),
    SeatKind.ROD: ("at", "rod", "groove_diameter", "groove_width"),
    SeatKind.FACE: ("at", "groove_diameter", "groove_width", "groove_depth"),
    SeatKind.BOX: ("at", "bore", "shaft", "length"),
    SeatKind.PRESS_IN: ("at", "bore", "shaft", "length"),
    SeatKind.CLAMPED: ("at", "inner", "outer", "thickness"),
    SeatKind.SEAT: ("at", "inner", "outer", "thickness"),
    SeatKind.JOINT: ("at", "inner", "outer", "thickness"),
}


class StationMotion(StrEnum):
    STATIC = "static"
    RECIPROCATING = "reciprocating"
    ROTARY = "rotary"
    ROLLING = "rolling"

    @property
    def of_groove(self) -> Motion:
        """The motion the groove rules know: what rolls does not slide."""
        return Motion.STATIC if self is StationMotion.ROLLING else Motion(self.value)


class StationSpec(Named):
    """One place that seals between two zones: that at smaller z first; closed in z, the inner one first."""

    between: tuple[Key, Key]
    motion: StationMotion = StationMotion.STATIC
    carrier: Key | None = None
    counterface: Key | None = None
    entered_from: Key | None = None
    fitted: Literal["with_carrier", "in_place"] = "with_carrier"
    seats: list[SeatSpec] = Field(min_length=1)
