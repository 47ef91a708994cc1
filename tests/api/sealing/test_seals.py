"""Seals over the API: stock in inch and mm beside the standards."""

from __future__ import annotations

from tests.people import BenchClient


def test_stock_comes_before_the_standard(client: BenchClient) -> None:
    body = {"kind": "lip_seal", "side": "rod", "surface": "28.02 mm", "groove": "38 mm", "length": "6.3 mm"}
    fits = client.post("/api/seals/match", json=body).json()["fits"]
    assert (fits[0]["in_stock"], fits[0]["source"]) == (6, "shop stock")
    assert fits[1]["source"] == "ISO 5597, nominal"


def test_an_inch_housing_finds_the_inch_seal(client: BenchClient) -> None:
    body = {"kind": "lip_seal", "side": "rod", "surface": "1-1/4 in", "groove": "1.625 in", "length": "6.4 mm"}
    fits = client.post("/api/seals/match", json=body).json()["fits"]
    assert fits[0]["name"].startswith("rod lip seal 1-1/4")
