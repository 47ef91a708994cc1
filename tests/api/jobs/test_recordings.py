"""Recording a run from the simulated stand over the API: to its verdict, two at once, and after a server that died."""

from __future__ import annotations

import os
import subprocess
import sys
import time
import uuid
from collections.abc import Callable, Iterator
from datetime import UTC, datetime
from typing import Any

import pytest
from fastapi import FastAPI
from sqlalchemy import Engine, select

from ironkettle.api.app import create_app
from ironkettle.api.machine.stand_records import recover_all
from ironkettle.config import PROJECT, Settings
from ironkettle.core.machine.stand import FIRST_CHUNK, SHIPPED, rows_text
from ironkettle.launch.machine import free_port
from ironkettle.store.base import session_of
from ironkettle.store.jobs.logs import check_log
from ironkettle.store.jobs.recordings import RecordedChunkRow, RecordingRow, broken_recordings, keep_chunk
from ironkettle.store.jobs.rows import find_job
from tests import walk
from tests.people import BenchClient

HOLD = "test:rod-side-hold:as_left"
PATIENCE_S = 60.0


@pytest.fixture(scope="module")
def stand() -> Iterator[int]:
    port = free_port()
    process = subprocess.Popen(
        [sys.executable, "-m", "ironkettle.stand.simulated", str(port)],
        env={**os.environ, "PYTHONPATH": str(PROJECT / "src")},
    )
    yield port
    process.terminate()
    process.wait(timeout=10)


@pytest.fixture
def bench(workshop: Engine, app: FastAPI, database_url: str, stand: int) -> Iterator[BenchClient]:
    """Bede at a bench with the simulated stand, in the event loop that all clients of a run share."""
    app = create_app(Settings(database_url=database_url, stand_port=stand))
    client = BenchClient(app).sign_in("bede")
    wait_for(lambda: client.get("/api/stand/reading").status_code == 200)
    assert client.post("/api/stand/panel", json={}).status_code == 200
    yield client
    assert BenchClient.loop is not None
    BenchClient.loop.call(app.state.recorder.close)
    app.state.engine.dispose()
    app.state.proving.dispose()


def wait_for(fits: Callable[[], Any]) -> Any:
    """Asks until it fits; a slow machine has a minute for it."""
    until = time.monotonic() + PATIENCE_S
    while time.monotonic() < until:
        if found := fits():
            return found
    raise AssertionError(f"it never came to that: {fits}")


def begun(client: BenchClient) -> tuple[str, str]:
    """A job at its hold with a run from the stand."""
    job = walk.open_new(client, "swing-bridge-ram")
    view = walk.walk(client, job, until=HOLD)
    run = str(uuid.uuid4())
    entry = walk.task_of(view, HOLD)["entry"]
    started = {
        "kind": "test_started",
        "test": "rod-side-hold",
        "run": run,
        "source": "stand",
        "gauge": entry["gauge"],
    }
    assert walk.send(client, job, started).status_code == 200
    return job, run


def recording(client: BenchClient, run: str) -> dict[str, Any]:
    told: dict[str, Any] = client.get(f"/api/stand/recordings/{run}").json()
    return told


def record(client: BenchClient, job: str, run: str, **more: Any) -> Any:
    return client.post("/api/stand/recordings", json={"job": job, "run": run, **more})


def test_a_run_is_recorded_by_the_server_and_sealed_into_the_log(bench: BenchClient, workshop: Engine) -> None:
    job, run = begun(bench)
    answer = record(bench, job, run)
    assert answer.status_code == 200, answer.text
    assert answer.json()["state"] == "waiting"
    wait_for(lambda: recording(bench, run)["count"] >= 8)
    # Nobody else moves the stand meanwhile, nor records on it, nor changes its map.
    other = bench.as_person("ines")
    for refused in (
        record(other, *begun(other)),
        other.post("/api/stand/hold", json={"pressure": "10 bar"}),
        other.post("/api/stand/let-down"),
        bench.as_person("tamsin").put("/api/stand/map", json=SHIPPED.model_dump(mode="json")),
    ):
        assert refused.status_code == 409, refused.text
        assert "Bede Harrowgate records job" in refused.json()["detail"]
    # Anybody sees the trace as it comes, and it can be stopped from any device.
    assert other.get(f"/api/jobs/{job}/runs/{run}").status_code == 200
    stopped = other.post(f"/api/stand/recordings/{run}/stop").json()
    assert (stopped["state"], stopped["kept"], stopped["goes_on"]) == ("ended", True, False)
    trace = bench.get(f"/api/jobs/{job}/runs/{run}").json()
    assert trace["count"] == stopped["count"] >= 8
    assert trace["points"][0]["pressure_mpa"] == pytest.approx(18.0, abs=0.1)
    view = bench.get(f"/api/jobs/{job}").json()
    (told,) = [one for one in view["runs"] if one["run"] == run]
    assert (told["count"], told["recording"]["state"]) == (stopped["count"], "ended")
    with session_of(workshop) as session:
        row = find_job(session, uuid.UUID(job))
        assert row is not None
        assert check_log(session, row) == []
    # Too short to be judged, it says by how much; and it can be gone on with while the stand still holds.
    refused = walk.send(bench, job, {"kind": "test_closed", "run": run, "collected": "0 ml"})
    assert "are needed" in refused.json()["detail"]
    assert record(bench, job, run, raise_first=False).status_code == 200
    wait_for(lambda: recording(bench, run)["count"] > stopped["count"])
    assert "continued after" in recording(bench, run)["said"][-1]
    assert bench.post(f"/api/stand/recordings/{run}/stop").status_code == 200
    times = [one["t_s"] for one in bench.get(f"/api/jobs/{job}/runs/{run}").json()["points"]]
    assert times == sorted(set(times))
    assert len(times) > stopped["count"]


