"""A job of before: its sheet of the first format, its log of the second seal format. It opens, holds, and goes on."""

from __future__ import annotations

import io
import uuid
from typing import Any

import pytest
from pypdf import PdfReader
from sqlalchemy import Engine

from ironkettle.keeping_up import keep_up_all
from ironkettle.store.base import session_of
from ironkettle.store.jobs.cases import folded, run_samples, state_of
from ironkettle.store.jobs.logs import check_log, snapshot_differs
from ironkettle.store.jobs.rows import EntryRow, JobRow
from ironkettle.store.sheets.rows import SheetRow
from tests import older, walk
from tests.people import BenchClient
from tests.tiny import DEMO_JOBS

JOB = uuid.UUID(int=300)
WHOLE = [older.INTAKE, *older.payloads(), older.RELEASE]


def put_in(engine: Engine, entries: list[dict[str, Any]]) -> None:
    """The rows as they stand in a database of that version after its migration."""
    rows = older.sealed(JOB, entries)
    with session_of(engine) as session:
        sheet = older.SHEET
        session.add(SheetRow(key=sheet["key"], version=1, name=sheet["name"], family="ram", document=sheet))
        session.flush()
        job = JobRow(id=JOB, sheet_key=sheet["key"], sheet_version=1, stage="tighten", entry_count=len(rows))
        job.head, job.opened_at, job.touched_at = rows[-1]["hash"], rows[0]["server_time"], rows[-1]["server_time"]
        session.add(job)
        session.flush()
        session.add_all(EntryRow(**row) for row in rows)
    keep_up_all(engine)


def test_a_released_job_opens_with_all_that_was_done_and_its_certificate(client: BenchClient, workshop: Engine) -> None:
    put_in(workshop, WHOLE)
    view = client.get(f"/api/jobs/{JOB}").json()
    assert (view["job"]["released"], view["job"]["stage"]) == (True, "release")
    assert view["statement"] == older.TOLD
    assert "rod lip seal was found reversed" in view["causes"][0]
    done = {task["key"]: task["recorded"]["words"] for task in view["tasks"] if task["recorded"]}
    assert done["identify:gland-ring"] == "size of the gland outer O-ring: AS568 224"
    assert done["tighten:port-flange:0:2"].startswith("Port flange")
    assert "1: 21 N·m, 3: 21 N·m, 2: 21 N·m, 4: 21 N·m with Small click wrench" in done["tighten:port-flange:0:2"]
    # Only what it never noted is open still.
    open_ = {task["key"] for task in view["tasks"] if task["status"] not in {"done", "skipped"}}
    assert all(key.startswith("observe:") or key == "account" for key in open_), open_
    log = client.get(f"/api/jobs/{JOB}/log").json()
    assert len(log) == len(WHOLE)
    assert [line["payload"] for line in log] == WHOLE
    assert client.get(f"/api/jobs/{JOB}/seal").json()["holds"] is True
    trace = client.get(f"/api/jobs/{JOB}/runs/{older.RUNS['rod-side-hold']}").json()
    assert trace["count"] == 60
    pages = PdfReader(io.BytesIO(client.get(f"/api/jobs/{JOB}/certificate.pdf").content)).pages
    text = " ".join(" ".join(page.extract_text() for page in pages).split())
    for wanted in ("Released and signed by Tamsin Orrell", older.TOLD[0], "AS568 224", "Hold on the rod side: PASS"):
        assert wanted in text
    with session_of(workshop) as session:
        job = session.get_one(JobRow, JOB)
        assert (check_log(session, job), snapshot_differs(session, job)) == ([], False)
        assert state_of(session, job) == folded(session, job)
        assert len(run_samples(session, JOB, older.RUNS["cap-side-hold"])) == 60


@pytest.mark.parametrize("count", [1, 12, 24, 40, len(WHOLE) - 2])
def test_a_job_that_was_open_goes_on_from_where_it_was(client: BenchClient, workshop: Engine, count: int) -> None:
    put_in(workshop, WHOLE[:count])
    view = walk.walk(client, str(JOB))
    assert view["job"]["released"] is True
    assert client.get(f"/api/jobs/{JOB}/seal").json()["holds"] is True


def test_a_job_whose_sheet_cannot_be_read_stops_neither_the_start_nor_the_others(
    client: BenchClient, workshop: Engine, capsys: pytest.CaptureFixture[str], monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(older, "SHEET", {"key": "odd", "name": "Odd", "version": 1})
    put_in(workshop, [older.INTAKE])
    assert "build sheet odd cannot be read by this version" in capsys.readouterr().err
    answer = client.get(f"/api/jobs/{JOB}")
    assert (answer.status_code, answer.json()["type"]) == (409, "/problems/sheet-unreadable")
    assert client.get("/api/jobs").json()["total"] == DEMO_JOBS + 1
    assert client.get(f"/api/jobs/{walk.numbered(client, 'FN-0417')}").status_code == 200


def test_a_stage_that_was_passed_over_stays_so(client: BenchClient, workshop: Engine) -> None:
    skipped = {"kind": "stage_skipped", "stage": "tighten", "reason": "tightened at the customer's", "grounds": None}
    put_in(workshop, [older.INTAKE, skipped])
    view = client.get(f"/api/jobs/{JOB}").json()
    assert {task["status"] for task in view["tasks"] if task["kind"] == "tighten"} == {"skipped"}
    assert "Went on without finishing tighten: tightened at the customer's." in view["statement"]
