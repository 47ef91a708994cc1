"""The shop's shelf: what it holds, and what it has of a ring or a kit."""

from __future__ import annotations

import re
from collections.abc import Iterable
from enum import StrEnum

from ironkettle.core.jobs.case import Case, OnShelf
from ironkettle.core.sealing.catalogue import KINDS, ElementKind
from ironkettle.core.sheets.document.supplies import Kit


class StockKind(StrEnum):
    """Stock list: seals of a housing, O-rings, whole kits by number, parts by name."""

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


def for_kit(case: Case, kit: Kit) -> OnShelf | None:
    """The kit itself, by its number."""
    return best(item for item in case.shelf if item.kind == StockKind.KIT and bare(item.size) == bare(kit.number))


def for_ring(shelf: Iterable[OnShelf], size: str, compound: str | None) -> OnShelf | None:
    """An O-ring by series and designation, as *AS568 214*."""
    return best(
        item
        for item in shelf
        if item.kind == StockKind.O_RING and bare(item.size) == bare(size) and of_compound(item, compound)
    )


def shelf_words(item: OnShelf | None) -> str | None:
    """What the shelf has, in words; None where the thing has no place on it."""
    if item is None:
        return None
    return f"on the shelf: {item.count} in {item.place}" if item.count else f"none on the shelf ({item.place})"


def best(items: Iterable[OnShelf]) -> OnShelf | None:
    """Of several places the one that holds most."""
    return max(items, key=lambda item: item.count, default=None)


def of_compound(item: OnShelf, compound: str | None) -> bool:
    """Whether an item may be of that compound: any where the item or the element names none."""
    return not item.compound or not compound or bare(item.compound) == bare(compound)


def bare(text: str) -> str:
    """A designation without its blanks, dashes and case: *AS568-214* is *AS568 214*."""
    return re.sub(r"[\s\-–×x/]+", "", text.casefold())
