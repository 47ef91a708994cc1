"""GET /api/health: which part is up; and the bare endpoint the bench measures against."""

from __future__ import annotations

import shutil
from pathlib import Path
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

_LOW_BYTES, _FULL_BYTES = 500_000_000, 20_000_000


class Health(BaseModel):
    """``down`` names the parts that are; without the database, or with its disk full, nothing can be recorded, and the answer
    is 503. ``disk``: low below 500 MB free, full below 20 MB."""

    version: str
    database: Literal["up", "down"]
    stand: Literal["up", "down"]
    disk: Literal["up", "low", "full"]
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
    disk = disk_state(shutil.disk_usage(Path.cwd()).free)
    if revision is None or disk == "full":
        response.status_code = 503
    return Health(
        version=ironkettle.__version__,
        database="down" if revision is None else "up",
        stand=stand,
        disk=disk,
        migration=revision or "",
        migration_wanted=wanted,
        down=[
            name
            for name, is_down in (
                ("database", revision is None), ("test stand", stand == "down"), ("disk", disk == "full"),
            )
            if is_down
        ],
    )  # fmt: skip


def disk_state(free: int) -> Literal["up", "low", "full"]:
    """How a disk with so many bytes free stands."""
    return "full" if free < _FULL_BYTES else "low" if free < _LOW_BYTES else "up"


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
