"""Which way each kind of element faces, and that it does not depend on how the station is written down."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.base.errors import RuleError
from ironkettle.core.sealing.catalogue import ElementKind
from ironkettle.core.sealing.facing import Element, Station, Zone, ZoneKind, orient

OIL = Zone("oil", ZoneKind.PRESSURE, 18.0)
OTHER = Zone("other", ZoneKind.PRESSURE, 6.0)
AIR = Zone("air", ZoneKind.ATMOSPHERE)


def faces(zones: tuple[Zone, Zone], kinds: list[ElementKind]) -> list[str | None]:
    station = Station("s", (zones[0].key, zones[1].key), tuple(Element(f"e{i}", k) for i, k in enumerate(kinds)))
    return [element.faces for element in orient(zones, (station,), {}).stations[0].elements]


@pytest.mark.parametrize(
    ("kind", "against_air", "between_two"),
    [
        (ElementKind.LIP_SEAL, "oil", "oil"),
        (ElementKind.CUP_SEAL, "oil", "oil"),
        (ElementKind.V_PACKING, "oil", "oil"),
        (ElementKind.WIPER, "air", "other"),
        (ElementKind.METAL_CLAD_WIPER, "air", "other"),
        (ElementKind.SHAFT_SEAL, "oil", "oil"),
        (ElementKind.SLIDE_RING, "oil", None),
        (ElementKind.O_RING, None, None),
        (ElementKind.WEAR_BAND, None, None),
    ],
)
def test_one_element_alone(kind: ElementKind, against_air: str, between_two: str | None) -> None:
    assert faces((OIL, AIR), [kind]) == [against_air]
    assert faces((OIL, OTHER), [kind]) == [between_two]


def test_stacks_that_depend_on_their_partners() -> None:
    lip, ring, backup = ElementKind.LIP_SEAL, ElementKind.O_RING, ElementKind.CONTOURED_BACKUP
    # A double-acting piston: one lip each way.
    assert faces((OIL, OTHER), [lip, lip]) == ["oil", "other"]
    # The hollow hugs its ring, on whichever side that lies.
    assert faces((OIL, AIR), [ring, backup]) == [None, "oil"]
    assert faces((OIL, OTHER), [backup, ring, backup]) == ["other", None, "oil"]
    # Head and follower rings turn their flat faces away from the packing.
    header, packing, follower = ElementKind.HEADER_RING, ElementKind.V_PACKING, ElementKind.FOLLOWER_RING
    assert faces((OIL, AIR), [header, packing, packing, follower]) == ["oil", "oil", "oil", "air"]


LEVEL = Zone("level", ZoneKind.PRESSURE, 18.0)


@given(
    kinds=st.lists(st.sampled_from(list(ElementKind)), min_size=1, max_size=7),
    zones=st.sampled_from([(OIL, OTHER), (OIL, AIR), (OIL, LEVEL), (AIR, Zone("vacuum", ZoneKind.VACUUM))]),
)
def test_a_station_listed_from_its_other_end_faces_the_same(kinds: list[ElementKind], zones: tuple[Zone, Zone]) -> None:
    """The same metal from the other zone: every element faces the same space, and the same is found."""
    elements = tuple(Element(f"e{i}", kind) for i, kind in enumerate(kinds))
    one = orient(zones, (Station("s", (zones[0].key, zones[1].key), elements),), {})
    other = orient(zones, (Station("s", (zones[1].key, zones[0].key), elements[::-1]),), {})
    assert [e.faces for e in one.stations[0].elements] == [e.faces for e in other.stations[0].elements][::-1]
    assert {(f.code, f.message) for f in one.findings} == {(f.code, f.message) for f in other.findings}


def found(zones: tuple[Zone, Zone], kinds: list[ElementKind]) -> list[tuple[str, str]]:
    elements = tuple(Element(f"e{i}", k) for i, k in enumerate(kinds))
    station = Station("s", (zones[0].key, zones[1].key), elements, entered_from=zones[0].key)
    return [(finding.code, finding.severity) for finding in orient(zones, (station,), {}).findings]


def test_a_single_lip_between_two_pressures_leaves_one_unheld() -> None:
    lip = ElementKind.LIP_SEAL
    assert found((OIL, OTHER), [lip]) == [("one-way-seal", "caution")]
    assert found((OIL, OTHER), [ElementKind.CUP_SEAL, ElementKind.WEAR_BAND]) == [("one-way-seal", "caution")]
    # Against the air there is nothing to hold from there; a slide ring holds both ways.
    assert found((OIL, AIR), [lip]) == []
    assert found((OIL, OTHER), [lip, ElementKind.SLIDE_RING]) == []
    # Where both are alike, nobody can know which way it goes.
    assert found((OIL, LEVEL), [lip]) == [("way-unknown", "caution")]
    assert faces((OIL, LEVEL), [lip]) == [None]


def test_two_kinds_of_lip_hold_one_side_each() -> None:
    lip, cup, packing = ElementKind.LIP_SEAL, ElementKind.CUP_SEAL, ElementKind.V_PACKING
    assert faces((OIL, OTHER), [lip, cup]) == ["oil", "other"]
    assert faces((OTHER, OIL), [lip, cup]) == ["other", "oil"]
    # That is a supposition, and said so; two of a kind are the double-acting piston.
    assert found((OIL, OTHER), [lip, cup]) == [("way-supposed", "caution")]
    assert found((OIL, OTHER), [lip, cup, cup, lip]) == [("way-supposed", "caution")]
    assert found((OIL, OTHER), [lip, lip, lip]) == [("way-supposed", "caution")]
    assert found((OIL, OTHER), [lip, lip]) == []
    assert found((OIL, AIR), [lip, cup]) == []
    # Three: the one in the middle backs up the harder pressed.
    assert faces((OIL, OTHER), [lip, cup, lip]) == ["oil", "oil", "other"]
    assert faces((OTHER, OIL), [lip, cup, lip]) == ["other", "oil", "oil"]
    assert faces((OIL, LEVEL), [lip, cup, lip]) == ["oil", None, "level"]
    # V-rings side by side are one set, and a set alone leaves one side unheld.
    assert faces((OIL, OTHER), [packing, packing, packing]) == ["oil"] * 3
    assert found((OIL, OTHER), [packing, packing, packing]) == [("one-way-seal", "caution")]
    assert faces((OIL, OTHER), [packing, packing, ElementKind.LANTERN_RING, packing]) == ["oil", "oil", None, "other"]


def test_what_depends_on_zones_that_do_not_tell_is_left_open() -> None:
    wiper, seal = ElementKind.WIPER, ElementKind.SHAFT_SEAL
    assert faces((OIL, LEVEL), [wiper, seal]) == [None, None]
    assert found((OIL, LEVEL), [wiper, seal]) == [("way-unknown", "caution")] * 2
    # A drain is no open air, but pushes harder than it.
    drain = Zone("drain", ZoneKind.DRAIN)
    assert faces((drain, AIR), [wiper, seal]) == ["air", "drain"]
    assert faces((drain, OIL), [wiper, seal]) == ["drain", "oil"]
    assert faces((Zone("vacuum", ZoneKind.VACUUM), AIR), [ElementKind.LIP_SEAL]) == ["air"]


def test_a_hollow_backup_between_two_rings_lies_on_the_low_side_of_one() -> None:
    ring, backup = ElementKind.O_RING, ElementKind.CONTOURED_BACKUP
    assert faces((OIL, AIR), [ring, backup, ring]) == [None, "oil", None]
    assert faces((AIR, OIL), [ring, backup, ring]) == [None, "oil", None]
    assert found((OIL, LEVEL), [ring, backup, ring]) == [("way-unknown", "caution")]


def test_the_nearest_ring_counts() -> None:
    ring, band, backup = ElementKind.O_RING, ElementKind.WEAR_BAND, ElementKind.CONTOURED_BACKUP
    # One place to the right, three to the left: it hugs the right one.
    assert faces((OIL, OTHER), [ring, band, band, backup, ring])[3] == "other"
    assert faces((OIL, OTHER), [ring, backup, band, band, ring])[1] == "oil"


def test_dirt_comes_from_the_air_and_not_from_a_vacuum() -> None:
    vacuum = Zone("vacuum", ZoneKind.VACUUM)
    assert faces((vacuum, AIR), [ElementKind.WIPER, ElementKind.SHAFT_SEAL]) == ["air", "air"]
    assert faces((AIR, Zone("out", ZoneKind.ATMOSPHERE)), [ElementKind.WIPER]) == [None]


def test_backups_lie_away_from_the_pressure() -> None:
    ring, backup = ElementKind.O_RING, ElementKind.BACKUP_RING
    assert found((OIL, AIR), [ring, backup]) == []
    assert found((OIL, AIR), [backup, ring]) == [("backup-high-side", "reject")]
    assert found((AIR, OIL), [ring, backup]) == [("backup-high-side", "reject")]
    assert found((OIL, OTHER), [ring, backup]) == [("backup-one-side", "caution")]
    assert found((OIL, OTHER), [backup, ring]) == [("backup-one-side", "caution")]
    assert found((OIL, OTHER), [backup, ring, backup]) == []
    assert found((OIL, OTHER), [backup]) == []


@given(kinds=st.lists(st.sampled_from(list(ElementKind)), min_size=1, max_size=6))
def test_every_element_gets_an_instruction_and_faces_a_space_beside_it(kinds: list[ElementKind]) -> None:
    station = Station("s", ("oil", "air"), tuple(Element(f"e{i}", k) for i, k in enumerate(kinds)))
    for element in orient((OIL, AIR), (station,), {}).stations[0].elements:
        assert element.faces in {None, "oil", "air"}
        assert element.instruction


def one_of(finding_code: str, zones: tuple[Zone, Zone], *elements: Element, entered: str | None = None) -> str:
    station = Station("s", (zones[0].key, zones[1].key), elements, entered_from=entered or zones[0].key)
    return next(f.message for f in orient(zones, (station,), {}).findings if f.code == finding_code)


def test_a_shaft_seal_faces_what_pushes_harder() -> None:
    # Sealing a vacuum its lip is pressed by the air; sealing oil, by the oil.
    assert faces((Zone("vacuum", ZoneKind.VACUUM), AIR), [ElementKind.SHAFT_SEAL]) == ["air"]
    assert faces((OIL, AIR), [ElementKind.SHAFT_SEAL]) == ["oil"]


def test_two_bevelled_slide_rings_hold_one_side_each() -> None:
    slide = ElementKind.SLIDE_RING
    assert faces((OIL, OTHER), [slide, slide]) == ["oil", "other"]
    assert faces((OTHER, OIL), [slide, ElementKind.WEAR_BAND, slide]) == ["other", None, "oil"]
    assert faces((OIL, AIR), [slide, slide]) == ["oil", "oil"]


def test_leaves_are_pressed_onto_their_seat_and_balls_have_no_side() -> None:
    assert faces((OIL, OTHER), [ElementKind.VALVE_LEAF]) == ["other"]
    assert faces((AIR, OIL), [ElementKind.VALVE_LEAF]) == ["air"]
    assert faces((OIL, LEVEL), [ElementKind.VALVE_LEAF]) == [None]
    assert faces((OIL, OTHER), [ElementKind.CHECK_BALL]) == [None]


def test_what_is_told_by_its_marks_has_no_side_to_look_at() -> None:
    plate = Element("x", ElementKind.VALVE_LEAF, "the plate", as_marked="TOP up")
    (oriented,) = orient((OIL, AIR), (Station("s", ("oil", "air"), (plate,)),)).stations[0].elements
    assert (oriented.faces, oriented.instruction, oriented.reason) == (None, "TOP up", "TOP up")


def test_a_given_facing_outranks_the_rule_and_the_difference_is_told() -> None:
    # A packing of four with the top one the other way round, as the maker has it.
    packing = [Element(f"p{i}", ElementKind.V_PACKING) for i in range(3)]
    top = Element("top", ElementKind.V_PACKING, "top ring", faces="air", word="painted face", why="it caps the set")
    station = Station("box", ("oil", "air"), (*packing, top), entered_from="air")
    answer = orient((OIL, AIR), (station,), {"top": "oil"})
    assert [element.faces for element in answer.stations[0].elements] == ["oil", "oil", "oil", "air"]
    assert answer.stations[0].elements[3].instruction == "painted face towards air"
    messages = {f.code: f.message for f in answer.findings}
    assert "it caps the set; by the rule it would be oil" in messages["way-differs"]
    assert "painted face towards oil, must be towards air" in messages["reversed"]
    # What has no direction of its own takes the sheet's, and then it can be found the wrong way.
    washer = Element("w", ElementKind.CONED_WASHER, "coned washer", faces="air")
    one = Station("nut", ("oil", "air"), (washer,))
    assert [f.code for f in orient((OIL, AIR), (one,), {"w": "oil"}).findings] == ["reversed"]
    assert orient((OIL, AIR), (one,), {"w": "air"}).findings == ()


def test_a_given_facing_must_be_a_zone_beside_the_station() -> None:
    station = Station("s", ("oil", "air"), (Element("a", ElementKind.GASKET, faces="moon"),))
    with pytest.raises(RuleError, match=r"elements\.0\.faces: “moon” is not one of"):
        orient((OIL, AIR), (station,), {})


def test_support_at_the_wrong_side_of_any_seal_is_told() -> None:
    lip, backup, vee = ElementKind.LIP_SEAL, ElementKind.BACKUP_RING, ElementKind.V_PACKING
    header, follower = ElementKind.HEADER_RING, ElementKind.FOLLOWER_RING
    assert found((OIL, AIR), [lip, backup]) == []
    assert found((OIL, AIR), [backup, lip]) == [("backup-high-side", "reject")]
    # On a double-acting piston the backups lie between the lips, at their heels.
    assert found((OIL, OTHER), [lip, backup, ElementKind.WEAR_BAND, backup, lip]) == []
    assert found((OIL, OTHER), [backup, lip, lip, backup]) == [("backup-high-side", "reject")] * 2
    assert found((OIL, AIR), [header, vee, vee, follower]) == []
    assert found((AIR, OIL), [follower, vee, vee, header]) == []
    assert found((OIL, AIR), [follower, vee, vee, header]) == [("packing-end", "reject")] * 2


def test_a_metal_clad_wiper_comes_from_outside_only() -> None:
    clad = Element("w", ElementKind.METAL_CLAD_WIPER, "clad wiper")
    assert "pressed in from air only" in one_of("clad-from-inside", (OIL, AIR), clad, entered="oil")
    station = Station("s", ("oil", "air"), (clad,), entered_from="air")
    assert orient((OIL, AIR), (station,), {}).findings == ()


def test_an_unknown_side_of_entry_is_a_supposition_where_the_order_matters() -> None:
    ring, backup = Element("r", ElementKind.O_RING), Element("b", ElementKind.BACKUP_RING)
    assert [f.code for f in orient((OIL, AIR), (Station("s", ("oil", "air"), (ring, backup)),), {}).findings] == [
        "entered-supposed"
    ]
    assert orient((OIL, AIR), (Station("s", ("oil", "air"), (ring,)),), {}).findings == ()


@pytest.mark.parametrize(
    ("kind", "consequence"),
    [
        (ElementKind.LIP_SEAL, "likely cause of the leak"),
        (ElementKind.WIPER, "scoring and wear"),
        (ElementKind.VALVE_LEAF, "what flows back"),
        (ElementKind.CONTOURED_BACKUP, "nibbled ring"),
    ],
)
def test_what_comes_of_a_reversed_one_is_told_by_kind(kind: ElementKind, consequence: str) -> None:
    elements = (Element("o", ElementKind.O_RING), Element("x", kind, "the thing"))
    station = Station("s", ("oil", "air"), elements, entered_from="air")
    must = orient((OIL, AIR), (station,), {}).facing("x")
    other = "air" if must == "oil" else "oil"
    told = [f.message for f in orient((OIL, AIR), (station,), {"x": other}).findings if f.code == "reversed"]
    assert len(told) == 1
    assert consequence in told[0]
