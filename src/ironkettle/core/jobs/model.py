"""A move: one thing to do, what it asks a person for, and the entry that completes it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import StrEnum
from typing import Any

from ironkettle.core.sheets.document.parts import Read


class Chapter(StrEnum):
    """The chapters of a job, in the order they are worked."""

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


CHAPTER_WORD = {
    Chapter.INTAKE: "intake",
    Chapter.AS_FOUND: "as found",
    Chapter.SAFE: "make safe",
    Chapter.STRIP: "strip-down",
    Chapter.INSPECT: "inspect",
    Chapter.MATCH: "match",
    Chapter.KIT: "kit check",
    Chapter.REBUILD: "rebuild",
    Chapter.SET: "set",
    Chapter.TEST: "test",
    Chapter.RELEASE: "release",
}
STAGE_CHAPTER = {
    "safe": Chapter.SAFE, "strip": Chapter.STRIP, "clean": Chapter.INSPECT, "rebuild": Chapter.REBUILD,
}  # fmt: skip


class Kind(StrEnum):
    ANSWER = "answer"
    STEP = "step"
    FIND = "find"
    CAUSE = "cause"
    MEASURE = "measure"
    IDENTIFY = "identify"
    COUNT = "count"
    ORDER = "order"
    RECEIVE = "receive"
    FIT = "fit"
    TIGHTEN = "tighten"
    TIMER = "timer"
    SET = "set"
    OBSERVE = "observe"
    TEST = "test"
    ACCOUNT = "account"
    DISPOSE = "dispose"
    SIGN = "sign"


# What the main button of a move says.
ACTION_WORD = {
    Kind.ANSWER: "That is it",
    Kind.STEP: "Done",
    Kind.FIND: "Record it as found",
    Kind.CAUSE: "That is the cause",
    Kind.MEASURE: "Record the readings",
    Kind.IDENTIFY: "Take this size",
    Kind.COUNT: "Kit counted",
    Kind.ORDER: "Done",
    Kind.RECEIVE: "They have come",
    Kind.FIT: "Fitted",
    Kind.TIGHTEN: "Tightened",
    Kind.TIMER: "Cut it short",
    Kind.SET: "Set",
    Kind.OBSERVE: "Note it",
    Kind.TEST: "Record the result",
    Kind.ACCOUNT: "Accounted for",
    Kind.DISPOSE: "Done",
    Kind.SIGN: "Sign and release",
}


class Status(StrEnum):
    DONE = "done"
    NEXT = "next"
    OPEN = "open"
    WAITING = "waiting"
    BLOCKED = "blocked"
    SKIPPED = "skipped"
    DEPENDS = "depends"


@dataclass(frozen=True, slots=True)
class Choice:
    """``only``: offered while other fields of the move hold these choices."""

    key: str
    says: str
    sign: str | None = None
    only: Mapping[str, str] | None = None


@dataclass(frozen=True, slots=True)
class Ask:
    """A field a person fills in. ``field`` is its dotted path in the payload; the right choice comes first.

    ``limit`` in ``unit``, both ends finite; ``proposed`` stands unless it is changed; ``needs``: what a trace must hold.
    """

    field: str
    read: Read
    label: str
    choices: tuple[Choice, ...] = ()
    unit: str | None = None
    limit: tuple[float, float] | None = None
    proposed: Any = None
    optional: bool = False
    needs: Mapping[str, float] | None = None
    hint: str | None = None


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
class Move:
    """One thing to do. ``place``: the station or part the drawing goes to; ``entry``: the payload that completes it.

    ``hold``: in words, how it is gripped, kept from turning, or in what state it is tested; ``shows``: a figure to know before it is done; ``tray``: where what comes off goes;
    ``ladder``: what to try when it will not come, the gentlest first, and ``stop``, where to end it; ``photo``: the sheet wants one here.
    """

    key: str
    stage: Chapter
    kind: Kind
    subject: str
    text: str
    entry: Mapping[str, Any]
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
    status: Status = Status.OPEN
    blocked_by: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Draft:
    """A move before its status is known: what must be done first, with the words for it, and whether it is done.

    ``step``: the step it belongs to, in whose place it is listed.
    """

    move: Move
    done: bool = False
    skipped: bool = False
    waits: bool = False
    step: str | None = None
    after: Mapping[str, str] = field(default_factory=dict)
