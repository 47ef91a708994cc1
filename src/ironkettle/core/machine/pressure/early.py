"""The first fall: more than what settles, gone before the rest of the hold. A leak that exists only at the full pressure
shows there and nowhere else."""

from __future__ import annotations

import numpy as np

from ironkettle.core.machine.pressure.held import Held
from ironkettle.core.machine.pressure.model import Gauge, HoldRules
from ironkettle.core.machine.pressure.touched import Swing
from ironkettle.core.machine.pressure.trend import trend_of

# So many steps and so much scatter may lie in the first reading and in the one that ends the fall.
_STEPS, _NOISE, _ENDS = 2.0, 4.0, 3.0
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
    # Rounding and scatter at the ends of the last half; a kink in it is no doubt of where it goes.
    half = min(goes_on.half, (_ENDS * gauge.resolution + _NOISE * goes_on.noise) / goes_on.span)
    doubt = _STEPS * gauge.resolution + _NOISE * goes_on.noise + half * after + explained
    beyond = fell - doubt - rules.settling_pct / 100 * held.size
    if float(beyond.max()) <= 0:
        return None
    # Where it had fallen fastest on the whole.
    steepest = int(np.argmax(beyond[1:] / after[1:])) + 1
    return float(held.t[steepest])
