"""The bench list: serials found without their signs, and jobs that wait for a signature.

Revision ID: 20261204a
"""

from __future__ import annotations

from alembic import op

revision = "20261204a"
down_revision = "20261203a"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.execute(
        """UPDATE jobs SET words = words || ' ' || regexp_replace(serial, '[-/. ]', '', 'g') WHERE serial ~ '[-/. ]'"""
    )
    op.execute("UPDATE jobs SET waits = 'signature' WHERE NOT released AND next_need = 'Sign and release'")


def downgrade() -> None:
    op.execute("UPDATE jobs SET waits = '' WHERE waits = 'signature'")
