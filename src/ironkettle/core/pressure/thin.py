"""A long trace made short enough to draw, with every high and every low of it."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise

import numpy as np


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
