"""The zones of a sheet are found from its solids and seats, and its geometry is proved; hand-made cases of what is wrong."""

from __future__ import annotations

import copy
from typing import Any

import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st
from shapely import Point, box

from ironkettle.core.sheets.document.answers import answered, first_answers
from ironkettle.core.sheets.drawing.proof import prove
from ironkettle.core.sheets.drawing.section import section, views_of
from ironkettle.core.sheets.drawing.zones import narrowest, spaces_of
from tests.laws import tried
from tests.tiny import UNITS, plug, sheet_of, told, unit


def spaces(document: dict[str, Any], view: str | None = None) -> Any:
    sheet = sheet_of(document)
    sheet = answered(sheet, first_answers(sheet, {}))
    views = views_of(sheet)
    drawn = section(sheet, view or views[0])
    return spaces_of(sheet, drawn, views[0]), drawn


def test_the_spaces_are_what_metal_and_rings_leave_open() -> None:
    found, _ = spaces(plug())
    assert found.faults == []
    oil, air = found.zones["oil"], found.zones["air"]
    # The bore before the plug is oil, the mouth behind the ring is air, down to the clearance on either side of it.
    assert oil.covers(Point(8, 5))
    assert oil.covers(Point(20, 9.975))
    assert air.covers(Point(55, 15))
    assert air.covers(Point(40, 9.975))
    assert not oil.intersects(air)
    # The ring's groove from 25 to 28.4 is closed by a twentieth more at each end.
    assert oil.bounds[2] == pytest.approx(24.95, abs=0.01)
    assert air.intersection(box(20, 9.96, 35, 9.99)).bounds[0] == pytest.approx(28.45, abs=0.01)


def test_two_zones_that_meet_are_told_with_the_narrowest_place() -> None:
    # A hole of 0.6 mm through the wall of the body, at z 8, from the bore to the outside.
    body = copy.deepcopy(plug()["parts"][0]["solid"])
    body[1]["cut"] = [{"plate": {"from": 7.7, "to": 8.3, "inner": 9, "outer": 21}}]
    found = told(parts__0__solid=body)
    message = next(iter(found.values()))
    assert "open air meets oil side" in message or "oil side meets open air" in message
    # 0.6 mm, and the metal on either side smaller by 0.02 mm.
    assert "0.64 mm" in message
    assert "near z 8.0" in message
    assert "Body" in message


def test_a_ring_that_does_not_reach_its_bore_leaks() -> None:
    # Drawn with a bore of 10.4 mm radius, the seat says 10: the picture may not disagree with the sums.
    body = copy.deepcopy(plug()["parts"][0]["solid"])
    body[1]["tube"]["inner"] = 10.4
    assert any("meets" in message and "near z" in message for message in told(parts__0__solid=body).values())


def test_a_seed_in_metal_and_seeds_in_one_space_are_told() -> None:
    assert "lies in metal" in told(zones__0__seeds=[{"at": [30, 15]}])["zones.0.seeds.0"]
    assert "lies in metal or in a seal" in told(zones__0__seeds=[{"at": [26, 9]}])["zones.0.seeds.0"]
    drain = {"key": "drain", "name": "drain", "kind": "drain", "seeds": [{"at": [9, 2]}]}
    assert "drain meets oil side" in told(zones__append=drain)["zones.2.seeds.0"]
    assert (
        "has no place in the drawing"
        in told(zones__append={"key": "d", "name": "drain", "kind": "drain"})["zones.2.seed"]
    )
    assert told(zones__0__seeds=None, zones__0__seed=[8, 5]) == {}


def test_an_open_space_without_a_name_is_told_when_it_is_wide() -> None:
    def with_hole(radius: float) -> dict[str, str]:
        solid = {
            "bar": {"from": 12, "to": 60, "outer": 9.95},
            "cut": [{"tube": {"from": 40, "to": 44, "inner": 2, "outer": 2 + radius}}],
        }
        return told(parts__1__solid=solid)

    assert "belongs to no zone" in with_hole(1.0)["zones"]
    # 0.2 mm and the 0.04 the metal is smaller by: no wider than 0.3.
    assert with_hole(0.2) == {}
    assert "belongs to no zone" in with_hole(0.35)["zones"]


def test_a_station_that_parts_nothing_is_refused() -> None:
    # A wall behind the groove: with the ring out the two zones are still apart.
    body = [*plug()["parts"][0]["solid"], {"plate": {"from": 32, "to": 34, "inner": 9.5, "outer": 12}}]
    found = told(parts__0__solid=body)
    assert "does not part oil side from open air" in found["stations.0.between"]


def test_a_station_listed_the_wrong_way_round_is_told() -> None:
    found = told(stations__0__between=["air", "oil"])
    assert "oil side lies at the smaller z; list it first" in found["stations.0.between"]


def test_a_groove_outside_its_part_is_told() -> None:
    found = told(stations__0__seats__0__at=70)
    assert "outside Plug" in found["stations.0.seats.0.at"]


