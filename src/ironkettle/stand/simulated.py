"""The simulated stand: the physics of core behind a Modbus server.

Runs as a process of its own: ``python -m ironkettle.stand.simulated PORT``.
"""

from __future__ import annotations

import asyncio
import logging
import secrets
import sys
import time

from pymodbus.client import AsyncModbusTcpClient
from pymodbus.server import ModbusTcpServer
from pymodbus.simulator import DataType, SimData, SimDevice

from ironkettle.core.benchsim import Fault, Leaks, Stand
from ironkettle.core.benchsim.stand import MOST_MPA
from ironkettle.stand import registers

_READ, _WRITE = 3, 16
_FLOAT = AsyncModbusTcpClient.DATATYPE.FLOAT32


_BAR_PER_MPA, _MM_PER_UM = 10.0, 0.001
_EVERY_S = 0.1


async def serve(port: int) -> None:
    """Answer on loopback until stopped; the physics go on, and registers are renewed, ten times a second."""
    device = SimDevice(
        id=registers.UNIT, simdata=[SimData(0, values=[0] * registers.REGISTERS, datatype=DataType.REGISTERS)]
    )
    server = ModbusTcpServer(device, address=("127.0.0.1", port))
    await server.serve_forever(background=True)
    stand, before = Stand(), time.monotonic()
    await _set(server, registers.ROD_GAP_UM, stand.leaks.rod_gap / _MM_PER_UM)
    while True:
        await _obey(server, stand)
        now = time.monotonic()
        stand.advance(now - before)
        pressure, temperature = stand.shows(max(now - before, 1e-3))
        before = now
        for address, value in (
            (registers.PRESSURE_BAR, pressure * _BAR_PER_MPA),
            (registers.TEMPERATURE_C, temperature),
            (registers.HELD_S, stand.held if stand.shut and stand.wanted > 0 else 0.0),
            (registers.SIMULATED, 1.0),
            (registers.HOLD, float(stand.hold)),
            (registers.FLOW_ML_MIN, stand.outflow()),
        ):
            await _set(server, address, value)
        await asyncio.sleep(_EVERY_S)


async def _obey(server: ModbusTcpServer, stand: Stand) -> None:
    """What was written since: another pressure to hold, other leaks, a fault."""
    wanted = await _float_at(server, registers.TARGET_BAR)
    if wanted > 0:
        # By chance, so that a stand started again never comes back with the number of an earlier hold.
        stand.raise_to(min(wanted / _BAR_PER_MPA, MOST_MPA), secrets.randbelow(2**24 - 1) + 1)
        await _set(server, registers.TARGET_BAR, 0.0)
    rod, bypass = [
        max(await _float_at(server, address), 0.0) * _MM_PER_UM
        for address in (registers.ROD_GAP_UM, registers.BYPASS_GAP_UM)
    ]
    stand.leaks = Leaks(max(await _float_at(server, registers.HOLE_MM), 0.0), rod, bypass)
    place = int(await _float_at(server, registers.FAULT))
    known = registers.FAULTS[place] if 0 < place < len(registers.FAULTS) else ""
    stand.pressure.fault = Fault(known) if known else None


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
