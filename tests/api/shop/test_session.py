"""Signing in and out: PIN, badge, wrong tries, shifts, and nobody in another's name."""

from __future__ import annotations

import threading
import uuid
from datetime import UTC, datetime, timedelta
from typing import Any

import pytest
import time_machine
from fastapi import FastAPI
from sqlalchemy import Engine, text

from ironkettle.store.base import session_of
from ironkettle.store.shop.people import Person, set_secret
from tests import walk
from tests.people import PINS, BenchClient

MORNING = datetime(2026, 11, 25, 7, 0, tzinfo=UTC)
NOTE = {"kind": "note_made", "text": "wet at the wiper"}


def entry(payload: dict[str, Any] = NOTE, **more: object) -> dict[str, Any]:
    return {"id": str(uuid.uuid4()), "bench_time": "2026-11-24T09:00:00Z", "payload": payload, **more}


@pytest.fixture
def device(workshop: Engine, app: FastAPI) -> BenchClient:
    return BenchClient(app)


def test_a_pin_opens_a_session_in_a_cookie_no_script_can_read(device: BenchClient) -> None:
    assert device.get("/api/session").status_code == 401
    answer = device.post("/api/session", json={"person": "bede", "pin": PINS["bede"]})
    assert answer.status_code == 200
    assert (answer.json()["name"], answer.json()["role"]) == ("Bede Harrowgate", "technician")
    cookie = answer.headers["set-cookie"].lower()
    assert "httponly" in cookie
    assert "samesite=strict" in cookie
    assert device.get("/api/session").json()["person"] == "bede"


def test_the_sheet_of_names_is_open_and_holds_names_only(device: BenchClient) -> None:
    names = device.get("/api/people").json()
    assert {name["key"] for name in names} == set(PINS)
    assert all(set(name) == {"key", "name"} for name in names)


@pytest.mark.parametrize(
    ("body", "status"),
    [
        ({"person": "bede", "pin": "000000"}, 401),
        ({"person": "bede", "pin": PINS["ines"]}, 401),
        ({"person": "nobody", "pin": "417902"}, 422),
        ({"person": "bede"}, 422),
        ({"pin": "417902"}, 422),
        ({"person": "bede", "pin": "417902", "badge": "04A1B2C3"}, 422),
        ({"person": "bede", "pin": "4179\u000002"}, 422),
        ({}, 422),
    ],
)
def test_what_opens_none(device: BenchClient, body: dict[str, str], status: int) -> None:
    answer = device.post("/api/session", json=body)
    assert answer.status_code == status
    assert answer.headers["content-type"] == "application/problem+json"
    assert "set-cookie" not in answer.headers
    assert device.get("/api/jobs").status_code == 401


def test_a_stolen_cookie_is_worth_nothing_after_signing_out(device: BenchClient, app: FastAPI) -> None:
    device.sign_in("bede")
    thief = BenchClient(app)
    thief.cookies.update(device.cookies)
    assert thief.get("/api/jobs").status_code == 200
    assert device.delete("/api/session").status_code == 204
    assert thief.get("/api/jobs").status_code == 401


def test_signing_in_signs_out_whoever_was_on_the_device(device: BenchClient, app: FastAPI) -> None:
    device.sign_in("bede")
    before = dict(device.cookies)
    device.sign_in("ines")
    assert device.get("/api/session").json()["person"] == "ines"
    other = BenchClient(app)
    other.cookies.update(before)
    assert other.get("/api/session").status_code == 401


def test_what_the_database_holds_opens_no_session(device: BenchClient, app: FastAPI, workshop: Engine) -> None:
    device.sign_in("bede")
    with workshop.connect() as connection:
        digests = [row[0] for row in connection.execute(text("SELECT digest FROM sessions"))]
        secrets = [row[0] for row in connection.execute(text("SELECT secret FROM people"))]
    assert all(secret.startswith("$argon2id$") for secret in secrets)
    thief = BenchClient(app)
    for digest in digests:
        thief.cookies.set("kettle_8440", digest)
        assert thief.get("/api/session").status_code == 401


