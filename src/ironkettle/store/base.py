"""The declarative base and the engine."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from datetime import datetime
from enum import StrEnum
from typing import Any, ClassVar
from uuid import UUID

from sqlalchemy import DateTime, Engine, Enum, MetaData, Uuid, create_engine
from sqlalchemy.dialects.postgresql import JSONB
from sqlalchemy.orm import DeclarativeBase, Session, sessionmaker

from ironkettle.config import sqlalchemy_url
from ironkettle.core.shop.people import Authority, Role

NAMING = {
    "ix": "ix_%(table_name)s_%(column_0_N_name)s",
    "uq": "uq_%(table_name)s_%(column_0_N_name)s",
    "ck": "ck_%(table_name)s_%(constraint_name)s",
    "fk": "fk_%(table_name)s_%(column_0_N_name)s_%(referred_table_name)s",
    "pk": "pk_%(table_name)s",
}


def _words(kind: type[StrEnum]) -> Enum:
    """An enumeration kept as its words, so that a table can be read without the program."""
    return Enum(kind, native_enum=False, length=20, values_callable=lambda members: [m.value for m in members])


class Base(DeclarativeBase):
    metadata = MetaData(naming_convention=NAMING)
    type_annotation_map: ClassVar[dict[Any, Any]] = {
        datetime: DateTime(timezone=True),
        UUID: Uuid(as_uuid=True),
        dict[str, Any]: JSONB,
        list[dict[str, Any]]: JSONB,
        Role: _words(Role),
        Authority: _words(Authority),
    }


# One locked row or one slow statement must not hold up the others. Times are read back in UTC, so that one at
# the end of the calendar does not leave it by a zone.
_BOUNDS = "-c statement_timeout=15000 -c lock_timeout=4000 -c idle_in_transaction_session_timeout=30000"
_UTC = "-c timezone=UTC"


def make_engine(url: str, *, patient: bool = False, size: int = 8) -> Engine:
    """An engine that checks a pooled connection before use, so a restarted database is no error.

    ``patient`` is for migrations, which may take as long as they need. ``size``: how many connections it keeps; twice as
    many at most.
    """
    return create_engine(
        sqlalchemy_url(url),
        pool_pre_ping=True,
        pool_size=size,
        max_overflow=size,
        pool_timeout=5,
        connect_args={"connect_timeout": 5, "options": _UTC if patient else f"{_UTC} {_BOUNDS}"},
    )


@contextmanager
def session_of(engine: Engine) -> Iterator[Session]:
    """A session whose transaction is committed on leaving, or rolled back on an error."""
    with sessionmaker(engine, expire_on_commit=False)() as session, session.begin():
        yield session
