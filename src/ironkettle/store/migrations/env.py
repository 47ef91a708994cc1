"""Alembic's entry point: online only, on the connection it is handed."""

from __future__ import annotations

from alembic import context

from ironkettle.store import jobs, people, sheets, tools  # noqa: F401  (their tables belong to the metadata)
from ironkettle.store.base import Base

connection = context.config.attributes["connection"]
context.configure(connection=connection, target_metadata=Base.metadata, compare_type=True)
with context.begin_transaction():
    context.run_migrations()
