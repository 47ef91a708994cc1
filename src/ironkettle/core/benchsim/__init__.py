"""The physics of the simulated stand: volumes, leaks, valves, friction, gauges and their faults. No clock of its own."""

from ironkettle.core.benchsim.flows import gap_flow, gas_flow, orifice_flow
from ironkettle.core.benchsim.fluids import Liquid
from ironkettle.core.benchsim.gauges import Channel, Fault
from ironkettle.core.benchsim.parts import Regulator, ReliefValve, Sliding
from ironkettle.core.benchsim.stand import Leaks, Stand
from ironkettle.core.benchsim.volumes import GasVolume, LiquidVolume

__all__ = [
    "Channel",
    "Fault",
    "GasVolume",
    "Leaks",
    "Liquid",
    "LiquidVolume",
    "Regulator",
    "ReliefValve",
    "Sliding",
    "Stand",
    "gap_flow",
    "gas_flow",
    "orifice_flow",
]
