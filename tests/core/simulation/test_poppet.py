"""A relief valve of mass and spring: it rests where its sums say, and flutters exactly where the linear sums say it must."""

from __future__ import annotations

import math
from collections.abc import Mapping

import pytest

from ironkettle.core.simulation import Liquid, Poppet, Stand

FLUID = Liquid(air=0.0)
SOFTNESS = 0.3


def run(poppet: Poppet, inflow: float, seconds: float, pressure: float) -> list[tuple[float, float]]:
    """Pressure [MPa] and lift [mm], step by step, of a pump into a volume and out through the valve."""
    fine, found = 1e-5, []
    for _ in range(round(seconds / fine)):
        poppet.step(fine, pressure)
        pressure += (inflow - poppet.flow(pressure, FLUID)) * fine / 60 / SOFTNESS
        found.append((pressure, poppet.lift * 1000))
    return found


def at_rest(poppet: Poppet, inflow: float) -> tuple[float, float]:
    """Where flow in is flow out and spring balances pressure, by halving. [MPa, mm]"""
    low, high = 0.0, 5e-4
    for _ in range(80):
        lift = (low + high) / 2
        pressure = poppet.opens + poppet.stiffness * 1000 * lift / poppet.area / 1e6
        out = 0.7 * math.pi * 0.008 * lift * math.sqrt(2 * pressure * 1e6 / FLUID.density) * 60e6
        low, high = (lift, high) if out < inflow else (low, lift)
    return pressure, lift * 1000


def test_well_damped_it_rests_where_flow_and_spring_balance() -> None:
    """3 l/min at 200 bar through 8 mm: a lift of 13 µm lets it all out; by hand 5e-5/(0.7·π·0.008·214) m."""
    poppet = Poppet(20.0, damping=3000.0)
    assert poppet.settles(3000.0, SOFTNESS, FLUID)
    pressure, lift = run(poppet, 3000.0, 0.4, 19.9)[-1]
    wanted_pressure, wanted_lift = at_rest(poppet, 3000.0)
    assert wanted_lift == pytest.approx(0.0132, rel=0.02)
    assert lift == pytest.approx(wanted_lift, rel=0.01)
    assert pressure == pytest.approx(wanted_pressure, rel=0.0005)


@pytest.mark.parametrize("share", [0.5, 0.8, 1.25, 2.0])
def test_it_flutters_where_the_linear_sums_say_so(share: float) -> None:
    """Disturbed a little at its point of rest, the swing grows below the critical damping and dies above it."""
    low, high = 1.0, 10_000.0
    for _ in range(60):
        middle = (low + high) / 2
        low, high = (low, middle) if Poppet(20.0, damping=middle).settles(3000.0, SOFTNESS, FLUID) else (middle, high)
    poppet = Poppet(20.0, damping=high * share)
    pressure, lift = at_rest(poppet, 3000.0)
    poppet.lift = lift / 1000
    trace = run(poppet, 3000.0, 0.3, pressure + 0.002)
    swings = [max(abs(p - pressure) for p, _ in part) for part in (trace[:400], trace[-5000:])]
    assert (swings[1] > 2 * swings[0]) is (share < 1)
    assert (swings[1] < 0.5 * swings[0]) is (share > 1)


def test_a_poppet_strikes_its_seat_and_never_goes_through_it() -> None:
    poppet = Poppet(20.0, damping=0.0)
    trace = run(poppet, 3000.0, 0.2, 19.9)
    assert min(lift for _, lift in trace) == 0.0
    assert max(p for p, _ in trace) > 20.05


def test_friction_holds_it_until_the_pressure_overcomes_it() -> None:
    """50 N on 50.3 mm² is 0.995 MPa: shut at 20.9 MPa, open at 21.1."""
    for pressure, opens in ((20.9, False), (21.1, True)):
        poppet = Poppet(20.0, friction=50.0)
        poppet.step(1e-4, pressure)
        assert (poppet.lift > 0) is opens


def test_a_soft_volume_is_damped_by_what_the_valve_lets_out() -> None:
    """Routh by hand, SI, at 20 MPa: Qp = 5e-5/4e7 = 1.25e-12, Qx = 0.7·π·0.008·√(4e7/870) = 3.772, A² = 2.527e-9.

    With C = 3e-13, m = 0.05, c = 900, k = 5e4: (2.70e-10 + 6.25e-14)·(1.5e-8 + 1.125e-9 + 2.527e-9) = 5.037e-18 against
    1.5e-14·(6.25e-8 + 1.896e-4) = 2.845e-18: it rests. With c = 500: 1.501e-10·(1.5e-8 + 6.25e-10 + 2.527e-9) = 2.725e-18
    is less: it flutters. The edge lies at 522; without the damping's own part of the linear term it would lie at 541.
    """
    assert FLUID.density == pytest.approx(870, rel=0.001)
    rests = [damping for damping in range(400, 700, 2) if Poppet(20.0, damping=damping).settles(3000.0, 0.3, FLUID)]
    assert rests[0] == pytest.approx(522, abs=3)


def on_stand(settings: Mapping[str, float]) -> list[float]:
    stand = Stand()
    stand.put_on("relief")
    stand.set_dials(settings)
    stand.raise_to(30.0, 1)
    found = []
    for _ in range(60):
        stand.advance(0.02)
        found.append(stand.rig.reading().pressure)
    return found[-25:]


def test_on_the_stand_it_holds_still_or_is_seen_to_flutter() -> None:
    still, wild = on_stand({}), on_stand({"damping": 50.0})
    assert max(still) - min(still) < 0.01
    assert still[-1] == pytest.approx(20.01, abs=0.05)
    assert max(wild) - min(wild) > 0.2
    # Set below where it opens, the pump goes no higher than it is set to.
    assert max(on_stand({"opens": 400.0})) <= 30.1


def test_let_down_the_valve_lies_on_its_seat_without_pressure() -> None:
    stand = Stand()
    stand.put_on("relief")
    stand.raise_to(30.0, 1)
    stand.advance(1.0)
    assert stand.rig.reading().position > 0
    stand.raise_to(0.0, 2)
    stand.advance(0.02)
    now = stand.rig.reading()
    assert (now.pressure, now.position, now.flow) == (0.0, 0.0, 0.0)
