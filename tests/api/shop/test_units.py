"""Units over the API: labels, counters, quick service, what is due, the calendar, history."""

from __future__ import annotations

import json
import uuid
from datetime import UTC, datetime, timedelta
from typing import Any

import pytest
import time_machine
from icalendar import Calendar
from sqlalchemy import Engine

from ironkettle.core.shop.service import label_of
from ironkettle.store.base import session_of
from ironkettle.store.jobs.rows import JobRow
from tests import walk
from tests.clock import ServerClock
from tests.people import PINS, BenchClient

CARE = "six-hourly"


def now() -> str:
    return datetime.now(UTC).isoformat()


def label(client: BenchClient, serial: str) -> str:
    found = client.get("/api/units", params={"q": serial}).json()["units"]
    assert len(found) == 1
    return str(found[0]["label"])


def unit(client: BenchClient, serial: str) -> dict[str, Any]:
    view: dict[str, Any] = client.get(f"/api/units/{label(client, serial)}").json()
    return view


def begin(client: BenchClient, serial: str, who: str = "bede", **more: Any) -> Any:
    body = {"id": str(uuid.uuid4()), "entry_id": str(uuid.uuid4()), "interval": CARE, "bench_time": now(), **more}
    return client.as_person(who).post(f"/api/units/{label(client, serial)}/service", json=body)


def count(client: BenchClient, serial: str, value: float | None, **more: Any) -> Any:
    body = {"id": str(uuid.uuid4()), "counter": "h", "value": value, **more}
    return client.post(f"/api/units/{label(client, serial)}/counters", json=body)


def serials_due(client: BenchClient, **asked: Any) -> set[str]:
    listed = client.get("/api/due", params={"limit": 500, **asked}).json()
    return {one["unit"]["serial"] for one in (*listed["due"], *listed["unknown"])}


def due_of(view: dict[str, Any], interval: str) -> dict[str, Any]:
    return next(one for one in view["due"] if one["interval"] == interval)


def test_a_label_opens_its_unit_and_what_is_due_for_it(client: BenchClient) -> None:
    view = unit(client, "FN-9019")
    due = due_of(view, CARE)
    # Oiled six days ago; 149 h were read a day ago, 131.5 h before it was oiled: 17.5 h since.
    assert (due["standing"], due["quick_service"], due["title"]) == ("overdue", True, "Oil")
    assert "17.5 h since it was done" in due["reaches"][0]["words"]
    assert due_of(view, "reseal-unit")["standing"] == "later"
    assert [job["quick_service"] for job in view["jobs"]] == ["oil, every 6 h"]
    code = view["unit"]["label"]
    for text in (code.lower(), code.replace("-", "")):
        assert client.get(f"/api/units/{text}").json()["unit"]["serial"] == "FN-9019"
    drawn = client.get(f"/api/units/{code}/label.svg")
    assert drawn.headers["content-type"].startswith("image/svg")
    assert code in drawn.text
    assert "Needle scaler 4" in drawn.text


def test_a_label_of_another_shop_or_of_nobody_is_told(client: BenchClient) -> None:
    code = label(client, "FN-9019")
    mine = code[:4]
    other = "ABCD" if mine != "ABCD" else "ABCE"
    answer = client.get(f"/api/units/{label_of(other, 1)}")
    assert answer.status_code == 422
    assert f"is a label of another shop; this one is {mine}" in answer.json()["errors"][0]["message"]
    assert client.get(f"/api/units/{label_of(mine, 28_000_000)}").status_code == 404
    assert client.get(f"/api/units/{code[:-1]}").status_code == 422


def test_a_quick_service_is_the_same_log_only_shorter(client: BenchClient) -> None:
    before = unit(client, "FN-9019")
    answer = begin(client, "FN-9019", counters=[{"counter": "h", "value": 150}])
    assert answer.status_code == 200, answer.text
    view = answer.json()
    job = view["job"]["id"]
    assert view["job"]["quick_service"] == CARE
    actions = 0
    while (task := walk.next_of(view)) is not None:
        if task["needs"] is not None:
            # Begun by the step that runs it.
            assert task["needs"]["until"] is not None
            ServerClock.forward(task["needs"]["seconds"])
        body = {"id": str(uuid.uuid4()), "bench_time": now(), "payload": walk.payload_of(task)}
        if task["kind"] == "sign":
            body["pin"] = PINS["bede"]
        view = client.post(f"/api/jobs/{job}/entries?view=full", json=body).json()
        actions += 1
    # Begun, worked and signed by a technician.
    assert actions + 1 <= 15
    assert view["job"]["released"]
    assert view["statement"] == ["Serviced as recorded: oil, due every 6 h, and fit for service."]
    signed = next(task for task in view["tasks"] if task["kind"] == "sign")
    assert signed["entry"]["next_service"] == "oil after 6 h"
    assert client.get(f"/api/jobs/{job}/seal").json()["holds"]
    assert client.get(f"/api/jobs/{job}/certificate.pdf").content.startswith(b"%PDF")
    after = unit(client, "FN-9019")
    assert due_of(after, CARE)["standing"] in {"later", "soon"}
    assert "0 h since it was done" in due_of(after, CARE)["reaches"][0]["words"]
    assert len(after["jobs"]) == len(before["jobs"]) + 1
    assert [one["value"] for one in after["counters"]] == [150]


