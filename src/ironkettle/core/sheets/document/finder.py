"""Whether a sheet is meant by a few words: what stands on the body, a kit number, a family, a name, a size."""

from __future__ import annotations

import re
from collections.abc import Iterator

from ironkettle.core.sheets.document.sheet import Sheet

_NUMBER = re.compile(r"^\d+([.,]\d+)?$")
# A bore and a rod read with a caliper on the outside are taken for the nominal ones within this. [mm]
_NEAR = 0.5


def found_by(sheet: Sheet, words: str) -> str | None:
    """By what a sheet is found, in words; None where it is not meant.

    Every word must stand in one of its texts; numbers alone may be sizes instead, as ``50 28`` for a cylinder
    of bore 50 mm and rod 28 mm.
    """
    wanted = words.casefold().split()
    if not wanted:
        return None
    sizes = list(_sizes(sheet))
    if all(_NUMBER.match(word) for word in wanted):
        read = [float(word.replace(",", ".")) for word in wanted]
        if sizes and all(any(abs(reading - size) <= _NEAR for _, size in sizes) for reading in read):
            return ", ".join(f"{name} {size:g} mm" for name, size in sizes)
    for kind, text in _texts(sheet):
        if all(word in text.casefold() for word in wanted):
            return f"{kind} {text}"
    whole = " ".join(text for _, text in _texts(sheet)).casefold()
    return "its words" if all(word in whole for word in wanted) else None


def _texts(sheet: Sheet) -> Iterator[tuple[str, str]]:
    for marking in sheet.markings:
        yield "marking", marking
    for kit in sheet.kits:
        yield "kit", kit.number
    yield "name", sheet.name
    yield "family", sheet.family
    for word in sheet.like:
        yield "like", word
    yield "sheet", sheet.key


def _sizes(sheet: Sheet) -> Iterator[tuple[str, float]]:
    if sheet.cylinder is not None:
        yield "bore", sheet.cylinder.bore.value.nominal
        yield "rod", sheet.cylinder.rod.value.nominal
