"""A job over the API: what is refused, resent, released, reopened."""

from __future__ import annotations

import random
import threading
import uuid
from typing import Any

import pytest

from tests import walk
from tests.api.jobs.rams import ram, view_of
from tests.clock import ServerClock
from tests.people import BenchClient
from tests.walk import WHEN, payload_of, send, task_of

LIP = "find:rod-lip"


def test_a_reversed_lip_is_told_with_what_comes_of_it_and_cannot_be_fitted_so(client: BenchClient) -> None:
    job = ram(client)
    view = walk.walk(client, job, until="fit:rod-lip", found={LIP: {"faced": "outside"}})
    assert ["rod lip seal was found reversed" in cause for cause in view["causes"]] == [True]
    lies = next(one for one in view["drawn"] if one["element"] == "rod-lip")
    assert lies == {"element": "rod-lip", "state": "off", "faces": "outside", "wrong": True}
    refused = send(client, job, payload_of(task_of(view, "fit:rod-lip"), faces="outside"))
    assert refused.status_code == 422
    assert (
        "reversed: the rod lip seal goes with its open lips towards the pressure it holds" in refused.json()["detail"]
    )
    assert refused.json()["type"] == "/problems/reversed"
    fitted = send(client, job, payload_of(task_of(view, "fit:rod-lip"))).json()
    assert task_of(fitted, "fit:rod-lip")["status"] == "done"
    # As found stays what it was.
    assert fitted["causes"] == view["causes"]


def test_a_unit_that_leaks_is_not_released_and_says_so(client: BenchClient) -> None:
    job = ram(client)
    view = walk.walk(client, job, until="test:rod-side-hold:as_left")
    task = task_of(view, "test:rod-side-hold:as_left")
    tight = payload_of(task)["samples"]
    # By hand: 0.55 bar/s on 420 ml at K = 1.3 GPa is 420 · 0.055 MPa/s · 60 s/min / 1300 MPa = 1.066 ml/min.
    falling = [s | {"pressure_mpa": round(max(18.0 - 0.055 * s["t_s"], 0.0), 4)} for s in tight if s["t_s"] < 120]
    view = send(client, job, payload_of(task, collected="2.1 ml") | {"samples": falling}).json()
    judged = view["runs"][0]["judgement"]
    assert judged["verdict"] in {"fail", "invalid"}
    assert task_of(view, task["key"])["status"] == "next"
    assert "not tested as required" in view["statement"][0]
    refused = send(client, job, {"kind": "released"}, who="tamsin")
    assert refused.status_code == 409
    assert "Hold on the rod side" in refused.json()["detail"]


def test_a_test_stands_no_more_once_the_unit_was_worked_on_after_it(client: BenchClient) -> None:
    job = ram(client)
    view = walk.walk(client, job, until="account")
    assert task_of(view, "test:rod-side-hold:as_left")["status"] == "done"
    view = send(client, job, payload_of(task_of(view, "fit:rod-lip"))).json()
    assert task_of(view, "test:rod-side-hold:as_left")["status"] == "next"
    assert "passed, and the unit was worked on after it" in " ".join(view["statement"])


def test_samples_stay_out_of_the_answer_and_come_when_they_are_asked_for(client: BenchClient) -> None:
    job = ram(client)
    view = walk.walk(client, job, until="test:rod-side-hold:as_left")
    run = str(uuid.uuid4())
    gauge = task_of(view, "test:rod-side-hold:as_left")["entry"]["gauge"]
    started = {"kind": "test_started", "test": "rod-side-hold", "run": run, "gauge": gauge, "source": "typed"}
    assert send(client, job, started).status_code == 200
    # A gauge that is alive: it stands between two of its steps.
    chance = random.Random(5)
    read = [{"t_s": float(t), "pressure_mpa": chance.choice((18.0, 18.01)), "temperature_c": 24.0} for t in range(5000)]
    # Two parts of the run, the first over the length of one stored chunk.
    for part in (read[:4500], read[4500:]):
        view = send(client, job, {"kind": "test_samples", "run": run, "samples": part}).json()
    told = view["runs"][0]
    assert (told["count"], told["held_s"], told["closed"]) == (5000, 4999.0, False)
    assert "samples" not in told
    assert len(str(view)) < 200_000
    trace = client.get(f"/api/jobs/{job}/runs/{run}").json()
    out = client.get(f"/api/jobs/{job}/runs/{run}/trace.csv")
    assert out.headers["content-type"].startswith("text/csv")
    back = client.post("/api/tests/read-csv", json={"text": out.text}).json()["samples"]
    assert trace["count"] == 5000
    assert [s["t_s"] for s in back] == [s["t_s"] for s in read]
    # What is drawn is thinned, from the first to the last.
    drawn = [s["t_s"] for s in trace["points"]]
    assert (len(drawn) <= 1500, drawn[0], drawn[-1]) == (True, 0.0, 4999.0)
    # The pressure passes, and the glass at the open port is still to be read.
    assert trace["analysis"]["verdict"] == "undecided"
    assert trace["analysis"]["findings"][0]["code"] == "glass-unread"
    backwards = send(client, job, {"kind": "test_samples", "run": run, "samples": [read[10]]})
    assert backwards.status_code == 422
    assert "does not come after 4999 s" in backwards.json()["detail"]
    view = send(client, job, {"kind": "test_closed", "run": run, "collected": "0 ml"}).json()
    assert view["runs"][0]["judgement"]["verdict"] == "pass"
    assert client.get(f"/api/jobs/{job}/seal").json()["holds"] is True
    assert client.get(f"/api/jobs/{job}/runs/{uuid.uuid4()}").status_code == 404


