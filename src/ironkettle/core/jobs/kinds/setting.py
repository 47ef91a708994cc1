"""Something adjusted: counted from the bottom, from the edge of a sign, to a figure, or to a touch."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from pydantic import Field

from ironkettle.core.base.errors import RuleError, fault
from ironkettle.core.base.json import JsonObject
from ironkettle.core.base.quantities import Dimension, Unit, from_base, read_quantity, show
from ironkettle.core.base.text import Figure
from ironkettle.core.jobs.ask import Ask
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kind import EntryKind, keep
from ironkettle.core.jobs.kinds.base import ItemKey, Note, Short, after_steps, check_confirmed, known, not_answered
from ironkettle.core.jobs.kinds.take_apart import undone
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.jobs.screen import Screen
from ironkettle.core.jobs.state import Book, Mark, Payload
from ironkettle.core.jobs.task import Draft, Stage, Task, TaskKind
from ironkettle.core.machine.parts import read_limit
from ironkettle.core.machine.tests import allowed, any_of, band_of
from ironkettle.core.sheets.document.fastening import EdgeSetting, PresetSetting, SettingSpec, TargetSetting
from ironkettle.core.sheets.document.parts import Read
from ironkettle.core.sheets.document.work import StepSpec


class SettingScreen(Screen):
    """Something that is adjusted. ``way``: to a figure, or by which routine; ``advised``: the next turn can be worked out from readings.

    ``read``: what is read, in ``unit``; ``low`` and ``high``: between what it is right; ``floor`` and ``ceiling``; ``sign``: what is
    looked for on the way; ``corrects``: the tests it is made again for when they fail.
    """

    kind: Literal["setting"] = "setting"
    setting: str
    way: Literal["preset", "edge", "target", "contact"]
    says: str
    advised: bool
    read: str | None
    unit: str | None
    low: float | None
    high: float | None
    floor: float | None
    ceiling: float | None
    sign: str | None
    corrects: list[str]


_SIGN = {"preset": "it is at the bottom", "contact": "it touches"}


def _screen(case: Case, task: Task) -> Screen:
    spec = next(setting for setting in case.resolved.sheet.settings if setting.key == task.subject)
    aim = aim_of(spec)

    def shown(value: float | None) -> float | None:
        return None if value is None or aim is None else from_base(value, aim.unit)

    return SettingScreen(
        setting=spec.key,
        way=spec.kind,
        says=setting_words(spec),
        advised=is_advised(spec),
        read=None if aim is None else aim.unit.dimension.value,
        unit=None if aim is None else aim.unit.symbol,
        low=shown(aim.low) if aim else None,
        high=shown(aim.high) if aim else None,
        floor=shown(aim.floor) if aim else None,
        ceiling=shown(aim.ceiling) if aim else None,
        sign=spec.edge.sign if isinstance(spec, EdgeSetting) else _SIGN.get(spec.kind),
        corrects=[test.key for test in case.resolved.sheet.tests if test.corrected_by == spec.key],
    )


_TASK = TaskKind("set", "Set", rank=6, rides=True, screen=_screen)


class TurnRead(Payload):
    """Where the adjuster stood, clockwise positive [turns], and what was read or seen there."""

    turns: Figure = Field(ge=-1000, le=1000)
    value: Short | None = None
    sign: bool | None = None


class SettingMade(Payload):
    """``reached``: the sign was seen. ``value``: what was read, ``locked`` once more after locking; ``readings``: on the way.

    ``turns``: counted back from the bottom, ``leaves`` what it leaves; ``degrees``: closed further from the edge.
    """

    kind: Literal["setting_made"] = "setting_made"
    setting: ItemKey
    reached: bool
    value: Short | None = None
    locked: Short | None = None
    turns: Figure | None = Field(default=None, ge=0, le=100)
    leaves: Short | None = None
    degrees: Short | None = None
    readings: list[TurnRead] = Field(default_factory=list, max_length=200)
    note: Note = ""


SETTINGS: Book[str, SettingMade] = Book("settings")
_CLOSED_FURTHER, _BACKED_OFF = "Closed further, from the edge", "Turns backed off"
_TARGETS = {
    "pressure": (Dimension.PRESSURE, Dimension.FORCE), "effort": (Dimension.PRESSURE, Dimension.FORCE, Dimension.TORQUE),
    "flow": (Dimension.FLOW,), "length": (Dimension.LENGTH,),
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Aim:
    """Between what a target is right, in the unit it is written in; ``floor`` and ``ceiling`` as far as there are any. [base unit]"""

    nominal: float
    low: float
    high: float
    unit: Unit
    floor: float | None = None
    ceiling: float | None = None


def aim_of(spec: SettingSpec) -> Aim | None:
    """The target of a setting as figures; None where it has none, or where its words cannot be read as one."""
    if not isinstance(spec, TargetSetting):
        return None
    dimensions = _TARGETS[spec.target.reading]
    try:
        wanted = band_of(spec.target.value, None, "value", dimensions)
        own = [wanted.unit.dimension]
        floor = any_of(spec.target.floor, own, "floor").value if spec.target.floor else None
        ceiling = any_of(spec.target.ceiling, own, "ceiling").value if spec.target.ceiling else None
        low, high = allowed(wanted, [], "").ends
    except RuleError:
        return None
    low = low if floor is None else max(low, floor)
    high = high if ceiling is None else min(high, ceiling)
    return None if low > high else Aim(wanted.nominal, low, high, wanted.unit, floor, ceiling)


def is_advised(spec: SettingSpec) -> bool:
    """Whether the next turn can be worked out: by a routine, or to a figure with an adjuster; what is left is set by eye."""
    return not isinstance(spec, TargetSetting) or (aim_of(spec) is not None and spec.adjuster is not None)


def _check(case: Case, payload: SettingMade) -> None:
    settings = {setting.key: setting for setting in case.resolved.sheet.settings}
    known("setting", payload.setting, settings, "setting")
    spec = settings[payload.setting]
    check_confirmed("reached", payload.reached, f"not set yet: {spec.name}, {setting_words(spec)}")
    if isinstance(spec, TargetSetting):
        _check_target(spec, payload)
    elif isinstance(spec, PresetSetting):
        _check_preset(spec, payload)
    elif isinstance(spec, EdgeSetting):
        if payload.degrees is None:
            raise not_answered("degrees", _CLOSED_FURTHER)
        degrees = read_quantity(payload.degrees, Dimension.ANGLE, "degrees").value
        low, high = _around(spec.edge.close_plus_deg, spec.edge.tolerance_deg)
        if not low - 1e-6 <= degrees <= high + 1e-6:
            raise fault(
                "degrees",
                f"{payload.degrees} further is not {setting_words(spec)}",
                f"{low:g} to {high:g} °",
                code="out-of-limits",
            )


def _around(middle: float, tolerance: float) -> tuple[float, float]:
    return max(0.0, middle - tolerance), middle + tolerance


def _check_target(spec: TargetSetting, payload: SettingMade) -> None:
    if payload.value is None:
        raise fault("value", f"what was read? {setting_words(spec)}")
    aim = aim_of(spec)
    if aim is None:
        return
    for field, text in (("value", payload.value), ("locked", payload.locked)):
        if text is not None:
            _check_read(aim, field, text)
    if (lock := _lock(spec)) and payload.locked is None:
        raise fault("locked", f"what does it read with {lock} tight? Locking moves it")


def _check_read(aim: Aim, field: str, text: str) -> None:
    value = any_of(text, [aim.unit.dimension], field).value
    right = f"{show(aim.low, aim.unit)} to {show(aim.high, aim.unit)}"
    if aim.floor is not None and value < aim.floor - 1e-9:
        raise fault(
            field,
            f"{text} lies below the floor of {show(aim.floor, aim.unit)}: not stable, do not leave it there",
            right,
            code="out-of-limits",
        )
    if aim.ceiling is not None and value > aim.ceiling + 1e-9:
        raise fault(
            field,
            f"{text} lies above the ceiling of {show(aim.ceiling, aim.unit)}: do not leave it there",
            right,
            code="out-of-limits",
        )
    if not aim.low - 1e-9 * abs(aim.low) <= value <= aim.high + 1e-9 * abs(aim.high):
        raise fault(field, f"{text} is outside the limits: set it to {right}", right, code="out-of-limits")


def _check_preset(spec: PresetSetting, payload: SettingMade) -> None:
    low, high = _around(spec.preset.turns, spec.preset.tolerance)
    if payload.turns is None:
        raise not_answered("turns", _BACKED_OFF, f"{low:g} to {high:g}")
    if not low - 1e-9 <= payload.turns <= high + 1e-9:
        raise fault(
            "turns",
            f"{payload.turns:g} turns are not {setting_words(spec)}",
            f"{low:g} to {high:g}",
            code="out-of-limits",
        )
    if payload.leaves is None or spec.preset.leaves is None:
        return
    try:
        left = read_limit(spec.preset.leaves, "leaves", Dimension.LENGTH)
    except RuleError:
        return
    if not left.holds(read_quantity(payload.leaves, Dimension.LENGTH, "leaves").value):
        raise fault(
            "leaves", f"{payload.leaves} is left; {spec.preset.leaves} is required: count again", spec.preset.leaves
        )


def _drafts(case: Case) -> Iterator[Draft]:
    bound = {key: step for step in case.resolved.sheet.steps for key in step.sets}
    rebuilt = {f"step:{step.key}": "" for step in case.resolved.sheet.steps if step.stage == "rebuild"}
    for spec in case.resolved.sheet.settings:
        step = bound.get(spec.key)
        after = {f"step:{step.key}": "", **after_steps(case, step.key)} if step else rebuilt
        marked = case.state.book(SETTINGS).get(spec.key)
        done = marked is not None and not undone(case, "settings", spec.key, marked.mark)
        done = done and marked is not None and not _found_wrong(case, spec, marked.mark)
        yield Draft(_task(spec, step), done, step=step.key if step else None, after=after)


def _found_wrong(case: Case, spec: SettingSpec, made: Mark) -> bool:
    """Whether a test that this setting corrects failed since it was made: then it is set anew."""
    corrected = [test.key for test in case.resolved.sheet.tests if test.corrected_by == spec.key]
    runs = [run for key in corrected for run in case.state.runs_of(key, "as_left") if run.closed is not None]
    last = max(runs, key=lambda run: run.closed.seq if run.closed else 0, default=None)
    return (
        last is not None
        and last.closed is not None
        and last.closed.seq > made.seq
        and last.judgement is not None
        and last.judgement.verdict == "fail"
    )


def _task(spec: SettingSpec, step: StepSpec | None) -> Task:
    entry: JsonObject = {"kind": "setting_made", "setting": spec.key}
    return Task(
        f"set:{spec.key}",
        Stage.REBUILD if step else Stage.SET,
        _TASK,
        spec.key,
        f"Set {spec.name[0].lower()}{spec.name[1:]}: {setting_words(spec)}",
        entry,
        why=spec.why,
        caution=spec.caution,
        place=spec.adjuster.part if spec.adjuster else None,
        hold=f"Locked by {lock}: hold the adjuster while it is tightened" if (lock := _lock(spec)) else None,
        asks=tuple(_asks(spec)),
    )


def _lock(spec: SettingSpec) -> str | None:
    return spec.adjuster.locked_by if spec.adjuster else None


def _asks(spec: SettingSpec) -> Iterator[Ask]:
    # A figure says by itself whether it was reached.
    yield Ask("reached", Read.YES_NO, setting_words(spec), proposed=True if isinstance(spec, TargetSetting) else None)
    if isinstance(spec, PresetSetting):
        yield Ask("turns", Read.NUMBER, _BACKED_OFF, limit=_around(spec.preset.turns, spec.preset.tolerance))
        if (left := _left(spec.preset.leaves)) is not None:
            yield Ask(
                "leaves", Read.LENGTH, "What it leaves", unit="mm", limit=left, optional=True, hint=spec.preset.leaves
            )
    if isinstance(spec, EdgeSetting):
        limit = _around(spec.edge.close_plus_deg, spec.edge.tolerance_deg)
        yield Ask("degrees", Read.ANGLE, _CLOSED_FURTHER, unit="°", limit=limit)
    if isinstance(spec, TargetSetting):
        aim = aim_of(spec)
        if aim is None:
            yield Ask("value", Read.TEXT, "What was read")
            if _lock(spec):
                yield Ask("locked", Read.TEXT, "Read again, locked")
            return
        read, good = Read(aim.unit.dimension.value), (from_base(aim.low, aim.unit), from_base(aim.high, aim.unit))
        yield Ask("value", read, "What was read", unit=aim.unit.symbol, limit=good)
        if lock := _lock(spec):
            label = f"Read again, {lock} tight"
            yield Ask("locked", read, label, unit=aim.unit.symbol, limit=good)


def _left(leaves: str | None) -> tuple[float, float] | None:
    """What a preset leaves, as a band; None where its words are no length with both ends. [mm]"""
    if leaves is None:
        return None
    try:
        left = read_limit(leaves, "leaves", Dimension.LENGTH)
    except RuleError:
        return None
    return None if left.low is None or left.high is None else (left.low, left.high)


_TURNING = {"clockwise": "clockwise", "counter_clockwise": "counter-clockwise"}


_BACK = {"clockwise": "counter-clockwise", "counter_clockwise": "clockwise"}


def setting_words(spec: SettingSpec) -> str:
    """What a setting is adjusted to, in words."""
    if isinstance(spec, PresetSetting):
        leaves = f", which leaves {spec.preset.leaves}" if spec.preset.leaves else ""
        back = f"{spec.preset.turns:g} ±{spec.preset.tolerance:g} turns {_BACK[spec.preset.bottom]}"
        return f"to the bottom {_TURNING[spec.preset.bottom]}, then {back}{leaves}"
    if isinstance(spec, EdgeSetting):
        close = f"then {spec.edge.close_plus_deg:g} ±{spec.edge.tolerance_deg:g}° further"
        return f"open {_TURNING[spec.edge.open]} until {spec.edge.sign}, close until it is gone, {close}"
    if isinstance(spec, TargetSetting):
        floor = f", never below {spec.target.floor}" if spec.target.floor else ""
        ceiling = f", never above {spec.target.ceiling}" if spec.target.ceiling else ""
        return f"{spec.target.value}{floor}{ceiling}"
    return f"until {spec.contact.until}"


def _words(resolved: Resolved, payload: SettingMade) -> str:
    spec = next((setting for setting in resolved.sheet.settings if setting.key == payload.setting), None)
    name = spec.name if spec else payload.setting
    words = [
        f"set to {payload.value}" if payload.value else "",
        f"{payload.locked} once locked" if payload.locked else "",
        f"{payload.turns:g} turns from the bottom" if payload.turns is not None else "",
        f"leaves {payload.leaves}" if payload.leaves else "",
        f"closed {payload.degrees} past its edge" if payload.degrees else "",
        f"in {len(payload.readings)} readings" if payload.readings else "",
    ]
    figures = ", ".join(figure for figure in words if figure) or "set"
    return f"{name}: {figures}{f'; {payload.note}' if payload.note else ''}"


KIND = EntryKind(
    payload=SettingMade,
    check=_check,
    apply=keep(SETTINGS, lambda payload: payload.setting),
    words=_words,
    tasks=_drafts,
    completes="set:{setting}",
    screens=(SettingScreen,),
)
