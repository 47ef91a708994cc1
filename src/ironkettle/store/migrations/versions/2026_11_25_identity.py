"""Entries keep the text that was sealed; people get roles, PINs and authorities; sessions, tokens, tries, trail.

Revision ID: 20261125b
"""

from __future__ import annotations

import hashlib
import json
from datetime import UTC, datetime, timedelta
from typing import Any

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "20261125b"
down_revision = "20261125a"
branch_labels = None
depends_on = None

_TIME = sa.DateTime(timezone=True)
# Numbers that were hashed as floats; JSONB gives those without a fraction back as whole numbers.
_FLOATS = frozenset({"t_s", "pressure_mpa", "temperature_c", "accuracy_pct", "probability"})
_AUTHORITIES = ("workshop", "lifting", "pressure_vessel", "life_support", "breathing_air")


def upgrade() -> None:
    _keep_sealed_text()
    _people()
    _sessions()
    _trail()


def _keep_sealed_text() -> None:
    op.add_column("entries", sa.Column("sealed", sa.String(), nullable=True))
    op.add_column("entries", sa.Column("seal_format", sa.SmallInteger(), nullable=True))
    op.execute("ALTER TABLE entries DISABLE TRIGGER entries_append_only")
    connection = op.get_bind()
    rows = connection.execute(
        sa.text(
            "SELECT id, job_id, seq, who, previous, hash, payload,"
            " to_char(bench_time AT TIME ZONE 'UTC', 'YYYY-MM-DD\"T\"HH24:MI:SS.US') AS bench,"
            " to_char(server_time AT TIME ZONE 'UTC', 'YYYY-MM-DD\"T\"HH24:MI:SS.US') AS server FROM entries"
        )
    )
    for row in rows.mappings().all():
        connection.execute(
            sa.text("UPDATE entries SET sealed = :text, seal_format = 1 WHERE id = :id"),
            {"text": _sealed_text(row), "id": row["id"]},
        )
    op.execute("ALTER TABLE entries ENABLE TRIGGER entries_append_only")
    op.alter_column("entries", "sealed", nullable=False)
    op.alter_column("entries", "seal_format", nullable=False)
    op.drop_column("entries", "payload")
    op.drop_column("entries", "previous")


def _sealed_text(row: Any) -> str:
    """The text whose digest is the entry's hash; for one that was tampered with, the text as it reads now."""
    candidates = [_document(row, payload) for payload in (row["payload"], _floated(row["payload"]))]
    for text in candidates:
        if hashlib.sha256(text.encode()).hexdigest() == row["hash"]:
            return text
    return candidates[0]


def _document(row: Any, payload: Any) -> str:
    document = {
        "previous": row["previous"],
        "job": str(row["job_id"]),
        "id": str(row["id"]),
        "seq": row["seq"],
        "who": row["who"],
        "bench_time": _iso(row["bench"]),
        "server_time": _iso(row["server"]),
        "payload": payload,
    }
    return json.dumps(document, sort_keys=True, separators=(",", ":"), ensure_ascii=False)


def _iso(text: str) -> str:
    """As datetime.isoformat writes it: no fraction when it is zero."""
    return f"{text.removesuffix('.000000')}+00:00"


def _floated(value: Any, name: str = "") -> Any:
    if isinstance(value, dict):
        return {key: _floated(inner, key) for key, inner in value.items()}
    if isinstance(value, list):
        return [_floated(inner, name) for inner in value]
    return float(value) if name in _FLOATS and isinstance(value, int) and not isinstance(value, bool) else value


def _people() -> None:
    op.create_table(
        "authorisations",
        sa.Column(
            "person", sa.String(), sa.ForeignKey("people.key", name="fk_authorisations_person_people"), primary_key=True
        ),
        sa.Column("authority", sa.String(20), primary_key=True),
        sa.Column("until", sa.Date(), nullable=False),
        sa.Column(
            "granted_by",
            sa.String(),
            sa.ForeignKey("people.key", name="fk_authorisations_granted_by_people"),
            nullable=False,
        ),
        sa.Column("granted_at", _TIME, nullable=False),
    )
    # Who might release might release anything; that holds on for a year, under their own name.
    now = datetime.now(UTC)
    for authority in _AUTHORITIES:
        op.get_bind().execute(
            sa.text(
                "INSERT INTO authorisations (person, authority, until, granted_by, granted_at)"
                " SELECT key, :authority, :until, key, :now FROM people WHERE may_release"
            ),
            {"authority": authority, "until": (now + timedelta(days=365)).date(), "now": now},
        )
    # The role was free words. Who could release is the lead; the others work at the bench.
    op.execute(
        "UPDATE people SET role = CASE WHEN may_release OR role ILIKE '%lead%' THEN 'lead' ELSE 'technician' END"
    )
    op.alter_column("people", "role", type_=sa.String(20))
    op.drop_column("people", "may_release")
    op.add_column("people", sa.Column("active", sa.Boolean(), nullable=False, server_default=sa.true()))
    op.alter_column("people", "active", server_default=None)
    op.add_column("people", sa.Column("secret", sa.String()))
    op.add_column("people", sa.Column("shipped_secret", sa.Boolean(), nullable=False, server_default=sa.false()))
    op.alter_column("people", "shipped_secret", server_default=None)
    op.add_column("people", sa.Column("badge", sa.String()))
    op.add_column("people", sa.Column("badge_mark", sa.Integer()))
    op.create_index("ix_people_badge_mark", "people", ["badge_mark"])


