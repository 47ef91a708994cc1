"""Jobs that end without a release, copies onto a sister unit, and shop settings of the day a job was opened."""

from __future__ import annotations

import io
import uuid
from typing import Any

import pytest
from pypdf import PdfReader

from tests import walk
from tests.people import BenchClient

WHEN = "2026-11-24T09:00:00Z"


def certificate(client: BenchClient, job: str) -> str:
    content = client.get(f"/api/jobs/{job}/certificate.pdf").content
    return " ".join(" ".join(page.extract_text() for page in PdfReader(io.BytesIO(content)).pages).split())


def end(client: BenchClient, job: str, how: str = "scrapped", reason: str = "the barrel is cracked through") -> Any:
    return walk.send(client, job, {"kind": "job_ended", "how": how, "reason": reason})


@pytest.mark.parametrize(
    ("how", "words"),
    [("scrapped", "scrapped"), ("returned", "returned unrepaired"), ("cancelled", "cancelled")],
)
def test_a_job_ends_without_a_release_and_tells_what_was_found(client: BenchClient, how: str, words: str) -> None:
    job = walk.numbered(client, "FN-0416")
    view = end(client, job, how).json()
    assert (view["job"]["released"], view["job"]["ended"]) == (True, words)
    assert walk.next_of(view) is None
    assert view["statement"][0] == f"Not repaired, {words}: the barrel is cracked through"
    text = certificate(client, job)
    assert f"Not repaired, {words}" in text
    assert "not released for service" in text
    assert "Certificate of what was found" in text
    assert "Repair certificate" not in text
    assert "leak seen: open air" in text
    assert "DRAFT" not in text
    assert "Released and signed" not in text
    assert "fit for service" not in text
    # What was found stands on it.
    assert "missing" in text
    # Nothing more is taken, until somebody opens it again.
    assert walk.send(client, job, {"kind": "note_made", "text": "x"}).status_code == 409
    assert client.get("/api/jobs", params={"state": "open", "q": "FN-0416"}).json()["total"] == 0
    again = walk.send(client, job, {"kind": "reopened", "reason": "the owner wants it after all"}, who="tamsin").json()
    assert (again["job"]["released"], again["job"]["ended"]) == (False, "")
    assert walk.next_of(again) is not None


def test_an_end_is_a_signature_with_its_reason(client: BenchClient) -> None:
    job = walk.numbered(client, "FN-0416")
    payload = {"kind": "job_ended", "how": "scrapped", "reason": "cracked"}
    body = {"id": str(uuid.uuid4()), "bench_time": WHEN, "payload": payload}
    assert client.as_person("bede").post(f"/api/jobs/{job}/entries", json=body).status_code == 422
    assert client.as_person("bede").post(f"/api/jobs/{job}/entries", json={**body, "pin": "000000"}).status_code == 403
    assert end(client, job, reason="no").status_code == 422
    assert end(client, job, how="eaten").status_code == 422
    assert walk.send(client, job, payload, who="wystan").status_code == 403
    assert end(client, job).status_code == 200
    assert end(client, job).status_code == 409


def copy_of(client: BenchClient, source: str, sheet: str, **more: Any) -> Any:
    intake = {"unit": "The twin", "serial": "FN-0418", "customer": "bridges", "complaint": "as its twin", "fluid": "mineral oil ISO VG 46", "pressure": "180 bar"}  # fmt: skip
    body = {
        "id": str(uuid.uuid4()), "entry_id": str(uuid.uuid4()), "bench_time": WHEN, "sheet_key": sheet,
        "copied_from": source, "intake": intake, **more,
    }  # fmt: skip
    return client.post("/api/jobs", json=body)


def test_a_copy_proposes_sizes_and_tools_and_records_nothing(client: BenchClient) -> None:
    source = walk.numbered(client, "FN-0417")
    found = {"tighten:piston-nut:0:1": {"wrench": "w3-large"}}
    before = client.get(f"/api/jobs/{source}").json()
    size = walk.task_of(before, "identify:gland-ring")["asks"][0]["choices"][2]["key"]
    walk.walk(client, source, found={**found, "identify:gland-ring": {"size": size}})
    view = copy_of(client, source, "swing-bridge-ram").json()
    assert view["copied_from"] == before["job"]["number"]
    assert [task["key"] for task in view["tasks"] if task["status"] == "done"] == ["intake"]
    first = walk.task_of(view, "identify:gland-ring")["asks"][0]["choices"][0]
    assert first["key"] == size
    assert f"as on job {before['job']['number']}" in first["sign"]
    answer = walk.task_of(view, "answer:wire")["asks"][0]["choices"][0]
    assert f"as on job {before['job']['number']}" in answer["sign"]
    # Worked to its end it is a job of its own; the first is not touched.
    assert walk.walk(client, view["job"]["id"])["job"]["released"] is True
    assert client.get(f"/api/jobs/{source}").json()["job"]["entry_count"] > 0


def test_a_copy_is_of_the_same_sheet_and_says_of_which_version(client: BenchClient) -> None:
    source = walk.numbered(client, "FN-0417")
    other = copy_of(client, source, "header-tank-valve")
    assert (other.status_code, other.json()["errors"][0]["field"]) == (422, "sheet_key")
    assert copy_of(client, str(uuid.uuid4()), "swing-bridge-ram").status_code == 404
    text = client.get("/api/sheets/swing-bridge-ram/2/export").text
    newer = text.replace("version: 2", "version: 3", 1)
    assert client.as_person("tamsin").post("/api/sheets", json={"text": newer}).json()["state"] == "active"
    asked = copy_of(client, source, "swing-bridge-ram")
    (fault,) = asked.json()["errors"]
    assert fault["field"] == "sheet_version"
    assert fault["accepts"] == ["2", "3"]
    assert copy_of(client, source, "swing-bridge-ram", sheet_version=2).json()["job"]["sheet_version"] == 2
    assert copy_of(client, source, "swing-bridge-ram", sheet_version=3).json()["job"]["sheet_version"] == 3


def test_a_job_is_no_copy_of_itself_and_a_second_sending_changes_nothing(client: BenchClient) -> None:
    source, other = walk.numbered(client, "FN-0417"), walk.numbered(client, "FN-0416")
    key, entry = str(uuid.uuid4()), str(uuid.uuid4())
    itself = copy_of(client, key, "swing-bridge-ram", id=key, entry_id=entry)
    assert itself.json()["errors"][0]["field"] == "copied_from"
    first = copy_of(client, source, "swing-bridge-ram", id=key, entry_id=entry).json()
    again = copy_of(client, other, "swing-bridge-ram", id=key, entry_id=entry).json()
    assert again["copied_from"] == first["copied_from"] == client.get(f"/api/jobs/{source}").json()["job"]["number"]


def test_a_job_reads_the_shop_settings_of_the_day_it_was_opened(client: BenchClient) -> None:
    job = walk.open_new(client, "swing-bridge-ram", serial="FN-8001")
    lead = client.as_person("tamsin")
    assert lead.put("/api/shop-settings/practice_seals", json={"value": 1}).status_code == 200
    later = walk.open_new(client, "swing-bridge-ram", serial="FN-8002")

    def school(of: str) -> str:
        view = client.get(f"/api/jobs/{of}").json()
        return str(walk.task_of(view, "fit:rod-lip")["practice"]["way"])

    assert school(job) == "renew every seal"
    assert school(later) == "keep one that looks sound"
    assert "Seals: keep one that looks sound" in certificate(client, later)
    assert "Seals: renew every seal" in certificate(client, job)
