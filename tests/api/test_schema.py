"""The whole API under generated input: never a server error, answers as the OpenAPI says."""

from __future__ import annotations

import os
from collections.abc import Iterator

import pytest
import schemathesis
from hypothesis import HealthCheck, settings
from schemathesis.checks import not_a_server_error

from ironkettle.api.app import create_app
from ironkettle.api.openapi import FILE, openapi_text
from ironkettle.settings import Settings

APP = create_app(Settings(database_url=os.environ.get("KETTLE_TEST_DATABASE_URL", ""), stand_port=1))


@pytest.fixture(scope="module", autouse=True)
def closed() -> Iterator[None]:
    yield
    APP.state.engine.dispose()


schema = schemathesis.openapi.from_asgi("/api/openapi.json", APP)


@schema.exclude(path_regex="/api/stand").parametrize()
@settings(max_examples=12, deadline=None, suppress_health_check=list(HealthCheck))
def test_generated_input_never_breaks_the_server(case: schemathesis.Case, workshop: object) -> None:
    case.call_and_validate(checks=[not_a_server_error])


def test_the_published_openapi_file_is_current() -> None:
    assert FILE.read_text(encoding="utf-8") == openapi_text()
