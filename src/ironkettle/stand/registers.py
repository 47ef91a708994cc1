"""The stand's register map (Modbus holding registers, 32-bit floats, two registers each)."""

PRESSURE_BAR = 0
TEMPERATURE_C = 2
HELD_S = 4
SIMULATED = 6
# A number the stand gives each hold; another one means another hold, also after a restart.
HOLD = 8
TARGET_BAR = 10
REGISTERS = 12
UNIT = 1
