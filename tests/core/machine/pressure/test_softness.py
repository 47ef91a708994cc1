"""How soft a test volume is, from both ends of every doubt; each figure by hand."""

from __future__ import annotations

from dataclasses import replace

import pytest

from ironkettle.core.base.errors import RuleError
from ironkettle.core.base.housing import HousingMaterial
from ironkettle.core.machine.pressure import Compliance, Gauge, HoldRules, TestVolume
from ironkettle.core.machine.pressure.softness import Softness, softness_of
from tests.core.machine.pressure.rig import AIR, GAUGE, OIL, VOLUME, WATER

RULES = HoldRules()


def soft(volume: TestVolume, gauge: Gauge = GAUGE, pressure: float = 18.0, temperature: float = 20.0) -> Softness:
    return softness_of(volume, gauge, RULES, pressure, temperature)


def test_a_stated_modulus_may_be_down_to_three_tenths() -> None:
    lost = soft(VOLUME).lost
    # 850/1400 = 0.60714; ±5 % of volume, ±0.5 % of gauge, modulus from 0.3 to 1.05 of the stated.
    assert lost.nominal == pytest.approx(0.607143, rel=1e-5)
    assert lost.high == pytest.approx(0.607143 * 1.05 * 1.005 / 0.3, rel=1e-5)
    assert lost.low == pytest.approx(0.607143 * 0.95 * 0.995 / 1.05, rel=1e-5)


def test_a_nominal_modulus_may_be_down_to_two_tenths() -> None:
    lost = soft(replace(VOLUME, bulk_modulus_gpa=None)).lost
    assert lost.nominal == pytest.approx(850 / 1600)
    assert lost.high == pytest.approx(850 / 1600 * 1.05 * 1.005 / 0.2)


def test_doubts_that_are_stated_take_the_place_of_the_usual() -> None:
    lost = soft(replace(VOLUME, volume_doubt_pct=0.0, modulus_doubt_pct=10.0)).lost
    assert lost.high == pytest.approx(0.607143 * 1.005 / 0.9, rel=1e-5)
    assert lost.low == pytest.approx(0.607143 * 0.995 / 1.1, rel=1e-5)
    # A doubt about a nominal modulus is no statement about this unit.
    nominal = soft(replace(VOLUME, bulk_modulus_gpa=None, volume_doubt_pct=0.0, modulus_doubt_pct=10.0)).lost
    assert nominal.high == pytest.approx(850 / 1600 * 1.005 / 0.2)
    # A doubt of 90 % and more leaves something to divide by.
    assert soft(replace(VOLUME, modulus_doubt_pct=99.0)).lost.high == pytest.approx(
        0.607143 * 1.05 * 1.005 / 0.05, rel=1e-5
    )


def test_a_compliance_measured_in_place_replaces_volume_and_modulus() -> None:
    lost = soft(replace(VOLUME, compliance=Compliance(2.0, 3.1))).lost
    # 2.0 ml made 3.1 MPa; ±5 % of the volume let out, one step of 0.01 MPa on the drop; no scale, no modulus.
    assert lost.nominal == pytest.approx(2.0 / 3.1)
    assert lost.low == pytest.approx(1.9 / 3.11)
    assert lost.high == pytest.approx(2.1 / 3.09)
    with pytest.raises(RuleError, match="hardly more than a step") as caught:
        soft(replace(VOLUME, compliance=Compliance(0.01, 0.02)))
    assert caught.value.faults[0].field == "compliance.drop"


def test_warmth_is_the_fluids_expansion_less_the_housings() -> None:
    # Oil in steel: 850·(0.0007 − 3·11.7e-6) = 0.56517 ml/K; ±5 % of volume and ±10 % of expansion.
    warmth = soft(VOLUME).warmth
    assert warmth.nominal == pytest.approx(0.565165, rel=1e-5)
    assert (warmth.low, warmth.high) == pytest.approx((0.565165 * 0.85, 0.565165 * 1.15), rel=1e-5)
    # In aluminium less is left: 850·(0.0007 − 3·23.1e-6).
    assert soft(replace(VOLUME, housing=HousingMaterial.ALUMINIUM)).warmth.nominal == pytest.approx(0.536095, rel=1e-5)


