"""People and their rights: managed by the lead, on a trail, and never without a lead."""

from __future__ import annotations

import uuid
from datetime import UTC, date, datetime, timedelta
from typing import Any

import pytest
import time_machine

from ironkettle.core.base.dates import shown_day
from tests import walk
from tests.clock import ServerClock
from tests.people import PINS, BenchClient
from tests.walk import send

NEW = {"name": "Osric Penhallow", "role": "technician", "pin": "530917"}


def person(client: BenchClient, key: str) -> dict[str, Any]:
    people = client.get("/api/people/register").json()["people"]
    return next(one for one in people if one["key"] == key)


def test_the_lead_adds_somebody_who_can_sign_in(client: BenchClient) -> None:
    tamsin = client.as_person("tamsin")
    added = tamsin.post("/api/people", json=NEW)
    assert added.status_code == 200
    assert (added.json()["key"], added.json()["has_pin"]) == ("osric-penhallow", True)
    device = BenchClient(client.app)
    assert device.post("/api/session", json={"person": "osric-penhallow", "pin": "530917"}).status_code == 200
    # A name stands on certificates and is had by one; a like one gets a key of its own.
    twin = tamsin.post("/api/people", json={**NEW, "name": "osric penhallow"})
    assert twin.json()["errors"][0]["field"] == "name"
    assert tamsin.post("/api/people", json={**NEW, "name": "Osric-Penhallow"}).json()["key"] == "osric-penhallow-2"


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"name": "  "}, "name"),
        ({"pin": "111111"}, "pin"),
        ({"role": "king"}, "role"),
        ({"name": "‽‽"}, "name"),
        ({"name": "a\u202eb"}, "name"),
    ],
)
def test_people_that_cannot_be_are_refused_at_the_field(
    client: BenchClient, change: dict[str, str], field: str
) -> None:
    answer = client.as_person("tamsin").post("/api/people", json={**NEW, **change})
    assert answer.status_code == 422
    assert [error["field"] for error in answer.json()["errors"]] == [field]
    assert len(client.get("/api/people").json()) == len(PINS)


def test_a_role_is_changed_and_holds_at_once(client: BenchClient) -> None:
    assert client.post("/api/wrenches", json={}).status_code == 403
    client.as_person("tamsin").patch("/api/people/bede", json={"role": "lead"})
    assert client.post("/api/wrenches", json={}).status_code == 422


def test_the_last_lead_cannot_step_down_or_leave(client: BenchClient) -> None:
    tamsin = client.as_person("tamsin")
    for change in ({"role": "technician"}, {"active": False}):
        refused = tamsin.patch("/api/people/tamsin", json=change)
        assert refused.status_code == 409
        assert "only lead" in refused.json()["detail"]
    assert tamsin.patch("/api/people/bede", json={"role": "lead"}).status_code == 200
    assert tamsin.patch("/api/people/tamsin", json={"role": "technician"}).status_code == 200


def test_ones_own_pin_takes_the_present_one_and_ends_ones_other_devices(client: BenchClient) -> None:
    elsewhere = BenchClient(client.app).sign_in("bede")
    assert client.put("/api/people/bede/pin", json={"pin": "802613"}).status_code == 422
    wrong = client.put("/api/people/bede/pin", json={"pin": "802613", "present_pin": "000000"})
    assert wrong.status_code == 403
    assert client.get("/api/session").status_code == 200
    right = client.put("/api/people/bede/pin", json={"pin": "802613", "present_pin": PINS["bede"]})
    assert right.status_code == 200
    assert client.get("/api/session").status_code == 200
    assert elsewhere.get("/api/session").status_code == 401
    assert BenchClient(client.app).post("/api/session", json={"person": "bede", "pin": PINS["bede"]}).status_code == 401


def test_somebody_elses_pin_is_for_the_lead(client: BenchClient) -> None:
    ines = client.as_person("ines")
    assert client.put("/api/people/ines/pin", json={"pin": "802613"}).status_code == 403
    assert client.as_person("tamsin").put("/api/people/ines/pin", json={"pin": "802613"}).status_code == 200
    assert ines.get("/api/session").status_code == 401
    assert client.put("/api/people/nobody/pin", json={"pin": "802613"}).status_code == 403
    assert client.as_person("tamsin").put("/api/people/nobody/pin", json={"pin": "802613"}).status_code == 404


