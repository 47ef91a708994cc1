"""The stand's register map (Modbus holding registers, 32-bit floats, two registers each).

The first are what a stand shows; from ``TARGET_BAR`` on they are written to. A real stand answers up to ``TARGET_BAR``;
what follows is the panel of the simulated one: its leaks and what is wrong with a channel.
"""

PRESSURE_BAR = 0
TEMPERATURE_C = 2
HELD_S = 4
SIMULATED = 6
# A number the stand gives each hold; another one means another hold, also after a restart.
HOLD = 8
TARGET_BAR = 10
# What leaks out of the unit now; a real stand without a flow meter leaves it 0.
FLOW_ML_MIN = 12
# The gap along the rod and past the piston, radial, and a hole. [µm, µm, mm]
ROD_GAP_UM = 14
BYPASS_GAP_UM = 16
HOLE_MM = 18
# 0 for a sound pressure channel, else the place of the fault in FAULTS.
FAULT = 20
REGISTERS = 22
FAULTS = ("", "frozen", "out_of_range", "spikes", "wrong_scale")
UNIT = 1
