"""What runs in a job now on the server's clock: the timers of its steps, and its tests and looks that take time."""

from __future__ import annotations

from collections.abc import Iterator

from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kinds.begin import running_looks
from ironkettle.core.jobs.kinds.timer_cut import Running, running_timers


def running(case: Case) -> Iterator[Running]:
    """Everything whose time runs now, by its task."""
    yield from running_timers(case)
    yield from running_looks(case)
