"""The physics of the simulated stand: volumes, leaks, valves, friction, gauges and their faults. No clock of its own."""

from ironkettle.core.simulation.flows import gap_flow, gas_flow, orifice_flow
from ironkettle.core.simulation.fluids import Liquid
from ironkettle.core.simulation.gauges import Channel, Fault
from ironkettle.core.simulation.parts import DemandValve, Regulator, ReliefValve, Sliding
from ironkettle.core.simulation.poppet import Poppet
from ironkettle.core.simulation.rigs import (
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
from ironkettle.core.simulation.stand import MOST_MPA, Stand
from ironkettle.core.simulation.stroker import Stroker
from ironkettle.core.simulation.volumes import GasVolume, LiquidVolume

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
