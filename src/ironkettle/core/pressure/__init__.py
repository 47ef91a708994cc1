"""Pressure tests: plan, trace, leak rate from decay, verdict, stored energy."""

from ironkettle.core.pressure.decay import Analysis, TestVolume, analyse_hold
from ironkettle.core.pressure.energy import stored_energy
from ironkettle.core.pressure.model import STANDARD_PRESSURE_MPA, Fluid, Gauge, Sample, find_fluid
from ironkettle.core.pressure.plan import HoldPlan, plan_hold
from ironkettle.core.pressure.trace import read_trace

__all__ = [
    "STANDARD_PRESSURE_MPA",
    "Analysis",
    "Fluid",
    "Gauge",
    "HoldPlan",
    "Sample",
    "TestVolume",
    "analyse_hold",
    "find_fluid",
    "plan_hold",
    "read_trace",
    "stored_energy",
]
