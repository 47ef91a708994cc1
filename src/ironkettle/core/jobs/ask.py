"""What a task asks a person for."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from ironkettle.core.base.json import Json
from ironkettle.core.sheets.document.parts import Read


@dataclass(frozen=True, slots=True)
class Choice:
    """``only``: offered while other fields of the task hold these choices."""

    key: str
    says: str
    sign: str | None = None
    only: Mapping[str, str] | None = None


@dataclass(frozen=True, slots=True)
class Ask:
    """A field a person fills in. ``field`` is its dotted path in the payload; choices stand in the order of the drawing or the sheet.

    ``limit`` in ``unit``, both ends finite; ``proposed`` stands unless it is changed; ``needs``: what a trace must hold; ``right``: what a
    careful hand answers, where the sheet knows it: for scripts, never for a screen.
    """

    field: str
    read: Read
    label: str
    choices: tuple[Choice, ...] = ()
    unit: str | None = None
    limit: tuple[float, float] | None = None
    proposed: Json = None
    optional: bool = False
    needs: Mapping[str, float] | None = None
    hint: str | None = None
    right: Json = None
