"""Units by definition, and how quantities are shown."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.base.quantities import BASE_UNIT, Dimension, find_unit, from_base, in_both, show, to_base
from ironkettle.core.base.quantities.units import UNITS, accepted_symbols


@pytest.mark.parametrize(
    ("symbol", "base"),
    # By definition: inch 25.4 mm, lbf 4.4482216152605 N, foot 304.8 mm, atmosphere-free water column 9.80665 Pa per mm.
    [
        ("in", 25.4), ("ft", 304.8), ("psi", 0.006894757), ("bar", 0.1), ("lbf·ft", 1.3558179), ("lbf·in", 0.1129848),
        ("kgf·m", 9.80665), ("US gal", 3785.411784), ("in³", 16.387064), ("h", 3600.0), ("µm", 0.001),
        ("thou", 0.0254), ("inHg", 0.00338639), ("mmHg", 133.3224e-6), ("kgf/cm²", 0.0980665), ("kN·m", 1000.0),
        ("kgf·cm", 0.0980665), ("ml/h", 1 / 60), ("turn", 360.0), ("kN", 1000.0), ("cm²", 100.0), ("drops/min", 0.05),
        ("bar vacuum", -0.1), ("m/min", 1 / 60),
    ],
)  # fmt: skip
def test_sizes_of_units(symbol: str, base: float) -> None:
    unit = find_unit(symbol)
    assert unit is not None
    assert to_base(1.0, unit) == pytest.approx(base, rel=1e-6)


@given(value=st.floats(-1e6, 1e6), unit=st.sampled_from(UNITS))
def test_there_and_back(value: float, unit: object) -> None:
    assert from_base(to_base(value, unit), unit) == pytest.approx(value, abs=1e-6)  # type: ignore[arg-type]


def test_every_spelling_finds_its_own_unit_and_every_dimension_has_a_base() -> None:
    for unit in UNITS:
        for spelling in unit.spellings:
            assert find_unit(spelling) is unit, spelling
    for dimension in Dimension:
        assert accepted_symbols(dimension)
        assert find_unit(BASE_UNIT[dimension]) is not None


def test_shown_with_the_decimals_of_the_unit_and_its_counterpart() -> None:
    assert show(24.9936, "in") == "0.984 in"
    assert in_both(24.9936, "mm") == "24.99 mm (0.984 in)"
    assert in_both(21.0, "bar") == "210.0 bar (3046 psi)"
    assert in_both(80.0, "°C") == "80.0 °C (176 °F)"
    with pytest.raises(ValueError, match="known unit"):
        show(1.0, "furlong")
