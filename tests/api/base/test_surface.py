"""The open surface: host names, origins, headers, sizes; nothing is read or written past them."""

from __future__ import annotations

import uuid

import pytest
from fastapi import FastAPI

from ironkettle.api.base.bounds import MEGABYTE, limit_of
from ironkettle.api.base.surface import content_policy, host_of
from tests import walk
from tests.people import BenchClient

OWN = "http://127.0.0.1:8440"


@pytest.mark.parametrize(
    ("host", "status"),
    [
        ("127.0.0.1:8440", 200),
        ("127.0.0.1", 200),
        ("LOCALHOST:8440", 200),
        ("[::1]:8440", 200),
        ("evil.test", 421),
        ("evil.test:8440", 421),
        ("127.0.0.1.evil.test", 421),
        ("localhost@evil.test", 421),
        ("localhost:8440@evil.test", 421),
        ("", 421),
        ("[::1", 421),
        ("a" * 5000, 421),
    ],
)
def test_only_listed_host_names_are_answered(app_client: BenchClient, host: str, status: int) -> None:
    for path in ("/api/people", "/", "/favicon.svg"):
        answer = app_client.get(path, headers={"Host": host})
        assert answer.status_code == status or (status == 200 and answer.status_code == 404), (path, host)
    assert status == 200 or "“Other devices” in the guide" in app_client.get("/api/people", headers={"Host": host}).text


@pytest.mark.parametrize(
    ("headers", "status"),
    [
        ({}, 200),
        ({"Origin": OWN}, 200),
        ({"Sec-Fetch-Site": "same-origin"}, 200),
        ({"Sec-Fetch-Site": "none"}, 200),
        ({"Origin": "http://evil.test"}, 403),
        ({"Origin": "http://127.0.0.1:8441"}, 403),
        ({"Origin": "https://127.0.0.1:8440"}, 403),
        ({"Origin": "http://127.0.0.1:8440.evil.test"}, 403),
        ({"Origin": "null"}, 403),
        ({"Origin": ""}, 403),
        ({"Sec-Fetch-Site": "cross-site"}, 403),
        ({"Sec-Fetch-Site": "same-site"}, 403),
    ],
)
def test_a_write_comes_from_a_page_of_this_server_or_from_none(
    client: BenchClient, headers: dict[str, str], status: int
) -> None:
    job = walk.numbered(client, "FN-0417")
    note = {"kind": "note_made", "text": "wet at the wiper"}
    body = {"id": str(uuid.uuid4()), "bench_time": "2026-11-24T09:00:00Z", "payload": note}
    assert client.post(f"/api/jobs/{job}/entries", json=body, headers=headers).status_code == status
    assert client.get(f"/api/jobs/{job}", headers=headers).json()["job"]["entry_count"] == (2 if status == 200 else 1)


def test_every_answer_carries_the_headers(app_client: BenchClient) -> None:
    for path in ("/api/people", "/api/nothing", "/api/jobs", "/"):
        headers = app_client.get(path).headers
        assert headers["x-content-type-options"] == "nosniff"
        assert headers["x-frame-options"] == "DENY"
        policy = headers["content-security-policy"]
        assert "frame-ancestors 'none'" in policy
        assert "unsafe-inline" not in policy.split("script-src")[1].split(";")[0]
        if path.startswith("/api"):
            assert headers["cache-control"] == "no-store"
    assert app_client.get("/api/people", headers={"Host": "evil.test"}).headers["x-content-type-options"] == "nosniff"


def test_only_the_scripts_of_the_page_as_built_may_run() -> None:
    # SHA-256 of "let a = 1", base64, with openssl.
    page = "<html><script>let a = 1</script><script src='/x.js'></script></html>"
    scripts = content_policy(page).split("script-src ")[1].split(";")[0]
    assert scripts == "'self' 'sha256-LAfYd7pbFUgwfQu8b4q135PeTG2z+/coPEUYCd74eCQ='"


def test_host_of() -> None:
    assert host_of("Bench.Local:80") == "bench.local"
    assert host_of("[2001:db8::1]:8440") == "2001:db8::1"
    assert host_of("a b") == "a b"
    assert host_of("[x") == ""


