"""Outlines of elements: inside their box, told apart, and turned round without being changed."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.sealing.catalogue import ElementKind, Polygon
from ironkettle.core.sheets.drawing.profiles import profile

DIRECTED = [
    ElementKind.LIP_SEAL, ElementKind.CUP_SEAL, ElementKind.WIPER, ElementKind.METAL_CLAD_WIPER, ElementKind.V_PACKING,
    ElementKind.SLIDE_RING, ElementKind.CONTOURED_BACKUP, ElementKind.SHAFT_SEAL, ElementKind.HEADER_RING,
    ElementKind.FOLLOWER_RING,
]  # fmt: skip
BOX = (10.0, 20.0, 18.0, 25.0)
BOXES = st.tuples(st.floats(-50, 50), st.floats(0, 50), st.floats(1, 30), st.floats(1, 30)).map(
    lambda b: (b[0], b[1], b[0] + b[2], b[1] + b[3])
)


def area(points: Polygon) -> float:
    return 0.5 * abs(sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(points, (*points[1:], points[0]), strict=True)))


@given(kind=st.sampled_from(list(ElementKind)), box=BOXES, right=st.sampled_from([True, False, None]))
def test_every_outline_stays_in_its_box_and_fills_some_of_it(
    kind: ElementKind, box: tuple[float, float, float, float], right: bool | None
) -> None:
    outline = profile(kind, box, opens_right=right)
    z0, r0, z1, r1 = box
    assert all(z0 - 1e-9 <= z <= z1 + 1e-9 and r0 - 1e-9 <= r <= r1 + 1e-9 for z, r in outline)
    assert 0 < area(outline) <= (z1 - z0) * (r1 - r0) + 1e-9


@pytest.mark.parametrize("kind", DIRECTED)
def test_turned_round_it_is_its_own_mirror_image(kind: ElementKind) -> None:
    right, left = profile(kind, BOX, opens_right=True), profile(kind, BOX, opens_right=False)
    middle = (BOX[0] + BOX[2]) / 2
    assert [z for z, _ in left] == pytest.approx([2 * middle - z for z, _ in right])
    assert [r for _, r in left] == [r for _, r in right]
    assert area(left) == pytest.approx(area(right))
    assert left != right, "a reversed element must look reversed"


def test_kinds_with_a_direction_are_told_apart_by_shape() -> None:
    outlines = {kind: profile(kind, BOX, opens_right=True) for kind in DIRECTED}
    # A cup seal is drawn as the lip seal it is.
    alike = {frozenset((a, b)) for a in DIRECTED for b in DIRECTED if a != b and outlines[a] == outlines[b]}
    assert alike == {frozenset((ElementKind.LIP_SEAL, ElementKind.CUP_SEAL))}


@given(section=st.floats(1, 8), squeeze=st.floats(0.05, 0.35))
def test_a_squeezed_ring_keeps_the_area_of_the_free_one(section: float, squeeze: float) -> None:
    height = section * (1 - squeeze)
    outline = profile(ElementKind.O_RING, (0, 0, 100, height), opens_right=None, free_section=section)
    # 28 points of an ellipse enclose sin(2π/28)/(2π/28) of it.
    share = math.sin(2 * math.pi / 28) / (2 * math.pi / 28)
    assert area(outline) == pytest.approx(math.pi / 4 * section**2 * share)


def test_a_ring_wider_than_its_groove_is_drawn_against_both_walls() -> None:
    outline = profile(ElementKind.O_RING, (0, 0, 3.0, 2.5), opens_right=None, free_section=3.5)
    assert max(z for z, _ in outline) - min(z for z, _ in outline) == pytest.approx(3.0)


@pytest.mark.parametrize("kind", DIRECTED)
def test_what_is_not_known_to_face_either_way_is_drawn_without_a_face(kind: ElementKind) -> None:
    z0, r0, z1, r1 = BOX
    assert set(profile(kind, BOX, opens_right=None)) == {(z0, r0), (z1, r0), (z1, r1), (z0, r1)}