def test_two_devices_at_one_quick_service_work_on_the_same(client: BenchClient) -> None:
    first, second = begin(client, "FN-9021").json(), begin(client, "FN-9021", who="ines").json()
    assert first["job"]["id"] == second["job"]["id"]
    assert due_of(unit(client, "FN-9021"), CARE)["begun"] == first["job"]["number"]
    # Begun and left: it is among the open jobs, and nothing counts as done.
    listed = client.get("/api/jobs", params={"state": "open", "q": "FN-9021"}).json()["jobs"]
    assert [job["quick_service"] for job in listed] == [CARE]
    assert due_of(unit(client, "FN-9021"), CARE)["done_at"] is None


def test_what_the_second_device_read_is_kept(client: BenchClient) -> None:
    begin(client, "FN-9021", counters=[{"counter": "h", "value": 5}])
    again = {"id": str(uuid.uuid4()), "entry_id": str(uuid.uuid4())}
    for _ in range(2):
        assert begin(client, "FN-9021", who="ines", counters=[{"counter": "h", "value": 6}], **again).status_code == 200
    assert [one["value"] for one in unit(client, "FN-9021")["readings"]] == [6, 5]
    backwards = begin(client, "FN-9021", who="ines", counters=[{"counter": "h", "value": 2}])
    assert backwards.json()["errors"][0]["field"] == "counters.0.value"


def test_a_day_no_database_can_hold_is_refused(client: BenchClient) -> None:
    for at in ("0001-01-01T00:00:00+14:00", "1999-12-31T23:59:59Z"):
        answer = count(client, "FN-9021", 5, at=at)
        assert answer.status_code == 422, at
        assert answer.json()["errors"][0]["field"] == "at"
    text = "unit;counter;value;date\nFN-9021;h;5;0001-01-01T00:00:00+14:00\n"
    assert client.post("/api/counters/import", json={"text": text}).status_code == 422


def test_what_wants_replacing_makes_a_full_job_of_it_and_keeps_what_was_done(client: BenchClient) -> None:
    job = client.get("/api/jobs", params={"q": "FN-9020"}).json()["jobs"][0]["id"]
    view = client.get(f"/api/jobs/{job}").json()
    assert view["quick_service"]["condemned"] == ["Needles"]
    short = len(view["tasks"])
    answer = walk.send(client, job, {"kind": "service_widened", "reason": "Needles worn out"})
    view = answer.json()
    assert view["quick_service"] is None
    assert len(view["tasks"]) > short
    done = {task["key"] for task in view["tasks"] if task["status"] == "done"}
    assert {"step:air-off", "step:nose-off", "measure:anvil"} <= done
    assert walk.next_of(view) is not None
    again = walk.send(client, job, {"kind": "service_widened", "reason": "Needles worn out"})
    assert again.status_code == 409
    assert walk.walk(client, job)["job"]["released"]
    # A full job counts for the whole unit.
    assert due_of(unit(client, "FN-9020"), "reseal-unit")["done_at"] is not None


def test_a_counter_does_not_run_backwards_without_a_reason(client: BenchClient) -> None:
    answer = count(client, "FN-9019", 12)
    assert answer.status_code == 422
    assert answer.json()["errors"][0]["field"] == "value"
    assert "does not run backwards" in answer.json()["errors"][0]["message"]
    assert count(client, "FN-9019", 12, lower="new_counter").json()["counters"][0]["value"] == 12
    assert count(client, "FN-9019", 20).json()["counters"][0]["value"] == 20
    for bad in (None, -1, 1e13):
        assert count(client, "FN-9019", bad).status_code == 422
    assert count(client, "FN-9019", 21, counter="moons").json()["errors"][0]["accepts"][0] == "h"
    later = (datetime.now(UTC) + timedelta(days=2)).isoformat()
    assert "in the future" in count(client, "FN-9019", 21, at=later).text
    backwards = begin(client, "FN-9019", counters=[{"counter": "h", "value": 3}])
    assert backwards.status_code == 422
    assert backwards.json()["errors"][0]["field"] == "counters.0.value"
    # Nothing of the service that was refused is left.
    assert due_of(unit(client, "FN-9019"), CARE)["begun"] is None


