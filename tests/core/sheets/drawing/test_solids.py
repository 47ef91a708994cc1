"""Primitives as areas: expected areas by geometry, on both sides of their axis."""

from __future__ import annotations

import math
from typing import Any

import pytest

from ironkettle.core.sheets.document.parts import PartSpec
from ironkettle.core.sheets.drawing.solids import area_of, coils, half, metal_of, passages_in, shut_in


def part(solid: Any, **more: Any) -> PartSpec:
    return PartSpec.model_validate({"key": "p", "name": "P", "solid": solid, **more})


def area(primitive: dict[str, Any], axis: float = 0.0) -> Any:
    (solid,) = part(primitive).solid
    assert solid.body is not None
    return area_of(solid.body, axis)


@pytest.mark.parametrize(
    ("primitive", "size", "bounds"),
    [
        ({"bar": {"from": 1, "to": 4, "outer": 5}}, 3 * 10, (1, -5, 4, 5)),
        ({"tube": {"from": 1, "to": 4, "inner": 2, "outer": 5}}, 2 * 3 * 3, (1, -5, 4, 5)),
        ({"plate": {"from": 1, "to": 2, "inner": 0, "outer": 5}}, 10, (1, -5, 2, 5)),
        ({"cone": {"from": 0, "to": 4, "outer": [2, 6]}}, 2 * 16, (0, -6, 4, 6)),
        ({"cone": {"from": 0, "to": 4, "outer": [2, 6], "inner": [1, 1]}}, 2 * 12, (0, -6, 4, 6)),
        ({"outline": [[0, 1], [4, 1], [4, 3]]}, 2 * 4, (0, -3, 4, 3)),
        ({"shut": {"from": 0, "to": 1, "inner": 1, "outer": 3}}, 2 * 2, (0, -3, 1, 3)),
        ({"port": {"at": 10, "radius": 2, "from": 5, "to": 9, "zone": "z"}}, 2 * 16, (8, -9, 12, 9)),
        ({"port": {"at": 10, "radius": 2, "from": 9, "to": 5, "zone": "z"}}, 2 * 16, (8, -9, 12, 9)),
        ({"passage": {"from": [0, 0], "to": [1, 1], "zone": "z"}}, 0, None),
    ],
)
def test_an_area_by_hand(primitive: dict[str, Any], size: float, bounds: tuple[float, ...] | None) -> None:
    found = area(primitive)
    assert found.area == pytest.approx(size)
    if bounds:
        assert found.bounds == pytest.approx(bounds)


def test_round_ones_are_circles() -> None:
    # 48 corners of a circle enclose 0.9971 of it.
    assert area({"ball": {"at": 5, "radius": 3}}).area == pytest.approx(math.pi * 9, rel=0.004)
    # Off the axis a ball is drawn on both sides of it, a pin once, where it is.
    assert area({"ball": {"at": [5, 10], "radius": 3}}).area == pytest.approx(2 * math.pi * 9, rel=0.004)
    assert area({"pin": {"at": [5, 10], "radius": 3}}).bounds == pytest.approx((2, 7, 8, 13))


def test_a_body_off_the_axis_has_its_own() -> None:
    assert area({"tube": {"from": 0, "to": 1, "inner": 2, "outer": 3}}, axis=10).bounds == pytest.approx((0, 7, 1, 13))
    assert area({"pin": {"at": [5, 0], "radius": 1}}, axis=10).bounds == pytest.approx((4, 9, 6, 11))
    assert half(area({"bar": {"from": 0, "to": 1, "outer": 3}}, axis=1)).bounds == pytest.approx((0, 0, 1, 4))