def test_an_authority_is_granted_with_its_end_and_taken_away(client: BenchClient) -> None:
    tamsin = client.as_person("tamsin")
    until = (datetime.now(UTC).date() + timedelta(days=90)).isoformat()
    granted = tamsin.put("/api/people/bede/authorisations/lifting", json={"until": until})
    assert granted.json()["authorisations"] == [
        {"authority": "lifting", "word": "lifting gear", "until": until, "holds": True}
    ]
    for bad in ("2020-01-01", "2099-01-01", "never"):
        assert tamsin.put("/api/people/bede/authorisations/lifting", json={"until": bad}).status_code == 422
    assert tamsin.put("/api/people/bede/authorisations/none", json={"until": until}).status_code == 422
    assert client.put("/api/people/bede/authorisations/lifting", json={"until": until}).status_code == 403
    assert tamsin.delete("/api/people/bede/authorisations/lifting").json()["authorisations"] == []


def test_a_signatory_whose_authority_ended_yesterday_signs_nothing(client: BenchClient) -> None:
    job = walk.numbered(client, "FN-0417")
    walk.walk(client, job, until="sign")
    ServerClock.ahead = timedelta()
    tamsin = client.as_person("tamsin")
    last = date.fromisoformat(person(tamsin, "tamsin")["authorisations"][1]["until"])
    body = {"id": str(uuid.uuid4()), "bench_time": f"{last}T10:00:00Z", "payload": walk.RELEASE, "pin": PINS["tamsin"]}
    after = datetime(last.year, last.month, last.day, tzinfo=UTC) + timedelta(days=1, seconds=1)
    with time_machine.travel(after, tick=False):
        device = BenchClient(client.app).sign_in("tamsin")
        refused = device.post(f"/api/jobs/{job}/entries", json=body)
        assert refused.status_code == 403
        assert f"the authority ended on {shown_day(last)}" in refused.json()["detail"]
    with time_machine.travel(after - timedelta(seconds=2), tick=False):
        device = BenchClient(client.app).sign_in("tamsin")
        assert device.post(f"/api/jobs/{job}/entries", json=body).status_code == 200


def test_a_signature_asks_for_the_pin_again_and_says_what_it_stood_on(client: BenchClient) -> None:
    job = walk.numbered(client, "FN-0417")
    walk.walk(client, job, until="sign")
    tamsin = client.as_person("tamsin")
    body = {"id": str(uuid.uuid4()), "bench_time": "2026-11-24T10:00:00Z", "payload": walk.RELEASE}
    bare = tamsin.post(f"/api/jobs/{job}/entries", json=body)
    assert bare.status_code == 422
    assert bare.json()["errors"][0]["field"] == "pin"
    wrong = tamsin.post(f"/api/jobs/{job}/entries", json={**body, "pin": PINS["bede"]})
    assert wrong.status_code == 403
    assert wrong.json()["type"] == "/problems/wrong-pin"
    assert tamsin.get("/api/session").status_code == 200
    view = tamsin.post(f"/api/jobs/{job}/entries", json={**body, "pin": PINS["tamsin"]}).json()
    until = person(tamsin, "tamsin")["authorisations"][1]["until"]
    told = walk.task_of(view, "sign")["recorded"]
    assert (
        told["signed"] == f"signed by PIN, authorised for lifting gear, valid to {shown_day(date.fromisoformat(until))}"
    )
    # Its time is the server's, whatever the bench's clock said; how far that was off stands beside it.
    assert told["when"][:10] == datetime.now(UTC).date().isoformat()
    log = tamsin.get(f"/api/jobs/{job}/log").json()
    assert log[-1]["clock_ahead_s"] < -120
    assert log[-1]["clock_in_doubt"] is True
    assert PINS["tamsin"] not in str(log)


