"""Something adjusted to its target, in words with the sign it was adjusted to."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from ironkettle.core.buildsheets.fastening import SettingSpec
from ironkettle.core.buildsheets.parts import Read
from ironkettle.core.errors import fault
from ironkettle.core.moves.log import Case, Mark, Payload, State
from ironkettle.core.moves.model import Ask, Chapter, Draft, Kind, Move
from ironkettle.core.moves.resolved import Resolved
from ironkettle.core.moves.slices.again import undone
from ironkettle.core.moves.slices.base import ItemKey, Note, Short, after_steps, known


class SettingMade(Payload):
    """``reached``: the sign or value was seen; ``value``: what was read, where it is a target."""

    kind: Literal["setting_made"] = "setting_made"
    setting: ItemKey
    reached: bool
    value: Short | None = None
    note: Note = ""


PAYLOADS = (SettingMade,)


def check(case: Case, payload: SettingMade) -> None:
    settings = {one.key: one for one in case.resolved.sheet.settings}
    known("setting", payload.setting, settings, "setting")
    spec = settings[payload.setting]
    if not payload.reached:
        raise fault("reached", f"{spec.name}: {setting_words(spec)}", "yes")
    if spec.kind == "target" and payload.value is None:
        raise fault("value", f"what was read? {setting_words(spec)}")


def apply(state: State, payload: SettingMade, mark: Mark) -> None:
    state.note("settings", payload.setting, payload, mark)


def drafts(case: Case) -> Iterator[Draft]:
    bound = {key: step for step in case.resolved.sheet.steps for key in step.sets}
    rebuilt = {f"step:{step.key}": "" for step in case.resolved.sheet.steps if step.stage == "rebuild"}
    for spec in case.resolved.sheet.settings:
        step = bound.get(spec.key)
        after = {f"step:{step.key}": "", **after_steps(case, step.key)} if step else rebuilt
        chapter = Chapter.REBUILD if step else Chapter.SET
        asks = [Ask("reached", Read.YES_NO, setting_words(spec))]
        if spec.kind == "target":
            asks.append(Ask("value", Read.TEXT, "What was read"))
        move = Move(
            f"set:{spec.key}",
            chapter,
            Kind.SET,
            spec.key,
            f"Set {spec.name[0].lower()}{spec.name[1:]}: {setting_words(spec)}",
            {"kind": "setting_made", "setting": spec.key},
            why=spec.why,
            caution=spec.caution,
            asks=tuple(asks),
        )
        marked = case.state.book("settings").get(spec.key)
        done = marked is not None and not undone(case, "settings", spec.key, marked.mark)
        yield Draft(move, done, step=step.key if step else None, after=after)


_TURNING = {"clockwise": "clockwise", "counter_clockwise": "counter-clockwise"}
_BACK = {"clockwise": "counter-clockwise", "counter_clockwise": "clockwise"}


def setting_words(spec: SettingSpec) -> str:
    """What a setting is adjusted to, in words."""
    if spec.preset:
        leaves = f", which leaves {spec.preset.leaves}" if spec.preset.leaves else ""
        back = f"{spec.preset.turns:g} ±{spec.preset.tolerance:g} turns {_BACK[spec.preset.bottom]}"
        return f"to the bottom {_TURNING[spec.preset.bottom]}, then {back}{leaves}"
    if spec.edge:
        close = f"then {spec.edge.close_plus_deg:g} ±{spec.edge.tolerance_deg:g}° further"
        return f"open {_TURNING[spec.edge.open]} until {spec.edge.sign}, close until it is gone, {close}"
    if spec.target:
        floor = f", never below {spec.target.floor}" if spec.target.floor else ""
        ceiling = f", never above {spec.target.ceiling}" if spec.target.ceiling else ""
        return f"{spec.target.value}{floor}{ceiling}"
    return f"until {spec.contact.until}" if spec.contact else spec.name


def words(resolved: Resolved, payload: SettingMade) -> str:
    spec = next((one for one in resolved.sheet.settings if one.key == payload.setting), None)
    name = spec.name if spec else payload.setting
    return f"{name} set{f' to {payload.value}' if payload.value else ''}{f': {payload.note}' if payload.note else ''}"
