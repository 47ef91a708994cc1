"""Who is signed in: sessions of devices, tokens of scripts, and wrong tries."""

from __future__ import annotations

import hashlib
import secrets
from collections.abc import Mapping
from datetime import datetime, timedelta
from uuid import UUID, uuid4

from sqlalchemy import ForeignKey, delete, or_, select
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Mapped, Session, mapped_column

from ironkettle.core.shop.people import Tries, pause_after
from ironkettle.store.base import Base
from ironkettle.store.shop.people import Person


class SessionRow(Base):
    """A device somebody is signed in on. What the cookie holds is not kept, only its digest."""

    __tablename__ = "sessions"

    digest: Mapped[str] = mapped_column(primary_key=True)
    person: Mapped[str] = mapped_column(ForeignKey("people.key"), index=True)
    began_at: Mapped[datetime]
    ends_at: Mapped[datetime]


class TokenRow(Base):
    """A token a script signs in with, shown once; it acts as the person it belongs to.

    ``use``: what it is good for, scripts or only the calendar of what is due; ``ends_at``: when it ends by itself.
    """

    __tablename__ = "tokens"

    id: Mapped[UUID] = mapped_column(primary_key=True)
    name: Mapped[str]
    person: Mapped[str] = mapped_column(ForeignKey("people.key"))
    digest: Mapped[str] = mapped_column(unique=True)
    made_at: Mapped[datetime]
    revoked_at: Mapped[datetime | None] = mapped_column(default=None)
    use: Mapped[str] = mapped_column(default="scripts")
    ends_at: Mapped[datetime | None] = mapped_column(default=None)


class TryRow(Base):
    """Wrong tries in a row, of a person or from an address."""

    __tablename__ = "tries"

    subject: Mapped[str] = mapped_column(primary_key=True)
    wrong: Mapped[int]
    last_at: Mapped[datetime]
    wait_until: Mapped[datetime]


def begin_session(session: Session, person: Person, now: datetime, lasts: timedelta) -> str:
    """A new session; gives what the cookie is to hold. Sessions long over are cleared away."""
    session.execute(delete(SessionRow).where(SessionRow.ends_at < now - timedelta(days=1)))
    text = secrets.token_urlsafe(32)
    session.add(SessionRow(digest=digest_of(text), person=person.key, began_at=now, ends_at=now + lasts))
    session.flush()
    return text


def session_of_cookie(session: Session, text: str, now: datetime) -> tuple[SessionRow, Person] | None:
    """The running session of a cookie and its person; None when it is over, unknown, or the person has left."""
    query = select(SessionRow, Person).join(Person, SessionRow.person == Person.key)
    row = session.execute(query.where(SessionRow.digest == digest_of(text), SessionRow.ends_at > now, Person.active))
    return row.one_or_none()


def end_session(session: Session, text: str) -> None:
    session.execute(delete(SessionRow).where(SessionRow.digest == digest_of(text)))


def end_sessions_of(session: Session, person: str, *, but: str | None = None) -> None:
    """End all sessions of a person, but for one; when the PIN changed, or the person left."""
    query = delete(SessionRow).where(SessionRow.person == person)
    session.execute(query if but is None else query.where(SessionRow.digest != digest_of(but)))


def make_token(
    session: Session, name: str, person: str, now: datetime, use: str = "scripts", lasts: timedelta | None = None
) -> tuple[TokenRow, str]:
    """A new token; its text is given here and never again."""
    text = f"kettle_{secrets.token_urlsafe(32)}"
    row = TokenRow(id=uuid4(), name=name, person=person, digest=digest_of(text), made_at=now, use=use)
    row.ends_at = None if lasts is None else now + lasts
    session.add(row)
    session.flush()
    return row, text


def all_tokens(session: Session) -> list[TokenRow]:
    return list(session.scalars(select(TokenRow).order_by(TokenRow.made_at.desc())))


def find_token(session: Session, token: UUID) -> TokenRow | None:
    return session.get(TokenRow, token)


def person_of_token(session: Session, text: str, now: datetime, use: str = "scripts") -> tuple[TokenRow, Person] | None:
    """A token that is in force and good for a use, and its person; None otherwise."""
    query = select(TokenRow, Person).join(Person, TokenRow.person == Person.key)
    in_force = or_(TokenRow.ends_at.is_(None), TokenRow.ends_at > now)
    row = session.execute(
        query.where(
            TokenRow.digest == digest_of(text),
            TokenRow.revoked_at.is_(None),
            TokenRow.use == use,
            Person.active,
            in_force,
        )
    ).one_or_none()
    return None if row is None else (row[0], row[1])


def hold_tries(session: Session, subject: str, now: datetime) -> TryRow:
    """The tries of a subject, held until the transaction ends: of many at once, each sees what the one before counted."""
    # In one statement: a right try of somebody else may take the row away at any moment.
    first = insert(TryRow).values(subject=subject, wrong=0, last_at=now, wait_until=now)
    held = first.on_conflict_do_update(index_elements=[TryRow.subject], set_={"subject": subject}).returning(TryRow)
    return session.scalars(held, execution_options={"populate_existing": True}).one()


def count_try(row: TryRow, tries: Tries, now: datetime) -> None:
    """Count a try as wrong, before it is looked at. A right one takes its own count back (``take_back_tries``)."""
    quiet = (now - row.last_at).total_seconds() > tries.forgotten_after
    row.wrong, row.last_at = (0 if quiet else row.wrong) + 1, now
    row.wait_until = now + timedelta(seconds=pause_after(row.wrong, tries))


def take_back_tries(session: Session, counted: Mapping[str, datetime], now: datetime) -> None:
    """Take back tries that turned out right; those before them stay counted. ``counted``: the pause that each began."""
    for subject, pause in sorted(counted.items()):
        row = hold_tries(session, subject, now)
        row.wrong = max(row.wrong - 1, 0)
        # The pause ends with it, but for one that a wrong try began meanwhile.
        if row.wait_until == pause:
            row.wait_until = now
        if row.wrong == 0:
            session.delete(row)


def left_of(row: TryRow, tries: Tries, now: datetime) -> float:
    """How long a subject still waits: never longer than its count says, also when the clock was set back. [s]"""
    return max(min((row.wait_until - now).total_seconds(), pause_after(row.wrong, tries)), 0.0)


def tries_of(session: Session, subject: str) -> int:
    """How many wrong tries of a subject are counted."""
    row = session.get(TryRow, subject)
    return 0 if row is None else row.wrong


def wait_of(session: Session, subject: str, tries: Tries, now: datetime) -> float:
    """How long a subject still waits; nothing for one without wrong tries. [s]"""
    row = session.get(TryRow, subject)
    return 0.0 if row is None else left_of(row, tries, now)


def digest_of(text: str) -> str:
    """What is kept of a cookie or token: both are long and random, so one fast hash is enough."""
    return hashlib.sha256(text.encode()).hexdigest()
