"""Seals by housing, packing sets, pressed-in seals."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.errors import RuleError
from ironkettle.core.quantities import Toleranced
from ironkettle.core.seals import (
    Cladding,
    Housing,
    PackingBox,
    SealKind,
    SealSide,
    SealSize,
    allowance,
    check_press_fit,
    match_seal,
    plan_packing,
)
from ironkettle.reference import seal_sizes

STOCK = SealSize(SealKind.LIP_SEAL, SealSide.ROD, 28.0, 38.0, 6.3, "stock 28", "shop stock", 4)


def housing(surface: float, groove: float, length: float, **options: object) -> Housing:
    return Housing(SealKind.LIP_SEAL, SealSide.ROD, surface, groove, length, **options)  # type: ignore[arg-type]


def test_a_standard_housing_is_found_and_stock_comes_first() -> None:
    # ISO 3320 rod 28, ISO 5597 section 5 with lengths 6.3 and 8: 28 × 38 × 6.3.
    found = match_seal(housing(28.02, 38.05, 6.4), [*seal_sizes(), STOCK])
    assert [c.size.name for c in found.fits] == ["stock 28", "ISO 5597 28 × 38 × 6.3"]
    assert found.fits[0].surface_off == pytest.approx(0.02)


def test_the_nearest_say_what_would_have_to_change() -> None:
    found = match_seal(housing(28.0, 38.0, 7.0), seal_sizes())
    assert found.fits == ()
    longer = next(c for c in found.larger if c.size.name == "ISO 5597 28 × 38 × 8")
    assert longer.changes == ("groove length 7 → 8 mm: open by 1 mm",)
    shorter = next(c for c in found.smaller if c.size.name == "ISO 5597 28 × 38 × 6.3")
    assert shorter.changes == ("groove length 7 → 6.3 mm: fill with a washer by 0.7 mm",)


def test_metal_taken_off_can_not_be_put_back() -> None:
    small = match_seal(housing(28.0, 35.0, 6.3), seal_sizes())
    texts = {c.size.name: " ".join(c.changes) for c in (*small.smaller, *small.larger)}
    assert "turn out 1.5 mm a side" in texts["ISO 5597 28 × 38 × 6.3"]
    large = match_seal(housing(28.0, 42.0, 6.3), seal_sizes())
    texts = {c.size.name: " ".join(c.changes) for c in (*large.smaller, *large.larger)}
    assert any("needs a sleeve" in text for text in texts.values())


def test_only_the_same_kind_and_side_are_looked_at() -> None:
    wiper = Housing(SealKind.WIPER, SealSide.BORE, 50, 40, 5)
    found = match_seal(wiper, seal_sizes())
    assert (found.fits, found.smaller, found.larger) == ((), (), ())


@given(st.sampled_from(seal_sizes()))
def test_every_size_fits_its_own_housing(size: SealSize) -> None:
    own = Housing(size.kind, size.side, size.surface, size.groove, size.length)
    assert size.name in [c.size.name for c in match_seal(own, seal_sizes(), limit=50).fits]
    assert (size.groove > size.surface) == (size.side is SealSide.ROD)


def test_packing_by_hand() -> None:
    # Box 45 × 30, 42 deep; header 6, follower 7, nut must enter 4: 25 mm for rings of 5.1 = 4 rings, 20.4 mm;
    # 5 % is 1.02 mm; lead 1.5 gives 0.68 of a turn.
    plan = plan_packing(PackingBox(45, 30, 42, 5.1, header=6, follower=7, lead=1.5, nut_reach=4))
    assert (plan.section, plan.rings) == (7.5, 4)
    assert plan.stack == pytest.approx(33.4)
    assert plan.compression == pytest.approx(1.02)
    assert plan.turns == pytest.approx(0.68)
    assert [f.code for f in plan.findings] == ["stack-order"]


def test_packing_that_cannot_be() -> None:
    with pytest.raises(RuleError, match="not smaller than the box bore"):
        PackingBox(30, 45, 42, 5)
    with pytest.raises(RuleError, match="does not take"):
        PackingBox(45, 30, 10, 5, header=6)
    few = plan_packing(PackingBox(45, 30, 16, 5, compression_pct=20))
    assert {"compression"} <= {f.code for f in few.findings}
    short = plan_packing(PackingBox(45, 30, 12, 5, nut_reach=4))
    assert {"few-rings"} <= {f.code for f in short.findings}
    assert plan_packing(PackingBox(45, 30, 12, 5, nut_reach=8)).rings == 0


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
