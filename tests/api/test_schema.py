"""The whole API under generated input, signed in as the lead: never a server error, answers as the OpenAPI says."""

from __future__ import annotations

import os
from collections.abc import Iterator
from datetime import UTC, datetime, timedelta

import pytest
import schemathesis
from hypothesis import HealthCheck, settings
from schemathesis.checks import not_a_server_error
from sqlalchemy import Engine

from ironkettle.api.app import create_app
from ironkettle.api.openapi import FILE, UNITS_FILE, openapi_text, units_text
from ironkettle.config import Settings
from ironkettle.store.base import session_of
from ironkettle.store.shop.people import find_person
from ironkettle.store.shop.sessions import begin_session

APP = create_app(
    Settings(
        database_url=os.environ.get("KETTLE_TEST_DATABASE_URL", ""), stand_port=1, allowed_hosts="testserver,127.0.0.1"
    )
)


@pytest.fixture(scope="module", autouse=True)
def closed() -> Iterator[None]:
    yield
    APP.state.engine.dispose()
    APP.state.proving.dispose()


@pytest.fixture
def cookie(workshop: Engine) -> str:
    with session_of(workshop) as session:
        lead = find_person(session, "tamsin")
        assert lead is not None
        return f"kettle_8440={begin_session(session, lead, datetime.now(UTC), timedelta(hours=1))}"


schema = schemathesis.openapi.from_asgi("/api/openapi.json", APP)


@schema.exclude(path_regex="/api/stand").parametrize()
@settings(max_examples=4, deadline=None, suppress_health_check=list(HealthCheck))
def test_generated_input_never_breaks_the_server(case: schemathesis.Case, cookie: str) -> None:
    case.call_and_validate(checks=[not_a_server_error], headers={"Cookie": cookie})


def test_the_published_openapi_file_is_current() -> None:
    assert FILE.read_text(encoding="utf-8") == openapi_text()
    assert UNITS_FILE.read_text(encoding="utf-8") == units_text()
