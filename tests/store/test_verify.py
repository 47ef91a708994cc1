"""The check command over all jobs: one that cannot be read never hides the others."""

from __future__ import annotations

import io
from uuid import uuid4

import pytest
from fastapi import FastAPI
from PIL import Image
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
    assert lines[-1] == f"{DEMO_JOBS} jobs checked, 1 broken; trail holds"
    # The snapshot still tells how it stands; its log is damaged, and says so wherever it is read.
    answer = client.get(f"/api/jobs/{first}/log")
    assert answer.status_code == 409
    assert answer.json()["type"] == "/problems/damaged-log"
    assert "Other jobs are not affected" in answer.json()["detail"]
    assert client.get(f"/api/jobs/{other}").status_code == 200
    assert client.get("/api/jobs").json()["total"] == DEMO_JOBS


# What somebody with the database may change beside the log, and the words it is found by.
CHANGED = {
    "UPDATE jobs SET serial = 'FN-9999' WHERE number = 1001": "the list shows another serial",
    "UPDATE jobs SET customer = 'others' WHERE number = 1001": "the list shows another customer",
    "UPDATE jobs SET released = NOT released WHERE number = 1001": "the list shows another released",
    "UPDATE jobs SET number = 9001 WHERE number = 1001": "the number is not what its intake sealed",
    "UPDATE jobs SET settings = '{\"uncertainty\": 9}' WHERE number = 1001": "the shop settings is not what its intake sealed",
    "UPDATE sheets SET document = jsonb_set(document, '{name}', '\"x\"')": "the build sheet is not what its intake sealed",
    "UPDATE samples SET run = 'another'": "stand under another run",
    "UPDATE photos SET thumb = decode('00', 'hex')": "shows something else",
    "UPDATE trail SET who = 'ines'": "trail",
    "DELETE FROM trail WHERE id = (SELECT min(id) FROM trail)": "trail",
}


@pytest.mark.parametrize("change", CHANGED)
def test_what_was_changed_beside_the_log_is_found(
    client: BenchClient,
    admin: Engine,
    database_url: str,
    monkeypatch: pytest.MonkeyPatch,
    capsys: pytest.CaptureFixture[str],
    change: str,
) -> None:
    tamsin = client.as_person("tamsin")
    for name in ("first", "second"):
        assert tamsin.post("/api/tokens", json={"name": name, "person": "bede"}).status_code == 200
    photo = Image.effect_noise((640, 480), 60).convert("RGB")
    content = io.BytesIO()
    photo.save(content, "JPEG")
    job = walk.numbered(client, "FN-0417")
    sent = client.post(f"/api/jobs/{job}/photos", params={"id": str(uuid4())}, content=content.getvalue())
    assert sent.status_code == 200, sent.text
    monkeypatch.setenv("KETTLE_DATABASE_URL", database_url)
    if change == next(iter(CHANGED)):
        # Without a change nothing is found.
        assert verify.main() == 0, capsys.readouterr().out
        capsys.readouterr()
    with admin.begin() as connection:
        connection.execute(text("SET LOCAL session_replication_role = replica"))
        assert connection.execute(text(change)).rowcount > 0
    assert verify.main() == 1
    assert CHANGED[change] in capsys.readouterr().out