@pytest.mark.parametrize(
    ("path", "most"),
    [
        ("/api/rings/match", MEGABYTE),
        ("/api/session", MEGABYTE),
        (f"/api/jobs/{uuid.uuid4()}/entries", 4 * MEGABYTE),
        ("/api/tests/analyse", 4 * MEGABYTE),
        ("/api/sheets", 2 * MEGABYTE),
    ],
)
def test_a_body_is_bounded_before_it_is_looked_at(app_client: BenchClient, path: str, most: int) -> None:
    assert limit_of(path) == most
    # Neither claimed nor sent in parts without a claim.
    for content in (b" " * (most + 1), iter([b" " * most, b" "])):
        answer = app_client.post(path, content=content, headers={"Content-Type": "application/json"})
        assert answer.status_code == 413, path
        assert answer.json()["type"] == "/problems/too-large"
    just = app_client.post(path, content=b" " * most, headers={"Content-Type": "application/json"})
    assert just.status_code in {401, 422}


def test_the_page_is_asked_for_anew_each_time(app: FastAPI) -> None:
    answer = BenchClient(app).get("/")
    assert answer.status_code != 200 or answer.headers["cache-control"] == "no-cache"


@pytest.mark.parametrize("text", ["a\x07b", "a\u202eb", "a\x1b[31m", "a\x85b", "a\uffff"])
def test_control_characters_reach_no_label(client: BenchClient, text: str) -> None:
    job = walk.numbered(client, "FN-0417")
    intake = {
        "kind": "intake_recorded", "unit": "ram", "serial": text, "customer": "bridges", "complaint": "leaks",
        "fluid": "mineral oil ISO VG 46", "pressure": "180 bar",
    }  # fmt: skip
    body = {"id": str(uuid.uuid4()), "bench_time": "2026-11-24T09:00:00Z", "payload": intake}
    answer = client.post(f"/api/jobs/{job}/entries", json=body)
    assert answer.status_code == 422
    assert "control character" in answer.json()["detail"]


@pytest.mark.parametrize(
    "when",
    ["0001-01-01T00:00:00+14:00", "9999-12-31T23:59:59.999999-14:00", "1999-12-31T23:00:00Z", "2099-01-01T00:00:00Z"],
)
def test_bench_times_of_a_broken_clock_are_refused_and_harm_nothing(client: BenchClient, when: str) -> None:
    job = walk.numbered(client, "FN-0417")
    note = {"kind": "note_made", "text": "wet at the wiper"}
    body = {"id": str(uuid.uuid4()), "bench_time": when, "payload": note}
    answer = client.post(f"/api/jobs/{job}/entries", json=body)
    assert answer.status_code == 422
    assert answer.json()["errors"][0]["field"] == "bench_time"
    assert client.get(f"/api/jobs/{job}").json()["job"]["entry_count"] == 1


def test_minus_zero_does_not_break_the_chain(client: BenchClient) -> None:
    job = walk.numbered(client, "FN-0417")
    walk.walk(client, job, until="test:rod-side-hold:as_left")
    gauge = {"name": "Digital gauge", "range": "250 bar", "resolution": "0.1 bar", "accuracy_pct": 0.5}
    run = str(uuid.uuid4())
    started = {"kind": "test_started", "test": "rod-side-hold", "run": run, "gauge": gauge, "source": "typed"}
    sample = {"t_s": -0.0, "pressure_mpa": -0.0, "temperature_c": -0.0}
    for payload in (started, {"kind": "test_samples", "run": run, "samples": [sample]}):
        body = {"id": str(uuid.uuid4()), "bench_time": "2026-11-24T09:00:00Z", "payload": payload}
        assert client.post(f"/api/jobs/{job}/entries", json=body).status_code == 200
    assert client.get(f"/api/jobs/{job}/seal").json()["holds"] is True


def test_an_entry_with_a_huge_number_is_refused_not_failed_at(client: BenchClient) -> None:
    job = walk.numbered(client, "FN-0417")
    text = (
        '{"id": "' + str(uuid.uuid4()) + '", "bench_time": "2026-11-24T09:00:00Z", "payload":'
        ' {"kind": "part_arrived", "what": "k-nut", "counted": 1' + "0" * 4999 + "}}"
    )
    answer = client.post(f"/api/jobs/{job}/entries", content=text, headers={"Content-Type": "application/json"})
    assert answer.status_code in {400, 422}


def test_what_is_wrong_with_a_whole_body_names_no_field(client: BenchClient) -> None:
    answer = client.as_person("tamsin").put(
        "/api/stand/map",
        json={"channels": [{"key": "p", "name": "Force", "reads": "force", "unit": "N", "register_at": 0}]},
    )
    assert answer.status_code == 422
    (fault,) = answer.json()["errors"]
    assert (fault["field"], fault["message"]) == ("", "no channel reads a pressure; a hold is judged by one")
