"""Alembic's entry point: online only, on the connection it is handed."""

from __future__ import annotations

from alembic import context

# Their tables belong to the metadata.
from ironkettle.store import (  # noqa: F401
    dues,
    house,
    jobs,
    people,
    photos,
    practice,
    recordings,
    sessions,
    sheets,
    stock,
    tools,
    trail,
    units,
)
from ironkettle.store.base import Base

connection = context.config.attributes["connection"]
context.configure(connection=connection, target_metadata=Base.metadata, compare_type=True)
with context.begin_transaction():
    context.run_migrations()
