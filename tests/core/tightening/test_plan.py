"""Settings, patterns, preload, turns."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.errors import RuleError
from ironkettle.core.tightening import (
    Adapter,
    ByTorque,
    ByTurns,
    Fastener,
    Layout,
    NutFactor,
    Thread,
    TorqueRange,
    ToSlot,
    ToStop,
    Wrench,
    find_factor,
    find_proof,
    find_thread,
    plan_tightening,
    preload,
    setting_within,
    stress_area,
    tightening_sequence,
)
from ironkettle.reference import bolt_strengths, nut_factors, threads


@pytest.mark.parametrize(
    ("count", "expected"),
    [
        # ASME PCC-1, legacy cross pattern.
        (4, (1, 3, 2, 4)),
        (8, (1, 5, 3, 7, 2, 6, 4, 8)),
        (12, (1, 7, 4, 10, 2, 8, 5, 11, 3, 9, 6, 12)),
        (16, (1, 9, 5, 13, 3, 11, 7, 15, 2, 10, 6, 14, 4, 12, 8, 16)),
        # A five-pointed star drawn in one stroke.
        (5, (1, 3, 5, 2, 4)),
    ],
)
def test_star_patterns(count: int, expected: tuple[int, ...]) -> None:
    assert tightening_sequence(Layout.CIRCLE, count) == expected


def test_a_long_flange_goes_from_the_middle_out() -> None:
    assert tightening_sequence(Layout.FLANGE, 10) == (5, 6, 3, 4, 7, 8, 1, 2, 9, 10)


@given(layout=st.sampled_from(list(Layout)), count=st.integers(1, 64))
def test_every_fastener_comes_once(layout: Layout, count: int) -> None:
    assert sorted(tightening_sequence(layout, count)) == list(range(1, count + 1))


@given(count=st.integers(4, 64))
def test_a_star_never_goes_to_a_neighbour_of_the_last_on_larger_circles(count: int) -> None:
    order = tightening_sequence(Layout.CIRCLE, count)
    first, second = order[0], order[1]
    assert min((second - first) % count, (first - second) % count) >= count // 2


def test_no_pattern_for_none_or_too_many() -> None:
    for count in (0, 65):
        with pytest.raises(RuleError, match="1 to 64"):
            tightening_sequence(Layout.CIRCLE, count)


def test_setting_in_the_middle_of_the_range() -> None:
    plan = plan_tightening(ByTorque(TorqueRange(34, 40)), wrench=Wrench(10, 60, 4))
    assert plan.setting == 37.0
    assert plan.wrench is not None
    assert plan.wrench.fits


@given(low=st.floats(1, 100), share=st.floats(0, 0.5), accuracy=st.floats(0.1, 10))
def test_a_setting_stays_inside_whatever_the_wrench_errs(low: float, share: float, accuracy: float) -> None:
    torque = TorqueRange(low, low * (1 + share))
    setting = setting_within(torque, accuracy)
    if setting is None:
        assert (torque.high - torque.low) / (torque.high + torque.low) < accuracy / 100
    else:
        assert setting * (1 - accuracy / 100) >= torque.low * (1 - 1e-9)
        assert setting * (1 + accuracy / 100) <= torque.high * (1 + 1e-9)


def test_a_wrench_too_poor_or_out_of_reach_is_refused_with_what_would_do() -> None:
    poor = plan_tightening(ByTorque(TorqueRange(36, 37)), wrench=Wrench(10, 60, 4))
    assert [f.code for f in poor.findings] == ["accuracy"]
    assert "±1.4 %" in poor.findings[0].message  # (37-36)/(37+36) = 1.37 % by hand
    far = plan_tightening(ByTorque(TorqueRange(8, 10)), wrench=Wrench(5, 60, 4))
    assert far.wrench is not None
    assert not far.wrench.fits  # 20 % of 60 is 12
    assert "wrench-range" in [f.code for f in far.findings]


def test_adapter_lengthens_the_lever() -> None:
    # By hand: 37 · 300/340 = 32.647; at 90° nothing changes; at 60° 37 · 300/320 = 34.6875.
    assert Adapter(300, 40).scale_setting(37) == pytest.approx(32.647, abs=1e-3)
    assert Adapter(300, 40, 90).scale_setting(37) == pytest.approx(37)
    assert Adapter(300, 40, 60).scale_setting(37) == pytest.approx(34.6875)
    with pytest.raises(RuleError, match="points back"):
        Adapter(30, 40, 180).scale_setting(37)


@pytest.mark.parametrize(
    # ISO 898-1, nominal stress areas in mm².
    ("name", "area"),
    [("M6", 20.1), ("M8", 36.6), ("M10", 58.0), ("M12", 84.3), ("M16", 157), ("M20", 245), ("M24", 353), ("M30", 561)],
)
def test_stress_areas_of_iso_898(name: str, area: float) -> None:
    assert stress_area(find_thread(name, threads(), "thread")) == pytest.approx(area, rel=0.005)


def test_preload_by_hand() -> None:
    # 37 N·m on M10 in light oil: F = 37/(0.17·10) = 21.76 kN; low 37/(0.20·10), high 37/(0.13·10).
    load = preload(37, Thread("M10", 10, 1.5), NutFactor("light oil", 0.17, 0.13, 0.20))
    assert (load.low, load.nominal, load.high) == pytest.approx((18.5, 21.765, 28.462), abs=1e-3)


def test_over_ninety_per_cent_of_proof_is_refused() -> None:
    bolt = Fastener(
        find_thread("M8", threads(), "t"),
        find_factor("light oil", nut_factors(), "c"),
        find_proof("8.8", 8, bolt_strengths(), "g"),
    )
    # 27 N·m: F = 27/(0.17·8) = 19.85 kN; proof 36.6·580 = 21.2 kN: 93.6 %.
    hard = plan_tightening(ByTorque(TorqueRange(27, 27)), fastener=bolt)
    assert hard.proof_pct is not None
    assert hard.proof_pct.nominal == pytest.approx(93.5, abs=0.5)
    assert "proof" in [f.code for f in hard.findings]
    soft = plan_tightening(ByTorque(TorqueRange(23, 23)), fastener=bolt)
    assert "proof-high" in [f.code for f in soft.findings]


def test_soft_threads_stay_at_or_below_the_middle() -> None:
    # A ±30 % wrench on 10 to 20 N·m can hold 14.3 to 15.4: the middle lies inside. On 10 to 19 it wants 14.3 to 14.6.
    plan = plan_tightening(ByTorque(TorqueRange(10, 19)), wrench=Wrench(5, 25, 30), soft_thread=True)
    assert plan.setting is not None
    assert plan.setting <= 14.5


def test_turns_slots_and_stops() -> None:
    quarter = plan_tightening(ByTurns(0.25, 2.0))
    assert quarter.travel == pytest.approx(0.5)
    slots = plan_tightening(ToSlot(6, 2.0))
    assert slots.back_off_deg_max == pytest.approx(60)
    assert slots.travel == pytest.approx(2 / 6)
    assert "metal to metal" in plan_tightening(ToStop()).setting_text


def test_passes_carry_the_pattern() -> None:
    plan = plan_tightening(ByTorque(TorqueRange(34, 40)), layout=Layout.CIRCLE, count=6, passes_pct=[30, 70, 100])
    assert [p.setting for p in plan.passes] == pytest.approx([11.1, 25.9, 37.0])
    assert {p.sequence for p in plan.passes} == {(1, 4, 2, 5, 3, 6)}
    assert "last-round" in [f.code for f in plan.findings]


def test_threads_by_table_and_by_their_own_figures() -> None:
    assert find_thread("m 10", threads(), "t").pitch == 1.5
    own = find_thread("M60x2", threads(), "t")
    assert (own.major_diameter, own.pitch) == (60, 2)
    assert math.isclose(find_thread("1/2-13", threads(), "t").pitch, 25.4 / 13, rel_tol=1e-4)
    for text in ("Q9", "Mx", "M10xfoo"):
        with pytest.raises(RuleError):
            find_thread(text, threads(), "t")
    with pytest.raises(RuleError, match="not a condition known"):
        find_factor("honey", nut_factors(), "c")
    with pytest.raises(RuleError, match="no proof stress"):
        find_proof("8.8", 99, bolt_strengths(), "g")
