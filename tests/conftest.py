"""The database of the tests: real migrations once, every table emptied before each test that uses it.

The application works under its own role, as it does in a shop; only the emptying between tests is done by
the cluster's own.
"""

from __future__ import annotations

import os
from collections.abc import Iterator
from datetime import timedelta

import pytest
from anyio.from_thread import start_blocking_portal
from fastapi import FastAPI
from hypothesis import settings
from sqlalchemy import Engine, text

from ironkettle.api.app import create_app
from ironkettle.config import Settings
from ironkettle.prepare import prepare
from ironkettle.store.base import make_engine
from ironkettle.store.migrate import migrate
from tests.clock import ServerClock
from tests.laws import TIMES, USUAL
from tests.people import BenchClient
from tests.prepared import at_once, empty_all, from_env, hash_quickly, keep_demo, kept_tables

# Speed is measured by ./kettle bench; a slow moment of the machine is no fault of a rule.
settings.register_profile("kettle", deadline=None, max_examples=USUAL * TIMES)
settings.load_profile("kettle")

hash_quickly()
ServerClock.take_over()
PREPARED = bool(os.environ.get("KETTLE_TEST_PREPARED"))


@pytest.fixture(scope="session")
def database_url() -> str:
    return from_env("KETTLE_TEST_DATABASE_URL")


@pytest.fixture(scope="session")
def owner() -> Iterator[Engine]:
    """The role that migrates."""
    engine = make_engine(from_env("KETTLE_TEST_OWNER_URL"), patient=True)
    yield engine
    engine.dispose()


@pytest.fixture(scope="session")
def admin() -> Iterator[Engine]:
    """The cluster's own role, which may do everything."""
    engine = make_engine(from_env("KETTLE_TEST_ADMIN_URL"), patient=True)
    yield engine
    engine.dispose()


@pytest.fixture(scope="session")
def engine(database_url: str, owner: Engine) -> Iterator[Engine]:
    """The application's role, on a database as ./kettle test prepared it, else on one made afresh."""
    engine = make_engine(database_url)
    if not PREPARED:
        migrate(owner, "base")
    prepare(owner, application_role=engine.url.username or "")
    yield engine
    engine.dispose()


@pytest.fixture
def empty(engine: Engine, admin: Engine) -> Engine:
    """A database with nothing in it, and the clock as it is."""
    ServerClock.ahead = timedelta()
    empty_all(admin)
    return engine


@pytest.fixture(scope="session")
def kept(engine: Engine, admin: Engine) -> list[str]:
    """The tables that the demo workshop is kept aside of."""
    if not PREPARED:
        empty_all(admin)
        keep_demo(engine, admin)
    return kept_tables(admin)


@pytest.fixture
def workshop(empty: Engine, admin: Engine, kept: list[str]) -> Engine:
    """A database with nothing in it but the demo workshop."""
    rows = [f"INSERT INTO {name} OVERRIDING SYSTEM VALUE SELECT * FROM demo_rows.{name}" for name in kept]
    numbers = [
        f"SELECT setval(pg_get_serial_sequence('{name}', 'number'), (SELECT max(number) FROM {name}))"
        for name in ("jobs", "units")
    ]
    at_once(admin, [*rows, *numbers])
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
