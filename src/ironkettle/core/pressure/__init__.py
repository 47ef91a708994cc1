"""Pressure tests: plan, trace, leak rate from decay, verdict, stored energy."""

from ironkettle.core.pressure.energy import stored_energy
from ironkettle.core.pressure.hold import LEAST_READINGS, Analysis, analyse_hold
from ironkettle.core.pressure.model import (
    STANDARD_PRESSURE_MPA,
    Compliance,
    Fluid,
    Gauge,
    HoldRules,
    Sample,
    TestVolume,
    find_fluid,
)
from ironkettle.core.pressure.plan import HoldPlan, hold_needed, plan_hold
from ironkettle.core.pressure.thin import thinned
from ironkettle.core.pressure.trace import read_trace, trace_csv

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
    "analyse_hold",
    "find_fluid",
    "hold_needed",
    "plan_hold",
    "read_trace",
    "stored_energy",
    "thinned",
    "trace_csv",
]
