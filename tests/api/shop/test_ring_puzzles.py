"""Puzzles over the API: answers stay hidden, guesses are kept once, the first one counts."""

from __future__ import annotations

import uuid
from typing import Any

from ironkettle.demo.puzzles import puzzles
from tests.people import BenchClient


def guess(client: BenchClient, key: str, choice: str, who: str = "bede", id_: str | None = None) -> Any:
    body = {"id": id_ or str(uuid.uuid4()), "choice": choice}
    return client.as_person(who).post(f"/api/practice/puzzles/{key}/guesses", json=body)


def test_the_list_does_not_give_the_answers_away(client: BenchClient) -> None:
    found = client.get("/api/practice/puzzles").json()
    assert len(found) == len(puzzles())
    for one in found:
        assert not {"answer", "because", "ring", "measure"} & set(one)
        assert one["first_guess_right"] is None


def test_the_first_guess_counts_and_the_reasoning_is_shown(client: BenchClient) -> None:
    wrong = guess(client, "sluice-spindle", "b").json()
    assert (wrong["right"], wrong["answer"]) == (False, "a")
    assert wrong["match"]["candidates"][0]["designation"] == "325"
    assert guess(client, "sluice-spindle", "a").json()["right"] is True
    right = guess(client, "nibbled-low-side", "a").json()
    assert right["right"] is True
    assert "backup-missing" in {f["code"] for f in right["check"]["findings"]}
    score = next(s for s in client.get("/api/practice/scores").json() if s["who"] == "bede")
    assert (score["tried"], score["right_first"], score["puzzles"]) == (2, 1, len(puzzles()))
    mine = {p["key"]: p["first_guess_right"] for p in client.get("/api/practice/puzzles").json()}
    assert (mine["sluice-spindle"], mine["nibbled-low-side"], mine["gate-foot"]) == (False, True, None)
    others = {p["first_guess_right"] for p in client.as_person("ines").get("/api/practice/puzzles").json()}
    assert others == {None}


def test_a_repeated_send_counts_once(client: BenchClient) -> None:
    same = str(uuid.uuid4())
    assert guess(client, "gate-foot", "a", id_=same).status_code == 200
    assert guess(client, "gate-foot", "a", id_=same).status_code == 200
    assert guess(client, "gate-foot", "b", id_=same).status_code == 409


def test_what_is_not_there_is_said(client: BenchClient) -> None:
    assert guess(client, "nowhere", "a").status_code == 404
    assert guess(client, "gate-foot", "z").json()["errors"][0]["field"] == "choice"
