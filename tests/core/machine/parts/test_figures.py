"""Several readings of one point, against figures worked out by hand, and laws."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.base.errors import RuleError
from ironkettle.core.machine.parts import figure_of, flatness, ovality, run_out, taper, wear


def test_ovality_is_crosswise_at_one_place_and_not_between_places() -> None:
    # Three places crosswise: 0.02, 0.01 and 0.05 apart; the cone of 0.20 between the first and the last is no ovality.
    readings = [50.02, 50.00, 50.11, 50.10, 50.20, 50.25]
    assert ovality(readings) == pytest.approx(0.05)
    # Means 50.01, 50.105, 50.225: 0.215 of taper.
    assert taper(readings) == pytest.approx(0.215)
    # Five round one place.
    assert ovality([50.0, 50.01, 49.98, 50.02, 50.0]) == pytest.approx(0.04)
    assert taper([28.00, 27.97]) == pytest.approx(0.03)


@pytest.mark.parametrize(("readings", "nominal", "worn"), [([27.96, 27.91], 28.0, 0.09), ([50.02, 50.08], 50.0, 0.08)])
def test_wear_of_a_rod_is_down_and_of_a_bore_up(readings: list[float], nominal: float, worn: float) -> None:
    assert wear(readings, nominal) == pytest.approx(worn)


def test_wear_wants_what_it_was_made_to() -> None:
    with pytest.raises(RuleError):
        wear([27.9], None)


def test_flatness_takes_out_the_tilt() -> None:
    # A flat face that lies tilted by 0.2 shows one wave; a face bent over one diameter shows two waves.
    tilted = [0.1 * math.cos(2 * math.pi * k / 8) for k in range(8)]
    bent = [0.03 * math.cos(4 * math.pi * k / 8) for k in range(8)]
    assert flatness(tilted) == pytest.approx(0, abs=1e-12)
    assert flatness(bent) == pytest.approx(0.06)
    assert flatness([a + b for a, b in zip(tilted, bent, strict=True)]) == pytest.approx(0.06)
    # Of three readings a tilt cannot be told from a bend: all of it counts.
    assert flatness([0.0, 0.05, 0.02]) == pytest.approx(0.05)


def test_each_name_of_a_sheet_means_its_figure() -> None:
    readings = [1.0, 4.0, 2.0, 3.0]
    # Pairs 1, 4 and 2, 3: 3 apart; means 2.5 and 2.5. Flatness: less the wave of 0.5 and 0.5 about a mean of 2.5.
    wanted = {"ovality": 3, "taper": 0, "run_out": 3, "difference": 3, "mean": 2.5, "sum": 10, "wear": 3}
    for name, value in wanted.items():
        assert figure_of(name, readings, 1.0) == pytest.approx(value), name
    # Mean 2.5; cos wave (1-2)/2 = -0.5, sin wave (4-3)/2 = 0.5; left: -1, 1, -1, 1.
    assert figure_of("flatness", readings, None) == pytest.approx(2)


READINGS = st.lists(st.floats(-5, 5), min_size=1, max_size=12)


@given(READINGS, st.floats(-10, 10))
def test_a_shifted_zero_changes_no_difference(readings: list[float], shift: float) -> None:
    moved = [value + shift for value in readings]
    for figure in (ovality, taper, run_out, flatness):
        assert figure(moved) == pytest.approx(figure(readings), abs=1e-9)


@given(READINGS)
def test_no_figure_is_below_nothing(readings: list[float]) -> None:
    for figure in (ovality, taper, run_out, flatness):
        assert figure(readings) >= -1e-12
    assert flatness(readings) <= 2 * run_out(readings) + 1e-9
