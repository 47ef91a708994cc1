"""A sheet that nobody who may has approved: what it changes, who approves it, who releases on it; and getting round it."""

from __future__ import annotations

import copy
from typing import Any
from uuid import UUID, uuid4

import pytest
import yaml
from sqlalchemy import Engine, text
from sqlalchemy.exc import DBAPIError

from tests.people import PINS, BenchClient
from tests.tiny import unit

DEMAND = unit("escape-set-regulator")
TANK = unit("header-tank-valve")


def send(client: BenchClient, document: object) -> dict[str, Any]:
    answer = client.post("/api/sheets", json={"text": yaml.safe_dump(document)})
    assert answer.status_code == 200, answer.text
    return dict(answer.json())


def newer(document: dict[str, Any], **changes: Any) -> dict[str, Any]:
    return {**copy.deepcopy(document), "version": document["version"] + 1, **changes}


def untested(document: dict[str, Any]) -> dict[str, Any]:
    """A newer version without any test, which says why nothing proves what is opened."""
    steps = [{name: value for name, value in step.items() if name != "runs"} for step in document["steps"]]
    stations = [{**station, "unproven": "it is not tested"} for station in document["stations"]]
    return newer(document, tests=[], steps=steps, stations=stations)


def opened(client: BenchClient, sheet: str, version: int | None = None, serial: str = "FN-9001") -> Any:
    body = {
        "id": str(uuid4()), "entry_id": str(uuid4()), "bench_time": "2026-11-24T09:00:00Z", "sheet_key": sheet,
        "sheet_version": version, "intake": {"unit": "Set", "serial": serial, "customer": "boats", "complaint": "heavy", "fluid": "air", "pressure": "4 bar"},
    }  # fmt: skip
    answer = client.post("/api/jobs", json=body)
    assert answer.status_code == 200, answer.text
    return answer.json()


def approve(client: BenchClient, who: str, document: dict[str, Any], pin: str | None = None) -> Any:
    path = f"/api/sheets/{document['key']}/{document['version']}/approve"
    return client.as_person(who).post(path, json={"pin": pin or PINS[who]})


def release(client: BenchClient, job: UUID | str, pin: str, who: str) -> Any:
    body = {"id": str(uuid4()), "bench_time": "2026-11-24T10:00:00Z", "pin": pin, "payload": {"kind": "released"}}
    return client.as_person(who).post(f"/api/jobs/{job}/entries", params={"view": "full"}, json=body)


def test_life_support_is_not_released_by_editing_its_sheet(client: BenchClient) -> None:
    """The way it was done: export, no authority, a higher version, import, open, sign with the own PIN."""
    lower = newer(DEMAND, authority="none")
    brought = send(client, lower)
    assert brought["state"] == "draft"
    first = brought["changes"][0]
    assert (first["path"], first["was"], first["now"], first["weight"], first["loosens"]) == (
        "authority", "life_support", "none", "safety", True,
    )  # fmt: skip
    # New jobs go on with the shop's version.
    assert opened(client, DEMAND["key"])["job"]["sheet_version"] == DEMAND["version"]
    job = opened(client, DEMAND["key"], lower["version"])
    assert job["draft_sheet"] is True
    assert job["signing"]["may_release"] is False
    assert "draft sheet" in job["signing"]["why_not"]
    assert "life support" in job["signing"]["authority"]
    assert any("draft sheet" in line for line in job["statement"])


@pytest.mark.parametrize(
    "changes",
    [
        {"key": "escape-set-two"},
        {"key": "set", "name": "Some set"},
        {"key": "set", "name": "Some set", "kits": [{**DEMAND["kits"][0], "number": "OTHER"}], "markings": []},
    ],
)
def test_nor_by_a_copy_under_another_key(client: BenchClient, changes: dict[str, Any]) -> None:
    copied = {**copy.deepcopy(DEMAND), "authority": "none", "version": 1, **changes}
    if "kits" in changes:
        copied["service"] = {**copied["service"], "cleanliness": "none"}
    assert send(client, copied)["state"] == "draft"
    # Even under other names throughout: the serial was worked on the guarded sheet before.
    opened(client, DEMAND["key"], serial="FN-9002")
    signing = opened(client, copied["key"], serial="fn9002")["signing"]
    assert (signing["may_release"], "life support" in signing["authority"]) == (False, True)


@pytest.mark.parametrize("changes", [{}, {"name": "Some set"}, {"name": "Some set", "markings": []}])
def test_nor_by_a_lead_who_copies_it_under_another_key(client: BenchClient, changes: dict[str, Any]) -> None:
    """Name, marking or kit number: it is the same unit, and who may not sign for it may not free it either."""
    tamsin = client.as_person("tamsin")
    copied = {**copy.deepcopy(DEMAND), "key": "escape-set-two", "authority": "workshop", "version": 1, **changes}
    # A copy that is as strict is the shop's at once.
    assert send(tamsin, {**copied, "key": "escape-set-three", "authority": "life_support"})["state"] == "active"
    brought = send(tamsin, copied)
    assert (brought["state"], "life support" in brought["needs"]) == ("draft", True)
    signing = opened(client, "escape-set-two")["signing"]
    assert (signing["may_release"], "life support" in signing["authority"]) == (False, True)
    # Tamsin is a holder, and nobody else is: with her PIN it becomes the shop's, on the trail.
    assert approve(client, "bede", copied).status_code == 403
    assert approve(client, "tamsin", copied).json()["state"] == "active"


