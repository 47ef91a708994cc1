"""The declarative base and the engine."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from datetime import datetime
from typing import Any, ClassVar
from uuid import UUID

from sqlalchemy import DateTime, Engine, MetaData, Uuid, create_engine
from sqlalchemy.dialects.postgresql import JSONB
from sqlalchemy.orm import DeclarativeBase, Session, sessionmaker

from ironkettle.settings import sqlalchemy_url

NAMING = {
    "ix": "ix_%(table_name)s_%(column_0_N_name)s",
    "uq": "uq_%(table_name)s_%(column_0_N_name)s",
    "ck": "ck_%(table_name)s_%(constraint_name)s",
    "fk": "fk_%(table_name)s_%(column_0_N_name)s_%(referred_table_name)s",
    "pk": "pk_%(table_name)s",
}


class Base(DeclarativeBase):
    metadata = MetaData(naming_convention=NAMING)
    type_annotation_map: ClassVar[dict[Any, Any]] = {
        datetime: DateTime(timezone=True),
        UUID: Uuid(as_uuid=True),
        dict[str, Any]: JSONB,
    }


def make_engine(url: str) -> Engine:
    """An engine that checks a pooled connection before use, so a restarted database is no error."""
    return create_engine(
        sqlalchemy_url(url), pool_pre_ping=True, pool_size=8, max_overflow=8, connect_args={"connect_timeout": 5}
    )


@contextmanager
def session_of(engine: Engine) -> Iterator[Session]:
    """A session whose transaction is committed on leaving, or rolled back on an error."""
    with sessionmaker(engine, expire_on_commit=False)() as session, session.begin():
        yield session
