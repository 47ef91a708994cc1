"""Reading quantities: the notations of the bench, and what is refused."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.base.errors import FieldFault, RuleError
from ironkettle.core.base.quantities import (
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
    show,
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
    ('1½"', Dimension.LENGTH, 38.1),
    ("1 5/16”", Dimension.LENGTH, 33.3375),
    ("⅝ in", Dimension.LENGTH, 15.875),
    ("2' 3\"", Dimension.LENGTH, 685.8),
    ("2’ 3½”", Dimension.LENGTH, 698.5),
    ("2 ft 3 in", Dimension.LENGTH, 685.8),
    ("1/2-in", Dimension.LENGTH, 12.7),
    ("0.5 thou", Dimension.LENGTH, 0.0127),
    ("10 mil", Dimension.LENGTH, 0.254),
    ("12 µm", Dimension.LENGTH, 0.012),
    ("18 lbf.ft", Dimension.TORQUE, 24.40472),
    ("18 ft.lbs", Dimension.TORQUE, 24.40472),
    ("18 foot-pounds", Dimension.TORQUE, 24.40472),
    ("150 inch-lb", Dimension.TORQUE, 16.94772),
    ("1.2 kNm", Dimension.TORQUE, 1200.0),
    ("250 kgf·cm", Dimension.TORQUE, 24.516625),
    ("3 kgf·m", Dimension.TORQUE, 29.41995),
    ("28 inHg", Dimension.PRESSURE, 28 * 3.38638864e-3),
    ("760 mmHg", Dimension.PRESSURE, 0.101325),
    ("100 kp/cm²", Dimension.PRESSURE, 9.80665),
    ('4" WC', Dimension.PRESSURE, 4 * 25.4 * 9.80665e-6),
    ("4” WC", Dimension.PRESSURE, 4 * 25.4 * 9.80665e-6),
    ("4 in. WG", Dimension.PRESSURE, 4 * 25.4 * 9.80665e-6),
    ("4 inH₂O", Dimension.PRESSURE, 4 * 25.4 * 9.80665e-6),
    ("-0.6 bar", Dimension.PRESSURE, -0.06),
    ("−8 psi", Dimension.PRESSURE, -8 * 0.006894757),
    ("20 inHg vacuum", Dimension.PRESSURE, -20 * 3.38638864e-3),
    ("0.6 bar vac", Dimension.PRESSURE, -0.06),
    ("30 ml/h", Dimension.FLOW, 0.5),
    ("5 cm³/min", Dimension.FLOW, 5.0),
    ("20 drops/min", Dimension.FLOW, 1.0),  # 0.05 ml a drop
    ("2 dm³", Dimension.VOLUME, 2000.0),
    ("25°", Dimension.ANGLE, 25.0),
    ("0.25 turns", Dimension.ANGLE, 90.0),
    ("0.3 m/s", Dimension.SPEED, 0.3),
    ("60 ft/min", Dimension.SPEED, 0.3048),
    ("12 kN", Dimension.FORCE, 12_000.0),
    ("100 lbf", Dimension.FORCE, 444.82216),
    ("2 in²", Dimension.AREA, 1290.32),
    ("5 cm2", Dimension.AREA, 500.0),
]


@pytest.mark.parametrize(("text", "dimension", "expected"), NOTATIONS)
def test_notations_of_the_bench(text: str, dimension: Dimension, expected: float) -> None:
    assert read_quantity(text, dimension, "field").value == pytest.approx(expected, rel=1e-6)


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("24.9", "has no unit"),
        ("24.9 bar", "is a pressure; a length is wanted"),
        ("24.9 furlong", "not a recognised unit"),
        ("3,000 mm", "can be read two ways"),
        ("1/0 in", "divides by zero"),
        ("", "is not a length"),
        ("mm", "is not a length"),
        ("1e400 mm", "not a recognised unit"),
        ("99999999999 mm", "out of range"),
        ("five mm", "is not a length"),
        ("-5 mm", "outside the range"),
        ("0 mm", "outside the range"),
        ("1 17/16 in", "17/16 after a whole number must be below one"),
        ("1-1/2 - in", "is not a length"),
        ("3 . mm", "not a recognised unit"),
        ("5 MN", "not a recognised unit"),
        ("2' 13\"", "a foot has 12 inches"),
        ("1" * 30 + " mm", "too long for a number"),
        ("1\x00 mm", "contains a character that is not text"),
        ("9 m m m m m m m m m m m m m m m m m m m m m m m m m m m m m m m", "longer than"),
    ],
)
def test_refusals_say_what_fits(text: str, words: str) -> None:
    with pytest.raises(RuleError) as caught:
        read_length(text, "bore")
    assert caught.value.faults[0].field == "bore"
    assert words in caught.value.faults[0].message


def test_millipascal_is_never_taken_for_megapascal() -> None:
    for text in ("mPa", "Mm", "Ml", "Mbar", "Mm2", "MmHg", "mPa(g)"):
        assert find_unit(text) is None, text
    for text, symbol in (("MM", "mm"), ("mpa", "MPa"), ("MBAR", "mbar"), ("Millimetres", "mm"), ("mmHg", "mmHg")):
        unit = find_unit(text)
        assert unit is not None
        assert unit.symbol == symbol
    assert read_gauge_pressure("5 MPa", "p") == 5.0


def test_gauge_and_absolute_are_not_confused() -> None:
    with pytest.raises(RuleError, match="is absolute; enter a gauge pressure"):
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
    over %= under
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
    ("text", "dimension", "words"),
    [
        ("-300 °C", Dimension.TEMPERATURE, "below absolute zero"),
        ("-460 °F", Dimension.TEMPERATURE, "below absolute zero"),
        ("-5 K", Dimension.TEMPERATURE, "below absolute zero"),
        ("-2 bar", Dimension.PRESSURE, "below a full vacuum"),
        ("-0.1 bar(a)", Dimension.PRESSURE, "below a full vacuum"),
        ("40 inHg vacuum", Dimension.PRESSURE, "below a full vacuum"),
        ("-20 inHg vacuum", Dimension.PRESSURE, "written without a minus"),
        ("5", Dimension.ANGLE, "write for example 5 °"),
        ("5 mm", Dimension.AREA, "is a length; an area is wanted"),
    ],
)
def test_what_cannot_be_is_refused_in_words(text: str, dimension: Dimension, words: str) -> None:
    with pytest.raises(RuleError) as caught:
        read_quantity(text, dimension, "field")
    assert words in caught.value.faults[0].message


@pytest.mark.parametrize(
    ("text", "dimension", "value"),
    [
        ("-273.15 °C", Dimension.TEMPERATURE, -273.15),
        ("0 K", Dimension.TEMPERATURE, -273.15),
        ("-1.013 bar", Dimension.PRESSURE, -0.1013),
        ("0 bar(a)", Dimension.PRESSURE, 0.0),
    ],
)
def test_the_edge_of_what_can_be_is_read(text: str, dimension: Dimension, value: float) -> None:
    assert read_quantity(text, dimension, "field").value == pytest.approx(value, abs=1e-9)


def test_a_drop_is_what_the_shop_takes_it_for() -> None:
    # 12 drops of 0.04 ml a minute are 0.48 ml/min.
    quantity = read_quantity("12 drops/min", Dimension.FLOW, "limit", 0.04)
    assert quantity.value == pytest.approx(0.48)
    assert in_both(quantity.value, quantity.unit) == "12.00 drops/min (0.48 ml/min)"
    assert read_flow("12 drops/min", "limit", drop_ml=0.04) == pytest.approx(0.48)


def test_nothing_at_all_is_no_length_torque_volume_or_flow() -> None:
    for read, text in ((read_length, "0 mm"), (read_torque, "0 N·m"), (read_volume, "0 ml"), (read_flow, "0 ml/min")):
        with pytest.raises(RuleError, match="outside the range above 0"):
            read(text, "field")
    assert read_gauge_pressure("0 bar", "p") == 0.0
    assert read_volume("0.5 ml", "v") == 0.5
    assert read_flow("0.2 ml/min", "q") == 0.2
    assert read_length("0.3 mm", "l") == 0.3
    assert read_torque("0.4 N·m", "t") == 0.4


def test_a_fraction_of_one_or_more_is_told_with_its_value() -> None:
    with pytest.raises(RuleError) as caught:
        read_number("1 17/16", "bore")
    assert caught.value.faults[0].accepts == ("1-5/16", "2.0625")


def test_fractions_below_zero_and_of_nothing() -> None:
    assert read_number("-1/2", "f") == -0.5
    assert read_number("-1-1/2", "f") == -1.5
    assert read_number("+3/4", "f") == 0.75
    assert read_number("0/4", "f") == 0.0
    with pytest.raises(RuleError, match="after a whole number"):
        read_number("0-5/4", "f")
    assert read_number("5/4", "f") == 1.25


def test_a_fraction_that_cannot_be_is_quoted_whole() -> None:
    with pytest.raises(RuleError, match="“5/0” divides by zero"):
        read_number("5/0", "x")
    with pytest.raises(RuleError, match="“1 17/16”: 17/16 after a whole number") as caught:
        read_number("1 17/16", "x")
    # 1 + 17/16 = 33/16.
    assert caught.value.faults[0].accepts == ("1-5/16", "2.0625")


@pytest.mark.parametrize(
    ("text", "dimension", "least"),
    [
        ("0.00001 mm", Dimension.LENGTH, "0.0001 mm"),
        ("-0.0000000001 bar", Dimension.PRESSURE, "1e-07 MPa"),
        ("0.000000001 N·m", Dimension.TORQUE, "0.0001 N·m"),
        ("0.000000001 ml/min", Dimension.FLOW, "1e-07 ml/min"),
        ("0.0000001 s", Dimension.TIME, "0.001 s"),
    ],
)
def test_what_nobody_measures_is_refused_wherever_it_is_read(text: str, dimension: Dimension, least: str) -> None:
    with pytest.raises(RuleError, match="is smaller than any") as refused:
        read_quantity(text, dimension, "field")
    assert f"from {least}" in refused.value.faults[0].accepts


def test_nothing_and_the_smallest_that_is_measured_are_read() -> None:
    assert read_quantity("0 mm", Dimension.LENGTH, "field").value == 0
    assert read_quantity("0.1 µm", Dimension.LENGTH, "field").value == pytest.approx(1e-4)


def test_a_number_is_read_up_to_its_bounds_and_no_further() -> None:
    """24 figures and 10⁹ are the bounds the docstring states."""
    assert read_number("1000000000", "n") == 1e9
    assert read_number("0." + "0" * 21 + "1", "n") == pytest.approx(1e-22)
    for text, words in (
        ("1000000000.1", "out of range"),
        ("0." + "0" * 22 + "1", "too long for a number"),
        ("1-8/8", "8/8 after a whole number must be below one"),
    ):
        with pytest.raises(RuleError, match=words):
            read_number(text, "n")
    assert read_number("8/8", "n") == 1.0
    assert read_number("-1-1/4", "n") == -1.25


def test_a_comma_before_three_figures_is_asked_back_and_no_other() -> None:
    for text in ("1,000", "999,000", "-12,500"):
        with pytest.raises(RuleError, match="can be read two ways"):
            read_number(text, "n")
    assert [read_number(text, "n") for text in ("0,125", "1,00", "1,0000", "24,9")] == [0.125, 1.0, 1.0, 24.9]


@pytest.mark.parametrize(
    ("value", "unit", "shown"),
    [
        (0.004, "mm", "0.004 mm"),
        (12.345, "mm", "12.35 mm"),
        (0.05, "bar", "0.5 bar"),
        (0.0042, "bar", "0.042 bar"),
        (-20.0, "°C", "-20.0 °C"),
        (2.5, "ml", "2.50 ml"),
    ],
)
def test_a_figure_keeps_what_its_usual_decimals_would_lose(value: float, unit: str, shown: str) -> None:
    """Half a per cent may be lost by rounding, no more; below that three figures are written."""
    assert show(value, unit) == shown
