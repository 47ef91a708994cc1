"""The simulated stand: a volume of oil that settles, cools a little and leaks a little.

Runs as a process of its own: ``python -m ironkettle.stand.simulated PORT``.
"""

from __future__ import annotations

import asyncio
import logging
import math
import random
import secrets
import sys
import time

from pymodbus.client import AsyncModbusTcpClient
from pymodbus.server import ModbusTcpServer
from pymodbus.simulator import DataType, SimData, SimDevice

from ironkettle.stand import registers

SETTLING_SHARE = 0.006
SETTLING_S = 8.0
LEAK_BAR_PER_S = 0.004
COOLING_C = 0.4
COOLING_S = 600.0
NOISE_BAR = 0.02
BAR_PER_K = 0.9
START_C = 24.0
_READ, _WRITE = 3, 16
_FLOAT = AsyncModbusTcpClient.DATATYPE.FLOAT32


def pressure_at(target: float, held: float) -> tuple[float, float]:
    """Pressure and temperature of a good unit after a time on hold, without noise. [bar, °C]

    Parameters: target in bar, held in s. The pressure settles by 0.6 % over some seconds, follows
    the cooling of the oil, and sinks by a leak far below the usual limits.
    """
    temperature = START_C - COOLING_C * (1 - math.exp(-held / COOLING_S))
    settled = target * (1 - SETTLING_SHARE * (1 - math.exp(-held / SETTLING_S)))
    pressure = settled - LEAK_BAR_PER_S * held - BAR_PER_K * (START_C - temperature)
    return max(pressure, 0.0), temperature


async def serve(port: int) -> None:
    """Answer on loopback until stopped; registers are renewed ten times a second."""
    device = SimDevice(
        id=registers.UNIT, simdata=[SimData(0, values=[0] * registers.REGISTERS, datatype=DataType.REGISTERS)]
    )
    server = ModbusTcpServer(device, address=("127.0.0.1", port))
    await server.serve_forever(background=True)
    chance = random.Random(417)
    target, since, hold = 0.0, time.monotonic(), 0
    while True:
        wanted = await _float_at(server, registers.TARGET_BAR)
        if wanted > 0:
            # By chance, so that a stand started again never comes back with the number of an earlier hold.
            target, since, hold = wanted, time.monotonic(), secrets.randbelow(2**24 - 1) + 1
            await _set(server, registers.TARGET_BAR, 0.0)
        held = time.monotonic() - since
        pressure, temperature = pressure_at(target, held)
        if target > 0:
            pressure += chance.gauss(0, NOISE_BAR)
        for address, value in (
            (registers.PRESSURE_BAR, round(pressure, 2)),
            (registers.TEMPERATURE_C, round(temperature, 2)),
            (registers.HELD_S, held if target > 0 else 0.0),
            (registers.SIMULATED, 1.0),
            (registers.HOLD, float(hold)),
        ):
            await _set(server, address, value)
        await asyncio.sleep(0.1)


async def _float_at(server: ModbusTcpServer, address: int) -> float:
    words = await server.async_getValues(registers.UNIT, _READ, address, 2)
    value = AsyncModbusTcpClient.convert_from_registers([int(word) for word in words], _FLOAT)
    return float(value) if isinstance(value, float) else 0.0


async def _set(server: ModbusTcpServer, address: int, value: float) -> None:
    await server.async_setValues(
        registers.UNIT, _WRITE, address, AsyncModbusTcpClient.convert_to_registers(value, _FLOAT)
    )


def main() -> None:
    logging.getLogger("pymodbus").setLevel(logging.CRITICAL)
    try:
        asyncio.run(serve(int(sys.argv[1])))
    except KeyboardInterrupt:
        return


if __name__ == "__main__":
    main()
