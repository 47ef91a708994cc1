"""Shop settings and quick services under the names they have now. What the intake of a job sealed stays as it was written.

Revision ID: 20261202b
"""

from __future__ import annotations

from alembic import op

revision = "20261202b"
down_revision = "20261202a"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.rename_table("house_rules", "shop_settings")
    op.execute("ALTER TABLE shop_settings RENAME CONSTRAINT fk_house_rules_who_people TO fk_shop_settings_who_people")
    op.execute("ALTER INDEX pk_house_rules RENAME TO pk_shop_settings")
    op.alter_column("jobs", "house", new_column_name="settings")
    op.execute("UPDATE shop_settings SET key = 'practice_' || substr(key, 8) WHERE key LIKE 'school\\_%'")
    op.alter_column("jobs", "care", new_column_name="quick_service")
    op.execute("UPDATE counter_readings SET source = 'service' WHERE source = 'care'")


def downgrade() -> None:
    op.execute("UPDATE counter_readings SET source = 'care' WHERE source = 'service'")
    op.alter_column("jobs", "quick_service", new_column_name="care")
    op.execute("UPDATE shop_settings SET key = 'school_' || substr(key, 10) WHERE key LIKE 'practice\\_%'")
    op.alter_column("jobs", "settings", new_column_name="house")
    op.execute("ALTER INDEX pk_shop_settings RENAME TO pk_house_rules")
    op.execute("ALTER TABLE shop_settings RENAME CONSTRAINT fk_shop_settings_who_people TO fk_house_rules_who_people")
    op.rename_table("shop_settings", "house_rules")