def test_wrong_pins_at_a_signature_wait_too(client: BenchClient) -> None:
    job = walk.numbered(client, "FN-0417")
    payload = walk.SKIP

    def sign(pin: str) -> int:
        body = {"id": str(uuid.uuid4()), "bench_time": "2026-11-24T10:00:00Z", "payload": payload, "pin": pin}
        return client.post(f"/api/jobs/{job}/entries", json=body).status_code

    assert [sign("000000") for _ in range(6)] == [403] * 4 + [429] * 2
    assert sign(PINS["bede"]) == 429
    assert client.get(f"/api/jobs/{job}").json()["job"]["entry_count"] == 1


def test_a_new_name_does_not_rewrite_what_was_signed_under_the_old_one(client: BenchClient) -> None:
    job = walk.numbered(client, "FN-0417")
    send(client, job, {"kind": "step_done", "step": "isolate"})
    client.as_person("tamsin").patch("/api/people/bede", json={"name": "Bede Quillfeather-Rowe"})
    view = send(client, job, {"kind": "note_made", "text": "tagged"}).json()
    log = client.get(f"/api/jobs/{job}/log").json()
    assert [line["who_name"] for line in log[1:]] == ["Bede Harrowgate", "Bede Quillfeather-Rowe"]
    assert walk.task_of(view, "step:isolate")["recorded"]["who"] == "Bede Harrowgate"


def test_only_the_author_or_the_lead_strikes_an_entry(client: BenchClient) -> None:
    job, entry = walk.numbered(client, "FN-0417"), str(uuid.uuid4())
    send(client, job, {"kind": "step_done", "step": "isolate"}, entry=entry)
    strike = {"kind": "entry_struck", "entry": entry, "reason": "ticked by mistake"}
    refused = send(client, job, strike, who="ines")
    assert refused.status_code == 403
    assert refused.json()["type"] == "/problems/not-yours"
    assert send(client, job, strike, who="tamsin").status_code == 200
    other = str(uuid.uuid4())
    send(client, job, {"kind": "step_done", "step": "isolate"}, entry=other)
    assert send(client, job, {**strike, "entry": other}, who="bede").status_code == 200


def test_every_change_stands_on_the_trail_without_secrets(client: BenchClient) -> None:
    tamsin = client.as_person("tamsin")
    until = (datetime.now(UTC).date() + timedelta(days=30)).isoformat()
    tamsin.post("/api/people", json=NEW)
    tamsin.patch("/api/people/bede", json={"role": "stores", "active": True})
    tamsin.put("/api/people/ines/pin", json={"pin": "802613"})
    tamsin.put("/api/people/ines/badge", json={"badge": "04A1B2C3D4"})
    tamsin.put("/api/people/ines/authorisations/workshop", json={"until": until})
    tamsin.put("/api/shop-settings/squeeze_static_low", json={"value": 12})
    tamsin.delete("/api/shop-settings/squeeze_static_low")
    changes = tamsin.get("/api/trail").json()
    told = [(change["subject"], change["change"], change["before"], change["after"]) for change in reversed(changes)]
    assert told == [
        ("Osric Penhallow", "added", {}, {"name": "Osric Penhallow", "role": "technician"}),
        ("Bede Harrowgate", "changed", {"role": "technician"}, {"role": "stores"}),
        ("Ines Quillfeather", "PIN set", {}, {}),
        ("Ines Quillfeather", "badge given", {}, {}),
        ("Ines Quillfeather", "authority granted: workshop release", {}, {"until": until}),
        ("squeeze_static_low", "changed", {"value": 10}, {"value": 12}),
        ("squeeze_static_low", "back to the shipped value", {"value": 12}, {"value": 10}),
    ]
    assert {change["who"] for change in changes} == {"Tamsin Orrell"}
    assert not any(secret in str(changes) for secret in ("802613", "530917", "04A1B2C3D4", "argon2"))
    assert client.get("/api/trail").status_code == 403
    older = tamsin.get("/api/trail", params={"before": changes[2]["id"], "limit": 2}).json()
    assert [one["id"] for one in older] == [change["id"] for change in changes[3:5]]
