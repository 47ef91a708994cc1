"""What a test run is recorded with: its gauge, its samples in sealed chunks, and what it came to."""

from __future__ import annotations

import hashlib
import json
from collections.abc import Iterable, Sequence
from datetime import date
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, StringConstraints

from ironkettle.core.base.text import Figure, Plain
from ironkettle.core.machine.pressure import Sample
from ironkettle.core.sheets.document.fields import Pressure, Torque, Volume

_Name = Annotated[str, StringConstraints(min_length=1, max_length=120, strip_whitespace=True), Plain]
# Samples are sealed and stored this many at a time.
CHUNK_SAMPLES = 2000


class _Fixed(BaseModel):
    model_config = ConfigDict(extra="forbid", frozen=True)


class GaugeUsed(_Fixed):
    """The gauge as it was when used, so that the record stands by itself. ``stability_pct``: by how much of the reading it may
    drift or stick in a hold, as its maker states it."""

    name: _Name
    range: Pressure
    resolution: Pressure
    accuracy_pct: Figure = Field(gt=0, le=20)
    stability_pct: Figure | None = Field(default=None, gt=0, le=20)
    calibrated_until: date | None = None
    calibration: _Name | None = None


class WrenchUsed(_Fixed):
    """The wrench as the shop's list had it when it was used. ``clicks``: at the torque it is set to, and shows none (ISO 6789, type II)."""

    name: _Name
    low: Torque
    high: Torque
    accuracy_pct: Figure = Field(gt=0, le=20)
    calibrated_until: date | None = None
    calibration: _Name | None = None
    clicks: bool = False


class MeasuredInPlace(_Fixed):
    """A known volume let out once at pressure, and the drop it made: how soft the unit and its hoses are."""

    volume: Volume
    drop: Pressure


class SampleRead(_Fixed):
    t_s: Figure = Field(ge=0, le=1e7)
    pressure_mpa: Figure = Field(ge=-0.11, le=1000)
    temperature_c: Figure | None = Field(default=None, ge=-100, le=300)


def plain(samples: Iterable[SampleRead]) -> tuple[Sample, ...]:
    """Samples as they came, as the sums take them. [s, MPa, °C]"""
    return tuple(Sample(sample.t_s, sample.pressure_mpa, sample.temperature_c) for sample in samples)


class Chunk(_Fixed):
    """The seal of a chunk of samples: how many, over which times, and the SHA-256 of their text."""

    count: int = Field(ge=1)
    first_s: float
    last_s: float
    last_mpa: float
    sha256: str


class ResultTold(_Fixed):
    """One figure a run came to, with its interval and what it was held against, as told."""

    model_config = ConfigDict(extra="ignore", frozen=True)

    key: str
    name: str
    value: float
    shown: str
    interval: str | None = None
    within: str | None = None
    verdict: Literal["pass", "fail", "undecided", "invalid"] | None = None


class Judgement(_Fixed):
    """What a test run came to, as it was judged when it was closed. Later rules do not judge it again.

    ``judged_from_s``: from when on its trace counted; None for one that was closed before that was told.
    """

    model_config = ConfigDict(extra="ignore", frozen=True)

    verdict: Literal["pass", "fail", "undecided", "invalid"]
    limit: str
    wanted: str
    rate_ml_min: float = 0.0
    low_ml_min: float = 0.0
    high_ml_min: float = 0.0
    held_low_mpa: float = 0.0
    held_high_mpa: float = 0.0
    hold_s: float = 0.0
    judged_from_s: float | None = None
    temperature_corrected: bool = False
    words: list[str] = Field(default_factory=list)
    results: list[ResultTold] = Field(default_factory=list)


def chunk_text(samples: Iterable[SampleRead]) -> str:
    """The text a chunk is hashed and stored as: JSON, a row of time, pressure, temperature a sample. [s, MPa, °C]"""
    rows = [[sample.t_s, sample.pressure_mpa, sample.temperature_c] for sample in samples]
    return json.dumps(rows, separators=(",", ":"), allow_nan=False)


def read_chunk(text: str) -> tuple[Sample, ...]:
    """The samples in the text of a chunk, which were checked before it was sealed. [s, MPa, °C]"""
    return tuple(Sample(t, p, c) for t, p, c in json.loads(text))


def chunks_of(samples: Sequence[SampleRead]) -> tuple[tuple[Chunk, str], ...]:
    """Samples cut into chunks, each with its seal and its text."""
    found = []
    for start in range(0, len(samples), CHUNK_SAMPLES):
        part = samples[start : start + CHUNK_SAMPLES]
        text = chunk_text(part)
        digest = hashlib.sha256(text.encode()).hexdigest()
        seal = Chunk(
            count=len(part),
            first_s=part[0].t_s,
            last_s=part[-1].t_s,
            last_mpa=part[-1].pressure_mpa,
            sha256=digest,
        )
        found.append((seal, text))
    return tuple(found)
