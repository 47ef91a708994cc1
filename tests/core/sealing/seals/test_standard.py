"""Standard sizes made by rule."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.sealing.seals import Housing, HousingRow, SealKind, SealSide, SealSize, match_seal, standard_seals
from ironkettle.reference import seal_sizes


@given(st.sampled_from(seal_sizes()))
def test_every_size_fits_its_own_housing(size: SealSize) -> None:
    own = Housing(size.kind, size.side, size.surface, size.groove, size.length)
    assert size.name in [c.size.name for c in match_seal(own, seal_sizes(), limit=50).fits]
    assert (size.groove > size.surface) == (size.side is SealSide.ROD)


def test_known_housings_are_among_them() -> None:
    names = {size.name for size in seal_sizes()}
    # ISO 5597: section 5 with lengths 6.3 and 8; ISO 7425: 5.5 × 4.2; ISO 6195 A: 4 × 5; rods and bores of ISO 3320.
    assert {
        "ISO 5597 28 × 38 × 6.3",
        "ISO 5597 50 × 40 × 8",
        "ISO 7425 63 × 52 × 4.2",
        "ISO 6195 A 28 × 36 × 5",
    } <= names


def test_wipers_are_for_rods_only_and_sections_suit_their_diameter() -> None:
    for size in seal_sizes():
        assert size.kind is not SealKind.WIPER or size.side is SealSide.ROD
        assert 0.02 <= size.section / size.surface <= 0.55
        assert size.in_stock is None


@pytest.mark.parametrize(("side", "groove"), [(SealSide.ROD, 30.0), (SealSide.BORE, 10.0)])
def test_the_groove_lies_outside_a_rod_and_inside_a_bore(side: SealSide, groove: float) -> None:
    made = standard_seals([20.0], [20.0], [HousingRow("made up", SealKind.LIP_SEAL, 5.0, 8.0, "test")])
    lips = [size for size in made if size.kind is SealKind.LIP_SEAL and size.side is side]
    assert [size.groove for size in lips] == [groove]
