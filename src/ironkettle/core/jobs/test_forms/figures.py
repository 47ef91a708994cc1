"""A test of any kind that is recorded as figures: opening pressure, effort, count and their like."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from ironkettle.core.base.errors import fault
from ironkettle.core.base.json import JsonObject
from ironkettle.core.base.quantities import OFFERED, find_unit, show
from ironkettle.core.jobs.ask import Ask
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.figure_tests import FigureTest, judged_of
from ironkettle.core.jobs.gauging import check_listed, gauge_that_tells
from ironkettle.core.jobs.proving import When, when_of
from ironkettle.core.jobs.runs import GaugeUsed, Judgement, MeasuredInPlace
from ironkettle.core.jobs.screen import AllAsShould, Screen
from ironkettle.core.jobs.task import Task, all_as_should
from ironkettle.core.jobs.test_forms.base import RunTold, TestForm
from ironkettle.core.sheets.document.trials import TestSpec


class FiguresScreen(Screen):
    """A test recorded as figures: what is wanted, how it is run, where to stand; ``on_gauge``: read on one of the shop's gauges.

    ``coarsest``: the widest step that gauge may have; ``unreadable``: why its figures are recorded in words only.
    """

    kind: Literal["figures"] = "figures"
    test: str
    when: When
    word: str
    says: str
    steps: list[str]
    stand: str
    caution: str | None
    on_gauge: bool
    coarsest: str | None
    unreadable: str | None
    as_should: AllAsShould | None


@dataclass(frozen=True, slots=True)
class FiguresForm(TestForm):
    case: Case
    spec: TestSpec
    kind: FigureTest

    def screen(self, task: Task) -> Screen:
        found = self.kind.plan(None)
        unit = None if found.dimension is None else find_unit(OFFERED[found.dimension][0])
        return FiguresScreen(
            test=self.spec.key,
            when=when_of(task),
            word=self.kind.bound.word,
            says=self.kind.bound.says,
            steps=list(found.steps),
            stand=found.stand,
            caution=found.caution,
            on_gauge=self.kind.reads_pressure,
            coarsest=None if found.coarsest is None or unit is None else show(found.coarsest, unit),
            unreadable=self.kind.unreadable,
            as_should=all_as_should(self.case, task),
        )

    def proposed(self) -> JsonObject:
        gauge = gauge_that_tells(self.case, self.kind)
        return {
            "gauge": None if gauge is None else gauge.model_dump(mode="json"),
            "record": dict(self.kind.bound.blank),
        }

    def asks(self) -> tuple[Ask, ...]:
        return self.kind.asks

    def check(self, run: RunTold) -> None:
        if run.record is None:
            raise fault("record", f"what was read? {self.kind.bound.says}")
        if run.samples:
            raise fault("samples", f"{self.spec.name} has no trace: enter its readings")
        if run.gauge is not None:
            check_listed(self.case, run.gauge)
        self.kind.outcome(run.record, run.gauge)

    def judge(self, run: RunTold) -> Judgement:
        return judged_of(self.kind, self.kind.outcome(run.record or {}, run.gauge))

    @property
    def lasts(self) -> float | None:
        return self.kind.bound.lasts

    def lasted(self, run: RunTold, /) -> float | None:
        return self.kind.bound.lasted(run.record or {})

    def check_start(self, _gauge: GaugeUsed, _measured: MeasuredInPlace | None, /) -> None:
        raise fault("test", f"{self.spec.name} is recorded in one entry: {self.kind.bound.says}")