def test_what_cannot_be_recorded_is_told(bench: BenchClient) -> None:
    job, run = begun(bench)
    assert record(bench, job, str(uuid.uuid4())).status_code == 404
    assert record(bench, str(uuid.uuid4()), run).status_code == 404
    assert record(bench, job, run, channel="force").json()["errors"][0]["field"] == "channel"
    typed = str(uuid.uuid4())
    entry = walk.task_of(bench.get(f"/api/jobs/{job}").json(), HOLD)["entry"]
    told = {"kind": "test_started", "test": "rod-side-hold", "run": typed, "source": "typed", "gauge": entry["gauge"]}
    walk.send(bench, job, told)
    assert record(bench, job, typed).json()["type"] == "/problems/other-source"
    walk.send(bench, job, {"kind": "test_closed", "run": run, "abandoned": True, "note": "the hose burst"})
    assert record(bench, job, run).json()["type"] == "/problems/run-closed"
    assert bench.get(f"/api/stand/recordings/{run}").status_code == 404
    assert bench.post(f"/api/stand/recordings/{run}/stop").status_code == 404


def test_a_panel_and_a_map_that_cannot_be_are_told(bench: BenchClient) -> None:
    answer = bench.post("/api/stand/panel", json={"settings": {"hole": 9, "wings": 1}})
    assert [one["field"] for one in answer.json()["errors"]] == ["settings.wings", "settings.hole"]
    assert "0 to 3 mm" in answer.json()["errors"][1]["accepts"]
    assert bench.post("/api/stand/panel", json={"rig": "rocket"}).status_code == 422
    assert bench.post("/api/stand/hold", json={"pressure": "-5 bar"}).status_code == 422
    lead = bench.as_person("tamsin")
    bad = SHIPPED.model_dump(mode="json")
    bad["channels"][0]["unit"] = "mm"
    answer = lead.put("/api/stand/map", json=bad)
    assert answer.status_code == 422
    assert "not a unit for it" in answer.json()["detail"]


def test_a_map_of_the_shops_own_is_kept_and_used(bench: BenchClient) -> None:
    lead = bench.as_person("tamsin")
    own = SHIPPED.model_dump(mode="json")
    own["channels"][0] |= {"name": "Cap side", "unit": "psi", "scale": 14.503773773, "high": 9000}
    own["rate_hz"] = 20
    assert lead.put("/api/stand/map", json=own).status_code == 200
    told = bench.get("/api/stand/map").json()
    assert (told["shipped"], told["map"]["rate_hz"]) == (False, 20)
    bench.post("/api/stand/hold", json={"pressure": "100 bar"})
    now = wait_for(
        lambda: (one := bench.get("/api/stand/reading").json())["pressure_mpa"] < 10.1 and one["held_s"] and one
    )
    assert now["channels"][0] == {
        "key": "pressure", "name": "Cap side", "reads": "pressure", "unit": "psi",
        "value": pytest.approx(1450, abs=15), "shown": now["channels"][0]["shown"],
    }  # fmt: skip
    assert now["pressure_mpa"] == pytest.approx(10, abs=0.1)
    assert lead.delete("/api/stand/map").status_code == 200
    assert bench.get("/api/stand/map").json()["shipped"]
    assert bench.get("/api/stand/reading").json()["channels"][0]["unit"] == "bar"
    assert [one["change"] for one in lead.get("/api/trail").json()[:2]] == ["shipped again", "changed"]


