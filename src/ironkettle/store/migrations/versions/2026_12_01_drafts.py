"""Sheets that are drafts until somebody approves them, and that nobody can change; the trail as a chain of hashes.

Revision ID: 20261201a
"""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

from ironkettle.store.shop.trail import chain_trail

revision = "20261201a"
down_revision = "20261130a"
branch_labels = None
depends_on = None


def upgrade() -> None:
    for name in ("drafted_by", "approved_by"):
        op.add_column(
            "sheets",
            sa.Column(name, sa.String(), sa.ForeignKey("people.key", name=f"fk_sheets_{name}_people"), nullable=True),
        )
    op.add_column("sheets", sa.Column("approved_at", sa.DateTime(timezone=True), nullable=True))
    # A family was told in words; the first of these in them named it.
    for table in ("jobs", "sheets"):
        op.execute(
            f"""
            UPDATE {table} SET family = CASE lower(substring(family from
                '(?i)\\m(ram|cylinder|jack|compressor|pump|motor|injector|regulator|valve|coupl|tool|scaler|head)'))
                WHEN 'ram' THEN 'cylinder' WHEN 'cylinder' THEN 'cylinder' WHEN 'jack' THEN 'cylinder'
                WHEN 'compressor' THEN 'compressor' WHEN 'pump' THEN 'pump' WHEN 'motor' THEN 'pump'
                WHEN 'injector' THEN 'valve' WHEN 'regulator' THEN 'valve' WHEN 'valve' THEN 'valve'
                WHEN 'coupl' THEN 'coupler' WHEN 'tool' THEN 'tool' WHEN 'scaler' THEN 'tool' WHEN 'head' THEN 'tool'
                ELSE CASE WHEN family = '' THEN '' ELSE 'other' END END
            """
        )
    op.execute(
        """
        CREATE FUNCTION sheets_stay_as_they_are() RETURNS trigger LANGUAGE plpgsql AS $$
        BEGIN
            IF TG_OP = 'UPDATE'
                AND (OLD.key, OLD.version, OLD.name, OLD.family, OLD.document::text, OLD.added_at, OLD.drafted_by)
                    IS NOT DISTINCT FROM
                    (NEW.key, NEW.version, NEW.name, NEW.family, NEW.document::text, NEW.added_at, NEW.drafted_by)
                AND (OLD.approved_at IS NULL
                    OR (OLD.approved_at, OLD.approved_by) IS NOT DISTINCT FROM (NEW.approved_at, NEW.approved_by))
            THEN
                RETURN NEW;
            END IF;
            RAISE EXCEPTION 'sheet versions are append-only';
        END $$
        """
    )
    op.execute(
        """
        CREATE TRIGGER sheets_stay BEFORE UPDATE OR DELETE ON sheets
        FOR EACH ROW EXECUTE FUNCTION sheets_stay_as_they_are()
        """
    )
    op.execute(
        """
        CREATE TRIGGER sheets_stay_all BEFORE TRUNCATE ON sheets
        FOR EACH STATEMENT EXECUTE FUNCTION sheets_stay_as_they_are()
        """
    )
    for name in ("due_by", "unknown_from"):
        op.add_column("units", sa.Column(name, sa.Date(), nullable=True))
        op.create_index(f"ix_units_{name}", "units", [name])
    op.add_column("units", sa.Column("due_stale", sa.Boolean(), nullable=False, server_default=sa.true()))
    op.alter_column("units", "due_stale", server_default=None)
    op.create_index("ix_units_due_stale", "units", ["id"], postgresql_where=sa.text("due_stale"))
    op.create_table(
        "trace_marks",
        sa.Column("mark", sa.String(), primary_key=True),
        sa.Column("run", sa.String(), primary_key=True),
        sa.Column("job_id", sa.Uuid(), sa.ForeignKey("jobs.id", name="fk_trace_marks_job_id_jobs"), nullable=False),
        sa.Column("test", sa.String(), nullable=False),
        sa.Column("when", sa.String(), nullable=False),
    )
    op.create_index("ix_trace_marks_run", "trace_marks", ["run"])
    op.add_column("gauges", sa.Column("stability_pct", sa.Float(), nullable=True))
    op.add_column("tokens", sa.Column("ends_at", sa.DateTime(timezone=True), nullable=True))
    op.execute("UPDATE tokens SET ends_at = made_at + interval '366 days' WHERE use = 'calendar'")
    op.execute("ALTER TABLE trail DISABLE TRIGGER trail_append_only")
    op.add_column("trail", sa.Column("hash", sa.String(), nullable=False, server_default=""))
    chain_trail(op.get_bind())
    op.alter_column("trail", "hash", server_default=None)
    op.execute("ALTER TABLE trail ENABLE TRIGGER trail_append_only")


def downgrade() -> None:
    op.drop_column("tokens", "ends_at")
    op.drop_column("gauges", "stability_pct")
    op.drop_table("trace_marks")
    for name in ("due_stale", "unknown_from", "due_by"):
        op.drop_index(f"ix_units_{name}", "units")
        op.drop_column("units", name)
    op.execute("ALTER TABLE trail DISABLE TRIGGER trail_append_only")
    op.drop_column("trail", "hash")
    op.execute("ALTER TABLE trail ENABLE TRIGGER trail_append_only")
    op.execute("DROP TRIGGER sheets_stay_all ON sheets")
    op.execute("DROP TRIGGER sheets_stay ON sheets")
    op.execute("DROP FUNCTION sheets_stay_as_they_are()")
    for name in ("approved_at", "approved_by", "drafted_by"):
        op.drop_column("sheets", name)
