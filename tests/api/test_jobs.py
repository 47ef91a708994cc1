"""Jobs over the API: the whole walk, refusals, resends, two people at once."""

from __future__ import annotations

import io
import threading
import uuid
from typing import Any

import pytest
from fastapi.testclient import TestClient
from pypdf import PdfReader

from tests import walk

WHEN = "2026-11-24T09:00:00+00:00"


def first_job(client: TestClient) -> str:
    return str(client.get("/api/jobs").json()[0]["id"])


def send(client: TestClient, job: str, payload: dict[str, Any], who: str = "bede", entry: str | None = None) -> Any:
    body = {"id": entry or str(uuid.uuid4()), "who": who, "bench_time": WHEN, "payload": payload}
    return client.post(f"/api/jobs/{job}/entries", json=body)


def work(client: TestClient, job: str, **options: Any) -> dict[str, Any]:
    view: dict[str, Any] = {}
    for payload in walk.payloads(**options):
        answer = send(client, job, payload)
        assert answer.status_code == 200, (payload, answer.json())
        view = answer.json()
    return view


def stage(view: dict[str, Any], name: str) -> dict[str, Any]:
    return next(report for report in view["stages"] if report["stage"] == name)


def test_whole_walk_ends_in_a_signed_certificate(client: TestClient) -> None:
    job = first_job(client)
    view = work(client, job)
    assert [r["stage"] for r in view["stages"] if r["status"] == "open"] == ["release"]
    reversed_ = [f for f in view["findings"] if f["code"] == "reversed"]
    assert "rod lip seal was found reversed" in reversed_[0]["message"]
    assert "likely cause of the leak" in reversed_[0]["message"]

    refused = send(client, job, walk.RELEASE, who="bede")
    assert refused.status_code == 409
    assert "authorised person" in refused.json()["detail"]
    released = send(client, job, walk.RELEASE, who="tamsin")
    assert released.status_code == 200
    assert released.json()["job"]["released"] is True

    after = send(client, job, {"kind": "note_made", "stage": "test", "text": "one more thing"})
    assert after.status_code == 409
    assert after.json()["type"] == "/problems/job-released"
    text = "\n".join(
        page.extract_text()
        for page in PdfReader(io.BytesIO(client.get(f"/api/jobs/{job}/certificate.pdf").content)).pages
    )
    for wanted in ("FN-0417", "AS568 224", "202 N·m", "PASS", "Released and signed by Tamsin Orrell", "found reversed"):
        assert wanted in text
    assert "NOT RELEASED" not in text


def test_a_leaking_unit_cannot_be_released(client: TestClient) -> None:
    job = first_job(client)
    # By hand: 0.28 bar/s on 420 ml at K = 1.3 GPa is 420 · 0.028 MPa/s · 60 s/min / 1300 MPa = 0.543 ml/min.
    view = work(client, job, leak_bar_per_s=0.28)
    run = view["runs"][0]["analysis"]
    assert run["leak_rate_ml_min"] == pytest.approx(0.543, rel=0.01)
    assert run["verdict"] == "fail"
    refused = send(client, job, walk.RELEASE, who="tamsin")
    assert refused.status_code == 409
    assert "leaks more than 0.5 ml/min" in refused.json()["detail"]


def test_reopening_needs_a_reason_and_lets_work_go_on(client: TestClient) -> None:
    job = first_job(client)
    work(client, job)
    send(client, job, walk.RELEASE, who="tamsin")
    assert send(client, job, {"kind": "reopened", "reason": ""}).status_code == 422
    reopened = send(client, job, {"kind": "reopened", "reason": "customer found a scratch"})
    assert reopened.json()["job"]["released"] is False
    assert send(client, job, {"kind": "note_made", "stage": "test", "text": "looked again"}).status_code == 200


def test_resending_changes_nothing(client: TestClient) -> None:
    job, entry = first_job(client), str(uuid.uuid4())
    payload = {"kind": "step_done", "step": "isolate"}
    first = send(client, job, payload, entry=entry).json()
    again = send(client, job, payload, entry=entry)
    assert again.status_code == 200
    assert again.json()["job"]["entry_count"] == first["job"]["entry_count"] == 2
    assert again.json()["head"] == first["head"]
    other = send(client, job, {"kind": "step_done", "step": "bleed"}, entry=entry)
    assert other.status_code == 409


def test_two_people_at_once_lose_nothing(client: TestClient) -> None:
    job = first_job(client)
    answers: list[int] = []

    def write(who: str) -> None:
        for number in range(10):
            payload = {"kind": "note_made", "stage": "strip", "text": f"{who} {number}"}
            answers.append(send(client, job, payload, who=who).status_code)

    threads = [threading.Thread(target=write, args=(who,)) for who in ("bede", "ines")]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert answers == [200] * 20
    view = client.get(f"/api/jobs/{job}").json()
    assert len(view["notes"]) == 20
    assert [line["seq"] for line in view["log"]] == list(range(1, 22))
    assert client.get(f"/api/jobs/{job}/seal").json()["holds"] is True
    since = client.get(f"/api/jobs/{job}/log", params={"after": 15}).json()
    assert [entry["seq"] for entry in since] == list(range(16, 22))


