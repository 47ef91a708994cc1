"""The trail of changes to people, rights, tools, sheets and shop settings: who, when, from what, to what; each sealed with
the one before it."""

from __future__ import annotations

import json
from collections.abc import Mapping
from datetime import UTC, datetime
from typing import Any

from sqlalchemy import Connection, ForeignKey, Identity, func, select, text
from sqlalchemy.orm import Mapped, Session, mapped_column

from ironkettle.core.jobs import FIRST_LINK, link_of
from ironkettle.store.base import Base

# One change at a time is chained; the number means nothing but this.
_TRAIL_LOCK = 8_440_001
_SEALED = ("id", "at", "who", "noun", "subject", "change", "before", "after")


class TrailRow(Base):
    """One change. The table takes no update and no delete (a trigger refuses them); ``hash`` seals it with all before it."""

    __tablename__ = "trail"

    id: Mapped[int] = mapped_column(Identity(), primary_key=True)
    at: Mapped[datetime]
    who: Mapped[str] = mapped_column(ForeignKey("people.key"))
    noun: Mapped[str]
    subject: Mapped[str]
    change: Mapped[str]
    before: Mapped[dict[str, Any]]
    after: Mapped[dict[str, Any]]
    hash: Mapped[str]


def leave_trail(
    session: Session,
    who: str,
    now: datetime,
    noun: str,
    subject: str,
    change: str,
    before: dict[str, Any] | None = None,
    after: dict[str, Any] | None = None,
) -> None:
    """Write down a change in the transaction that makes it. Secrets never go in here."""
    session.execute(select(func.pg_advisory_xact_lock(_TRAIL_LOCK)))
    last = session.scalar(select(TrailRow.hash).order_by(TrailRow.id.desc()).limit(1)) or FIRST_LINK
    row = TrailRow(at=now, who=who, noun=noun, subject=subject, change=change, before=before or {}, after=after or {})
    row.id = session.scalar(text("SELECT nextval(pg_get_serial_sequence('trail', 'id'))"))
    row.hash = _link(last, {name: getattr(row, name) for name in _SEALED})
    session.add(row)
    session.flush()


def trail(session: Session, before: int | None = None, limit: int = 100) -> list[TrailRow]:
    """The newest changes first; ``before`` goes on from an earlier page."""
    query = select(TrailRow).order_by(TrailRow.id.desc()).limit(limit)
    return list(session.scalars(query if before is None else query.where(TrailRow.id < before)))


def broken_trail(session: Session) -> list[str]:
    """Every place where the trail does not hold: a row that was changed, or one that is missing before it."""
    broken, last = [], FIRST_LINK
    for row in session.scalars(select(TrailRow).order_by(TrailRow.id)).yield_per(500):
        if row.hash != _link(last, {name: getattr(row, name) for name in _SEALED}):
            broken.append(f"trail {row.id} ({row.noun} {row.subject}: {row.change}) is not as it was written")
        last = row.hash
    return broken


def chain_trail(connection: Connection) -> None:
    """Seal the rows of a trail that has no hashes yet, for the migration that brings them."""
    last = FIRST_LINK
    rows = connection.execute(text(f"SELECT {', '.join(_SEALED)} FROM trail ORDER BY id")).mappings().all()
    for row in rows:
        last = _link(last, dict(row))
        connection.execute(text("UPDATE trail SET hash = :hash WHERE id = :id"), {"hash": last, "id": row["id"]})


def _link(previous: str, row: Mapping[str, Any]) -> str:
    sealed = {name: row[name] for name in _SEALED} | {"at": row["at"].astimezone(UTC).isoformat(), "previous": previous}
    return link_of(json.dumps(sealed, sort_keys=True, separators=(",", ":"), ensure_ascii=False))
