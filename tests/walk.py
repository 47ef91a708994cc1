"""The walker over the API: takes the next move, fills its asks, posts it, and repeats, as a script of the shop would."""

from __future__ import annotations

import uuid
from collections.abc import Callable, Mapping
from datetime import datetime
from types import SimpleNamespace
from typing import Any

from fastapi import FastAPI
from sqlalchemy import select
from sqlalchemy.orm import Session

from ironkettle.api.base import deps
from ironkettle.core.jobs import next_task, read_payload, tasks_of
from ironkettle.core.jobs.kinds.begin import begin_entry
from ironkettle.demo.walker import filled
from ironkettle.store.base import session_of
from ironkettle.store.jobs.cases import case_of, state_of
from ironkettle.store.jobs.logs import NewEntry, append_entry
from ironkettle.store.jobs.rows import JobRow
from ironkettle.store.shop.people import find_person
from ironkettle.store.shop.tables import shop_of
from tests.clock import ServerClock
from tests.people import PINS, BenchClient

WHEN = "2026-11-24T09:00:00+00:00"
View = dict[str, Any]
RELEASE = {"kind": "released", "remark": "Resealed and tested", "next_service": "in 12 months"}
SKIP = {"kind": "task_skipped", "task": "identify:gland-ring", "reason": "size stamped on the bag"}
SIGNING = {"released", "job_ended", "reopened", "task_skipped"}


def send(client: BenchClient, job: str, payload: dict[str, Any], who: str = "bede", entry: str | None = None) -> Any:
    """Post an entry as a person, with the PIN where it signs."""
    body = {"id": entry or str(uuid.uuid4()), "who": who, "bench_time": WHEN, "payload": payload}
    if payload["kind"] in SIGNING:
        body["pin"] = PINS[who]
    return client.as_person(who).post(f"/api/jobs/{job}/entries", params={"view": "full"}, json=body)


def next_of(view: View) -> dict[str, Any] | None:
    return next((task for task in view["tasks"] if task["status"] == "next"), None)


def task_of(view: View, key: str) -> dict[str, Any]:
    return next(task for task in view["tasks"] if task["key"] == key)


def payload_of(task: Mapping[str, Any], **given: Any) -> dict[str, Any]:
    """The payload of a task as the API told it, filled in."""
    asks = [
        SimpleNamespace(
            **{**ask, "read": SimpleNamespace(value=ask["read"])},
        )
        for ask in task["asks"]
    ]
    for ask in asks:
        ask.choices = [SimpleNamespace(key=choice["key"]) for choice in ask.choices]
    return filled(SimpleNamespace(entry=task["entry"], asks=asks), **given)  # type: ignore[arg-type]


def walk(
    client: BenchClient,
    job: str,
    *,
    until: str | None = None,
    found: Mapping[str, dict[str, Any]] | None = None,
    who: str = "bede",
    signer: str = "tamsin",
) -> View:
    """A job worked by its tasks to its release, or to the task named; ``found`` answers asks of tasks otherwise.

    Entry by entry as the API takes them, but in one transaction and without its answers: most tests only want a job at a point.
    """
    app = client.app
    assert isinstance(app, FastAPI)
    with session_of(app.state.engine) as session:
        shop, job_id = shop_of(session), uuid.UUID(job)
        row = session.get_one(JobRow, job_id)
        authors = {key: person.author() for key in {who, signer} if (person := find_person(session, key)) is not None}
        task = next_task(tasks_of(case_of(session, row, state_of(session, row), shop, authors[who], deps.now())))
        for _ in range(300):
            if task is None or task.key == until:
                break
            begun = task.lasts is None or task.until is not None
            if begun and task.lasts is not None:
                ServerClock.forward(task.lasts)
            by = authors[signer if task.kind.key in {"sign", "timer"} else who]
            payload = filled(task, **(found or {}).get(task.key, {})) if begun else begin_entry(task.key)
            entry = NewEntry(uuid.uuid4(), datetime.fromisoformat(WHEN), read_payload(payload))
            task = next_task(append_entry(session, job_id, entry, by, shop, deps.now()).tasks)
        else:
            raise AssertionError(f"not released; next is {task}")
    view: View = client.get(f"/api/jobs/{job}").json()
    return view


def walk_by_api(
    client: BenchClient,
    job: str,
    *,
    until: str | None = None,
    found: Mapping[str, dict[str, Any]] | None = None,
    who: str = "bede",
    signer: str = "tamsin",
    each: Callable[[View], None] = lambda view: None,
) -> View:
    """The same as a script of the shop would work it, each entry posted and answered."""
    view: View = client.get(f"/api/jobs/{job}").json()
    for _ in range(300):
        task = next_of(view)
        if task is None or task["key"] == until:
            return view
        wait_out(client, job, task, who)
        by = signer if task["kind"] in {"sign", "timer"} else who
        answer = send(client, job, payload_of(task, **(found or {}).get(task["key"], {})), who=by)
        assert answer.status_code == 200, (task["key"], answer.json())
        view = answer.json()
        each(view)
    raise AssertionError(f"not released; next is {next_of(view)}")


def wait_out(client: BenchClient, job: str, task: Mapping[str, Any], who: str = "bede") -> None:
    """Begin what takes time, unless its step has, and let the server's clock run it."""
    if task["needs"] is None:
        return
    if task["needs"]["until"] is None:
        answer = send(client, job, task["begin"], who)
        assert answer.status_code == 200, (task["key"], answer.json())
    ServerClock.forward(task["needs"]["seconds"])


def open_new(client: BenchClient, sheet: str, **intake: Any) -> str:
    """A job taken in on a sheet."""
    job = str(uuid.uuid4())
    told = {"unit": "Test unit", "serial": "FN-9999", "customer": "Lock Gate Workshop", "complaint": "It leaks", "fluid": "as the sheet says", "pressure": "1 bar"}  # fmt: skip
    body = {
        "id": job,
        "entry_id": str(uuid.uuid4()),
        "bench_time": WHEN,
        "sheet_key": sheet,
        "intake": {**told, **intake},
    }
    answer = client.post("/api/jobs", json=body)
    assert answer.status_code == 200, answer.json()
    return job


def numbered(client: BenchClient, serial: str) -> str:
    """The demo job with that serial."""
    return str(client.get("/api/jobs", params={"q": serial}).json()["jobs"][0]["id"])


def demo_job(session: Session) -> JobRow:
    """The row of the demo's ram that was just taken in."""
    return session.scalars(select(JobRow).where(JobRow.serial == "FN-0417")).one()
