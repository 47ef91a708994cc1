"""The stock over the API: seals, rings, kits and parts; counted anew, kept no more; the order list; drawn at release."""

from __future__ import annotations

import csv
import io
from typing import Any

import pytest

from tests import walk
from tests.people import BenchClient

SEAL = {
    "key": "s-32-42", "name": "rod lip seal 32 × 42 × 8", "kind": "lip_seal", "side": "rod", "surface": "32 mm",
    "groove": "42 mm", "length": "8 mm", "in_stock": 3, "place": "drawer 9",
}  # fmt: skip
RING = {"key": "o-214", "name": "O-ring 214", "kind": "o_ring", "size": "AS568 214", "in_stock": 3, "place": "box 1"}


def item(client: BenchClient, key: str) -> dict[str, Any]:
    found: dict[str, Any] = next(one for one in client.get("/api/stock").json() if one["key"] == key)
    return found


def test_an_item_is_added_once_and_found(client: BenchClient) -> None:
    assert client.post("/api/stock", json=SEAL).status_code == 200
    assert client.post("/api/stock", json=SEAL).status_code == 409
    found = item(client, "s-32-42")
    assert SEAL.items() <= found.items()
    assert (found["kind_name"], found["what"]) == ("lip seal", "32 mm × 42 mm × 8 mm")
    body = {"kind": "lip_seal", "side": "rod", "surface": "32 mm", "groove": "42 mm", "length": "8 mm"}
    assert client.post("/api/seals/match", json=body).json()["fits"][0]["in_stock"] == 3
    assert client.post("/api/stock", json=RING).json()["what"] == "AS568 214"


@pytest.mark.parametrize(
    ("base", "change", "field"),
    [
        (SEAL, {"groove": "20 mm"}, "groove"),
        (SEAL, {"length": "8"}, "length"),
        (SEAL, {"in_stock": -1}, "in_stock"),
        (SEAL, {"side": None}, "side"),
        (RING, {"size": ""}, "size"),
        (RING, {"size": "AS568 999"}, "size.designation"),
        (RING, {"surface": "3 mm"}, "surface"),
        (RING, {"kind": "kit", "size": ""}, "size"),
        (RING, {"kind": "teapot"}, "kind"),
    ],
)
def test_an_item_that_cannot_be_is_refused(
    client: BenchClient, base: dict[str, Any], change: dict[str, Any], field: str
) -> None:
    before = client.get("/api/stock").json()
    answer = client.post("/api/stock", json={**base, **change})
    assert answer.status_code == 422
    assert field in [error["field"] for error in answer.json()["errors"]]
    assert client.get("/api/stock").json() == before


def test_counted_anew_moved_and_kept_no_more_with_its_trail(client: BenchClient) -> None:
    changed = client.patch("/api/stock/o-44x3", json={"in_stock": 2, "place": "ring box 9"}).json()
    assert (changed["in_stock"], changed["place"], changed["low"]) == (2, "ring box 9", True)
    assert client.patch("/api/stock/o-44x3", json={}).status_code == 422
    assert client.patch("/api/stock/o-44x3", json={"in_stock": -1}).status_code == 422
    assert client.patch("/api/stock/nothing", json={"in_stock": 1}).status_code == 404
    client.patch("/api/stock/o-44x3", json={"active": False})
    assert "o-44x3" not in {one["key"] for one in client.get("/api/stock").json()}
    assert "o-44x3" in {one["key"] for one in client.get("/api/stock?ended=true").json()}
    rows = client.as_person("tamsin").get("/api/trail").json()
    mine = [row for row in rows if row["subject"] == "o-44x3"]
    assert [row["after"] for row in mine] == [{"active": False}, {"in_stock": 2, "place": "ring box 9"}]
    assert mine[1]["before"] == {"in_stock": 7, "place": "ring box 4"}


def test_the_order_list_names_what_jobs_lack_and_what_is_low(client: BenchClient) -> None:
    listed = client.get("/api/orders").json()
    line = next(one for one in listed["lines"] if one["serial"] == "FN-3310")
    assert (line["name"], line["missing"], line["ordered"]) == ("guide ring", 1, False)
    assert [one["key"] for one in listed["low"]] == ["o-45x3"]
    job = line["job"]
    walk.send(client, job, {"kind": "part_ordered", "what": line["what"]})
    assert next(one for one in client.get("/api/orders").json()["lines"] if one["job"] == job)["ordered"] is True
    # Its arrival moves the job on, and the line is gone.
    view = walk.send(client, job, {"kind": "part_arrived", "what": line["what"], "counted": 1}).json()
    assert walk.next_of(view)["key"] != f"receive:{line['what']}"  # type: ignore[index]
    assert all(one["job"] != job for one in client.get("/api/orders").json()["lines"])


def test_the_order_list_as_csv_holds_no_formula(client: BenchClient) -> None:
    client.post("/api/stock", json={**RING, "key": "evil", "name": "=HYPERLINK(1)", "in_stock": 0, "least": 2})
    answer = client.get("/api/orders.csv")
    assert answer.headers["content-type"].startswith("text/csv")
    rows = list(csv.reader(io.StringIO(answer.text)))
    assert rows[0] == ["what", "count", "for", "state"]
    assert next(row for row in rows if "FN-3310" in row[2])[:2] == ["guide ring", "1"]
    assert ["'=HYPERLINK(1)", "2", "shelf, box 1", "to order"] in rows


def test_a_released_job_draws_its_kit_and_its_parts_once(client: BenchClient) -> None:
    job = walk.numbered(client, "FN-3310")
    assert item(client, "k-cv14")["in_stock"] == 1
    walk.walk(client, job)
    assert item(client, "k-cv14")["in_stock"] == 0
    assert client.get("/api/orders").json()["low"][-1]["key"] == "k-cv14"
