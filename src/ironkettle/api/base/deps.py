"""What handlers ask for: a session whose transaction is the request's, the clock, the tables."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import UTC, datetime
from typing import Annotated

from fastapi import Depends, Request
from sqlalchemy.orm import Session

from ironkettle.core.shop.settings import ShopSettings
from ironkettle.store.base import session_of
from ironkettle.store.shop.settings import settings_in_force
from ironkettle.store.shop.tables import Shop, shop_of


def get_session(request: Request) -> Iterator[Session]:
    with session_of(request.app.state.engine) as session:
        yield session


# Scope "function": the transaction is committed before the answer leaves, so what is
# acknowledged is stored.
DbSession = Annotated[Session, Depends(get_session, scope="function")]


def get_shop_settings(session: DbSession) -> ShopSettings:
    return settings_in_force(session)


# The shop settings in force when the request came.
SettingsInForce = Annotated[ShopSettings, Depends(get_shop_settings)]


def get_shop(session: DbSession) -> Shop:
    return shop_of(session)


# What the rules of a job may look up of the shop.
JobShop = Annotated[Shop, Depends(get_shop, scope="function")]


def now() -> datetime:
    return datetime.now(UTC)
