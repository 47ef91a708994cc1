"""The plan of a hold: what this gauge can see, and when gas is refused."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.pressure.decay import TestVolume
from ironkettle.core.pressure.energy import SHOP_GAS_LIMIT_J
from ironkettle.core.pressure.model import Fluid, Gauge
from ironkettle.core.pressure.plan import SHORTEST_HOLD_S, plan_hold

OIL = Fluid("oil", False, 1.6, 0.0007)
AIR = Fluid("air", True, None, None)
GAUGE = Gauge(25.0, 0.01, 0.5)


def test_the_hold_by_hand() -> None:
    # One step of 0.01 MPa on 850 ml at 1.4 GPa is 0.00607 ml; five steps at 0.005 ml/min take 364 s.
    plan = plan_hold(18.0, TestVolume(850, OIL, 1.4), GAUGE, 0.005)
    assert plan.hold_needed == pytest.approx(364.3, abs=0.1)
    # Two of five steps in that time: two fifths of the limit.
    assert plan.detectable_leak == pytest.approx(0.002)
    assert plan.steps[1].startswith("Low pressure first: 18 bar")


@given(
    volume=st.floats(10, 10_000),
    limit=st.floats(0.001, 50),
    step=st.floats(0.001, 0.5),
    fluid=st.sampled_from([OIL, AIR]),
)
def test_a_coarser_gauge_or_a_larger_volume_never_shortens_the_hold(
    volume: float, limit: float, step: float, fluid: Fluid
) -> None:
    one = plan_hold(10.0, TestVolume(volume, fluid), Gauge(25.0, step, 0.5), limit)
    coarse = plan_hold(10.0, TestVolume(volume, fluid), Gauge(25.0, step * 2, 0.5), limit)
    large = plan_hold(10.0, TestVolume(volume * 2, fluid), Gauge(25.0, step, 0.5), limit)
    assert SHORTEST_HOLD_S <= one.hold_needed <= coarse.hold_needed
    assert one.hold_needed <= large.hold_needed
    # What is planned to be seen is no more than the limit.
    assert one.detectable_leak <= limit * 0.4 + 1e-9


def test_gas_over_the_shop_limit_is_refused_in_favour_of_liquid() -> None:
    much = plan_hold(10.0, TestVolume(1000, AIR), GAUGE, 1.0)
    assert much.stored_energy > SHOP_GAS_LIMIT_J
    assert "gas-energy" in {f.code for f in much.findings}
    little = plan_hold(10.0, TestVolume(10, AIR), GAUGE, 1.0)
    assert "gas-energy" not in {f.code for f in little.findings}


def test_the_useful_part_of_a_gauge_and_a_nominal_modulus_are_told() -> None:
    low = plan_hold(2.0, TestVolume(100, OIL), GAUGE, 1.0)
    assert {"gauge-range", "nominal-modulus", "stored-energy"} == {f.code for f in low.findings}
    known = plan_hold(18.0, TestVolume(100, OIL, 1.3), GAUGE, 1.0)
    assert {f.code for f in known.findings} == {"stored-energy"}