@pytest.mark.parametrize(
    ("payload", "status", "field", "words"),
    [
        ({"kind": "step_done", "step": "nonsense"}, 422, "step", "not a step"),
        ({"kind": "step_done", "step": "bleed"}, 409, None, "first: Isolate the supply"),
        ({"kind": "element_found", "element": "rod-lip", "present": True}, 409, None, "make it safe first"),
        ({"kind": "note_made", "stage": "strip", "text": "a\x00b"}, 422, "payload.note_made.text", "NUL"),
        ({"kind": "test_closed", "run": str(uuid.uuid4())}, 422, "run", "no such test run"),
        ({"kind": "stage_skipped", "stage": "safe", "reason": "no"}, 422, "payload.stage_skipped.reason", "at least 5"),
        ({"kind": "element_fitted", "element": "rod-lip", "faces": "outside"}, 422, "faces", "reversed"),
        (
            {"kind": "element_fitted", "element": "rod-lip", "faces": "rod_side", "reused": True},
            422,
            "reused",
            "one use",
        ),
        ({"kind": "kit_counted", "line": "k-nut", "counted": -1}, 422, "payload.kit_counted.counted", "greater than"),
        (
            {"kind": "kit_counted", "line": "k-nut", "counted": 1, "decision": "unused"},
            422,
            "decision",
            "no alternative",
        ),
        (walk.tightened("piston-nut", 1, 1, "12 N·m", walk.LARGE), 422, "reading", "trusted"),
        (walk.tightened("piston-nut", 1, 1, "12 bar", walk.LARGE), 422, None, "a torque is wanted"),
        (walk.tightened("piston-nut", 1, 2, "200 N·m", walk.LARGE), 422, "number", "has 1 fasteners"),
        ({"kind": "made_up"}, 422, "payload", "does not match"),
    ],
)
def test_refusals_name_the_field_and_leave_the_log_alone(
    client: TestClient, payload: dict[str, Any], status: int, field: str | None, words: str
) -> None:
    job = first_job(client)
    answer = send(client, job, payload)
    assert answer.status_code == status, answer.json()
    body = answer.json()
    assert answer.headers["content-type"] == "application/problem+json"
    assert words in body["detail"]
    if field is not None:
        assert field in [error["field"] for error in body["errors"]]
    assert client.get(f"/api/jobs/{job}").json()["job"]["entry_count"] == 1


def test_unknown_people_and_jobs_are_named(client: TestClient) -> None:
    job = first_job(client)
    stranger = send(client, job, {"kind": "step_done", "step": "isolate"}, who="nobody")
    assert stranger.status_code == 422
    assert stranger.json()["errors"][0]["field"] == "who"
    assert "bede" in stranger.json()["errors"][0]["accepts"]
    assert client.get(f"/api/jobs/{uuid.uuid4()}").status_code == 404
    assert client.get("/api/jobs/99999999999999999999").status_code == 422
    assert client.get(f"/api/jobs/{job}/log", params={"after": 10**30}).status_code == 422


def test_opening_a_job_twice_opens_it_once(client: TestClient) -> None:
    body = {
        "id": str(uuid.uuid4()),
        "entry_id": str(uuid.uuid4()),
        "sheet_key": walk.SHEET,
        "who": "ines",
        "bench_time": WHEN,
        "intake": {
            "unit": "Swing bridge latch ram, west abutment",
            "serial": "FN-0418",
            "customer": "Fennimoor Navigation, bridges",
            "complaint": "weeps",
            "fluid": "mineral oil ISO VG 46",
            "pressure": "2600 psi",
        },
    }
    assert client.post("/api/jobs", json=body).status_code == 200
    assert client.post("/api/jobs", json=body).status_code == 200
    assert len(client.get("/api/jobs").json()) == 2
    body |= {"id": str(uuid.uuid4()), "entry_id": str(uuid.uuid4())}
    body["intake"] = {**body["intake"], "pressure": "300 bar"}  # type: ignore[dict-item]
    over = client.post("/api/jobs", json=body)
    assert over.status_code == 422
    assert over.json()["errors"][0]["field"] == "pressure"
    assert len(client.get("/api/jobs").json()) == 2


def test_striking_out_keeps_the_entry_and_undoes_its_effect(client: TestClient) -> None:
    job, entry = first_job(client), str(uuid.uuid4())
    send(client, job, {"kind": "step_done", "step": "isolate"}, entry=entry)
    struck = send(client, job, {"kind": "entry_struck", "entry": entry, "reason": "ticked by mistake"}).json()
    assert struck["steps"] == {}
    assert next(line["struck"] for line in struck["log"] if line["id"] == entry) == "ticked by mistake"
    assert stage(struck, "safe")["done"] == 0
    again = send(client, job, {"kind": "entry_struck", "entry": entry, "reason": "ticked by mistake"})
    assert again.status_code == 409


def test_draft_certificate_says_so(client: TestClient) -> None:
    content = client.get(f"/api/jobs/{first_job(client)}/certificate.pdf").content
    assert "NOT RELEASED" in PdfReader(io.BytesIO(content)).pages[0].extract_text()
