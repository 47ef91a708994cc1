"""The picture of a sheet: every element once, in order, inside its groove; both ways round told apart."""

from __future__ import annotations

import math
from typing import Any

import pytest
import shapely
from shapely import Polygon, box

from ironkettle.core.base.quantities import read_toleranced_length
from ironkettle.core.sheets.document.answers import answered, first_answers
from ironkettle.core.sheets.document.facts import orientation_of
from ironkettle.core.sheets.document.places import SeatKind
from ironkettle.core.sheets.document.positions import expanded
from ironkettle.core.sheets.drawing.picture import Picture, Way, picture, shapes_of
from ironkettle.core.sheets.drawing.section import view_of, views_of
from ironkettle.core.sheets.soundness.check import check_document
from ironkettle.reference import ring_table
from tests.tiny import TABLES, UNITS, plug, sheet_of, unit


def pictures(document: dict[str, Any]) -> list[Picture]:
    sheet = sheet_of(document)
    sheet = answered(sheet, first_answers(sheet, {}))
    return [picture(sheet, ring_table(), view) for view in views_of(sheet)]


@pytest.mark.parametrize("key", sorted(path.stem for path in UNITS.glob("*.yaml")))
def test_every_element_is_drawn_once_in_order_and_inside_its_seat(key: str) -> None:
    sheet = sheet_of(unit(key))
    sheet = answered(sheet, first_answers(sheet, {}))
    drawn = pictures(unit(key))
    # A further edge of an element is drawn as that element; alike ones in a row only where a packing holds them so.
    stacked = {SeatKind.BOX, SeatKind.PRESS_IN}
    wanted = [
        (e.same_as or e.key, n) for _, seat, e in sheet.elements for n in range(e.count if seat.kind in stacked else 1)
    ]
    assert sorted((e.key, e.number) for one in drawn for e in one.elements) == sorted(wanted)
    for one in drawn:
        stations = {station.key: box(*station.box).buffer(1e-6) for station in one.stations}
        for element in one.elements:
            for outline in element.outlines.values():
                assert stations[element.station].covers(Polygon(outline)), element.key
        # Along a station each lies after the one before it.
        for station in one.stations:
            starts = [e.box[0] for e in one.elements if e.station == station.key]
            assert starts == sorted(starts)


@pytest.mark.parametrize("key", sorted(path.stem for path in UNITS.glob("*.yaml")))
def test_metal_grooves_and_spaces_do_not_lie_over_each_other(key: str) -> None:
    for one in pictures(unit(key)):
        metal = shapely.union_all([Polygon(s.outer, s.holes) for part in one.parts for s in part.shapes])
        for station in one.stations:
            # A station of several seats spans metal between them; one of a single seat is cut out of it.
            if len([d for d in station.dimensions if d.word in {"groove width", "length", "thickness"}]) == 1:
                assert metal.intersection(box(*station.box)).area < 0.01, station.key
        spaces = [Polygon(s.outer, s.holes) for zone in one.zones for s in zone.shapes]
        for place, space in enumerate(spaces):
            assert all(space.intersection(other).area < 0.01 for other in spaces[place + 1 :])
            # Springs and pins are drawn in the spaces they stand in.
            solid = [
                part
                for part in one.parts
                if "spring" not in part.key and part.key not in {"wire", "pin", "set-screw", "balls"}
            ]
            for part in solid:
                for shape in part.shapes:
                    assert Polygon(shape.outer, shape.holes).buffer(-0.03).intersection(space).area < 0.05, part.key


def test_a_directed_element_has_an_outline_for_either_way_and_they_differ() -> None:
    one = pictures(unit("swing-bridge-ram"))[0]
    lip = next(element for element in one.elements if element.key == "rod-lip")
    assert lip.faces == "rod_side"
    assert set(lip.outlines) == {"rod_side", "outside"}
    right, wrong = lip.outlines["rod_side"], lip.outlines["outside"]
    middle = (lip.box[0] + lip.box[2]) / 2
    assert sorted(round(2 * middle - z, 6) for z, _ in right) == sorted(round(z, 6) for z, _ in wrong)
    # The rod side lies at smaller z: the open lips lie there, more of the seal at the other end.
    assert Polygon(right).centroid.x > middle
    assert Polygon(wrong).centroid.x < middle
    band = next(element for element in one.elements if element.key == "rod-band")
    assert list(band.outlines) == ["-"]


