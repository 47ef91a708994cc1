"""Torque wrenches and gauges: kept by stores and lead, each once."""

from __future__ import annotations

from datetime import date

from tests.people import BenchClient

WRENCH = {"key": "w9", "name": "Long wrench", "low": "100 N·m", "high": "500 N·m", "accuracy_pct": 3}
GAUGE = {"key": "g9", "name": "Low gauge", "range": "16 bar", "resolution": "0.01 bar", "accuracy_pct": 0.25}


def test_tools_are_added_once_and_leave_a_trail(client: BenchClient) -> None:
    stores = client.as_person("wystan")
    assert stores.post("/api/wrenches", json=WRENCH).status_code == 200
    again = stores.post("/api/wrenches", json=WRENCH)
    assert again.status_code == 409
    assert again.headers["content-type"] == "application/problem+json"
    assert [tool["name"] for tool in client.get("/api/wrenches").json()].count("Long wrench") == 1
    assert stores.post("/api/gauges", json=GAUGE).status_code == 200
    assert [tool["name"] for tool in client.get("/api/gauges").json()].count("Low gauge") == 1
    changes = client.as_person("tamsin").get("/api/trail").json()
    assert [(change["who"], change["noun"], change["subject"], change["change"]) for change in changes] == [
        ("Wystan Peverell", "gauge", "g9", "added"),
        ("Wystan Peverell", "wrench", "w9", "added"),
    ]
    assert changes[0]["after"] == {**GAUGE, "stability_pct": None, "calibration": "", "calibrated_until": None}


def test_a_calibration_is_renewed_with_a_trail(client: BenchClient) -> None:
    stores, body = client.as_person("wystan"), {"calibration": "cal 4471", "calibrated_until": "2027-11-01"}
    for path in ("wrenches/w1-small", "gauges/g1-digital"):
        assert stores.put(f"/api/{path}/calibration", json=body).status_code == 200
        noun, key = path.split("/")
        tool = next(one for one in client.get(f"/api/{noun}").json() if one["key"] == key)
        assert (tool["calibration"], tool["calibrated_until"]) == ("cal 4471", "2027-11-01")
    assert stores.put("/api/wrenches/w77/calibration", json=body).status_code == 404
    assert stores.put("/api/wrenches/w1/calibration", json={**body, "calibrated_until": "soon"}).status_code == 422
    change = client.as_person("tamsin").get("/api/trail").json()[0]
    assert (change["noun"], change["after"]["calibration"]) == ("gauge", "cal 4471")


def test_tools_that_cannot_be_are_refused_at_the_field(client: BenchClient) -> None:
    stores = client.as_person("wystan")
    wrench = {**WRENCH, "low": "500 N·m", "high": "100 N·m"}
    assert stores.post("/api/wrenches", json=wrench).json()["errors"][0]["field"] == "low"
    gauge = {**GAUGE, "range": "1 bar", "resolution": "2 bar"}
    assert stores.post("/api/gauges", json=gauge).json()["errors"][0]["field"] == "resolution"


def test_a_calibration_that_ended_is_said_so(client: BenchClient) -> None:
    ended = {wrench["name"]: wrench["calibration_ended"] for wrench in client.get("/api/wrenches").json()}
    # The demo's dial wrench was last calibrated until 2026-09-30; the others a year longer at least.
    assert ended["Dial wrench"] is True
    assert ended["Small click wrench"] is (date.today() > date(2027, 11, 30))


def test_a_tool_is_changed_and_used_no_more_with_its_trail(client: BenchClient) -> None:
    stores = client.as_person("wystan")
    changed = stores.patch("/api/wrenches/w1-small", json={"name": "Small wrench, repaired", "accuracy_pct": 3}).json()
    assert (changed["name"], changed["accuracy_pct"]) == ("Small wrench, repaired", 3)
    assert stores.patch("/api/wrenches/w1-small", json={"accuracy_pct": 0}).status_code == 422
    assert stores.patch("/api/wrenches/w1-small", json={}).status_code == 422
    # What a gauge has and a wrench has not is no change of it.
    assert stores.patch("/api/wrenches/w1-small", json={"stability_pct": 2}).status_code == 422
    assert stores.patch("/api/gauges/nothing", json={"active": False}).status_code == 404
    assert stores.patch("/api/gauges/g2-dial", json={"active": False}).status_code == 200
    assert "g2-dial" not in {one["key"] for one in client.get("/api/gauges").json()}
    # Nobody's job is offered it any more.
    rows = client.as_person("tamsin").get("/api/trail").json()
    assert [row["subject"] for row in rows[:2]] == ["g2-dial", "w1-small"]
    assert rows[1]["before"] == {"name": "Small click wrench", "accuracy_pct": 4}
