"""The settings desk over the API: the contract's example, units, what is refused."""

from __future__ import annotations

from typing import Any

import pytest

from tests.people import BenchClient

BODY = {
    "kind": "target", "target": "350 bar", "tolerance": "5 bar", "floor": None, "ceiling": None,
    "sense": "clockwise_raises", "pitch": "1 mm",
    "readings": [{"turns": 0, "value": "312 bar"}, {"turns": 0.25, "value": "331 bar"}],
}  # fmt: skip


def test_the_example_of_the_guide(client: BenchClient) -> None:
    found = client.post("/api/settings/advise", json=BODY).json()
    assert (found["done"], found["next_turns"]) == (False, 0.25)
    assert (found["expected"], found["rate"]) == ("350 bar", "76 bar/turn")
    assert found["travel_mm"] == 0.25
    assert found["findings"] == []


def test_units_may_be_mixed_and_the_answer_is_in_the_targets(client: BenchClient) -> None:
    # 312 bar is 31.2 MPa; 331 bar is 4800.7 psi.
    readings = [{"turns": 0, "value": "31.2 MPa"}, {"turns": 0.25, "value": "4800.7 psi"}]
    found = client.post("/api/settings/advise", json={**BODY, "readings": readings}).json()
    assert found["next_turns"] == pytest.approx(0.25, abs=0.001)
    effort = {
        **BODY, "target": "1.4 inH2O", "tolerance": "0.05 inH2O", "floor": "1.3 inH2O", "pitch": None,
        "readings": [{"turns": 0, "value": "1.0 inH2O"}, {"turns": 0.25, "value": "1.1 inH2O"}],
    }  # fmt: skip
    found = client.post("/api/settings/advise", json=effort).json()
    assert found["rate"] == "0.4 inH2O/turn"
    assert found["findings"][0]["code"] == "below-floor"
    force = {**BODY, "target": "200 N", "tolerance": "5 N", "readings": [{"turns": 0, "value": "150 N"}]}
    assert client.post("/api/settings/advise", json=force).json()["rate"] is None


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"target": "350"}, "target"),
        ({"target": "hot"}, "target"),
        ({"tolerance": "0 bar"}, "tolerance"),
        ({"tolerance": "5 mm"}, "tolerance"),
        ({"floor": "360 bar"}, "floor"),
        ({"ceiling": "340 bar"}, "ceiling"),
        ({"readings": []}, "readings"),
        ({"readings": [{"turns": 0, "value": "312"}]}, "readings.0.value"),
        ({"readings": [{"turns": 1e9, "value": "312 bar"}]}, "readings.0.turns"),
        ({"kind": "to the eye"}, "kind"),
        ({"sense": "sideways"}, "sense"),
        ({"pitch": None, "travel": "8 mm"}, "pitch"),
        ({"pitch": "-1 mm"}, "pitch"),
    ],
)
def test_what_cannot_be_is_refused_by_its_field(client: BenchClient, change: dict[str, Any], field: str) -> None:
    answer = client.post("/api/settings/advise", json={**BODY, **change})
    assert answer.status_code == 422
    assert field in [error["field"] for error in answer.json()["errors"]]
