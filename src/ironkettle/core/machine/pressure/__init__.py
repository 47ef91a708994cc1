"""Pressure tests: plan, trace, leak rate from decay, verdict, stored energy."""

from ironkettle.core.machine.pressure.energy import stored_energy
from ironkettle.core.machine.pressure.hold import Analysis, analyse_hold
from ironkettle.core.machine.pressure.marks import piece_marks, whole_mark
from ironkettle.core.machine.pressure.model import (
    LEAST_READINGS,
    STANDARD_PRESSURE_MPA,
    Compliance,
    Fluid,
    Gauge,
    HoldRules,
    Sample,
    TestVolume,
    check_samples,
    find_fluid,
)
from ironkettle.core.machine.pressure.plan import HoldPlan, hold_needed, plan_hold
from ironkettle.core.machine.pressure.thin import means_of, thinned
from ironkettle.core.machine.pressure.trace import TraceState, read_trace, read_trace_part, trace_csv

__all__ = [
    "LEAST_READINGS",
    "STANDARD_PRESSURE_MPA",
    "Analysis",
    "Compliance",
    "Fluid",
    "Gauge",
    "HoldPlan",
    "HoldRules",
    "Sample",
    "TestVolume",
    "TraceState",
    "analyse_hold",
    "check_samples",
    "find_fluid",
    "hold_needed",
    "means_of",
    "piece_marks",
    "plan_hold",
    "read_trace",
    "read_trace_part",
    "stored_energy",
    "thinned",
    "trace_csv",
    "whole_mark",
]
