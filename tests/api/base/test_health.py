"""Health: which part is up, and a database or stand that is away."""

from __future__ import annotations

import shutil

import pytest

from ironkettle.api.app import create_app
from ironkettle.api.base.health import disk_state
from ironkettle.config import Settings
from ironkettle.store.migrate import newest_revision
from tests.people import BenchClient


def test_health_tells_version_database_migration_and_stand(app_client: BenchClient) -> None:
    answer = app_client.get("/api/health")
    assert answer.status_code == 200
    health = answer.json()
    assert health["database"] == "up"
    assert health["migration"] == health["migration_wanted"] == newest_revision()
    # The tests' application has no stand: it is said, and nothing else suffers.
    assert (health["stand"], health["down"]) == ("down", ["test stand"])
    assert app_client.get("/api/fluids").json()[0]["name"]


def test_a_database_that_is_away_is_said_so() -> None:
    away = create_app(Settings(database_url="postgresql://kettle:x@127.0.0.1:1/kettle", stand_port=1))
    client = BenchClient(away)
    answer = client.get("/api/health")
    assert answer.status_code == 503
    assert answer.json()["down"] == ["database", "test stand"]
    answer = client.get("/api/people")
    assert answer.status_code == 503
    assert answer.json()["type"] == "/problems/database-away"
    away.state.engine.dispose()
    away.state.proving.dispose()


def test_a_stand_that_is_away_is_said_so(client: BenchClient) -> None:
    answer = client.get("/api/stand/reading")
    assert answer.status_code == 503
    assert answer.json()["type"] == "/problems/stand-away"
    assert client.post("/api/stand/hold", json={"pressure": "900 bar"}).status_code == 422


@pytest.mark.parametrize(
    ("free", "state"), [(10_000, "full"), (19_000_000, "full"), (400_000_000, "low"), (20_000_000_000, "up")]
)
def test_a_disk_that_fills_is_told_before_it_is_full(free: int, state: str) -> None:
    assert disk_state(free) == state


def test_a_full_disk_is_a_part_that_is_down(client: BenchClient, monkeypatch: pytest.MonkeyPatch) -> None:
    usage = shutil.disk_usage("/")
    monkeypatch.setattr(shutil, "disk_usage", lambda _: usage._replace(free=1000))
    answer = client.get("/api/health")
    assert answer.status_code == 503
    assert "disk" in answer.json()["down"]


def test_unknown_addresses_are_problems_too(app_client: BenchClient) -> None:
    assert app_client.get("/api/nothing").status_code == 404
    assert app_client.get("/api/nothing").headers["content-type"] == "application/problem+json"
