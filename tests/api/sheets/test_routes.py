"""Build sheets over the API: import with faults by path, versions, export."""

from __future__ import annotations

from typing import Any
from uuid import UUID, uuid4

import pytest
import yaml

from tests.people import BenchClient
from tests.tiny import UNITS, plug, sheet_of, unit

DOCUMENT = unit("swing-bridge-ram")
WITHDRAWN = {"active": False, "reason": "the maker changed the gland"}


def send(client: BenchClient, document: object) -> tuple[int, dict[str, Any]]:
    answer = client.post("/api/sheets", json={"text": yaml.safe_dump(document)})
    return answer.status_code, answer.json()


def test_a_sheet_with_what_follows_from_it(client: BenchClient) -> None:
    view = client.get("/api/sheets/swing-bridge-ram/2").json()
    assert view["name"] == DOCUMENT["name"]
    facing = {one["key"]: one["faces"] for station in view["orientation"]["stations"] for one in station["elements"]}
    assert (facing["rod-lip"], facing["piston-lip-cap"], facing["rod-wiper-ring"]) == (
        "rod_side",
        "cap_side",
        "outside",
    )
    assert view["tasks"]["release"] == 3


def test_import_reports_every_fault_and_stores_nothing(client: BenchClient) -> None:
    bad = {**DOCUMENT, "key": "other", "zones": DOCUMENT["zones"][1:]}
    status, body = send(client, bad)
    assert status == 422
    fields = [error["field"] for error in body["errors"]]
    assert "stations.0.between.0" in fields
    assert "tests.1.zones.0" in fields
    assert "other" not in [s["key"] for s in client.get("/api/sheets").json()]


def test_versions_are_kept_never_overwritten_and_compared(client: BenchClient) -> None:
    assert send(client, DOCUMENT)[0] == 200
    status, body = send(client, {**DOCUMENT, "name": "New name"})
    assert status == 409
    assert "raise the version number" in str(body["detail"])
    changed = {**DOCUMENT, "version": 3, "name": "New name", "disposal": DOCUMENT["disposal"][:1]}
    assert send(client.as_person("tamsin"), changed)[1]["state"] == "active"
    newest = {one["key"]: one["version"] for one in client.get("/api/sheets").json()}
    assert newest["swing-bridge-ram"] == 3
    assert {one["key"]: one["earlier"] for one in client.get("/api/sheets").json()}["swing-bridge-ram"] == [2]
    assert client.get("/api/sheets/swing-bridge-ram/2").json()["name"] == DOCUMENT["name"]
    assert client.get("/api/sheets/swing-bridge-ram/9").status_code == 404
    told = client.get("/api/sheets/swing-bridge-ram/3/changes", params={"since": 2}).json()
    assert {one["path"]: (one["before"], one["after"]) for one in told if one["path"] != "disposal"} == {
        "version": ("2", "3"), "name": (DOCUMENT["name"], "New name"),
    }  # fmt: skip
    assert [one["path"] for one in told] == ["version", "name", "disposal"]


@pytest.mark.parametrize(
    ("words", "found", "by"),
    [
        ("FN-K-5028", "swing-bridge-ram", "kit FN-K-5028"),
        ("50 28", "swing-bridge-ram", "bore 50 mm, rod 28 mm"),
        ("80,1 45", "loader-lift-ram", "bore 80 mm, rod 45 mm"),
        ("FILLING valve", "header-tank-valve", None),
        ("coupler", "dry-disconnect-coupler", None),
    ],
)
def test_a_sheet_is_found_by_what_stands_on_it(client: BenchClient, words: str, found: str, by: str | None) -> None:
    answer = client.get("/api/sheets/find", params={"q": words}).json()
    assert [one["key"] for one in answer] == [found]
    assert by in {None, answer[0]["by"]}


@pytest.mark.parametrize("words", ["50 29.5", "no such thing", "50 28 9"])
def test_a_sheet_that_is_not_meant_is_not_found(client: BenchClient, words: str) -> None:
    assert client.get("/api/sheets/find", params={"q": words}).json() == []


@pytest.mark.parametrize("key", sorted(path.stem for path in UNITS.glob("*.yaml")))
def test_export_reads_back_as_the_same_sheet(client: BenchClient, key: str) -> None:
    text = client.get(f"/api/sheets/{key}/{unit(key)['version']}/export").text
    assert client.post("/api/sheets", json={"text": text}).status_code == 200
    assert sheet_of(yaml.safe_load(text)) == sheet_of(unit(key))


def test_the_schema_is_of_the_format_that_is_taken(client: BenchClient) -> None:
    schema = client.get("/api/sheets/schema").json()
    assert schema["title"] == "Sheet"
    assert schema["properties"]["format"]["const"] == "iron-kettle/build-sheet/2"


