"""The people of the workshop."""

from __future__ import annotations

from sqlalchemy import select
from sqlalchemy.orm import Mapped, Session, mapped_column

from ironkettle.store.base import Base


class Person(Base):
    __tablename__ = "people"

    key: Mapped[str] = mapped_column(primary_key=True)
    name: Mapped[str]
    role: Mapped[str]
    may_release: Mapped[bool] = mapped_column(default=False)


def all_people(session: Session) -> list[Person]:
    return list(session.scalars(select(Person).order_by(Person.name)))


def find_person(session: Session, key: str) -> Person | None:
    return session.get(Person, key)


def add_person(session: Session, person: Person) -> Person:
    """Add a person; a key in use is refused by the database and told as a conflict."""
    session.add(person)
    session.flush()
    return person