def test_nor_is_what_is_breathed_from_free_of_authority(client: BenchClient) -> None:
    tamsin = client.as_person("tamsin")
    free = {
        **copy.deepcopy(TANK), "key": "mask-valve", "name": "Mask valve", "markings": [], "kits": [], "version": 1,
        "service": {**TANK["service"], "cleanliness": "breathing"},
    }  # fmt: skip
    free["kits"] = [{**TANK["kits"][0], "number": "MV-1"}]
    for station in free["stations"]:
        for element in (one for seat in station["seats"] for one in seat["elements"]):
            element["lubricant"] = "dry"
    assert send(tamsin, free)["state"] == "active"
    assert "breathing air" in opened(client, "mask-valve")["signing"]["authority"]


def test_a_draft_becomes_the_shops_by_somebody_who_may(client: BenchClient) -> None:
    named = newer(TANK, name="Header tank valve")
    brought = send(client, named)
    assert (brought["state"], brought["needs"]) == ("draft", "the workshop lead")
    (waiting,) = client.get("/api/sheets/drafts").json()
    assert (waiting["key"], waiting["version"], waiting["drafted_by"]) == (TANK["key"], 2, "Bede Harrowgate")
    assert waiting["why_not"] == "Bede Harrowgate may not approve this sheet; it needs the workshop lead"
    assert [(one["path"], one["loosens"]) for one in waiting["changes"]] == [("name", False)]
    assert approve(client, "bede", named).status_code == 403
    assert approve(client, "tamsin", named, pin="000000").json()["type"].endswith("wrong-pin")
    assert client.get("/api/sheets/drafts").json() != []
    assert approve(client, "tamsin", named).json()["state"] == "active"
    assert client.get("/api/sheets/drafts").json() == []
    assert approve(client, "tamsin", named).status_code == 409
    assert opened(client, TANK["key"])["job"]["sheet_version"] == 2
    last = client.as_person("tamsin").get("/api/trail").json()[0]
    assert (last["change"], last["who"], last["after"]["drafted by"]) == ("approved", "Tamsin Orrell", "bede")


def test_a_lead_brings_in_at_once_what_loosens_nothing(client: BenchClient) -> None:
    tamsin = client.as_person("tamsin")
    assert send(tamsin, newer(TANK, name="Tank valve"))["state"] == "active"
    assert (
        send(tamsin, {**TANK, "key": "tank-two", "name": "Tank two", "markings": [], "version": 1})["state"] == "active"
    )
    loose = send(tamsin, {**untested(TANK), "version": 3})
    assert loose["state"] == "draft"
    assert [one["path"] for one in loose["changes"] if one["loosens"]] == [
        "stations.end-seat.unproven", "stations.plunger-bore.unproven", "tests.fill",
    ]  # fmt: skip


def test_what_loosens_needs_a_second_person_where_the_shop_has_one(client: BenchClient) -> None:
    tamsin = client.as_person("tamsin")
    fewer = untested(TANK)
    send(tamsin, fewer)
    # Nobody else may, so her own signature counts.
    lead = tamsin.post("/api/people", json={"name": "Osric Penhallow", "role": "lead", "pin": "530917"})
    assert lead.status_code == 200, lead.text
    refused = approve(client, "tamsin", fewer)
    assert (refused.status_code, refused.json()["type"].rpartition("/")[2]) == (403, "second-person")
    tamsin.patch(f"/api/people/{lead.json()['key']}", json={"active": False})
    assert approve(client, "tamsin", fewer).status_code == 200


def test_no_role_of_the_application_changes_or_deletes_a_sheet(workshop: Engine, owner: Engine) -> None:
    changes = (
        "UPDATE sheets SET document = '{}'",
        "UPDATE sheets SET name = 'x'",
        "UPDATE sheets SET drafted_by = NULL, version = 9",
        "DELETE FROM sheets",
        "TRUNCATE sheets CASCADE",
    )
    for change in changes:
        with pytest.raises(DBAPIError, match="permission denied"), workshop.begin() as connection:
            connection.execute(text(change))
        with pytest.raises(DBAPIError, match="append-only"), owner.begin() as connection:
            connection.execute(text(change))


def test_a_sheet_changed_behind_a_job_is_noticed_at_once(client: BenchClient, admin: Engine) -> None:
    job = opened(client, DEMAND["key"])["job"]["id"]
    with admin.begin() as connection:
        connection.execute(text("SET LOCAL session_replication_role = replica"))
        connection.execute(
            text("UPDATE sheets SET document = jsonb_set(document, '{authority}', '\"none\"') WHERE key = :key"),
            {"key": DEMAND["key"]},
        )
    answer = client.get(f"/api/jobs/{job}")
    assert answer.status_code == 409
    assert "the build sheet of job" in answer.json()["detail"]
    assert release(client, job, PINS["tamsin"], "tamsin").status_code == 409
