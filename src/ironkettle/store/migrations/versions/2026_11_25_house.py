"""House rules, the stock of seals, and guesses at the ring puzzles.

Revision ID: 20261125a
"""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "20261125a"
down_revision = "20261124a"
branch_labels = None
depends_on = None

_TIME = sa.DateTime(timezone=True)


def upgrade() -> None:
    op.create_table(
        "house_rules",
        sa.Column("key", sa.String(), primary_key=True),
        sa.Column("value", sa.Float(), nullable=False),
        sa.Column("who", sa.String(), sa.ForeignKey("people.key", name="fk_house_rules_who_people"), nullable=False),
        sa.Column("changed_at", _TIME, nullable=False),
    )
    op.create_table(
        "seal_stock",
        sa.Column("key", sa.String(), primary_key=True),
        *(
            sa.Column(name, sa.String(), nullable=False)
            for name in ("name", "kind", "side", "surface", "groove", "length")
        ),
        sa.Column("in_stock", sa.Integer(), nullable=False),
        sa.Column("place", sa.String(), nullable=False),
    )
    op.create_table(
        "guesses",
        sa.Column("id", sa.Uuid(), primary_key=True),
        sa.Column("who", sa.String(), sa.ForeignKey("people.key", name="fk_guesses_who_people"), nullable=False),
        sa.Column("puzzle", sa.String(), nullable=False),
        sa.Column("choice", sa.String(), nullable=False),
        sa.Column("right", sa.Boolean(), nullable=False),
        sa.Column("guessed_at", _TIME, nullable=False),
    )
    op.create_index("ix_guesses_who", "guesses", ["who"])


def downgrade() -> None:
    for table in ("guesses", "seal_stock", "house_rules"):
        op.drop_table(table)
