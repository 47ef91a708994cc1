"""A long trace made short enough to draw, with every high and every low of it."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise

import numpy as np

from ironkettle.core.base.errors import fault
from ironkettle.core.machine.pressure.model import Sample

_MOST_TOGETHER = 10_000


def thinned(t: Sequence[float], value: Sequence[float], most: int) -> list[tuple[float, float]]:
    """At most so many points, from 4 up: of each stretch of equally many readings its lowest and its highest, in their order.

    The first and the last reading are always among them. Parameters: t rising, value any. [s, unit of value]
    Source: by definition; nothing is averaged, so that no spike and no dip is lost.
    """
    count = len(t)
    if count <= most:
        return [(float(a), float(b)) for a, b in zip(t, value, strict=True)]
    read = np.asarray(value, dtype=float)
    edges = np.linspace(0, count, max(most - 2, 2) // 2 + 1).astype(int)
    kept = {0, count - 1}
    for first, end in pairwise(edges):
        stretch = read[first:end]
        kept |= {int(first + stretch.argmin()), int(first + stretch.argmax())}
    return [(float(t[place]), float(read[place])) for place in sorted(kept)]


def means_of(samples: Sequence[Sample], together: int) -> tuple[Sample, ...]:
    """The means of so many samples each, the last of what is left; for a file with more rows than a run can hold.

    Parameters: together : 1 to 10,000. Source: means keep the slope and the level of a trace; what is averaged is told beside it.
    Raises RuleError for a number outside. [s, MPa, °C]
    """
    if not 1 <= together <= _MOST_TOGETHER:
        raise fault("together", f"{together} rows cannot be taken together", f"1 to {_MOST_TOGETHER}")
    if together == 1:
        return tuple(samples)
    found = []
    for start in range(0, len(samples), together):
        part = samples[start : start + together]
        warm = [sample.temperature for sample in part if sample.temperature is not None]
        found.append(
            Sample(
                sum(sample.t for sample in part) / len(part),
                sum(sample.pressure for sample in part) / len(part),
                sum(warm) / len(warm) if warm else None,
            )
        )
    return tuple(found)
