"""Beside each job: what failed, the house rules of its day, how it ended, whose copy it is; photos; tools and
sheets that are ended.

Revision ID: 20261128b
"""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "20261128b"
down_revision = "20261128a"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("jobs", sa.Column("causes", JSONB(), nullable=False, server_default="[]"))
    op.alter_column("jobs", "causes", server_default=None)
    # A job that is open goes on under the rules it has been worked by so far.
    op.add_column("jobs", sa.Column("house", JSONB(), nullable=False, server_default="{}"))
    op.alter_column("jobs", "house", server_default=None)
    op.execute("UPDATE jobs SET house = coalesce((SELECT jsonb_object_agg(key, value) FROM house_rules), '{}'::jsonb)")
    op.create_index("ix_jobs_serial", "jobs", ["serial"])
    op.add_column("jobs", sa.Column("ended", sa.String(), nullable=False, server_default=""))
    op.alter_column("jobs", "ended", server_default=None)
    op.add_column(
        "jobs", sa.Column("copied_from", sa.Uuid(), sa.ForeignKey("jobs.id", name="fk_jobs_copied_from_jobs"))
    )
    for table in ("wrenches", "gauges", "sheets"):
        op.add_column(table, sa.Column("active", sa.Boolean(), nullable=False, server_default=sa.true()))
        op.alter_column(table, "active", server_default=None)
    op.create_table(
        "photos",
        sa.Column("id", sa.Uuid(), primary_key=True),
        sa.Column("job_id", sa.Uuid(), sa.ForeignKey("jobs.id", name="fk_photos_job_id_jobs"), nullable=False),
        sa.Column("who", sa.String(), sa.ForeignKey("people.key", name="fk_photos_who_people"), nullable=False),
        sa.Column("taken_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("sha256", sa.String(), nullable=False),
        sa.Column("width", sa.Integer(), nullable=False),
        sa.Column("height", sa.Integer(), nullable=False),
        sa.Column("image", sa.LargeBinary(), nullable=False),
        sa.Column("thumb", sa.LargeBinary(), nullable=False),
    )
    op.create_index("ix_photos_job_id", "photos", ["job_id"])
    op.execute(
        """
        CREATE TRIGGER photos_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON photos
        FOR EACH STATEMENT EXECUTE FUNCTION entries_are_append_only()
        """
    )


def downgrade() -> None:
    op.drop_table("photos")
    for table in ("wrenches", "gauges", "sheets"):
        op.drop_column(table, "active")
    op.drop_column("jobs", "copied_from")
    op.drop_column("jobs", "ended")
    op.drop_index("ix_jobs_serial", "jobs")
    op.drop_column("jobs", "house")
    op.drop_column("jobs", "causes")
