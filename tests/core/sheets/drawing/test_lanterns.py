"""A lantern ring lies where its port opens: a stuffing box drawn by hand, its port moved along the body."""

from __future__ import annotations

from typing import Any

import pytest

from ironkettle.core.sheets.drawing.proof import prove
from tests.tiny import plug, sheet_of


def stuffing_box(port: float, *, of_length: str | None = None, zone: str = "lube") -> dict[str, Any]:
    """Rings from z 10, four of them 5 mm long, the third one the lantern: z 20 to 25, unless a length is given."""
    lantern = {"key": "lantern", "name": "lantern ring", "kind": "lantern_ring"}
    rings = [
        {"key": "r1", "name": "ring 1", "kind": "v_packing"},
        {"key": "r2", "name": "ring 2", "kind": "v_packing"},
        lantern | ({"length": of_length} if of_length else {}),
        {"key": "r3", "name": "ring 3", "kind": "v_packing"},
    ]
    body = [
        {"plate": {"from": -5, "to": 0, "inner": 0, "outer": 30}},
        {"tube": {"from": 0, "to": 10, "inner": 12, "outer": 30}},
        {"tube": {"from": 10, "to": 40, "inner": 10, "outer": 30}},
        {"port": {"at": port, "radius": 1, "from": 10, "to": 30, "zone": zone}},
    ]
    document = plug()
    document["zones"] = [
        {"key": "chamber", "name": "chamber", "kind": "pressure", "pressure": "100 bar", "seed": [3, 11]},
        {"key": "lube", "name": "lubrication", "kind": "pressure", "pressure": "3 bar", "seed": [port, 20]},
        {"key": "air", "name": "open air", "kind": "atmosphere"},
    ]
    document["parts"] = [
        {"key": "body", "name": "Body", "fate": "keep", "solid": body},
        {"key": "plunger", "name": "Plunger", "fate": "keep", "solid": {"bar": {"from": 5, "to": 60, "outer": 10}}},
    ]
    document["stations"] = [
        {
            "key": "box", "name": "Stuffing box", "between": ["chamber", "air"], "motion": "reciprocating",
            "carrier": "body", "counterface": "plunger", "fitted": "in_place", "entered_from": "air",
            "seats": [{"kind": "box", "at": 10, "bore": "30 mm", "shaft": "20 mm", "length": "20 mm", "elements": rings}],
        }
    ]  # fmt: skip
    return document


def told(document: dict[str, Any]) -> dict[str, str]:
    return {fault.field: fault.message for fault in prove(sheet_of(document)).faults}


def test_at_its_port_it_is_right_and_beside_it_told_with_its_place() -> None:
    assert told(stuffing_box(22.5)) == {}
    found = told(stuffing_box(13))
    assert list(found) == ["stations.0.seats.0.elements.2"]
    assert "lantern ring lies at z 20.0 to 25.0" in found["stations.0.seats.0.elements.2"]
    assert "no port of chamber or open air" in found["stations.0.seats.0.elements.2"]


@pytest.mark.parametrize(
    ("port", "right"),
    # The hole is 2 mm wide, and the metal round it smaller by 0.02 mm. A tenth of a millimetre of it is no opening.
    [(20.0, True), (19.5, True), (19.1, False), (25.9, False), (25.5, True)],
)
def test_an_opening_wider_than_a_clearance_does(port: float, right: bool) -> None:
    assert (told(stuffing_box(port)) == {}) is right


def test_its_own_length_moves_it() -> None:
    # A lantern of 2 mm: the rings are 6 mm long, so it lies from 22 to 24.
    assert "z 22.0 to 24.0" in told(stuffing_box(20.0, of_length="2 mm"))["stations.0.seats.0.elements.2"]
    assert told(stuffing_box(23.0, of_length="2 mm")) == {}


def test_a_passage_that_ends_in_it_is_its_port() -> None:
    document = stuffing_box(13)
    document["parts"][0]["solid"].append({"passage": {"from": [13, 20], "to": [22, 12], "zone": "lube"}})
    assert told(document) == {}


def test_a_port_from_the_shafts_side_does_too() -> None:
    """The plunger has a hole across it that opens into the lantern from inside."""
    document = stuffing_box(13)
    document["parts"][1]["solid"] = [
        {"bar": {"from": 5, "to": 60, "outer": 10}, "cut": [{"plate": {"from": 21, "to": 24, "inner": 6, "outer": 11}}]}
    ]
    document["zones"].append({"key": "inside", "name": "hole", "kind": "drain", "seed": [22, 8]})
    assert not any("lantern ring" in message for message in told(document).values())
