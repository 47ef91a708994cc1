"""Stretch, squeeze and fill: laws, hand calculations, worst cases."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.base.housing import HOUSINGS, HousingMaterial
from ironkettle.core.base.quantities import Toleranced
from ironkettle.core.sealing.grooves import Gland, Seat, installed_section
from ironkettle.core.sealing.grooves.geometry import worst_case

DIAMETER = st.floats(5, 300)
SECTION = st.floats(1, 8)


@given(d1=DIAMETER, d2=SECTION, stretch=st.floats(0, 0.2))
def test_volume_is_kept_under_stretch(d1: float, d2: float, stretch: float) -> None:
    target = d1 * (1 + stretch)
    installed = float(installed_section(d1, d2, target))
    assert installed**2 * (target + installed) == pytest.approx(d2**2 * (d1 + d2), rel=1e-9)
    assert installed <= d2 + 1e-12


def test_no_stretch_leaves_the_section() -> None:
    assert float(installed_section(30, 3, 28)) == pytest.approx(3)


def piston(bore: Toleranced, groove: Toleranced, width: float = 4.8, **options: object) -> Gland:
    return Gland(Seat.PISTON, groove, Toleranced(width), bore=bore, **options)  # type: ignore[arg-type]


def figures(gland: Gland, d1: float, d2: float, t1: float = 0.0, t2: float = 0.0) -> tuple[float, float, float]:
    worst = worst_case(gland, np.array([d1]), np.array([t1]), np.array([d2]), np.array([t2]))
    return float(worst.nominal.squeeze[0]), float(worst.nominal.stretch[0]), float(worst.nominal.fill[0])


def test_piston_ring_by_hand() -> None:
    # AS568-214 (24.99 × 3.53) in bore 31.75, groove 25.90, width 4.80. By hand: stretch (25.90-24.99)/24.99 = 3.64 %;
    # d2' from 3.53²·28.52 = x²·(25.90 + x): x = 3.478 (12.0965·29.378 = 355.37); depth 2.925; squeeze 15.90 %;
    # fill π/4·3.478²/(2.925·4.80) = 67.67 %.
    squeeze, stretch, fill = figures(piston(Toleranced(31.75), Toleranced(25.90)), 24.99, 3.53)
    assert stretch == pytest.approx(0.0364, abs=1e-4)
    assert squeeze == pytest.approx(0.1590, abs=2e-4)
    assert fill == pytest.approx(0.6767, abs=3e-4)


def test_rod_ring_by_hand() -> None:
    # 20 × 1.80 on a 20 mm rod, groove 23: no stretch; depth 1.5; squeeze 0.3/1.8 = 16.67 %; fill π/4·3.24/(1.5·2.4) = 70.69 %.
    gland = Gland(Seat.ROD, Toleranced(23), Toleranced(2.4), rod=Toleranced(20))
    squeeze, stretch, fill = figures(gland, 20, 1.8)
    assert (squeeze, stretch, fill) == pytest.approx((1 / 6, 0.0, 0.70686), abs=1e-4)


def test_face_ring_by_hand() -> None:
    # Depth 2.8 under section 3.53: squeeze 20.68 %; no stretch while the ring's outside reaches the wall.
    gland = Gland(Seat.FACE, Toleranced(32.0), Toleranced(4.5), groove_depth=Toleranced(2.8))
    squeeze, stretch, _ = figures(gland, 25.0, 3.53)
    assert squeeze == pytest.approx(1 - 2.8 / 3.53)
    assert stretch == 0.0


@given(
    bore=st.floats(0, 0.1),
    groove=st.floats(0, 0.1),
    t1=st.floats(0, 0.3),
    t2=st.floats(0, 0.12),
    at=st.tuples(*[st.floats(-1, 1)] * 5),
)
def test_no_point_inside_the_tolerances_leaves_the_worst_case(
    bore: float, groove: float, t1: float, t2: float, at: tuple[float, float, float, float, float]
) -> None:
    gland = Gland(
        Seat.PISTON, Toleranced(44.4, groove, groove), Toleranced(5.4, 0.2, 0.2), bore=Toleranced(50, bore, bore)
    )
    worst = worst_case(gland, np.array([44.04]), np.array([t1]), np.array([3.53]), np.array([t2]))
    d1, d2 = 44.04 + at[0] * t1, 3.53 + at[1] * t2
    inner = Gland(
        Seat.PISTON,
        Toleranced(44.4 + at[3] * groove),
        Toleranced(5.4 + at[4] * 0.2),
        bore=Toleranced(50 + at[2] * bore),
    )
    for name, value in zip(("squeeze", "stretch", "fill"), figures(inner, d1, d2), strict=True):
        assert getattr(worst.low, name)[0] - 1e-9 <= value <= getattr(worst.high, name)[0] + 1e-9


@given(bore=st.floats(49.5, 50.5), less=st.floats(0.01, 0.3))
def test_a_tighter_bore_squeezes_more(bore: float, less: float) -> None:
    wide, _, _ = figures(piston(Toleranced(bore), Toleranced(44.4)), 44.04, 3.53)
    tight, _, _ = figures(piston(Toleranced(bore - less), Toleranced(44.4)), 44.04, 3.53)
    assert tight > wide


@given(scale=st.floats(0.2, 5))
def test_ratios_do_not_depend_on_the_unit(scale: float) -> None:
    one = figures(piston(Toleranced(31.75), Toleranced(25.9)), 24.99, 3.53)
    other = figures(
        piston(Toleranced(31.75 * scale), Toleranced(25.9 * scale), 4.8 * scale), 24.99 * scale, 3.53 * scale
    )
    assert other == pytest.approx(one)


def test_piston_and_rod_are_treated_alike_where_the_depth_is_the_same() -> None:
    on_piston, _, fill_piston = figures(piston(Toleranced(50), Toleranced(44), 5), 44, 3.6)
    gland = Gland(Seat.ROD, Toleranced(50), Toleranced(5), rod=Toleranced(44))
    on_rod, _, fill_rod = figures(gland, 44, 3.6)
    assert (on_piston, fill_piston) == pytest.approx((on_rod, fill_rod))


def test_heat_and_swelling_fill_the_groove() -> None:
    cold = figures(piston(Toleranced(50), Toleranced(44.4), 5.4), 44.04, 3.53)
    warm = figures(piston(Toleranced(50), Toleranced(44.4), 5.4, temperature=80.0), 44.04, 3.53)
    swollen = figures(piston(Toleranced(50), Toleranced(44.4), 5.4, swell_pct=10.0), 44.04, 3.53)
    assert warm[2] > cold[2]
    assert swollen[2] > warm[2]
    # 10 % by volume is 1.1^(1/3) in length, so an unstretched ring's area grows by 1.1^(2/3) = 6.6 %.
    loose = figures(piston(Toleranced(50), Toleranced(40), 5.4), 44.04, 3.53)
    grown = figures(piston(Toleranced(50), Toleranced(40), 5.4, swell_pct=10.0), 44.04, 3.53)
    assert grown[2] / loose[2] == pytest.approx(math.pow(1.1, 2 / 3))


def test_a_warm_housing_opens_its_bore() -> None:
    # By hand: from 20 to 120 °C aluminium grows 2.3 mm/m of a bore of 50 mm, steel 1.2 mm/m: the groove is that much deeper.
    def squeeze(of: HousingMaterial) -> float:
        gland = piston(Toleranced(50), Toleranced(44.4), 5.4, temperature=120.0)
        return figures(replace(gland, housing=of), 44.04, 3.53)[0]

    lost = squeeze(HousingMaterial.STEEL) - squeeze(HousingMaterial.ALUMINIUM)
    grown = (
        50
        * (HOUSINGS[HousingMaterial.ALUMINIUM].linear_expansion - HOUSINGS[HousingMaterial.STEEL].linear_expansion)
        * 100
        / 2
    )
    assert lost == pytest.approx(grown / 3.53, rel=0.05)
    assert lost > 0