def test_a_reading_sent_twice_is_there_once(client: BenchClient) -> None:
    key = str(uuid.uuid4())
    one, two = (count(client, "FN-9021", 5, id=key).json() for _ in range(2))
    assert len(one["readings"]) == len(two["readings"]) == 1
    other = client.post(
        f"/api/units/{label(client, 'FN-9019')}/counters", json={"id": key, "counter": "h", "value": 999}
    )
    assert other.status_code == 422


def test_a_condition_that_is_seen_is_due_at_once(client: BenchClient) -> None:
    seen = count(client, "FN-9021", None, counter="when it loses its stroke").json()
    due = due_of(seen, "reseal-unit")
    assert due["standing"] == "overdue"
    assert "when it loses its stroke: seen on" in due["reaches"][1]["words"]


def test_an_interval_without_a_counter_is_listed_apart(client: BenchClient) -> None:
    listed = client.get("/api/due", params={"days": 0}).json()
    unknown = {(one["unit"]["serial"], one["due"]["interval"]) for one in listed["unknown"]}
    assert ("FN-9021", CARE) in unknown
    first = listed["due"][0]
    assert first["due"]["standing"] == "overdue"
    for standing in ("overdue", "soon"):
        days = [one["due"]["by"] for one in listed["due"] if one["due"]["standing"] == standing]
        assert days == sorted(days)
    assert "FN-9019" in {one["unit"]["serial"] for one in listed["due"]}


def test_a_first_shift_with_little_left_is_listed_though_its_day_cannot_be_told(client: BenchClient) -> None:
    started = datetime.now(UTC) - timedelta(hours=7)
    assert count(client, "FN-9021", 100.0, at=started.isoformat()).status_code == 200
    begun = begin(client, "FN-9021", counters=[{"counter": "h", "value": 100.0}]).json()["job"]["id"]
    assert walk.walk(client, begun)["job"]["released"]
    assert count(client, "FN-9021", 105.5).status_code == 200
    told = next(
        one["due"]
        for one in client.get("/api/due", params={"days": 0}).json()["due"]
        if (one["unit"]["serial"], one["due"]["interval"]) == ("FN-9021", CARE)
    )
    assert (told["standing"], told["by"]) == ("soon", None)
    assert "0.5 h left" in told["reaches"][0]["words"]


def test_a_counter_read_once_and_never_again_comes_to_the_list_by_itself(client: BenchClient) -> None:
    assert count(client, "FN-9021", 100.0).status_code == 200

    def cannot_be_told(on: BenchClient) -> set[str]:
        listed = on.get("/api/due", params={"days": 0, "limit": 500}).json()["unknown"]
        return {one["unit"]["serial"] for one in listed if one["due"]["interval"] == CARE}

    assert "FN-9021" not in cannot_be_told(client)
    # Nothing happens to the unit in between: 61 days are more than the 60 a lone reading tells something for.
    with time_machine.travel(datetime.now(UTC) + timedelta(days=61), tick=True):
        late = BenchClient(client.app).sign_in("bede")  # type: ignore[arg-type]
        assert "FN-9021" in cannot_be_told(late)


def test_a_serial_is_the_same_however_it_is_typed(client: BenchClient) -> None:
    walk.open_new(client, "header-tank-valve", serial="fn - 2207", fluid="fresh water", pressure="4 bar")
    view = unit(client, "fn - 2207")
    assert len(view["jobs"]) == 2
    row = "unit;counter;value;date\nfn-9021;h;12;2026-01-01"
    assert client.post("/api/counters/import", json={"text": row}).json()["new"] == 1


def test_a_year_without_a_visit_is_overdue(client: BenchClient) -> None:
    """Taken in and never released: the year counts from the day it was known."""
    with time_machine.travel(datetime.now(UTC) + timedelta(days=380), tick=True):
        late = BenchClient(client.app).sign_in("bede")  # type: ignore[arg-type]
        due = due_of(unit(late, "FN-0417"), "reseal-unit")
        assert due["standing"] == "overdue"
        assert "registered" in due["reaches"][0]["words"]
        listed = late.get("/api/due", params={"days": 0, "limit": 500}).json()["due"]
        assert "FN-0417" in {one["unit"]["serial"] for one in listed}


