"""Every kind of test that is told in figures: spec, record, plan, verdict and words, one row a kind."""

from __future__ import annotations

from typing import Any

from ironkettle.core.trials.counting import COUNT
from ironkettle.core.trials.drift import DRIFT
from ironkettle.core.trials.effort import EFFORT
from ironkettle.core.trials.friction import FRICTION
from ironkettle.core.trials.function import FUNCTION
from ironkettle.core.trials.measured import READING
from ironkettle.core.trials.model import Trial
from ironkettle.core.trials.opening import OPENING
from ironkettle.core.trials.pump_up import PUMP_UP
from ironkettle.core.trials.set_point import SET_POINT

TRIALS: dict[str, Trial[Any, Any]] = {
    one.key: one for one in (DRIFT, OPENING, SET_POINT, EFFORT, FRICTION, COUNT, PUMP_UP, READING, FUNCTION)
}
