"""A task as the screens and scripts get it: what it asks, the entry that completes it, what was recorded for it."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import datetime
from typing import Any
from uuid import UUID

from pydantic import BaseModel

from ironkettle.core.base.quantities import seconds_words
from ironkettle.core.jobs import Ask, Case, Mark, Marked, Stage, Status, Task, payload_words, signed_words
from ironkettle.core.jobs.away import away_after
from ironkettle.core.jobs.filling import records_of
from ironkettle.core.jobs.kinds.begin import begin_entry
from ironkettle.core.jobs.kinds.skip import GROUND_WORD, SKIPPED, danger_of, may_be_skipped
from ironkettle.core.jobs.pressed import pressed_at
from ironkettle.core.jobs.registry import AnyScreen, task_key_of
from ironkettle.core.jobs.state import Payload
from ironkettle.core.sheets.drawing.section import view_of
from ironkettle.core.shop.settings import Held


class ChoiceOut(BaseModel):
    key: str
    says: str
    sign: str | None
    only: dict[str, str] | None


class AskOut(BaseModel):
    """A field a person fills in. ``field`` is its dotted path in the payload; choices stand in the order of the drawing or the sheet.

    ``right``: what a careful hand answers, where the sheet knows it: for scripts, never for a screen.
    """

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
    right: Any

    @classmethod
    def of(cls, ask: Ask) -> AskOut:
        return cls(
            field=ask.field,
            read=ask.read.value,
            label=ask.label,
            choices=[
                ChoiceOut(
                    key=choice.key,
                    says=choice.says,
                    sign=choice.sign,
                    only=None if choice.only is None else dict(choice.only),
                )
                for choice in ask.choices
            ],
            unit=ask.unit,
            limit=ask.limit,
            proposed=ask.proposed,
            optional=ask.optional,
            needs=None if ask.needs is None else dict(ask.needs),
            hint=ask.hint,
            right=ask.right,
        )


class RecordedOut(BaseModel):
    """What was recorded for a task, by whom and when; ``entry`` is the entry to strike out."""

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


class PracticeOut(BaseModel):
    """A practice option that a task rests on, and the other ways in a line."""

    name: str
    way: str
    sentence: str

    @classmethod
    def of(cls, held: Held | None) -> PracticeOut | None:
        return None if held is None else cls(name=held.option.name, way=held.way.words, sentence=held.sentence)


class NeedsOut(BaseModel):
    """``seconds``: how long it takes at least, on the server's clock; ``until``: when that is over, where it was begun; ``words`` for it."""

    seconds: float
    until: datetime | None
    words: str


class TaskOut(BaseModel):
    """One thing to do. ``entry`` with its ``asks`` filled in completes it.

    ``screen``: what its screen shows, by kind. ``signs``: a PIN is needed beside it; ``skippable``: it can be skipped with a reason, on one of
    the ``grounds`` where ``danger`` tells what can hurt; ``action``: what its main button says; ``again``: the unit can be
    taken apart again from here; ``practice``: the practice option it rests on; ``view``: of the drawing that its place lies in;
    ``records``: what its entry puts on the record as proposed, word for word as the log has it. ``needs``: the time it takes;
    ``begin``: the entry that begins it.
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
    off_after: list[str] | None
    pressed: list[str] | None
    ladder: list[RungOut]
    stop: str | None
    photo: bool
    status: Status
    blocked_by: list[str]
    asks: list[AskOut]
    entry: dict[str, Any]
    records: list[str]
    needs: NeedsOut | None
    begin: dict[str, Any] | None
    signs: bool
    recorded: RecordedOut | None
    skippable: bool
    grounds: list[GroundOut]
    danger: str | None
    action: str
    again: bool
    practice: PracticeOut | None
    screen: AnyScreen


def name_of(mark: Mark, names: Mapping[str, str]) -> str:
    return mark.name or names.get(mark.who, mark.who)


def recorded_by_task(case: Case, names: Mapping[str, str]) -> dict[str, RecordedOut]:
    """By task, what was recorded for it last."""
    found: dict[str, Marked[Payload]] = {}
    for book in case.state.books.values():
        for marked in book.values():
            key = task_key_of(marked.value)
            if key is not None:
                found[key] = marked
    # One that was skipped and done later stands as done.
    for key, skipped in case.state.book(SKIPPED).items():
        found.setdefault(key, Marked(skipped.value, skipped.mark))
    return {
        key: RecordedOut(
            entry=value.mark.entry,
            words=payload_words(case.resolved, value.value),
            who=name_of(value.mark, names),
            when=value.mark.when,
            signed=signed_words(value.mark.signature),
        )
        for key, value in found.items()
    }


def task_out(case: Case, task: Task, recorded: RecordedOut | None) -> TaskOut:
    skippable = may_be_skipped(task)
    danger = danger_of(case, task.key) if skippable else None
    return TaskOut(
        key=task.key,
        stage=task.stage,
        kind=task.kind.key,
        subject=task.subject,
        text=task.text,
        why=task.why,
        caution=task.caution,
        tools=list(task.tools),
        delicate=list(task.delicate),
        place=task.place,
        view=view_of(case.resolved.drawn, task.place),
        hold=task.hold,
        shows=task.shows,
        tray=list(task.tray),
        off_after=None if (after := away_after(case, task)) is None else sorted(after),
        pressed=None if (pressed := pressed_at(case, task)) is None else sorted(pressed),
        ladder=[RungOut(**{name: getattr(rung, name) for name in RungOut.model_fields}) for rung in task.ladder],
        stop=task.stop,
        photo=task.photo,
        status=task.status,
        blocked_by=list(task.blocked_by),
        asks=[AskOut.of(ask) for ask in task.asks],
        entry=dict(task.entry),
        records=list(records_of(case, task)),
        needs=None
        if task.lasts is None
        else NeedsOut(seconds=task.lasts, until=task.until, words=seconds_words(task.lasts)),
        begin=None if task.lasts is None else begin_entry(task.key),
        signs=task.kind.signs,
        recorded=recorded,
        skippable=skippable,
        grounds=[GroundOut(key=key, words=words) for key, words in GROUND_WORD.items()] if danger else [],
        danger=danger,
        action=task.action or task.kind.action,
        again=task.again and task.status is Status.DONE,
        practice=PracticeOut.of(task.practice),
        screen=task.kind.screen(case, task),
    )
