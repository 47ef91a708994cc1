"""People, tools, health, and a database or stand that is away."""

from __future__ import annotations

from fastapi.testclient import TestClient

from ironkettle.api.app import create_app
from ironkettle.settings import Settings
from ironkettle.store.migrate import newest_revision


def test_people_and_tools_can_be_added_once(client: TestClient) -> None:
    person = {"key": "osric", "name": "Osric Penhallow", "role": "technician", "may_release": False}
    assert client.post("/api/people", json=person).status_code == 200
    again = client.post("/api/people", json=person)
    assert again.status_code == 409
    assert again.headers["content-type"] == "application/problem+json"
    assert "Osric Penhallow" in [p["name"] for p in client.get("/api/people").json()]
    wrench = {"key": "w9", "name": "Long wrench", "low": "100 N·m", "high": "500 N·m", "accuracy_pct": 3}
    assert client.post("/api/wrenches", json=wrench).status_code == 200
    assert len(client.get("/api/wrenches").json()) == 5
    gauge = {"key": "g9", "name": "Low gauge", "range": "16 bar", "resolution": "0.01 bar", "accuracy_pct": 0.25}
    assert client.post("/api/gauges", json=gauge).status_code == 200
    assert len(client.get("/api/gauges").json()) == 3


def test_tools_that_cannot_be_are_refused_at_the_field(client: TestClient) -> None:
    wrench = {"key": "w9", "name": "x", "low": "500 N·m", "high": "100 N·m", "accuracy_pct": 3}
    assert client.post("/api/wrenches", json=wrench).json()["errors"][0]["field"] == "low"
    gauge = {"key": "g9", "name": "x", "range": "1 bar", "resolution": "2 bar", "accuracy_pct": 1}
    assert client.post("/api/gauges", json=gauge).json()["errors"][0]["field"] == "resolution"
    assert client.post("/api/people", json={"key": "No Key", "name": "x", "role": "y"}).status_code == 422


def test_health_tells_version_database_and_migration(client: TestClient) -> None:
    health = client.get("/api/health").json()
    assert health["database"] == "up"
    assert health["migration"] == health["migration_wanted"] == newest_revision()
    assert client.get("/api/fluids").json()[0]["name"]


def test_a_database_that_is_away_is_said_so() -> None:
    away = create_app(Settings(database_url="postgresql://kettle:x@127.0.0.1:1/kettle", stand_port=1))
    with TestClient(away) as client:
        assert client.get("/api/health").json()["database"] == "down"
        answer = client.get("/api/jobs")
        assert answer.status_code == 503
        assert answer.json()["type"] == "/problems/database-away"


def test_a_stand_that_is_away_is_said_so(app_client: TestClient) -> None:
    answer = app_client.get("/api/stand/reading")
    assert answer.status_code == 503
    assert answer.json()["type"] == "/problems/stand-away"
    assert app_client.post("/api/stand/hold", json={"pressure": "900 bar"}).status_code == 422


def test_unknown_addresses_are_problems_too(app_client: TestClient) -> None:
    assert app_client.get("/api/nothing").status_code == 404
    assert app_client.get("/api/nothing").headers["content-type"] == "application/problem+json"
