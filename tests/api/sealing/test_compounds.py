"""Compounds, hardness and lubricants over the API."""

from __future__ import annotations

from typing import Any

import pytest

from tests.people import BenchClient

SERVICE = {"fluids": ["mineral oil ISO VG 46"], "temperature_min": "-10 °C", "temperature_max": "158 °F"}


def advise(client: BenchClient, **changes: Any) -> Any:
    answer = client.post("/api/compounds/advise", json={**SERVICE, **changes})
    assert answer.status_code == 200, answer.text
    return answer.json()


def verdicts(body: dict[str, Any]) -> dict[str, str]:
    return {one["name"]: one["verdict"] for one in body["compounds"]}


def test_mineral_oil_wants_nbr_and_refuses_epdm(app_client: BenchClient) -> None:
    body = advise(app_client)
    assert body["media"] == ["mineral_hydraulic_oil"]
    assert body["compounds"][0]["name"] == "NBR"
    # compatibility.csv: EPDM 4 in mineral hydraulic oil.
    assert verdicts(body)["EPDM"] == "reject"
    assert body["hardness"] is None


def test_two_fluids_both_count(app_client: BenchClient) -> None:
    one, both = advise(app_client), advise(app_client, fluids=["mineral oil ISO VG 46", "steam"])
    order = {"good": 0, "caution": 1, "reject": 2}
    for name, verdict in verdicts(one).items():
        assert order[verdicts(both)[name]] >= order[verdict], name


def test_motion_never_makes_a_compound_better(app_client: BenchClient) -> None:
    order = {"good": 0, "caution": 1, "reject": 2}
    for fluid in app_client.get("/api/compounds/media").json():
        still, moving = (
            verdicts(advise(app_client, fluids=[fluid])),
            verdicts(advise(app_client, fluids=[fluid], moving=True)),
        )
        assert all(order[moving[name]] >= order[still[name]] for name in still), fluid


def test_the_lubricant_is_held_against_each_compound(app_client: BenchClient) -> None:
    found = {c["name"]: c["lubricant_findings"] for c in advise(app_client, lubricant="silicone_grease")["compounds"]}
    assert [f["severity"] for f in found["VMQ"]] == ["reject"]
    assert found["NBR"] == []
    near_oxygen = advise(app_client, lubricant="mineral_oil", duty="oxygen")["compounds"]
    assert all("burns" in {f["code"] for f in c["lubricant_findings"]} for c in near_oxygen)


@pytest.mark.parametrize(("gap", "shore"), [("0.08 mm", 70), ("0.12 mm", 90), ("0.005 in", 90), ("0.5 mm", None)])
def test_hardness_for_a_gap(app_client: BenchClient, gap: str, shore: int | None) -> None:
    # extrusion_gap_mm.csv, 7 MPa, section 3 to 5 mm: 70 Shore 0.08 mm, 90 Shore 0.15 mm.
    body = advise(app_client, worst_gap=gap, pressure="70 bar", section="3.53 mm")
    assert body["hardness"]["shore_a"] == shore
    assert body["hardness"]["message"]
