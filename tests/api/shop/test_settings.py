"""Shop settings over the API: they reach every calculation, are named on it, and go back."""

from __future__ import annotations

from typing import Any

import pytest

from tests.api.test_contract import BODIES
from tests.people import BenchClient


def rule(client: BenchClient, key: str) -> dict[str, Any]:
    return next(one for one in client.get("/api/shop-settings").json() if one["key"] == key)


def test_a_changed_limit_reaches_the_groove_check_and_is_named(client: BenchClient) -> None:
    body = {**BODIES["/api/glands/check"], "pressure": "2 MPa"}
    assert client.post("/api/glands/check", json=body).json()["verdict"] == "good"
    changed = client.as_person("tamsin").put("/api/shop-settings/squeeze_static_low", json={"value": 22})
    assert changed.status_code == 200
    kept = rule(client, "squeeze_static_low")
    assert (kept["value"], kept["shipped"], kept["who"]) == (22, 10, "Tamsin Orrell")
    strict = client.post("/api/glands/check", json=body).json()
    assert strict["verdict"] == "reject"
    assert strict["limits"]["squeeze_pct"] == {"low": 22, "high": 30}
    assert "changed by this shop" in strict["findings"][0]["basis"]
    client.as_person("tamsin").delete("/api/shop-settings/squeeze_static_low")
    assert rule(client, "squeeze_static_low")["value"] == 10
    assert client.post("/api/glands/check", json=body).json()["verdict"] == "good"


def test_priors_and_uncertainty_reach_the_match(client: BenchClient) -> None:
    body = {"inside_diameter": "44.1 mm", "section": "3.5 mm", "condition": "used", "limit": 20}

    def share(series: str) -> float:
        found = client.post("/api/rings/match", json=body).json()["candidates"]
        return sum(c["probability"] for c in found if c["series"] == series)

    before = share("JIS B 2401")
    client.as_person("tamsin").put("/api/shop-settings/prior_jisb2401", json={"value": 1})
    assert share("JIS B 2401") > before
    first = client.post("/api/rings/match", json=body).json()["candidates"][0]["probability"]
    client.as_person("tamsin").put("/api/shop-settings/uncertainty", json={"value": 0.5})
    assert client.post("/api/rings/match", json=body).json()["candidates"][0]["probability"] != first


@pytest.mark.parametrize(
    ("key", "body", "field"),
    [
        ("squeeze_static_low", {"value": 40}, "value"),
        ("squeeze_static_low", {"value": "wide"}, "value"),
        ("colour", {"value": 12}, "key"),
    ],
)
def test_refusals_change_nothing(client: BenchClient, key: str, body: dict[str, Any], field: str) -> None:
    before = client.get("/api/shop-settings").json()
    answer = client.as_person("tamsin").put(f"/api/shop-settings/{key}", json=body)
    assert answer.status_code == 422
    assert field in [error["field"] for error in answer.json()["errors"]]
    assert client.get("/api/shop-settings").json() == before
    assert client.as_person("tamsin").delete("/api/shop-settings/colour").status_code == 422
