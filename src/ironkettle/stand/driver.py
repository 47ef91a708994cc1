"""Reads the test stand over Modbus TCP."""

from __future__ import annotations

import asyncio
import logging
from dataclasses import dataclass

from pymodbus.client import AsyncModbusTcpClient
from pymodbus.exceptions import ModbusException

from ironkettle.stand import registers

logging.getLogger("pymodbus").setLevel(logging.CRITICAL)
BAR_PER_MPA = 10.0


class StandAwayError(Exception):
    """The stand does not answer."""


@dataclass(frozen=True, slots=True)
class StandReading:
    """Gauge pressure in MPa, temperature in °C, seconds since the valve was shut, and which hold it is."""

    pressure: float
    temperature: float
    held: float
    simulated: bool
    hold: int = 0


class StandDriver:
    """One connection, opened when first wanted and again after a loss; calls take turns."""

    def __init__(self, host: str, port: int) -> None:
        self._host, self._port = host, port
        self._client: AsyncModbusTcpClient | None = None
        self._turn = asyncio.Lock()

    async def read(self) -> StandReading:
        """What the stand shows now. Raises StandAwayError when it does not answer."""
        async with self._turn:
            client = await self._connected()
            try:
                answer = await client.read_holding_registers(0, count=registers.REGISTERS, device_id=registers.UNIT)
            except ModbusException as error:
                raise self._lost(error) from None
        if answer.isError():
            raise self._lost(answer)
        floats = client.convert_from_registers(answer.registers, client.DATATYPE.FLOAT32)
        values = floats if isinstance(floats, list) else [floats]
        return StandReading(
            float(values[registers.PRESSURE_BAR // 2]) / BAR_PER_MPA,
            float(values[registers.TEMPERATURE_C // 2]),
            float(values[registers.HELD_S // 2]),
            float(values[registers.SIMULATED // 2]) > 0.5,
            int(values[registers.HOLD // 2]),
        )

    async def hold_at(self, pressure: float) -> None:
        """Raise to a pressure [MPa] and shut the valve. Raises StandAwayError."""
        async with self._turn:
            client = await self._connected()
            words = client.convert_to_registers(pressure * BAR_PER_MPA, client.DATATYPE.FLOAT32)
            try:
                answer = await client.write_registers(registers.TARGET_BAR, words, device_id=registers.UNIT)
            except ModbusException as error:
                raise self._lost(error) from None
        if answer.isError():
            raise self._lost(answer)

    async def close(self) -> None:
        if self._client is not None:
            self._client.close()
            self._client = None

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
