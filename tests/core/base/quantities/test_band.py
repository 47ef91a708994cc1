"""What a figure may be, however it is written: expected ends by hand, in the base unit (MPa, mm, N·m, °C)."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.base.errors import RuleError
from ironkettle.core.base.quantities import Dimension, read_quantity, written_half
from ironkettle.core.base.quantities.band import read_band, read_tolerance
from ironkettle.core.base.quantities.turns import turns_of

PRESSURE, LENGTH, TORQUE, HEAT = Dimension.PRESSURE, Dimension.LENGTH, Dimension.TORQUE, Dimension.TEMPERATURE
Ends = tuple[float | None, float | None, float | None]


@pytest.mark.parametrize(
    ("text", "dimension", "ends"),
    [
        ("280 bar +10/-0", PRESSURE, (28.0, 29.0, 28.0)),
        ("280 bar +10/-0 bar", PRESSURE, (28.0, 29.0, 28.0)),
        ("280 bar +10 bar/-0 bar", PRESSURE, (28.0, 29.0, 28.0)),
        ("280 bar -0/+10", PRESSURE, (28.0, 29.0, 28.0)),
        ("280 bar -5/+10", PRESSURE, (27.5, 29.0, 28.0)),
        ("280 bar ±10", PRESSURE, (27.0, 29.0, 28.0)),
        ("280 ±10 bar", PRESSURE, (27.0, 29.0, 28.0)),
        ("280 bar +/-10", PRESSURE, (27.0, 29.0, 28.0)),
        ("280 bar ±1 MPa", PRESSURE, (27.0, 29.0, 28.0)),
        ("280…290 bar", PRESSURE, (28.0, 29.0, None)),
        ("280 to 290 bar", PRESSURE, (28.0, 29.0, None)),
        ("between 280 and 290 bar", PRESSURE, (28.0, 29.0, None)),
        ("from 280 to 290 bar", PRESSURE, (28.0, 29.0, None)),
        ("280 bar to 29 MPa", PRESSURE, (28.0, 29.0, None)),
        ("280 bar to 280 bar", PRESSURE, (28.0, 28.0, None)),
        ("-0.8 to -0.6 bar", PRESSURE, (-0.08, -0.06, None)),
        ("at least 280 bar", PRESSURE, (28.0, None, None)),
        ("min. 280 bar", PRESSURE, (28.0, None, None)),
        ("≥ 280 bar", PRESSURE, (28.0, None, None)),
        ("from 280 bar", PRESSURE, (28.0, None, None)),
        ("max 290 bar", PRESSURE, (None, 29.0, None)),
        ("up to 290 bar", PRESSURE, (None, 29.0, None)),
        ("<= 290 bar", PRESSURE, (None, 29.0, None)),
        ("280 bar", PRESSURE, (28.0, 28.0, 28.0)),
        ("50 H8", LENGTH, (50.0, 50.039, 50.0)),
        ("28 f7", LENGTH, (27.959, 27.98, 28.0)),
        ("50 mm ±0.05", LENGTH, (49.95, 50.05, 50.0)),
        ("80 °C ±5", HEAT, (75.0, 85.0, 80.0)),
        ("176 °F ±9 °F", HEAT, (75.0, 85.0, 80.0)),
        ("20 ±2", None, (18.0, 22.0, 20.0)),
        ("1 to 9", None, (1.0, 9.0, None)),
        ("at most 10", None, (None, 10.0, None)),
    ],
)
def test_a_figure_as_a_technician_writes_it(text: str, dimension: Dimension | None, ends: Ends) -> None:
    band = read_band(text, dimension, "limit")
    assert [one is None for one in (band.low, band.high, band.nominal)] == [end is None for end in ends]
    found = [one for one in (band.low, band.high, band.nominal) if one is not None]
    assert found == pytest.approx([end for end in ends if end is not None])
    assert (band.unit is None) == (dimension is None)


@pytest.mark.parametrize(
    ("text", "dimension", "words"),
    [
        ("280 bar +10", PRESSURE, "can be read two ways; write 280 bar ±10 or 280 bar +10/-0"),
        ("280 bar -10", PRESSURE, "can be read two ways; write 280 bar ±10 or 280 bar +0/-10"),
        ("290 to 280 bar", PRESSURE, "290 is above 280 bar"),
        # A fit is a length; what is a pressure has none.
        ("50 H8", PRESSURE, "not a recognised unit"),
        ("280 bar ±10 mm", PRESSURE, "is not a unit of pressure"),
        ("280 bar ±10 moons", PRESSURE, "is not a recognised unit"),
        ("at least", PRESSURE, "is not a pressure"),
        ("to", PRESSURE, "is not a pressure"),
        ("", PRESSURE, "is not a pressure"),
        ("50 H99", LENGTH, "grade 99 is not known"),
    ],
)
def test_what_can_be_read_two_ways_or_none_is_refused(text: str, dimension: Dimension, words: str) -> None:
    with pytest.raises(RuleError) as caught:
        read_band(text, dimension, "limit")
    assert caught.value.faults[0].field == "limit"
    assert words in caught.value.faults[0].message


@pytest.mark.parametrize(
    ("text", "below", "above"),
    [
        ("±10 bar", 1.0, 1.0),
        ("5 bar", 0.5, 0.5),
        ("+10/-0 bar", 0.0, 1.0),
        ("-0/+10", 0.0, 1.0),
        ("+0/-10", 1.0, 0.0),
        ("-5/+10", 0.5, 1.0),
        ("±1 MPa", 1.0, 1.0),
    ],
)
def test_a_tolerance_apart_from_its_value(text: str, below: float, above: float) -> None:
    like = read_quantity("280 bar", PRESSURE, "value")
    assert read_tolerance(text, like, "tolerance") == pytest.approx((below, above))


def test_a_tolerance_in_degrees_is_a_difference() -> None:
    """9 °F more is 5 °C more, not 9 °F on the scale."""
    like = read_quantity("80 °C", HEAT, "value")
    assert read_tolerance("9 °F", like, "tolerance") == pytest.approx((5.0, 5.0))
    assert read_tolerance("±5 °C", like, "tolerance") == pytest.approx((5.0, 5.0))


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("+10 bar", "can be read two ways; write ±10 bar or \\+10 bar/-0"),
        ("-10 bar", "can be read two ways; write ±10 bar or \\+0/-10 bar"),
        ("0 bar", "allows nothing"),
        ("±0 bar", "allows nothing"),
        ("5 bar(a)", "not an absolute pressure"),
        ("moon", "is not a pressure"),
    ],
)
def test_a_tolerance_that_says_nothing_or_two_things_is_refused(text: str, words: str) -> None:
    like = read_quantity("280 bar", PRESSURE, "value")
    with pytest.raises(RuleError, match=words):
        read_tolerance(text, like, "tolerance")


@given(value=st.integers(1, 400), width=st.integers(1, 50), more=st.integers(0, 50))
def test_every_way_to_write_it_gives_the_same_ends(value: int, width: int, more: int) -> None:
    ways = [f"{value} bar +{more}/-{width}", f"{value} bar -{width}/+{more}", f"{value} +{more}/-{width} bar"]
    found = {
        (round(band.low or 0, 9), round(band.high or 0, 9)) for band in (read_band(way, PRESSURE, "p") for way in ways)
    }
    assert found == {(round((value - width) / 10, 9), round((value + more) / 10, 9))}


@pytest.mark.parametrize(
    ("text", "dimension", "half"),
    [
        ("280 bar", PRESSURE, 0.05),
        ("28.0 MPa", PRESSURE, 0.05),
        ("280.25 bar", PRESSURE, 0.0005),
        ("24.9 mm", LENGTH, 0.05),
        ("24,90 mm", LENGTH, 0.005),
        ("5/16 in", LENGTH, 25.4 / 32),
        ("1-5/16 in", LENGTH, 25.4 / 32),
        ("176 °F", HEAT, 0.5 * 5 / 9),
    ],
)
def test_half_of_the_last_figure_written(text: str, dimension: Dimension, half: float) -> None:
    assert written_half(text, dimension, "reading") == pytest.approx(half)


@pytest.mark.parametrize(
    ("text", "turns"),
    [
        ("0.25", 0.25),
        ("0,33", 0.33),
        ("1/3", 1 / 3),
        ("1/3 turn", 1 / 3),
        ("120°", 1 / 3),
        ("-90°", -0.25),
        ("1-1/2", 1.5),
    ],
)
def test_turns_as_they_are_written(text: str, turns: float) -> None:
    assert turns_of(text) == pytest.approx(turns)
    assert turns_of(turns) == turns


def test_what_is_no_turn_says_what_fits() -> None:
    with pytest.raises(ValueError, match=r"fits: 1/3, 0\.33 turn, 120°"):
        turns_of("moon")