def _sessions() -> None:
    op.create_table(
        "sessions",
        sa.Column("digest", sa.String(), primary_key=True),
        sa.Column("person", sa.String(), sa.ForeignKey("people.key", name="fk_sessions_person_people"), nullable=False),
        sa.Column("began_at", _TIME, nullable=False),
        sa.Column("ends_at", _TIME, nullable=False),
    )
    op.create_index("ix_sessions_person", "sessions", ["person"])
    op.create_table(
        "tokens",
        sa.Column("id", sa.Uuid(), primary_key=True),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("person", sa.String(), sa.ForeignKey("people.key", name="fk_tokens_person_people"), nullable=False),
        sa.Column("digest", sa.String(), nullable=False),
        sa.Column("made_at", _TIME, nullable=False),
        sa.Column("revoked_at", _TIME),
        sa.UniqueConstraint("digest", name="uq_tokens_digest"),
    )
    op.create_table(
        "tries",
        sa.Column("subject", sa.String(), primary_key=True),
        sa.Column("wrong", sa.Integer(), nullable=False),
        sa.Column("last_at", _TIME, nullable=False),
        sa.Column("wait_until", _TIME, nullable=False),
    )


def _trail() -> None:
    op.create_table(
        "trail",
        sa.Column("id", sa.Integer(), sa.Identity(), primary_key=True),
        sa.Column("at", _TIME, nullable=False),
        sa.Column("who", sa.String(), sa.ForeignKey("people.key", name="fk_trail_who_people"), nullable=False),
        *(sa.Column(name, sa.String(), nullable=False) for name in ("noun", "subject", "change")),
        sa.Column("before", JSONB(), nullable=False),
        sa.Column("after", JSONB(), nullable=False),
    )
    op.execute(
        """
        CREATE FUNCTION trail_is_append_only() RETURNS trigger LANGUAGE plpgsql AS $$
        BEGIN
            RAISE EXCEPTION 'the trail of changes is append-only';
        END $$
        """
    )
    op.execute(
        """
        CREATE TRIGGER trail_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON trail
        FOR EACH STATEMENT EXECUTE FUNCTION trail_is_append_only()
        """
    )


def downgrade() -> None:
    op.drop_table("trail")
    op.execute("DROP FUNCTION trail_is_append_only()")
    for table in ("tries", "tokens", "sessions"):
        op.drop_table(table)
    op.drop_index("ix_people_badge_mark", "people")
    for column in ("badge_mark", "badge", "shipped_secret", "secret", "active"):
        op.drop_column("people", column)
    op.add_column("people", sa.Column("may_release", sa.Boolean(), nullable=False, server_default=sa.false()))
    op.execute("UPDATE people SET may_release = EXISTS (SELECT FROM authorisations a WHERE a.person = people.key)")
    op.alter_column("people", "may_release", server_default=None)
    op.alter_column("people", "role", type_=sa.String())
    op.drop_table("authorisations")
    op.add_column("entries", sa.Column("payload", JSONB(), nullable=True))
    op.add_column("entries", sa.Column("previous", sa.String(), nullable=True))
    op.execute("ALTER TABLE entries DISABLE TRIGGER entries_append_only")
    op.execute("UPDATE entries SET payload = sealed::jsonb -> 'payload', previous = sealed::jsonb ->> 'previous'")
    op.execute("ALTER TABLE entries ENABLE TRIGGER entries_append_only")
    op.alter_column("entries", "payload", nullable=False)
    op.alter_column("entries", "previous", nullable=False)
    op.drop_column("entries", "seal_format")
    op.drop_column("entries", "sealed")
