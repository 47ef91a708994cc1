"""How many tasks of a job are done, under the name they have now.

Revision ID: 20261202a
"""

from __future__ import annotations

from alembic import op

revision = "20261202a"
down_revision = "20261201b"
branch_labels = None
depends_on = None

_NAMES = (("moves_done", "tasks_done"), ("moves_total", "tasks_total"))


def upgrade() -> None:
    for before, now in _NAMES:
        op.alter_column("jobs", before, new_column_name=now)


def downgrade() -> None:
    for before, now in _NAMES:
        op.alter_column("jobs", now, new_column_name=before)
