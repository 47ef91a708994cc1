"""Guesses at the ring puzzles, one row each."""

from __future__ import annotations

from datetime import datetime
from uuid import UUID

from sqlalchemy import ForeignKey, select
from sqlalchemy.orm import Mapped, Session, mapped_column

from ironkettle.store.base import Base


class GuessRow(Base):
    __tablename__ = "guesses"

    id: Mapped[UUID] = mapped_column(primary_key=True)
    who: Mapped[str] = mapped_column(ForeignKey("people.key"), index=True)
    puzzle: Mapped[str]
    choice: Mapped[str]
    right: Mapped[bool]
    guessed_at: Mapped[datetime]


def guesses_of(session: Session, who: str | None = None) -> list[GuessRow]:
    """All guesses, or those of one person, in the order they were made."""
    query = select(GuessRow).order_by(GuessRow.guessed_at, GuessRow.id)
    return list(session.scalars(query if who is None else query.where(GuessRow.who == who)))


def find_guess(session: Session, guess_id: UUID) -> GuessRow | None:
    return session.get(GuessRow, guess_id)


def add_guess(session: Session, guess: GuessRow) -> GuessRow:
    """Keep a guess."""
    session.add(guess)
    session.flush()
    return guess
