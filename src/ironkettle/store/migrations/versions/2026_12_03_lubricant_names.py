"""The shop's own names of lubricants.

Revision ID: 20261203a
"""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "20261203a"
down_revision = "20261202b"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "lubricant_names",
        sa.Column("word", sa.String(), primary_key=True),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("lubricant", sa.String(), nullable=False),
        sa.Column("who", sa.String(), sa.ForeignKey("people.key"), nullable=False),
        sa.Column("changed_at", sa.DateTime(timezone=True), nullable=False),
    )


def downgrade() -> None:
    op.drop_table("lubricant_names")
