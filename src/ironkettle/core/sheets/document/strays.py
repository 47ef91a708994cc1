"""Figures of another kind, as sheets of before could hold them: they were judged nowhere, and are left out when such a sheet is read.

A sheet that comes in now is refused with such a figure, at its path.
"""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from pydantic import BaseModel

from ironkettle.core.sheets.document.fastening import PHASES, SETTINGS
from ironkettle.core.sheets.document.parts import POINTS
from ironkettle.core.sheets.document.places import SEATS
from ironkettle.core.sheets.document.trials import TESTS, TestKind

_Document = dict[str, Any]


def without_strays(document: _Document) -> _Document:
    """A stored document of format 2 without figures that do not belong to the kind of their item."""
    found = dict(document)
    for listed, name, models, tag in _WITHIN:
        if listed in found:
            found[listed] = [_each(item, name, models, tag) for item in found[listed]]
    for name, models in (("settings", SETTINGS), ("tests", TESTS)):
        if name in found:
            found[name] = _own(found[name], models, "kind", TestKind.PRESSURE_HOLD.value)
    return found


_WITHIN = (
    ("stations", "seats", SEATS, "kind"), ("fasteners", "phases", PHASES, "to"), ("parts", "points", POINTS, "read"),
)  # fmt: skip


def _each(item: _Document, name: str, models: Iterable[type[BaseModel]], tag: str) -> _Document:
    return {**item, name: _own(item[name], models, tag)} if name in item else item


def _own(items: list[_Document], models: Iterable[type[BaseModel]], tag: str, usual: str = "") -> list[_Document]:
    names: dict[str, set[str]] = {}
    for model in models:
        fields = {field.alias or name for name, field in model.model_fields.items()} | set(model.model_fields)
        for kind in getattr(model.model_fields[tag].annotation, "__args__", ()):
            names[str(getattr(kind, "value", kind))] = fields
    found = []
    for item in items:
        own = names.get(str(item.get(tag, usual)))
        found.append(item if own is None else {name: value for name, value in item.items() if name in own})
    return found


__all__ = ["without_strays"]