def left_by_a_dead_server(engine: Engine, job: str, run: str, seconds: int) -> None:
    """What is in the database when a server is killed while it records."""
    channels = [{"key": "pressure", "name": "Pressure", "unit": "MPa"}]
    now = datetime.now(UTC)
    with session_of(engine) as session:
        plan = {"channels": channels, "pressure": "pressure", "rate_hz": 1}
        session.add(
            RecordingRow(
                run=uuid.UUID(run), job_id=uuid.UUID(job), who="bede", plan=plan, hold=7, state="recording",
                started_at=now, said=[{"key": "spikes", "at": 3.0, "says": "Pressure jumped", "ends": False}],
            )
        )  # fmt: skip
        session.flush()
        before = FIRST_CHUNK
        for place in range(seconds):
            text = rows_text([(place + 0.2, 18.0), (place + 0.7, 17.999)])
            before = keep_chunk(session, uuid.UUID(run), place, text, before, now)


def test_a_server_that_died_leaves_an_interrupted_run_with_all_it_read(bench: BenchClient, workshop: Engine) -> None:
    job, run = begun(bench)
    left_by_a_dead_server(workshop, job, run, 30)
    # Before anybody recovers it, its readings are seen already.
    assert bench.get(f"/api/jobs/{job}/runs/{run}").json()["count"] == 60
    assert recover_all(workshop)
    assert recover_all(workshop)
    view = bench.get(f"/api/jobs/{job}").json()
    (told,) = [one for one in view["runs"] if one["run"] == run]
    assert (told["count"], told["hold"], told["recording"]["state"]) == (60, 7, "interrupted")
    assert told["recording"]["said"][0] == "Pressure jumped"
    assert "the server stopped after 30 s" in told["recording"]["said"][1]
    log = bench.get(f"/api/jobs/{job}/log").json()
    assert "Pressure jumped; the server stopped after 30 s" in log[-1]["words"]
    assert log[-1]["who"] == "bede"
    assert bench.get(f"/api/jobs/{job}/seal").json()["holds"]
    assert bench.get(f"/api/jobs/{job}/runs/{run}").json()["count"] == 60
    # The stand holds something else by now: the run does not go on as if nothing had been.
    bench.post("/api/stand/hold", json={"pressure": "180 bar"})
    wait_for(lambda: bench.get("/api/stand/reading").json()["held_s"])
    assert record(bench, job, run, raise_first=False).status_code == 200
    ended = wait_for(lambda: (one := recording(bench, run))["kept"] and one)
    assert "is on another hold" in ended["said"][-1]
    assert bench.get(f"/api/jobs/{job}/runs/{run}").json()["count"] == 60


def test_a_recording_somebody_changed_is_not_taken_into_the_log(
    bench: BenchClient, workshop: Engine, admin: Engine
) -> None:
    job, run = begun(bench)
    left_by_a_dead_server(workshop, job, run, 5)
    with admin.begin() as connection:
        connection.exec_driver_sql("SET LOCAL session_replication_role = replica")
        connection.exec_driver_sql(
            "UPDATE recorded_chunks SET text = replace(text, '17.999', '18.000') WHERE place = 2"
        )
    assert recover_all(workshop)
    (told,) = [one for one in bench.get(f"/api/jobs/{job}").json()["runs"] if one["run"] == run]
    assert told["count"] == 0
    assert "chunk 2 of the recording is not as it was written" in told["recording"]["said"][-1]
    with session_of(workshop) as session:
        assert broken_recordings(session, uuid.UUID(job)) == [
            f"recording {run[:8]} has another chunk 2 than was recorded"
        ]
        assert len(list(session.scalars(select(RecordedChunkRow)))) == 5


def test_a_job_ended_meanwhile_keeps_its_recording_beside_the_log(bench: BenchClient, workshop: Engine) -> None:
    job, run = begun(bench)
    left_by_a_dead_server(workshop, job, run, 5)
    walk.send(bench, job, {"kind": "test_closed", "run": run, "abandoned": True, "note": "the hose burst"})
    assert recover_all(workshop)
    (told,) = [one for one in bench.get(f"/api/jobs/{job}").json()["runs"] if one["run"] == run]
    assert "could not be put into the job's log" in told["recording"]["said"][-1]


def test_a_stand_that_was_away_leaves_nothing_behind_and_can_be_tried_again(
    client: BenchClient, bench: BenchClient
) -> None:
    job, run = begun(bench)
    # The application of the other tests has no stand.
    for _ in range(2):
        assert record(client, job, run).status_code == 503
        assert client.get(f"/api/stand/recordings/{run}").status_code == 404
    assert record(bench, job, run).status_code == 200
    wait_for(lambda: recording(bench, run)["count"] >= 1)
    assert bench.post(f"/api/stand/recordings/{run}/stop").json()["kept"]
