"""Wrenches and gauges say by which certificate they were calibrated, and until when.

Revision ID: 20261126a
"""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "20261126a"
down_revision = "20261125b"
branch_labels = None
depends_on = None


def upgrade() -> None:
    for table in ("wrenches", "gauges"):
        op.add_column(table, sa.Column("calibration", sa.String(), nullable=False, server_default=""))
        op.alter_column(table, "calibration", server_default=None)
        op.add_column(table, sa.Column("calibrated_until", sa.Date()))


def downgrade() -> None:
    for table in ("wrenches", "gauges"):
        op.drop_column(table, "calibrated_until")
        op.drop_column(table, "calibration")
