"""The driver against the simulated stand over real Modbus TCP."""

from __future__ import annotations

import asyncio
import os
import subprocess
import sys
from collections.abc import Iterator

import pytest

from ironkettle.launch.machine import free_port
from ironkettle.settings import PROJECT
from ironkettle.stand.driver import StandAwayError, StandDriver, StandPanel, StandReading


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


def test_its_panel_sets_leaks_and_faults_that_show(stand: int) -> None:
    async def work() -> None:
        driver = StandDriver("127.0.0.1", stand)
        await until(driver, 0.0)
        tight = await driver.panel()
        assert tight.fault == ""
        assert tight.rod_gap == pytest.approx(0.9)
        await driver.hold_at(10.0)
        held = await until(driver, 10.0)
        # A hundredth of a millimetre past the piston: π·0.05·1e-15·1e7/(12·0.04·0.008) = 4.09e-7 m³/s = 24.5 ml/min.
        await driver.set_up(StandPanel(rod_gap=0.0, bypass_gap=10.0))
        async with asyncio.timeout(20):
            while (now := await driver.read()).flow < 1.0:
                await asyncio.sleep(0)
        assert now.flow < 25
        assert now.hold == held.hold
        await driver.set_up(StandPanel(rod_gap=0.0, fault="wrong_scale"))
        async with asyncio.timeout(20):
            while (await driver.read()).pressure < 20.0:
                await asyncio.sleep(0)
        assert (await driver.panel()).fault == "wrong_scale"
        await driver.close()

    asyncio.run(work())
