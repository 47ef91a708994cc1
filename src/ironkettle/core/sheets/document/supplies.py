"""Kits: what should be in the bag, for which element, part or fastener."""

from __future__ import annotations

from pydantic import Field

from ironkettle.core.sheets.document.fields import Item, Key, Keyed, Names, Text


class KitLine(Keyed):
    """``count`` is over all positions. ``alternative_group``: of lines with the same group one is used."""

    name: Text
    count: int = Field(default=1, ge=1, le=999)
    element: Names = Field(default_factory=list)
    elements: Names = Field(default_factory=list)
    part: Names = Field(default_factory=list)
    parts: Names = Field(default_factory=list)
    fastener: Names = Field(default_factory=list)
    consumable: Text | bool | None = None
    one_use: bool = True
    alternative_group: Key | None = None
    not_in_kit: bool = False
    compound: Text | None = None

    @property
    def all_elements(self) -> tuple[str, ...]:
        return (*self.element, *self.elements)

    @property
    def all_parts(self) -> tuple[str, ...]:
        return (*self.part, *self.parts)


class Kit(Item):
    number: Text
    name: Text
    lines: list[KitLine] = Field(min_length=1)
