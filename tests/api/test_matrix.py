"""Who may do what, over every route both ways: who may gets through, who may not is refused, and no route is left out."""

from __future__ import annotations

import re
import uuid
from typing import Any

import pytest
from fastapi import FastAPI

from ironkettle.core.machine.stand import SHIPPED
from tests import walk
from tests.people import BenchClient

# Bede and Ines are technicians, Tamsin the lead (and signatory), Wystan stores, Odile a reader.
NOBODY, ALL = "", ("odile", "wystan", "bede", "tamsin")
KEEPERS, WORKERS, LEAD = ("wystan", "bede", "tamsin"), ("bede", "tamsin"), ("tamsin",)
OPEN = (NOBODY, *ALL)
JOB = "JOB"
NEW_PERSON = {"name": "Osric Penhallow", "role": "reader", "pin": "530917"}
WRENCH = {"key": "w9", "name": "Long", "low": "100 N·m", "high": "500 N·m", "accuracy_pct": 3}
GAUGE = {"key": "g9", "name": "Low", "range": "16 bar", "resolution": "0.01 bar", "accuracy_pct": 0.25}
SEAL = {
    "key": "s-32-42", "name": "seal", "kind": "lip_seal", "side": "rod", "surface": "32 mm", "groove": "42 mm",
    "length": "8 mm", "in_stock": 3, "place": "drawer 9",
}  # fmt: skip
INTAKE = {
    "unit": "ram", "serial": "FN-1", "customer": "bridges", "complaint": "leaks", "fluid": "mineral oil ISO VG 46",
    "pressure": "180 bar",
}  # fmt: skip
NOTE = {"kind": "note_made", "text": "one short"}
DISCARD = {"entry": str(uuid.UUID(int=1)), "payload": NOTE, "refused": "no", "reason": "typed by mistake"}
# Route to who may, and a body that fits.
GUARDED: dict[tuple[str, str], tuple[tuple[str, ...], Any]] = {
    ("GET", "/api/session"): (ALL, None),
    ("GET", "/api/people/register"): (ALL, None),
    ("POST", "/api/people"): (LEAD, NEW_PERSON),
    ("PATCH", "/api/people/ines"): (LEAD, {"name": "Ines Q"}),
    ("PUT", "/api/people/ines/pin"): (LEAD, {"pin": "802613"}),
    ("PUT", "/api/people/ines/badge"): (LEAD, {"badge": None}),
    ("PUT", "/api/people/ines/authorisations/lifting"): (LEAD, {"until": "2027-11-01"}),
    ("DELETE", "/api/people/ines/authorisations/lifting"): (LEAD, None),
    ("GET", "/api/tokens"): (LEAD, None),
    ("POST", "/api/tokens"): (LEAD, {"name": "x", "person": "bede"}),
    ("DELETE", f"/api/tokens/{uuid.UUID(int=1)}"): (LEAD, None),
    ("GET", "/api/trail"): (LEAD, None),
    ("GET", "/api/wrenches"): (ALL, None),
    ("POST", "/api/wrenches"): (("wystan", "tamsin"), WRENCH),
    ("GET", "/api/gauges"): (ALL, None),
    ("POST", "/api/gauges"): (("wystan", "tamsin"), GAUGE),
    ("GET", "/api/stock"): (ALL, None),
    ("GET", "/api/stock/kinds"): (ALL, None),
    ("POST", "/api/stock"): (KEEPERS, SEAL),
    ("PATCH", "/api/stock/s-28-38-63"): (KEEPERS, {"in_stock": 5}),
    ("GET", "/api/jobs/choices"): (ALL, None),
    ("GET", "/api/units"): (ALL, None),
    ("POST", "/api/units"): (WORKERS, {"sheet_key": "needle-scaler", "serial": "FN-1", "name": "x", "customer": "y"}),
    ("GET", "/api/units/AAAA-AAAAAA"): (ALL, None),
    ("GET", "/api/units/AAAA-AAAAAA/label.svg"): (ALL, None),
    ("POST", "/api/units/AAAA-AAAAAA/counters"): (KEEPERS, {"id": str(uuid.UUID(int=2)), "counter": "h", "value": 1}),
    ("POST", "/api/units/AAAA-AAAAAA/service"): (WORKERS, {"id": str(uuid.UUID(int=3)), "entry_id": str(uuid.UUID(int=4)), "interval": "x", "bench_time": "2026-11-24T08:00:00Z"}),
    ("POST", "/api/counters/import"): (KEEPERS, {"text": "unit;counter;value;date"}),
    ("GET", "/api/due"): (ALL, None),
    ("GET", "/api/due.ics"): (ALL, None),
    ("POST", "/api/due/feed"): (ALL, None),
    ("GET", "/api/orders"): (ALL, None),
    ("GET", "/api/orders.csv"): (ALL, None),
    ("PUT", "/api/shop-settings/uncertainty"): (LEAD, {"value": 0.1}),
    ("DELETE", "/api/shop-settings/uncertainty"): (LEAD, None),
    ("PUT", "/api/lubricant-names/goo"): (LEAD, {"lubricant": "dry"}),
    ("DELETE", "/api/lubricant-names/goo"): (LEAD, None),
    ("POST", "/api/practice/puzzles/gate-foot/guesses"): (ALL, {"id": str(uuid.UUID(int=1)), "choice": "a"}),
    ("GET", "/api/practice/scores"): (ALL, None),
    ("GET", "/api/sheets"): (ALL, None),
    ("POST", "/api/sheets"): (WORKERS, {"text": "{}"}),
    ("GET", "/api/sheets/find"): (ALL, None),
    ("PATCH", "/api/sheets/swing-bridge-ram"): (LEAD, {"active": False, "reason": "the maker changed it"}),
    ("GET", "/api/sheets/drafts"): (ALL, None),
    ("POST", "/api/sheets/swing-bridge-ram/2/approve"): (("tamsin",), {"pin": "417902"}),
    ("GET", "/api/sheets/swing-bridge-ram/2"): (ALL, None),
    ("GET", "/api/sheets/swing-bridge-ram/2/changes"): (ALL, None),
    ("GET", "/api/sheets/swing-bridge-ram/2/export"): (ALL, None),
    ("GET", "/api/jobs"): (ALL, None),
    ("GET", "/api/jobs/known?serial=FN-1&unit=ram"): (ALL, None),
    ("POST", "/api/jobs"): (
        WORKERS,
        {
            "id": str(uuid.UUID(int=2)), "entry_id": str(uuid.UUID(int=3)), "sheet_key": "swing-bridge-ram",
            "bench_time": "2026-11-24T09:00:00Z", "intake": INTAKE,
        },
    ),
    ("GET", "/api/search?q=ram"): (ALL, None),
    ("GET", "/api/codes?code=https://kettle.example/check?job=1001%26record=0123456789abcdef"): (ALL, None),
    ("PUT", "/api/letterhead"): (LEAD, {"name": "Lock Gate Workshop"}),
    ("GET", f"/api/jobs/{JOB}/report.json"): (ALL, None),
    ("GET", f"/api/jobs/{JOB}/report.eml"): (ALL, None),
    ("GET", f"/api/jobs/{JOB}"): (ALL, None),
    ("GET", f"/api/jobs/{JOB}/log"): (ALL, None),
    ("GET", f"/api/jobs/{JOB}/picture"): (ALL, None),
    ("GET", f"/api/jobs/{JOB}/runs/{JOB}"): (ALL, None),
    ("GET", f"/api/jobs/{JOB}/runs/{JOB}/trace.csv"): (ALL, None),
    ("POST", f"/api/jobs/{JOB}/entries"): (
        KEEPERS,
        {"id": str(uuid.UUID(int=4)), "bench_time": "2026-11-24T09:00:00Z", "payload": NOTE},
    ),
    ("POST", f"/api/jobs/{JOB}/describe"): (ALL, {"payload": NOTE}),
    ("POST", f"/api/jobs/{JOB}/tasks/tighten:x/torque"): (ALL, {}),
    ("POST", f"/api/jobs/{JOB}/tasks/test:x/hold"): (ALL, {"gauge": "g1-digital"}),
    ("POST", f"/api/jobs/{JOB}/tasks/set:x/advice"): (ALL, {"readings": [{"at": 0, "value": "12 bar"}]}),
    ("POST", f"/api/jobs/{JOB}/tasks/identify:x/match"): (ALL, {}),
    ("POST", f"/api/jobs/{JOB}/discarded"): (KEEPERS, DISCARD),
    ("GET", f"/api/jobs/{JOB}/handover"): (ALL, None),
    ("PATCH", "/api/wrenches/w1-small"): (("wystan", "tamsin"), {"name": "Small"}),
    ("PATCH", "/api/gauges/g1-digital"): (("wystan", "tamsin"), {"active": False}),
    ("GET", f"/api/jobs/{JOB}/photos"): (ALL, None),
    ("GET", f"/api/jobs/{JOB}/photos/earlier"): (ALL, None),
    ("POST", f"/api/jobs/{JOB}/photos"): (KEEPERS, None),
    ("GET", f"/api/jobs/{JOB}/photos/{JOB}.jpg"): (ALL, None),
    ("GET", f"/api/jobs/{JOB}/seal"): (ALL, None),
    ("GET", f"/api/jobs/{JOB}/certificate.pdf"): (ALL, None),
    ("GET", f"/api/jobs/{JOB}/label.svg"): (ALL, None),
    ("PUT", "/api/wrenches/w1-small/calibration"): (("wystan", "tamsin"), {"calibration": "cal 1", "calibrated_until": "2027-11-01"}),
    ("PUT", "/api/gauges/g1-digital/calibration"): (("wystan", "tamsin"), {"calibration": "cal 1", "calibrated_until": "2027-11-01"}),
    ("GET", "/api/stand/reading"): (ALL, None),
    ("POST", "/api/stand/hold"): (WORKERS, {"pressure": "180 bar"}),
    ("GET", "/api/stand/panel"): (ALL, None),
    ("POST", "/api/stand/panel"): (WORKERS, {"settings": {"hole": 0.0}}),
    ("GET", "/api/stand/live"): (ALL, None),
    ("POST", "/api/stand/let-down"): (WORKERS, None),
    ("GET", "/api/stand/map"): (ALL, None),
    ("PUT", "/api/stand/map"): (("tamsin",), SHIPPED.model_dump(mode="json")),
    ("DELETE", "/api/stand/map"): (("tamsin",), None),
    ("POST", "/api/stand/recordings"): (WORKERS, {"job": JOB, "run": JOB}),
    ("GET", f"/api/stand/recordings/{JOB}"): (ALL, None),
    ("POST", f"/api/stand/recordings/{JOB}/stop"): (WORKERS, None),
}  # fmt: skip
# An answer that goes on: whoever may have it gets it from the real server (tests/faults/test_recording.py).
ENDLESS = {("GET", "/api/stand/live")}
# Open to anyone who reaches the server: calculations, tables, the way to sign in, and whether it runs.
UNGUARDED = {
    ("GET", "/api/certificates/{number}"), ("GET", "/api/letterhead"),
    ("GET", "/api/sheets/choices"),
    ("GET", "/api/health"), ("GET", "/api/ping"), ("GET", "/api/welcome"), ("GET", "/api/people"),
    ("POST", "/api/session"), ("DELETE", "/api/session"), ("POST", "/api/session/first"),
    ("GET", "/api/shop-settings"), ("GET", "/api/fluids"), ("GET", "/api/lubricants"), ("GET", "/api/cleaners"), ("GET", "/api/lubricant-names"), ("GET", "/api/sheets/schema"), ("POST", "/api/sheets/check"), ("POST", "/api/sheets/picture"),
    ("GET", "/api/practice/puzzles"), ("POST", "/api/quantities/read"), ("GET", "/api/quantities/units"), ("POST", "/api/cylinders/size"),
    ("POST", "/api/stacks/orient"), ("POST", "/api/torque/plan"), ("GET", "/api/torque/choices"), ("POST", "/api/tests/plan"),
    ("POST", "/api/tests/analyse"), ("POST", "/api/tests/read-csv"), ("POST", "/api/seals/match"),
    ("POST", "/api/seals/packing"), ("POST", "/api/seals/press-fit"), ("GET", "/api/compounds/media"),
    ("POST", "/api/compounds/advise"), ("POST", "/api/compounds/lubricant"), ("POST", "/api/glands/check"),
    ("POST", "/api/glands/rings"), ("POST", "/api/glands/design"), ("POST", "/api/rings/match"),
    ("GET", "/api/rings/sizes"), ("POST", "/api/rings/compare"),
    ("GET", "/api/rings/sizes.csv"), ("GET", "/api/failures/elements"), ("POST", "/api/failures/diagnose"), ("POST", "/api/settings/advise"),
}  # fmt: skip