def test_a_device_stays_signed_in_for_a_shift_and_no_longer(device: BenchClient) -> None:
    with time_machine.travel(MORNING, tick=False) as clock:
        device.sign_in("bede")
        clock.shift(timedelta(hours=11, minutes=59))
        assert device.get("/api/jobs").status_code == 200
        clock.shift(timedelta(minutes=2))
        assert device.get("/api/jobs").status_code == 401


def test_the_shop_sets_how_long_a_shift_is(device: BenchClient) -> None:
    device.as_person("tamsin").put("/api/shop-settings/shift_hours", json={"value": 2})
    with time_machine.travel(MORNING, tick=False) as clock:
        device.sign_in("bede")
        clock.shift(timedelta(hours=2, seconds=1))
        assert device.get("/api/jobs").status_code == 401


def test_who_has_left_is_out_at_once(device: BenchClient) -> None:
    device.sign_in("bede")
    tamsin = device.as_person("tamsin")
    assert tamsin.patch("/api/people/bede", json={"active": False}).status_code == 200
    assert device.get("/api/jobs").status_code == 401
    assert device.post("/api/session", json={"person": "bede", "pin": PINS["bede"]}).status_code == 422
    assert "bede" not in {one["key"] for one in device.get("/api/people").json()}


def test_a_hundred_wrong_pins_open_nothing_and_lock_nobody_out_for_ever(device: BenchClient) -> None:
    with time_machine.travel(MORNING, tick=False) as clock:
        codes = [
            device.post("/api/session", json={"person": "bede", "pin": f"{number:06}"}).status_code
            for number in range(100)
        ]
        # Three free ones and the one that begins the first pause; the rest wait.
        assert codes == [401] * 4 + [429] * 96
        waiting = device.post("/api/session", json={"person": "bede", "pin": PINS["bede"]})
        assert waiting.status_code == 429
        assert waiting.headers["retry-after"] == "5"
        assert "try again in 5 s" in waiting.json()["detail"]
        # Somebody else on the same device is not held up.
        assert device.post("/api/session", json={"person": "ines", "pin": PINS["ines"]}).status_code == 200
        clock.shift(timedelta(seconds=6))
        assert device.post("/api/session", json={"person": "bede", "pin": PINS["bede"]}).status_code == 200
        # A right one takes back nothing but its own count: the next wrong one waits longer.
        assert device.post("/api/session", json={"person": "bede", "pin": "000000"}).status_code == 401
        waiting = device.post("/api/session", json={"person": "bede", "pin": PINS["bede"]})
        assert (waiting.status_code, waiting.headers["retry-after"]) == (429, "10")


def test_the_longest_pause_is_a_quarter_of_an_hour(device: BenchClient) -> None:
    with time_machine.travel(MORNING, tick=False) as clock:
        for _ in range(30):
            device.post("/api/session", json={"person": "bede", "pin": "000000"})
            clock.shift(timedelta(minutes=15, seconds=1))
        assert device.post("/api/session", json={"person": "bede", "pin": PINS["bede"]}).status_code == 200


def test_one_address_cannot_try_everybody(device: BenchClient, app: FastAPI) -> None:
    with time_machine.travel(MORNING, tick=False):
        codes = [
            device.post("/api/session", json={"person": person, "pin": "000000"}).status_code
            for _ in range(10)
            for person in PINS
        ]
        assert codes.count(401) <= 21
        here = device.post("/api/session", json={"person": "odile", "pin": PINS["odile"]})
        assert here.status_code == 429


