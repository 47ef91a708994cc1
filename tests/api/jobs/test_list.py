"""Jobs are found, listed, opened twice, struck out and told in words."""

from __future__ import annotations

import io
import uuid
from datetime import UTC, datetime, timedelta
from typing import Any
from uuid import UUID

import pytest
import time_machine
from pypdf import PdfReader
from sqlalchemy import Engine, text

from tests import walk
from tests.api.jobs.rams import ram, view_of
from tests.people import BenchClient
from tests.tiny import DEMO_JOBS
from tests.walk import WHEN, send, task_of


def test_unknown_jobs_are_named(client: BenchClient) -> None:
    job = ram(client)
    for reference in (uuid.uuid4(), "99999999999999999999", "424242", "nothing"):
        assert client.get(f"/api/jobs/{reference}").status_code == 404, reference
    assert client.get(f"/api/jobs/{job}/log", params={"after": 10**30}).status_code == 422


def test_a_job_opens_by_its_number(client: BenchClient) -> None:
    view = view_of(client, ram(client))
    assert client.get(f"/api/jobs/{view['job']['number']}").json()["job"] == view["job"]


def test_the_list_is_found_by_words_and_comes_in_pages(client: BenchClient) -> None:
    def asked(**params: Any) -> dict[str, Any]:
        found: dict[str, Any] = client.get("/api/jobs", params=params).json()
        return found

    assert asked()["total"] == DEMO_JOBS
    assert {job["serial"] for job in asked(q="swing ABUTMENT")["jobs"]} == {"FN-0416", "FN-0417"}
    assert asked(q="no such thing")["total"] == 0
    assert asked(q="100%")["total"] == 0
    assert asked(state="released")["total"] == 3
    number = asked(q="FN-0417")["jobs"][0]["number"]
    assert [job["serial"] for job in asked(q=str(number))["jobs"]] == ["FN-0417"]
    seen: list[str] = []
    after = None
    for _ in range(3):
        page = asked(limit=-(-DEMO_JOBS // 3), **({"after": after} if after else {}))
        assert page["total"] == DEMO_JOBS
        seen += [job["id"] for job in page["jobs"]]
        after = page["next"]
    assert after is None
    assert len(set(seen)) == DEMO_JOBS
    assert seen == [job["id"] for job in asked()["jobs"]]
    assert client.get("/api/jobs", params={"after": "nonsense"}).status_code == 422
    for words in ("a\x00b", "\u202e"):
        told = client.get("/api/jobs", params={"q": words})
        assert told.status_code == 422
        assert "plain text is wanted" in told.json()["detail"]


def test_the_list_by_filter_stage_family_person_and_day(client: BenchClient) -> None:
    def serials(**params: Any) -> set[str]:
        answer = client.get("/api/jobs", params={"limit": 200, **params})
        assert answer.status_code == 200, answer.text
        return {job["serial"] for job in answer.json()["jobs"]}

    # A star washer that was ordered; a ring still to be ordered is work, and a timer long out is no waiting.
    assert serials(only="parts") == {"FN-7710"}
    assert serials(only="timer") == set()
    listed = client.get("/api/jobs", params={"limit": 200, "state": "open"}).json()
    name = client.get("/api/session").json()["name"]
    assert serials(only="mine") == {job["serial"] for job in listed["jobs"] if job["touched_by"] == name}
    assert serials(only="to_sign") == {
        job["serial"] for job in listed["jobs"] if job["next_need"] == "Sign and release"
    }
    for only in ("mine", "parts", "timer", "to_sign", "overdue", "week"):
        assert listed["counts"][only] == len(serials(only=only)), only
    assert listed["counts"]["open"] == listed["total"]
    assert serials(stage="kit") == {"FN-3310", "FN-7710"}
    assert serials(family="regulator") < serials()
    assert serials(family="valve").isdisjoint(serials(family="cylinder"))
    assert serials(state="open", who="Ines Quillfeather", stage="inspect") == {"FN-0755"}
    choices = client.get("/api/jobs/choices").json()
    assert set(choices["families"]) <= set(client.get("/api/sheets/choices").json()["families"])
    assert {"key": "kit", "name": "Kit check"} in choices["stages"]
    assert "Ines Quillfeather" in choices["people"]
    # Promised for tomorrow, and for a day that has passed since.
    day = datetime.now(UTC).date()
    soon = walk.open_new(
        client,
        "header-tank-valve",
        serial="FN-2231",
        fluid="fresh water",
        pressure="4 bar",
        promised=str(day + timedelta(days=1)),
    )
    assert client.get(f"/api/jobs/{soon}").json()["job"]["promised"] == str(day + timedelta(days=1))
    assert serials(only="week") == {"FN-2231"}
    assert serials(only="overdue") == set()
    intake = {
        "unit": "x",
        "serial": "FN-1",
        "customer": "y",
        "complaint": "z",
        "fluid": "fresh water",
        "pressure": "4 bar",
        "promised": "2020-02-29",
    }
    body = {
        "id": str(uuid.uuid4()),
        "entry_id": str(uuid.uuid4()),
        "sheet_key": "header-tank-valve",
        "bench_time": WHEN,
        "intake": intake,
    }
    past = client.post("/api/jobs", json=body)
    assert past.status_code == 422
    assert past.json()["errors"][0]["field"] == "promised"
    for bad in ({"only": "moon"}, {"sort": "moon"}):
        assert client.get("/api/jobs", params=bad).status_code == 422
    with time_machine.travel(datetime.now(UTC) + timedelta(days=3), tick=True):
        late = BenchClient(client.app).sign_in("bede")  # type: ignore[arg-type]
        (overdue,) = late.get("/api/jobs", params={"only": "overdue"}).json()["jobs"]
        assert (overdue["serial"], overdue["overdue"], overdue["age"]) == ("FN-2231", True, "3 d")
        # What is promised soonest stands first, what is promised for no day last.
        by_day = late.get("/api/jobs", params={"state": "open", "sort": "promised"}).json()["jobs"]
        assert by_day[0]["serial"] == "FN-2231"


@pytest.mark.parametrize(
    ("sort", "key"),
    [
        ("unit", lambda job: (job["unit"].casefold(), job["id"])),
        ("opened", lambda job: (job["opened_at"], job["id"])),
        ("promised", lambda job: (job["promised"] or "9999", job["id"])),
    ],
)
def test_pages_in_another_order_hold_each_job_once(client: BenchClient, sort: str, key: Any) -> None:
    seen: list[dict[str, Any]] = []
    after: dict[str, Any] = {}
    while True:
        page = client.get("/api/jobs", params={"state": "open", "sort": sort, "limit": 4, **after}).json()
        seen += page["jobs"]
        if page["next"] is None:
            break
        after = {"after": page["next"]}
    assert len({job["id"] for job in seen}) == len(seen) == page["total"]
    assert [job["id"] for job in seen] == [job["id"] for job in sorted(seen, key=key)]


def test_a_serial_is_known_with_its_open_jobs(client: BenchClient) -> None:
    (unit,) = client.get("/api/jobs/known", params={"serial": " fn-0416"}).json()
    assert (unit["sheet_key"], unit["serial"]) == ("swing-bridge-ram", "FN-0416")
    assert [job["serial"] for job in unit["open_jobs"]] == ["FN-0416"]
    assert client.get("/api/jobs/known", params={"serial": "FN-9999"}).json() == []
    assert unit["earlier"] == []
    assert client.get("/api/jobs/known", params={"serial": ""}).status_code == 422


def test_a_serial_is_known_with_its_last_repairs_and_an_open_job_however_old(
    client: BenchClient, admin: Engine
) -> None:
    told = {"serial": "FN-7700", "customer": "Weir Keepers", "fluid": "fresh water"}
    forgotten = walk.open_new(client, "header-tank-valve", complaint="drips", **told)
    jobs = [walk.open_new(client, "header-tank-valve", complaint=f"drips, {n}", **told) for n in range(5)]
    with admin.begin() as connection:
        ended = text("UPDATE jobs SET released = true, ended = 'released' WHERE id = ANY(:jobs)")
        connection.execute(ended, {"jobs": [UUID(job) for job in jobs]})
    (unit,) = client.get("/api/jobs/known", params={"serial": "FN-7700"}).json()
    assert [job["id"] for job in unit["open_jobs"]] == [forgotten]
    assert [job["complaint"] for job in unit["earlier"]] == ["drips, 4", "drips, 3", "drips, 2"]
    assert all(job["released"] and not job["again"] for job in unit["earlier"])


@pytest.mark.parametrize("words", ["FN0417", "fn 0417", "FN.0417", "fn-04-17", "0417"])
def test_a_serial_is_found_however_it_is_written(client: BenchClient, words: str) -> None:
    assert "FN-0417" in {job["serial"] for job in client.get("/api/jobs", params={"q": words}).json()["jobs"]}


def test_words_that_stand_for_others_are_taken_as_they_are(client: BenchClient) -> None:
    for words in ("FN_0417", "FN%0417", "F\\N-0417", "%", "_"):
        assert client.get("/api/jobs", params={"q": words}).json()["total"] == 0, words


def test_opening_a_job_twice_opens_it_once(client: BenchClient) -> None:
    body = {
        "id": str(uuid.uuid4()), "entry_id": str(uuid.uuid4()), "sheet_key": "swing-bridge-ram", "bench_time": WHEN,
        "intake": {
            "unit": "Swing bridge latch ram", "serial": "FN-0418", "customer": "Fennimoor Navigation, bridges",
            "complaint": "weeps", "fluid": "mineral oil ISO VG 46", "pressure": "2600 psi",
        },
    }  # fmt: skip
    assert client.post("/api/jobs", json=body).status_code == 200
    assert client.post("/api/jobs", json=body).status_code == 200
    assert client.get("/api/jobs").json()["total"] == DEMO_JOBS + 1
    body |= {"id": str(uuid.uuid4()), "entry_id": str(uuid.uuid4())}
    over = client.post("/api/jobs", json=body | {"intake": {**body["intake"], "pressure": "300 bar"}})  # type: ignore[dict-item]
    assert over.status_code == 422
    assert over.json()["errors"][0]["field"] == "pressure"
    assert client.get("/api/jobs").json()["total"] == DEMO_JOBS + 1


def test_striking_out_keeps_the_entry_and_undoes_its_effect(client: BenchClient) -> None:
    job = ram(client)
    view = walk.walk(client, job, until="step:bleed")
    entry = task_of(view, "step:isolate")["recorded"]["entry"]
    struck = send(client, job, {"kind": "entry_struck", "entry": entry, "reason": "ticked by mistake"}).json()
    assert task_of(struck, "step:isolate")["status"] == "next"
    line = next(line for line in client.get(f"/api/jobs/{job}/log").json() if line["id"] == entry)
    assert (line["struck"], line["strikable"]) == ("ticked by mistake", False)
    again = send(client, job, {"kind": "entry_struck", "entry": entry, "reason": "ticked by mistake"})
    assert again.status_code == 409
    first = client.get(f"/api/jobs/{job}/log").json()[0]
    intake = send(client, job, {"kind": "entry_struck", "entry": first["id"], "reason": "the only intake"})
    assert (intake.status_code, intake.json()["type"]) == (409, "/problems/last-intake")
    other = send(client, job, {"kind": "note_made", "text": "mine"}, who="ines").json()
    last = client.as_person("ines").get(f"/api/jobs/{job}/log").json()[-1]
    assert other["job"]["entry_count"] == last["seq"]
    assert send(client, job, {"kind": "entry_struck", "entry": last["id"], "reason": "not mine"}).status_code == 403
    mine = {"kind": "entry_struck", "entry": last["id"], "reason": "the lead may"}
    assert send(client, job, mine, who="tamsin").status_code == 200


def test_an_entry_is_told_in_words_with_what_may_be_put_right(client: BenchClient) -> None:
    job = ram(client)
    payload = {"kind": "element_found", "element": "rod-lip", "present": True, "faced": "outside"}
    told = client.post(f"/api/jobs/{job}/describe", json={"payload": payload}).json()
    assert told["words"] == "rod lip seal found, open lips to open air"
    assert [(one["ask"]["field"], one["value"]) for one in told["fields"]] == [
        ("present", True), ("faced", "outside"), ("signs", None), ("lubricant", None), ("note", None),
    ]  # fmt: skip
    odd = client.post(f"/api/jobs/{job}/describe", json={"payload": {"kind": "from_another_version", "x": 1}}).json()
    assert odd == {"words": "from another version", "whole": False, "fields": []}


def test_the_drawing_of_a_job_is_of_the_view_asked_for(client: BenchClient) -> None:
    job = walk.numbered(client, "FN-1188")
    views = [one["key"] for one in view_of(client, job)["views"]]
    assert len(views) > 1
    for view in views:
        assert client.get(f"/api/jobs/{job}/picture", params={"view": view}).json()["view"] == view
    assert client.get(f"/api/jobs/{job}/picture", params={"view": "behind"}).status_code == 422


def test_draft_certificate_says_so(client: BenchClient) -> None:
    content = client.get(f"/api/jobs/{ram(client)}/certificate.pdf").content
    assert "NOT RELEASED" in PdfReader(io.BytesIO(content)).pages[0].extract_text()


def test_an_entry_given_up_is_kept_on_the_trail_whatever_characters_it_held(client: BenchClient) -> None:
    body = {
        "entry": str(uuid.uuid4()),
        "payload": {"kind": "note_made", "text": "a\x00b"},
        "refused": "NUL \x00",
        "reason": "typed by a cat",
    }
    assert client.post(f"/api/jobs/{ram(client)}/discarded", json=body).status_code == 204
    newest = client.as_person("tamsin").get("/api/trail").json()[0]
    assert newest["before"]["payload"]["text"] == "a\\u0000b"
