"""Why a seal failed, over the API: the contract's fields, what is refused, what is not known."""

from __future__ import annotations

from typing import Any

import pytest

from tests.people import BenchClient

GLAND = {
    "ring": {"series": "AS568", "designation": "214"}, "seat": "piston", "motion": "reciprocating", "medium": "liquid",
    "bore": "31.75 mm", "groove_diameter": "25.90 mm", "groove_width": "4.80 mm", "diametral_clearance": "0.40 mm",
    "pressure": "16 MPa", "hardness_shore_a": 70, "backup_rings_fitted": 0,
}  # fmt: skip
WHOLE = {
    "element": "o_ring", "motion": "reciprocating", "signs": ["nibbled_low_side"], "gland": GLAND, "faced": "outside",
    "must_face": "rod_side", "fluid": "mineral oil ISO VG 46", "compound": "NBR", "temperature": "95 °C",
    "speed": "0.3 m/s", "years": 4,
}  # fmt: skip


def ask(client: BenchClient, body: dict[str, Any]) -> Any:
    return client.post("/api/failures/diagnose", json=body)


def test_only_element_and_signs_are_needed(client: BenchClient) -> None:
    causes = ask(client, {"element": "o_ring", "signs": ["nibbled_low_side"]}).json()["causes"]
    assert causes[0]["key"] == "extrusion"
    assert set(causes[0]) >= {"key", "name", "share", "for", "against", "corrections"}
    assert sum(cause["share"] for cause in causes) == pytest.approx(1)
    assert len(causes) == 20
    assert causes[0]["corrections"][0] == {"key": "fit_backup", "text": "Fit a backup ring on the low-pressure side"}


def test_all_of_it_at_once(client: BenchClient) -> None:
    causes = {one["key"]: one for one in ask(client, WHOLE).json()["causes"]}
    # 0.40 mm on one side at 160 bar in 70 Shore A is over the table, and no backup ring is fitted.
    assert any(text.startswith("gap 0.40 mm at worst") for text in causes["extrusion"]["for"])
    assert "1 backup ring wanted, 0 fitted" in causes["missing_backup"]["for"]
    assert "it faced outside and must face rod_side" in causes["reversed"]["for"]
    assert any("95 °C is near its limit" in text for text in causes["heat"]["for"])
    assert "NBR resists mineral hydraulic oil" in causes["chemical_swell"]["against"]
    assert "it seals a liquid" in causes["rapid_decompression"]["against"]


def test_null_is_not_known(client: BenchClient) -> None:
    bare = ask(client, {"element": "o_ring", "signs": ["shrunk"]}).json()
    nothing = dict.fromkeys(
        ("motion", "gland", "faced", "must_face", "fluid", "compound", "temperature", "speed", "years")
    )
    assert ask(client, {"element": "o_ring", "signs": ["shrunk"], **nothing}).json() == bare
    assert ask(client, {"element": "o_ring", "signs": ["shrunk"], "faced": "outside"}).json() == bare
    assert ask(client, {"element": "o_ring", "signs": []}).status_code == 200


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"signs": ["looked_odd"]}, "signs.0"),
        ({"element": "teapot"}, "element"),
        ({"compound": "cheese"}, "compound"),
        ({"fluid": "lemonade"}, "fluid"),
        ({"temperature": "95"}, "temperature"),
        ({"temperature": "900 °C"}, "temperature"),
        ({"speed": "-1 m/s"}, "speed"),
        ({"speed": "3 mm"}, "speed"),
        ({"years": -1}, "years"),
        ({"years": 1e9}, "years"),
        ({"gland": {**GLAND, "bore": "31.75"}}, "gland.bore"),
        ({"gland": {**GLAND, "ring": {"series": "AS568", "designation": "999"}}}, "gland.ring.designation"),
        ({"gland": {**GLAND, "bore": None}}, "bore"),
    ],
)
def test_what_cannot_be_is_refused_by_its_field(client: BenchClient, change: dict[str, Any], field: str) -> None:
    answer = ask(client, {**WHOLE, **change})
    assert answer.status_code == 422
    assert field in [error["field"] for error in answer.json()["errors"]]


def test_each_kind_tells_what_can_be_seen_on_it(client: BenchClient) -> None:
    kinds = {one["key"]: one for one in client.get("/api/failures/elements").json()}
    assert kinds["o_ring"]["name"] == "O-ring"
    assert kinds["o_ring"]["signs"][0] == {"key": "none", "says": "none of these"}
    on_ring, on_lip = ([sign["key"] for sign in kinds[kind]["signs"]] for kind in ("o_ring", "lip_seal"))
    # A ring has no lip to fold, a lip does not roll, and which way round it lay is asked by itself.
    assert "spiral_cuts" in on_ring
    assert "lip_folded" not in on_ring
    assert "lip_folded" in on_lip
    assert "spiral_cuts" not in on_lip
    assert "reversed" not in on_lip
    assert "soft_swollen" not in [sign["key"] for sign in kinds["coned_washer"]["signs"]]
