"""Fasteners tightened: one pass of a phase to a torque, or a phase in words, at the step that tightens the group."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from datetime import date
from itertools import groupby
from typing import Literal

from pydantic import Field

from ironkettle.core.base.errors import fault
from ironkettle.core.base.json import JsonObject
from ironkettle.core.base.quantities import read_length, read_torque
from ironkettle.core.base.text import Figure
from ironkettle.core.jobs.ask import Ask
from ironkettle.core.jobs.calibration import past_calibration
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kind import EntryKind
from ironkettle.core.jobs.kinds.base import ItemKey, Note, Short, after_steps, check_confirmed, known
from ironkettle.core.jobs.kinds.take_apart import undone
from ironkettle.core.jobs.overstressed import check_proof, is_threaded
from ironkettle.core.jobs.phases import (
    Pass,
    action_word,
    check_measured,
    dial_of,
    passes,
    passes_of,
    phase_words,
    range_of,
    told_group,
    turn_range,
    turns_between,
)
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.jobs.runs import WrenchUsed
from ironkettle.core.jobs.screen import Dial, Pattern, Screen
from ironkettle.core.jobs.state import Book, Mark, Payload, State
from ironkettle.core.jobs.task import Draft, Stage, Task, TaskKind
from ironkettle.core.jobs.torque_plan import DoneWith, layout_of, torque_plan
from ironkettle.core.jobs.wrenches import check_wrench, doubt, listed_wrench, wrench_asks
from ironkettle.core.machine.tightening import Adapter, TorqueRange, torque_words
from ironkettle.core.sheets.document.fastening import (
    FastenerGroup,
    GapPhase,
    Phase,
    SlotPhase,
    TorquePhase,
    TurnsPhase,
)
from ironkettle.core.sheets.document.fields import Length, Torque
from ironkettle.core.sheets.document.parts import Read
from ironkettle.core.sheets.document.work import StepSpec


class TorqueScreen(Screen):
    """One pass of a phase to a torque: which of how many, the numbers in their order, how they lie; ``threaded``: thread and grade are known."""

    kind: Literal["torque"] = "torque"
    turn: int
    numbers: list[int]
    pattern: Pattern
    threaded: bool


class TurnScreen(Screen):
    """A phase that is no torque: how it is turned. ``setting``: so far, in words, where it has a figure; ``findings`` on that."""

    kind: Literal["turn"] = "turn"
    pattern: Pattern
    dial: Dial | None
    setting: str | None
    findings: list[str]


def _screen(case: Case, task: Task) -> Screen:
    group = told_group(case, task.subject)
    index, turn = place_of(task)
    phase = group.phases[index]
    pattern = Pattern(layout=layout_of(group), count=group.count)
    if isinstance(phase, TorquePhase):
        numbers = list(passes(group, phase)[turn - 1].sequence)
        return TorqueScreen(turn=turn, numbers=numbers, pattern=pattern, threaded=is_threaded(group))
    plan = torque_plan(case, task.subject, index, DoneWith())
    return TurnScreen(
        pattern=pattern,
        dial=dial_of(phase),
        setting=None if plan is None else plan.setting_text,
        findings=[] if plan is None else [finding.message for finding in plan.findings],
    )


def place_of(task: Task) -> tuple[int, int]:
    """Which phase of its group a task is, from 0, and which pass of it, from 1. [-]"""
    _, index, turn = task.key.rsplit(":", 2)
    return int(index), int(turn)


_TASK = TaskKind("tighten", "Tightened", rank=5, rides=True, screen=_screen)


class ReadAt(Payload):
    """``clicked``: the wrench clicked there, and the torque is what it was set to."""

    number: int = Field(ge=1, le=64)
    reading: Torque
    clicked: bool = False


class AdapterUsed(Payload):
    """What was put on the wrench: its own length to the square, how far the adapter reaches from there, at which angle."""

    wrench_length: Length
    extension: Length
    angle_deg: Figure = Field(default=0.0, ge=0, le=180)

    @property
    def lever(self) -> Adapter:
        lengths = (read_length(self.wrench_length, "wrench_length"), read_length(self.extension, "extension"))
        return Adapter(*lengths, self.angle_deg)


class GroupTightened(Payload):
    """``turn``: which pass of the phase, from 1. Torques stand in ``readings``; other phases in ``done`` and a word.

    ``turned`` [turns], ``back`` to the slot and the ``gap`` left: what was measured where a phase has it.
    ``wrench``: its key in the shop's list, or its name; ``wrench_used``: how the list had it, set by the server;
    ``overdue``: why it was used though its calibration had ended, or it is too coarse. With an ``adapter`` the readings are those of the scale.
    """

    kind: Literal["group_tightened"] = "group_tightened"
    group: ItemKey
    phase: int = Field(ge=0, le=20)
    turn: int = Field(default=1, ge=1, le=20)
    readings: list[ReadAt] = Field(default_factory=list, max_length=64)
    done: bool | None = None
    turned: Figure | None = Field(default=None, ge=0, le=100)
    back: Short | None = None
    gap: Short | None = None
    overdue: Short | None = None
    adapter: AdapterUsed | None = None
    wrench: Short | None = None
    wrench_used: WrenchUsed | None = None
    note: Note = ""


TIGHTENED: Book[tuple[str, int, int], GroupTightened] = Book("tightened")


def _check(case: Case, payload: GroupTightened) -> None:
    known("group", payload.group, case.resolved.groups, "fastener group")
    group = told_group(case, payload.group)
    if payload.phase >= len(group.phases):
        raise fault("phase", f"there are {len(group.phases)} phases", f"0 to {len(group.phases) - 1}")
    phase = group.phases[payload.phase]
    if not isinstance(phase, TorquePhase):
        check_confirmed("done", payload.done, f"not done yet: {phase_words(case.resolved, group, phase)}")
        check_measured(phase, payload.turned, payload.back, payload.gap)
        return
    turns = passes(group, phase)
    if payload.turn > len(turns):
        raise fault("turn", f"there are {len(turns)} passes", f"1 to {len(turns)}")
    turn = turns[payload.turn - 1]
    read = {reading.number for reading in payload.readings}
    missing = [number for number in turn.sequence if number not in read]
    if missing:
        raise fault("readings", f"number {missing[0]} is not read")
    right = turn_range(phase, turn)
    scale = 1.0 if payload.adapter is None else payload.adapter.lever.scale_setting(1.0)
    for index, entered in enumerate(payload.readings):
        if entered.number not in turn.sequence:
            raise fault(f"readings.{index}.number", f"there is no number {entered.number}", f"1 to {group.count}")
        value = read_torque(entered.reading, "reading") / scale
        if right.low - 1e-9 <= value <= right.high + 1e-9:
            check_proof(case, group, value, f"readings.{index}.reading")
            continue
        adapter_words = "" if scale == 1.0 else f", which the adapter makes {torque_words(value)},"
        wanted = right.words
        over = value > right.high
        text = f"number {entered.number} is {'too tight' if over else 'not tight'}: {entered.reading}{adapter_words} is outside {wanted}"
        if over:
            text += "; loosen it, renew it where it is for one use or was stretched, then tighten it again"
        raise fault(
            f"readings.{index}.reading",
            text,
            f"{TorqueRange(right.low * scale, right.high * scale).words} on the scale",
            code="too-tight" if over else "out-of-limits",
        )
    _check_clicks(case, payload)
    read_off, last = [entered.reading for entered in payload.readings], payload.turn == len(turns)
    check_wrench(case, payload.wrench, read_off, right, payload.overdue, last=last)


def _check_clicks(case: Case, payload: GroupTightened) -> None:
    """Raises RuleError for a click of a wrench that shows its torque, or that nobody knows to click."""
    used = listed_wrench(case, payload.wrench)
    for index, entered in enumerate(payload.readings):
        if entered.clicked and (used is None or not used.clicks):
            text = f"{used.name if used else payload.wrench or 'this wrench'} does not click: read what it shows"
            raise fault(f"readings.{index}.clicked", text, "the reading")


def complete(case: Case, payload: GroupTightened) -> GroupTightened:
    """The entry with the wrench as the shop's list has it now; nothing of that is taken from who sends it."""
    return payload.model_copy(update={"wrench_used": listed_wrench(case, payload.wrench)})


