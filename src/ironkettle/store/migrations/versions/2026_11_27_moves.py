"""Jobs are worked by moves: a snapshot of the state beside the log, samples in a table of their own.

Revision ID: 20261127a
"""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "20261127a"
down_revision = "20261126a"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "snapshots",
        sa.Column("job_id", sa.Uuid(), sa.ForeignKey("jobs.id", name="fk_snapshots_job_id_jobs"), primary_key=True),
        sa.Column("format", sa.SmallInteger(), nullable=False),
        sa.Column("head", sa.String(), nullable=False),
        sa.Column("state", JSONB(), nullable=False),
    )
    op.create_table(
        "samples",
        sa.Column(
            "entry_id", sa.Uuid(), sa.ForeignKey("entries.id", name="fk_samples_entry_id_entries"), primary_key=True
        ),
        sa.Column("place", sa.Integer(), primary_key=True),
        sa.Column("job_id", sa.Uuid(), sa.ForeignKey("jobs.id", name="fk_samples_job_id_jobs"), nullable=False),
        sa.Column("run", sa.String(), nullable=False),
        sa.Column("text", sa.Text(), nullable=False),
    )
    op.create_index("ix_samples_job_id_run", "samples", ["job_id", "run"])
    op.execute(
        """
        CREATE TRIGGER samples_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON samples
        FOR EACH STATEMENT EXECUTE FUNCTION entries_are_append_only()
        """
    )
    for name in ("moves_done", "moves_total"):
        op.add_column("jobs", sa.Column(name, sa.Integer(), nullable=False, server_default="0"))
        op.alter_column("jobs", name, server_default=None)
    op.add_column("jobs", sa.Column("timer_until", sa.DateTime(timezone=True)))
    op.add_column("jobs", sa.Column("timer_for", sa.String(), nullable=False, server_default=""))
    op.alter_column("jobs", "timer_for", server_default=None)
    op.drop_column("jobs", "stages_done")


def downgrade() -> None:
    op.add_column("jobs", sa.Column("stages_done", sa.Integer(), nullable=False, server_default="0"))
    op.alter_column("jobs", "stages_done", server_default=None)
    for name in ("moves_done", "moves_total", "timer_until", "timer_for"):
        op.drop_column("jobs", name)
    op.drop_table("samples")
    op.drop_table("snapshots")
