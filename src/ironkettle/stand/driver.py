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
    """Gauge pressure in MPa, temperature in °C, seconds since the valve was shut, and which hold it is.

    ``flow``: what leaks out now [ml/min], where the stand has a meter for it.
    """

    pressure: float
    temperature: float
    held: float
    simulated: bool
    hold: int = 0
    flow: float = 0.0


@dataclass(frozen=True, slots=True)
class StandPanel:
    """The panel of the simulated stand: radial gaps along the rod and past the piston [µm], a hole [mm], a fault's name."""

    rod_gap: float = 0.0
    bypass_gap: float = 0.0
    hole: float = 0.0
    fault: str = ""


class StandDriver:
    """One connection, opened when first wanted and again after a loss; calls take turns."""

    def __init__(self, host: str, port: int) -> None:
        self._host, self._port = host, port
        self._client: AsyncModbusTcpClient | None = None
        self._turn = asyncio.Lock()

    async def read(self) -> StandReading:
        """What the stand shows now. Raises StandAwayError when it does not answer."""
        values = await self._values()
        return StandReading(
            float(values[registers.PRESSURE_BAR // 2]) / BAR_PER_MPA,
            float(values[registers.TEMPERATURE_C // 2]),
            float(values[registers.HELD_S // 2]),
            float(values[registers.SIMULATED // 2]) > 0.5,
            int(values[registers.HOLD // 2]),
            float(values[registers.FLOW_ML_MIN // 2]),
        )

    async def _values(self) -> list[float]:
        async with self._turn:
            client = await self._connected()
            try:
                answer = await client.read_holding_registers(0, count=registers.REGISTERS, device_id=registers.UNIT)
            except ModbusException as error:
                raise self._lost(error) from None
        if answer.isError():
            raise self._lost(answer)
        floats = client.convert_from_registers(answer.registers, client.DATATYPE.FLOAT32)
        return [float(one) for one in floats] if isinstance(floats, list) else []

    async def hold_at(self, pressure: float) -> None:
        """Raise to a pressure [MPa] and shut the valve. Raises StandAwayError."""
        await self._write(registers.TARGET_BAR, pressure * BAR_PER_MPA)

    async def panel(self) -> StandPanel:
        """How the simulated stand is set up now. Raises StandAwayError."""
        values = await self._values()
        place = int(values[registers.FAULT // 2])
        return StandPanel(
            float(values[registers.ROD_GAP_UM // 2]),
            float(values[registers.BYPASS_GAP_UM // 2]),
            float(values[registers.HOLE_MM // 2]),
            registers.FAULTS[place] if 0 <= place < len(registers.FAULTS) else "",
        )

    async def set_up(self, panel: StandPanel) -> None:
        """Set the leaks and the fault of the simulated stand. Raises StandAwayError."""
        await self._write(registers.ROD_GAP_UM, panel.rod_gap)
        await self._write(registers.BYPASS_GAP_UM, panel.bypass_gap)
        await self._write(registers.HOLE_MM, panel.hole)
        await self._write(registers.FAULT, float(registers.FAULTS.index(panel.fault)))

    async def _write(self, address: int, value: float) -> None:
        async with self._turn:
            client = await self._connected()
            words = client.convert_to_registers(value, client.DATATYPE.FLOAT32)
            try:
                answer = await client.write_registers(address, words, device_id=registers.UNIT)
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
