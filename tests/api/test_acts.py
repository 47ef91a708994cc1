"""Hostile acts as data: on every unit, in every state, what a tired or a sly hand tries is refused with its own word, and leaves no trace."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import pytest
import yaml

from tests import walk
from tests.people import BenchClient

ACTS = sorted((Path(__file__).resolve().parents[1] / "acts").glob("*.yaml"))
LEAST = 8


@pytest.mark.parametrize("path", ACTS, ids=lambda path: path.stem)
def test_what_is_tried_on_a_unit_is_refused_with_its_own_word(client: BenchClient, path: Path) -> None:
    told = yaml.safe_load(path.read_text(encoding="utf-8"))
    job = walk.open_new(client, told["unit"])
    assert len(told["acts"]) >= LEAST
    view = walk.walk(client, job, until=told["acts"][0]["at"])
    for act in told["acts"]:
        if walk.next_of(view)["key"] != act["at"]:  # type: ignore[index]
            view = walk.walk(client, job, until=act["at"])
        assert walk.next_of(view) is not None, f"{act['at']} never came"
        view = _tried(client, job, view, act)
    # What was refused left nothing behind.
    after = client.get(f"/api/jobs/{job}").json()
    assert after["job"]["entry_count"] == view["job"]["entry_count"]


def _tried(client: BenchClient, job: str, view: walk.View, act: dict[str, Any]) -> walk.View:
    """One act: what comes back is what the list says; the job as it stands then."""
    payload = act.get("payload") or walk.payload_of(walk.task_of(view, act["task"]), **act.get("with", {}))
    answer = walk.send(client, job, payload, who=act.get("who", "bede"))
    said = answer.json()
    if act["answer"] == "taken":
        assert answer.status_code == 200, (act["tries"], said)
        assert act["says"] in str(said["tasks"]), act["tries"]
        return dict(said)
    assert answer.status_code in {403, 409, 422}, (act["tries"], said)
    assert said["type"] == f"/problems/{act['answer']}", (act["tries"], said)
    assert act["says"] in said["detail"], (act["tries"], said["detail"])
    return view


def test_every_unit_has_its_acts() -> None:
    units = sorted((Path(__file__).resolve().parents[2] / "src/ironkettle/demo/sheets").glob("*.yaml"))
    assert [path.stem for path in ACTS] == [path.stem for path in units]
