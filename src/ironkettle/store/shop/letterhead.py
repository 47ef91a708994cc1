"""The head of the shop's papers: one row, or none while nobody has filled it in."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import ForeignKey
from sqlalchemy.orm import Mapped, Session, mapped_column

from ironkettle.core.shop.letterhead import Letterhead
from ironkettle.store.base import Base

_ONLY = 1


class LetterheadRow(Base):
    __tablename__ = "letterhead"

    id: Mapped[int] = mapped_column(primary_key=True)
    document: Mapped[dict[str, Any]]
    who: Mapped[str] = mapped_column(ForeignKey("people.key"))
    changed_at: Mapped[datetime]


def letterhead_of(session: Session) -> Letterhead:
    """The head as it stands; an empty one while nobody has filled it in."""
    row = session.get(LetterheadRow, _ONLY)
    return Letterhead() if row is None else Letterhead.model_validate(row.document)


def keep_letterhead(session: Session, letterhead: Letterhead, who: str, now: datetime) -> None:
    """Keep the head; checked by the core before."""
    document = letterhead.model_dump(mode="json")
    session.merge(LetterheadRow(id=_ONLY, document=document, who=who, changed_at=now))
    session.flush()
