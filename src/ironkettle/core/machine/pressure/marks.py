"""By what a trace is known again: one trace proves one test."""

from __future__ import annotations

import hashlib
import json
from collections.abc import Sequence

from ironkettle.core.machine.pressure.model import Sample

# A piece of a trace that is marked: so many pressures in a row, so many of them different, so many pieces at most.
_PIECE, _DIFFERENT, _MOST_PIECES = 24, 12, 200
# A piece begins where the hash of its first pressures ends so: the same places whatever was cut off before them.
_LEAD, _EVERY = 4, 8


def whole_mark(samples: Sequence[Sample]) -> str:
    """The mark of a whole trace: its readings and their times from the first on. [s, MPa]

    Source: SHA-256 of the readings.
    """
    first = samples[0].t if samples else 0.0
    return _digest([[round(sample.t - first, 3), round(sample.pressure, 7)] for sample in samples])


def piece_marks(samples: Sequence[Sample]) -> tuple[str, ...]:
    """The marks of pieces of a trace, whatever its times and whatever was cut off before or behind. [MPa]

    None for a piece that hardly moves: two sound units may stand still alike. Source: SHA-256 of readings in a row, begun where
    the readings themselves say.
    """
    pressures = [round(sample.pressure, 7) for sample in samples]
    found: list[str] = []
    for place in range(len(pressures) - _PIECE + 1):
        lead = int(_digest(pressures[place : place + _LEAD])[:8], 16)
        piece = pressures[place : place + _PIECE]
        if lead % _EVERY == 0 and len(set(piece)) >= _DIFFERENT:
            found.append(_digest(piece))
    return tuple(dict.fromkeys(found))[:_MOST_PIECES]


def _digest(value: object) -> str:
    return hashlib.sha256(json.dumps(value, separators=(",", ":")).encode()).hexdigest()
