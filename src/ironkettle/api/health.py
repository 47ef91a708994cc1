"""GET /api/health: version, database, migration; and the bare endpoint the bench measures against."""

from __future__ import annotations

from typing import Literal

from fastapi import APIRouter, Request
from pydantic import BaseModel
from sqlalchemy import text
from sqlalchemy.exc import SQLAlchemyError

import ironkettle
from ironkettle.store.migrate import current_revision, newest_revision

router = APIRouter(prefix="/api", tags=["health"])


class Health(BaseModel):
    version: str
    database: Literal["up", "down"]
    migration: str
    migration_wanted: str


class Nothing(BaseModel):
    ok: bool = True


@router.get("/health", summary="Version, database and migration state")
def health(request: Request) -> Health:
    try:
        with request.app.state.engine.connect() as connection:
            connection.execute(text("select 1"))
        state, revision = "up", current_revision(request.app.state.engine)
    except SQLAlchemyError:
        state, revision = "down", ""
    return Health(
        version=ironkettle.__version__,
        database=state,
        migration=revision,
        migration_wanted=newest_revision(),
    )


@router.get("/ping", summary="An answer without work, the floor of ./kettle bench")
def ping() -> Nothing:
    return Nothing()
