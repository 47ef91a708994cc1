"""How a job stands is the same however it is found: remembered, from its snapshot and the entries since, or from its log."""

from __future__ import annotations

import pytest
from sqlalchemy import Engine, select, text

from ironkettle.store.base import session_of
from ironkettle.store.jobs import cases
from ironkettle.store.jobs.cases import folded, state_of
from ironkettle.store.jobs.logs import SNAPSHOT_EVERY, snapshot_differs
from ironkettle.store.jobs.rows import JobRow, SnapshotRow
from tests import walk
from tests.people import BenchClient


@pytest.fixture
def forgetful(monkeypatch: pytest.MonkeyPatch) -> None:
    """A server that remembers one job at most, and none of the test's."""
    monkeypatch.setattr(cases, "REMEMBERED", cases._Remembered(0))


@pytest.mark.usefixtures("forgetful")
def test_from_snapshot_and_the_entries_since_as_from_the_log(client: BenchClient, workshop: Engine) -> None:
    job = walk.numbered(client, "FN-0417")

    def compare(view: walk.View) -> None:
        with session_of(workshop) as session:
            row = session.scalars(select(JobRow).where(JobRow.serial == "FN-0417")).one()
            assert state_of(session, row) == folded(session, row)
            assert not snapshot_differs(session, row)

    view = walk.walk_by_api(client, job, each=compare)
    assert view["job"]["entry_count"] > 2 * SNAPSHOT_EVERY


@pytest.mark.usefixtures("forgetful")
def test_a_snapshot_is_not_read_where_it_is_of_another_log_or_something_was_struck_since(
    client: BenchClient, workshop: Engine
) -> None:
    job = walk.numbered(client, "FN-0417")
    noted = walk.send(client, job, {"kind": "note_made", "text": "drip at the gland"}).json()
    entry = client.get(f"/api/jobs/{job}/log").json()[-1]["id"]
    assert noted["seq"] == 2
    walk.send(client, job, {"kind": "entry_struck", "entry": entry, "reason": "wrong job"})
    with session_of(workshop) as session:
        row = session.scalars(select(JobRow).where(JobRow.serial == "FN-0417")).one()
        assert state_of(session, row) == folded(session, row)
        assert state_of(session, row).count == 3
        assert session.get_one(SnapshotRow, row.id).state["count"] == 1
    with workshop.begin() as connection:
        connection.execute(
            text("UPDATE snapshots SET head = repeat('0', 64), state = jsonb_set(state, '{count}', '3')")
        )
    with session_of(workshop) as session:
        row = session.scalars(select(JobRow).where(JobRow.serial == "FN-0417")).one()
        assert state_of(session, row) == folded(session, row)
        assert snapshot_differs(session, row)


def test_what_is_remembered_is_nobodys_to_change(client: BenchClient, workshop: Engine) -> None:
    walk.numbered(client, "FN-0417")
    with session_of(workshop) as session:
        row = session.scalars(select(JobRow).where(JobRow.serial == "FN-0417")).one()
        mine = state_of(session, row)
        mine.books.clear()
        mine.completed["step:isolate"] = 7
        mine.count += 1
        assert state_of(session, row) == folded(session, row)
