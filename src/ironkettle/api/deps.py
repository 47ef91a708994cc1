"""What handlers ask for: a session whose transaction is the request's, the clock, the author."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import UTC, datetime
from functools import cache
from typing import Annotated

from fastapi import Depends, Request
from sqlalchemy.orm import Session

from ironkettle.core.errors import fault
from ironkettle.core.glands import GlandTables
from ironkettle.core.house import House
from ironkettle.core.jobs import Author, Bench
from ironkettle.reference import compounds, extrusion_limits, fluids, gland_rows, ring_table
from ironkettle.store.base import session_of
from ironkettle.store.house import house_of
from ironkettle.store.people import all_people, find_person


def get_session(request: Request) -> Iterator[Session]:
    with session_of(request.app.state.engine) as session:
        yield session


# Scope "function": the transaction is committed before the answer leaves, so what is
# acknowledged is stored.
DbSession = Annotated[Session, Depends(get_session, scope="function")]


def get_house(session: DbSession) -> House:
    return house_of(session)


# The house rules in force when the request came.
HouseRules = Annotated[House, Depends(get_house)]


def gland_tables(house: House) -> GlandTables:
    """The tables of the gland rules with this shop's limits."""
    return GlandTables(extrusion_limits(), gland_rows(), house.limits, compounds())


@cache
def bench() -> Bench:
    return Bench(ring_table(), fluids())


def now() -> datetime:
    return datetime.now(UTC)


def author_of(session: Session, key: str) -> Author:
    """The person writing. Raises RuleError naming who there is."""
    person = find_person(session, key)
    if person is None:
        raise fault("who", f"“{key}” is not a person of this workshop", *(p.key for p in all_people(session)))
    return Author(person.key, person.name, person.may_release)
