"""The kit counted in one go, what is short ordered and received, and parts that inspection condemned."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any, Literal

from pydantic import Field

from ironkettle.core.base.errors import RefusedError, fault
from ironkettle.core.jobs.inspecting import Verdict
from ironkettle.core.jobs.kinds.again import undone
from ironkettle.core.jobs.kinds.base import ItemKey, Note, known
from ironkettle.core.jobs.kinds.measure import standing
from ironkettle.core.jobs.log import Case, Mark, OnShelf, Payload, State
from ironkettle.core.jobs.model import Ask, Chapter, Choice, Draft, Kind, Move
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.jobs.shelf import for_kit, for_line, shelf_words
from ironkettle.core.sheets.document.parts import Read
from ironkettle.core.sheets.document.supplies import Kit, KitLine


class LineCounted(Payload):
    """``used``: False for the one of several alternatives that is not needed."""

    line: ItemKey
    counted: int = Field(ge=0, le=9999)
    used: bool = True


class KitCounted(Payload):
    kind: Literal["kit_counted"] = "kit_counted"
    kit: str = Field(min_length=1, max_length=600)
    lines: list[LineCounted] = Field(min_length=1, max_length=400)
    note: Note = ""


class PartOrdered(Payload):
    """``what``: a kit line, or ``part-`` and the part's key."""

    kind: Literal["part_ordered"] = "part_ordered"
    what: ItemKey
    note: Note = ""


class PartArrived(Payload):
    """``source``: off the shop's own shelf, or delivered."""

    kind: Literal["part_arrived"] = "part_arrived"
    what: ItemKey
    counted: int = Field(ge=1, le=9999)
    source: Literal["shelf", "delivery"] | None = None
    note: Note = ""


PAYLOADS = (KitCounted, PartOrdered, PartArrived)
_PART = "part-"


def check(case: Case, payload: KitCounted | PartOrdered | PartArrived) -> None:
    if isinstance(payload, KitCounted):
        _check_count(case, payload)
        return
    short = shortages(case)
    known("what", payload.what, short, "thing that is short")
    if isinstance(payload, PartArrived) and payload.counted > short[payload.what]:
        text = f"{payload.counted} have come, but only {short[payload.what]} were missing"
        raise fault("counted", text, f"up to {short[payload.what]}")
    if isinstance(payload, PartArrived) and payload.source == "shelf":
        held = _shelf_of(case, payload.what)
        if held is None or held.count < payload.counted:
            text = f"{_name(case, payload.what)}: {shelf_words(held) or 'the shelf has no place for it'}"
            raise fault("source", text, "delivery")


def _check_count(case: Case, payload: KitCounted) -> None:
    kits = {kit.number: kit for kit in case.resolved.sheet.kits}
    if payload.kit not in kits:
        raise fault("kit", f"“{payload.kit}” is no kit of this build sheet", *kits)
    lines = {line.key: line for line in kits[payload.kit].lines}
    for index, one in enumerate(payload.lines):
        known(f"lines.{index}.line", one.line, lines, "line of this kit")
        if not one.used and lines[one.line].alternative_group is None:
            raise fault(f"lines.{index}.used", f"{lines[one.line].name} has no alternative; it is used or ordered")
    missing = [line.name for key, line in lines.items() if key not in {one.line for one in payload.lines}]
    if missing:
        raise fault("lines", f"not counted: {missing[0]}")


def apply(state: State, payload: KitCounted | PartOrdered | PartArrived, mark: Mark) -> None:
    if isinstance(payload, KitCounted):
        # Lines that were counted one by one are kept together.
        before = state.get("kits", payload.kit)
        counted = {one.line for one in payload.lines}
        kept = [one for one in before.lines if one.line not in counted] if before else []
        # What is counted now is what is there, whatever came before.
        for line in counted:
            state.arrived.pop(line, None)
        state.note("kits", payload.kit, payload.model_copy(update={"lines": [*kept, *payload.lines]}), mark)
    elif isinstance(payload, PartOrdered):
        state.note("ordered", payload.what, payload, mark)
    else:
        state.arrived[payload.what] = state.arrived.get(payload.what, 0) + payload.counted
        state.note("came", payload.what, payload, mark)
        if payload.source == "shelf":
            before = state.get("from_shelf", payload.what)
            total = payload.counted + (before.counted if before else 0)
            state.note("from_shelf", payload.what, payload.model_copy(update={"counted": total}), mark)


