"""The walker: fills the asks of the next task and posts it, again and again. It works every sound sheet.

The demo loader brings its jobs to their points with it, and the tests take every sheet from intake to release.
"""

from __future__ import annotations

import copy
import math
import random
from collections.abc import Iterator
from typing import Any

from ironkettle.core.jobs import Ask, Task
from ironkettle.core.jobs.filling import put

# No two holds are alike, as no two traces of a shop are.
_PHASES = random.Random()


def filled(task: Task, **given: Any) -> dict[str, Any]:
    """The payload of a task with its asks filled: what is given, else what is right, else proposed, else a yes, the first choice, the middle."""
    payload = copy.deepcopy(dict(task.entry))
    for ask in task.asks:
        value = given.get(ask.field, answer_to(ask))
        if value is not None:
            put(payload, ask.field, value)
    for path, value in given.items():
        if path not in {ask.field for ask in task.asks}:
            put(payload, path, value)
    return payload


def answer_to(ask: Ask) -> Any:
    """What a sound unit and a careful hand answer; None leaves a field out."""
    if ask.right is not None:
        return ask.right
    if ask.proposed is not None:
        return ask.proposed
    if ask.optional:
        return None
    plain = {"yes_no": True, "go_no_go": True, "look": "none", "text": "as it should be", "photo": "as it should be"}
    if ask.read.value in plain:
        return plain[ask.read.value]
    if ask.read.value in {"choice", "zone"}:
        return ask.choices[0].key
    if ask.read.value == "trace":
        return list(tight_trace(**dict(ask.needs or {}), phase=_PHASES.random()))
    return _middle(ask)


def _middle(ask: Ask) -> Any:
    if ask.limit is None or not all(math.isfinite(end) for end in ask.limit):
        raise ValueError(f"{ask.label} has no finite limit")
    middle = sum(ask.limit) / 2
    if ask.read.value == "number":
        return int(middle) if middle == int(middle) else middle
    # Written as finely as a band of twenty parts asks for: what is written more coarsely proves less.
    decimals = max(0, math.ceil(-math.log10(max(ask.limit[1] - ask.limit[0], 1e-6) / 20)))
    return f"{middle:.{decimals}f} {ask.unit}"


def tight_trace(pressure_mpa: float, seconds: float, every_s: float, phase: float = 0.0) -> Iterator[dict[str, float]]:
    """The readings of a tight unit: a gauge that stands still but for a ripple of a hundredth of a bar. [MPa, s]

    ``phase``: where the ripple begins, so that no two holds are alike.
    """
    for place in range(int(seconds / every_s) + 2):
        t = place * every_s
        yield {
            "t_s": round(t, 1),
            "pressure_mpa": round(pressure_mpa + 0.001 * math.sin(1.7 * place + 6.3 * phase), 6),
            "temperature_c": 24.0,
        }
