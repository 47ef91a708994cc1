"""The first fall: more than what settles, gone before the rest of the hold. A leak that exists only at the full pressure
shows there and nowhere else."""

from __future__ import annotations

import numpy as np

from ironkettle.core.pressure.held import Held
from ironkettle.core.pressure.model import Gauge, HoldRules
from ironkettle.core.pressure.touched import Swing
from ironkettle.core.pressure.trend import trend_of

# So many steps and so much scatter may lie in the first reading and in the one that ends the fall.
_STEPS, _NOISE = 2.0, 4.0
# The fall ends where so much of it is over.
_OVER = 0.9
_LEAST = 5


def early_fall(held: Held, gauge: Gauge, swing: Swing, rules: HoldRules) -> float | None:
    """When the first fall was over, where it took more than what may settle; None where it did not. [s]

    What the pressure fell beyond the line of the last half, less steps, scatter, the doubt of that line, and what temperature
    explains, is held against the settling that is allowed.

    Parameters: held : the judged part. Source: the shop's rules (docs/guide/pressure-tests.md).
    """
    middle = held.start + (held.end - held.start) / 2
    last = held.t >= middle
    if held.fault is not None or last.sum() < _LEAST:
        return None
    read = held.sign * held.pressure
    after = held.t - held.start
    goes_on = trend_of(held.t[last], -read[last], gauge.resolution)
    explained = swing.explains_since_start(held.t, held.temperature)
    fell = read[0] - read - goes_on.slope * after
    doubt = _STEPS * gauge.resolution + _NOISE * goes_on.noise + goes_on.half * after + explained
    beyond = fell - doubt
    if float(beyond.max()) <= rules.settling_pct / 100 * held.size:
        return None
    over = np.flatnonzero(fell >= _OVER * float(fell.max()))
    return float(held.t[over[0]])
