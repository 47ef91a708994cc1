"""What failed stands beside each job, so that earlier jobs on the same unit can be told.

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
    op.create_index("ix_jobs_serial", "jobs", ["serial"])


def downgrade() -> None:
    op.drop_index("ix_jobs_serial", "jobs")
    op.drop_column("jobs", "causes")
