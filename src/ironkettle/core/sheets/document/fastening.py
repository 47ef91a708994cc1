"""Fasteners tightened alike, in phases; and what is set to a target."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, Literal

from pydantic import BeforeValidator, Field, model_validator

from ironkettle.core.base.quantities import turns_of
from ironkettle.core.base.text import Figure
from ironkettle.core.machine.tightening import Layout
from ironkettle.core.sheets.document.fields import Item, Key, Length, Name, Named, Strict, Text, Torque, Written


class PhaseTo(StrEnum):
    HAND = "hand"
    TORQUE = "torque"
    LOOSEN = "loosen"
    TURNS = "turns"
    STOP = "stop"
    SLOT = "slot"
    MARK = "mark"
    GAP = "gap"


Turns = Annotated[Figure, BeforeValidator(turns_of), Field(ge=0.001, le=50)]


class Phase(Item):
    """One way of tightening; several follow each other. ``at``: the step where it happens, where the group is split.

    ``noted_at``: the step whose note tells the torque, where the sheet has no figure of its own.
    """

    to: PhaseTo
    low: Torque | None = None
    high: Torque | None = None
    target: Torque | None = None
    tolerance_pct: Annotated[Figure, Field(ge=0.1, lt=50)] | None = None
    passes_pct: list[Annotated[Figure, Field(ge=1, le=100)]] = Field(
        default_factory=lambda: [100.0], min_length=1, max_length=10
    )
    turns: Turns | tuple[Turns, Turns] | None = None
    back: bool = False
    slots: int | None = Field(default=None, ge=1, le=60)
    mark: Key | None = None
    gap: tuple[Length, Length] | None = None
    at: Name | None = None
    noted_at: Name | None = None
    why: Text | None = None
    caution: Text | None = None

    @model_validator(mode="after")
    def _has_its_figures(self) -> Phase:
        figures = (self.low, self.high, self.target)
        if self.noted_at is not None and (self.to is not PhaseTo.TORQUE or any(figures)):
            raise ValueError("noted_at is for a torque without figures of its own")
        if self.to is PhaseTo.TORQUE and self.noted_at is None and self.target is None and None in figures[:2]:
            raise ValueError("a torque needs low and high, or target, or noted_at")
        if self.to is PhaseTo.TORQUE and self.target is not None and (self.low is not None or self.high is not None):
            raise ValueError("give low and high, or target, not both")
        needed = {PhaseTo.TURNS: "turns", PhaseTo.SLOT: "slots", PhaseTo.MARK: "mark", PhaseTo.GAP: "gap"}.get(self.to)
        if needed is not None and getattr(self, needed) is None:
            raise ValueError(f"needs {needed}")
        if self.passes_pct[-1] != 100 or any(
            a >= b for a, b in zip(self.passes_pct, self.passes_pct[1:], strict=False)
        ):
            raise ValueError("passes must rise and the last must be 100: 30, 70, 100")
        return self


class ScrewPlace(Strict):
    """Which numbers of the pattern take which screw, where they differ."""

    numbers: list[Annotated[int, Field(ge=1, le=64)]] = Field(min_length=1)
    screw: Text


class FastenerGroup(Named):
    part: Name | None = None
    count: int = Field(default=1, ge=1, le=64)
    layout: Layout = Layout.SINGLE
    thread: Text | None = None
    grade: Text | None = None
    condition: Text | None = None
    soft_thread: bool = False
    locking: Text | None = None
    one_use: bool = False
    places: list[ScrewPlace] = Field(default_factory=list)
    phases: list[Phase] = Field(min_length=1)


class Adjuster(Strict):
    thread: Text | None = None
    sense: Literal["clockwise_raises", "clockwise_lowers"]
    locked_by: Text | None = None


class Preset(Strict):
    """From the bottom so many turns back. [turns]"""

    bottom: Literal["clockwise", "counter_clockwise"]
    turns: Annotated[Figure, Field(ge=0, le=50)]
    tolerance: Annotated[Figure, Field(ge=0.001, le=10)] = 0.1
    leaves: Text | None = None


class Edge(Strict):
    """Open until the sign shows, close until it is gone, then so much further. [deg]"""

    open: Literal["clockwise", "counter_clockwise"]
    sign: Text
    close_plus_deg: Annotated[Figure, Field(ge=0, le=720)]
    tolerance_deg: Annotated[Figure, Field(ge=0.1, le=180)] = 5.0


class Target(Strict):
    reading: Literal["pressure", "effort", "flow", "length"]
    value: Written
    floor: Written | None = None
    ceiling: Written | None = None


class Contact(Strict):
    until: Text


class SettingSpec(Named):
    """Something adjusted to a target; the field of its kind holds the figures."""

    kind: Literal["preset", "edge", "target", "contact"]
    adjuster: Adjuster | None = None
    preset: Preset | None = None
    edge: Edge | None = None
    target: Target | None = None
    contact: Contact | None = None
    caution: Text | None = None
    why: Text | None = None

    @model_validator(mode="after")
    def _has_its_figures(self) -> SettingSpec:
        if getattr(self, self.kind) is None:
            raise ValueError(f"a setting of kind {self.kind} needs {self.kind}")
        return self