def routes(app: FastAPI) -> set[tuple[str, str]]:
    return {(method.upper(), path) for path, methods in app.openapi()["paths"].items() for method in methods}


def shape(path: str, known: set[str]) -> str:
    """The route a filled-in path belongs to, whatever it is asked for."""
    path = path.partition("?")[0]
    if path in known:
        return path
    for route in known:
        # What stands in braces is any one part of the path; the rest stands as it is.
        if re.fullmatch("[^/]+".join(re.escape(words) for words in re.split(r"\{.*?\}", route)), path):
            return route
    raise AssertionError(f"no route for {path}")


def test_every_route_is_either_guarded_or_open_on_purpose(app: FastAPI) -> None:
    every = routes(app)
    guarded = {(method, shape(path, {p for m, p in every if m == method})) for method, path in GUARDED}
    assert every == guarded | UNGUARDED


@pytest.mark.parametrize("who", OPEN)
def test_who_may_gets_through_and_who_may_not_is_refused(client: BenchClient, app: FastAPI, who: str) -> None:
    job = walk.numbered(client, "FN-0417")
    caller = client.as_person(who) if who else BenchClient(app)
    for (method, path), (may, body) in GUARDED.items():
        if who in may and (method, path) in ENDLESS:
            continue
        status = caller.request(method, path.replace(JOB, job), json=body).status_code
        told = f"{who or 'nobody'}: {method} {path} gave {status}"
        if not who:
            assert status == 401, told
        elif who in may:
            assert status not in {401, 403, 405, 500}, told
        else:
            assert status == 403, told


