"""Which way round and in what order, by how each profile works."""

from __future__ import annotations

import pytest

from ironkettle.core.base.errors import RuleError
from ironkettle.core.sealing.catalogue import ElementKind
from ironkettle.core.sealing.facing import Element, Station, Zone, ZoneKind, orient

K = ElementKind
ROD = Zone("rod_side", ZoneKind.PRESSURE, 18.0)
CAP = Zone("cap", ZoneKind.PRESSURE, 21.0)
AIR = Zone("outside", ZoneKind.ATMOSPHERE)
DRAIN = Zone("drain", ZoneKind.DRAIN)
ZONES = (ROD, CAP, AIR, DRAIN)


def station(
    *kinds: ElementKind, between: tuple[str, str] = ("rod_side", "outside"), entered_from: str | None = None
) -> Station:
    return Station("s", between, tuple(Element(f"e{i}", kind) for i, kind in enumerate(kinds)), "static", entered_from)


def faces(one: Station) -> list[str | None]:
    return [element.faces for element in orient(ZONES, (one,)).stations[0].elements]


@pytest.mark.parametrize(
    ("one", "expected"),
    [
        (station(K.LIP_SEAL, K.WIPER), ["rod_side", "outside"]),
        (station(K.WIPER, K.LIP_SEAL, between=("outside", "rod_side")), ["outside", "rod_side"]),
        (station(K.METAL_CLAD_WIPER), ["outside"]),
        (station(K.LIP_SEAL, K.WEAR_BAND, K.LIP_SEAL, between=("cap", "rod_side")), ["cap", None, "rod_side"]),
        (station(K.V_PACKING, K.V_PACKING), ["rod_side", "rod_side"]),
        (station(K.HEADER_RING, K.V_PACKING, K.FOLLOWER_RING), ["rod_side", "rod_side", "outside"]),
        (station(K.O_RING, K.CONTOURED_BACKUP), [None, "rod_side"]),
        (station(K.CONTOURED_BACKUP, K.O_RING, between=("outside", "rod_side")), ["rod_side", None]),
        (station(K.SHAFT_SEAL, between=("drain", "outside")), ["drain"]),
        (station(K.CUP_SEAL, between=("outside", "cap")), ["cap"]),
        (station(K.SLIDE_RING), ["rod_side"]),
        (station(K.SLIDE_RING, between=("cap", "rod_side")), [None]),
        (station(K.O_RING, K.BACKUP_RING, K.GASKET, K.LANTERN_RING), [None, None, None, None]),
    ],
)
def test_facing_by_kind_and_zones(one: Station, expected: list[str | None]) -> None:
    assert faces(one) == expected


def test_facing_does_not_depend_on_the_order_zones_are_listed() -> None:
    one = station(K.LIP_SEAL, K.WIPER)
    assert [e.faces for e in orient(tuple(reversed(ZONES)), (one,)).stations[0].elements] == faces(one)


def test_the_deepest_goes_in_first_and_comes_out_last() -> None:
    one = orient(ZONES, (station(K.O_RING, K.BACKUP_RING, entered_from="rod_side"),)).stations[0]
    assert one.fitting_order == ("e1", "e0")  # the backup before its ring
    assert one.removal_order == ("e0", "e1")
    other = orient(ZONES, (station(K.O_RING, K.BACKUP_RING, entered_from="outside"),)).stations[0]
    assert other.fitting_order == ("e0", "e1")


@pytest.mark.parametrize("entered", ["rod_side", "outside"])
def test_an_energiser_goes_in_before_the_ring_over_it(entered: str) -> None:
    for kinds in ((K.ENERGISER, K.SLIDE_RING), (K.SLIDE_RING, K.ENERGISER)):
        one = station(*kinds, entered_from=entered)
        order = orient(ZONES, (one,)).stations[0].fitting_order
        energiser = next(e.key for e in one.elements if e.kind is K.ENERGISER)
        assert order[0] == energiser


def test_an_energiser_at_the_end_of_a_stack_goes_in_before_the_ring_over_it_only() -> None:
    one = station(K.WEAR_BAND, K.SLIDE_RING, K.ENERGISER, entered_from="rod_side")
    order = orient(ZONES, (one,)).stations[0].fitting_order
    kinds = {e.key: e.kind for e in one.elements}
    assert [kinds[key] for key in order][-2:] == [K.ENERGISER, K.SLIDE_RING] or [kinds[key] for key in order][:2] == [
        K.ENERGISER, K.SLIDE_RING,
    ]  # fmt: skip


def test_a_reversed_lip_is_called_the_likely_cause() -> None:
    found = orient(
        ZONES, (station(K.LIP_SEAL, K.WIPER, entered_from="outside"),), {"e0": "outside", "e1": "outside"}
    ).findings
    assert [f.code for f in found] == ["reversed"]
    assert found[0].severity == "reject"
    assert "likely cause of the leak" in found[0].message
    wiper = orient(ZONES, (station(K.LIP_SEAL, K.WIPER, entered_from="outside"),), {"e1": "rod_side"}).findings
    assert "let dirt and water in" in wiper[0].message


def test_backups_on_the_wrong_side_and_single_lips_are_told() -> None:
    codes = {f.code for f in orient(ZONES, (station(K.BACKUP_RING, K.O_RING, entered_from="outside"),)).findings}
    assert codes == {"backup-high-side"}
    one_side = station(K.O_RING, K.BACKUP_RING, between=("cap", "rod_side"), entered_from="cap")
    assert {f.code for f in orient(ZONES, (one_side,)).findings} == {"backup-one-side"}
    single = station(K.LIP_SEAL, between=("cap", "rod_side"))
    assert {f.code for f in orient(ZONES, (single,)).findings} == {"one-way-seal"}


def test_every_wrong_name_is_reported_at_its_path() -> None:
    bad = (
        Station("a", ("rod_side", "moon"), (Element("x", K.O_RING), Element("x", K.O_RING)), "static", "outside"),
        Station("b", ("cap", "cap"), ()),
    )
    with pytest.raises(RuleError) as caught:
        orient(ZONES, bad, {"y": "outside", "x": "mars"})
    fields = {fault.field for fault in caught.value.faults}
    assert fields == {
        "stations.0.between.1",
        "stations.0.entered_from",
        "stations.0.elements.1.key",
        "stations.1.between",
        "as_found.y",
        "as_found.x",
    }
