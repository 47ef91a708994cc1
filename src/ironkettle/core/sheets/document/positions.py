"""What is there several times in one unit: the named items once for each position, their keys ``piston@1``, ``piston@2``."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any, TypeVar

from pydantic import BaseModel

from ironkettle.core.sheets.document.places import StationSpec
from ironkettle.core.sheets.document.sheet import PositionSpec, Sheet
from ironkettle.core.sheets.document.supplies import Kit, KitLine
from ironkettle.core.sheets.document.work import StepSpec

M = TypeVar("M", bound=BaseModel)
_REPEATED = ("zones", "parts", "stations", "fasteners", "settings", "tests")
# Fields that name something once, and those that name several.
_ONE = {
    "carrier",
    "counterface",
    "entered_from",
    "part",
    "faces",
    "towards",
    "same_as",
    "zone",
    "at",
    "mark",
    "corrected_by",
    "again_at",
}
_SEVERAL = {
    "between", "after", "loosens", "relieves", "takes_off", "opens", "puts_on", "closes", "tightens", "sets", "runs",
    "meets", "ahead_of", "across", "element", "elements", "parts", "fastener", "zones", "steps", "takes", "handles",
}  # fmt: skip


def base_key(key: str) -> str:
    """The key as the sheet writes it, without its position.

    >>> base_key("piston@2")
    'piston'
    """
    return key.partition("@")[0]


def position_of(key: str) -> str | None:
    """The position that a key belongs to; None for what is there once.

    >>> position_of("piston@2")
    '2'
    """
    return key.partition("@")[2] or None


def expanded(sheet: Sheet) -> Sheet:
    """The sheet with every repeated item once for each position.

    An ``after`` among repeated items stays within its position, a shared step waits for all, a bare key
    from outside means all. Steps are listed position by position, those done for all in turn together. A kit holds what all
    positions need, whatever count its lines were given for one.
    """
    if not sheet.positions:
        return sheet
    for position in sheet.positions:
        sheet = _with_position(sheet, position)
    return sheet.model_copy(update={"positions": [], "kits": [_enough(sheet, kit) for kit in sheet.kits]})


def _enough(sheet: Sheet, kit: Kit) -> Kit:
    """A kit whose lines count every element that is fitted from them."""
    fitted = {element.key: element.count for _, _, element in sheet.elements if element.same_as is None}

    def counted(line: KitLine) -> KitLine:
        needed = sum(fitted.get(key, 0) for key in line.all_elements)
        return line.model_copy(update={"count": needed}) if needed > line.count else line

    return kit.model_copy(update={"lines": [counted(line) for line in kit.lines]})


def _with_position(sheet: Sheet, position: PositionSpec) -> Sheet:
    names = {key for field in (*_REPEATED, "steps") for key in getattr(position, field)}
    names |= {e.key for s in sheet.stations if s.key in position.stations for seat in s.seats for e in seat.elements}
    names |= {step.mark.key for step in sheet.steps if step.key in position.steps and step.mark}
    names |= {step.timer.key for step in sheet.steps if step.key in position.steps and step.timer}
    update: dict[str, Any] = {}
    for field in _REPEATED:
        items: list[Any] = []
        for item in getattr(sheet, field):
            if item.key in getattr(position, field):
                items += [_copy(item, names, number, position) for number in position.of]
            else:
                items.append(_for_all(item, names, position.of))
        update[field] = items
    update["steps"] = list(_steps(sheet.steps, names, position))
    update["kits"] = [_for_all(kit, names, position.of) for kit in sheet.kits]
    update["ladders"] = [
        copy
        for ladder in sheet.ladders
        for copy in ([_renamed(ladder, names, number) for number in position.of] if ladder.part in names else [ladder])
    ]
    return sheet.model_copy(update=update)


def _copy(item: M, names: set[str], number: str, position: PositionSpec) -> M:
    renamed = _renamed(item, names, number)
    update: dict[str, Any] = {"key": f"{item.key}@{number}"}  # type: ignore[attr-defined]
    where = f", {position.name.lower()} {number}"
    if hasattr(item, "name"):
        update["name"] = f"{item.name}{where}"
    if isinstance(renamed, StationSpec):
        update["seats"] = [
            seat.model_copy(
                update={"elements": [e.model_copy(update={"name": f"{e.name}{where}"}) for e in seat.elements]}
            )
            for seat in renamed.seats
        ]
    return renamed.model_copy(update=update)


def _renamed(item: M, names: set[str], number: str) -> M:
    """References among repeated items, within one position."""
    update: dict[str, Any] = {}
    for field in type(item).model_fields:
        value = getattr(item, field)
        if field in _ONE and isinstance(value, str) and value in names:
            update[field] = f"{value}@{number}"
        elif field in _SEVERAL and _are_names(value):
            update[field] = type(value)(f"{v}@{number}" if v in names else v for v in value)
        elif isinstance(value, BaseModel):
            update[field] = _keyed(_renamed(value, names, number), names, number)
        elif isinstance(value, list) and any(isinstance(v, BaseModel) for v in value):
            update[field] = [_keyed(_renamed(v, names, number), names, number) for v in value]
    return item.model_copy(update=update)


def _are_names(value: Any) -> bool:
    return isinstance(value, list | tuple) and all(isinstance(item, str) for item in value)


def _keyed(item: M, names: set[str], number: str) -> M:
    key = getattr(item, "key", None)
    return item.model_copy(update={"key": f"{key}@{number}"}) if key in names else item


def _for_all(item: M, names: set[str], of: Iterable[str]) -> M:
    """A shared item that names repeated ones means all of them."""
    update: dict[str, Any] = {}
    for field in type(item).model_fields:
        value = getattr(item, field)
        if field in _SEVERAL and isinstance(value, list) and _are_names(value):
            update[field] = [
                name for v in value for name in ([f"{v}@{number}" for number in of] if v in names else [v])
            ]
        elif isinstance(value, list) and any(isinstance(v, BaseModel) for v in value):
            update[field] = [_for_all(v, names, of) for v in value]
    return item.model_copy(update=update)


def _steps(steps: list[StepSpec], names: set[str], position: PositionSpec) -> Iterable[StepSpec]:
    said = _with_after(steps)
    block: list[StepSpec] = []
    for step in said:
        if step.key in position.steps and not step.each:
            block.append(step)
            continue
        yield from _block(block, names, position)
        block = []
        if step.key in position.steps:
            yield from _block([step], names, position)
        else:
            yield _for_all(step, names, position.of)
    yield from _block(block, names, position)


def _block(block: list[StepSpec], names: set[str], position: PositionSpec) -> Iterable[StepSpec]:
    for number in position.of:
        for step in block:
            where = f" ({position.name.lower()} {number})"
            renamed = _renamed(step, names, number)
            first = renamed.first and renamed.first.model_copy(update={"does": f"{renamed.first.does}{where}"})
            yield renamed.model_copy(
                update={"key": f"{step.key}@{number}", "text": f"{step.text}{where}", "first": first}
            )


def _with_after(steps: list[StepSpec]) -> list[StepSpec]:
    """Steps that say what they come after, where they followed the one listed before."""
    found = []
    before: str | None = None
    for step in steps:
        after = step.after if step.after is not None else ([] if before is None else [before])
        found.append(step.model_copy(update={"after": list(after)}))
        before = step.key
    return found