def test_bands_wipers_and_guides_do_not_seal_and_are_not_tried() -> None:
    band = [{"key": "ring", "name": "band", "kind": "wear_band"}]
    assert any("meets" in message for message in told(stations__0__seats__0__elements=band).values())
    # Beside a ring in a groove of its own a band is no fault.
    second = copy.deepcopy(plug()["stations"][0]["seats"][0]) | {"at": 35, "elements": [band[0] | {"key": "band"}]}
    assert told(stations__0__seats__append=second) == {}
    assert told(stations__0__seats__0__elements=[{"key": "ring", "name": "w", "kind": "wiper", "seals": True}]) == {}


def test_a_part_may_be_shut_where_a_neighbour_would_be() -> None:
    solid = [{"tube": {"from": 4, "to": 50, "inner": 10, "outer": 20}}]
    assert any("meets" in message for message in told(parts__0__solid=solid).values())
    shut = [*solid, {"shut": {"from": 3, "to": 4.1, "inner": 0, "outer": 20}}]
    assert told(parts__0__solid=shut) == {}


def test_a_passage_joins_what_the_plane_does_not_show() -> None:
    split = [*plug()["parts"][0]["solid"], {"plate": {"from": 9, "to": 10, "inner": 0, "outer": 11}}]
    assert "belongs to no zone" in told(parts__0__solid=split)["zones"]
    joined = [*split, {"passage": {"from": [7, 5], "to": [11, 5], "zone": "oil"}}]
    assert told(parts__0__solid=joined) == {}


def test_a_port_opens_its_own_part_and_is_shut_at_its_mouth() -> None:
    port = {"port": {"at": 8, "radius": 2, "from": 9, "to": 20, "zone": "oil"}}
    found, _ = spaces(plug(parts__0__solid=[*plug()["parts"][0]["solid"], port]))
    assert found.faults == []
    assert found.zones["oil"].covers(Point(8, 19))
    assert not found.zones["air"].covers(Point(8, 19))


def test_every_combination_of_answers_that_changes_the_drawing_is_proved() -> None:
    question = {"key": "kind", "ask": "Which?", "choices": [{"key": "a", "says": "ring"}, {"key": "b", "says": "none"}]}
    changes: dict[str, Any] = {"questions": [question], "stations__0__seats__0__elements__0__only": {"kind": ["a"]}}
    other = {"key": "cord", "name": "cord", "kind": "o_ring", "only": {"kind": ["b"]}}
    document = plug(**changes)
    document["stations"][0]["seats"][0]["elements"].append(other)
    assert prove(sheet_of(document)).faults == []
    # Without the cord there is nothing for the second answer.
    missing = prove(sheet_of(plug(**changes))).faults
    assert any("kind: b" in fault.message for fault in missing)


def test_more_combinations_than_can_be_proved_are_a_fault() -> None:
    questions = [
        {"key": f"q{n}", "ask": "Which?", "choices": [{"key": "a", "says": "a"}, {"key": "b", "says": "b"}]}
        for n in range(7)
    ]
    parts = [{"key": f"p{n}", "name": "P", "only": {f"q{n}": ["a"]}} for n in range(7)]
    document = plug(questions=questions)
    document["parts"] += parts
    faults = prove(sheet_of(document)).faults
    assert [fault.field for fault in faults] == ["questions"]
    assert "128 combinations" in faults[0].message


@given(at=st.floats(14, 44), width=st.floats(2.5, 6), clearance=st.floats(0.03, 0.4))
@tried(25)
def test_taking_the_ring_out_joins_its_zones_wherever_it_lies(at: float, width: float, clearance: float) -> None:
    document = plug(
        stations__0__seats__0__at=at,
        stations__0__seats__0__groove_width=f"{width:.3f} mm",
        parts__1__solid={"bar": {"from": 12, "to": 60, "outer": 10 - clearance}},
    )
    proof = prove(sheet_of(document))
    assert proof.faults == []
    assert proof.parting == {"ring-place": True}


@given(shift=st.floats(-200, 200))
@tried(15)
def test_a_unit_moved_along_its_axis_has_the_same_zones(shift: float) -> None:
    def moved(value: Any, key: str = "") -> Any:
        if isinstance(value, dict):
            return {name: moved(one, name) for name, one in value.items()}
        if key == "at" and isinstance(value, list):
            return [value[0] + shift, value[1]]
        if isinstance(value, list):
            return [moved(one, key) for one in value]
        return value + shift if key in {"from", "to", "at"} and isinstance(value, int | float) else value

    document = plug()
    for name in ("zones", "parts", "stations"):
        document[name] = moved(document[name])
    here, there = prove(sheet_of(plug())), prove(sheet_of(document))
    assert there.faults == []
    assert there.area == pytest.approx(here.area, rel=1e-3)