def test_reopening_needs_a_reason_and_lets_work_go_on(client: BenchClient) -> None:
    job = ram(client)
    walk.walk(client, job)
    after = send(client, job, {"kind": "note_made", "text": "one more thing"})
    assert (after.status_code, after.json()["type"]) == (409, "/problems/job-released")
    assert send(client, job, {"kind": "reopened", "reason": ""}).status_code == 422
    assert send(client, job, {"kind": "reopened", "reason": "customer found a scratch"}).status_code == 403
    reopened = send(client, job, {"kind": "reopened", "reason": "customer found a scratch"}, who="tamsin")
    assert reopened.json()["job"]["released"] is False
    assert send(client, job, {"kind": "note_made", "text": "looked again"}).status_code == 200


def test_a_release_needs_the_authority_of_the_sheet(client: BenchClient) -> None:
    job = ram(client)
    view = walk.walk(client, job, until="sign")
    assert view["signing"]["may_release"] is False
    refused = send(client, job, payload_of(task_of(view, "sign")))
    assert refused.status_code == 403
    assert "a named person authorised for lifting gear" in refused.json()["detail"]
    assert send(client, job, payload_of(task_of(view, "sign")), who="tamsin").json()["job"]["released"] is True


def test_what_is_there_against_a_danger_is_passed_over_on_a_ground_and_signed_by_the_lead(client: BenchClient) -> None:
    job = ram(client)
    skip: dict[str, Any] = {"kind": "task_skipped", "task": "step:bleed", "reason": "came in pieces"}
    bare = send(client, job, skip)
    assert bare.status_code == 422
    assert "Never feel for a leak with your hand" in bare.json()["detail"]
    view = send(client, job, skip | {"grounds": "never_live"}).json()
    assert task_of(view, "step:bleed")["status"] == "skipped"
    view = walk.walk(client, job)
    assert "never under pressure; came in pieces" in " ".join(view["statement"])


def test_resending_changes_nothing(client: BenchClient) -> None:
    job, entry = ram(client), str(uuid.uuid4())
    payload = {"kind": "note_made", "text": "once"}
    first = send(client, job, payload, entry=entry).json()
    again = send(client, job, payload, entry=entry)
    assert again.status_code == 200
    assert again.json()["job"]["entry_count"] == first["job"]["entry_count"] == 2
    assert again.json()["head"] == first["head"]
    assert send(client, job, payload | {"text": "other"}, entry=entry).status_code == 409
    # What the server adds to an entry, and the samples it keeps beside it, make no other of it.
    view = walk.walk(client, job, until="test:rod-side-hold:as_left")
    told, run = payload_of(task_of(view, "test:rod-side-hold:as_left")), str(uuid.uuid4())
    assert send(client, job, told, entry=run).status_code == send(client, job, told, entry=run).status_code == 200
    assert send(client, job, told | {"samples": told["samples"][:-1]}, entry=run).status_code == 409


def test_two_people_at_once_lose_nothing_and_are_told_of_each_other(client: BenchClient) -> None:
    job = ram(client)
    answers: list[int] = []

    def write(who: str) -> None:
        for number in range(10):
            answers.append(send(client, job, {"kind": "note_made", "text": f"{who} {number}"}, who=who).status_code)

    threads = [threading.Thread(target=write, args=(who,)) for who in ("bede", "ines")]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert answers == [200] * 20
    log = client.get(f"/api/jobs/{job}/log").json()
    assert [line["seq"] for line in log] == list(range(1, 22))
    assert client.get(f"/api/jobs/{job}/seal").json()["holds"] is True
    since = client.get(f"/api/jobs/{job}/log", params={"after": 15}).json()
    assert [entry["seq"] for entry in since] == list(range(16, 22))
    body = {"id": str(uuid.uuid4()), "bench_time": WHEN, "payload": {"kind": "note_made", "text": "here"}, "seen": 1}
    told = client.post(f"/api/jobs/{job}/entries", json=body).json()["meanwhile"]
    assert {one["who"] for one in told} == {"Ines Quillfeather"}
    assert len(told) == 10


