"""What a test of the sheet is to a job, whatever it is: its screen, what it asks, whether a run is complete, and what it comes to."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import ClassVar, Protocol

from pydantic import JsonValue

from ironkettle.core.base.json import JsonObject
from ironkettle.core.jobs.ask import Ask
from ironkettle.core.jobs.judging import RunFacts
from ironkettle.core.jobs.runs import GaugeUsed, Judgement, MeasuredInPlace, SampleRead
from ironkettle.core.jobs.screen import Screen
from ironkettle.core.jobs.task import Task
from ironkettle.core.machine.pressure import Analysis, Sample


class RunTold(RunFacts, Protocol):
    """What an entry tells of a run: its gauge, its trace or its record, and what a measuring glass collected."""

    @property
    def samples(self) -> Sequence[SampleRead]: ...

    @property
    def collected(self) -> str | None: ...

    @property
    def record(self) -> Mapping[str, JsonValue] | None: ...


class JudgedRun(RunFacts, Protocol):
    """A run of a job, and what it came to where it is closed."""

    @property
    def judgement(self) -> Judgement | None: ...


class TestForm(Protocol):
    """One test of the sheet in a job. Each form of recording is one class: a trace, or figures."""

    __test__: ClassVar[bool] = False

    def screen(self, task: Task) -> Screen:
        """What the front end shows of it."""

    def proposed(self) -> JsonObject:
        """What its entry has before anything is read."""

    def asks(self) -> tuple[Ask, ...]:
        """What is read in a run."""

    def check(self, run: RunTold) -> None:
        """Raises RuleError or RefusedError where a run told in one entry is not complete or cannot be read."""

    def judge(self, run: RunTold) -> Judgement:
        """What a run told in one entry comes to."""

    def check_start(self, gauge: GaugeUsed, measured: MeasuredInPlace | None, /) -> None:
        """Raises RuleError where no run whose samples follow may begin on this gauge."""

    @property
    def lasts(self) -> float | None:
        """How long a run takes at least on the server's clock [s]; None where nothing is waited for, and for what has a trace."""
        return None

    def lasted(self, _run: RunTold, /) -> float | None:
        """How long a run took by its own times [s]; None where it has none."""
        return None

    def planned_hold(self, _run: RunFacts, /) -> float | None:
        """How long a run must hold [s]; None where nothing is held."""
        return None

    def analysis(self, _run: JudgedRun, _read: Sequence[Sample], /) -> Analysis | None:
        """What the trace of a run comes to so far; None while it is too short, and where there is none."""
        return None