def test_zones_are_tinted_by_their_share_of_the_highest_pressure() -> None:
    one = pictures(unit("dosing-check-valve"))[0]
    assert {zone.key: round(zone.share, 3) for zone in one.zones} == {
        "inlet": 1.0,
        "outlet": round(5 / 6, 3),
        "outside": 0.0,
    }
    assert all(zone.shapes for zone in one.zones)


def test_a_station_carries_what_the_caliper_will_meet() -> None:
    one = pictures(plug())[0]
    (station,) = one.stations
    figures = {d.word: (d.text, d.start, d.end) for d in station.dimensions}
    assert set(figures) == {"bore ⌀", "groove width", "groove ⌀"}
    assert figures["groove width"] == ("3.4 mm +0.2/-0", (25.0, 10.0), pytest.approx((28.4, 10.0)))
    # Diameters go across the axis.
    assert figures["bore ⌀"][1:] == ((25.0, -10.0), (25.0, 10.0))
    assert figures["groove ⌀"][2] == pytest.approx((25.0, 7.95))


def test_the_ring_in_the_picture_keeps_its_area() -> None:
    one = pictures(plug())[0]
    (ring,) = one.elements
    # 2.5 mm of section: 4.91 mm², in a groove 2.05 deep 3.05 wide; 28 points of an ellipse hold 0.992 of it.
    assert Polygon(ring.outlines["-"]).area == pytest.approx(4.909 * 0.9916, rel=0.01)
    assert one.extent == pytest.approx((0, 0, 60, 20))


@pytest.mark.parametrize("key", sorted(path.stem for path in UNITS.glob("*.yaml")))
def test_a_dimension_lies_between_places_as_far_apart_as_it_says(key: str) -> None:
    """The drawing is to scale: what is written at two places is what lies between them."""
    for one in pictures(unit(key)):
        for station in one.stations:
            for told in station.dimensions:
                along, across = told.end[0] - told.start[0], told.end[1] - told.start[1]
                length = {Way.ALONG: along, Way.ACROSS: across, Way.RADIAL: across}[told.way]
                nominal = read_toleranced_length(told.text, "figure", low=-1e-9).nominal
                assert length == pytest.approx(nominal, abs=0.01), (station.key, told.word)


def test_a_diameter_that_several_grooves_share_is_told_once() -> None:
    piston = next(station for station in pictures(unit("swing-bridge-ram"))[0].stations if station.key == "piston-bore")
    words = [told.word for told in piston.dimensions]
    # Two lip seals and a wear band in one bore: three widths, one bore, and the two depths of their grooves.
    assert (words.count("groove width"), words.count("bore ⌀"), words.count("groove ⌀")) == (3, 1, 2)


def test_a_groove_in_a_face_is_wide_across_the_axis_and_its_ring_rests_on_the_wall_away_from_pressure() -> None:
    document = unit("dosing-check-valve")
    station = next(one for one in pictures(document)[0].stations if one.key == document["stations"][0]["key"])
    figures = {told.word: told for told in station.dimensions}
    assert figures["groove width"].way is Way.RADIAL
    # Pressed from inside: the ring rests on the outer wall.
    assert figures["groove ⌀"].end[1] == pytest.approx(station.box[3])


def test_a_face_seal_with_a_direction_is_turned_a_quarter() -> None:
    document = unit("dosing-check-valve")
    document["stations"][0]["seats"][0]["elements"] = [
        {"key": "body-ring-in", "name": "lip", "kind": "lip_seal", "lubricant": "water"},
    ]  # fmt: skip
    one = pictures(document)[0]
    lip = next(element for element in one.elements if element.key == "body-ring-in")
    # Inside presses: the open lips lie at the smaller radius, more of the seal further out.
    assert lip.faces == "inlet"
    assert Polygon(lip.outlines["inlet"]).centroid.y > (lip.box[1] + lip.box[3]) / 2


def test_crumbs_are_left_out_and_holes_kept() -> None:
    plate = box(0, 0, 10, 10).difference(box(4, 4, 6, 6))
    shapes = shapes_of(shapely.union(plate, box(20, 0, 20.1, 0.1)))
    assert len(shapes) == 1
    assert len(shapes[0].holes) == 1
    assert Polygon(shapes[0].outer, shapes[0].holes).area == pytest.approx(96)


