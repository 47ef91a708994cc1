"""What the application's own role may do: everything with rows, but no change to what must stay as written."""

from __future__ import annotations

from sqlalchemy import Engine, inspect, text

# Append-only: rows come in and stay.
APPEND_ONLY = ("entries", "photos", "recorded_chunks", "samples", "trail")
# Rows stay, and of them only these columns may change.
CHANGING_COLUMNS = {"sheets": ("active", "approved_by", "approved_at")}


def grant_application(owner: Engine, role: str) -> None:
    """Grant a role what the application needs; nothing when it is the owner itself.

    The owner runs migrations; the application can neither change the shape of a table nor switch off a
    trigger, and on append-only tables it may read and insert alone.
    """
    if not role or role == owner.url.username:
        return
    name = owner.dialect.identifier_preparer.quote(role)
    with owner.begin() as connection:
        tables = [table for table in inspect(connection).get_table_names() if table != "alembic_version"]
        connection.execute(text(f"GRANT USAGE ON SCHEMA public TO {name}"))
        connection.execute(text(f"REVOKE ALL ON ALL TABLES IN SCHEMA public FROM {name}"))
        connection.execute(text(f"GRANT SELECT ON alembic_version TO {name}"))
        for table in tables:
            connection.execute(text(f"GRANT {_allowed(table)} ON {table} TO {name}"))
        connection.execute(text(f"GRANT USAGE ON ALL SEQUENCES IN SCHEMA public TO {name}"))


def _allowed(table: str) -> str:
    if table in APPEND_ONLY:
        return "SELECT, INSERT"
    if table in CHANGING_COLUMNS:
        return f"SELECT, INSERT, UPDATE ({', '.join(CHANGING_COLUMNS[table])})"
    return "SELECT, INSERT, UPDATE, DELETE"