@pytest.mark.parametrize("who", OPEN)
def test_what_is_open_is_open_to_everybody(client: BenchClient, app: FastAPI, who: str) -> None:
    caller = client.as_person(who) if who else BenchClient(app)
    for method, path in UNGUARDED - {
        ("DELETE", "/api/session"),
        ("POST", "/api/session"),
        ("POST", "/api/session/first"),
    }:
        status = caller.request(method, path, json={}).status_code
        assert status not in {401, 403, 500}, f"{who or 'nobody'}: {method} {path} gave {status}"


def test_a_body_that_is_nonsense_tells_a_stranger_nothing(client: BenchClient, app: FastAPI) -> None:
    stranger = BenchClient(app)
    for method, path in GUARDED:
        answer = stranger.request(
            method, path.replace(JOB, "nonsense"), content=b"{", headers={"Content-Type": "text/x"}
        )
        assert answer.status_code in {401, 422}, path
        assert "Bede" not in answer.text


def test_the_stock_is_shown_to_those_signed_in_only(client: BenchClient, app: FastAPI) -> None:
    body = {"kind": "lip_seal", "side": "rod", "surface": "28 mm", "groove": "38 mm", "length": "6.3 mm"}
    mine = client.post("/api/seals/match", json=body).json()["fits"]
    theirs = BenchClient(app).post("/api/seals/match", json=body).json()["fits"]
    assert mine[0]["source"] == "shop stock"
    assert theirs
    assert all(their["source"] != "shop stock" for their in theirs)
