"""What was tapped by mistake is taken back: struck out, with a reason that says so."""

from __future__ import annotations

from tests import walk
from tests.people import BenchClient


def test_an_entry_undone_at_once_is_struck_out_and_its_task_comes_back(client: BenchClient) -> None:
    job = walk.open_new(client, "swing-bridge-ram")
    view = walk.walk(client, job, until="leak")
    taken = walk.send(client, job, {"kind": "leak_seen", "zone": "outside"}).json()
    entry = client.get(f"/api/jobs/{job}/log").json()[-1]["id"]
    assert walk.task_of(taken, "leak")["status"] == "done"
    back = walk.send(client, job, {"kind": "entry_struck", "entry": entry, "reason": view["undo_reason"]}).json()
    assert walk.task_of(back, "leak")["status"] == "next"
    words = client.get(f"/api/jobs/{job}/log").json()[-1]["words"]
    assert words == "an entry struck out: taken back with Undo"
