"""What the shop's shelf has for a job: of each kit, each line and each size that was matched; and what the job takes of it."""

from __future__ import annotations

import re
from collections.abc import Iterable, Mapping
from enum import StrEnum

from ironkettle.core.jobs.log import Case, OnShelf
from ironkettle.core.jobs.resolved import ElementAt
from ironkettle.core.sealing.catalogue import KINDS, ElementKind
from ironkettle.core.sheets.document.supplies import Kit, KitLine


class StockKind(StrEnum):
    """What the shelf holds: seals of a housing, O-rings, whole kits by number, parts by name."""

    LIP_SEAL = "lip_seal"
    WIPER = "wiper"
    SLIDE_RING = "slide_ring"
    WEAR_BAND = "wear_band"
    V_PACKING = "v_packing"
    SHAFT_SEAL = "shaft_seal"
    METAL_CLAD_WIPER = "metal_clad_wiper"
    O_RING = "o_ring"
    KIT = "kit"
    PART = "part"

    @property
    def word(self) -> str:
        """What people call it."""
        return self.value if self in _OF_THE_SHELF else KINDS[ElementKind(self.value)].name

    @property
    def housed(self) -> bool:
        """Whether it is told by the housing it lives in."""
        return self not in {*_OF_THE_SHELF, StockKind.O_RING}

    @property
    def called(self) -> str | None:
        """What it is called by, in words; None where its housing or its name says it."""
        return {StockKind.O_RING: "Size: AS568 214, metric 25x3", StockKind.KIT: "Kit number"}.get(self)


_OF_THE_SHELF = frozenset({StockKind.KIT, StockKind.PART})


# Sizes written to a tenth of a millimetre name the same seal within this. [mm]
_SAME_MM = 0.05
_NUMBER = re.compile(r"\d+(?:[.,]\d+)?")
_THREE = 3


def for_kit(case: Case, kit: Kit) -> OnShelf | None:
    """The kit itself, by its number."""
    return _best(item for item in case.shelf if item.kind == StockKind.KIT and _bare(item.size) == _bare(kit.number))


def for_line(case: Case, line: KitLine) -> OnShelf | None:
    """What a kit line names: one of its elements by kind and size, else a part of that name."""
    for key in line.all_elements:
        at = case.resolved.elements.get(key)
        found = None if at is None else for_element(case, at, line.compound)
        if found is not None:
            return found
    return _best(item for item in case.shelf if item.kind == StockKind.PART and _bare(item.name) == _bare(line.name))


def for_element(case: Case, at: ElementAt, compound: str | None = None) -> OnShelf | None:
    """The seal or ring of an element in the size that was chosen, else in the sheet's; of its compound where both name one."""
    chosen = case.state.get("sizes", at.key)
    if at.spec.kind is ElementKind.O_RING:
        ring = at.spec.ring
        size = chosen.size if chosen else f"{ring.series} {ring.designation}" if ring else None
        return None if size is None else for_ring(case.shelf, size, compound or at.spec.compound)
    three = _three(chosen.size if chosen else at.spec.size)
    return _best(
        item
        for item in case.shelf
        if three is not None
        and item.kind == at.spec.kind.value
        and _alike(three, item.three)
        and _of_compound(item, compound or at.spec.compound)
    )


def for_ring(shelf: Iterable[OnShelf], size: str, compound: str | None) -> OnShelf | None:
    """An O-ring by series and designation, as *AS568 214*."""
    return _best(
        item
        for item in shelf
        if item.kind == StockKind.O_RING and _bare(item.size) == _bare(size) and _of_compound(item, compound)
    )


def shelf_words(item: OnShelf | None) -> str | None:
    """What the shelf has, in words; None where the thing has no place on it."""
    if item is None:
        return None
    return f"on the shelf: {item.count} in {item.place}" if item.count else f"none on the shelf ({item.place})"


def taken(case: Case) -> Mapping[str, int]:
    """What a job took off the shelf, by key: each kit that was counted, lines that are in no kit, sizes matched, and
    what was short and came from the shelf. [-]"""
    found: dict[str, int] = {}

    def take(item: OnShelf | None, count: int) -> None:
        if item is not None and count:
            found[item.key] = found.get(item.key, 0) + count

    for kit in case.resolved.sheet.kits:
        counted = case.state.get("kits", kit.number)
        if counted is None:
            continue
        there = {one.line: one for one in counted.lines}
        of_kit = for_kit(case, kit)
        if any(one.used and one.counted for one in counted.lines):
            take(of_kit, 1)
        for line in kit.lines:
            one = there.get(line.key)
            if one is not None and one.used and (line.not_in_kit or of_kit is None):
                take(for_line(case, line), min(one.counted, line.count))
    for what, marked in case.state.book("from_shelf").items():
        if what in case.resolved.kit_lines:
            take(for_line(case, case.resolved.kit_lines[what]), marked.value.counted)
    for key, at in case.resolved.elements.items():
        if not case.resolved.lines_of(key) and case.state.has("fitted", key):
            take(for_element(case, at), at.spec.count)
    return found


def _best(items: Iterable[OnShelf]) -> OnShelf | None:
    """Of several places the one that holds most."""
    return max(items, key=lambda item: item.count, default=None)


def _of_compound(item: OnShelf, compound: str | None) -> bool:
    return not item.compound or not compound or _bare(item.compound) == _bare(compound)


def _bare(text: str) -> str:
    """A designation without its blanks, dashes and case: *AS568-214* is *AS568 214*."""
    return re.sub(r"[\s\-–×x/]+", "", text.casefold())


def _alike(one: tuple[float, ...], other: tuple[float, float, float] | None) -> bool:
    return other is not None and all(abs(a - b) < _SAME_MM for a, b in zip(sorted(one), sorted(other), strict=True))


def _three(text: str | None) -> tuple[float, ...] | None:
    """The three dimensions in a size as a sheet writes it, 28 × 38 × 6.3. [mm]"""
    found = tuple(float(one.replace(",", ".")) for one in _NUMBER.findall(text or ""))
    return found if len(found) == _THREE else None


__all__ = ["StockKind", "for_element", "for_kit", "for_line", "for_ring", "shelf_words", "taken"]