def test_orientation_comes_from_the_sheet() -> None:
    assert orientation_of(sheet_of(unit("swing-bridge-ram"))).facing("rod-wiper-ring") == "outside"


def test_a_ring_in_a_face_groove_is_squeezed_along_the_axis() -> None:
    one = pictures(unit("dosing-check-valve"))[0]
    ring = next(element for element in one.elements if element.key == "body-ring-in")
    outline = Polygon(ring.outlines["-"])
    z0, r0, z1, r1 = outline.bounds
    # From floor to counterface: 2.1 mm; across, what keeps the area of 2.5 mm of section: 2.5²/2.1 = 2.98 mm.
    assert z1 - z0 == pytest.approx(2.1)
    assert r1 - r0 == pytest.approx(2.5**2 / 2.1, rel=0.01)


def test_a_lip_or_edge_of_a_piston_runs_on_what_lies_round_it() -> None:
    one = pictures(unit("rotary-jetting-head"))[0]
    elements = {element.key: element for element in one.elements}
    # The thin edge of the weep seal lies at the body's bore, the lips of the shaft seals on the shaft.
    weep, lip = elements["weep-seal"], elements["upper-lip"]
    edge = min(weep.outlines["outside"], key=lambda point: point[0])
    assert edge[1] == pytest.approx(weep.box[3], abs=0.5)
    runs = [r for _, r in lip.outlines["bath"]]
    assert min(runs) == pytest.approx(lip.box[1], abs=1e-6)
    assert sum(r < lip.box[1] + 1 for r in runs) < sum(r > lip.box[3] - 2 for r in runs)


def test_a_ball_on_the_axis_is_one_ball() -> None:
    foot = next(one for one in pictures(unit("air-pump-liquid-end")) if one.view == "foot")
    ball = next(element for element in foot.elements if element.key == "ball")
    for outline in ball.outlines.values():
        # Half of a circle of 14 mm, its middle on the axis.
        assert Polygon(outline).area == pytest.approx(math.pi / 8 * 14 * 14, rel=0.01)
        assert min(r for _, r in outline) == pytest.approx(0.0, abs=1e-9)
        # It is widest on the axis.
        on_axis = [z for z, r in outline if abs(r) < 1e-9]
        assert (min(on_axis), max(on_axis)) == (pytest.approx(ball.box[0]), pytest.approx(ball.box[2]))


def test_what_is_turned_carries_what_it_sets_and_lies_in_its_view() -> None:
    """CASES: the injector's pressure screw sets the opening pressure; the orifice lies in the second view of its sheet."""
    drawn = picture(sheet_of(unit("fuel-injector")), ring_table())
    captions = {part.key: part.caption for part in drawn.parts if part.caption}
    assert captions == {"pressure-screw": "Pressure screw: opening pressure"}
    regulator = sheet_of(unit("escape-set-regulator"))
    assert view_of(regulator, "orifice") == "valve"
    assert view_of(regulator, "orifice-seal") == "valve"
    assert view_of(regulator, "case") == "main"
    # Neither a part without a solid nor anything in a sheet of one view takes the drawing elsewhere.
    assert view_of(regulator, "lever") is None
    assert view_of(regulator, None) is None
    assert view_of(sheet_of(unit("fuel-injector")), "pressure-screw") is None


def test_an_adjuster_is_a_part_of_its_sheet() -> None:
    document = unit("fuel-injector")
    document["settings"][0]["adjuster"]["part"] = "screw"
    (found,) = check_document(document, TABLES).faults
    assert found.field == "settings.0.adjuster.part"
    assert "“screw” is not a part of this sheet" in found.message


def test_of_several_alike_each_says_which_it_is() -> None:
    sheet = expanded(answered(sheet_of(unit("jetting-pump-box")), {"lantern": "loose", "nut-thread": "coarse"}))
    drawn = picture(sheet, ring_table())
    assert {(station.key, station.position) for station in drawn.stations if station.key.startswith("nut-wiper")} == {
        (f"nut-wiper@{one}", one) for one in ("1", "2", "3")
    }
    once = picture(sheet_of(unit("fuel-injector")), ring_table())
    assert {one.position for one in (*once.stations, *once.parts)} == {None}
