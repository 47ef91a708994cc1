"""The stock holds rings, kits and parts beside seals, and what jobs drew; what a job is short of stands beside it.

Revision ID: 20261128a
"""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "20261128a"
down_revision = "20261127a"
branch_labels = None
depends_on = None

_DIMENSIONS = ("side", "surface", "groove", "length")


def upgrade() -> None:
    op.rename_table("seal_stock", "stock")
    op.execute("ALTER INDEX pk_seal_stock RENAME TO pk_stock")
    for name in _DIMENSIONS:
        op.alter_column("stock", name, nullable=True)
    for name in ("size", "compound"):
        op.add_column("stock", sa.Column(name, sa.String(), nullable=False, server_default=""))
        op.alter_column("stock", name, server_default=None)
    op.add_column("stock", sa.Column("least", sa.Integer(), nullable=False, server_default="0"))
    op.alter_column("stock", "least", server_default=None)
    op.add_column("stock", sa.Column("active", sa.Boolean(), nullable=False, server_default=sa.true()))
    op.alter_column("stock", "active", server_default=None)
    op.create_check_constraint("in_stock_not_below_zero", "stock", "in_stock >= 0")
    op.create_table(
        "stock_drawn",
        sa.Column("job_id", sa.Uuid(), sa.ForeignKey("jobs.id", name="fk_stock_drawn_job_id_jobs"), primary_key=True),
        sa.Column("item", sa.String(), sa.ForeignKey("stock.key", name="fk_stock_drawn_item_stock"), primary_key=True),
        sa.Column("count", sa.Integer(), nullable=False),
    )
    op.add_column("jobs", sa.Column("short", JSONB(), nullable=False, server_default="[]"))
    op.alter_column("jobs", "short", server_default=None)


def downgrade() -> None:
    op.drop_column("jobs", "short")
    op.drop_table("stock_drawn")
    op.execute("DELETE FROM stock WHERE side IS NULL OR surface IS NULL OR groove IS NULL OR length IS NULL")
    op.drop_constraint("in_stock_not_below_zero", "stock", type_="check")
    for name in ("size", "compound", "least", "active"):
        op.drop_column("stock", name)
    for name in _DIMENSIONS:
        op.alter_column("stock", name, nullable=False)
    op.execute("ALTER INDEX pk_stock RENAME TO pk_seal_stock")
    op.rename_table("stock", "seal_stock")
