"""The build sheet: one open, versioned document per kind of unit. It carries facts, never code.

Quantities stay as text with their unit (``50 mm +0.03/-0``) and are checked on reading, so a sheet
goes out as it came in. Drawing coordinates are plain millimetres: z along the axis, r off it.
"""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from ironkettle.core.base.text import Figure
from ironkettle.core.machine.tightening import Layout
from ironkettle.core.sealing.catalogue import ElementKind
from ironkettle.core.sealing.facing import ZoneKind
from ironkettle.core.sealing.grooves import Medium, Motion, PressureDirection, Seat
from ironkettle.core.sheets.document.fields import Flow, Key, Length, Pressure, Text, TolerancedLength, Torque, Volume
from ironkettle.core.shop.people import Authority

FORMAT = "iron-kettle/build-sheet/1"


Place = Annotated[Figure, Field(ge=-5000, le=5000)]
Point = tuple[Place, Annotated[Figure, Field(ge=0, le=5000)]]


class _Strict(BaseModel):
    model_config = ConfigDict(extra="forbid", frozen=True)


class Ratings(_Strict):
    pressure: Pressure
    fluids: list[Text] = Field(min_length=1)
    temperature_max: Text | None = None


class CylinderSpec(_Strict):
    bore: TolerancedLength
    rod: TolerancedLength
    stroke: Length


class ZoneSpec(_Strict):
    key: Key
    name: Text
    kind: ZoneKind
    pressure: Pressure | None = None
    areas: list[list[Point]] = Field(default_factory=list, description="filled polygons, z and r in mm")


class SeatSpec(_Strict):
    """Groove geometry of a station; what a seat needs is checked with the groove rules."""

    kind: Seat
    groove_diameter: TolerancedLength
    groove_width: TolerancedLength
    bore: TolerancedLength | None = None
    rod: TolerancedLength | None = None
    groove_depth: TolerancedLength | None = None
    diametral_clearance: TolerancedLength | None = None
    medium: Medium = Medium.LIQUID
    pressure_direction: PressureDirection = PressureDirection.ONE_SIDE
    hardness_shore_a: int = Field(default=70, ge=40, le=98)


class RingName(_Strict):
    series: Text
    designation: Text


class ElementSpec(_Strict):
    """``slot_mm``: where it lies along the axis; ``identify``: its size is to be found by measuring."""

    key: Key
    name: Text
    kind: ElementKind
    slot_mm: tuple[Place, Place]
    ring: RingName | None = None
    identify: bool = False
    one_use: bool = True
    easily_missed: bool = False
    lubricant: Text | None = None


class StationSpec(_Strict):
    """One place that seals; ``between`` names the zones from small z to large z."""

    key: Key
    name: Text
    between: tuple[Key, Key]
    motion: Motion = Motion.STATIC
    entered_from: Key | None = None
    seat: SeatSpec
    elements: list[ElementSpec] = Field(min_length=1)


class StepSpec(_Strict):
    """One step of work; ``after`` names the steps that must come before it, ``why`` the reason."""

    key: Key
    stage: Literal["safe", "strip", "rebuild"]
    text: Text
    after: list[Key] = Field(default_factory=list)
    why: Text | None = None
    caution: Text | None = None
    tools: list[Text] = Field(default_factory=list)
    note: Text | None = Field(default=None, description="what to write down at this step, if anything")
    shows: Literal["oil_to_drain", "blocked_rod_pressure"] | None = Field(
        default=None, description="a sum to show at this step, made from the sheet's cylinder"
    )


class KitLine(_Strict):
    key: Key
    name: Text
    count: int = Field(ge=1, le=999)
    element: Key | None = None
    one_use: bool = True
    alternative_group: Key | None = Field(default=None, description="of lines with the same group one is used")


class Kit(_Strict):
    number: Text
    name: Text
    lines: list[KitLine] = Field(min_length=1)


class FastenerGroup(_Strict):
    """A group tightened alike: either ``low`` and ``high``, or ``target``."""

    key: Key
    name: Text
    count: int = Field(ge=1, le=64)
    layout: Layout
    low: Torque | None = None
    high: Torque | None = None
    target: Torque | None = None
    passes_pct: list[Annotated[float, Field(gt=0, le=100)]] = Field(default_factory=lambda: [100.0], min_length=1)
    thread: Text | None = None
    grade: Text | None = None
    condition: Text | None = None
    soft_thread: bool = False
    locking: Text | None = None


class TestSpec(_Strict):
    """A pressure hold on one zone."""

    __test__ = False

    key: Key
    name: Text
    zone: Key
    pressure: Pressure
    volume: Volume
    medium: Text
    bulk_modulus_gpa: float | None = Field(default=None, gt=0, le=10)
    leak_limit: Flow
    how: Text
    caution: Text | None = None


class Observation(_Strict):
    """Something looked at as found and again as left."""

    key: Key
    name: Text
    unit: Text | None = None


class DrawnPart(_Strict):
    """A solid of revolution: its half outline in mm, mirrored about the axis when drawn."""

    key: Key
    name: Text
    material: Literal["housing", "moving", "fastener"] = "housing"
    outline: list[Point] = Field(min_length=3)


class DrawingSpec(_Strict):
    parts: list[DrawnPart] = Field(min_length=1)


class BuildSheet(_Strict):
    """Everything the application tells about a unit is computed from this document."""

    format: Literal["iron-kettle/build-sheet/1"]
    key: Key
    version: int = Field(ge=1, le=100_000)
    name: Text
    family: Text
    markings: list[Text] = Field(default_factory=list)
    authorised_release: bool = False
    authority: Authority | None = None
    ratings: Ratings
    cylinder: CylinderSpec | None = None
    zones: list[ZoneSpec] = Field(min_length=2)
    stations: list[StationSpec] = Field(min_length=1)
    steps: list[StepSpec] = Field(min_length=1)
    kits: list[Kit] = Field(default_factory=list)
    fasteners: list[FastenerGroup] = Field(default_factory=list)
    observations: list[Observation] = Field(default_factory=list)
    tests: list[TestSpec] = Field(default_factory=list)
    drawing: DrawingSpec
    service_interval: Text | None = None

    @property
    def release_authority(self) -> Authority:
        """What the person who releases it must hold."""
        if self.authority is not None:
            return self.authority
        return Authority.WORKSHOP if self.authorised_release else Authority.NONE

    def station_of(self, element: str) -> StationSpec | None:
        return next((s for s in self.stations if any(e.key == element for e in s.elements)), None)

    def element(self, key: str) -> ElementSpec | None:
        return next((e for s in self.stations for e in s.elements if e.key == key), None)

    def step(self, key: str) -> StepSpec | None:
        return next((step for step in self.steps if step.key == key), None)

    def group(self, key: str) -> FastenerGroup | None:
        return next((group for group in self.fasteners if group.key == key), None)

    def test(self, key: str) -> TestSpec | None:
        return next((test for test in self.tests if test.key == key), None)

    def zone(self, key: str) -> ZoneSpec | None:
        return next((zone for zone in self.zones if zone.key == key), None)

    @property
    def kit_lines(self) -> list[KitLine]:
        return [line for kit in self.kits for line in kit.lines]
