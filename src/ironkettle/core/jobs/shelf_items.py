"""What the shop's shelf has for the lines of a kit and the elements of a job."""

from __future__ import annotations

import re

from ironkettle.core.jobs.case import Case, OnShelf
from ironkettle.core.jobs.kinds.size import SIZES
from ironkettle.core.jobs.resolved import ElementAt
from ironkettle.core.jobs.shelf import StockKind, bare, best, for_ring, of_compound
from ironkettle.core.sealing.catalogue import ElementKind
from ironkettle.core.sheets.document.supplies import KitLine

# Sizes written to a tenth of a millimetre name the same seal within this. [mm]
_SAME_MM = 0.05


_NUMBER = re.compile(r"\d+(?:[.,]\d+)?")


_THREE = 3


def for_line(case: Case, line: KitLine) -> OnShelf | None:
    """What a kit line names: one of its elements by kind and size, else a part of that name."""
    for key in line.all_elements:
        at = case.resolved.elements.get(key)
        found = None if at is None else for_element(case, at, line.compound)
        if found is not None:
            return found
    return best(item for item in case.shelf if item.kind == StockKind.PART and bare(item.name) == bare(line.name))


def for_element(case: Case, at: ElementAt, compound: str | None = None) -> OnShelf | None:
    """The seal or ring of an element in the size that was chosen, else in the sheet's; of its compound where both name one."""
    chosen = case.state.get(SIZES, at.key)
    if at.spec.kind is ElementKind.O_RING:
        ring = at.spec.ring
        size = chosen.size if chosen else f"{ring.series} {ring.designation}" if ring else None
        return None if size is None else for_ring(case.shelf, size, compound or at.spec.compound)
    three = _three(chosen.size if chosen else at.spec.size)
    return best(
        item
        for item in case.shelf
        if three is not None
        and item.kind == at.spec.kind.value
        and _alike(three, item.three)
        and of_compound(item, compound or at.spec.compound)
    )


def _alike(one: tuple[float, ...], other: tuple[float, float, float] | None) -> bool:
    return other is not None and all(abs(a - b) < _SAME_MM for a, b in zip(sorted(one), sorted(other), strict=True))


def _three(text: str | None) -> tuple[float, ...] | None:
    """The three dimensions in a size as a sheet writes it, 28 × 38 × 6.3. [mm]"""
    found = tuple(float(number.replace(",", ".")) for number in _NUMBER.findall(text or ""))
    return found if len(found) == _THREE else None
