"""A move as the screens and scripts get it: what it asks, the entry that completes it, what was recorded for it."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import datetime
from typing import Any
from uuid import UUID

from pydantic import BaseModel

from ironkettle.api.jobs.task_facts import (
    DialOut,
    HoldTestOut,
    SettingOut,
    TrialTestOut,
    dial_of,
    groove_of,
    hold_of,
    pattern_of,
    setting_of,
    torque_of,
    trial_of,
)
from ironkettle.api.machine.tightening import PatternBody, TorquePlanBody
from ironkettle.api.sealing.grooves import GrooveBody
from ironkettle.core.jobs import Ask, Case, Mark, Marked, Stage, Status, Task, payload_words, signed_words
from ironkettle.core.jobs.inspecting import NOTHING_SEEN
from ironkettle.core.jobs.kinds.skip import GROUND_WORD, SKIPPED, danger_of, may_be_skipped
from ironkettle.core.jobs.registry import task_key_of
from ironkettle.core.jobs.state import Payload
from ironkettle.core.sheets.document.parts import Read
from ironkettle.core.shop.settings import Held


class ChoiceOut(BaseModel):
    key: str
    says: str
    sign: str | None
    only: dict[str, str] | None


class AskOut(BaseModel):
    """A field a person fills in. ``field`` is its dotted path in the payload; the right choice comes first."""

    field: str
    read: str
    label: str
    choices: list[ChoiceOut]
    unit: str | None
    limit: tuple[float, float] | None
    proposed: Any
    optional: bool
    needs: dict[str, float] | None
    hint: str | None

    @classmethod
    def of(cls, ask: Ask) -> AskOut:
        return cls(
            field=ask.field,
            read=ask.read.value,
            label=ask.label,
            choices=[
                ChoiceOut(key=one.key, says=one.says, sign=one.sign, only=None if one.only is None else dict(one.only))
                for one in ask.choices
            ],
            unit=ask.unit,
            limit=ask.limit,
            proposed=ask.proposed,
            optional=ask.optional,
            needs=None if ask.needs is None else dict(ask.needs),
            hint=ask.hint,
        )


class RecordedOut(BaseModel):
    """What was recorded for a move, by whom and when; ``entry`` is the entry to strike out."""

    entry: UUID
    words: str
    who: str
    when: datetime
    signed: str | None


class GroundOut(BaseModel):
    key: str
    words: str


class RungOut(BaseModel):
    """``tried``: what came of it, once it was tried."""

    part: str
    key: str
    do: str
    may: str | None
    caution: str | None
    never: str | None
    tried: str | None


class SchoolOut(BaseModel):
    """A choice of the house that a move rests on, and the other ways in a line."""

    name: str
    way: str
    told: str

    @classmethod
    def of(cls, held: Held | None) -> SchoolOut | None:
        return None if held is None else cls(name=held.school.name, way=held.way.words, told=held.told)


class AsShouldOut(BaseModel):
    """The answers of a move where all is as it should be: one tap of a quick care."""

    words: str
    values: dict[str, Any]


class TaskOut(BaseModel):
    """One thing to do. ``entry`` with its ``asks`` filled in completes it.

    ``signs``: a PIN is needed beside it; ``passable``: it can be passed over with a reason, on one of the
    ``grounds`` where ``danger`` tells what can hurt; ``action``: what its main button says; ``again``: the unit can be
    taken apart again from here; ``school``: the choice of the house it rests on. ``groove``: of the
    element whose size is to be found; ``view``: of the drawing
    that its place lies in; ``torque``: the body that the plan of a torque is asked with; ``hold_test``: of a pressure hold;
    ``trial``: of a test told in figures; ``setting``: of what is adjusted; ``pattern`` and ``dial``: of what is tightened;
    ``as_should``: what one tap answers in a quick care.
    """

    key: str
    stage: Stage
    kind: str
    subject: str
    text: str
    why: str | None
    caution: str | None
    tools: list[str]
    delicate: list[str]
    place: str | None
    view: str | None
    hold: str | None
    shows: str | None
    tray: list[str]
    ladder: list[RungOut]
    stop: str | None
    photo: bool
    status: Status
    blocked_by: list[str]
    asks: list[AskOut]
    entry: dict[str, Any]
    signs: bool
    recorded: RecordedOut | None
    passable: bool
    grounds: list[GroundOut]
    danger: str | None
    action: str
    again: bool
    groove: GrooveBody | None
    torque: TorquePlanBody | None
    hold_test: HoldTestOut | None
    trial: TrialTestOut | None
    setting: SettingOut | None
    pattern: PatternBody | None
    dial: DialOut | None
    school: SchoolOut | None
    as_should: AsShouldOut | None


def name_of(mark: Mark, names: Mapping[str, str]) -> str:
    return mark.name or names.get(mark.who, mark.who)


def recorded_by_task(case: Case, names: Mapping[str, str]) -> dict[str, RecordedOut]:
    """By move, what was recorded for it last."""
    found: dict[str, Marked[Payload]] = {}
    for book in case.state.books.values():
        for marked in book.values():
            key = task_key_of(marked.value)
            if key is not None:
                found[key] = marked
    # One that was passed over and done later is told as done.
    for key, skipped in case.state.book(SKIPPED).items():
        found.setdefault(key, Marked(skipped.value, skipped.mark))
    return {
        key: RecordedOut(
            entry=one.mark.entry,
            words=payload_words(case.resolved, one.value),
            who=name_of(one.mark, names),
            when=one.mark.when,
            signed=signed_words(one.mark.signature),
        )
        for key, one in found.items()
    }


def task_out(case: Case, move: Task, recorded: RecordedOut | None) -> TaskOut:
    passable = may_be_skipped(move)
    danger = danger_of(case, move.key) if passable else None
    return TaskOut(
        key=move.key,
        stage=move.stage,
        kind=move.kind.key,
        subject=move.subject,
        text=move.text,
        why=move.why,
        caution=move.caution,
        tools=list(move.tools),
        delicate=list(move.delicate),
        place=move.place,
        view=_view_of(case, move.place),
        hold=move.hold,
        shows=move.shows,
        tray=list(move.tray),
        ladder=[RungOut(**{name: getattr(one, name) for name in RungOut.model_fields}) for one in move.ladder],
        stop=move.stop,
        photo=move.photo,
        status=move.status,
        blocked_by=list(move.blocked_by),
        asks=[AskOut.of(ask) for ask in move.asks],
        entry=dict(move.entry),
        signs=move.kind.signs,
        recorded=recorded,
        passable=passable,
        grounds=[GroundOut(key=key, words=words) for key, words in GROUND_WORD.items()] if danger else [],
        danger=danger,
        action=move.kind.action,
        again=move.again and move.status is Status.DONE,
        groove=groove_of(case, move.subject) if move.kind.key == "identify" else None,
        torque=torque_of(case, move) if move.kind.key == "tighten" else None,
        school=SchoolOut.of(move.practice),
        hold_test=hold_of(case, move) if move.kind.key == "test" else None,
        trial=trial_of(case, move) if move.kind.key == "test" else None,
        setting=setting_of(case, move) if move.kind.key == "set" else None,
        pattern=pattern_of(case, move) if move.kind.key == "tighten" else None,
        dial=dial_of(case, move) if move.kind.key == "tighten" else None,
        as_should=_as_should(case, move),
    )


_GOOD: dict[Read, Any] = {Read.LOOK: NOTHING_SEEN, Read.YES_NO: True, Read.GO_NO_GO: True}


def _as_should(case: Case, move: Task) -> AsShouldOut | None:
    """What a quick care offers at one tap; None for a full job, and where something is measured, chosen or signed."""
    needed = [ask for ask in move.asks if not ask.optional and ask.proposed is None]
    if case.resolved.care is None or not needed or any(ask.read not in _GOOD for ask in needed):
        return None
    words = "; ".join(f"{'Nothing of the kind' if ask.read is Read.LOOK else 'Yes'}: {ask.label}" for ask in needed)
    return AsShouldOut(words=words, values={ask.field: _GOOD[ask.read] for ask in needed})


def _view_of(case: Case, place: str | None) -> str | None:
    """The view of the drawing that a station lies in; None for what is no station, or where there is but one."""
    views = case.resolved.whole.views
    station = case.resolved.stations.get(place or "")
    if station is None or len(views) < 2:
        return None
    return next((seat.view for seat in station.seats if seat.view), views[0].key)
