"""Seals over the API: stock in inch and mm beside the standards."""

from __future__ import annotations

from tests.people import BenchClient

ITEM = {
    "key": "s-32-42", "name": "rod lip seal 32 × 42 × 8", "kind": "lip_seal", "side": "rod", "surface": "32 mm",
    "groove": "42 mm", "length": "8 mm", "in_stock": 3, "place": "drawer 9",
}  # fmt: skip


def test_stock_comes_before_the_standard(client: BenchClient) -> None:
    body = {"kind": "lip_seal", "side": "rod", "surface": "28.02 mm", "groove": "38 mm", "length": "6.3 mm"}
    fits = client.post("/api/seals/match", json=body).json()["fits"]
    assert (fits[0]["in_stock"], fits[0]["source"]) == (6, "shop stock")
    assert fits[1]["source"] == "ISO 5597, nominal"


def test_an_inch_housing_finds_the_inch_seal(client: BenchClient) -> None:
    body = {"kind": "lip_seal", "side": "rod", "surface": "1-1/4 in", "groove": "1.625 in", "length": "6.4 mm"}
    fits = client.post("/api/seals/match", json=body).json()["fits"]
    assert fits[0]["name"].startswith("rod lip seal 1-1/4")


def test_an_item_is_added_once_and_found(client: BenchClient) -> None:
    assert client.post("/api/seals/stock", json=ITEM).status_code == 200
    assert client.post("/api/seals/stock", json=ITEM).status_code == 409
    assert ITEM in client.get("/api/seals/stock").json()
    body = {"kind": "lip_seal", "side": "rod", "surface": "32 mm", "groove": "42 mm", "length": "8 mm"}
    assert client.post("/api/seals/match", json=body).json()["fits"][0]["in_stock"] == 3


def test_an_item_that_cannot_be_is_refused(client: BenchClient) -> None:
    before = client.get("/api/seals/stock").json()
    for change, field in (({"groove": "20 mm"}, "groove"), ({"length": "8"}, "length"), ({"in_stock": -1}, "in_stock")):
        answer = client.post("/api/seals/stock", json={**ITEM, **change})
        assert answer.status_code == 422
        assert field in [error["field"] for error in answer.json()["errors"]]
    assert client.get("/api/seals/stock").json() == before
