"""The database that each part of the tests begins with: real migrations, and the demo workshop kept aside, loaded once for all of them."""

from __future__ import annotations

import os
from collections.abc import Iterable

from psycopg.errors import DeadlockDetected
from pwdlib import PasswordHash
from pwdlib.hashers.argon2 import Argon2Hasher
from sqlalchemy import Engine, text
from sqlalchemy.exc import OperationalError

from ironkettle.demo.load import load_demo
from ironkettle.prepare import prepare
from ironkettle.store.base import Base, make_engine, session_of
from ironkettle.store.shop import people

# A hash that costs next to nothing: people sign in for hundreds of tests.
_QUICK = PasswordHash((Argon2Hasher(time_cost=1, memory_cost=8, parallelism=1),))
_KEPT = "SELECT table_name FROM information_schema.tables WHERE table_schema = 'demo_rows'"
_TRIES = 6


def hash_quickly() -> None:
    people._hasher = lambda: _QUICK  # type: ignore[assignment]


def at_once(admin: Engine, statements: Iterable[str]) -> None:
    """Statements in one go, while the triggers sleep.

    A page of the test before may still have a request under way, and each may hold what the other wants: the database ends one
    of them, and this one is tried again.
    """
    together = "; ".join(["SET LOCAL session_replication_role = replica", *statements])
    for left in reversed(range(_TRIES)):
        try:
            with admin.begin() as connection:
                connection.exec_driver_sql(together)
            return
        except OperationalError as error:
            if not (left and isinstance(error.orig, DeadlockDetected)):
                raise


def empty_all(admin: Engine) -> None:
    at_once(admin, [f"DELETE FROM {name}" for name in Base.metadata.tables])


def kept_tables(admin: Engine) -> list[str]:
    """The tables that the demo workshop is kept aside of; none before it was."""
    with admin.begin() as connection:
        return list(connection.execute(text(_KEPT)).scalars())


def keep_demo(engine: Engine, admin: Engine) -> None:
    """Load the demo workshop into an empty database and keep its rows aside: its jobs are walked once."""
    with session_of(engine) as session:
        load_demo(session)
    copies = [f"CREATE TABLE demo_rows.{name} AS TABLE {name}" for name in Base.metadata.tables]
    at_once(admin, ["DROP SCHEMA IF EXISTS demo_rows CASCADE", "CREATE SCHEMA demo_rows", *copies])


def from_env(name: str) -> str:
    url = os.environ.get(name)
    if not url:
        raise RuntimeError(f"{name} is not set; run the tests with ./kettle test")
    return url


def main() -> None:
    """Prepares the database that the environment names."""
    hash_quickly()
    engines = [make_engine(from_env(f"KETTLE_TEST_{who}_URL"), patient=True) for who in ("DATABASE", "OWNER", "ADMIN")]
    engine, owner, admin = engines
    prepare(owner, application_role=engine.url.username or "")
    keep_demo(engine, admin)
    for made in engines:
        made.dispose()


if __name__ == "__main__":
    main()