def test_many_at_once_do_not_slip_through_between(device: BenchClient, app: FastAPI) -> None:
    codes: list[int] = []

    def guess(number: int) -> None:
        body = {"person": "bede", "pin": f"{number:06}"}
        codes.append(BenchClient(app).post("/api/session", json=body).status_code)

    threads = [threading.Thread(target=guess, args=(number,)) for number in range(24)]
    # The clock stands, so that no pause ends while a slow machine is still at it.
    with time_machine.travel(MORNING, tick=False):
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
    # Three free ones and the one that begins the first pause; a busy moment is answered 503, never with a try.
    assert set(codes) <= {401, 429, 503}
    assert codes.count(401) <= 4


def test_a_badge_signs_in_and_a_strange_one_does_not(device: BenchClient, workshop: Engine) -> None:
    tamsin = device.as_person("tamsin")
    assert tamsin.put("/api/people/bede/badge", json={"badge": "04A1B2C3D4\r"}).status_code == 422
    assert tamsin.put("/api/people/bede/badge", json={"badge": "04A1B2C3D4"}).status_code == 200
    assert device.post("/api/session", json={"badge": "04A1B2C3D5"}).status_code == 401
    assert device.post("/api/session", json={"badge": "04A1B2C3D4"}).json()["person"] == "bede"
    with workshop.connect() as connection:
        kept = connection.execute(text("SELECT badge FROM people WHERE key = 'bede'")).scalar_one()
    assert kept.startswith("$argon2id$")
    assert tamsin.put("/api/people/bede/badge", json={"badge": None}).json()["has_badge"] is False
    assert device.post("/api/session", json={"badge": "04A1B2C3D4"}).status_code == 401


def test_who_writes_is_who_is_signed_in(client: BenchClient) -> None:
    job = walk.numbered(client, "FN-0417")
    view = client.post(f"/api/jobs/{job}/entries", json=entry()).json()["state"]
    assert view["job"]["touched_by"] == "Bede Harrowgate"
    # A device that took it from somebody else, and has another signed in now, records nothing.
    other = client.post(f"/api/jobs/{job}/entries", json=entry(who="ines"))
    assert other.status_code == 403
    assert other.json()["type"] == "/problems/other-person"
    assert client.post(f"/api/jobs/{job}/entries", json=entry(who="bede")).status_code == 200
    assert client.get(f"/api/jobs/{job}").json()["job"]["entry_count"] == 3


def test_an_id_of_somebody_elses_entry_is_not_taken_over(client: BenchClient) -> None:
    job = walk.numbered(client, "FN-0417")
    body = entry()
    assert client.post(f"/api/jobs/{job}/entries", json=body).status_code == 200
    assert client.as_person("ines").post(f"/api/jobs/{job}/entries", json=body).status_code == 409


def test_the_first_start_asks_for_a_lead_and_only_once(empty: Engine, app: FastAPI) -> None:
    device = BenchClient(app)
    assert device.get("/api/welcome").json()["first_start"] is True
    assert device.post("/api/session/first", json={"name": "Osric Penhallow", "pin": "123456"}).status_code == 422
    far = BenchClient(app, host="192.0.2.7")
    assert far.post("/api/session/first", json={"name": "Mallory", "pin": "417902"}).status_code == 403
    first = device.post("/api/session/first", json={"name": "Osric Penhallow", "pin": "417902"})
    assert first.status_code == 200
    assert (first.json()["person"], first.json()["role"]) == ("osric-penhallow", "lead")
    welcome = device.get("/api/welcome").json()
    assert (welcome["first_start"], welcome["shipped_pins"]) == (False, [])
    again = BenchClient(app).post("/api/session/first", json={"name": "Mallory", "pin": "417902"})
    assert again.status_code == 409
    assert [one["name"] for one in device.get("/api/people").json()] == ["Osric Penhallow"]


