"""The people of the workshop: who they are, what they may release, how they prove who they are."""

from __future__ import annotations

import hashlib
from datetime import date, datetime
from functools import cache

from pwdlib import PasswordHash
from pwdlib.hashers.argon2 import Argon2Hasher
from sqlalchemy import ForeignKey, func, select
from sqlalchemy.orm import Mapped, Session, mapped_column, relationship

from ironkettle.core.base.errors import RefusedError
from ironkettle.core.shop.people import Author, Authorisation, Authority, Role
from ironkettle.store.base import Base


class Person(Base):
    """``secret`` is an argon2id hash of PIN or password; none for one who cannot sign in yet.

    ``badge_mark`` is one byte of the badge's digest, which narrows the search; the badge itself is
    hashed like a PIN. ``shipped_secret`` says the PIN came with the demo and was never changed.
    """

    __tablename__ = "people"

    key: Mapped[str] = mapped_column(primary_key=True)
    name: Mapped[str]
    role: Mapped[Role]
    active: Mapped[bool] = mapped_column(default=True)
    secret: Mapped[str | None] = mapped_column(default=None)
    shipped_secret: Mapped[bool] = mapped_column(default=False)
    badge: Mapped[str | None] = mapped_column(default=None)
    badge_mark: Mapped[int | None] = mapped_column(default=None, index=True)
    authorisations: Mapped[list[AuthorisationRow]] = relationship(
        foreign_keys="AuthorisationRow.person",
        lazy="selectin",
        order_by="AuthorisationRow.authority",
        cascade="all, delete-orphan",
    )

    def author(self) -> Author:
        held = tuple(Authorisation(row.authority, row.until) for row in self.authorisations)
        return Author(self.key, self.name, self.role, held)


class AuthorisationRow(Base):
    """One authority of one person and the last day it holds."""

    __tablename__ = "authorisations"

    person: Mapped[str] = mapped_column(ForeignKey("people.key"), primary_key=True)
    authority: Mapped[Authority] = mapped_column(primary_key=True)
    until: Mapped[date]
    granted_by: Mapped[str] = mapped_column(ForeignKey("people.key"))
    granted_at: Mapped[datetime]


def all_people(session: Session) -> list[Person]:
    """Everybody who was ever here, by name: old entries carry their names."""
    return list(session.scalars(select(Person).order_by(Person.name)))


def names_of(session: Session) -> dict[str, str]:
    """Key to name, of everybody who was ever here."""
    return dict(session.execute(select(Person.key, Person.name)).all())


def find_person(session: Session, key: str) -> Person | None:
    return session.get(Person, key)


def add_person(session: Session, person: Person) -> Person:
    """Add a person; a key in use is refused by the database and told as a conflict."""
    session.add(person)
    session.flush()
    return person


def people_without_secret(session: Session) -> list[str] | None:
    """Names of those who could be chosen but have no PIN; None when all have one. Empty when nobody is there."""
    people = [person for person in all_people(session) if person.active]
    bare = [person.name for person in people if person.secret is None]
    return bare if bare or not people else None


def has_lead(session: Session) -> bool:
    """Whether there is a lead who can sign in: until then the first one may be made."""
    query = select(func.count()).where(Person.role == Role.LEAD, Person.active, Person.secret.is_not(None))
    return bool(session.scalar(query.select_from(Person)))


def keep_a_lead(session: Session, person: Person, role: Role, active: bool) -> None:
    """Raises RefusedError when this change would leave nobody who can manage the workshop."""
    if person.role is not Role.LEAD or (role is Role.LEAD and active):
        return
    # Under a lock, so that two leads cannot step down at once.
    query = select(Person.key).where(Person.role == Role.LEAD, Person.active, Person.secret.is_not(None))
    others = [key for key in session.scalars(query.with_for_update()) if key != person.key]
    if not others:
        raise RefusedError("last-lead", f"{person.name} is the only lead; make somebody else lead first")


def set_secret(person: Person, secret: str, *, shipped: bool = False) -> None:
    """Keep a PIN or password, already checked by the core, as a hash."""
    person.secret, person.shipped_secret = _hasher().hash(secret), shipped


def set_badge(person: Person, badge: str | None) -> None:
    person.badge = None if badge is None else _hasher().hash(badge)
    person.badge_mark = None if badge is None else _mark(badge)


def secret_fits(person: Person | None, secret: str) -> bool:
    """Whether it is this person's PIN or password. Takes as long when there is no such person."""
    if person is None or person.secret is None or not person.active:
        _hasher().verify(secret, _nobody())
        return False
    return _hasher().verify(secret, person.secret)


def person_of_badge(session: Session, badge: str) -> Person | None:
    """The active person whose badge it is."""
    query = select(Person).where(Person.badge_mark == _mark(badge), Person.active)
    return next((p for p in session.scalars(query) if p.badge and _hasher().verify(badge, p.badge)), None)


def _mark(badge: str) -> int:
    return hashlib.sha256(badge.encode()).digest()[0]


@cache
def _hasher() -> PasswordHash:
    # argon2id, 19 MiB and two passes: the least that OWASP's sheet on password storage asks for (2023), so that
    # an old PC on the bench answers in a blink and a hundred wrong tries do not fill its memory.
    return PasswordHash((Argon2Hasher(time_cost=2, memory_cost=19_456, parallelism=1),))


@cache
def _nobody() -> str:
    return _hasher().hash("nobody has this for a PIN")
