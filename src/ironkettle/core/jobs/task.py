"""A task: one thing to do, what it asks a person for, and the entry that completes it."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from datetime import datetime
from enum import StrEnum

from pydantic import JsonValue

from ironkettle.core.base.json import Json
from ironkettle.core.jobs.ask import Ask
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.screen import AllAsShould, PlainScreen, Screen
from ironkettle.core.sheets.document.parts import Read
from ironkettle.core.sheets.document.work import StepSpec
from ironkettle.core.shop.settings import Held


class Stage(StrEnum):
    """The stages of a job, in the order they are worked."""

    INTAKE = "intake"
    AS_FOUND = "as_found"
    SAFE = "safe"
    STRIP = "strip"
    INSPECT = "inspect"
    MATCH = "match"
    KIT = "kit"
    REBUILD = "rebuild"
    SET = "set"
    TEST = "test"
    RELEASE = "release"


STAGE_WORD = {
    Stage.INTAKE: "intake",
    Stage.AS_FOUND: "as found",
    Stage.SAFE: "make safe",
    Stage.STRIP: "strip-down",
    Stage.INSPECT: "inspect",
    Stage.MATCH: "match",
    Stage.KIT: "kit check",
    Stage.REBUILD: "rebuild",
    Stage.SET: "set",
    Stage.TEST: "test",
    Stage.RELEASE: "release",
}
_STAGE_OF_STEP = {"safe": Stage.SAFE, "strip": Stage.STRIP, "clean": Stage.INSPECT, "rebuild": Stage.REBUILD}
_LAST = 99


def stage_of(step: StepSpec) -> Stage:
    """The stage of a job that a step of the sheet is worked in: one whose timer may begin early is offered before anything is touched."""
    return Stage.AS_FOUND if step.timer is not None and step.timer.early else _STAGE_OF_STEP[step.stage]


def plain_screen(case: Case, task: Task) -> Screen:
    """The asks of a task; in a quick service one tap where all is as it should be."""
    return PlainScreen(in_line=False, as_should=all_as_should(case, task))


_GOOD: dict[Read, JsonValue] = {Read.LOOK: "none", Read.YES_NO: True, Read.GO_NO_GO: True}


def all_as_should(case: Case, task: Task) -> AllAsShould | None:
    """What a quick service offers at one tap; None for a full job, and where something is measured, chosen or signed."""
    needed = [ask for ask in task.asks if not ask.optional and ask.proposed is None]
    if case.resolved.quick_service is None or not needed or any(ask.read not in _GOOD for ask in needed):
        return None
    words = "; ".join(f"{'As it should be' if ask.read is Read.LOOK else 'Yes'}: {ask.label}" for ask in needed)
    return AllAsShould(words=words, values={ask.field: _GOOD[ask.read] for ask in needed})


@dataclass(frozen=True, slots=True)
class TaskKind:
    """What is known of every task of a kind.

    ``action``: what its main button says. ``rank``: its place within its step, what is fitted before the step first. ``rides``: it comes
    right after its step, and what waits for the step waits for it too. ``beside_riders``: it waits for its step alone, not for what
    else rides on it. ``waits``: what the bench list says while it is the next one and only waits. ``skippable``: it may be skipped
    with a reason. ``signs``: its entry is a signature. ``screen``: what the screen of one of its tasks is handed.
    """

    key: str
    action: str
    rank: int = _LAST
    rides: bool = False
    beside_riders: bool = False
    waits: str = ""
    skippable: bool = True
    signs: bool = False
    screen: Callable[[Case, Task], Screen] = plain_screen


class Status(StrEnum):
    DONE = "done"
    NEXT = "next"
    OPEN = "open"
    WAITING = "waiting"
    BLOCKED = "blocked"
    SKIPPED = "skipped"
    DEPENDS = "depends"


@dataclass(frozen=True, slots=True)
class Rung:
    """One way of getting a part off that will not come; ``may``: what it may spoil; ``tried``: what came of it, in words."""

    part: str
    key: str
    do: str
    may: str | None = None
    caution: str | None = None
    never: str | None = None
    tried: str | None = None


@dataclass(frozen=True, slots=True)
class Task:
    """One thing to do. ``place``: the station or part the drawing goes to; ``entry``: the payload that completes it.

    ``hold``: in words, how it is gripped, kept from turning, or in what state it is tested; ``shows``: a figure to know before it is done; ``tray``: where what comes off goes;
    ``ladder``: what to try when it will not come, the gentlest first, and ``stop``, where to end it; ``photo``: the sheet wants one here.
    ``practice``: the practice option it rests on; ``again``: done, the unit can be taken apart again from here.
    ``lasts``: how long it takes at least, from the entry that begins it [s]; ``until``: when that is over, where it was begun.
    ``action``: what its main button says where that is not what its kind says.
    """

    key: str
    stage: Stage
    kind: TaskKind
    subject: str
    text: str
    entry: Mapping[str, Json]
    why: str | None = None
    caution: str | None = None
    tools: tuple[str, ...] = ()
    delicate: tuple[str, ...] = ()
    place: str | None = None
    hold: str | None = None
    shows: str | None = None
    tray: tuple[str, ...] = ()
    ladder: tuple[Rung, ...] = ()
    stop: str | None = None
    photo: bool = False
    asks: tuple[Ask, ...] = ()
    practice: Held | None = None
    again: bool = False
    lasts: float | None = None
    until: datetime | None = None
    action: str | None = None
    status: Status = Status.OPEN
    blocked_by: tuple[str, ...] = ()
    refusal: str = "blocked"


@dataclass(frozen=True, slots=True)
class Draft:
    """A task before its status is known: what must be done first, with the words for it, and whether it is done.

    ``step``: the step it belongs to, in whose place it is listed; ``place``: among those of one kind there. ``before``: what must wait for it, with the words
    for it; ``last``: it waits for everything; ``refusal``: the type of problem that what waits for it is answered with.
    """

    task: Task
    done: bool = False
    skipped: bool = False
    waits: bool = False
    step: str | None = None
    place: int = 0
    after: Mapping[str, str] = field(default_factory=dict)
    before: Mapping[str, str] = field(default_factory=dict)
    last: bool = False
    refusal: str = "blocked"
