"""Tokens for scripts: shown once, revocable, never for managing people."""

from __future__ import annotations

import io
import uuid

import pytest
from pypdf import PdfReader
from sqlalchemy import Engine, text

from tests import walk
from tests.people import PINS, BenchClient


def make(client: BenchClient, person: str = "bede") -> dict[str, str]:
    answer = client.as_person("tamsin").post("/api/tokens", json={"name": "stores system", "person": person})
    assert answer.status_code == 200
    made: dict[str, str] = answer.json()
    return made


def with_token(client: BenchClient, token: str) -> BenchClient:
    script = BenchClient(client.app)
    script.headers["Authorization"] = f"Bearer {token}"
    return script


def test_a_token_acts_as_its_person_until_it_is_revoked(client: BenchClient, workshop: Engine) -> None:
    made = make(client)
    script = with_token(client, made["token"])
    job = walk.numbered(script, "FN-0417")
    note = {"kind": "note_made", "text": "from the stores system"}
    body = {"id": str(uuid.uuid4()), "bench_time": "2026-11-24T09:00:00Z", "payload": note}
    assert script.post(f"/api/jobs/{job}/entries", json=body).json()["state"]["job"]["touched_by"] == "Bede Harrowgate"
    tamsin = client.as_person("tamsin")
    listed = tamsin.get("/api/tokens").json()
    assert "token" not in listed[0]
    with workshop.connect() as connection:
        kept = connection.execute(text("SELECT digest FROM tokens")).scalar_one()
    assert made["token"] not in kept
    assert with_token(client, kept).get("/api/jobs").status_code == 401
    assert tamsin.delete(f"/api/tokens/{made['id']}").json()["revoked_at"]
    assert script.get("/api/jobs").status_code == 401
    assert [one["change"] for one in tamsin.get("/api/trail").json()] == ["revoked", "made"]


def test_what_a_script_entered_is_told_wherever_it_stands(client: BenchClient) -> None:
    script = with_token(client, make(client)["token"])
    job = walk.open_new(client, "header-tank-valve", fluid="fresh water")
    note = {"kind": "note_made", "text": "counted by the shelf"}
    body = {"id": str(uuid.uuid4()), "bench_time": "2026-11-24T09:00:00Z", "payload": note}
    assert script.post(f"/api/jobs/{job}/entries", json=body).status_code == 200
    line = next(one for one in client.get(f"/api/jobs/{job}/log").json() if one["payload"] == note)
    assert "“stores system” of Bede Harrowgate" in line["token"]
    walk.walk(client, job, who="tamsin")
    pages = PdfReader(io.BytesIO(client.get(f"/api/jobs/{job}/certificate.pdf").content)).pages
    assert "stores system" in " ".join(" ".join(page.extract_text() for page in pages).split())


def test_a_token_of_the_lead_manages_neither_people_nor_tokens(client: BenchClient) -> None:
    script = with_token(client, make(client, "tamsin")["token"])
    assert script.get("/api/trail").status_code == 200
    for method, path, body in (
        ("POST", "/api/people", {"name": "Mallory", "role": "lead", "pin": "417902"}),
        ("PUT", "/api/people/bede/pin", {"pin": "802613"}),
        ("PUT", "/api/people/bede/authorisations/lifting", {"until": "2027-06-01"}),
        ("POST", "/api/tokens", {"name": "another", "person": "tamsin"}),
        ("GET", "/api/tokens", None),
    ):
        answer = script.request(method, path, json=body)
        assert answer.status_code == 403, path
        assert "a token may not" in answer.json()["detail"]


def test_a_signature_by_script_takes_the_pin_all_the_same(client: BenchClient) -> None:
    script = with_token(client, make(client)["token"])
    job = walk.numbered(script, "FN-0417")
    payload = walk.SKIP
    body = {"id": str(uuid.uuid4()), "bench_time": "2026-11-24T09:00:00Z", "payload": payload}
    assert script.post(f"/api/jobs/{job}/entries", json=body).status_code == 422
    assert script.post(f"/api/jobs/{job}/entries", json={**body, "pin": PINS["bede"]}).status_code == 200


@pytest.mark.parametrize("body", [{"name": "", "person": "bede"}, {"name": "x", "person": "nobody"}, {"name": "x"}])
def test_tokens_that_cannot_be(client: BenchClient, body: dict[str, str]) -> None:
    tamsin = client.as_person("tamsin")
    assert tamsin.post("/api/tokens", json=body).status_code == 422
    assert tamsin.get("/api/tokens").json() == []
    assert tamsin.delete(f"/api/tokens/{uuid.uuid4()}").status_code == 404