def test_a_spring_is_its_cut_wires_from_end_to_end() -> None:
    (solid,) = part({"spring": {"from": 0, "to": 20, "inner": 4, "outer": 8, "wire": 2}}).solid
    places = coils(solid.body)  # type: ignore[arg-type]
    # Wire of 2 on 2.6 wires' pitch in a room of 18: 3.46, so four and a half steps round to 4 coils.
    assert [r for _, r in places] == [6.0] * len(places)
    assert places[0][0] == 1.0
    assert places[-1][0] == pytest.approx(19.0)
    assert len(places) == 4
    # A spring pressed flat still has two.
    (flat,) = part({"spring": {"from": 0, "to": 2, "inner": 4, "outer": 8, "wire": 2}}).solid
    assert coils(flat.body) == [(1.0, 6.0), (1.0, 6.0)]  # type: ignore[arg-type]
    (long,) = part({"spring": {"from": 0, "to": 900, "inner": 4, "outer": 8, "wire": 0.5}}).solid
    assert len(coils(long.body)) == 12  # type: ignore[arg-type]


def test_cuts_take_away_from_their_solid_or_from_the_whole_part() -> None:
    whole = part([{"bar": {"from": 0, "to": 10, "outer": 5}}, {"bar": {"from": 20, "to": 30, "outer": 5}}])
    assert metal_of(whole, "main", "main", proof=False).area == pytest.approx(200)
    cut = [{"bar": {"from": 0, "to": 30, "outer": 1}}]
    own = part([{"bar": {"from": 0, "to": 10, "outer": 5}, "cut": cut}, {"bar": {"from": 20, "to": 30, "outer": 5}}])
    assert metal_of(own, "main", "main", proof=False).area == pytest.approx(180)
    beside = part([{"bar": {"from": 0, "to": 10, "outer": 5}}, {"bar": {"from": 20, "to": 30, "outer": 5}}], cut=cut)
    assert metal_of(beside, "main", "main", proof=False).area == pytest.approx(160)
    listed = part([{"bar": {"from": 0, "to": 10, "outer": 5}}, {"cut": cut}])
    assert metal_of(listed, "main", "main", proof=False).area == pytest.approx(80)


def test_the_proof_leaves_springs_pins_and_holes_for_pins_out() -> None:
    solid = [
        {"bar": {"from": 0, "to": 10, "outer": 5}, "cut": [{"pin": {"at": [5, 0], "radius": 1}}]},
        {"spring": {"from": 20, "to": 30, "inner": 4, "outer": 8, "wire": 2}},
        {"pin": {"at": [40, 5], "radius": 1}},
    ]
    drawn, proved = (metal_of(part(solid), "main", "main", proof=proof) for proof in (False, True))
    assert proved.area == pytest.approx(100)
    assert drawn.bounds[2] == pytest.approx(41)
    assert drawn.area > proved.area


def test_solids_belong_to_their_view() -> None:
    solid = [{"bar": {"from": 0, "to": 1, "outer": 5}}, {"bar": {"from": 0, "to": 1, "outer": 2, "view": "end"}}]
    assert metal_of(part(solid), "main", "main", proof=False).area == pytest.approx(10)
    assert metal_of(part(solid), "end", "main", proof=False).area == pytest.approx(4)


def test_ports_are_cut_from_their_part_and_shut_at_their_mouth() -> None:
    solid = [
        {"tube": {"from": 0, "to": 20, "inner": 5, "outer": 9}},
        {"port": {"at": 10, "radius": 2, "from": 4, "to": 9, "zone": "z"}},
        {"shut": {"from": 30, "to": 31, "inner": 0, "outer": 3}},
        {"passage": {"from": [1, 2], "to": [3, 4], "zone": "z"}},
    ]
    assert metal_of(part(solid), "main", "main", proof=False).area == pytest.approx(2 * (20 * 4 - 4 * 4))
    shuts = shut_in([part(solid)], "main", "main")
    assert len(shuts) == 2
    # The mouth: half a millimetre thick across the outer end, as much wider on either side, on both sides of the axis.
    mouth = min(shuts, key=lambda one: one.bounds[0])
    assert mouth.bounds == pytest.approx((7.5, -9.25, 12.5, 9.25))
    assert mouth.area == pytest.approx(2 * 5 * 0.5)
    assert shut_in([part(solid)], "end", "main") == []
    assert [(passage.start, passage.end) for passage in passages_in([part(solid)], "main", "main")] == [
        ((1, 2), (3, 4))
    ]
