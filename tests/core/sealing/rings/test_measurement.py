"""How far each reading is trusted."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.sealing.rings import ACROSS, Further, Measurement, Read
from ironkettle.core.sealing.rings.measurement import FURTHER_UNCERTAINTY_MM


def test_uncertainties_by_rule() -> None:
    # 0.3 % of 100 mm is 0.3 mm: more than the caliper's 0.05; a tape counts with 0.5 mm; what is given holds.
    assert Measurement(100, 5).diameter_deviation == pytest.approx(0.15)
    assert Measurement(100, 5, across=Read.CONE).diameter_deviation == pytest.approx(0.05)
    assert Measurement(300, 5, across=Read.CUT_LENGTH).diameter_deviation == pytest.approx(0.25)
    assert Measurement(100, 5, uncertainty=0.02).diameter_deviation == pytest.approx(0.01)
    # Beside half of 0.05 mm the jaws: 0.012 mm where nobody knows how hard it is.
    wide = math.hypot(0.025, 0.012)
    assert Measurement(10, 5).section_deviation == pytest.approx(wide)
    assert Measurement(10, 5, section_crossed=5.2).section_deviation == pytest.approx(wide / math.sqrt(2))
    assert Measurement(10, 5, default_uncertainty=0.2).section_deviation == pytest.approx(math.hypot(0.1, 0.012))
    assert Measurement(10, 5, uncertainty=0.05).section_deviation == pytest.approx(0.025)
    # √(2.9 · 4.2) = 3.490 by hand.
    assert Measurement(44.1, 2.9, section_crossed=4.2).round_section == pytest.approx(3.490, abs=1e-3)


@given(a=st.floats(1, 8), b=st.floats(1, 8))
def test_crossed_readings_may_come_in_either_order(a: float, b: float) -> None:
    one, other = Measurement(40, a, section_crossed=b), Measurement(40, b, section_crossed=a)
    assert one.round_section == pytest.approx(other.round_section)
    assert min(a, b) - 1e-9 <= one.round_section <= max(a, b) + 1e-9


def test_every_further_reading_has_its_own_uncertainty() -> None:
    for read, usual in FURTHER_UNCERTAINTY_MM.items():
        assert Further(read, 10.0).deviation == pytest.approx(usual / 2)
        assert Further(read, 10.0, 0.3).deviation == pytest.approx(0.15)
    assert set(ACROSS) | {Read.SECTION, Read.GROOVE_DIAMETER, Read.GROOVE_WIDTH} == set(FURTHER_UNCERTAINTY_MM)
    assert all(read.words for read in Read)


@pytest.mark.parametrize(
    ("hardness", "squeeze"),
    # 0.02 mm at 70 Shore A by the shop's own touch; e^(−0.045 · 20) = 0.4066 and its inverse 20 degrees off.
    [(70, 0.02), (90, 0.02 * 0.40657), (50, 0.02 / 0.40657)],
)
def test_a_caliper_squeezes_soft_rubber(hardness: int, squeeze: float) -> None:
    read = Measurement(20, 3.5, hardness_shore_a=hardness)
    assert read.round_section == pytest.approx(3.5 + squeeze, abs=1e-6)
    assert read.section_deviation == pytest.approx(math.hypot(0.025, squeeze / 2), abs=1e-6)
