"""Which sheets have a new version that the days of their units are to be worked out by: one row a sheet, not one a unit.

Revision ID: 20261201b
"""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "20261201b"
down_revision = "20261201a"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "sheet_changes",
        sa.Column("id", sa.Integer(), sa.Identity(), primary_key=True),
        sa.Column("sheet_key", sa.String(), nullable=False),
        sa.Column("after", sa.Uuid(), nullable=True),
    )
    op.execute("INSERT INTO sheet_changes (sheet_key) SELECT DISTINCT sheet_key FROM units WHERE due_stale")
    op.drop_index("ix_units_due_stale", "units")
    op.drop_column("units", "due_stale")
    op.create_index("ix_units_sheet_key_id", "units", ["sheet_key", "id"])


def downgrade() -> None:
    op.drop_index("ix_units_sheet_key_id", "units")
    op.add_column("units", sa.Column("due_stale", sa.Boolean(), nullable=False, server_default=sa.true()))
    op.alter_column("units", "due_stale", server_default=None)
    op.create_index("ix_units_due_stale", "units", ["id"], postgresql_where=sa.text("due_stale"))
    op.drop_table("sheet_changes")
