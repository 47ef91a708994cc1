"""Build sheets over the API: import with faults by path, versions, export."""

from __future__ import annotations

from pathlib import Path

import yaml
from fastapi.testclient import TestClient

import ironkettle.demo

PATH = Path(ironkettle.demo.__file__).parent / "sheets/swing_bridge_ram.yaml"
DOCUMENT = yaml.safe_load(PATH.read_text(encoding="utf-8"))


def send(client: TestClient, document: object) -> tuple[int, dict[str, object]]:
    answer = client.post("/api/sheets", json={"text": yaml.safe_dump(document)})
    return answer.status_code, answer.json()


def test_a_sheet_with_everything_computed_from_it(client: TestClient) -> None:
    view = client.get("/api/sheets/swing-bridge-ram/1").json()
    # π/4·50²·80 mm = 157 ml; 18 MPa · 50²/(50²−28²) = 26.2 MPa by hand.
    assert round(view["sums"]["oil_to_drain_ml"]) == 157
    assert round(view["sums"]["blocked_rod_pressure_mpa"], 1) == 26.2
    assert view["glands"]["gland-bore"]["backup_rings_fitted"] == 1
    assert {s["key"] for s in view["drawing"]["stations"]} == set(view["glands"])
    check = client.post(
        "/api/glands/check", json={**view["glands"]["gland-bore"], "ring": {"series": "AS568", "designation": "224"}}
    )
    assert check.json()["verdict"] == "good"


def test_import_reports_every_fault_and_stores_nothing(client: TestClient) -> None:
    bad = {**DOCUMENT, "key": "other", "zones": DOCUMENT["zones"][1:]}
    status, body = send(client, bad)
    assert status == 422
    fields = [error["field"] for error in body["errors"]]  # type: ignore[attr-defined]
    assert "stations.0.between.0" in fields
    assert "tests.1.zone" in fields
    assert [s["key"] for s in client.get("/api/sheets").json()] == ["swing-bridge-ram"]


def test_versions_are_kept_and_never_overwritten(client: TestClient) -> None:
    assert send(client, DOCUMENT)[0] == 200
    status, body = send(client, {**DOCUMENT, "name": "Another name"})
    assert status == 409
    assert "raise the version number" in str(body["detail"])
    assert send(client, {**DOCUMENT, "version": 2, "name": "Another name"})[0] == 200
    assert client.get("/api/sheets").json()[0]["version"] == 2
    assert client.get("/api/sheets/swing-bridge-ram/1").json()["document"]["name"] == DOCUMENT["name"]
    assert client.get("/api/sheets/swing-bridge-ram/9").status_code == 404


def test_export_reads_back_as_the_same_sheet(client: TestClient) -> None:
    text = client.get("/api/sheets/swing-bridge-ram/1/export").text
    assert client.post("/api/sheets", json={"text": text}).status_code == 200
    assert client.get("/api/sheets/schema").json()["title"] == "BuildSheet"
