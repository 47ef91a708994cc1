"""The whole API under generated input, signed in as the lead: never a server error, answers as the OpenAPI says.

Quantities are drawn by their format with a unit of their kind, and path parameters name what the workshop has, so that what
is drawn reaches the rules behind the shapes.
"""

from __future__ import annotations

import os
from collections.abc import Iterator
from datetime import UTC, datetime, timedelta

import pytest
import schemathesis
from hypothesis import HealthCheck, settings
from hypothesis import strategies as st
from schemathesis.checks import not_a_server_error
from sqlalchemy import Engine, select

from ironkettle.api.app import create_app
from ironkettle.api.openapi import FILE, UNITS_FILE, openapi_text, units_text
from ironkettle.config import Settings
from ironkettle.core.base.quantities import OFFERED
from ironkettle.core.shop.settings import SHOP_SETTINGS
from ironkettle.store.base import session_of
from ironkettle.store.jobs.rows import JobRow
from ironkettle.store.sheets.rows import SheetRow
from ironkettle.store.shop.people import Person, find_person
from ironkettle.store.shop.sessions import begin_session
from ironkettle.store.shop.tools import GaugeTool, WrenchTool
from ironkettle.store.shop.units import UnitRow, label_text
from tests.laws import TIMES

APP = create_app(
    Settings(
        database_url=os.environ.get("KETTLE_TEST_DATABASE_URL", ""), stand_port=1, allowed_hosts="testserver,127.0.0.1"
    )
)
# Most are a number in a unit of their kind; a few are any text.
NUMBERS = st.floats(-10, 1000).map(lambda one: f"{one:.4g}")
for dimension, symbols in OFFERED.items():
    quantity = st.builds("{} {}".format, NUMBERS, st.sampled_from(symbols))
    schemathesis.openapi.format(dimension.value, st.one_of(quantity, quantity, quantity, st.text(max_size=20)))


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


# What the workshop has, by the parameter that names it, or by the room of the API where that names it.
THERE: dict[str, list[object]] = {}


@pytest.fixture
def there(workshop: Engine) -> None:
    with session_of(workshop) as session:
        units = list(session.scalars(select(UnitRow).order_by(UnitRow.serial)))
        THERE.update(
            {
                "job_id": [str(scalar) for scalar in session.scalars(select(JobRow.id).order_by(JobRow.number))],
                "label": [label_text(session, unit) for unit in units],
                "version": ["1"],
                "task": ["intake", "sign", "kit", "leak"],
                "/api/people": list(session.scalars(select(Person.key).order_by(Person.key))),
                "/api/sheets": list(session.scalars(select(SheetRow.key).order_by(SheetRow.key, SheetRow.version))),
                "/api/gauges": list(session.scalars(select(GaugeTool.key).order_by(GaugeTool.key))),
                "/api/wrenches": list(session.scalars(select(WrenchTool.key).order_by(WrenchTool.key))),
                "/api/shop-settings": [shop_setting.key for shop_setting in SHOP_SETTINGS],
            }
        )


schema = schemathesis.openapi.from_dict(APP.openapi())
schema.app = APP
# Each case of the shapes themselves is cheap to refuse; what is drawn from the formats reaches the rules.
schema.config.phases.coverage.enabled = False


@schema.hook
def flatmap_path_parameters(
    context: schemathesis.HookContext, drawn: dict[str, object] | None
) -> st.SearchStrategy[dict[str, object] | None]:
    """Four in five name what is there; the others stay as they were drawn."""
    if not drawn or context.operation is None:
        return st.just(drawn)
    room = "/".join(context.operation.path.split("/")[:3])
    known = {name: THERE.get(name) or THERE.get(room) or [value] for name, value in drawn.items()}
    named = st.fixed_dictionaries({name: st.sampled_from(values) for name, values in known.items()})
    return st.integers(0, 4).flatmap(lambda one: named if one else st.just(drawn))


@schema.exclude(path_regex="/api/stand").parametrize()
@settings(max_examples=12 * TIMES, deadline=None, suppress_health_check=list(HealthCheck))
@pytest.mark.usefixtures("there")
def test_generated_input_never_breaks_the_server(case: schemathesis.Case, cookie: str) -> None:
    case.call_and_validate(checks=[not_a_server_error], headers={"Cookie": cookie})


def test_the_published_openapi_file_is_current() -> None:
    assert FILE.read_text(encoding="utf-8") == openapi_text()
    assert UNITS_FILE.read_text(encoding="utf-8") == units_text()
