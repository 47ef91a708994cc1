"""The application: routes, errors, the built interface, and what lives as long as the server."""

from __future__ import annotations

import asyncio
import os
from collections.abc import AsyncIterator
from contextlib import asynccontextmanager, suppress
from functools import cache
from pathlib import Path

from fastapi import FastAPI
from fastapi.responses import FileResponse, Response
from fastapi.staticfiles import StaticFiles
from sqlalchemy.exc import SQLAlchemyError
from starlette.concurrency import run_in_threadpool
from starlette.exceptions import HTTPException
from starlette.middleware.gzip import GZipMiddleware
from starlette.types import Scope

import ironkettle
from ironkettle.api.base import identity, problems
from ironkettle.api.base.bounds import BoundedBody
from ironkettle.api.base.deps import now
from ironkettle.api.base.described import describe
from ironkettle.api.base.surface import Surface
from ironkettle.api.machine.stand import stand_away
from ironkettle.api.machine.stand_records import DatabaseKeeper, load_map, recover_all
from ironkettle.api.routes import ROUTERS
from ironkettle.config import Settings
from ironkettle.reference import ring_table, seal_sizes
from ironkettle.stand.driver import StandAwayError, StandDriver
from ironkettle.stand.recorder import Recorder
from ironkettle.store.base import make_engine, session_of
from ironkettle.store.shop.dues import update_changed_dues

RECOVER_EVERY_S = 2.0
DUES_EVERY_S = 2.0


def create_app(settings: Settings | None = None) -> FastAPI:
    """The whole application. The database is first touched by a request, never at import."""
    settings = settings or Settings()

    @asynccontextmanager
    async def lifespan(app: FastAPI) -> AsyncIterator[None]:
        ring_table()
        seal_sizes()
        stopping = asyncio.Event()
        recovering = asyncio.create_task(_recover(app, stopping))
        keeping = asyncio.create_task(_keep_dues(app, stopping))
        yield
        # Waited for, not cut off: a thread that still holds a connection would leave it open behind the engine.
        stopping.set()
        await recovering
        await keeping
        await app.state.recorder.close()
        app.state.engine.dispose()
        app.state.proving.dispose()

    app = FastAPI(
        title="Iron Kettle",
        version=ironkettle.__version__,
        description=(
            "Bench companion of a fluid power repair technician. A text with the format `length`, `pressure`, `torque`, "
            "`volume`, `flow`, `temperature`, `force` or `speed` is a number with a unit, such as `24.9 mm`; where the field "
            "says so, also with a tolerance."
        ),
        lifespan=lifespan,
        docs_url=None,
        redoc_url=None,
        openapi_url="/api/openapi.json",
        separate_input_output_schemas=False,
    )
    app.state.engine = make_engine(settings.database_url)
    # A request that proves a secret holds a connection already: a second one of the same pool could wait for ever.
    app.state.proving = make_engine(settings.database_url, size=2)
    engine = app.state.engine
    app.state.stand = StandDriver(settings.stand_host, settings.stand_port, lambda: run_in_threadpool(load_map, engine))
    app.state.recorder = Recorder(app.state.stand, DatabaseKeeper(engine))
    app.state.settings = settings
    problems.install(app)
    identity.install(app)
    app.add_exception_handler(StandAwayError, stand_away)  # type: ignore[arg-type]
    app.add_middleware(GZipMiddleware, minimum_size=1000, compresslevel=5)
    # The last one added is the first one met.
    app.add_middleware(BoundedBody)
    app.add_middleware(Surface, hosts=settings.host_names, page=settings.web_dir / "index.html")
    for router in ROUTERS:
        app.include_router(router)
    plain = app.openapi
    app.openapi = cache(lambda: describe(plain()))  # type: ignore[method-assign]
    if settings.web_dir.is_dir():
        _serve_interface(app, settings.web_dir)
    return app


class HashedFiles(StaticFiles):
    """Files of the interface. Those with a hash in their name never change, so a browser keeps them."""

    def file_response(
        self, full_path: str | os.PathLike[str], stat_result: os.stat_result, scope: Scope, status_code: int = 200
    ) -> Response:
        answer = super().file_response(full_path, stat_result, scope, status_code)
        if "/immutable/" in scope["path"]:
            answer.headers["Cache-Control"] = "public, max-age=31536000, immutable"
        return answer


async def _keep_dues(app: FastAPI, stopping: asyncio.Event) -> None:
    """Work out behind the requests what is due on units whose sheet has a new version, until the server stops."""
    while not stopping.is_set():
        try:
            more = await run_in_threadpool(_some_dues, app)
        except SQLAlchemyError:
            more = False
        if not more:
            with suppress(TimeoutError):
                await asyncio.wait_for(stopping.wait(), DUES_EVERY_S)


def _some_dues(app: FastAPI) -> bool:
    with session_of(app.state.engine) as session:
        return update_changed_dues(session, now())


async def _recover(app: FastAPI, stopping: asyncio.Event) -> None:
    """End recordings that a server before this one left open, as soon as the database answers, or until it stops."""
    while not await run_in_threadpool(recover_all, app.state.engine):
        with suppress(TimeoutError):
            await asyncio.wait_for(stopping.wait(), RECOVER_EVERY_S)
            return


def _serve_interface(app: FastAPI, folder: Path) -> None:
    app.mount("/_app", HashedFiles(directory=folder / "_app"), name="assets")
    plain_files = {path.name for path in folder.iterdir() if path.is_file()}

    @app.get("/{path:path}", include_in_schema=False)
    def interface(path: str) -> FileResponse:
        if path.startswith("api/") and path != "api/docs":
            raise HTTPException(404, "No such address")
        # Asked for anew each time, so that a tab opened after an update gets the new page.
        return FileResponse(
            folder / (path if path in plain_files else "index.html"), headers={"Cache-Control": "no-cache"}
        )
