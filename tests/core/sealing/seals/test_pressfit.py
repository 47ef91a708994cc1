"""Pressed-in seals: interference against its allowance."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.base.errors import RuleError
from ironkettle.core.base.quantities import Toleranced
from ironkettle.core.sealing.seals import Cladding, allowance, check_press_fit


def test_press_fit_by_hand() -> None:
    # 42 H8 bore (+0.039), seal read 42.13: 0.091 to 0.130 mm.
    fit = check_press_fit(Toleranced(42.13), Toleranced(42, 0, 0.039), 7, 7, Cladding.METAL)
    assert (fit.low, fit.nominal, fit.high) == pytest.approx((0.091, 0.13, 0.13))
    # The allowances have no published source: no verdict is better than marginal.
    assert fit.verdict == "caution"
    assert {finding.code for finding in fit.findings} == {"no-source"}
    # Up to 50 mm, metal: 0.08 to 0.20 mm; no published source.
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


@pytest.mark.parametrize(
    ("outside", "width", "code", "found"),
    [
        # Metal up to 50 mm: 0.08 to 0.20 mm. Light below three quarters of the least, heavy above five quarters of the most.
        (42.061, 7, "light", False),
        (42.059, 7, "light", True),
        (42.249, 7, "heavy", False),
        (42.251, 7, "heavy", True),
        # Proud by more than 0.05 mm.
        (42.13, 7.049, "proud", False),
        (42.13, 7.052, "proud", True),
    ],
)
def test_each_limit_of_a_press_fit_is_where_it_is_said_to_be(
    outside: float, width: float, code: str, found: bool
) -> None:
    fit = check_press_fit(Toleranced(outside), Toleranced(42), width, 7, Cladding.METAL)
    assert (code in {finding.code for finding in fit.findings}) is found


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
def test_the_usual_seal_in_a_true_bore_is_as_good_as_its_source(cladding: Cladding) -> None:
    for bore in (10.0, 50.0, 51.0, 80.0, 120.0, 180.0, 300.0):
        assert check_press_fit(None, Toleranced(bore), 7, 7, cladding).verdict == "caution"
        low, high = allowance(bore, cladding)
        assert 0 < low < high


@pytest.mark.parametrize(
    ("over", "width", "codes"),
    # Metal to 50 mm: 0.08 to 0.20; light below three quarters, 0.06, heavy above five quarters, 0.25; 0.05 proud is none.
    [
        (0.061, 7.0, set()),
        (0.059, 7.0, {"light"}),
        (0.249, 7.0, set()),
        (0.251, 7.0, {"heavy"}),
        (0.13, 7.05, set()),
        (0.13, 7.06, {"proud"}),
        (-0.001, 7.0, {"loose"}),
    ],
)
def test_the_edges_of_a_press_fit(over: float, width: float, codes: set[str]) -> None:
    fit = check_press_fit(Toleranced(42 + over), Toleranced(42), width, 7, Cladding.METAL)
    assert {f.code for f in fit.findings} == codes | {"no-source"}


def test_allowances_change_at_the_end_of_their_step() -> None:
    assert [allowance(bore, Cladding.METAL) for bore in (50, 50.1, 80, 120, 180)] == [
        (0.08, 0.20), (0.09, 0.23), (0.09, 0.23), (0.10, 0.25), (0.12, 0.28),
    ]  # fmt: skip
    assert [allowance(bore, Cladding.RUBBER) for bore in (50, 80, 120, 180, 300)] == [
        (0.15, 0.30), (0.20, 0.35), (0.20, 0.35), (0.25, 0.45), (0.25, 0.45),
    ]  # fmt: skip
