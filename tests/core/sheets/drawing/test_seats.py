"""Boxes of seats from their figures, and elements laid in them; expected places by hand."""

from __future__ import annotations

from typing import Annotated, Any

import pytest
from pydantic import Field, TypeAdapter
from shapely import box

from ironkettle.core.sheets.document.places import SeatSpec
from ironkettle.core.sheets.drawing.seats import Box, Laid, box_of, closing, lay

READER: TypeAdapter[SeatSpec] = TypeAdapter(Annotated[SeatSpec, Field(discriminator="kind")])


def seat(kind: str, **figures: Any) -> SeatSpec:
    return READER.validate_python({"kind": kind, "at": 10, **figures})


def laid(one: SeatSpec, whole: Box, *, carrier_inside: bool = True) -> list[tuple[str, int, tuple[float, ...]]]:
    found: list[Laid] = lay(one, whole, carrier_inside=carrier_inside)
    return [(o.element.key, o.number, tuple(round(v, 3) for v in o.box.corners)) for o in found]


@pytest.mark.parametrize(
    ("one", "corners"),
    [
        (seat("piston", bore="50 mm", groove_diameter="44 mm", groove_width="5 mm"), (10, 22, 15, 25)),
        (seat("rod", rod="28 mm", groove_diameter="38 mm", groove_width="6 mm"), (10, 14, 16, 19)),
        (seat("box", bore="45 mm", shaft="30 mm", length="42 mm"), (10, 15, 52, 22.5)),
        (seat("press_in", bore="55 mm", shaft="45 mm", length="7 mm"), (10, 22.5, 17, 27.5)),
        (seat("clamped", inner="0 mm", outer="40 mm", thickness="2 mm"), (10, 0, 12, 20)),
        (seat("seat", inner="16 mm", outer="20 mm", thickness="4 mm", axis=30), (10, 38, 14, 40)),
        (seat("joint", inner="10 mm", outer="12 mm", thickness="9 mm"), (10, 5, 19, 6)),
    ],
)
def test_a_box_follows_from_the_figures(one: SeatSpec, corners: tuple[float, ...]) -> None:
    assert box_of(one).corners == pytest.approx(corners)


def test_a_face_groove_opens_towards_its_counterface_and_the_ring_rests_on_its_wall() -> None:
    one = seat("face", groove_diameter="38 mm", groove_width="3.6 mm", groove_depth="2.1 mm")
    right, left = box(12.1, 0, 20, 30), box(0, 0, 7.9, 30)
    assert box_of(one).corners == pytest.approx((10, 15.4, 12.1, 19))
    assert box_of(one, right).corners == pytest.approx((10, 15.4, 12.1, 19))
    assert box_of(one, left).corners == pytest.approx((7.9, 15.4, 10, 19))
    # Pressed from outside the ring rests on the inner wall.
    assert box_of(one, right, rests_inside=True).corners == pytest.approx((10, 19, 12.1, 22.6))


def test_elements_share_the_room_and_keep_their_lengths() -> None:
    one = seat(
        "piston", bore="50 mm", groove_diameter="44 mm", groove_width="6 mm",
        elements=[
            {"key": "a", "name": "a", "kind": "backup_ring", "length": "1.5 mm"},
            {"key": "b", "name": "b", "kind": "o_ring"},
            {"key": "c", "name": "c", "kind": "backup_ring", "length": "1 mm"},
        ],
    )  # fmt: skip
    assert laid(one, box_of(one)) == [
        ("a", 0, (10, 22, 11.5, 25)), ("b", 0, (11.5, 22, 15, 25)), ("c", 0, (15, 22, 16, 25)),
    ]  # fmt: skip


def test_several_alike_lie_one_after_the_other() -> None:
    one = seat(
        "box", bore="40 mm", shaft="30 mm", length="20 mm",
        elements=[{"key": "v", "name": "v", "kind": "v_packing", "count": 4}, {"key": "f", "name": "f", "kind": "follower_ring"}],
    )  # fmt: skip
    assert [(key, number, corners[0], corners[2]) for key, number, corners in laid(one, box_of(one))] == [
        ("v", 0, 10, 14), ("v", 1, 14, 18), ("v", 2, 18, 22), ("v", 3, 22, 26), ("f", 0, 26, 30),
    ]  # fmt: skip


def test_more_length_than_room_is_drawn_pressed_together() -> None:
    one = seat(
        "box", bore="40 mm", shaft="30 mm", length="10 mm",
        elements=[{"key": k, "name": k, "kind": "v_packing", "length": "8 mm"} for k in "ab"],
    )  # fmt: skip
    places = laid(one, box_of(one))
    assert [(corners[0], corners[2]) for _, _, corners in places] == [(10, 15), (15, 20)]


@pytest.mark.parametrize("order", ["energiser slide_ring", "slide_ring energiser"])
def test_an_energiser_lies_under_its_slide_ring(order: str) -> None:
    one = seat(
        "piston", bore="80 mm", groove_diameter="65 mm", groove_width="6 mm",
        elements=[{"key": kind, "name": kind, "kind": kind} for kind in order.split()],
    )  # fmt: skip
    places = {key: corners for key, _, corners in laid(one, box_of(one))}
    # On a piston the groove's bottom lies inside, in a housing outside.
    assert places["energiser"] == (10, 32.5, 16, 36.625)
    assert places["slide_ring"] == (10, 36.625, 16, 40)
    turned = {key: corners for key, _, corners in laid(one, box_of(one), carrier_inside=False)}
    assert turned["slide_ring"] == (10, 32.5, 16, 35.875)
    assert turned["energiser"] == (10, 35.875, 16, 40)


def test_in_a_face_seat_elements_lie_round_one_another() -> None:
    one = seat(
        "face", groove_diameter="38 mm", groove_width="4 mm", groove_depth="2 mm",
        elements=[{"key": "o", "name": "o", "kind": "o_ring"}, {"key": "b", "name": "b", "kind": "backup_ring", "length": "1 mm"}],
    )  # fmt: skip
    assert laid(one, box_of(one)) == [("o", 0, (10, 15, 12, 18)), ("b", 0, (10, 18, 12, 19))]


def test_what_closes_a_seat() -> None:
    bare = seat("seat", inner="10 mm", outer="12 mm", thickness="1 mm")
    whole = box_of(bare)
    assert closing(bare, whole, []) is not None
    assert closing(seat("clamped", inner="10 mm", outer="12 mm", thickness="1 mm"), whole, []) is None
    packing = seat(
        "box", bore="40 mm", shaft="30 mm", length="20 mm",
        elements=[{"key": "v", "name": "v", "kind": "v_packing"}, {"key": "l", "name": "l", "kind": "lantern_ring"}],
    )  # fmt: skip
    place = box_of(packing)
    closed = closing(packing, place, lay(packing, place, carrier_inside=False))
    assert closed is not None
    # Only the packing closes: half of 20 by 5.
    assert closed.area == pytest.approx(50)
