"""The simulated physics against closed forms and what must be conserved."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.simulation import (
    GasVolume,
    Liquid,
    LiquidVolume,
    Regulator,
    ReliefValve,
    Sliding,
    gap_flow,
    gas_flow,
    orifice_flow,
)

PURE = Liquid(air=0.0)
PRESSURES = st.floats(0, 60)


def test_flows_by_hand() -> None:
    """1 mm, 10 MPa, 870 kg/m³: 0.62·7.854e-7·√(2·10e6/870) = 7.3832e-5 m³/s = 4429.9 ml/min.

    Ø28, 5 µm, 8 mm, 18 MPa, 0.04 Pa·s: π·0.028·(5e-6)³·18e6/(12·0.04·0.008) = 5.1542e-8 m³/s = 3.0925 ml/min; quite off
    centre 2.5 times that.
    """
    assert orifice_flow(10, 0, 1.0, PURE) == pytest.approx(4429.9, rel=1e-4)
    assert gap_flow(18, 0, 28, 0.005, 8, PURE) == pytest.approx(3.0925, rel=1e-4)
    assert gap_flow(18, 0, 28, 0.005, 8, PURE, off=1) == pytest.approx(2.5 * 3.0925, rel=1e-4)
    # Choked air through 1 mm from 7 bar: 0.8·A·p·√(γ/(R·T))·(2/(γ+1))^3 = 1.041 g/s at 24 °C.
    p, kelvin = 801325.0, 297.15
    choked = 0.8 * math.pi / 4 * 1e-6 * p * math.sqrt(1.4 / (287.06 * kelvin)) * (2 / 2.4) ** 3 * 1000
    assert gas_flow(0.7, 0.0, 24, 1.0) == pytest.approx(choked, rel=1e-6)


@given(PRESSURES)
def test_nothing_flows_without_a_difference_and_back_the_other_way(pressure: float) -> None:
    assert orifice_flow(pressure, pressure, 1, PURE) == 0
    assert gap_flow(pressure, pressure, 28, 0.005, 8, PURE) == 0
    assert gas_flow(pressure, pressure, 20, 1) == 0
    assert orifice_flow(0, pressure, 1, PURE) == pytest.approx(-orifice_flow(pressure, 0, 1, PURE))
    assert gas_flow(0, pressure, 20, 1) == pytest.approx(-gas_flow(pressure, 0, 20, 1))


@given(PRESSURES, st.floats(0, 0.05))
def test_air_makes_a_liquid_softer_most_where_it_is_hardly_pressed(pressure: float, air: float) -> None:
    liquid = Liquid(air=air)
    assert liquid.effective_modulus(pressure) <= PURE.effective_modulus(pressure) + 1e-6
    assert liquid.effective_modulus(pressure) <= liquid.effective_modulus(pressure + 5) + 1e-6
    # The modulus is that of its own volume: a small difference of pressure by it.
    step = 1e-4
    slope = (liquid.shrunk(pressure) - liquid.shrunk(pressure + step)) / step
    assert liquid.shrunk(pressure) / slope == pytest.approx(liquid.effective_modulus(pressure + step / 2), rel=1e-3)


def test_a_gap_lets_a_pressure_down_as_the_closed_form_does() -> None:
    """q = k·p and dp/dt = −q/(V/K): p = p₀·exp(−k·K/V·t), a liquid without air, no hoses, no settling, no heat."""
    unit = LiquidVolume(PURE, 500.0, pressure=20.0, settles=0.0, temperature=22.0)
    k = gap_flow(1, 0, 28, 0.004, 8, PURE)
    for _ in range(3000):
        unit.step(0.1, -gap_flow(unit.pressure, 0, 28, 0.004, 8, PURE), 22.0)
    assert unit.pressure == pytest.approx(20 * math.exp(-k / 60 * 1600 / 500 * 300), rel=5e-3)


def test_a_hole_lets_it_down_along_a_root() -> None:
    """q = c·√p: √p falls by c·K/(2·V) a second."""
    unit = LiquidVolume(PURE, 5000.0, pressure=20.0, settles=0.0, temperature=22.0)
    c = orifice_flow(1, 0, 0.1, PURE) / 60
    for _ in range(1000):
        unit.step(0.05, -orifice_flow(unit.pressure, 0, 0.1, PURE), 22.0)
    assert math.sqrt(unit.pressure) == pytest.approx(math.sqrt(20) - c * 1600 / (2 * 5000) * 50, rel=5e-3)


@given(st.floats(50, 5000), st.floats(0, 2), st.lists(st.floats(-20, 40), min_size=5, max_size=40))
def test_what_comes_in_less_what_goes_out_is_in_there(volume: float, hoses: float, inflows: list[float]) -> None:
    """The liquid that came, ml by ml, stands in the squeeze of the liquid, the give of the hoses and what settled."""
    unit = LiquidVolume(Liquid(), volume, hoses, pressure=5.0, temperature=22.0)
    stored = came = 0.0
    for inflow in inflows:
        before, softness, taken = unit.pressure, unit.softness, unit.taken
        unit.step(0.05, inflow, 22.0)
        stored += softness * (unit.pressure - before) + (unit.taken - taken)
        came += inflow * 0.05 / 60
        assert unit.pressure > -0.1
    assert stored == pytest.approx(came, abs=1e-9)


def test_oil_locked_in_steel_rises_with_its_heat() -> None:
    """dp = K·α·dT: 1600·0.0007 = 1.12 MPa a kelvin, without air, hoses and settling."""
    unit = LiquidVolume(PURE, 500.0, pressure=10.0, settles=0.0, temperature=20.0, warm_s=1.0)
    unit.step(100.0, 0.0, 21.0)
    assert unit.pressure - 10 == pytest.approx(1.12, rel=1e-3)


def test_gas_at_rest_keeps_its_energy_and_its_mass() -> None:
    """Air let into an empty, insulated volume is hotter by γ: T = 1.4·293.15 K = 137.3 °C. Source: first law."""
    empty = GasVolume(1000.0, mass=1e-6, temperature=20.0, warm_s=1e12)
    for _ in range(20_000):
        empty.step(0.001, 0.5, 20.0, 20.0)
    assert empty.temperature == pytest.approx(1.4 * 293.15 - 273.15, abs=0.2)
    assert empty.mass == pytest.approx(10.0, rel=1e-4)
    assert empty.pressure == pytest.approx(0.010 * 287.06 * 1.4 * 293.15 / 1e-3 / 1e6 - 0.101325, rel=1e-3)


@given(st.floats(0.05, 1.0), st.floats(200, 5000))
def test_energy_of_a_gas_is_what_came_with_it_less_what_went(pressure: float, volume: float) -> None:
    gas = GasVolume(volume, temperature=20.0)
    gas.mass = gas.mass * (pressure + 0.101325) / 0.101325
    energy, heat, carried = gas.energy, 0.0, 0.0
    cp = 1.4 * 287.06 / 0.4
    for _ in range(200):
        out = -gas_flow(gas.pressure, 0.0, gas.temperature, 0.5)
        carried += max(out * 0.01, -gas.mass * 0.5) / 1000 * cp * (gas.temperature + 273.15)
        heat += gas.step(0.01, out, 20.0, 20.0)
    assert gas.energy - energy == pytest.approx(heat + carried, rel=1e-6, abs=1e-6)
    assert gas.temperature <= 20.0 + 1e-9


def test_a_small_hole_empties_a_vessel_as_the_closed_form_does() -> None:
    """Choked and kept at its temperature by its walls: m = m₀·exp(−k·t), k = what flows at m₀ over m₀."""
    gas = GasVolume(5000.0, temperature=20.0, warm_s=1e-3)
    gas.mass *= (0.9 + 0.101325) / 0.101325
    start, first = gas.mass, gas_flow(gas.pressure, 0.0, 20.0, 0.3)
    for _ in range(1500):
        gas.step(0.1, -gas_flow(gas.pressure, 0.0, gas.temperature, 0.3), 20.0, 20.0)
    assert gas.pressure > 0.0914
    assert gas.mass == pytest.approx(start * math.exp(-first / start * 150), rel=2e-3)


def test_a_relief_valve_opens_above_where_it_shuts() -> None:
    valve = ReliefValve(28.0, friction=0.5)
    assert valve.flow(27.9) == 0
    assert valve.flow(28.0) > 0
    assert valve.flow(27.2) > 0
    assert valve.flow(27.0) == 0
    assert valve.flow(27.5) == 0


def test_a_regulator_droops_locks_up_and_creeps() -> None:
    """0.05 bar in 100 l/min; a seat that passes 2 ml/min into 100 ml: 0.101325·2/100 MPa a minute, up to the inlet."""
    regulator = Regulator(0.4, droop=0.00005, friction=0.002, seat_leak=2.0)
    assert regulator.outlet(10, rising=True) - regulator.outlet(110, rising=True) == pytest.approx(0.005)
    assert regulator.outlet(10, rising=False) - regulator.outlet(10, rising=True) == pytest.approx(0.004)
    shut = regulator.outlet(0, rising=True)
    regulator.wait(60, 100, 1.0)
    assert regulator.outlet(0, rising=True) - shut == pytest.approx(0.00202650)
    regulator.wait(1e9, 100, 1.0)
    assert regulator.outlet(0, rising=True) == pytest.approx(1.0)


def test_a_rod_sticks_breaks_away_and_slips() -> None:
    """Nothing moves below 300 N; pulled slowly through a soft spring it jumps, and does not where both frictions are one."""
    rod = Sliding(breakaway=300, running=150, stiffness=20)
    assert rod.step(0.001, 14.9) == pytest.approx(298)
    assert rod.position == 0

    def pauses(running: float) -> int:
        rod = Sliding(breakaway=300, running=running, stiffness=20, damping=0.5)
        stops, moving = 0, False
        for n in range(20_000):
            rod.step(0.001, 0.002 * n)
            if moving and rod.speed == 0:
                stops += 1
            moving = rod.speed != 0
        return stops

    assert pauses(150) > 3
    assert pauses(300) <= 1
