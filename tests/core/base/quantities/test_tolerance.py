"""Sizes with their tolerance, written out or as a fit."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.base.errors import RuleError
from ironkettle.core.base.quantities import (
    Dimension,
    Toleranced,
    find_unit,
    fit_limits,
    read_toleranced,
    read_toleranced_length,
    show_tolerance,
)

MM = find_unit("mm")
assert MM is not None


@pytest.mark.parametrize(
    ("text", "nominal", "minus", "plus"),
    [
        ("25 ±0.1 mm", 25.0, 0.1, 0.1),
        ("50 mm +0.03/-0", 50.0, 0.0, 0.03),
        ("50 mm +0.03 / 0", 50.0, 0.0, 0.03),
        ("50 mm −0,02/+0", 50.0, 0.02, 0.0),
        ("1.250 in +.002 -.000", 31.75, 0.0, 0.0508),
        ("1.250 +.002 -.000 in", 31.75, 0.0, 0.0508),
        ("28 mm -0.020 -0.041", 28.0, 0.041, -0.020),
        ("40 mm +0.03/+0.01", 40.0, -0.01, 0.03),
        ("40 mm +0.01/+0.03", 40.0, -0.01, 0.03),
        ("40 mm +/-0.05", 40.0, 0.05, 0.05),
        ("3.53mm", 3.53, 0.0, 0.0),
        ("1-5/16 in ±1/64", None, None, None),
    ],
)
def test_tolerances_as_written(text: str, nominal: float | None, minus: float | None, plus: float | None) -> None:
    if nominal is None:
        with pytest.raises(RuleError):
            read_toleranced_length(text, "bore")
        return
    found = read_toleranced_length(text, "bore")
    assert (found.nominal, found.minus, found.plus) == pytest.approx((nominal, minus, plus), abs=1e-9)


# ISO 286-1:2010, tables 1 and 4; limits as printed in workshop tables of fits. [µm]
FITS = [
    ("50 H8", 0, 39),
    ("50.001 H8", 0, 46),
    ("28 f7", -41, -20),
    ("30 f7", -41, -20),
    ("30,5 f7", -50, -25),
    ("63 H8", 0, 46),
    ("100 H7", 0, 35),
    ("100 g6", -34, -12),
    ("3 h11", -60, 0),
    ("25 d9", -117, -65),
    ("40 e8", -89, -50),
    ("500 H11", 0, 400),
    ("6h5", -5, 0),
]


@pytest.mark.parametrize(("text", "low", "high"), FITS)
def test_fits_by_the_table(text: str, low: float, high: float) -> None:
    found = read_toleranced_length(text, "bore")
    assert (-found.minus * 1000, found.plus * 1000) == pytest.approx((low, high))


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("50 H12", "grade 12 is not known"),
        ("50 k6", "is not a known fit"),
        ("50 F7", "is not a known fit"),
        ("501 H8", "up to 500 mm"),
        ("0 H8", "up to 500 mm, not for 0 mm"),
        ("3 mm ±3", "as wide as the value"),
        ("3 mm -3/-4", "as wide as the value"),
        ("50 mm +0.03/-0.01/-0.02", "not a recognised unit"),
    ],
)
def test_what_no_table_holds_is_refused(text: str, words: str) -> None:
    with pytest.raises(RuleError) as caught:
        read_toleranced_length(text, "bore")
    assert words in caught.value.faults[0].message
    assert caught.value.faults[0].field == "bore"


@given(size=st.floats(0.5, 500), grade=st.integers(5, 10), letter=st.sampled_from("Hdefgh"))
def test_a_coarser_grade_is_wider_and_a_hole_never_tighter_than_its_shaft(size: float, grade: int, letter: str) -> None:
    low, high = fit_limits(size, letter, grade, "bore")
    wider = fit_limits(size, letter, grade + 1, "bore")
    assert wider[1] - wider[0] > high - low > 0
    assert (low >= 0) if letter == "H" else (high <= 0)


def test_a_tolerance_of_a_pressure_is_in_its_own_unit() -> None:
    quantity, found = read_toleranced("350 bar ±5", Dimension.PRESSURE, "target")
    assert quantity.unit.symbol == "bar"
    assert (found.nominal, found.minus, found.plus) == pytest.approx((35.0, 0.5, 0.5))


@pytest.mark.parametrize(
    ("tolerance", "shown"),
    [
        (Toleranced(25, 0.1, 0.1), "±0.1"),
        (Toleranced(50, 0, 0.039), "+0.039/0"),
        (Toleranced(28, 0.041, -0.02), "−0.02/−0.041"),
        (Toleranced(28), ""),
    ],
)
def test_tolerances_are_shown_as_on_a_drawing(tolerance: Toleranced, shown: str) -> None:
    assert MM is not None
    assert show_tolerance(tolerance, MM) == shown


def test_limits_and_middle() -> None:
    size = Toleranced(40, -0.01, 0.03)
    assert (size.low, size.middle, size.high) == pytest.approx((40.01, 40.02, 40.03))
