"""The physics of the simulated stand: volumes, leaks, valves, friction, gauges and their faults. No clock of its own."""

from ironkettle.core.benchsim.flows import gap_flow, gas_flow, orifice_flow
from ironkettle.core.benchsim.fluids import Liquid
from ironkettle.core.benchsim.gauges import Channel, Fault
from ironkettle.core.benchsim.parts import DemandValve, Regulator, ReliefValve, Sliding
from ironkettle.core.benchsim.poppet import Poppet
from ironkettle.core.benchsim.rigs import (
    RIGS,
    AirUnit,
    Demand,
    Dial,
    OilUnit,
    Opening,
    Ram,
    Reading,
    RegulatorRig,
    Relief,
    Rig,
    Stroking,
)
from ironkettle.core.benchsim.stand import MOST_MPA, Stand
from ironkettle.core.benchsim.stroker import Stroker
from ironkettle.core.benchsim.volumes import GasVolume, LiquidVolume

__all__ = [
    "MOST_MPA",
    "RIGS",
    "AirUnit",
    "Channel",
    "Demand",
    "DemandValve",
    "Dial",
    "Fault",
    "GasVolume",
    "Liquid",
    "LiquidVolume",
    "OilUnit",
    "Opening",
    "Poppet",
    "Ram",
    "Reading",
    "Regulator",
    "RegulatorRig",
    "Relief",
    "ReliefValve",
    "Rig",
    "Sliding",
    "Stand",
    "Stroker",
    "Stroking",
    "gap_flow",
    "gas_flow",
    "orifice_flow",
]
