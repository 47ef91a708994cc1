"""What a hold comes to: its volume, its gauge, how long it must last, and the verdict on its trace."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from typing import Protocol

from ironkettle.core.base.errors import RuleError
from ironkettle.core.base.quantities import read_flow, read_gauge_pressure, read_volume
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.runs import GaugeUsed, Judgement, MeasuredInPlace
from ironkettle.core.machine.pressure import (
    Analysis,
    Compliance,
    Gauge,
    HoldPlan,
    Sample,
    TestVolume,
    analyse_hold,
    find_fluid,
    hold_needed,
    means_of,
    plan_hold,
)
from ironkettle.core.sheets.document.trials import HoldTest

# Readings of a hold that are judged one by one.
MOST_JUDGED = 180_000


class RunFacts(Protocol):
    """What of a run its verdict needs beside the samples."""

    @property
    def gauge(self) -> GaugeUsed | None: ...

    @property
    def compliance(self) -> MeasuredInPlace | None: ...


def volume_of(case: Case, spec: HoldTest, measured: MeasuredInPlace | None = None) -> TestVolume:
    """The test volume of a hold, as measured in place where it was. [ml]"""
    compliance = None
    if measured is not None:
        drop = read_gauge_pressure(measured.drop, "compliance.drop")
        compliance = Compliance(read_volume(measured.volume, "compliance.volume"), drop)
    fluid = find_fluid(spec.medium, case.tables.fluids, "medium")
    return TestVolume(spec.volume.value, fluid, spec.bulk_modulus_gpa, compliance=compliance)


def gauge_of(used: GaugeUsed) -> Gauge:
    """The gauge of a run as holds are judged with it. [MPa]"""
    return Gauge(
        read_gauge_pressure(used.range, "gauge.range"),
        read_gauge_pressure(used.resolution, "gauge.resolution"),
        used.accuracy_pct,
        used.stability_pct,
    )


def limit_of(case: Case, spec: HoldTest) -> float:
    """The most a hold may leak; a drop is what the shop takes it for. [ml/min]"""
    return read_flow(spec.leak_limit, "leak_limit", drop_ml=case.tables.hold_rules.drop_ml)


def planned_hold(case: Case, spec: HoldTest, used: GaugeUsed, measured: MeasuredInPlace | None = None) -> float:
    """How long a hold must last: what the formula needs, and what the sheet plans. [s]"""
    wanted = spec.pressure.value
    volume = volume_of(case, spec, measured)
    needed = hold_needed(volume, gauge_of(used), limit_of(case, spec), wanted, case.tables.hold_rules)
    planned = spec.hold.value if spec.hold else 0.0
    return max(needed, planned)


def plan_of_hold(case: Case, spec: HoldTest, used: GaugeUsed, measured: MeasuredInPlace | None = None) -> HoldPlan:
    """How a hold of the sheet is run on a gauge; it lasts at least what the sheet plans. [s, ml/min, J]"""
    wanted = spec.pressure.value
    volume = volume_of(case, spec, measured)
    found = plan_hold(wanted, volume, gauge_of(used), limit_of(case, spec), case.tables.hold_rules)
    return replace(found, hold_needed=max(found.hold_needed, planned_hold(case, spec, used, measured)))


def analysis_of(case: Case, spec: HoldTest, run: RunFacts, read: Sequence[Sample]) -> Analysis | None:
    """What a hold comes to so far; None where its trace cannot be judged at all."""
    if run.gauge is None:
        return None
    # A hold of many hours is judged by means of so many readings each.
    together = -(-len(read) // MOST_JUDGED)
    try:
        return analyse_hold(
            means_of(read, max(together, 1)),
            volume_of(case, spec, run.compliance),
            gauge_of(run.gauge),
            limit_of(case, spec),
            wanted=spec.pressure.value,
            planned_hold=planned_hold(case, spec, run.gauge, run.compliance),
            rules=case.tables.hold_rules,
        )
    except RuleError:
        return None


def judged(spec: HoldTest, found: Analysis | None) -> Judgement:
    """What a hold came to, as it is recorded with its run; undecided where it has too few readings."""
    limit, wanted = spec.leak_limit, spec.pressure
    if found is None:
        return Judgement(verdict="invalid", limit=limit, wanted=wanted, words=["too few readings"])
    return Judgement(
        verdict=found.verdict,
        limit=limit,
        wanted=wanted,
        rate_ml_min=found.leak_rate,
        low_ml_min=found.interval[0],
        high_ml_min=found.interval[1],
        held_low_mpa=found.held_low,
        held_high_mpa=found.held_high,
        hold_s=found.hold,
        judged_from_s=found.judged[0],
        temperature_corrected=found.temperature_corrected,
        words=[finding.message for finding in found.findings if finding.severity != "info"],
    )