def wanted(case: Case, line: KitLine) -> int:
    """How many of a line are needed. [-]"""
    return line.count


def shortages(case: Case) -> dict[str, int]:
    """What is still missing, by what it is called in entries: kit lines counted short, parts condemned. [-]"""
    found: dict[str, int] = {}
    for kit in case.resolved.sheet.kits:
        counted = case.state.get("kits", kit.number)
        if counted is None:
            continue
        there = {one.line: one for one in counted.lines}
        for line in kit.lines:
            one = there.get(line.key)
            if one is not None and one.used:
                found[line.key] = max(wanted(case, line) - one.counted - case.state.arrived.get(line.key, 0), 0)
    for part in case.resolved.sheet.parts:
        if standing(case, part.key) in {Verdict.REPLACE, Verdict.SEND_OUT}:
            key = f"{_PART}{part.key}"
            in_kit = any(part.key in line.all_parts for line in case.resolved.kit_lines.values())
            if not in_kit:
                found[key] = max(part.count - case.state.arrived.get(key, 0), 0)
    return {key: count for key, count in found.items() if count}


@dataclass(frozen=True, slots=True)
class Short:
    """A line of the order list: what entries call it, its name, how many are missing, whether they are ordered, what the
    shelf has of it."""

    what: str
    name: str
    missing: int
    ordered: bool
    shelf: str | None


def short_of(case: Case) -> tuple[Short, ...]:
    """What is still missing in a job, as the order list shows it."""
    return tuple(
        Short(what, _name(case, what), missing, case.state.has("ordered", what), shelf_words(_shelf_of(case, what)))
        for what, missing in shortages(case).items()
    )


def refuse_short(case: Case, element: str, name: str) -> None:
    """Raises RefusedError for an element whose kit is not counted, or that is short and has not come."""
    for line in case.resolved.lines_of(element):
        kit = next(kit for kit in case.resolved.sheet.kits if line in kit.lines)
        if case.state.passed_over(f"count:{kit.number}"):
            continue
        if case.state.get("kits", kit.number) is None:
            raise RefusedError("not-counted", f"count the kit {kit.number} before a {name} is fitted")
        if missing := shortages(case).get(line.key):
            text = f"{line.name}: {missing} short in the kit; note its arrival before a {name} is fitted"
            raise RefusedError("not-come", text)


def _name(case: Case, what: str) -> str:
    if what.startswith(_PART):
        part = case.resolved.parts.get(what.removeprefix(_PART))
        return part.name if part else what
    line = case.resolved.kit_lines.get(what)
    return line.name if line else what


def drafts(case: Case) -> Iterator[Draft]:
    resolved = case.resolved
    for kit in resolved.sheet.kits:
        asked = {q for line in _whole_lines(resolved, kit) for q in line.only if q in resolved.open_questions}
        after = {f"answer:{question}": "" for question in asked}
        yield Draft(_count(case, kit), _counted(case, kit), after=after)
    short = shortages(case)
    for what in dict.fromkeys([*short, *case.state.book("ordered"), *case.state.arrived]):
        missing = short.get(what, 0)
        held = _shelf_of(case, what)
        # What lies on the shop's own shelf is taken from there, not ordered.
        there = held is not None and held.count >= missing and not case.state.has("ordered", what)
        if not there:
            yield Draft(_order(case, what), case.state.has("ordered", what) or not missing)
        after = {} if there else {f"order:{what}": ""}
        yield Draft(_receive(case, what, missing, held), not missing, after=after)


