"""The database of the tests: real migrations once, every table emptied before each test that uses it.

The application works under its own role, as it does in a shop; only the emptying between tests is done by
the cluster's own.
"""

from __future__ import annotations

import os
from collections.abc import Iterable, Iterator
from datetime import timedelta

import pytest
from anyio.from_thread import start_blocking_portal
from fastapi import FastAPI
from hypothesis import settings
from psycopg.errors import DeadlockDetected
from pwdlib import PasswordHash
from pwdlib.hashers.argon2 import Argon2Hasher
from sqlalchemy import Engine, text
from sqlalchemy.exc import OperationalError

from ironkettle.api.app import create_app
from ironkettle.config import Settings
from ironkettle.demo.load import load_demo
from ironkettle.prepare import prepare
from ironkettle.store.base import Base, make_engine, session_of
from ironkettle.store.migrate import migrate
from ironkettle.store.shop import people
from tests.clock import ServerClock
from tests.laws import TIMES, USUAL
from tests.people import BenchClient

# Speed is measured by ./kettle bench; a slow moment of the machine is no fault of a rule.
settings.register_profile("kettle", deadline=None, max_examples=USUAL * TIMES)
settings.load_profile("kettle")

# A hash that costs next to nothing: the workshop is loaded for hundreds of tests.
_QUICK = PasswordHash((Argon2Hasher(time_cost=1, memory_cost=8, parallelism=1),))
people._hasher = lambda: _QUICK  # type: ignore[assignment]
ServerClock.take_over()


_TRIES = 6


def _from_env(name: str) -> str:
    url = os.environ.get(name)
    if not url:
        pytest.fail(f"{name} is not set; run the tests with ./kettle test")
    return url


@pytest.fixture(scope="session")
def database_url() -> str:
    return _from_env("KETTLE_TEST_DATABASE_URL")


@pytest.fixture(scope="session")
def owner() -> Iterator[Engine]:
    """The role that migrates."""
    engine = make_engine(_from_env("KETTLE_TEST_OWNER_URL"), patient=True)
    yield engine
    engine.dispose()


@pytest.fixture(scope="session")
def admin() -> Iterator[Engine]:
    """The cluster's own role, which may do everything."""
    engine = make_engine(_from_env("KETTLE_TEST_ADMIN_URL"), patient=True)
    yield engine
    engine.dispose()


@pytest.fixture(scope="session")
def engine(database_url: str, owner: Engine) -> Iterator[Engine]:
    """The application's role, on a freshly made database."""
    engine = make_engine(database_url)
    migrate(owner, "base")
    prepare(owner, application_role=engine.url.username or "")
    yield engine
    engine.dispose()


@pytest.fixture
def empty(engine: Engine, admin: Engine) -> Engine:
    """A database with nothing in it, and the clock as it is."""
    ServerClock.ahead = timedelta()
    _at_once(admin, [f"DELETE FROM {name}" for name in Base.metadata.tables])
    return engine


def _at_once(admin: Engine, statements: Iterable[str]) -> None:
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


@pytest.fixture(scope="session")
def kept() -> set[str]:
    """The tables that the demo workshop was kept of after its first loading: the tasks of its jobs are walked once."""
    return set()


@pytest.fixture
def workshop(empty: Engine, admin: Engine, kept: set[str]) -> Engine:
    """A database with nothing in it but the demo workshop."""
    if not kept:
        with session_of(empty) as session:
            load_demo(session)
        names = list(Base.metadata.tables)
        copies = [f"CREATE TABLE demo_rows.{name} AS TABLE {name}" for name in names]
        _at_once(admin, ["DROP SCHEMA IF EXISTS demo_rows CASCADE", "CREATE SCHEMA demo_rows", *copies])
        kept.update(names)
        return empty
    rows = [f"INSERT INTO {name} OVERRIDING SYSTEM VALUE SELECT * FROM demo_rows.{name}" for name in kept]
    numbers = [
        f"SELECT setval(pg_get_serial_sequence('{name}', 'number'), (SELECT max(number) FROM {name}))"
        for name in ("jobs", "units")
    ]
    _at_once(admin, [*rows, *numbers])
    return empty


@pytest.fixture(scope="session")
def app(database_url: str, engine: Engine) -> Iterator[FastAPI]:
    app = create_app(Settings(database_url=database_url, stand_port=1))
    with start_blocking_portal() as loop:
        BenchClient.loop = loop
        yield app
        BenchClient.loop = None
    app.state.engine.dispose()
    app.state.proving.dispose()


@pytest.fixture
def app_client(app: FastAPI, engine: Engine, admin: Engine) -> BenchClient:
    """The API with nobody signed in: the calculations, under the shipped rules whatever a test before has changed."""
    with admin.begin() as connection:
        connection.execute(text("DELETE FROM shop_settings"))
    return BenchClient(app)


@pytest.fixture
def client(workshop: Engine, app: FastAPI) -> BenchClient:
    """The API over the demo workshop with Bede signed in."""
    return BenchClient(app).sign_in("bede")
