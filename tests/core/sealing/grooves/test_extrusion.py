"""Gaps: the table read to the careful side, growth of the bore, safe pressures."""

from __future__ import annotations

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.base.housing import HousingMaterial
from ironkettle.core.base.quantities import Toleranced
from ironkettle.core.sealing.grooves import Gland, Seat, bore_growth, hardness_for
from ironkettle.core.sealing.grooves.extrusion import BACKED_CAP_MPA, allowed_gap, gap_of, highest_pressure
from ironkettle.reference import extrusion_limits

GLAND = Gland(
    Seat.PISTON,
    Toleranced(44.4),
    Toleranced(5.4),
    bore=Toleranced(50),
    diametral_clearance=Toleranced(0.06, 0.02, 0.02),
    pressure=7.0,
)


def test_extrusion_table_is_read_to_the_careful_side() -> None:
    # extrusion_gap_mm.csv: 70 Shore, 7 MPa, section 3 to 5 mm: 0.08 mm. In between, the next higher pressure counts.
    limits = extrusion_limits()
    assert allowed_gap(limits, 70, 7.0, 3.53) == 0.08
    assert allowed_gap(limits, 70, 5.0, 3.53) == 0.08
    assert allowed_gap(limits, 80, 7.0, 3.53) == 0.08
    assert allowed_gap(limits, 90, 21.0, 1.8) == 0.03
    assert allowed_gap(limits, 70, 12.0, 3.53) is None
    # Softer than the table, by Gent: E(60) = 3.605, E(70) = 5.520 MPa, so 1 MPa counts as 1.531 of a 70 Shore ring.
    assert allowed_gap(limits, 60, 1.0, 3.53) == 0.1
    assert allowed_gap(limits, 60, 2.28, 3.53) == 0.1
    assert allowed_gap(limits, 60, 2.30, 3.53) == 0.08
    assert highest_pressure(limits, 60, 3.53) == pytest.approx(10.5 / 1.5313, rel=1e-3)
    assert highest_pressure(limits, 70, 3.53) == 10.5
    assert highest_pressure(limits, 90, 3.53) == 35.0


def test_bore_growth_by_hand() -> None:
    # 50 mm bore, 5 mm wall, 20 MPa, steel: D = 60; (3600 + 2500)/(3600 - 2500) = 5.5455; + 0.29 = 5.8355;
    # 20·50/206000 = 0.0048544; product 0.02833 mm.
    assert bore_growth(50, 5, 20, HousingMaterial.STEEL) == pytest.approx(0.02833, abs=1e-5)
    # The same in aluminium: 20·50/70000 = 0.0142857 · (5.5455 + 0.33) = 0.08394 mm.
    assert bore_growth(50, 5, 20, HousingMaterial.ALUMINIUM) == pytest.approx(0.08394, abs=1e-5)


@given(diameter=st.floats(10, 500), wall=st.floats(0.2, 0.3), pressure=st.floats(1, 40))
def test_a_thin_wall_grows_as_a_thin_ring(diameter: float, wall: float, pressure: float) -> None:
    """Independent method: hoop strain of a thin ring, p·d²/(2·t·E), is the limit for a wall much thinner than d."""
    thin = pressure * diameter**2 / (2 * wall * 206_000)
    assert bore_growth(diameter, wall, pressure, HousingMaterial.STEEL) == pytest.approx(thin, rel=6 * wall / diameter)


def test_growth_counts_in_the_gap() -> None:
    stiff = gap_of(GLAND, extrusion_limits(), 3.53)
    soft = gap_of(replace(GLAND, wall=3.0, housing=HousingMaterial.ALUMINIUM), extrusion_limits(), 3.53)
    assert stiff is not None
    assert soft is not None
    assert stiff.growth == 0.0
    assert soft.worst == pytest.approx(stiff.worst + soft.growth)
    assert soft.concentric == pytest.approx(stiff.concentric + soft.growth / 2)
    assert not stiff.needs_backup
    assert soft.needs_backup


def test_safe_pressures_by_the_table() -> None:
    # Worst gap 0.08 mm, 70 Shore, section 3 to 5: the 7 MPa row allows 0.08, the 10.5 MPa row 0.05.
    gap = gap_of(GLAND, extrusion_limits(), 3.53)
    assert gap is not None
    assert gap.safe_bare == 7.0
    # 90 Shore: the 14 MPa row allows 0.08 mm; times 3 is 42 MPa, capped.
    assert gap.safe_backed == BACKED_CAP_MPA
    wide = gap_of(replace(GLAND, diametral_clearance=Toleranced(0.3)), extrusion_limits(), 3.53)
    assert wide is not None
    assert (wide.safe_bare, wide.safe_backed) == (0.0, 0.0)


@given(clearance=st.floats(0.01, 0.3), section=st.floats(1, 8))
def test_a_wider_gap_never_stands_more(clearance: float, section: float) -> None:
    near = gap_of(replace(GLAND, diametral_clearance=Toleranced(clearance)), extrusion_limits(), section)
    far = gap_of(replace(GLAND, diametral_clearance=Toleranced(clearance + 0.02)), extrusion_limits(), section)
    assert near is not None
    assert far is not None
    assert far.safe_bare <= near.safe_bare <= near.safe_backed


def test_the_softest_hardness_that_stands_the_gap() -> None:
    limits = extrusion_limits()
    assert hardness_for(limits, 0.08, 7.0, 3.53) == 70
    assert hardness_for(limits, 0.12, 7.0, 3.53) == 90
    assert hardness_for(limits, 0.30, 7.0, 3.53) is None
