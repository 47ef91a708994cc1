"""Seals by housing: what fits, and what would have to change."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.sealing.seals import Housing, SealKind, SealSide, SealSize, match_seal
from ironkettle.core.sealing.seals.match import _turning
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


HOUSINGS = st.builds(
    Housing,
    st.sampled_from([SealKind.LIP_SEAL, SealKind.SLIDE_RING, SealKind.WEAR_BAND]),
    st.just(SealSide.ROD),
    st.floats(10, 200),
    st.floats(220, 260),
    st.floats(2, 30),
)


@given(HOUSINGS)
def test_what_is_shown_is_sorted_into_fits_smaller_and_larger(housing: Housing) -> None:
    found = match_seal(housing, seal_sizes())
    volume = (housing.groove - housing.surface) / 2 * housing.length
    assert all(not fit.changes for fit in found.fits)
    assert all(one.changes for one in (*found.smaller, *found.larger))
    assert all(one.size.section * one.size.length < volume for one in found.smaller)
    assert all(one.size.section * one.size.length >= volume for one in found.larger)
    for near in (found.smaller, found.larger):
        assert [one.distance for one in near] == sorted(one.distance for one in near)


@given(st.sampled_from(seal_sizes()), st.floats(-0.14, 0.14), st.floats(-0.14, 0.14))
def test_a_housing_within_the_tolerance_still_finds_its_seal(size: SealSize, surface: float, groove: float) -> None:
    worn = Housing(size.kind, size.side, size.surface + surface, size.groove + groove, size.length)
    assert size.name in [fit.size.name for fit in match_seal(worn, seal_sizes(), limit=60).fits]


def test_a_groove_a_little_long_leaves_end_play_and_fits() -> None:
    # Up to a tenth of the length: 6.9 on a seal of 6.3, not 7.0.
    assert match_seal(housing(28, 38, 6.9), [STOCK]).fits
    assert not match_seal(housing(28, 38, 6.96), [STOCK]).fits
    assert not match_seal(housing(28, 38, 7.0), [STOCK]).fits
    assert not match_seal(housing(28, 38, 6.1), [STOCK]).fits


def test_a_bore_groove_is_cut_deeper_and_a_rod_groove_wider() -> None:
    """On a rod the groove lies outside: a smaller groove than wanted is turned out; in a bore it is the other way."""
    assert _turning(SealSide.ROD, -2.0) == ": turn out 1 mm a side"
    assert "sleeve" in _turning(SealSide.ROD, 2.0)
    assert _turning(SealSide.BORE, 2.0) == ": turn out 1 mm a side"
    assert "sleeve" in _turning(SealSide.BORE, -2.0)