def test_a_file_of_counters_comes_in_whole_or_not_at_all(client: BenchClient) -> None:
    day = (datetime.now(UTC) - timedelta(hours=1)).isoformat(timespec="seconds")
    code = label(client, "FN-9021")
    good = f"unit;counter;value;date\nFN-9019;h;155,5;{day}\n{code};h;12;{day}\n"
    bad = f"{good}FN-9020;h;3;{day}\nFN-0000;h;3;{day}\nFN-9019;moons;3;{day}\n"
    answer = client.post("/api/counters/import", json={"text": bad})
    assert answer.status_code == 422
    assert {one["field"] for one in answer.json()["errors"]} == {"line 4, value", "line 5, unit", "line 6, counter"}
    assert unit(client, "FN-9021")["readings"] == []
    assert client.post("/api/counters/import", json={"text": good}).json() == {"rows": 2, "new": 2, "units": 2}
    assert client.post("/api/counters/import", json={"text": good}).json() == {"rows": 2, "new": 0, "units": 2}
    assert unit(client, "FN-9019")["counters"][0]["value"] == 155.5


def test_the_calendar_is_followed_by_a_link_that_is_good_for_nothing_else(client: BenchClient) -> None:
    link = client.post("/api/due/feed").json()["link"]
    stranger = BenchClient(client.app)  # type: ignore[arg-type]
    path = link.removeprefix("http://127.0.0.1:8440")
    answer = stranger.get(path)
    assert answer.headers["content-type"].startswith("text/calendar")
    events = Calendar.from_ical(answer.content).walk("VEVENT")
    oil = next(event for event in events if "FN-9019" in str(event["summary"]) and "Oil" in str(event["summary"]))
    assert str(oil["summary"]) == "OVERDUE: Oil: Needle scaler 4 (FN-9019)"
    shown = due_of(unit(client, "FN-9019"), CARE)["by"]
    assert oil["dtstart"].dt.isoformat() == shown
    assert str(oil["url"]).endswith(f"/u/{label(client, 'FN-9019')}")
    token = path.partition("token=")[2]
    assert stranger.get("/api/jobs", headers={"Authorization": f"Bearer {token}"}).status_code == 401
    assert stranger.get("/api/due.ics?token=wrong").status_code == 401
    lead = client.as_person("tamsin")
    made = next(one for one in lead.get("/api/tokens").json() if one["use"] == "calendar")
    assert lead.delete(f"/api/tokens/{made['id']}").status_code == 200
    assert stranger.get(path).status_code == 401


def test_the_link_of_a_calendar_ends_after_a_year(client: BenchClient) -> None:
    made = client.post("/api/due/feed").json()
    path = made["link"].removeprefix("http://127.0.0.1:8440")
    stranger = BenchClient(client.app)  # type: ignore[arg-type]
    for days, status in ((365, 200), (367, 401)):
        with time_machine.travel(datetime.now(UTC) + timedelta(days=days)):
            assert stranger.get(path).status_code == status


@pytest.mark.parametrize("note", ["\ud800", "half \udfff a character"])
def test_half_a_character_in_a_reading_is_refused_by_name(client: BenchClient, note: str) -> None:
    body = json.dumps({"id": str(uuid.uuid4()), "counter": "h" + note, "value": 5})
    answer = client.post(
        f"/api/units/{label(client, 'FN-9019')}/counters",
        content=body,
        headers={"Content-Type": "application/json"},
    )
    assert answer.status_code == 422, answer.text
    assert "counter" in answer.text


def test_a_script_token_is_no_calendar_link(client: BenchClient) -> None:
    token = client.as_person("tamsin").post("/api/tokens", json={"name": "x", "person": "bede"}).json()["token"]
    assert BenchClient(client.app).get("/api/due.ics", params={"token": token}).status_code == 401  # type: ignore[arg-type]


def test_the_history_tells_what_was_found_left_and_fitted(client: BenchClient) -> None:
    view = unit(client, "FN-5203")
    assert [job["released"] for job in view["jobs"]] == [False, True, True]
    assert all(any("seat washer" in one for one in job["fitted"]) for job in view["jobs"][1:])
    opening = next(one for one in view["series"] if "mean opening" in one["name"].lower())
    assert [(round(p["as_found"]), round(p["as_left"])) for p in opening["points"] if p["as_left"]] == [
        (262, 284),
        (268, 283),
    ]
    assert opening["points"][-1]["as_found"] < 255
    assert opening["points"][-1]["as_left"] is None
    assert [one["value"] for one in view["counters"]] == [4390]


