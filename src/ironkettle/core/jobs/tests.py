"""Verdicts of a job's test runs."""

from __future__ import annotations

from collections.abc import Iterable

from ironkettle.core.buildsheets import TestSpec
from ironkettle.core.errors import RuleError
from ironkettle.core.jobs.state import JobState, TestRun
from ironkettle.core.pressure import Analysis, Fluid, Gauge, Sample, TestVolume, analyse_hold, find_fluid
from ironkettle.core.quantities import read_flow, read_gauge_pressure, read_volume


def volume_of(test: TestSpec, fluids: Iterable[Fluid]) -> TestVolume:
    """The test volume of a sheet's test. [ml]"""
    return TestVolume(
        read_volume(test.volume, "volume"), find_fluid(test.medium, fluids, "medium"), test.bulk_modulus_gpa
    )


def gauge_of(run: TestRun) -> Gauge:
    """The gauge a run was read with. [MPa]"""
    gauge = run.started.value.gauge
    return Gauge(
        read_gauge_pressure(gauge.range, "range"),
        read_gauge_pressure(gauge.resolution, "resolution"),
        gauge.accuracy_pct,
    )


def analysis_of(run: TestRun, test: TestSpec, fluids: Iterable[Fluid]) -> Analysis | None:
    """Leak rate and verdict of a run so far; None while it holds too little to judge."""
    samples = tuple(Sample(s.t_s, s.pressure_mpa, s.temperature_c) for s in run.samples)
    try:
        return analyse_hold(samples, volume_of(test, fluids), gauge_of(run), read_flow(test.leak_limit, "limit"))
    except RuleError:
        return None


def last_closed_run(state: JobState, test: str) -> TestRun | None:
    """The run that counts for a test: the last one closed."""
    closed = [run for run in state.runs_of(test) if run.closed is not None]
    return closed[-1] if closed else None
