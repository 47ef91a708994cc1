"""Pressed-in seals: interference against its allowance."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.errors import RuleError
from ironkettle.core.quantities import Toleranced
from ironkettle.core.seals import Cladding, allowance, check_press_fit


def test_press_fit_by_hand() -> None:
    # 42 H8 bore (+0.039), seal read 42.13: 0.091 to 0.130 mm.
    fit = check_press_fit(Toleranced(42.13), Toleranced(42, 0, 0.039), 7, 7, Cladding.METAL)
    assert (fit.low, fit.nominal, fit.high) == pytest.approx((0.091, 0.13, 0.13))
    assert fit.verdict == "good"
    # ISO 6194-1, up to 50 mm, metal: 0.08 to 0.20 mm.
    assert (fit.wanted_low, fit.wanted_high) == (0.08, 0.20)
    unknown = check_press_fit(None, Toleranced(42), 7, 7, Cladding.RUBBER)
    assert (unknown.low, unknown.high) == pytest.approx((0.15, 0.30))


@pytest.mark.parametrize(
    ("outside", "width", "code"),
    [(41.98, 7, "loose"), (42.04, 7, "light"), (42.30, 7, "heavy"), (42.13, 8, "proud")],
)
def test_press_fit_that_is_wrong(outside: float, width: float, code: str) -> None:
    fit = check_press_fit(Toleranced(outside), Toleranced(42), width, 7, Cladding.METAL)
    assert code in {f.code for f in fit.findings}


def test_allowance_ends_with_its_table() -> None:
    assert allowance(300, Cladding.METAL) == (0.15, 0.35)
    with pytest.raises(RuleError, match="over the table"):
        allowance(301, Cladding.METAL)


@given(
    bore=st.floats(10, 300), more=st.floats(0, 0.5), worn=st.floats(0, 0.2), cladding=st.sampled_from(list(Cladding))
)
def test_a_larger_bore_holds_less(bore: float, more: float, worn: float, cladding: Cladding) -> None:
    seal = Toleranced(bore + more)
    new = check_press_fit(seal, Toleranced(bore), 7, 7, cladding)
    old = check_press_fit(seal, Toleranced(bore, 0, worn), 7, 7, cladding)
    assert old.low == pytest.approx(new.low - worn)
    assert old.nominal == new.nominal
    assert new.low <= new.nominal <= new.high


@pytest.mark.parametrize("cladding", list(Cladding))
def test_the_usual_seal_in_a_true_bore_is_good(cladding: Cladding) -> None:
    for bore in (10.0, 50.0, 51.0, 80.0, 120.0, 180.0, 300.0):
        assert check_press_fit(None, Toleranced(bore), 7, 7, cladding).verdict == "good"
        low, high = allowance(bore, cladding)
        assert 0 < low < high
