"""The ring puzzles: each is a request to the calculation API with a story, choices and the answer."""

from __future__ import annotations

from functools import cache
from pathlib import Path
from typing import Any, Literal

from pydantic import BaseModel, ConfigDict, Field

from ironkettle.core.sheets.document.text import read_document

_FILE = Path(__file__).parent / "puzzles.yaml"


class Choice(BaseModel):
    model_config = ConfigDict(extra="forbid", frozen=True)

    key: str
    text: str


class PuzzleRing(BaseModel):
    model_config = ConfigDict(extra="forbid", frozen=True)

    series: str
    designation: str


class Puzzle(BaseModel):
    """``reading`` and ``groove`` are bodies of /api/rings/match and /api/glands/check.

    ``kind`` says what is to be seen: which size; that it cannot be settled yet (``measure`` is what
    would); that the ring that came out is wrong for its groove (``ring`` is the right one); that a
    backup ring is wanting.
    """

    model_config = ConfigDict(extra="forbid", frozen=True)

    key: str
    title: str
    story: str
    kind: Literal["size", "undecided", "wrong_ring", "missing_backup"]
    reading: dict[str, Any] | None = None
    groove: dict[str, Any] | None = None
    ring: PuzzleRing | None = None
    measure: str | None = None
    choices: list[Choice] = Field(min_length=3, max_length=6)
    answer: str
    because: str


@cache
def puzzles() -> tuple[Puzzle, ...]:
    """All puzzles shipped with the application, in their order."""
    document = read_document(_FILE.read_text(encoding="utf-8"), "puzzles")
    return tuple(Puzzle.model_validate(puzzle) for puzzle in document["puzzles"])
