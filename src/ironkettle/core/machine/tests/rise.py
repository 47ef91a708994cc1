"""How far readings rose within a time."""

from __future__ import annotations

import math
from collections import deque
from collections.abc import Sequence


def risen_within(t: Sequence[float], values: Sequence[float], lasts: float) -> tuple[float, float]:
    """The most that was read to rise over any time of ``lasts``, and the most that may have risen between readings in it.

    Parameters: t : running forward [s]; values : as many [any unit]; lasts > 0 [s].
    Source: by definition; between two readings further apart than ``lasts`` all of their rise may lie in it.
    """
    read, may = 0.0, -math.inf
    # Places within the time, their values rising: the first is the lowest. ``outside``: the last place before it.
    lowest: deque[int] = deque()
    outside = -1
    for place, (at, value) in enumerate(zip(t, values, strict=True)):
        begin = at - lasts - 1e-9
        while t[outside + 1] < begin:
            outside += 1
        while lowest and lowest[0] <= outside:
            lowest.popleft()
        if lowest:
            read = max(read, value - values[lowest[0]])
            may = max(may, value - values[lowest[0]])
        if outside >= 0:
            may = max(may, value - values[outside])
        while lowest and values[lowest[-1]] >= value:
            lowest.pop()
        lowest.append(place)
    return read, max(may, read)
