"""A pressure hold in a job: it is recorded as a trace on a gauge."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from ironkettle.core.base.errors import fault
from ironkettle.core.base.json import JsonObject
from ironkettle.core.jobs.ask import Ask
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.gauging import check_gauge, check_reach, gauge_for
from ironkettle.core.jobs.judging import RunFacts, analysis_of, judged, limit_of, planned_hold
from ironkettle.core.jobs.proving import When, check_forward, refuse_used_trace, when_of
from ironkettle.core.jobs.runs import GaugeUsed, Judgement, MeasuredInPlace, plain
from ironkettle.core.jobs.screen import Screen
from ironkettle.core.jobs.task import Task
from ironkettle.core.jobs.test_forms.base import JudgedRun, RunTold, TestForm
from ironkettle.core.jobs.witness import check_collected, shown_with_glass, with_glass
from ironkettle.core.machine.pressure import Analysis, Sample
from ironkettle.core.sheets.document.parts import Read
from ironkettle.core.sheets.document.trials import HoldTest


class HoldScreen(Screen):
    """A pressure hold. ``says``: what is held on what, in words. ``gauge``: the one proposed, and ``hold_s``, how long it must hold on it; ``glass``: the port at which a measuring
    glass stands."""

    kind: Literal["hold"] = "hold"
    test: str
    when: When
    says: str
    pressure: str
    leak_limit: str
    glass: str | None
    gauge: str
    hold_s: float


@dataclass(frozen=True, slots=True)
class HoldForm(TestForm):
    case: Case
    spec: HoldTest

    def screen(self, task: Task) -> Screen:
        spec, used = self.spec, gauge_for(self.case, self.spec)
        return HoldScreen(
            test=spec.key, when=when_of(task), says=self._says(), pressure=spec.pressure, leak_limit=spec.leak_limit,
            glass=spec.glass, gauge=used.name, hold_s=planned_hold(self.case, spec, used),
        )  # fmt: skip

    def _says(self) -> str:
        spec = self.spec
        modulus = f", effective bulk modulus {spec.bulk_modulus_gpa:g} GPa" if spec.bulk_modulus_gpa else ""
        return f"{spec.pressure} on {spec.volume} of {spec.medium}{modulus}; leak at most {spec.leak_limit}"

    def proposed(self) -> JsonObject:
        return {"gauge": gauge_for(self.case, self.spec).model_dump(mode="json")}

    def asks(self) -> tuple[Ask, ...]:
        spec = self.spec
        held = planned_hold(self.case, spec, gauge_for(self.case, spec))
        seconds = round(1.1 * held + 20, 1)
        needs = {"pressure_mpa": spec.pressure.value, "seconds": seconds, "every_s": round(max(held / 60, 2.0), 1)}
        trace = Ask("samples", Read.TRACE, f"Hold {spec.pressure}", needs=needs, hint=spec.leak_limit)
        if spec.glass is None:
            return (trace,)
        # Half of what a leak at the limit would run in that time.
        most = round(limit_of(self.case, spec) * seconds / 60 / 2, 3)
        label = f"Into the measuring glass at the {spec.glass}"
        # A unit that is tight leaves nothing in the glass; more would speak against its pressure.
        return trace, Ask("collected", Read.VOLUME, label, unit="ml", limit=(0.0, most), right="0 ml")

    def check(self, run: RunTold) -> None:
        if run.record is not None:
            raise fault("record", f"{self.spec.name} needs a trace: enter its readings as samples")
        if run.gauge is None:
            raise fault("gauge", "on which gauge was it read?")
        check_gauge(self.case, self.spec, run.gauge)
        check_forward(run.samples, -1.0)
        check_reach(run.samples, run.gauge)
        if len(run.samples) < 2:
            raise fault("samples", "a hold needs its readings")
        check_collected(self.spec, run.collected)
        refuse_used_trace(self.case)

    def judge(self, run: RunTold) -> Judgement:
        found = judged(self.spec, analysis_of(self.case, self.spec, run, plain(run.samples)))
        return with_glass(found, self.spec, run.collected, limit_of(self.case, self.spec), found.hold_s)

    def check_start(self, gauge: GaugeUsed, measured: MeasuredInPlace | None, /) -> None:
        check_gauge(self.case, self.spec, gauge)
        planned_hold(self.case, self.spec, gauge, measured)

    def planned_hold(self, run: RunFacts, /) -> float | None:
        return None if run.gauge is None else planned_hold(self.case, self.spec, run.gauge, run.compliance)

    def analysis(self, run: JudgedRun, read: Sequence[Sample], /) -> Analysis | None:
        found = analysis_of(self.case, self.spec, run, read)
        return None if found is None else shown_with_glass(found, self.spec, run.judgement)
