"""The registers of the simulated stand that are written to (Modbus holding registers, 32-bit floats, two each).

What it shows lies where the shipped map of core says. A real stand needs none of what stands here but the pressure to hold.
"""

from ironkettle.core.machine.stand import SHIPPED, Reads
from ironkettle.core.simulation import RIGS, Fault

# Up to here the stand shows; from here on it is written to.
WRITTEN_FROM = 40
# What is put on it: a place in KINDS; what is wrong with it: a place in FAULTS; then the dials in their order.
RIG, FAULT, DIALS = 42, 44, 46
MOST_DIALS = 6
REGISTERS = DIALS + 2 * MOST_DIALS
# Behind them the last readings are kept.
assert SHIPPED.numbered is not None
NUMBERED = SHIPPED.numbered
assert NUMBERED.first >= REGISTERS
ALL = NUMBERED.first + NUMBERED.rows * SHIPPED.span.count
KINDS = tuple(RIGS)
FAULTS = ("", *(fault.value for fault in Fault))
# Written as the pressure to hold: let everything down.
LET_DOWN = -1.0

_target = SHIPPED.channel_of(Reads.TARGET)
assert _target is not None
TARGET = _target
