"""First tables: people, tools, sheets, jobs and the append-only log.

Revision ID: 20261124a
"""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "20261124a"
down_revision = None
branch_labels = None
depends_on = None

_TIME = sa.DateTime(timezone=True)


def _tool_table(name: str, *columns: str) -> None:
    op.create_table(
        name,
        sa.Column("key", sa.String(), primary_key=True),
        sa.Column("name", sa.String(), nullable=False),
        *(sa.Column(column, sa.String(), nullable=False) for column in columns),
        sa.Column("accuracy_pct", sa.Float(), nullable=False),
    )


def upgrade() -> None:
    op.create_table(
        "people",
        sa.Column("key", sa.String(), primary_key=True),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("role", sa.String(), nullable=False),
        sa.Column("may_release", sa.Boolean(), nullable=False),
    )
    _tool_table("wrenches", "low", "high")
    _tool_table("gauges", "range", "resolution")
    op.create_table(
        "sheets",
        sa.Column("key", sa.String(), primary_key=True),
        sa.Column("version", sa.Integer(), primary_key=True),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("family", sa.String(), nullable=False),
        sa.Column("document", JSONB(), nullable=False),
        sa.Column("added_at", _TIME, server_default=sa.func.now(), nullable=False),
    )
    op.create_table(
        "jobs",
        sa.Column("id", sa.Uuid(), primary_key=True),
        sa.Column("number", sa.Integer(), sa.Identity(start=1001), nullable=False),
        sa.Column("sheet_key", sa.String(), nullable=False),
        sa.Column("sheet_version", sa.Integer(), nullable=False),
        *(
            sa.Column(name, sa.String(), nullable=False)
            for name in ("unit", "serial", "customer", "complaint", "stage", "next_need")
        ),
        sa.Column("released", sa.Boolean(), nullable=False),
        sa.Column("stages_done", sa.Integer(), nullable=False),
        sa.Column("entry_count", sa.Integer(), nullable=False),
        sa.Column("head", sa.String(), nullable=False),
        sa.Column("opened_at", _TIME, nullable=False),
        sa.Column("touched_at", _TIME, nullable=False),
        sa.Column("touched_by", sa.String(), nullable=False),
        sa.ForeignKeyConstraint(
            ["sheet_key", "sheet_version"],
            ["sheets.key", "sheets.version"],
            name="fk_jobs_sheet_key_sheet_version_sheets",
        ),
        sa.UniqueConstraint("number", name="uq_jobs_number"),
    )
    op.create_index("ix_jobs_touched_at", "jobs", ["touched_at"])
    op.create_table(
        "entries",
        sa.Column("id", sa.Uuid(), primary_key=True),
        sa.Column("job_id", sa.Uuid(), sa.ForeignKey("jobs.id", name="fk_entries_job_id_jobs"), nullable=False),
        sa.Column("seq", sa.Integer(), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("who", sa.String(), sa.ForeignKey("people.key", name="fk_entries_who_people"), nullable=False),
        sa.Column("bench_time", _TIME, nullable=False),
        sa.Column("server_time", _TIME, nullable=False),
        sa.Column("payload", JSONB(), nullable=False),
        sa.Column("previous", sa.String(), nullable=False),
        sa.Column("hash", sa.String(), nullable=False),
        sa.UniqueConstraint("job_id", "seq", name="uq_entries_job_id_seq"),
    )
    op.execute(
        """
        CREATE FUNCTION entries_are_append_only() RETURNS trigger LANGUAGE plpgsql AS $$
        BEGIN
            RAISE EXCEPTION 'the log of a job is append-only';
        END $$
        """
    )
    op.execute(
        """
        CREATE TRIGGER entries_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON entries
        FOR EACH STATEMENT EXECUTE FUNCTION entries_are_append_only()
        """
    )


def downgrade() -> None:
    op.drop_table("entries")
    op.execute("DROP FUNCTION entries_are_append_only()")
    for table in ("jobs", "sheets", "gauges", "wrenches", "people"):
        op.drop_table(table)
