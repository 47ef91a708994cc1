"""The trail of changes to people, rights, tools and house rules: who, when, from what, to what."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import ForeignKey, Identity, select
from sqlalchemy.orm import Mapped, Session, mapped_column

from ironkettle.store.base import Base


class TrailRow(Base):
    """One change. The table takes no update and no delete (a trigger refuses them)."""

    __tablename__ = "trail"

    id: Mapped[int] = mapped_column(Identity(), primary_key=True)
    at: Mapped[datetime]
    who: Mapped[str] = mapped_column(ForeignKey("people.key"))
    noun: Mapped[str]
    subject: Mapped[str]
    change: Mapped[str]
    before: Mapped[dict[str, Any]]
    after: Mapped[dict[str, Any]]


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
    row = TrailRow(at=now, who=who, noun=noun, subject=subject, change=change, before=before or {}, after=after or {})
    session.add(row)
    session.flush()


def trail(session: Session, before: int | None = None, limit: int = 100) -> list[TrailRow]:
    """The newest changes first; ``before`` goes on from an earlier page."""
    query = select(TrailRow).order_by(TrailRow.id.desc()).limit(limit)
    return list(session.scalars(query if before is None else query.where(TrailRow.id < before)))
