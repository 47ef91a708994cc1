"""The plan of a hold: what this gauge can see, how a leak at the limit shows, and what is refused."""

from __future__ import annotations

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.base.errors import RuleError
from ironkettle.core.machine.pressure import (
    Compliance,
    Fluid,
    Gauge,
    HoldPlan,
    HoldRules,
    TestVolume,
    hold_needed,
    plan_hold,
)
from tests.core.machine.pressure.rig import AIR, GAUGE, OIL, VOLUME, hold
from tests.core.machine.pressure.test_hold import STEADY, judge

# Softest: 0.607143 · 1.05 · 1.005 / 0.3.
SOFTEST = 2.135625
# Warmest: 850 · (0.0007 − 3·11.7e-6) = 0.565165 ml/K, and 15 % more.
WARMEST = 0.649940
RULES = HoldRules()


def codes(plan: HoldPlan) -> set[str]:
    return {finding.code for finding in plan.findings}


def message(plan: HoldPlan, code: str) -> str:
    return next(finding.message for finding in plan.findings if finding.code == code)


def test_the_hold_by_hand() -> None:
    # A step and what the gauge may drift by, a fifth of 0.5 % of 18 MPa, and a step of the thermometer:
    # 0.028 MPa · 2.1356 ml/MPa + 0.1 K · 0.64994 ml/K; 3 of them · 60 / 0.05 ml/min = 449 s.
    plan = plan_hold(18.0, VOLUME, GAUGE, 0.05)
    assert plan.hold_needed == pytest.approx(3 * (0.028 * SOFTEST + 0.1 * WARMEST) * 60 / 0.05, rel=1e-4)
    # Half of the limit: 1.5 steps in that time.
    assert plan.detectable_leak == pytest.approx(0.025, rel=1e-4)
    # 10 % of 18 MPa at 0.607 ml/MPa and 0.05 ml/min: 1311 s.
    assert plan.longest_at_limit == pytest.approx(1.8 * 0.607143 / (0.05 / 60), rel=1e-4)
    assert plan.stored_energy == pytest.approx(18**2 * 850 / 2800)


def test_the_shortest_hold_is_the_shops() -> None:
    assert plan_hold(18.0, VOLUME, GAUGE, 5.0).hold_needed == 60.0
    assert hold_needed(VOLUME, GAUGE, 5.0, 18.0, HoldRules(least_hold_s=300.0)) == 300.0


def test_the_plan_keeps_its_word() -> None:
    """After the planned hold a tight unit passes; before it none does."""
    for limit in (0.5, 0.05, 0.01):
        needed = plan_hold(21.0, VOLUME, GAUGE, limit).hold_needed
        assert judge(hold(lambda t: 21.0, last=needed + 4, warm=STEADY), limit=limit).verdict == "pass"
        assert judge(hold(lambda t: 21.0, last=needed - 4, warm=STEADY), limit=limit).verdict == "undecided"


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
    assert one.hold_needed >= 60.0
    assert one.hold_needed <= coarse.hold_needed
    assert one.hold_needed <= large.hold_needed
    assert one.detectable_leak <= limit * 0.5 + 1e-9


def test_a_gauge_that_does_not_reach_is_refused_with_one_that_would() -> None:
    with pytest.raises(RuleError, match="100 bar does not reach the test pressure 180 bar") as caught:
        plan_hold(18.0, VOLUME, Gauge(10.0, 0.01, 0.5), 0.5)
    fault = caught.value.faults[0]
    assert (fault.field, fault.accepts) == ("gauge.range", ("a gauge to 225 bar or more",))
    plan_hold(10.0, VOLUME, Gauge(10.0, 0.01, 0.5), 0.5)
    with pytest.raises(RuleError, match="above zero"):
        plan_hold(18.0, VOLUME, GAUGE, 0.0)


