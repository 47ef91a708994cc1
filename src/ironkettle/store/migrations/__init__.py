"""Alembic migrations; what each is for stands in MIGRATION-NOTES.md."""
