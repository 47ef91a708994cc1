"""Migrations up and down, in step with the models; the log takes no change, and old entries keep their seal."""

from __future__ import annotations

import hashlib
import json
import uuid
from collections.abc import Iterator
from typing import Any

import pytest
from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext
from sqlalchemy import Engine, inspect, text
from sqlalchemy.exc import DBAPIError

from ironkettle.prepare import prepare
from ironkettle.store import migrate as module
from ironkettle.store.base import Base, session_of
from ironkettle.store.jobs.logs import check_log
from ironkettle.store.jobs.rows import JobRow, log_rows
from ironkettle.store.migrate import NewerDatabaseError, current_revision, migrate, newest_revision
from ironkettle.store.shop.people import all_people, has_lead
from tests.walk import demo_job

ROLE = "kettle_app"


@pytest.fixture
def rebuilt(engine: Engine, owner: Engine) -> Iterator[Engine]:
    """For tests that change the shape of tables: the newest shape is there again afterwards."""
    yield engine
    engine.dispose()  # connections remember the shape of what they asked before
    migrate(owner, "base")
    prepare(owner, application_role=ROLE)


def test_down_and_up_again(rebuilt: Engine, owner: Engine) -> None:
    migrate(owner, "base")
    assert set(inspect(owner).get_table_names()) == {"alembic_version"}
    migrate(owner)
    assert current_revision(owner) == newest_revision()


def test_models_and_migrations_say_the_same(engine: Engine) -> None:
    with engine.connect() as connection:
        assert compare_metadata(MigrationContext.configure(connection), Base.metadata) == []


CHANGES = ["UPDATE {0} SET {1} = 'ines'", "DELETE FROM {0}", "TRUNCATE {0} CASCADE"]


@pytest.mark.parametrize(("table", "column"), [("entries", "who"), ("samples", "text"), ("trail", "who")])
@pytest.mark.parametrize("change", CHANGES)
def test_append_only_holds_for_the_application_and_for_the_owner(
    workshop: Engine, owner: Engine, table: str, column: str, change: str
) -> None:
    with pytest.raises(DBAPIError, match="permission denied"), workshop.begin() as connection:
        connection.execute(text(change.format(table, column)))
    with pytest.raises(DBAPIError, match="append-only"), owner.begin() as connection:
        connection.execute(text(change.format(table, column)))


@pytest.mark.parametrize(
    "statement",
    [
        "ALTER TABLE entries DISABLE TRIGGER ALL",
        "SET session_replication_role = replica",
        "DROP TABLE guesses",
        "CREATE TABLE mine (a int)",
        "CREATE ROLE other SUPERUSER",
        "UPDATE alembic_version SET version_num = 'x'",
    ],
)
def test_the_applications_role_shapes_nothing(workshop: Engine, statement: str) -> None:
    with (
        pytest.raises(DBAPIError, match=r"permission denied|must be owner|must be superuser"),
        workshop.begin() as connection,
    ):
        connection.execute(text(statement))


def test_tampering_past_the_trigger_shows_in_the_seal(workshop: Engine, admin: Engine) -> None:
    with admin.begin() as connection:
        connection.execute(text("SET LOCAL session_replication_role = replica"))
        connection.execute(text("UPDATE entries SET sealed = replace(sealed, 'FN-0417', 'FN-9999')"))
    with session_of(workshop) as session:
        broken = check_log(session, demo_job(session))
    assert [link.reason for link in broken] == ["was changed after it was written"]


def test_a_database_of_a_later_version_is_left_alone(workshop: Engine, owner: Engine) -> None:
    with owner.begin() as connection:
        connection.execute(text("UPDATE alembic_version SET version_num = '20991231z'"))
    try:
        with pytest.raises(NewerDatabaseError, match="newer version of Iron Kettle"):
            prepare(owner, application_role=ROLE)
        assert current_revision(owner) == "20991231z"
    finally:
        with owner.begin() as connection:
            connection.execute(text("UPDATE alembic_version SET version_num = :new"), {"new": newest_revision()})


