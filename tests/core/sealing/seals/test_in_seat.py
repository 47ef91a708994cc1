"""A written size held against its seat: the mistakes a hand makes with the wrong bag, by the diameters themselves."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.sealing.catalogue import KINDS, ElementKind, Group
from ironkettle.core.sealing.seals.in_seat import Space, misfit, ring_misfit, told_size

SEAT = Space(38, 52, 8)


@pytest.mark.parametrize(
    ("kind", "size", "why"),
    [
        (ElementKind.METAL_CLAD_WIPER, "40 × 50 × 7", "40 mm inside does not fit: the seat is 38 × 52 × 8 mm"),
        (ElementKind.METAL_CLAD_WIPER, "38 × 50 × 8", "50 mm outside does not fit"),
        (ElementKind.METAL_CLAD_WIPER, "38 x 52 x 9", "9 mm long does not fit"),
        (ElementKind.METAL_CLAD_WIPER, "38 x 52 x 4", "4 mm long is too short"),
        (ElementKind.METAL_CLAD_WIPER, "38*52*8 mm", None),
        # Bore first, with a comma, with words behind it.
        (ElementKind.LIP_SEAL, "52 × 38 × 8", None),
        (ElementKind.LIP_SEAL, "38,5 × 52 × 7,5 filled PTFE", None),
        (ElementKind.LIP_SEAL, "38,8 × 52 × 8", "38.8 mm inside"),
        # Stacked, a packing is as long as its parts: its diameters tell.
        (ElementKind.V_PACKING, "20 × 40", "20 mm inside does not fit"),
        (ElementKind.V_PACKING, "38 × 52", None),
        (ElementKind.V_PACKING, "38 × 52 × 30", None),
        # What tells no inner and outer diameter is not judged.
        (ElementKind.SEAT_DISC, "14 × 3", None),
        (ElementKind.GASKET, "old pattern", None),
    ],
)
def test_a_size_from_the_wrong_bag_is_named_with_what_the_seat_is(
    kind: ElementKind, size: str, why: str | None
) -> None:
    found = misfit(kind, size, SEAT)
    assert (found is None) is (why is None), found
    assert why is None or (found is not None and found.startswith(why))


@pytest.mark.parametrize(
    ("inside", "section", "why"),
    [
        # A 30 × 3 ring hangs loose on a spigot of 20; one of 15 does not go over it.
        (30, 3, "30 mm inside does not fit round 20 mm"),
        (15, 3, "15 mm inside does not fit round 20 mm"),
        (20, 1, "a section of 1 mm does not fit a depth of 3 mm"),
        (20, 7, "a section of 7 mm does not fit a depth of 3 mm"),
        (19.5, 3, None),
        (18.5, 3.5, None),
    ],
)
def test_a_ring_that_hangs_loose_or_does_not_go_over_is_named(inside: float, section: float, why: str | None) -> None:
    assert ring_misfit(inside, section, Space(20, 26, 4)) == why


@given(
    inner=st.integers(6, 300), depth=st.integers(2, 20), length=st.integers(3, 40), off=st.floats(0.7, 50),
    kind=st.sampled_from(sorted(ElementKind)),
)  # fmt: skip
def test_the_seat_s_own_size_always_fits_and_one_far_off_never(
    inner: int, depth: int, length: int, off: float, kind: ElementKind
) -> None:
    space = Space(inner, inner + 2 * depth, length)
    assert misfit(kind, f"{space.inner:g} × {space.outer:g} × {space.length:g}", space) is None
    more = max(off, 0.021 * space.outer)
    assert misfit(kind, f"{space.inner:g} × {space.outer + more:.3f} × {space.length:g}", space) is not None


def test_two_figures_are_diameters_of_a_packing_alone() -> None:
    for kind in ElementKind:
        packing = KINDS[kind].group is Group.PACKING
        assert (told_size(kind, "20 × 30") is not None) is packing
    assert told_size(ElementKind.LIP_SEAL, "30 × 20 × 5") == (20, 30, 5)
    for words in ("as it should be", "30 × 20 × 5 × 9", "-30 × 20 × 5", "1.5 in × 2 in × 0.3 in"):
        assert told_size(ElementKind.LIP_SEAL, words) is None


def test_what_shares_a_seat_is_not_held_to_its_whole_length() -> None:
    """Two spacers of 2 mm in 4 mm, as the pump's liquid end has them: one is not too short, and 5 mm still is too long."""
    together = Space(20, 32, 4, shared=True)
    assert misfit(ElementKind.SPACER, "20 × 32 × 2", together) is None
    assert misfit(ElementKind.SPACER, "20 × 32 × 5", together) == "5 mm long does not fit: the seat is 20 × 32 × 4 mm"
    assert misfit(ElementKind.SPACER, "20 × 32 × 2", Space(20, 32, 4)) is not None
