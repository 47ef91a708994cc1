"""Fasteners tightened alike, in phases; and what is set to a target."""

from __future__ import annotations

from enum import StrEnum
from itertools import pairwise
from typing import Annotated, Literal, TypeAlias, get_args

from pydantic import BaseModel, BeforeValidator, Field, model_validator

from ironkettle.core.base.quantities import turns_of
from ironkettle.core.base.text import Figure
from ironkettle.core.machine.tightening import BARE_TARGET_PCT, Layout, TorqueRange
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


class _Phase(Item):
    """One way of tightening; several follow each other. ``at``: the step where it happens, where the group is split."""

    at: Name | None = None
    why: Text | None = None
    caution: Text | None = None


class TorquePhase(_Phase):
    """To a torque: between two figures, or to a target. ``noted_at``: the step whose note tells it, where the sheet has no figure."""

    to: Literal[PhaseTo.TORQUE]
    low: Torque | None = None
    high: Torque | None = None
    target: Torque | None = None
    tolerance_pct: Annotated[Figure, Field(ge=0.1, lt=50)] | None = None
    passes_pct: list[Annotated[Figure, Field(ge=1, le=100)]] = Field(
        default_factory=lambda: [100.0], min_length=1, max_length=10
    )
    noted_at: Name | None = None

    @model_validator(mode="after")
    def _has_its_figures(self) -> TorquePhase:
        ends = (self.low, self.high)
        if self.noted_at is not None and any((*ends, self.target)):
            raise ValueError("noted_at is for a torque without figures of its own")
        if self.noted_at is None and self.target is None and None in ends:
            raise ValueError("a torque needs low and high, or target, or noted_at")
        if self.target is not None and any(ends):
            raise ValueError("give low and high, or target, not both")
        if self.passes_pct[-1] != 100 or any(a >= b for a, b in pairwise(self.passes_pct)):
            raise ValueError("passes must rise and the last must be 100: 30, 70, 100")
        return self

    @property
    def tight(self) -> TorqueRange | None:
        """Between what a reading is tight: its range, else its target with the band at recording; None where a step tells it. [N·m]"""
        if self.target is not None:
            spread = self.target.value * (self.tolerance_pct or BARE_TARGET_PCT) / 100
            return TorqueRange(self.target.value - spread, self.target.value + spread)
        return None if self.low is None or self.high is None else TorqueRange(self.low.value, self.high.value)


class TurnsPhase(_Phase):
    """By so many turns, or between so many; ``back``: the other way."""

    to: Literal[PhaseTo.TURNS]
    turns: Turns | tuple[Turns, Turns]
    back: bool = False


class SlotPhase(_Phase):
    """To the nearest of so many slots; ``back``: the way it is turned there."""

    to: Literal[PhaseTo.SLOT]
    slots: int = Field(ge=1, le=60)
    back: bool = False


class MarkPhase(_Phase):
    """To a mark that was made before."""

    to: Literal[PhaseTo.MARK]
    mark: Key


class GapPhase(_Phase):
    """Until a gap is left."""

    to: Literal[PhaseTo.GAP]
    gap: tuple[Length, Length]


class PlainPhase(_Phase):
    """By hand, loosened again, or to the stop: without a figure."""

    to: Literal[PhaseTo.HAND, PhaseTo.LOOSEN, PhaseTo.STOP]


Phase: TypeAlias = TorquePhase | TurnsPhase | SlotPhase | MarkPhase | GapPhase | PlainPhase
PHASES: tuple[type[BaseModel], ...] = get_args(Phase)


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
    phases: list[Annotated[Phase, Field(discriminator="to")]] = Field(min_length=1)


class Adjuster(Strict):
    """``part``: what is turned, shown in the drawing; ``locked_by``: what is tightened on it afterwards, in words."""

    part: Name | None = None
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


class _Setting(Named):
    """Something adjusted to a target."""

    adjuster: Adjuster | None = None
    caution: Text | None = None
    why: Text | None = None


class PresetSetting(_Setting):
    kind: Literal["preset"]
    preset: Preset


class EdgeSetting(_Setting):
    kind: Literal["edge"]
    edge: Edge


class TargetSetting(_Setting):
    kind: Literal["target"]
    target: Target


class ContactSetting(_Setting):
    kind: Literal["contact"]
    contact: Contact


SettingSpec: TypeAlias = PresetSetting | EdgeSetting | TargetSetting | ContactSetting
SETTINGS: tuple[type[BaseModel], ...] = get_args(SettingSpec)