@pytest.mark.parametrize(
    ("temperature", "expansion"), [(4.0, 0.0), (12.0, 0.0001), (30.0, 0.0003), (-9.0, -0.00007), (90.0, 0.0004)]
)
def test_water_hardly_expands_near_four_degrees(temperature: float, expansion: float) -> None:
    assert WATER.expansion_at(temperature) == pytest.approx(expansion)
    # In steel, which takes 3 · 11.7e-6 of it.
    warmth = soft(TestVolume(1000, WATER, 2.0), temperature=temperature).warmth.nominal
    assert warmth == pytest.approx(1000 * (expansion - 35.1e-6))


def test_a_fluid_without_a_table_has_no_expansion() -> None:
    assert replace(OIL, expansion=()).expansion_at(20.0) == 0.0


def test_gas_in_standard_millilitres() -> None:
    # 2 l at 20 °C: 2000/0.101325 = 19738.5 std ml/MPa; warmth = that · 0.801325/293.15 per K.
    found = soft(TestVolume(2000, AIR), Gauge(1, 0.001, 0.25), pressure=0.7)
    assert found.lost.nominal == pytest.approx(19738.5, rel=1e-5)
    assert (found.lost.low, found.lost.high) == pytest.approx((19738.5 * 0.9475, 19738.5 * 1.0525), rel=1e-5)
    assert found.warmth.nominal == pytest.approx(19738.5 * 0.801325 / 293.15, rel=1e-5)
    assert found.warmth.high == pytest.approx(found.warmth.nominal * 1.05)
    # Warmer gas is thinner.
    warm = soft(TestVolume(2000, AIR), Gauge(1, 0.001, 0.25), pressure=0.7, temperature=49.315)
    assert warm.lost.nominal == pytest.approx(19738.5 * 293.15 / 322.465, rel=1e-5)


def test_gas_below_vacuum_is_refused() -> None:
    with pytest.raises(RuleError, match="below a full vacuum"):
        soft(TestVolume(2000, AIR), pressure=-0.11)


@pytest.mark.parametrize(
    ("fall", "warming", "bounds"),
    [
        # lost 2 to 4, warmth 1 to 3 [-]: each end by hand.
        ((0.1, 0.2), (0.0, 0.0), (0.2, 0.8)),
        ((-0.1, 0.2), (0.0, 0.0), (-0.4, 0.8)),
        ((0.1, 0.1), (-0.1, 0.1), (-0.1, 0.7)),
        ((0.0, 0.0), (0.1, 0.2), (0.1, 0.6)),
    ],
)
def test_bounds_take_the_worst_of_all_ends(
    fall: tuple[float, float], warming: tuple[float, float], bounds: tuple[float, float]
) -> None:
    from ironkettle.core.machine.pressure.softness import Doubted

    found = Softness(Doubted(2, 3, 4), Doubted(1, 2, 3)).bounds(fall, warming)
    assert found == pytest.approx(bounds)


def test_what_is_stiffer_than_the_fluid_itself_is_misread() -> None:
    # 850 ml of oil, 1.6 GPa at most: 850/1600 = 0.531 ml/MPa; 0.8 of it is 0.425. 2 ml may so drop 47 bar, not 48.
    assert soft(replace(VOLUME, compliance=Compliance(2.0, 4.7))).lost.nominal == pytest.approx(2.0 / 4.7)
    with pytest.raises(RuleError, match="stiffer than the fluid itself") as caught:
        soft(replace(VOLUME, compliance=Compliance(2.0, 4.8)))
    assert caught.value.faults[0].field == "compliance.drop"
    assert caught.value.faults[0].accepts == ("at most 47.1 bar",)
