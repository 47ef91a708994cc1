"""The register map of the test stand; recordings that the server makes of it, their samples in sealed chunks.

Revision ID: 20261129a
"""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "20261129a"
down_revision = "20261128b"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "stand_map",
        sa.Column("key", sa.String(), primary_key=True),
        sa.Column("map", JSONB(), nullable=False),
        sa.Column("who", sa.String(), sa.ForeignKey("people.key", name="fk_stand_map_who_people"), nullable=False),
        sa.Column("changed_at", sa.DateTime(timezone=True), nullable=False),
    )
    op.create_table(
        "recordings",
        sa.Column("run", sa.Uuid(), primary_key=True),
        sa.Column("job_id", sa.Uuid(), sa.ForeignKey("jobs.id", name="fk_recordings_job_id_jobs"), nullable=False),
        sa.Column("who", sa.String(), sa.ForeignKey("people.key", name="fk_recordings_who_people"), nullable=False),
        sa.Column("plan", JSONB(), nullable=False),
        sa.Column("hold", sa.Integer(), nullable=True),
        sa.Column("state", sa.String(), nullable=False),
        sa.Column("started_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("ended_at", sa.DateTime(timezone=True), nullable=True),
        sa.Column("said", JSONB(), nullable=False),
        sa.Column("in_log", sa.Integer(), nullable=False),
    )
    op.create_table(
        "recorded_chunks",
        sa.Column(
            "run",
            sa.Uuid(),
            sa.ForeignKey("recordings.run", name="fk_recorded_chunks_run_recordings"),
            primary_key=True,
        ),
        sa.Column("place", sa.Integer(), primary_key=True),
        sa.Column("at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("text", sa.Text(), nullable=False),
        sa.Column("hash", sa.String(), nullable=False),
    )
    op.execute(
        """
        CREATE TRIGGER recorded_chunks_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON recorded_chunks
        FOR EACH STATEMENT EXECUTE FUNCTION entries_are_append_only()
        """
    )


def downgrade() -> None:
    op.drop_table("recorded_chunks")
    op.drop_table("recordings")
    op.drop_table("stand_map")
