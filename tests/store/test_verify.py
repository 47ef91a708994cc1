"""The check command over all jobs: one that cannot be read never hides the others."""

from __future__ import annotations

import pytest
from fastapi import FastAPI
from sqlalchemy import Engine, text

from ironkettle.store import verify
from tests import walk
from tests.people import BenchClient
from tests.tiny import DEMO_JOBS


def test_verify_tells_each_job_and_fails_on_a_broken_chain(
    workshop: Engine, database_url: str, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    monkeypatch.setenv("KETTLE_DATABASE_URL", database_url)
    assert verify.main() == 0
    assert capsys.readouterr().out.count("chain holds") == DEMO_JOBS
    with workshop.begin() as connection:
        connection.execute(
            text(
                "UPDATE snapshots SET state = jsonb_set(state, '{count}', '99') WHERE job_id = (SELECT id FROM jobs WHERE serial = 'FN-0417')"
            )
        )
    assert verify.main() == 1
    assert "its snapshot differed from its log and was dropped" in capsys.readouterr().out
    # It is no truth: without it the job stands as its log says.
    assert verify.main() == 0
    assert "1 entries, chain holds" in capsys.readouterr().out
    with workshop.begin() as connection:
        connection.execute(text("UPDATE jobs SET head = repeat('0', 64)"))
    assert verify.main() == 1
    assert "entries are missing at the end" in capsys.readouterr().out


@pytest.mark.parametrize("damage", ["sealed = '{'", "bench_time = 'infinity'", "seal_format = 77"])
def test_one_bad_row_stops_neither_verify_nor_another_job(
    client: BenchClient,
    app: FastAPI,
    admin: Engine,
    database_url: str,
    monkeypatch: pytest.MonkeyPatch,
    capsys: pytest.CaptureFixture[str],
    damage: str,
) -> None:
    first = walk.numbered(client, "FN-0417")
    other = walk.numbered(client, "FN-0416")
    with admin.begin() as connection:
        connection.execute(text("SET LOCAL session_replication_role = replica"))
        connection.execute(text(f"UPDATE entries SET {damage} WHERE job_id = :job"), {"job": first})
    monkeypatch.setenv("KETTLE_DATABASE_URL", database_url)
    assert verify.main() == 1
    lines = capsys.readouterr().out.splitlines()
    assert sum("chain holds" in line for line in lines) == DEMO_JOBS - 1
    assert lines[-1] == f"{DEMO_JOBS} jobs checked, 1 broken"
    # The snapshot still tells how it stands; its log is damaged, and says so wherever it is read.
    answer = client.get(f"/api/jobs/{first}/log")
    assert answer.status_code == 409
    assert answer.json()["type"] == "/problems/damaged-log"
    assert "Other jobs are not affected" in answer.json()["detail"]
    assert client.get(f"/api/jobs/{other}").status_code == 200
    assert client.get("/api/jobs").json()["total"] == DEMO_JOBS