# What version 0.1 wrote: the digest over the payload as dumped then, in a chain; written here by hand.
OLD: list[tuple[str, dict[str, Any]]] = [
    ("2026-11-24T09:00:00+00:00", {
        "kind": "intake_recorded", "unit": "ram, Ø 50 × 28", "serial": "FN-0417", "customer": "bridges",
        "complaint": "leaks", "fluid": "mineral oil ISO VG 46", "pressure": "180 bar", "hours": None,
    }),
    ("2026-11-24T09:05:00.250000+00:00", {"kind": "step_done", "step": "isolate", "note": "“locked” – Tag 7"}),
    ("2026-11-24T10:00:00+00:00", {
        "kind": "test_samples", "run": "7d0e6e2e-9b1e-4d6b-8f55-3c1b6f6f2a10", "samples": [
            {"t_s": 0.0, "pressure_mpa": 18.0, "temperature_c": None},
            {"t_s": 1e-07, "pressure_mpa": 17.98, "temperature_c": 24.0},
            {"t_s": 1e6, "pressure_mpa": 0.1, "temperature_c": -7.25},
        ],
    }),
    # A device that woke up at the end of its calendar: taken by version 0.1, and then nothing could be read.
    ("9999-12-31T23:59:59.999999+00:00", {"kind": "note_made", "stage": "strip", "text": "after the power cut"}),
]  # fmt: skip


def test_old_entries_keep_their_seal_and_people_their_rights(rebuilt: Engine, owner: Engine) -> None:
    migrate(owner, "base")
    migrate(owner, "20261125a")
    job, head = uuid.uuid4(), "0" * 64
    with owner.begin() as connection:
        connection.execute(
            text(
                "INSERT INTO people (key, name, role, may_release) VALUES"
                " ('tamsin', 'Tamsin Orrell', 'workshop lead', true), ('bede', 'Bede Harrowgate', 'fitter', false)"
            )
        )
        connection.execute(
            text("INSERT INTO sheets (key, version, name, family, document) VALUES ('s', 1, '', '', '{}')")
        )
        connection.execute(
            text(
                "INSERT INTO jobs (id, sheet_key, sheet_version, unit, serial, customer, complaint, stage, next_need,"
                " released, stages_done, entry_count, head, opened_at, touched_at, touched_by)"
                " VALUES (:id, 's', 1, '', '', '', '', 'strip', '', false, 1, :count, '', now(), now(), '')"
            ),
            {"id": job, "count": len(OLD)},
        )
        for seq, (when, payload) in enumerate(OLD, start=1):
            one = {"id": uuid.uuid4(), "job": job, "seq": seq, "who": "bede", "at": when, "previous": head}
            document = {
                "previous": head, "job": str(job), "id": str(one["id"]), "seq": seq, "who": "bede", "bench_time": when,
                "server_time": "2026-11-24T12:00:00+00:00", "payload": payload,
            }  # fmt: skip
            sealed = json.dumps(document, sort_keys=True, separators=(",", ":"), ensure_ascii=False)
            head = hashlib.sha256(sealed.encode()).hexdigest()
            connection.execute(
                text(
                    "INSERT INTO entries (id, job_id, seq, kind, who, bench_time, server_time, payload, previous, hash)"
                    " VALUES (:id, :job, :seq, :kind, :who, :at, '2026-11-24T12:00:00Z', :payload, :previous, :hash)"
                ),
                {**one, "kind": payload["kind"], "payload": json.dumps(payload), "hash": head},
            )
        connection.execute(text("UPDATE jobs SET head = :head"), {"head": head})
    prepare(owner, application_role=ROLE)
    with session_of(rebuilt) as session:
        row = session.get_one(JobRow, job)
        assert check_log(session, row) == []
        rows = log_rows(session, job)
        log = [one.read() for one in rows]
        for entry, (_, payload) in zip(log, OLD, strict=True):
            # What was written then stands there now, and is read as what it is called today.
            assert entry.document["payload"] == payload
            assert entry.entry.kind == payload["kind"]
        assert log[3].entry.bench_time.year == 9999
        assert [chunk.count for chunk in log[2].entry.chunks] == [3]
        people = {person.key: person for person in all_people(session)}
        assert {key: person.role.value for key, person in people.items()} == {"tamsin": "lead", "bede": "technician"}
        assert len(people["tamsin"].authorisations) == 5
        assert people["bede"].authorisations == []
        # Nobody has a PIN yet: the first lead is asked for at the next start.
        assert not has_lead(session)


def test_every_migration_is_noted() -> None:
    notes = (module._HERE / "MIGRATION-NOTES.md").read_text(encoding="utf-8")
    for file in (module._HERE / "versions").glob("*.py"):
        revision = next(line for line in file.read_text().splitlines() if line.startswith("revision"))
        assert revision.split('"')[1] in notes, file.name
