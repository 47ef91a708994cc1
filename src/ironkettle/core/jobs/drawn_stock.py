"""What a job takes off the shop's shelf."""

from __future__ import annotations

from collections.abc import Mapping

from ironkettle.core.jobs.case import Case, OnShelf
from ironkettle.core.jobs.kinds.arrival import FROM_SHELF
from ironkettle.core.jobs.kinds.fitting import FITTED
from ironkettle.core.jobs.kinds.kit_count import KITS
from ironkettle.core.jobs.shelf import for_kit
from ironkettle.core.jobs.shelf_items import for_element, for_line


def taken(case: Case) -> Mapping[str, int]:
    """What a job took off the shelf, by key: each kit that was counted, lines that are in no kit, sizes matched, and
    what was short and came from the shelf. [-]"""
    found: dict[str, int] = {}

    def take(item: OnShelf | None, count: int) -> None:
        if item is not None and count:
            found[item.key] = found.get(item.key, 0) + count

    for kit in case.resolved.sheet.kits:
        counted = case.state.get(KITS, kit.number)
        if counted is None:
            continue
        there = {counted_line.line: counted_line for counted_line in counted.lines}
        of_kit = for_kit(case, kit)
        if any(counted_line.used and counted_line.counted for counted_line in counted.lines):
            take(of_kit, 1)
        for line in kit.lines:
            counted_line = there.get(line.key)
            if counted_line is not None and counted_line.used and (line.not_in_kit or of_kit is None):
                take(for_line(case, line), min(counted_line.counted, line.count))
    for what, marked in case.state.book(FROM_SHELF).items():
        if what in case.resolved.kit_lines:
            take(for_line(case, case.resolved.kit_lines[what]), marked.value.counted)
    for key, at in case.resolved.elements.items():
        if not case.resolved.lines_of(key) and case.state.has(FITTED, key):
            take(for_element(case, at), at.spec.count)
    return found
