"""The head of the shop's papers, and which wrenches click.

Revision ID: 20261205a
"""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "20261205a"
down_revision = "20261204a"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "letterhead",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("document", postgresql.JSONB(), nullable=False),
        sa.Column("who", sa.String(), sa.ForeignKey("people.key"), nullable=False),
        sa.Column("changed_at", sa.DateTime(timezone=True), nullable=False),
        sa.CheckConstraint("id = 1", name="ck_letterhead_only"),
    )
    op.add_column("wrenches", sa.Column("clicks", sa.Boolean(), nullable=False, server_default=sa.false()))


def downgrade() -> None:
    op.drop_column("wrenches", "clicks")
    op.drop_table("letterhead")