@pytest.mark.parametrize(
    ("payload", "status", "field", "words"),
    [
        ({"kind": "step_done", "step": "nonsense"}, 422, "step", "not a step"),
        ({"kind": "step_done", "step": "rod-out"}, 409, None, "first: "),
        ({"kind": "element_found", "element": "rod-lip", "present": True, "faced": "outside", "signs": "none"}, 409, None, "first: "),
        ({"kind": "note_made", "text": "a\x00b"}, 422, "payload.note_made.text", "NUL"),
        ({"kind": "test_closed", "run": str(uuid.uuid4())}, 422, "run", "no such test run"),
        ({"kind": "task_skipped", "task": "step:isolate", "reason": "no"}, 422, "payload.task_skipped.reason", "needs 5"),
        ({"kind": "stage_skipped", "stage": "safe", "reason": "long enough"}, 422, "stage", "one task at a time"),
        ({"kind": "element_fitted", "element": "rod-lip", "faces": "outside"}, 422, "faces", "reversed"),
        ({"kind": "element_fitted", "element": "rod-lip", "reused": True}, 422, "reused", "one use"),
        ({"kind": "kit_counted", "kit": "FN-K-1", "lines": [{"line": "x", "counted": 1}]}, 422, "kit", "not a kit"),
        ({"kind": "kit_counted", "kit": "FN-K-5028", "lines": [{"line": "k-lip-cap", "counted": -1}]}, 422, None, "must be 0"),
        ({"kind": "entry_struck", "entry": str(uuid.uuid4()), "reason": "a mistake"}, 422, "entry", "no such entry"),
        ({"kind": "released"}, 409, None, "first: "),
        ({"kind": "made_up"}, 422, "payload", "is none of these"),
    ],
)  # fmt: skip
def test_refusals_name_the_field_and_leave_the_log_alone(
    client: BenchClient, payload: dict[str, Any], status: int, field: str | None, words: str
) -> None:
    job = ram(client)
    answer = send(client, job, payload)
    assert answer.status_code == status, answer.json()
    body = answer.json()
    assert answer.headers["content-type"] == "application/problem+json"
    assert words in body["detail"]
    if field is not None:
        assert field in [error["field"] for error in body["errors"]]
    assert view_of(client, job)["job"]["entry_count"] == 1


def test_a_wrench_is_the_one_of_the_list_whatever_is_sent(client: BenchClient) -> None:
    job = ram(client)
    view = walk.walk(client, job, until="tighten:piston-thread:0:1")
    task = task_of(view, "tighten:piston-thread:0:1")
    # The smallest that reaches 180 N·m stands first.
    assert next(choice["key"] for choice in task["asks"][0]["choices"]) == "w3-large"
    short = send(client, job, payload_of(task, wrench="w1-small"))
    assert short.status_code == 422
    assert "Small click wrench reads from 5 N·m to 25 N·m" in short.json()["detail"]
    invented = {"name": "Mine", "low": "1 N·m", "high": "999 N·m", "accuracy_pct": 1}
    view = send(client, job, payload_of(task) | {"wrench_used": invented}).json()
    told = client.get(f"/api/jobs/{job}/log").json()[-1]
    assert told["payload"]["wrench_used"]["name"] == "Large click wrench"
    assert told["payload"]["wrench_used"]["calibration"] == "FN-T 2613"


def test_an_entry_answers_with_what_it_changed_and_the_whole_view_where_asked(client: BenchClient) -> None:
    """Laid over the view from before, the answer to each entry of a walk is the view as it is now."""
    job = walk.numbered(client, "FN-0417")
    view = client.get(f"/api/jobs/{job}").json()
    for _ in range(100):
        task = walk.next_of(view)
        if task is None or task["key"] == "sign":
            break
        who = "tamsin" if task["kind"] == "timer" else "bede"
        begun = task["needs"] is None or task["needs"]["until"] is not None
        if begun and task["needs"] is not None:
            ServerClock.forward(task["needs"]["seconds"])
        payload = walk.payload_of(task) if begun else task["begin"]
        body = {"id": str(uuid.uuid4()), "who": who, "bench_time": WHEN, "payload": payload, "seen": 1}
        answer = client.as_person(who).post(f"/api/jobs/{job}/entries", json=body).json()
        assert set(answer) == {"seq", "state", "tasks", "meanwhile"}
        assert answer["seq"] == view["job"]["entry_count"] + 1
        view = {**view, **answer["state"], "tasks": answer["tasks"]}
        now = client.as_person(who).get(f"/api/jobs/{job}").json()
        assert view | {"server_time": ""} == now | {"server_time": ""}
    assert view["job"]["stage"] == "release"
    # Sent again it is told as before, and nothing is recorded twice.
    again = client.as_person(who).post(f"/api/jobs/{job}/entries", params={"view": "full"}, json=body).json()
    assert again["seq"] == answer["seq"]
    assert set(again) == {*view, "seq", "meanwhile"}
    assert again["job"] == view["job"]
    wrong = client.post(f"/api/jobs/{job}/entries", params={"view": "half"}, json=body)
    assert wrong.status_code == 422
    assert wrong.json()["errors"][0]["field"] == "view"