def _as_sent(payload: GroupTightened) -> GroupTightened:
    """The entry without what the server set."""
    return payload.model_copy(update={"wrench_used": None})


def _apply(state: State, payload: GroupTightened, mark: Mark) -> None:
    """Readings of one pass that came in several entries are kept together."""
    key = (payload.group, payload.phase, payload.turn)
    before = state.get(TIGHTENED, key)
    if before is not None and payload.readings:
        now_read = {reading.number for reading in payload.readings}
        kept = [reading for reading in before.readings if reading.number not in now_read]
        payload = payload.model_copy(update={"readings": [*kept, *payload.readings]})
    state.note(TIGHTENED, key, payload, mark)


def _is_done(case: Case, at: Pass) -> bool:
    marked = case.state.book(TIGHTENED).get((at.group.key, at.index, at.turn))
    if marked is None or undone(case, "groups", at.group.key, marked.mark):
        return False
    words = marked.value
    if not isinstance(at.phase, TorquePhase):
        return True
    return set(at.turns[at.turn - 1].sequence) <= {reading.number for reading in words.readings}


def _drafts(case: Case) -> Iterator[Draft]:
    bound = {key: step for step in case.resolved.sheet.steps if step.stage == "rebuild" for key in step.tightens}
    for listed in case.resolved.sheet.fasteners:
        group = told_group(case, listed.key)
        before: str | None = None
        for at in passes_of(group):
            step = _step_of(case, at.phase, bound.get(group.key))
            after = {f"step:{step.key}": "", **after_steps(case, step.key)} if step else _all_rebuilt(case)
            if before is not None:
                after[before] = ""
            noted = at.phase.noted_at if isinstance(at.phase, TorquePhase) else None
            if noted in case.resolved.steps:
                after[f"step:{noted}"] = "its figure is written down there"
            yield Draft(_task(case, at), _is_done(case, at), step=step.key if step else None, after=after)
            before = at.key


