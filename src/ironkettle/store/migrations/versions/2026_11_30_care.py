"""Units with their labels, counters, what was done when and what is due; what the bench list is filtered by.

Revision ID: 20261130a
"""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "20261130a"
down_revision = "20261129a"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "installation",
        sa.Column("key", sa.String(), primary_key=True),
        sa.Column("value", sa.String(), nullable=False),
    )
    op.create_table(
        "units",
        sa.Column("id", sa.Uuid(), primary_key=True),
        sa.Column("number", sa.Integer(), sa.Identity(start=1), nullable=False),
        sa.Column("sheet_key", sa.String(), nullable=False),
        sa.Column("serial", sa.String(), nullable=False),
        sa.Column("serial_key", sa.String(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("customer", sa.String(), nullable=False),
        sa.Column("first_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("by_hand", sa.Boolean(), nullable=False),
        sa.UniqueConstraint("number", name="uq_units_number"),
        sa.UniqueConstraint("sheet_key", "serial_key", name="uq_units_sheet_key_serial_key"),
    )
    op.create_index("ix_units_serial_key", "units", ["serial_key"])
    unit = sa.ForeignKey("units.id", name="fk_services_unit_id_units")
    op.create_table(
        "services",
        sa.Column("job_id", sa.Uuid(), sa.ForeignKey("jobs.id", name="fk_services_job_id_jobs"), primary_key=True),
        sa.Column("interval", sa.String(), primary_key=True),
        sa.Column("unit_id", sa.Uuid(), unit, nullable=False),
        sa.Column("done_at", sa.DateTime(timezone=True), nullable=False),
    )
    op.create_index("ix_services_unit_id", "services", ["unit_id"])
    op.create_table(
        "counter_readings",
        sa.Column("id", sa.Uuid(), primary_key=True),
        sa.Column(
            "unit_id", sa.Uuid(), sa.ForeignKey("units.id", name="fk_counter_readings_unit_id_units"), nullable=False
        ),
        sa.Column("counter", sa.String(), nullable=False),
        sa.Column("value", sa.Float(), nullable=False),
        sa.Column("at", sa.DateTime(timezone=True), nullable=False),
        sa.Column(
            "who", sa.String(), sa.ForeignKey("people.key", name="fk_counter_readings_who_people"), nullable=False
        ),
        sa.Column("source", sa.String(), nullable=False),
        sa.Column("job_id", sa.Uuid(), sa.ForeignKey("jobs.id", name="fk_counter_readings_job_id_jobs"), nullable=True),
        sa.Column("lower", sa.String(), nullable=True),
        sa.Column("note", sa.String(), nullable=False),
    )
    op.create_index("ix_counter_readings_unit_id", "counter_readings", ["unit_id", "counter"])
    op.create_table(
        "dues",
        sa.Column("unit_id", sa.Uuid(), sa.ForeignKey("units.id", name="fk_dues_unit_id_units"), primary_key=True),
        sa.Column("interval", sa.String(), primary_key=True),
        sa.Column("by", sa.Date(), nullable=True),
        sa.Column("unknown_from", sa.Date(), nullable=True),
    )
    op.create_index("ix_dues_by", "dues", ["by"])
    op.create_index("ix_dues_unknown_from", "dues", ["unknown_from"])
    op.add_column(
        "jobs", sa.Column("unit_id", sa.Uuid(), sa.ForeignKey("units.id", name="fk_jobs_unit_id_units"), nullable=True)
    )
    op.create_index("ix_jobs_unit_id", "jobs", ["unit_id"])
    for name in ("care", "family", "waits"):
        op.add_column("jobs", sa.Column(name, sa.String(), nullable=False, server_default=""))
        op.alter_column("jobs", name, server_default=None)
    op.add_column("jobs", sa.Column("words", sa.Text(), nullable=False, server_default=""))
    op.alter_column("jobs", "words", server_default=None)
    op.execute("UPDATE jobs SET words = concat_ws(' ', unit, serial, customer, complaint, sheet_key)")
    # Searching stays fast with it; a server that does not have it, or whose owner may not add it, searches row by row.
    op.execute(
        """
        DO $$ BEGIN
            CREATE EXTENSION IF NOT EXISTS pg_trgm;
            CREATE INDEX ix_jobs_words ON jobs USING gin (words gin_trgm_ops);
        EXCEPTION WHEN insufficient_privilege OR undefined_file OR feature_not_supported OR undefined_object THEN
            RAISE NOTICE 'no trigram index: %', SQLERRM;
        END $$
        """
    )
    op.add_column("jobs", sa.Column("promised", sa.Date(), nullable=True))
    op.execute(
        "UPDATE jobs SET family = sheets.family FROM sheets WHERE sheets.key = sheet_key AND sheets.version = sheet_version"
    )
    op.create_index("ix_jobs_family", "jobs", ["family"])
    op.create_index("ix_jobs_touched_by", "jobs", ["touched_by"])
    op.create_index("ix_jobs_released", "jobs", ["released"])
    open_only = sa.text("released IS false")
    op.create_index("ix_jobs_open_stage", "jobs", ["stage"], postgresql_where=open_only)
    op.create_index("ix_jobs_open_promised", "jobs", ["promised"], postgresql_where=open_only)
    op.create_index(
        "ix_jobs_open", "jobs", [sa.text("touched_at DESC"), "id"], postgresql_where=open_only,
        postgresql_include=["waits", "timer_until", "promised"],
    )  # fmt: skip
    op.create_index("ix_jobs_released_touched_at", "jobs", ["released", sa.text("touched_at DESC"), "id"])
    op.add_column("tokens", sa.Column("use", sa.String(), nullable=False, server_default="scripts"))
    op.alter_column("tokens", "use", server_default=None)


def downgrade() -> None:
    op.drop_column("tokens", "use")
    for index in (
        "ix_jobs_released_touched_at",
        "ix_jobs_open_stage",
        "ix_jobs_open_promised",
        "ix_jobs_open",
        "ix_jobs_released",
        "ix_jobs_touched_by",
        "ix_jobs_family",
        "ix_jobs_unit_id",
    ):
        op.drop_index(index, "jobs")
    op.execute("DROP INDEX IF EXISTS ix_jobs_words")
    for name in ("promised", "words", "waits", "family", "care", "unit_id"):
        op.drop_column("jobs", name)
    for table in ("dues", "counter_readings", "services", "units", "installation"):
        op.drop_table(table)
