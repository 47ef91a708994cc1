"""The shop's own names of lubricants, each with the one of the list that it is."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import ForeignKey, select
from sqlalchemy.orm import Mapped, Session, mapped_column

from ironkettle.core.sealing.compounds import Lubricant, plain_word
from ironkettle.store.base import Base


class LubricantNameRow(Base):
    """``word``: the name in small letters, as it is looked up; ``name``: as it was written."""

    __tablename__ = "lubricant_names"

    word: Mapped[str] = mapped_column(primary_key=True)
    name: Mapped[str]
    lubricant: Mapped[str]
    who: Mapped[str] = mapped_column(ForeignKey("people.key"))
    changed_at: Mapped[datetime]


def all_lubricant_names(session: Session) -> list[LubricantNameRow]:
    """Every name, in the order of the alphabet."""
    return list(session.scalars(select(LubricantNameRow).order_by(LubricantNameRow.word)))


def own_lubricants(session: Session) -> dict[str, Lubricant]:
    """What each name of the shop means, by the name as it is looked up."""
    return {row.word: Lubricant(row.lubricant) for row in all_lubricant_names(session)}


def name_lubricant(session: Session, name: str, lubricant: Lubricant, who: str, now: datetime) -> None:
    """Keep a name; checked by the core before. The same name again means another from now on."""
    row = LubricantNameRow(word=plain_word(name), name=name, lubricant=lubricant.value, who=who, changed_at=now)
    session.merge(row)
    session.flush()


def forget_lubricant(session: Session, name: str) -> Lubricant | None:
    """Drop a name; what it meant, None where there was none."""
    row = session.get(LubricantNameRow, plain_word(name))
    if row is None:
        return None
    session.delete(row)
    session.flush()
    return Lubricant(row.lubricant)
