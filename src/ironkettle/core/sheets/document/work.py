"""The steps of work: what each does to parts, stations, fasteners and settings, so that rules can reason."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import BeforeValidator, Field

from ironkettle.core.base.text import Figure
from ironkettle.core.sheets.document.fields import Key, Keyed, Name, Names, Strict, Text
from ironkettle.core.sheets.document.parts import PointName, Read


class StepNote(Strict):
    """Something to write down, and at which step it is asked again; ``page``: from the manual, whose page is written down too.

    A ``limit`` is what must be at the rebuild, and what can be expected before it. ``readings``: what is read one by one, by its name, where
    the limit is for how far they differ.
    """

    ask: Text
    read: Read = Read.TEXT
    again_at: Name | None = None
    limit: Text | None = None
    unit: Text | None = None
    page: bool = False
    readings: list[Text] = Field(default_factory=list, max_length=12)


def _note(value: Any) -> Any:
    return {"ask": value} if isinstance(value, str) else value


class MarkMade(Strict):
    """A mark across parts, to be met again at the rebuild; ``stays``: it is left on."""

    key: Key
    count: int = Field(default=1, ge=1, le=9)
    across: Names = Field(default_factory=list)
    stays: bool = False
    word: Text | None = None


class TimerSpec(Strict):
    """``early``: may be started long before its step; ``may_cut``: may be cut short with a reason."""

    key: Key
    minutes: Annotated[Figure, Field(ge=0.01, le=20_000)]
    what_for: Text | None = Field(default=None, alias="for")
    early: bool = False
    may_cut: bool = False


class FirstWork(Strict):
    """What is done before the seals of a step are fitted; ``takes``: the parts it puts on or handles, by key, and its tools in words."""

    takes: list[Text] = Field(default_factory=list)
    does: Text


class StepSpec(Keyed):
    """``after``: None for the step before it, an empty list for none. ``ahead_of``: put on before parts it would wait for;
    ``cleans``: parts cleaned of a ``soil``, by the cleaning table, with a ``cleaner`` of the list; ``hot``: heat comes with it.
    What its words give away counts too. ``first``: work before its seals are fitted; ``handles``: parts in hand that stay where they are."""

    stage: Literal["safe", "strip", "clean", "rebuild"]
    text: Text
    after: list[Name] | None = None
    why: Text | None = None
    caution: Text | None = None
    tools: list[Text] = Field(default_factory=list)
    consumables: list[Text] = Field(default_factory=list)
    note: Annotated[StepNote, BeforeValidator(_note)] | None = None
    hold: Text | None = None
    loosens: Names = Field(default_factory=list)
    relieves: Names = Field(default_factory=list)
    takes_off: Names = Field(default_factory=list)
    opens: Names = Field(default_factory=list)
    puts_on: Names = Field(default_factory=list)
    closes: Names = Field(default_factory=list)
    tightens: Names = Field(default_factory=list)
    sets: Names = Field(default_factory=list)
    ahead_of: Names = Field(default_factory=list)
    reads: list[PointName] = Field(default_factory=list)
    cleans: Names = Field(default_factory=list)
    soil: Text | None = None
    cleaner: Text | None = None
    hot: bool = False
    runs: Names = Field(default_factory=list)
    mark: MarkMade | None = None
    meets: Names = Field(default_factory=list)
    align: Text | None = None
    photo: bool = False
    shows: Text | None = None
    timer: TimerSpec | None = None
    free: Text | None = None
    again_after_pressure: bool | None = None
    each: bool = False
    first: FirstWork | None = None
    handles: Names = Field(default_factory=list)
    lubricant: Text | None = None
