"""The driver against the simulated stand over real Modbus TCP."""

from __future__ import annotations

import asyncio
import os
import subprocess
import sys
from collections.abc import Iterator

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.launch.machine import free_port
from ironkettle.settings import PROJECT
from ironkettle.stand.driver import StandAwayError, StandDriver, StandReading
from ironkettle.stand.simulated import pressure_at


@pytest.fixture
def stand() -> Iterator[int]:
    port = free_port()
    process = subprocess.Popen(
        [sys.executable, "-m", "ironkettle.stand.simulated", str(port)],
        env={**os.environ, "PYTHONPATH": str(PROJECT / "src")},
    )
    yield port
    process.terminate()
    process.wait(timeout=10)


async def until(driver: StandDriver, pressure: float) -> StandReading:
    """Asks until the stand answers and shows the pressure."""
    async with asyncio.timeout(20):
        while True:
            try:
                reading = await driver.read()
            except StandAwayError:
                await asyncio.sleep(0)
                continue
            if abs(reading.pressure - pressure) < 0.3:
                return reading


def test_reads_holds_and_tells_when_the_stand_is_gone(stand: int) -> None:
    async def work() -> None:
        driver = StandDriver("127.0.0.1", stand)
        idle = await until(driver, 0.0)
        assert idle.simulated
        await driver.hold_at(18.0)
        held = await until(driver, 18.0)
        assert held.pressure == pytest.approx(18.0, abs=0.3)
        assert held.temperature == pytest.approx(24, abs=1)
        await driver.close()
        with pytest.raises(StandAwayError, match="is it switched on"):
            await StandDriver("127.0.0.1", 1).read()

    asyncio.run(work())


@given(held=st.floats(0, 3600), later=st.floats(0, 600))
def test_the_simulated_unit_only_ever_loses_pressure(held: float, later: float) -> None:
    assert pressure_at(180, held + later)[0] <= pressure_at(180, held)[0]
    assert pressure_at(180, 0)[0] == 180
