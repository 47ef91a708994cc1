"""GET /api/health: which part is up; and the bare endpoint the bench measures against."""

from __future__ import annotations

from typing import Literal

from fastapi import APIRouter, Request, Response
from pydantic import BaseModel
from sqlalchemy import Engine, text
from sqlalchemy.exc import SQLAlchemyError
from starlette.concurrency import run_in_threadpool

import ironkettle
from ironkettle.stand.driver import StandAwayError, StandDriver
from ironkettle.store.migrate import current_revision, newest_revision

router = APIRouter(prefix="/api", tags=["health"])


class Health(BaseModel):
    """``down`` names the parts that are; without the database nothing can be recorded, and the answer is 503."""

    version: str
    database: Literal["up", "down"]
    stand: Literal["up", "down"]
    migration: str
    migration_wanted: str
    down: list[str]


class Nothing(BaseModel):
    ok: bool = True


@router.get("/health", summary="Version, database, migration and test stand", responses={503: {"model": Health}})
async def health(request: Request, response: Response) -> Health:
    revision = await run_in_threadpool(_revision, request.app.state.engine)
    driver: StandDriver = request.app.state.stand
    try:
        await driver.reach()
        stand: Literal["up", "down"] = "up"
    except StandAwayError:
        stand = "down"
    wanted = newest_revision()
    if revision is None:
        response.status_code = 503
    return Health(
        version=ironkettle.__version__,
        database="down" if revision is None else "up",
        stand=stand,
        migration=revision or "",
        migration_wanted=wanted,
        down=[name for name, is_down in (("database", revision is None), ("test stand", stand == "down")) if is_down],
    )


def _revision(engine: Engine) -> str | None:
    """The migration the database is at; None when it does not answer."""
    try:
        with engine.connect() as connection:
            connection.execute(text("select 1"))
        return current_revision(engine)
    except SQLAlchemyError:
        return None


@router.get("/ping", summary="An answer without work, the floor of ./kettle bench")
def ping() -> Nothing:
    return Nothing()
