"""The database of the tests: real migrations once, every table emptied before each test that uses it."""

from __future__ import annotations

import os
from collections.abc import Iterator

import pytest
from fastapi.testclient import TestClient
from hypothesis import settings
from sqlalchemy import Engine, text

from ironkettle.api.app import create_app
from ironkettle.demo.load import load_demo
from ironkettle.settings import Settings
from ironkettle.store.base import make_engine, session_of
from ironkettle.store.migrate import migrate

# Speed is measured by ./kettle bench; a slow moment of the machine is no fault of a rule.
settings.register_profile("kettle", deadline=None)
settings.load_profile("kettle")

_TABLES = ("guesses", "house_rules", "seal_stock", "entries", "jobs", "sheets", "people", "wrenches", "gauges")


@pytest.fixture(scope="session")
def database_url() -> str:
    url = os.environ.get("KETTLE_TEST_DATABASE_URL")
    if not url:
        pytest.fail("KETTLE_TEST_DATABASE_URL is not set; run the tests with ./kettle test")
    return url


@pytest.fixture(scope="session")
def engine(database_url: str) -> Iterator[Engine]:
    engine = make_engine(database_url)
    migrate(engine, "base")
    migrate(engine)
    yield engine
    engine.dispose()


@pytest.fixture
def workshop(engine: Engine) -> Engine:
    """A database with nothing in it but the demo workshop."""
    with engine.begin() as connection:
        connection.execute(text("SET LOCAL session_replication_role = replica"))  # the log's trigger sleeps
        for table in _TABLES:
            connection.execute(text(f"DELETE FROM {table}"))
    with session_of(engine) as session:
        load_demo(session)
    return engine


@pytest.fixture(scope="session")
def app_client(database_url: str, engine: Engine) -> Iterator[TestClient]:
    with TestClient(create_app(Settings(database_url=database_url, stand_port=1))) as client:
        yield client


@pytest.fixture
def client(workshop: Engine, app_client: TestClient) -> TestClient:
    """The API over the demo workshop; unexpected errors surface as answers, not as exceptions."""
    return app_client
