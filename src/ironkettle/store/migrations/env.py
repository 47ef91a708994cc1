"""Alembic's entry point: online only, on the connection it is handed."""

from __future__ import annotations

from alembic import context

from ironkettle.store.base import Base

# Their tables belong to the metadata.
from ironkettle.store.jobs import photos, recordings, rows  # noqa: F401
from ironkettle.store.sheets import rows as sheets  # noqa: F401
from ironkettle.store.shop import dues, lubricants, people, ring_puzzles, sessions, settings, stock, tools, trail, units  # noqa: F401

connection = context.config.attributes["connection"]
context.configure(connection=connection, target_metadata=Base.metadata, compare_type=True)
with context.begin_transaction():
    context.run_migrations()
