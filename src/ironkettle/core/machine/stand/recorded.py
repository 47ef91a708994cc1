"""A recording as it is kept: rows of what every channel showed, in chunks that are chained by hash."""

from __future__ import annotations

import hashlib
import json
import math
from collections.abc import Iterable, Sequence
from typing import Literal

from pydantic import BaseModel, ConfigDict, Field

FIRST_CHUNK = "0" * 64
RecordingState = Literal["waiting", "recording", "ended", "interrupted"]
Row = tuple[float, ...]


class RecordedChannel(BaseModel):
    """A channel of a recording: its key, its name, and the base unit its figures are in."""

    model_config = ConfigDict(frozen=True)

    key: str
    name: str
    unit: str


class RecordingPlan(BaseModel):
    """What is recorded: the channels in the order of the figures in a row; which pressure and which temperature count.

    ``asked_mpa``: what the stand was told to hold; ``reach_mpa``: a pressure above it is none that the gauge can show;
    ``number``: the column with the stand's own number of the reading, of which it takes one each ``every_s`` [s].
    """

    model_config = ConfigDict(frozen=True)

    channels: tuple[RecordedChannel, ...]
    pressure: str
    temperature: str | None = None
    asked_mpa: float | None = None
    reach_mpa: float = 1000.0
    rate_hz: float = Field(gt=0)
    number: str | None = None
    every_s: float | None = Field(default=None, gt=0)

    def place(self, key: str) -> int:
        """Where in a row the figure of a channel stands, from 1 up; the time stands first."""
        return 1 + next(place for place, channel in enumerate(self.channels) if channel.key == key)


def rows_text(rows: Iterable[Row]) -> str:
    """The text a chunk is hashed and kept as: JSON, a row of time [s] and figures; null where a channel showed nothing.

    Parameters: rows : any figures. Source: the record's own format, docs/guide/stand.md.
    """
    kept = [[None if math.isnan(value) else round(value, 6) for value in row] for row in rows]
    return json.dumps(kept, separators=(",", ":"), allow_nan=False)


def read_rows(text: str) -> tuple[Row, ...]:
    """The rows in the text of a chunk, NaN for null. [s, base units]"""
    return tuple(tuple(math.nan if value is None else float(value) for value in row) for row in json.loads(text))


def chained(before: str, text: str) -> str:
    """The hash of a chunk: over the one before it and its own text. Source: SHA-256."""
    return hashlib.sha256(f"{before}\n{text}".encode()).hexdigest()


def broken_at(chunks: Sequence[tuple[int, str, str]]) -> int | None:
    """The first chunk (place, 0 or above; text, hash) that does not follow from the one before, or None. [place]

    Source: SHA-256.
    """
    before = FIRST_CHUNK
    for wanted, (place, text, digest) in enumerate(chunks):
        if place != wanted or chained(before, text) != digest:
            return wanted
        before = digest
    return None
