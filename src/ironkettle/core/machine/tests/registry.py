"""Every kind of test that is told in figures: spec, record, plan, verdict and words, one row a kind."""

from __future__ import annotations

from typing import Any

from ironkettle.core.machine.tests.counting import COUNT
from ironkettle.core.machine.tests.drift import DRIFT
from ironkettle.core.machine.tests.effort import EFFORT
from ironkettle.core.machine.tests.friction import FRICTION
from ironkettle.core.machine.tests.function import FUNCTION
from ironkettle.core.machine.tests.measured import READING
from ironkettle.core.machine.tests.model import Trial
from ironkettle.core.machine.tests.opening import OPENING
from ironkettle.core.machine.tests.pump_up import PUMP_UP
from ironkettle.core.machine.tests.set_point import SET_POINT

TRIALS: dict[str, Trial[Any, Any]] = {
    kind.key: kind for kind in (DRIFT, OPENING, SET_POINT, EFFORT, FRICTION, COUNT, PUMP_UP, READING, FUNCTION)
}
