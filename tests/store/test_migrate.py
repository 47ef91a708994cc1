"""Migrations up and down, in step with the models; the log takes no change."""

from __future__ import annotations

import pytest
from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext
from sqlalchemy import Engine, inspect, text
from sqlalchemy.exc import DBAPIError

from ironkettle.store.base import Base, session_of
from ironkettle.store.jobs import check_log, list_jobs
from ironkettle.store.migrate import current_revision, migrate, newest_revision


def test_down_and_up_again(engine: Engine) -> None:
    migrate(engine, "base")
    assert set(inspect(engine).get_table_names()) == {"alembic_version"}
    migrate(engine)
    assert current_revision(engine) == newest_revision()


def test_models_and_migrations_say_the_same(engine: Engine) -> None:
    with engine.connect() as connection:
        assert compare_metadata(MigrationContext.configure(connection), Base.metadata) == []


@pytest.mark.parametrize("change", ["UPDATE entries SET who = 'ines'", "DELETE FROM entries", "TRUNCATE entries"])
def test_the_log_is_append_only(workshop: Engine, change: str) -> None:
    with pytest.raises(DBAPIError, match="append-only"), workshop.begin() as connection:
        connection.execute(text(change))


def test_tampering_past_the_trigger_shows_in_the_seal(workshop: Engine) -> None:
    with workshop.begin() as connection:
        connection.execute(text("SET LOCAL session_replication_role = replica"))
        connection.execute(text("""UPDATE entries SET payload = jsonb_set(payload, '{serial}', '"FN-9999"')"""))
    with session_of(workshop) as session:
        broken = check_log(session, list_jobs(session)[0])
    assert [link.reason for link in broken] == ["was changed after it was written"]
