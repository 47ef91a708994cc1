"""One search over the shop."""

from __future__ import annotations

import pytest

from tests.people import BenchClient


def hits(client: BenchClient, words: str) -> list[tuple[str, str]]:
    answer = client.get("/api/search", params={"q": words})
    assert answer.status_code == 200, answer.json()
    return [(hit["kind"], hit["title"]) for hit in answer.json()]


def test_a_serial_is_found_without_its_dashes_with_its_unit(client: BenchClient) -> None:
    found = hits(client, "FN0417")
    assert found[0][0] == "job"
    assert found[0][1].endswith("FN-0417")
    assert ("unit", found[0][1]) in found
    assert ("unit", found[0][1]) in hits(client, "FN-0417")


def test_a_size_is_found_by_its_designation_the_whole_one_first(client: BenchClient) -> None:
    found = [title for kind, title in hits(client, "214") if kind == "size"]
    assert found[0] == "AS568 214"


def test_sheets_and_stock_are_found_by_any_of_their_words(client: BenchClient) -> None:
    assert ("sheet", "Swing bridge latch ram") in hits(client, "latch swing")
    assert ("stock", "rod wiper 28 × 36 × 5") in hits(client, "wiper drawer 14")


@pytest.mark.parametrize("words", ["no such thing at all", "%", "_", "'; DROP TABLE jobs; --"])
def test_what_is_nowhere_is_not_found(client: BenchClient, words: str) -> None:
    assert hits(client, words) == []


def test_nothing_is_asked_with_nothing(client: BenchClient) -> None:
    assert client.get("/api/search", params={"q": ""}).status_code == 422
    assert hits(client, "   ") == []
