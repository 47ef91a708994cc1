"""Reading quantities: the notations of the bench, and what is refused."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.errors import FieldFault, RuleError
from ironkettle.core.quantities import (
    Dimension,
    find_unit,
    from_base,
    in_both,
    read_flow,
    read_gauge_pressure,
    read_length,
    read_number,
    read_quantity,
    read_temperature,
    read_toleranced_length,
    read_torque,
    read_volume,
    split_tolerance,
    to_base,
)

# Expected values by hand from the definitions: 1 in = 25.4 mm, 1 lbf = 4.4482216152605 N, g0 = 9.80665 m/s².
NOTATIONS = [
    ("1-5/16 in", Dimension.LENGTH, 33.3375),
    ('1 5/16"', Dimension.LENGTH, 33.3375),
    ('.984"', Dimension.LENGTH, 24.9936),
    ("24,9 mm", Dimension.LENGTH, 24.9),
    ("5/16 in", Dimension.LENGTH, 7.9375),
    ("2 cm", Dimension.LENGTH, 20.0),
    ("18 lbf·ft", Dimension.TORQUE, 24.40472),
    ("18 ft-lb", Dimension.TORQUE, 24.40472),
    ("18 FT LBS", Dimension.TORQUE, 24.40472),
    ("150 in-lb", Dimension.TORQUE, 16.94772),
    ("25 Nm", Dimension.TORQUE, 25.0),
    ("25 N·m", Dimension.TORQUE, 25.0),
    ("4 inH2O", Dimension.PRESSURE, 4 * 25.4 * 9.80665e-6),
    ("210 bar", Dimension.PRESSURE, 21.0),
    ("3000 psi", Dimension.PRESSURE, 20.684272),
    ("16 MPa", Dimension.PRESSURE, 16.0),
    ("1013 hPa", Dimension.PRESSURE, 0.1013),
    ("80 °C", Dimension.TEMPERATURE, 80.0),
    ("176 °F", Dimension.TEMPERATURE, 80.0),
    ("-20 C", Dimension.TEMPERATURE, -20.0),
    ("850 ml", Dimension.VOLUME, 850.0),
    ("1.5 l", Dimension.VOLUME, 1500.0),
    ("30 l/min", Dimension.FLOW, 30_000.0),
    ("2 min", Dimension.TIME, 120.0),
]


@pytest.mark.parametrize(("text", "dimension", "expected"), NOTATIONS)
def test_notations_of_the_bench(text: str, dimension: Dimension, expected: float) -> None:
    assert read_quantity(text, dimension, "field").value == pytest.approx(expected, rel=1e-6)


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("24.9", "has no unit"),
        ("24.9 bar", "is a pressure; a length is wanted"),
        ("24.9 furlong", "not a unit known here"),
        ("3,000 mm", "can be read two ways"),
        ("1/0 in", "divides by zero"),
        ("", "is not a length"),
        ("mm", "is not a length"),
        ("1e400 mm", "not a unit"),
        ("99999999999 mm", "out of any range"),
        ("five mm", "is not a length"),
        ("-5 mm", "outside the range"),
        ("0 mm", "outside the range"),
        ("9 m m m m m m m m m m m m m m m m m m m m m m m m m m m m m m m", "longer than"),
    ],
)
def test_refusals_say_what_fits(text: str, words: str) -> None:
    with pytest.raises(RuleError) as caught:
        read_length(text, "bore")
    assert caught.value.faults[0].field == "bore"
    assert words in caught.value.faults[0].message


def test_millipascal_is_never_taken_for_megapascal() -> None:
    assert find_unit("mPa") is None
    assert read_gauge_pressure("5 MPa", "p") == 5.0


def test_gauge_and_absolute_are_not_confused() -> None:
    with pytest.raises(RuleError, match="is absolute; gauge pressure is wanted"):
        read_gauge_pressure("3 bar(a)", "pressure")
    with pytest.raises(RuleError, match="is absolute"):
        read_gauge_pressure("40 psia", "pressure")


@pytest.mark.parametrize(
    ("text", "low", "nominal", "high"),
    [
        ("50 mm +0.03/-0", 50.0, 50.0, 50.03),
        ("3.53 mm ±0.10", 3.43, 3.53, 3.63),
        ("50 ±0.05 mm", 49.95, 50.0, 50.05),
        ("50 mm -0,1/+0", 49.9, 50.0, 50.0),
        ("1.5 in ±.001", 38.0746, 38.1, 38.1254),
        ("0.984 in", 24.9936, 24.9936, 24.9936),
    ],
)
def test_tolerances_are_in_the_unit_of_the_value(text: str, low: float, nominal: float, high: float) -> None:
    size = read_toleranced_length(text, "bore")
    assert (size.low, size.nominal, size.high) == pytest.approx((low, nominal, high))


def test_a_tolerance_as_wide_as_the_value_is_refused() -> None:
    with pytest.raises(RuleError, match="as wide as the value"):
        read_toleranced_length("3 mm ±3", "section")


def test_the_other_readers_keep_to_their_kind() -> None:
    assert read_torque("10 N·m", "t") == 10.0
    assert read_volume("1 l", "v") == 1000.0
    assert read_flow("1 l/min", "q") == 1000.0
    assert read_temperature("0 °C", "t") == 0.0
    with pytest.raises(RuleError, match="outside the range"):
        read_temperature("900 °C", "t")


def test_shows_the_unit_asked_in_with_the_other_beside_it() -> None:
    assert in_both(25.4, "mm") == "25.40 mm (1.000 in)"
    assert in_both(21.0, "bar") == "210.0 bar (3046 psi)"
    with pytest.raises(ValueError, match="known unit"):
        in_both(1.0, "cubit")


@given(
    whole=st.integers(0, 40),
    over=st.integers(1, 63),
    under=st.sampled_from([2, 4, 8, 16, 32, 64]),
    mark=st.sampled_from("- "),
)
def test_fractions_add_up(whole: int, over: int, under: int, mark: str) -> None:
    assert read_number(f"{whole}{mark}{over}/{under}", "f") == pytest.approx(whole + over / under)


@given(
    value=st.floats(0.01, 1e4),
    symbol=st.sampled_from(["mm", "in", "bar", "psi", "inH2O", "lbf·ft", "lbf·in", "°F", "K", "l/min"]),
)
def test_units_come_back_from_the_base_unit(value: float, symbol: str) -> None:
    unit = find_unit(symbol)
    assert unit is not None
    assert from_base(to_base(value, unit), unit) == pytest.approx(value)


@given(text=st.text(max_size=70))
def test_any_text_is_read_or_refused_with_the_field_named(text: str) -> None:
    faults: tuple[FieldFault, ...] = ()
    try:
        read_toleranced_length(text, "section")
    except RuleError as error:
        faults = error.faults
    assert all(fault.field == "section" and fault.message for fault in faults)


@pytest.mark.parametrize(
    ("text", "value", "minus", "plus"),
    [
        ("50 mm +0.03/-0", "50 mm", 0.0, 0.03),
        ("3.53 mm ±0.10", "3.53 mm", 0.10, 0.10),
        ("1-5/16 in", "1-5/16 in", 0.0, 0.0),
        ("20 mm -0.02/+0", "20 mm", 0.02, 0.0),
    ],
)
def test_a_tolerance_is_split_from_its_value(text: str, value: str, minus: float, plus: float) -> None:
    assert split_tolerance(text, "bore") == (value, minus, plus)