def test_a_leak_that_leaves_the_band_too_soon_is_told() -> None:
    # 850 ml, 0.5 ml/min at 210 bar: 2.1·0.607/(0.5/60) = 153 s; steps of 0.2 MPa and 0.1 K want 193 s.
    plan = plan_hold(21.0, VOLUME, Gauge(25, 0.2, 0.5), 0.5)
    assert "leaves-band" in codes(plan)
    assert "153 s" in message(plan, "leaves-band")
    assert "leaves-band" not in codes(plan_hold(21.0, VOLUME, GAUGE, 0.5))


def test_volume_gauge_and_limit_that_cannot_decide_at_all() -> None:
    # 2 MPa steps: 1577 s wanted, twice 153 s there; 2·306/1577 = 0.39 MPa would do: the next finer is 0.2.
    coarse = plan_hold(21.0, VOLUME, Gauge(25, 2.0, 0.5), 0.5)
    assert "a gauge with steps of 2 bar or finer" in message(coarse, "cannot-decide")
    assert next(f.severity for f in coarse.findings if f.code == "cannot-decide") == "reject"
    # 20 ml: the band is left in 4 s, whatever the gauge.
    small = plan_hold(21.0, TestVolume(20, OIL, 1.4), GAUGE, 0.5)
    assert "connect a larger volume" in message(small, "cannot-decide")


def test_gas_over_the_shop_limit_is_refused_in_favour_of_liquid() -> None:
    much = plan_hold(10.0, TestVolume(1000, AIR), GAUGE, 1.0)
    assert much.stored_energy > 1000
    assert "gas-energy" in codes(much)
    assert "gas-energy" not in codes(plan_hold(10.0, TestVolume(10, AIR), GAUGE, 1.0))
    assert "gas-energy" not in codes(plan_hold(10.0, TestVolume(1000, AIR), GAUGE, 1.0, HoldRules(gas_energy_j=1e6)))
    assert "gas-energy" not in codes(plan_hold(18.0, TestVolume(1e6, OIL), GAUGE, 1.0))


def test_the_lowest_quarter_of_a_gauge_is_told() -> None:
    assert "gauge-range" in codes(plan_hold(6.2, VOLUME, GAUGE, 0.5))
    assert "gauge-range" not in codes(plan_hold(6.25, VOLUME, GAUGE, 0.5))


def test_where_the_temperature_matters_it_is_asked_for() -> None:
    # Air: 19738·0.8013/293.15·1.05·0.1 = 5.67 standard ml/min, against limits of 10 and 30.
    air = TestVolume(2000, AIR)
    gauge = Gauge(1.0, 0.0001, 0.25)
    assert "5.67 standard ml/min" in message(plan_hold(0.7, air, gauge, 10.0), "temperature-matters")
    assert "temperature-matters" not in codes(plan_hold(0.7, air, gauge, 30.0))
    # Oil: 850·0.000665·1.15·0.1 = 0.065 ml/min.
    assert "temperature-matters" in codes(plan_hold(18.0, VOLUME, GAUGE, 0.2))
    assert "temperature-matters" not in codes(plan_hold(18.0, VOLUME, GAUGE, 0.5))


def test_how_well_the_volume_is_known_is_told() -> None:
    assert "0.3 of the stated" in message(plan_hold(18.0, VOLUME, GAUGE, 0.5), "measure-compliance")
    nominal = plan_hold(18.0, replace(VOLUME, bulk_modulus_gpa=None), GAUGE, 0.5)
    assert "0.2 of the nominal" in message(nominal, "measure-compliance")
    measured = replace(VOLUME, compliance=Compliance(2.0, 3.1))
    assert "measure-compliance" not in codes(plan_hold(18.0, measured, GAUGE, 0.5))


def test_the_steps_say_to_pump_up_and_never_let_down() -> None:
    steps = " ".join(plan_hold(18.0, VOLUME, GAUGE, 0.5).steps)
    assert "18 bar, look for weeping" in steps
    assert "90 bar, then up to 180 bar; pump up to it, never let down to it" in steps
    vacuum = " ".join(plan_hold(-0.08, TestVolume(2000, AIR), Gauge(0.1, 0.0001, 0.5), 10.0).steps)
    assert "Draw down to -0.8 bar" in vacuum