def _step_of(case: Case, phase: Phase, bound: StepSpec | None) -> StepSpec | None:
    return case.resolved.steps.get(phase.at or "", bound) if phase.at else bound


def _all_rebuilt(case: Case) -> dict[str, str]:
    return {f"step:{step.key}": "" for step in case.resolved.sheet.steps if step.stage == "rebuild"}


def _task(case: Case, at: Pass) -> Task:
    resolved = case.resolved
    entry: JsonObject = {"kind": "group_tightened", "group": at.group.key, "phase": at.index, "turn": at.turn}
    done = Ask("done", Read.YES_NO, phase_words(resolved, at.group, at.phase))
    asks: tuple[Ask, ...] = (done, *_measured_asks(at.group, at.phase))
    text = f"{at.group.name}: {phase_words(resolved, at.group, at.phase)}"
    if isinstance(at.phase, TorquePhase):
        turn = at.turns[at.turn - 1]
        right = turn_range(at.phase, turn)
        entry["readings"] = [{"number": number} for number in turn.sequence]
        asks = (
            *wrench_asks(case, right, turn_range(at.phase, at.turns[-1]), _carried(case, at)),
            *(
                Ask(
                    f"readings.{place}.reading",
                    Read.TORQUE,
                    f"Number {number}",
                    unit="N·m",
                    limit=(right.low, right.high),
                )
                for place, number in enumerate(turn.sequence)
            ),
        )
        named = f", pass {at.turn} of {len(at.turns)} ({turn.name})" if len(at.turns) > 1 else ""
        order = f": {' → '.join(str(n) for n in turn.sequence)}" if at.group.count > 1 else ""
        text = f"{at.group.name}: {right.words}{named}{order}"
    return Task(
        at.key,
        Stage.REBUILD,
        _TASK,
        at.group.key,
        text,
        entry,
        why=at.phase.why,
        caution=at.phase.caution,
        place=at.group.part,
        hold=f"Locked by: {at.group.locking}" if at.group.locking else None,
        shows=_screws(at.group),
        practice=case.tables.settings.practice["aim"],
        asks=asks,
        action=action_word(at.phase),
    )


