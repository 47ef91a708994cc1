"""A reading whose unit looks mistaken. Conversions: 1 bar is 14.504 psi, 1 in is 25.4 mm, 1 N·m is 8.851 lbf·in (SI brochure, NIST SP 811)."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.base.quantities import unit_slip


@pytest.mark.parametrize(
    ("text", "expected", "says"),
    [
        ("252 psi", ["280 bar +10/-0"], "252 psi is 17.4 bar; 280 bar is expected: was it 252 bar?"),
        ("252 bar", ["280 bar +10/-0"], None),
        ("252 psi", ["5 strokes of the lever", "280 bar"], "was it 252 bar?"),
        ("4061 psi", ["280 bar"], None),  # 280 bar
        ("20 psi", ["280 bar"], None),  # far off in either unit: a broken spring reads so
        ("25 in", ["25 mm"], "was it 25 mm?"),
        ("1 in", ["25.4 mm"], None),
        ("40 lbf·in", ["38 N·m ±10 %"], "was it 40 N·m?"),
        ("1.4 kPa", ["1.4 inH2O", "floor 1.3 inH2O"], "was it 1.4 inH2O?"),
        ("20 °F", ["20 °C"], None),
        ("252", ["280 bar"], None),
        ("no reading", ["280 bar"], None),
        ("0 psi", ["280 bar"], None),
        ("252 psi", ["5 mm", "star pattern"], None),
        # Near another figure of the test in its own unit.
        ("20 bar", ["280 bar", "below: 20 bar"], None),
        ("300 psi", ["280 bar", "20 bar below"], None),
        # The edges: three times off is far, twice is near.
        ("42.1 psi", ["1 bar"], None),
        ("100 psi", ["200 bar"], "was it 100 bar?"),
        ("99 psi", ["200 bar"], None),
    ],
)
def test_a_number_that_fits_in_the_expected_unit_is_asked_back(
    text: str, expected: list[str], says: str | None
) -> None:
    found = unit_slip(text, expected)
    assert found is None if says is None else found is not None and says in found


@given(st.floats(0.01, 900), st.sampled_from(["bar", "psi", "MPa", "kPa"]))
def test_what_is_read_in_the_expected_unit_is_never_asked_back(value: float, unit: str) -> None:
    assert unit_slip(f"{value:.4f} {unit}", [f"280 {unit} ±5"]) is None


def test_a_lost_point_is_asked_about() -> None:
    """4101 bar where 4.4 bar is the highest figure that is expected: it was 4.101."""
    assert (
        unit_slip("4400 bar", ["4 bar ±0.1", "4.4 bar"])
        == "4400 bar is 1000 times 4.4 bar: is the decimal point missing?"
    )
    assert unit_slip("440 bar", ["4.4 bar"]) == "440 bar is 100 times 4.4 bar: is the decimal point missing?"
    assert unit_slip("435 bar", ["4 bar ±0.1", "4.4 bar"]) is None
    # Of a leak there is never too little.
    assert unit_slip("0.001 ml/min", ["5 ml/min"]) is None