def mirrored(document: dict[str, Any]) -> dict[str, Any]:
    """The plug seen from its other end: z turned round, zones of stations in the other order."""
    turned = copy.deepcopy(document)
    for part in turned["parts"]:
        solids = part["solid"] if isinstance(part["solid"], list) else [part["solid"]]
        for solid in solids:
            for shape in solid.values():
                shape["from"], shape["to"] = -shape["to"], -shape["from"]
    for zone in turned["zones"]:
        for seed in zone.get("seeds", []):
            seed["at"][0] *= -1
    for station in turned["stations"]:
        station["between"].reverse()
        for seat in station["seats"]:
            seat["at"] = -seat["at"] - 3.4
    return turned


def test_mirrored_the_zones_are_the_same() -> None:
    proof = prove(sheet_of(mirrored(plug())))
    assert proof.faults == []
    assert proof.area == pytest.approx(prove(sheet_of(plug())).area)


@pytest.mark.parametrize("path", sorted(UNITS.glob("*.yaml")), ids=lambda path: path.stem)
def test_any_station_of_a_demo_unit_taken_out_joins_its_zones(path: Any) -> None:
    """The law of the proof, read off the pieces themselves."""
    sheet = sheet_of(unit(path.stem))
    sheet = answered(sheet, first_answers(sheet, {}))
    tried = 0
    for view in views_of(sheet):
        drawn = section(sheet, view)
        found = spaces_of(sheet, drawn, views_of(sheet)[0])
        for station in sheet.stations:
            seats = [seat for seat in drawn.seats if seat.station.key == station.key and seat.closed is not None]
            if not seats:
                continue
            first, second = (found.zones[key] for key in station.between)
            opened = shapely.union_all(drawn.free(without=station.key))
            pieces = shapely.get_parts(opened)
            assert any(p.intersects(first) and p.intersects(second) for p in pieces), station.key
            tried += 1
    assert tried >= min(2, len(sheet.stations))


def test_the_narrowest_place_of_two_rooms_with_a_door() -> None:
    # Two rooms of 10 by 10 joined by a corridor 1 mm wide and 4 mm long.
    rooms = shapely.union_all([box(0, 0, 10, 10), box(14, 0, 24, 10), box(10, 4.5, 14, 5.5)])
    width, (z, r) = narrowest(rooms, (5, 5), (19, 5))
    assert width == pytest.approx(1.0, abs=0.02)
    assert (z, r) == (pytest.approx(12, abs=0.3), pytest.approx(5, abs=0.1))
    # Only the piece between counts: a narrower blind alley elsewhere does not.
    alley = shapely.union(rooms, box(2, 10, 2.3, 14))
    assert narrowest(alley, (5, 5), (19, 5))[0] == pytest.approx(1.0, abs=0.02)
    # No neck parts two points of one room.
    assert narrowest(box(0, 0, 10, 10), (2, 2), (7, 7))[0] == 0.0


def test_a_drawing_too_fine_to_be_proved_is_refused_before_it_is_tried() -> None:
    fine = [[float(n % 50), float(n // 50)] for n in range(400)]
    document = plug()
    document["parts"] += [{"key": f"p{n}", "name": "P", "solid": [{"outline": fine}]} for n in range(110)]
    (fault,) = prove(sheet_of(document)).faults
    assert fault.field == "parts"
    # 110 of 400 corners, and 12 for each of the plug's three primitives.
    assert "44036 corners in 1 combinations" in fault.message


def test_a_vacuum_is_a_zone_below_zero() -> None:
    assert told(zones__0__kind="vacuum", zones__0__pressure="-0.8 bar") == {}
    assert "zones.0.pressure" in told(zones__0__kind="vacuum", zones__0__pressure="-1.2 bar")


def test_of_two_open_airs_neither_is_supposed_where_seeds_say() -> None:
    tank = {"key": "tank", "name": "tank", "kind": "atmosphere", "seeds": [{"at": [8, 5]}]}
    document = plug(zones__0=tank, stations__0__between=["tank", "air"], steps__0__relieves=["tank"])
    # Without a seed of its own the open air round the unit belongs to nobody.
    faults = prove(sheet_of(document)).faults
    assert any("belongs to no zone" in fault.message for fault in faults)
    document["zones"][1]["seeds"] = [{"at": [-3, 30]}]
    assert prove(sheet_of(document)).faults == []


def test_a_station_with_a_band_beside_its_ring_is_tried_all_the_same() -> None:
    body = [*plug()["parts"][0]["solid"], {"plate": {"from": 44, "to": 46, "inner": 9.5, "outer": 12}}]
    band = copy.deepcopy(plug()["stations"][0]["seats"][0]) | {
        "at": 35,
        "elements": [{"key": "band", "name": "band", "kind": "wear_band"}],
    }
    found = told(parts__0__solid=body, stations__0__seats__append=band)
    assert "does not part" in found["stations.0.between"]


def test_a_seed_is_told_where_it_is_written() -> None:
    both = told(zones__0__seed=[8, 5], zones__0__seeds=[{"at": [30, 15]}])
    assert list(both) == ["zones.0.seeds.1"]
    assert list(told(zones__0__seeds=None, zones__0__seed=[30, 15])) == ["zones.0.seed"]