def test_two_devices_at_the_first_start_make_one_lead(empty: Engine, app: FastAPI) -> None:
    codes: list[int] = []

    def begin(name: str) -> None:
        codes.append(BenchClient(app).post("/api/session/first", json={"name": name, "pin": "417902"}).status_code)

    threads = [threading.Thread(target=begin, args=(f"Lead {number}",)) for number in range(6)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert sorted(codes) == [200, *[409] * 5]


def test_an_upgraded_workshop_gives_its_lead_a_pin_first(empty: Engine, app: FastAPI) -> None:
    """People of a version before there were PINs: one of the list becomes the lead who can sign in."""
    with session_of(empty) as session:
        session.add(Person(key="tamsin", name="Tamsin Orrell", role="lead"))
        session.add(Person(key="bede", name="Bede Harrowgate", role="technician"))
    device = BenchClient(app)
    bare = device.post("/api/session", json={"person": "bede", "pin": "260831"})
    assert bare.status_code == 409
    assert "no PIN yet" in bare.json()["detail"]
    first = device.post("/api/session/first", json={"name": "Tamsin Orrell", "pin": "417902"})
    assert first.json()["person"] == "tamsin"
    assert device.put("/api/people/bede/pin", json={"pin": "260831"}).status_code == 200
    assert BenchClient(app).post("/api/session", json={"person": "bede", "pin": "260831"}).status_code == 200


def test_the_demos_pins_are_shown_until_they_are_changed(device: BenchClient, workshop: Engine) -> None:
    shown = {one["person"]: one["pin"] for one in device.get("/api/welcome").json()["shipped_pins"]}
    assert shown == PINS
    with session_of(workshop) as session:
        bede = session.get_one(Person, "bede")
        set_secret(bede, "802613")
    assert "bede" not in {one["person"] for one in device.get("/api/welcome").json()["shipped_pins"]}


@pytest.mark.parametrize(
    "header", ["Bearer", "Bearer nonsense", "Basic YmVkZToyNjA4MzE=", "bearer kettle_x", "Bearer " + "x" * 5000]
)
def test_a_header_that_is_no_token_opens_nothing_even_beside_a_cookie(client: BenchClient, header: str) -> None:
    assert client.get("/api/jobs", headers={"Authorization": header}).status_code == 401


def test_a_right_pin_does_not_clear_the_address_it_came_from(device: BenchClient) -> None:
    """Whoever knows one PIN may not try those of all the others behind it."""
    with time_machine.travel(MORNING, tick=False):
        codes = []
        for number in range(40):
            assert (
                number or device.post("/api/session", json={"person": "ines", "pin": PINS["ines"]}).status_code == 200
            )
            device.post("/api/session", json={"person": "ines", "pin": PINS["ines"]})
            body = {"badge": f"NO-SUCH-BADGE-{number:04}"}
            codes.append(device.post("/api/session", json=body).status_code)
        assert codes.count(401) <= 21
        assert codes[-1] == 429


def test_wrong_pins_from_elsewhere_stop_nobodys_signature(client: BenchClient, app: FastAPI) -> None:
    job = walk.numbered(client, "FN-0417")
    tamsin = client.as_person("tamsin")
    elsewhere = BenchClient(app, host="127.0.0.9")
    codes = [elsewhere.post("/api/session", json={"person": "tamsin", "pin": "000000"}).status_code for _ in range(12)]
    assert codes[-1] == 429
    reopening = {"kind": "reopened", "reason": "look again"}
    answer = tamsin.post(f"/api/jobs/{job}/entries", json=entry(reopening, pin=PINS["tamsin"]))
    # Refused for what the job is, not for the tries of a stranger.
    assert answer.status_code not in {401, 429}, answer.text
    assert tamsin.get("/api/session").json()["person"] == "tamsin"


def test_the_demos_pins_are_shown_on_this_machine_only(device: BenchClient, app: FastAPI) -> None:
    assert device.get("/api/welcome").json()["shipped_pins"]
    assert BenchClient(app, host="192.0.2.17").get("/api/welcome").json()["shipped_pins"] == []
