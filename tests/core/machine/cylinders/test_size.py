"""Cylinder sums against hand calculation and laws."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.base.errors import RuleError
from ironkettle.core.machine.cylinders import (
    Cylinder,
    Rating,
    drift_of,
    held_pressure,
    leak_of,
    oil_to_drain,
    size_cylinder,
    thermal_rise,
    weakest,
)


def test_63_36_400_at_180_bar_and_30_litres() -> None:
    # By hand: A_cap = π/4·63² = 3117.2; A_rod = π/4·(63²-36²) = 2099.4 mm²; push 18·3117.2 = 56.1 kN; pull 37.8 kN;
    # ratio 1.4848; cap 1246.9 ml; rod 839.8 ml; blocked 18·1.4848 = 26.73 MPa; 1246.9/30000·60 = 2.494 s; 1.680 s.
    sums = size_cylinder(Cylinder(63, 36, 400), 18.0, 30_000)
    assert sums.cap_area == pytest.approx(3117.2, abs=0.1)
    assert sums.rod_area == pytest.approx(2099.4, abs=0.1)
    assert (sums.push, sums.pull) == pytest.approx((56.11, 37.79), abs=0.01)
    assert sums.ratio == pytest.approx(1.4848, abs=1e-4)
    assert (sums.cap_volume, sums.rod_volume) == pytest.approx((1246.9, 839.8), abs=0.1)
    assert sums.blocked_rod_pressure == pytest.approx(26.73, abs=0.01)
    assert (sums.extend, sums.retract) == pytest.approx((2.494, 1.680), abs=1e-3)
    assert sums.findings[0].code == "blocked-rod-side"


@given(bore=st.floats(10, 500), share=st.floats(0, 0.95), stroke=st.floats(1, 5000), pressure=st.floats(0.1, 40))
def test_the_blocked_rod_side_carries_the_push(bore: float, share: float, stroke: float, pressure: float) -> None:
    cylinder = Cylinder(bore, bore * share, stroke)
    sums = size_cylinder(cylinder, pressure)
    assert sums.blocked_rod_pressure is not None
    assert sums.blocked_rod_pressure * sums.rod_area == pytest.approx(pressure * sums.cap_area)
    assert sums.extend is None
    assert oil_to_drain(cylinder) == pytest.approx(max(sums.cap_volume, sums.rod_volume))


def test_a_rod_as_thick_as_the_bore_is_a_plunger_and_a_thicker_one_is_refused() -> None:
    sums = size_cylinder(Cylinder(50, 50, 100), 10.0, 1000)
    # By hand: π/4·50² = 1963.5 mm²; 10·1963.5 = 19.63 kN; nothing behind it.
    assert sums.push == pytest.approx(19.635, abs=1e-3)
    assert (sums.pull, sums.ratio, sums.blocked_rod_pressure, sums.retract) == (0.0, None, None, None)
    assert sums.findings[0].code == "plunger"
    with pytest.raises(RuleError, match="thicker than the bore"):
        Cylinder(50, 50.1, 100)


def test_loads_leaks_and_heat_by_hand() -> None:
    """20 kN on 3117.2 mm²: 6.416 MPa. 1 ml/min on it: 0.3208 mm/min, and back. 1600 MPa·(7e-4 − 3.6e-5)·10 K: 10.62 MPa."""
    assert held_pressure(20_000, 3117.2) == pytest.approx(6.416, abs=1e-3)
    assert drift_of(1.0, 3117.2) == pytest.approx(0.3208, abs=1e-4)
    assert leak_of(drift_of(1.0, 3117.2), 3117.2) == pytest.approx(1.0)
    assert thermal_rise(1600, 7e-4, 1.2e-5, 10) == pytest.approx(10.624, abs=1e-3)
    assert weakest([Rating("tube", 25.0), Rating("gland", 21.0)]).part == "gland"
    with pytest.raises(RuleError, match="name at least one part"):
        weakest([])


def test_without_pressure_nothing_stands_behind_the_rod() -> None:
    assert size_cylinder(Cylinder(63, 36, 400), 0.0).findings == ()
    assert size_cylinder(Cylinder(63, 36, 400), 0.1).findings[0].severity == "caution"
    assert size_cylinder(Cylinder(63, 36, 400), 0.0).push == 0.0
