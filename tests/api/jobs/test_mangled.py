"""Entries as a task proposes them with one thing in them changed for the worse: refused with a field named, or taken; never a failure
of the server, and the record holds afterwards."""

from __future__ import annotations

import copy
import random
from collections.abc import Iterator
from typing import Any

from tests import walk
from tests.api.jobs.rams import ram
from tests.laws import TIMES
from tests.people import BenchClient
from tests.walk import next_of, payload_of, send

JUNK: tuple[Any, ...] = (
    None, True, False, 0, -1, 1e308, 2**63, "", " ", "x" * 700, "moon", "-5 bar", "1e9 mm", "3,000 mm", "٣ mm", "half \ud7ff", "\u202e12 bar",
    [], {}, [None], [[1]], {"a": {"b": 1}}, "2026-13-45", "'; DROP TABLE jobs; --", "<b>12</b>", "5 bar\n6 bar", "NaN", "±",
)  # fmt: skip
TRIES = 3 * TIMES


def places(value: Any, path: tuple[Any, ...] = ()) -> Iterator[tuple[Any, ...]]:
    """Every place of a document, from its top."""
    if path:
        yield path
    inside = value.items() if isinstance(value, dict) else enumerate(value) if isinstance(value, list) else ()
    for key, one in inside:
        yield from places(one, (*path, key))


def _far(key: Any) -> bool:
    return isinstance(key, int) and key > 3


def mangled(payload: dict[str, Any], chance: random.Random) -> tuple[dict[str, Any], tuple[Any, ...]]:
    """A copy with one place changed: junk in it, left out, or doubled."""
    changed = copy.deepcopy(payload)
    # Long traces are thousands of places alike.
    path = chance.choice(
        [place for place in places(payload) if place != ("kind",) and not any(_far(key) for key in place)]
    )
    at: Any = changed
    for key in path[:-1]:
        at = at[key]
    how = chance.random()
    if how < 0.15:
        del at[path[-1]]
    elif how < 0.25 and isinstance(at, list):
        at.append(at[path[-1]])
    else:
        at[path[-1]] = chance.choice(JUNK)
    return changed, path


def test_whatever_is_changed_in_an_entry_the_server_answers_and_the_record_holds(client: BenchClient) -> None:
    chance = random.Random(20261202)
    job = ram(client)
    view = client.get(f"/api/jobs/{job}").json()
    refused = tried = 0
    while (task := next_of(view)) is not None and tried < 150 * TIMES:
        by = "tamsin" if task["kind"] in {"sign", "timer"} else "bede"
        walk.wait_out(client, job, task, by)
        good = payload_of(task)
        for _ in range(TRIES):
            payload, path = mangled(good, chance)
            answer = send(client, job, payload, who=by)
            tried += 1
            assert answer.status_code < 500, (task["key"], path, answer.text)
            if answer.status_code >= 400:
                refused += 1
                problem = answer.json()
                assert problem["detail"], (task["key"], path)
                if answer.status_code == 422:
                    assert all(one["field"] and one["message"] for one in problem["errors"]), problem
        view = client.get(f"/api/jobs/{job}").json()
        if (again := next_of(view)) is not None and again["key"] == task["key"]:
            answer = send(client, job, payload_of(again), who=by)
            assert answer.status_code == 200, (task["key"], answer.json())
            view = answer.json()
    # Most of what is changed is noticed; the rest is a remark, a place or a figure that may be so.
    assert refused > tried / 3
    walk.walk(client, job)
    assert client.get(f"/api/jobs/{job}/seal").json()["broken"] == []
