"""The driver against the simulated stand over real Modbus TCP."""

from __future__ import annotations

import asyncio
import math
import os
import subprocess
import sys
from collections.abc import Callable, Iterator
from itertools import pairwise

import pytest

from ironkettle.config import PROJECT
from ironkettle.core.machine.stand import SHIPPED, Shown, StandMap
from ironkettle.launch.machine import free_port
from ironkettle.stand.driver import StandAwayError, StandDriver, StandPanel


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


async def shipped() -> StandMap:
    return SHIPPED


def driver_to(port: int) -> StandDriver:
    return StandDriver("127.0.0.1", port, shipped)


async def until(driver: StandDriver, fits: Callable[[Shown], bool]) -> Shown:
    """Asks until the stand answers and shows it."""
    async with asyncio.timeout(20):
        while True:
            try:
                shown = await driver.read()
            except StandAwayError:
                await asyncio.sleep(0)
                continue
            if fits(shown):
                return shown


def near(mpa: float) -> Callable[[Shown], bool]:
    return lambda shown: abs(shown.values["pressure"] - mpa) < 0.3


def test_reads_holds_lets_down_and_tells_when_the_stand_is_gone(stand: int) -> None:
    async def work() -> None:
        driver = driver_to(stand)
        idle = await until(driver, near(0.0))
        assert idle.simulated
        assert not idle.shut
        await driver.hold_at(18.0)
        first = await until(driver, lambda shown: near(18.0)(shown) and shown.shut)
        assert first.values["temperature"] == pytest.approx(24, abs=1)
        assert set(first.values) == {one.key for one in SHIPPED.measured}
        # From above it lets down: it does not shut on the hold before.
        await driver.hold_at(10.0)
        second = await until(driver, lambda shown: near(10.0)(shown) and shown.shut)
        assert second.hold != first.hold
        await driver.let_down()
        assert not (await until(driver, near(0.0))).shut
        await driver.close()
        with pytest.raises(StandAwayError, match="is it switched on"):
            await driver_to(1).read()

    asyncio.run(work())


def test_what_the_stand_kept_is_read_later_and_none_is_missing(stand: int) -> None:
    async def work() -> None:
        driver = driver_to(stand)
        await driver_until_reading(driver, 1)
        await driver.hold_at(5.0)
        held = await until(driver, lambda shown: near(5.0)(shown) and shown.shut)
        assert held.reading is not None
        # Nothing is asked for two seconds of the stand's own.
        last = await driver_until_reading(driver, held.reading + 100)
        kept = await driver.kept(range(held.reading, last + 1))
        assert kept is not None
        assert [one.reading for one in kept] == list(range(held.reading, last + 1))
        assert kept[0] == held
        assert {one.hold for one in kept} == {held.hold}
        steps = [after.held - before.held for before, after in pairwise(kept) if after.held and before.held]
        assert steps == pytest.approx([0.02] * (len(kept) - 1), abs=1e-3)
        # Ten seconds are kept, and no more: what is asked for beyond is not there, and nothing else comes in its place.
        assert await driver.kept([last + 10_000]) == []
        await driver.close()

    asyncio.run(work())


async def driver_until_reading(driver: StandDriver, number: int) -> int:
    return (await until(driver, lambda shown: shown.reading is not None and shown.reading >= number)).reading or 0


def test_its_panel_sets_what_is_on_it_leaks_and_faults_that_show(stand: int) -> None:
    async def work() -> None:
        driver = driver_to(stand)
        await until(driver, near(0.0))
        assert (await driver.panel()).rig == "oil"
        assert (await driver.panel()).dials[0] == pytest.approx(0.9)
        await driver.hold_at(5.0)
        held = await until(driver, lambda shown: near(5.0)(shown) and shown.shut)
        # A hundredth of a millimetre past the piston: π·0.05·1e-15·5e6/(12·0.04·0.008) = 2.05e-7 m³/s = 12.3 ml/min.
        await driver.set_up(StandPanel("oil", (0.0, 10.0)))
        now = await until(driver, lambda shown: shown.values["flow"] > 1.0)
        assert now.values["flow"] < 12.5
        assert now.hold == held.hold
        await driver.set_up(StandPanel("oil", (0.0,), fault="wrong_scale"))
        assert math.isfinite((await until(driver, lambda shown: shown.values["pressure"] > 20.0)).values["pressure"])
        assert (await driver.panel()).fault == "wrong_scale"
        await driver.set_up(StandPanel("oil", (0.0,), fault="out_of_range"))
        await until(driver, lambda shown: math.isnan(shown.values["pressure"]))
        await driver.set_up(StandPanel("regulator", (4.0, 0.0, 0.0)))
        await driver.hold_at(1.0)
        # Set to 4 bar it locks up two tenths above, and the supply stands at 10 bar.
        locked = await until(driver, lambda shown: shown.values["pressure"] > 0.41)
        assert locked.values["pressure"] == pytest.approx(0.42, abs=0.02)
        await driver.close()

    asyncio.run(work())


def test_a_map_of_the_shops_own_reads_other_registers(stand: int) -> None:
    async def work() -> None:
        bar = SHIPPED.channels[0]
        own = StandMap(
            channels=(
                bar.model_copy(update={"key": "p", "name": "Cap side", "unit": "psi", "scale": 14.50377}),
                SHIPPED.channels[-1],
            )
        )

        async def load() -> StandMap:
            return own

        driver = StandDriver("127.0.0.1", stand, load)
        await until(driver, lambda shown: "p" in shown.values)
        await driver.hold_at(2.0)
        shown = await until(driver, lambda shown: abs(shown.values["p"] - 2.0) < 0.1)
        # It tells neither hold nor time: it counts as shut, and nothing is made up.
        assert (shown.held, shown.hold, shown.shut) == (None, None, True)
        await driver.close()

    asyncio.run(work())
