"""Timing: the median of several rounds."""

from __future__ import annotations

import statistics
import time
from collections.abc import Callable


def median_time(act: Callable[[], object], rounds: int = 30) -> float:
    """Median duration of a call after one that warms up. [s]"""
    act()
    times = []
    for _ in range(rounds):
        began = time.perf_counter()
        act()
        times.append(time.perf_counter() - began)
    return statistics.median(times)
