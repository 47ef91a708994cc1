"""Reads the test stand over Modbus TCP, through the register map the shop keeps."""

from __future__ import annotations

import asyncio
import logging
import math
import struct
from collections.abc import Awaitable, Callable, Sequence
from dataclasses import dataclass

from pymodbus.client import AsyncModbusTcpClient
from pymodbus.exceptions import ModbusException

from ironkettle.core.base.errors import RefusedError
from ironkettle.core.machine.stand import Reads, Shown, StandMap, blocks_of, encode, kept_blocks, kept_of, shown_of
from ironkettle.stand import registers

logging.getLogger("pymodbus").setLevel(logging.CRITICAL)


class StandAwayError(Exception):
    """The stand does not answer."""


@dataclass(frozen=True, slots=True)
class StandPanel:
    """The panel of the simulated stand: what is put on it, what its dials are set to in their order, a fault's name."""

    rig: str = registers.KINDS[0]
    dials: tuple[float, ...] = ()
    fault: str = ""


class StandDriver:
    """One connection, opened when first wanted and again after a loss; calls take turns.

    ``load_map`` gives the shop's register map; it is asked at every connection, and again after ``forget_map``.
    """

    def __init__(self, host: str, port: int, load_map: Callable[[], Awaitable[StandMap]]) -> None:
        self._host, self._port, self._load_map = host, port, load_map
        self._client: AsyncModbusTcpClient | None = None
        self._map: StandMap | None = None
        self._turn = asyncio.Lock()

    async def reach(self) -> None:
        """Returns when something answers at the stand's address. Raises StandAwayError."""
        async with self._turn:
            await self._connected()

    async def map(self) -> StandMap:
        """The register map in use."""
        if self._map is None:
            self._map = await self._load_map()
        return self._map

    def forget_map(self) -> None:
        """The map was changed: read it again."""
        self._map = None

    async def read(self) -> Shown:
        """What the stand shows now. Raises StandAwayError when it does not answer."""
        async with self._turn:
            client = await self._connected()
            stand = await self.map()
            words: dict[int, int] = {}
            for block in blocks_of(stand):
                words |= await self._words(client, block.first, block.count, stand.unit_id)
        return shown_of(words, stand)

    async def kept(self, numbers: Sequence[int]) -> list[Shown] | None:
        """Those of the readings with these numbers that the stand keeps still; None of one that keeps none. Raises StandAwayError."""
        stand = await self.map()
        if stand.numbered is None or not stand.numbered.rows:
            return None
        found = []
        async with self._turn:
            client = await self._connected()
            for block, held in kept_blocks(stand, numbers):
                words = await self._words(client, block.first, block.count, stand.unit_id)
                copies = (kept_of(words, block.first + place * stand.span.count, stand) for place in range(len(held)))
                # A place that was written over meanwhile holds another number.
                found += [copy for number, copy in zip(held, copies, strict=True) if copy.reading == number]
        return found

    async def hold_at(self, pressure: float) -> None:
        """Raise to a pressure [MPa] and shut the valve. Raises StandAwayError; RefusedError for a stand that is raised by hand."""
        stand = await self.map()
        target = stand.channel_of(Reads.TARGET)
        if target is None:
            text = "this stand has no register for the pressure to hold: raise it at the stand, shut the valve, then record"
            raise RefusedError("by-hand", text)
        await self._write(target.register_at, encode(pressure, target), stand.unit_id)

    async def let_down(self) -> None:
        """Let the pressure down. Raises StandAwayError."""
        await self._write_floats(registers.WRITTEN_FROM, [registers.LET_DOWN])

    async def panel(self) -> StandPanel:
        """How the simulated stand is set up now. Raises StandAwayError."""
        async with self._turn:
            client = await self._connected()
            count = registers.REGISTERS - registers.RIG
            words = await self._words(client, registers.RIG, count, (await self.map()).unit_id)
        raw = b"".join(struct.pack(">H", words[at]) for at in sorted(words))
        kind, wrong, *dials = (value if math.isfinite(value) else 0.0 for (value,) in struct.iter_unpack(">f", raw))
        at = int(wrong)
        name = registers.FAULTS[at] if 0 <= at < len(registers.FAULTS) else ""
        rig = registers.KINDS[int(kind)] if 0 <= int(kind) < len(registers.KINDS) else registers.KINDS[0]
        return StandPanel(rig, tuple(dials), name)

    async def set_up(self, panel: StandPanel) -> None:
        """Set what is on the simulated stand, its dials and its fault. Raises StandAwayError."""
        dials = [*panel.dials, *[0.0] * registers.MOST_DIALS][: registers.MOST_DIALS]
        places = [float(registers.KINDS.index(panel.rig)), float(registers.FAULTS.index(panel.fault))]
        await self._write_floats(registers.RIG, [*places, *dials])

    async def close(self) -> None:
        if self._client is not None:
            self._client.close()
            self._client = None

    async def _words(self, client: AsyncModbusTcpClient, first: int, count: int, unit: int) -> dict[int, int]:
        try:
            answer = await client.read_holding_registers(first, count=count, device_id=unit)
        except ModbusException as error:
            raise self._lost(error) from None
        if answer.isError():
            raise self._lost(answer)
        return {first + place: int(word) for place, word in enumerate(answer.registers)}

    async def _write_floats(self, address: int, values: list[float]) -> None:
        raw = struct.pack(f">{len(values)}f", *values)
        words = tuple(int.from_bytes(raw[at : at + 2], "big") for at in range(0, len(raw), 2))
        await self._write(address, words, (await self.map()).unit_id)

    async def _write(self, address: int, words: tuple[int, ...], unit: int) -> None:
        async with self._turn:
            client = await self._connected()
            try:
                answer = await client.write_registers(address, list(words), device_id=unit)
            except ModbusException as error:
                raise self._lost(error) from None
        if answer.isError():
            raise self._lost(answer)

    async def _connected(self) -> AsyncModbusTcpClient:
        if self._client is None or not self._client.connected:
            client = AsyncModbusTcpClient(self._host, port=self._port, timeout=2, retries=1, reconnect_delay=0)
            if not await client.connect():
                raise StandAwayError(f"no test stand answers at {self._host}:{self._port}; is it switched on?")
            self._client = client
        return self._client

    def _lost(self, reason: object) -> StandAwayError:
        if self._client is not None:
            self._client.close()
            self._client = None
        return StandAwayError(f"the test stand stopped answering ({str(reason)[:120]})")