def _carried(case: Case, at: Pass) -> str | None:
    """The wrench that the copied job used for this phase."""
    return case.carried.wrenches.get((at.group.key, at.index)) if case.carried else None


def _measured_asks(group: FastenerGroup, phase: Phase) -> Iterator[Ask]:
    """What is measured where a phase is not to a torque: turns, the way back to a slot, the gap."""
    if isinstance(phase, TurnsPhase):
        yield Ask("turned", Read.NUMBER, "Turned, in turns", limit=turns_between(phase))
    if isinstance(phase, SlotPhase):
        way = "back" if phase.back else "on"
        yield Ask(
            "back", Read.ANGLE, f"How far {way} to the slot", unit="°", limit=(0.0, 360 / phase.slots), optional=True
        )
    if isinstance(phase, GapPhase):
        low, high = (end.value for end in phase.gap)
        yield Ask("gap", Read.LENGTH, "Remaining gap", unit="mm", limit=(low, high))


def _screws(group: FastenerGroup) -> str | None:
    """Which screw goes where, where their lengths differ."""
    words = [f"{place.screw} at {', '.join(str(number) for number in place.numbers)}" for place in group.places]
    return f"Screws: {'; '.join(words)}" if words else None


def _words(resolved: Resolved, payload: GroupTightened) -> str:
    group = resolved.groups.get(payload.group)
    name = group.name if group else payload.group
    if payload.readings:
        read = _read_words(payload.readings)
        if payload.adapter is not None:
            on = payload.adapter
            read += f" on the scale, adapter of {on.extension} at {on.angle_deg:g}° on {on.wrench_length},"
        return f"{name}, pass {payload.turn}: {read} with {payload.wrench_used.name if payload.wrench_used else payload.wrench}"
    phase = phase_words(resolved, group, group.phases[payload.phase]) if group else "done"
    measured = [
        f"{payload.turned:g} turns" if payload.turned is not None else "",
        f"{payload.back} to the slot" if payload.back else "",
        f"gap {payload.gap}" if payload.gap else "",
    ]
    words = ", ".join(figure for figure in measured if figure)
    return f"{name}: {phase}{f'; {words}' if words else ''}"


def _read_words(readings: Sequence[ReadAt]) -> str:
    """What was read at each, in the order it was done; clicks at one setting in one go."""
    words = []
    for (clicked, reading), alike in groupby(readings, key=lambda read: (read.clicked, read.reading)):
        numbers = [f"{read.number}" for read in alike]
        if clicked:
            words.append(f"{', '.join(numbers)} clicked at {reading}")
        else:
            words += [f"{number}: {reading}" for number in numbers]
    return ", ".join(words)


def wrenches_used(case: Case) -> Iterator[tuple[WrenchUsed, date]]:
    """The wrenches that were used, and when."""
    for marked in case.state.book(TIGHTENED).values():
        if marked.value.wrench_used is not None:
            yield marked.value.wrench_used, marked.mark.when.date()


def _against(case: Case, tasks: Sequence[Task]) -> Iterator[str]:
    yield from past_calibration(wrenches_used(case))
    yield from _doubtful(case)


def _doubtful(case: Case) -> Iterator[str]:
    """Last passes that were read on a wrench which nobody knows or which cannot hold their range, or low on its scale, with the reason given."""
    for group in case.resolved.sheet.fasteners:
        for index, phase in enumerate(told_group(case, group.key).phases):
            if not isinstance(phase, TorquePhase):
                continue
            done = case.state.get(TIGHTENED, (group.key, index, len(passes(group, phase))))
            if done is None or done.wrench is None:
                continue
            read_off = [entered.reading for entered in done.readings]
            why = doubt(case, done.wrench, done.wrench_used, range_of(phase), read_off)
            if why is not None:
                yield f"{group.name}: {why}; {done.overdue or 'no reason given'}."


KIND = EntryKind(
    payload=GroupTightened,
    check=_check,
    apply=_apply,
    words=_words,
    tasks=_drafts,
    completes="tighten:{group}:{phase}:{turn}",
    complete=complete,
    screens=(TorqueScreen, TurnScreen),
    as_sent=_as_sent,
    against=_against,
)
