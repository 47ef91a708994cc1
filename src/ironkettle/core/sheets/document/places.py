"""Where a unit seals: zones, stations, seats with their figures, and the elements in them."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, Any, Literal, TypeAlias, get_args

from pydantic import BaseModel, BeforeValidator, Field

from ironkettle.core.base.quantities import Toleranced
from ironkettle.core.sealing.catalogue import ElementKind
from ironkettle.core.sealing.facing import ZoneKind
from ironkettle.core.sealing.grooves import Medium, Motion, PressureDirection
from ironkettle.core.sheets.document.fields import (
    InnerDiameter,
    Item,
    Key,
    Length,
    Measure,
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


# Seats whose elements follow each other along the axis; in the others they lie one round the other.
ALONG = frozenset({SeatKind.PISTON, SeatKind.ROD, SeatKind.BOX, SeatKind.PRESS_IN})


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


class OffsetSpec(Strict):
    """What of an element sits off centre: ``says`` names its short side, ``towards`` the zone that this side lies to.

    Written as a text alone it is how it must be, without a zone to point at.
    """

    says: Text
    towards: Name | None = None


def _offset(value: Any) -> Any:
    return {"says": value} if isinstance(value, str) else value


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
    offset: Annotated[OffsetSpec, BeforeValidator(_offset)] | None = None
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


class _Seat(Item):
    """What every seat has. ``at``: where it begins along the axis, in a face groove its floor. [mm]"""

    at: Millimetres
    view: Key | None = None
    axis: Millimetres = 0.0
    elements: list[ElementSpec] = Field(default_factory=list)


class _GrooveSeat(_Seat):
    """A groove that a ring lies in; quantities are diameters."""

    groove_diameter: TolerancedLength
    groove_width: TolerancedLength
    diametral_clearance: TolerancedLength | None = None
    medium: Medium | None = None
    pressure_direction: PressureDirection | None = None
    hardness_shore_a: int = Field(default=70, ge=40, le=98)


class PistonSeat(_GrooveSeat):
    """A groove in a piston, open outwards to a bore."""

    kind: Literal[SeatKind.PISTON]
    bore: TolerancedLength

    @property
    def edges(self) -> tuple[Measure[Toleranced], Measure[Toleranced], Measure[Toleranced]]:
        """Inner and outer diameter, and how long it is along the axis."""
        return self.groove_diameter, self.bore, self.groove_width


class RodSeat(_GrooveSeat):
    """A groove in a bore, open inwards to a rod."""

    kind: Literal[SeatKind.ROD]
    rod: TolerancedLength

    @property
    def edges(self) -> tuple[Measure[Toleranced], Measure[Toleranced], Measure[Toleranced]]:
        """Inner and outer diameter, and how long it is along the axis."""
        return self.rod, self.groove_diameter, self.groove_width


class FaceSeat(_GrooveSeat):
    """A groove in a face; ``groove_diameter``: of the wall that the ring rests on."""

    kind: Literal[SeatKind.FACE]
    groove_depth: TolerancedLength


class _BoxSeat(_Seat):
    """``shaft``: 0 where a whole disc fills the bore."""

    bore: TolerancedLength
    shaft: InnerDiameter
    length: TolerancedLength

    @property
    def edges(self) -> tuple[Measure[Toleranced], Measure[Toleranced], Measure[Toleranced]]:
        """Inner and outer diameter, and how long it is along the axis."""
        return self.shaft, self.bore, self.length


class BoxSeat(_BoxSeat):
    """A box between a bore and a shaft, in which elements are stacked."""

    kind: Literal[SeatKind.BOX]


class PressInSeat(_BoxSeat):
    """A bore that an element is pressed into, round a shaft."""

    kind: Literal[SeatKind.PRESS_IN]


class _DiscSeat(_Seat):
    inner: InnerDiameter
    outer: TolerancedLength
    thickness: TolerancedLength

    @property
    def edges(self) -> tuple[Measure[Toleranced], Measure[Toleranced], Measure[Toleranced]]:
        """Inner and outer diameter, and how long it is along the axis."""
        return self.inner, self.outer, self.thickness


class ClampedSeat(_DiscSeat):
    """Faces with something clamped between them."""

    kind: Literal[SeatKind.CLAMPED]


class ValveSeat(_DiscSeat):
    """A face that closes against a seat."""

    kind: Literal[SeatKind.SEAT]


class JointSeat(_DiscSeat):
    """Faces that seal against each other, or with something laid between."""

    kind: Literal[SeatKind.JOINT]


GrooveSeat: TypeAlias = PistonSeat | RodSeat | FaceSeat
SeatSpec: TypeAlias = GrooveSeat | BoxSeat | PressInSeat | ClampedSeat | ValveSeat | JointSeat
SEATS: tuple[type[BaseModel], ...] = get_args(SeatSpec)


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
    """One place that seals between two zones: that at smaller z first; closed in z, the inner one first.

    ``unproven``: why no test of the finished unit presses it, where none does.
    """

    between: tuple[Key, Key]
    motion: StationMotion = StationMotion.STATIC
    carrier: Key | None = None
    counterface: Key | None = None
    entered_from: Key | None = None
    fitted: Literal["with_carrier", "in_place"] = "with_carrier"
    unproven: Text | None = None
    seats: list[Annotated[SeatSpec, Field(discriminator="kind")]] = Field(min_length=1)