def test_a_sheet_of_the_second_format_is_checked_without_being_stored(app_client: BenchClient) -> None:
    """Faults are an answer; zones and stations are told as the geometry has them."""
    answer = app_client.post("/api/sheets/check", json={"text": yaml.safe_dump(unit("header-tank-valve"))})
    assert answer.status_code == 200
    body = answer.json()
    assert body["faults"] == []
    assert {zone["key"] for zone in body["zones"]} == {"supply", "tank"}
    assert all(zone["area_mm2"] > 0 for zone in body["zones"])
    assert body["stations"] == [
        {"key": "end-seat", "parts_zones": True},
        {"key": "plunger-bore", "parts_zones": True},
    ]
    # Made safe once, two steps and two seals off, two in: counted on the sheet by hand.
    assert {key: body["moves"][key] for key in ("safe", "strip", "inspect", "kit", "rebuild")} == {
        "safe": 1, "strip": 4, "inspect": 3, "kit": 1, "rebuild": 4,
    }  # fmt: skip
    assert next(iter(body["moves"])) == "intake"
    bad = plug(zones__0__seeds=[{"at": [30, 15]}])
    body = app_client.post("/api/sheets/check", json={"text": yaml.safe_dump(bad)}).json()
    assert [fault["field"] for fault in body["faults"]] == ["zones.0.seeds.0"]
    assert app_client.post("/api/sheets/check", json={"text": "[1"}).json()["faults"][0]["field"] == "sheet"


def test_a_sheet_of_the_second_format_is_drawn_in_the_view_and_for_the_answers_asked(app_client: BenchClient) -> None:
    text = yaml.safe_dump(unit("dry-disconnect-coupler"))
    body = app_client.post("/api/sheets/picture", json={"text": text}).json()
    assert [view["key"] for view in body["views"]] == ["main", "shaft"]
    assert body["picture"]["view"] == "main"
    shaft = app_client.post("/api/sheets/picture", json={"text": text, "view": "shaft"}).json()["picture"]
    assert {element["key"] for element in shaft["elements"]} == {"outer-ring", "inner-ring", "sleeve", "shaft-ring"}
    answer = app_client.post("/api/sheets/picture", json={"text": text, "view": "top"})
    assert answer.status_code == 422
    assert answer.json()["errors"][0] == {
        "field": "view", "message": "“top” is not a view of this sheet", "accepts": ["main", "shaft"],
    }  # fmt: skip
    ram = yaml.safe_dump(unit("swing-bridge-ram"))
    asked = app_client.post("/api/sheets/picture", json={"text": ram, "answers": {"wire": "plain"}}).json()
    assert [(q["key"], q["answer"]) for q in asked["questions"]] == [("wire", "plain")]
    for answers in ({"wire": "rope"}, {"moon": "plain"}):
        assert app_client.post("/api/sheets/picture", json={"text": ram, "answers": answers}).status_code == 422
    assert app_client.post("/api/sheets/picture", json={"text": "[1"}).json()["picture"] is None


def opened(client: BenchClient, job: UUID, version: int | None = None) -> Any:
    """A job opened on the ram's sheet; sent twice it is the same."""
    body = {
        "id": str(job), "entry_id": str(UUID(int=job.int ^ 1)), "bench_time": "2026-11-24T09:00:00Z", "sheet_key": "swing-bridge-ram",
        "sheet_version": version, "intake": {"unit": "Gate ram", "serial": "FN-0419", "customer": "bridges", "complaint": "leaks", "fluid": "mineral oil ISO VG 46", "pressure": "180 bar"},
    }  # fmt: skip
    return client.post("/api/jobs", json=body)


def test_a_sheet_is_withdrawn_with_a_reason_and_put_back_with_its_trail(client: BenchClient) -> None:
    def listed(**query: bool) -> list[str]:
        return [one["key"] for one in client.get("/api/sheets", params=query).json()]

    def use(body: dict[str, Any]) -> Any:
        return client.as_person("tamsin").patch("/api/sheets/swing-bridge-ram", json=body)

    open_before = opened(client, uuid4())
    assert open_before.status_code == 200, open_before.text
    assert client.patch("/api/sheets/swing-bridge-ram", json=WITHDRAWN).status_code == 403
    without = use({"active": False})
    assert (without.status_code, without.json()["errors"][0]["field"]) == (422, "reason")
    assert use(WITHDRAWN).json() == WITHDRAWN
    assert "swing-bridge-ram" not in listed()
    assert "swing-bridge-ram" in listed(ended=True)
    found = client.get("/api/sheets/find", params={"q": "swing"}).json()
    assert "swing-bridge-ram" not in [one["key"] for one in found]
    refused = opened(client, uuid4())
    assert refused.status_code == 409
    assert "was withdrawn" in refused.json()["detail"]
    # The job that is open goes on, and sent once more it is not refused.
    job = open_before.json()["job"]["id"]
    assert client.get(f"/api/jobs/{job}").status_code == 200
    assert opened(client, UUID(job)).status_code == 200
    # Bringing the same version in again does not put it back.
    assert send(client, DOCUMENT)[0] == 200
    assert opened(client, uuid4()).status_code == 409
    assert use({"active": True}).status_code == 200
    assert opened(client, uuid4()).status_code == 200
    assert client.as_person("tamsin").patch("/api/sheets/no-such", json={"active": True}).status_code == 404
    assert use({}).status_code == 422
    trail = client.as_person("tamsin").get("/api/trail").json()
    assert [(one["noun"], one["subject"], one["change"]) for one in trail[:2]] == [
        ("sheet", "swing-bridge-ram", "put back"),
        ("sheet", "swing-bridge-ram", "withdrawn"),
    ]
    assert trail[1]["after"] == WITHDRAWN
