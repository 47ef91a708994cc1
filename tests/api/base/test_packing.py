"""What goes over the wire: packed, not sent again where nothing changed, and files that never change kept by the browser."""

from __future__ import annotations

from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from ironkettle.api.app import create_app
from ironkettle.config import Settings
from tests import walk
from tests.api.jobs.rams import ram, view_of
from tests.people import BenchClient

# What the issue of a job on the wire may weigh at most. [bytes]
MOST_JOB = 15_000


def test_a_job_is_packed_and_small(client: BenchClient) -> None:
    job = ram(client)
    answer = client.get(f"/api/jobs/{job}", headers={"Accept-Encoding": "gzip"})
    assert answer.headers["content-encoding"] == "gzip"
    assert int(answer.headers["content-length"]) <= MOST_JOB
    plain = client.get(f"/api/jobs/{job}", headers={"Accept-Encoding": "identity"})
    assert "content-encoding" not in plain.headers
    assert plain.json()["tasks"] == answer.json()["tasks"]


def test_a_job_that_did_not_change_is_not_sent_again(client: BenchClient) -> None:
    job = ram(client)
    first = client.get(f"/api/jobs/{job}")
    tag = first.headers["etag"]
    again = client.get(f"/api/jobs/{job}", headers={"If-None-Match": tag})
    assert (again.status_code, again.content, again.headers["etag"]) == (304, b"", tag)
    # The clock alone changes nothing; an entry does, and so does whoever asks.
    assert client.get(f"/api/jobs/{job}").json()["server_time"] != first.json()["server_time"]
    note = {"kind": "note_made", "text": "wet at the wiper"}
    walk.send(client, job, note)
    changed = client.get(f"/api/jobs/{job}", headers={"If-None-Match": tag})
    assert (changed.status_code, changed.headers["etag"] != tag) == (200, True)
    assert view_of(client, job)["job"]["entry_count"] == first.json()["job"]["entry_count"] + 1


def test_what_is_private_is_not_kept_by_the_browser(client: BenchClient) -> None:
    assert client.get(f"/api/jobs/{ram(client)}").headers["cache-control"] == "no-store"


@pytest.fixture
def built(tmp_path: Path) -> TestClient:
    """A server with an interface of its own: one file with a hash in its name, one without."""
    files = tmp_path / "_app" / "immutable"
    files.mkdir(parents=True)
    (files / "app.1f2e.js").write_text("let kettle = 1;\n" * 200)
    (tmp_path / "_app" / "version.json").write_text("{}")
    (tmp_path / "index.html").write_text("<!doctype html>")
    return TestClient(create_app(Settings(web_dir=tmp_path)), base_url="http://127.0.0.1")


def test_a_file_with_a_hash_in_its_name_is_kept_and_packed(built: TestClient) -> None:
    answer = built.get("/_app/immutable/app.1f2e.js")
    assert answer.headers["cache-control"] == "public, max-age=31536000, immutable"
    assert answer.headers["content-encoding"] == "gzip"
    assert answer.text.startswith("let kettle")
    assert "immutable" not in built.get("/_app/version.json").headers.get("cache-control", "")
    assert built.get("/").headers["cache-control"] == "no-cache"
