"""Which way each kind of element faces, and that it does not depend on how the station is written down."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.stacks import Element, ElementKind, Station, Zone, ZoneKind, orient

OIL = Zone("oil", ZoneKind.PRESSURE, 18.0)
OTHER = Zone("other", ZoneKind.PRESSURE, 6.0)
AIR = Zone("air", ZoneKind.ATMOSPHERE)
# Kinds whose facing depends on where their partner lies, or on how many there are, are tried in stacks below.
ALONE = [
    ElementKind.LIP_SEAL, ElementKind.CUP_SEAL, ElementKind.V_PACKING, ElementKind.WIPER, ElementKind.METAL_CLAD_WIPER,
    ElementKind.SHAFT_SEAL, ElementKind.SLIDE_RING, ElementKind.O_RING, ElementKind.WEAR_BAND, ElementKind.GASKET,
    ElementKind.DIAPHRAGM, ElementKind.LANTERN_RING, ElementKind.CONED_WASHER, ElementKind.BACKUP_RING,
]  # fmt: skip


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


@given(kinds=st.lists(st.sampled_from(ALONE), min_size=1, max_size=5, unique=True), both=st.booleans())
def test_a_station_read_from_its_other_end_faces_the_same(kinds: list[ElementKind], both: bool) -> None:
    """Listed from the other zone, the same metal: every element must face the same space."""
    zones = (OIL, OTHER) if both else (OIL, AIR)
    assert faces(zones, kinds) == list(reversed(faces((zones[1], zones[0]), list(reversed(kinds)))))


@given(kinds=st.lists(st.sampled_from(list(ElementKind)), min_size=1, max_size=6))
def test_every_element_gets_an_instruction_and_faces_a_space_beside_it(kinds: list[ElementKind]) -> None:
    station = Station("s", ("oil", "air"), tuple(Element(f"e{i}", k) for i, k in enumerate(kinds)))
    for element in orient((OIL, AIR), (station,), {}).stations[0].elements:
        assert element.faces in {None, "oil", "air"}
        assert element.instruction
