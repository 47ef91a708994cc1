"""The simulated stand: the physics of core behind a Modbus server.

Runs as a process of its own: ``python -m ironkettle.stand.simulated PORT``.
"""

from __future__ import annotations

import asyncio
import logging
import math
import secrets
import struct
import sys
import time

from pymodbus.server import ModbusTcpServer
from pymodbus.simulator import DataType, SimData, SimDevice

from ironkettle.core.machine.stand import SHIPPED, Reads, encode
from ironkettle.core.simulation import MOST_MPA, Fault, Stand
from ironkettle.stand import registers

_READ, _WRITE = 3, 16
# Time that a stalled machine did not simulate is made up for, but for what lies further back than this. [s]
_MOST_BEHIND_S = 10.0


async def serve(port: int) -> None:
    """Answer on loopback until stopped; the physics go on, and a reading is taken and kept, fifty times a second."""
    device = SimDevice(
        id=SHIPPED.unit_id, simdata=[SimData(0, values=[0] * registers.ALL, datatype=DataType.REGISTERS)]
    )
    server = ModbusTcpServer(device, address=("127.0.0.1", port))
    await server.serve_forever(background=True)
    stand, every, number = Stand(), registers.NUMBERED.every_s, 0
    await _write(server, registers.RIG, [0.0, 0.0, *stand.settings.values()])
    due = time.monotonic()
    while True:
        await _obey(server, stand)
        due = max(due, time.monotonic() - _MOST_BEHIND_S)
        while due <= time.monotonic():
            due, number = due + every, (number + 1) % 2**32
            stand.advance(every)
            await _show(server, stand, every, number)
        await asyncio.sleep(max(due - time.monotonic(), 0.0))


async def _show(server: ModbusTcpServer, stand: Stand, seconds: float, number: int) -> None:
    """Write what the stand shows where the shipped map says, and a copy of it where readings are kept."""
    values = {**stand.shows(seconds), "held": stand.shows_held(), "hold": float(stand.hold)}
    values |= {"reading": float(number), "simulated": 1.0}
    span = SHIPPED.span
    words = [0] * span.count
    for channel in SHIPPED.channels:
        if channel.reads is not Reads.TARGET:
            at = channel.register_at - span.first
            words[at : at + channel.format.words] = encode(values[channel.key], channel)
    kept_at = registers.NUMBERED.first + number % registers.NUMBERED.rows * span.count
    await server.async_setValues(SHIPPED.unit_id, _WRITE, kept_at, words)
    await server.async_setValues(SHIPPED.unit_id, _WRITE, span.first, words)


async def _obey(server: ModbusTcpServer, stand: Stand) -> None:
    """What was written since: another pressure to hold, something else on the stand, its dials, a fault."""
    written = await _floats(server, registers.WRITTEN_FROM, registers.REGISTERS)
    wanted, kind, wrong, *dials = written
    if 0 <= int(kind) < len(registers.KINDS):
        stand.put_on(registers.KINDS[int(kind)])
    if wanted != 0:
        pressure = 0.0 if wanted < 0 else min(registers.TARGET.base(wanted), MOST_MPA)
        # By chance, so that a stand started again never comes back with the number of an earlier hold.
        stand.raise_to(pressure, secrets.randbelow(2**24 - 1) + 1)
        await _write(server, registers.WRITTEN_FROM, [0.0])
    stand.set_dials({dial.key: value for dial, value in zip(stand.rig.dials, dials, strict=False)})
    known = registers.FAULTS[int(wrong)] if 0 < int(wrong) < len(registers.FAULTS) else ""
    stand.fault = Fault(known) if known else None


async def _floats(server: ModbusTcpServer, first: int, end: int) -> list[float]:
    words = await server.async_getValues(SHIPPED.unit_id, _READ, first, end - first)
    raw = b"".join(struct.pack(">H", int(word)) for word in words)
    # What is no number moves nothing.
    return [0.0 if math.isnan(value) else value for (value,) in struct.iter_unpack(">f", raw)]


async def _write(server: ModbusTcpServer, first: int, values: list[float]) -> None:
    raw = struct.pack(f">{len(values)}f", *values)
    words = [int.from_bytes(raw[at : at + 2], "big") for at in range(0, len(raw), 2)]
    await server.async_setValues(SHIPPED.unit_id, _WRITE, first, words)


def main() -> None:
    logging.getLogger("pymodbus").setLevel(logging.CRITICAL)
    try:
        asyncio.run(serve(int(sys.argv[1])))
    except KeyboardInterrupt:
        return


if __name__ == "__main__":
    main()
