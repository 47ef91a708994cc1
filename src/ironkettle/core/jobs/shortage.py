"""What is still missing in a job: kit lines counted short, and parts that inspection condemned."""

from __future__ import annotations

from ironkettle.core.base.errors import RefusedError
from ironkettle.core.jobs.case import Case, OnShelf
from ironkettle.core.jobs.condemned import CONDEMNED
from ironkettle.core.jobs.kinds.inspection import POINTS, has_come, standing
from ironkettle.core.jobs.kinds.kit_count import KITS
from ironkettle.core.jobs.kinds.skip import is_skipped
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.jobs.shelf_items import for_line

PART = "part-"


def shortages(case: Case) -> dict[str, int]:
    """What is still missing, by what it is called in entries: kit lines counted short, parts condemned. [-]"""
    found: dict[str, int] = {}
    for kit in case.resolved.sheet.kits:
        counted = case.state.get(KITS, kit.number)
        if counted is None:
            continue
        there = {counted_line.line: counted_line for counted_line in counted.lines}
        for line in kit.lines:
            counted_line = there.get(line.key)
            if counted_line is not None and counted_line.used:
                found[line.key] = max(line.count - counted_line.counted - case.state.arrived.get(line.key, 0), 0)
    for part in case.resolved.sheet.parts:
        if standing(case, part.key) in CONDEMNED:
            key = f"{PART}{part.key}"
            read = case.state.book(POINTS)[part.key]
            if not _counted_with_a_kit(case, part.key):
                # What came before it was condemned, again perhaps, is no new one.
                come = case.state.arrived.get(key, 0) if has_come(case, part.key, read.mark) else 0
                found[key] = max(part.count - come, 0)
    return {key: count for key, count in found.items() if count}


def _counted_with_a_kit(case: Case, part: str) -> bool:
    """Whether a new part comes with a kit that is counted: one whose count was skipped brings nothing that anybody has seen."""
    return any(
        part in line.all_parts and not is_skipped(case.state, f"count:{kit.number}")
        for kit in case.resolved.sheet.kits
        for line in kit.lines
    )


def refuse_short(case: Case, element: str, name: str) -> None:
    """Raises RefusedError for an element whose kit is not counted, or that is short and has not come."""
    for line in case.resolved.lines_of(element):
        kit = next(kit for kit in case.resolved.sheet.kits if line in kit.lines)
        if is_skipped(case.state, f"count:{kit.number}"):
            continue
        if case.state.get(KITS, kit.number) is None:
            raise RefusedError("blocked", f"count the kit {kit.number} before the {name} is fitted")
        if missing := shortages(case).get(line.key):
            text = f"{line.name}: {missing} short in the kit; record its arrival before the {name} is fitted"
            raise RefusedError("short", text)


def shortage_name(case: Case, what: str) -> str:
    """What a missing item is called."""
    return name_in(case.resolved, what)


def name_in(resolved: Resolved, what: str) -> str:
    """The name of a kit line or a condemned part, by what entries call it."""
    line = resolved.kit_lines.get(what)
    part = resolved.parts.get(what.removeprefix(PART)) if what.startswith(PART) else None
    return line.name if line else part.name if part else what


def shelf_of(case: Case, what: str) -> OnShelf | None:
    """What the shop's shelf has of it."""
    line = case.resolved.kit_lines.get(what)
    return None if line is None else for_line(case, line)