def test_a_release_begins_the_intervals_anew_and_a_reopening_takes_it_back(client: BenchClient) -> None:
    job = walk.open_new(client, "header-tank-valve", serial="FN-2299", fluid="fresh water", pressure="4 bar")
    assert due_of(unit(client, "FN-2299"), "reseal-unit")["done_at"] is None
    view = walk.walk(client, job)
    assert view["job"]["released"]
    assert due_of(unit(client, "FN-2299"), "reseal-unit")["done_at"] is not None
    walk.send(client, job, {"kind": "reopened", "reason": "Drips again already"}, who="tamsin")
    assert due_of(unit(client, "FN-2299"), "reseal-unit")["done_at"] is None


def test_a_tool_is_made_known_without_a_job_and_twice_is_once(client: BenchClient) -> None:
    body = {"sheet_key": "needle-scaler", "serial": "FN-9100", "name": "Needle scaler 7", "customer": "gates"}
    one, two = (client.post("/api/units", json=body).json() for _ in range(2))
    assert one == two
    assert client.post("/api/units", json={**body, "sheet_key": "moon"}).status_code == 404
    assert begin(client, "FN-9100").json()["job"]["serial"] == "FN-9100"
    assert begin(client, "FN-9100", interval="moon").status_code == 422


def test_an_intake_put_right_moves_the_job_to_its_unit(client: BenchClient, workshop: Engine) -> None:
    job = walk.open_new(client, "header-tank-valve", serial="FN-22O7", fluid="fresh water", pressure="4 bar")
    wrong = unit(client, "FN-22O7")
    assert len(wrong["jobs"]) == 1
    assert wrong["due"]
    told = client.get(f"/api/jobs/{job}").json()["job"]
    intake = {"kind": "intake_recorded", "unit": told["unit"], "serial": "FN-2207", "customer": told["customer"], "complaint": "It leaks", "fluid": "fresh water", "pressure": "4 bar"}  # fmt: skip
    assert walk.send(client, job, intake).status_code == 200
    # What was typed wrong is no unit that a reseal falls due on; its label, if one was printed, still opens.
    assert client.get("/api/units", params={"q": "FN-22O7"}).json()["units"] == []
    left = client.get(f"/api/units/{wrong['unit']['label']}").json()
    assert (left["jobs"], left["due"]) == ([], [])
    assert "FN-22O7" not in serials_due(client, days=3660)
    assert len(unit(client, "FN-2207")["jobs"]) == 2
    assert walk.send(client, job, {**intake, "quick_service": CARE}).status_code == 409
    with session_of(workshop) as session:
        assert session.get_one(JobRow, uuid.UUID(job)).quick_service == ""


def test_a_unit_that_was_scrapped_is_due_no_more(client: BenchClient) -> None:
    job = walk.open_new(client, "header-tank-valve", serial="FN-2250", fluid="fresh water", pressure="4 bar")
    with time_machine.travel(datetime.now(UTC) + timedelta(days=800), tick=True):
        late = BenchClient(client.app).sign_in("bede")  # type: ignore[arg-type]
        assert "FN-2250" in {one["unit"]["serial"] for one in late.get("/api/due", params={"limit": 500}).json()["due"]}
    ended = {"kind": "job_ended", "how": "scrapped", "reason": "Body cracked through"}
    client.sign_in("bede")
    lead = client.as_person("tamsin")
    lead.sign_in("tamsin")
    assert walk.send(client, job, ended, who="tamsin").status_code == 200
    with time_machine.travel(datetime.now(UTC) + timedelta(days=800), tick=True):
        late = BenchClient(client.app).sign_in("bede")  # type: ignore[arg-type]
        assert "FN-2250" not in {
            one["unit"]["serial"] for one in late.get("/api/due", params={"limit": 500}).json()["due"]
        }


def test_a_quick_service_under_the_id_of_another_units_job_is_refused(client: BenchClient) -> None:
    first = begin(client, "FN-9021").json()["job"]["id"]
    answer = begin(client, "FN-9019", id=first)
    assert answer.status_code == 409
    assert "open on another unit" in answer.json()["detail"]
    assert client.get(f"/api/jobs/{first}").json()["job"]["serial"] == "FN-9021"


def test_only_so_many_units_are_told_and_that_there_are_more(client: BenchClient) -> None:
    told = client.get("/api/due", params={"days": 3660, "limit": 2}).json()
    assert told["more"] is True
    assert len({one["unit"]["id"] for one in (*told["due"], *told["unknown"])}) == 2
    assert client.get("/api/due", params={"limit": 500}).json()["more"] is False