def _shelf_of(case: Case, what: str) -> OnShelf | None:
    line = case.resolved.kit_lines.get(what)
    return None if line is None else for_line(case, line)


def _counted(case: Case, kit: Kit) -> bool:
    marked = case.state.book("kits").get(kit.number)
    if marked is None or undone(case, "kits", kit.number, marked.mark):
        return False
    told = marked.value
    return {line.key for line in kit.lines} <= {one.line for one in told.lines}


def _whole_lines(resolved: Resolved, kit: Kit) -> list[KitLine]:
    return next((one.lines for one in resolved.whole.kits if one.number == kit.number), kit.lines)


def _count(case: Case, kit: Kit) -> Move:
    lines: list[dict[str, Any]] = []
    asks: list[Ask] = []
    groups: set[str] = set()
    for index, line in enumerate(kit.lines):
        first = line.alternative_group is None or line.alternative_group not in groups
        groups.add(line.alternative_group or "")
        lines.append({"line": line.key, "used": first})
        source = "to be ordered, not in the kit" if line.not_in_kit else None
        hint = "; ".join(part for part in (source, shelf_words(for_line(case, line))) if part) or None
        label = f"{line.name}: {line.count} {'needed' if first else 'if used'}"
        # From none to twice what is needed: the middle is what should be there.
        asks.append(Ask(f"lines.{index}.counted", Read.NUMBER, label, limit=(0, 2 * line.count), hint=hint))
    return Move(
        f"count:{kit.number}",
        Chapter.KIT,
        Kind.COUNT,
        kit.number,
        f"Count the kit {kit.number}, {kit.name}",
        {"kind": "kit_counted", "kit": kit.number, "lines": lines},
        why="nothing new is fitted before everything is there",
        asks=tuple(asks),
        shows=shelf_words(for_kit(case, kit)),
    )


def _order(case: Case, what: str) -> Move:
    entry = {"kind": "part_ordered", "what": what}
    line = case.resolved.kit_lines.get(what)
    shelf = shelf_words(for_line(case, line)) if line else None
    return Move(
        f"order:{what}", Chapter.KIT, Kind.ORDER, what, f"Order what is short: {_name(case, what)}", entry, shows=shelf
    )


def _receive(case: Case, what: str, missing: int, held: OnShelf | None) -> Move:
    there = held is not None and held.count >= max(missing, 1)
    asks = [Ask("counted", Read.NUMBER, "How many have come?", limit=(missing or 1, missing or 1))]
    if there:
        choices = (Choice("shelf", f"off the shelf: {held.place}" if held else ""), Choice("delivery", "delivered"))
        asks.append(Ask("source", Read.CHOICE, "From where?", choices))
    entry = {"kind": "part_arrived", "what": what}
    doing = "Take off the shelf" if there and not case.state.has("ordered", what) else "Receive"
    text = f"{doing}: {_name(case, what)}{f', {missing} missing' if missing else ''}"
    return Move(
        f"receive:{what}", Chapter.KIT, Kind.RECEIVE, what, text, entry, asks=tuple(asks), shows=shelf_words(held)
    )


def words(resolved: Resolved, payload: KitCounted | PartOrdered | PartArrived) -> str:
    note = f": {payload.note}" if payload.note else ""
    if isinstance(payload, KitCounted):
        names = {key: line.name for key, line in resolved.kit_lines.items()}
        told = ", ".join(
            f"{names.get(one.line, one.line)} {one.counted}{'' if one.used else ' (not used)'}" for one in payload.lines
        )
        return f"kit {payload.kit} counted: {told}{note}"
    line = resolved.kit_lines.get(payload.what)
    part = resolved.parts.get(payload.what.removeprefix(_PART))
    name = line.name if line else part.name if part else payload.what
    how = "ordered"
    if isinstance(payload, PartArrived):
        how = f"{payload.counted} {'taken off the shelf' if payload.source == 'shelf' else 'come'}"
    return f"{name}: {how}{note}"
