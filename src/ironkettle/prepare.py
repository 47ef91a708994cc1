"""Before serving: migrate the database and load the demo once."""

from __future__ import annotations

from sqlalchemy import Engine

from ironkettle.demo.load import load_demo
from ironkettle.store.base import session_of
from ironkettle.store.migrate import current_revision, migrate, newest_revision


def prepare(engine: Engine, *, demo: bool) -> None:
    """Bring the database to the newest migration; load the demo into an empty workshop."""
    if current_revision(engine) != newest_revision():
        migrate(engine)
    if demo:
        with session_of(engine) as session:
            load_demo(session)
