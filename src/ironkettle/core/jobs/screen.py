"""The screens of tasks: a tagged union, made here with everything that is shown. The front end renders one component a kind."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, ConfigDict, Field, JsonValue

from ironkettle.core.machine.tightening import Layout


class Screen(BaseModel):
    """What the screen of a task is handed beside its text and its asks; ``kind`` names the component."""

    model_config = ConfigDict(frozen=True)


class AllAsShould(BaseModel):
    """One tap for a task where all is as it should be: what its button says, and the answer to each field.

    ``focus``: whether Enter takes it at once; not where a look or a count comes before it.
    """

    model_config = ConfigDict(frozen=True)

    words: str
    values: dict[str, JsonValue]
    focus: bool = True


class Pattern(BaseModel):
    """How the fasteners of a group lie."""

    model_config = ConfigDict(frozen=True)

    layout: Layout
    count: int = Field(ge=1, le=64)


class Dial(BaseModel):
    """How a nut is turned from its line, clockwise positive [deg]; ``slots`` it may come to; ``words`` for it."""

    model_config = ConfigDict(frozen=True)

    turn_deg: float
    slots: int | None
    words: str


class PlainScreen(Screen):
    """Its asks, one below the other; ``in_line``: each on one line with its label; ``neutral``: elements drawn without their direction;
    ``tray``: the part tray stands in the place of the drawing."""

    kind: Literal["plain"] = "plain"
    in_line: bool
    as_should: AllAsShould | None
    neutral: list[str] = Field(default_factory=list)
    tray: bool = False
