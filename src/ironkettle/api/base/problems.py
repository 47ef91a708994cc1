"""Every error as problem+json, in one place."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

import structlog
from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from pydantic import BaseModel
from sqlalchemy.exc import DBAPIError, IntegrityError, OperationalError
from sqlalchemy.exc import TimeoutError as PoolTimeoutError
from starlette.exceptions import HTTPException

from ironkettle.core.base.errors import FieldFault, NotAllowedError, RefusedError, RuleError
from ironkettle.core.base.text import spelled_out
from ironkettle.core.base.wording import plain_words
from ironkettle.core.sheets.document.trials import TestKind
from ironkettle.store.jobs.rows import DamagedLogError

log = structlog.get_logger()
_KINDS = frozenset({*TestKind, "target", "preset", "edge", "contact"})
MEDIA_TYPE = "application/problem+json"


class FieldErrorOut(BaseModel):
    """One fault: the field, a sentence, and what would fit."""

    field: str
    message: str
    accepts: list[str]


class Problem(BaseModel):
    """RFC 9457 problem with the faults of the fields."""

    type: str
    title: str
    status: int
    detail: str
    errors: list[FieldErrorOut]


class NotThereError(Exception):
    """Something asked for by its key does not exist."""

    def __init__(self, what: str, key: object) -> None:
        super().__init__(f"there is no {what} “{str(key)[:80]}”")


def _answer(
    status: int, title: str, slug: str, detail: str, *errors: dict[str, Any]
) -> dict[int | str, dict[str, Any]]:
    """What an operation may answer instead, with an example of it."""
    example = {"type": f"/problems/{slug}", "title": title, "status": status, "detail": detail, "errors": list(errors)}
    return {status: {"model": Problem, "description": title, "content": {MEDIA_TYPE: {"example": example}}}}


ERROR_RESPONSES = _answer(
    422,
    "Some fields need correcting",
    "invalid-input",
    "pressure: “180” has no unit; write for example 180 bar",
    {"field": "pressure", "message": "“180” has no unit; write for example 180 bar", "accepts": ["180 bar"]},
)
NOT_THERE = _answer(404, "Not found", "not-there", "there is no job “1999”")
NOT_SIGNED_IN = _answer(401, "Not signed in", "not-signed-in", "sign in first: choose your name and enter your PIN")
GUARDED = NOT_SIGNED_IN | _answer(
    403, "Not allowed", "not-allowed", "Odile Sparrow (reader) may not record on a job; stores, technician and lead may"
)
CONFLICT = _answer(409, "Not possible now", "not-safe", "first: Isolate the unit")


_AWAY = (503, "database-away", "Database not reachable", "nothing was saved; try again in a moment")
_BUSY = (503, "busy", "Busy", "somebody else is saving here at the moment; nothing was saved; try again")
# By PostgreSQL's error codes: lock not got in time, statement stopped, transaction stopped, disk full.
_FULL = (507, "disk-full", "The disk is full", "nothing was saved; free some space on the database disk")
_DATABASE = {"55P03": _BUSY, "57014": _BUSY, "25P03": _BUSY, "40P01": _BUSY, "53100": _FULL}


def problem(status: int, kind: str, title: str, detail: str, faults: Iterable[FieldFault] = ()) -> JSONResponse:
    errors = [FieldErrorOut(field=f.field, message=f.message, accepts=list(f.accepts)) for f in faults]
    body = Problem(type=f"/problems/{kind}", title=title, status=status, detail=detail, errors=errors)
    # What came in and cannot be written stands spelled out in the sentence that refuses it.
    return JSONResponse(spelled_out(body.model_dump()), status_code=status, media_type=MEDIA_TYPE)


def install(app: FastAPI) -> None:
    """Register the handlers on the application."""

    @app.exception_handler(RuleError)
    def rule_error(request: Request, error: RuleError) -> JSONResponse:
        return problem(422, error.code, error.title, str(error)[:2000], error.faults)

    @app.exception_handler(RefusedError)
    def refused(request: Request, error: RefusedError) -> JSONResponse:
        return problem(409, error.code, "Not possible now", str(error))

    @app.exception_handler(NotAllowedError)
    def not_allowed(request: Request, error: NotAllowedError) -> JSONResponse:
        return problem(403, error.code, "Not allowed", str(error))

    @app.exception_handler(DamagedLogError)
    def damaged(request: Request, error: DamagedLogError) -> JSONResponse:
        log.error("damaged log", job=str(error.job), seq=error.seq)
        return problem(409, "damaged-log", "This job's record is damaged", str(error))

    @app.exception_handler(NotThereError)
    def not_there(request: Request, error: NotThereError) -> JSONResponse:
        return problem(404, "not-there", "Not found", str(error))

    @app.exception_handler(RequestValidationError)
    def malformed(request: Request, error: RequestValidationError) -> JSONResponse:
        faults = [_fault(item) for item in error.errors()[:50]]
        detail = "; ".join(f"{fault.field}: {fault.message}" for fault in faults)
        return problem(422, "invalid-input", RuleError.title, detail[:2000], faults)

    @app.exception_handler(HTTPException)
    def http_error(request: Request, error: HTTPException) -> JSONResponse:
        return problem(error.status_code, "http", str(error.detail), f"{request.method} {request.url.path}")

    @app.exception_handler(IntegrityError)
    def conflict(request: Request, error: IntegrityError) -> JSONResponse:
        log.warning("conflict", path=request.url.path, error=str(error.orig))
        return problem(409, "conflict", "Already exists", "this key or id already exists")

    @app.exception_handler(OperationalError)
    def database_away(request: Request, error: OperationalError) -> JSONResponse:
        log.error("database", path=request.url.path, error=str(error.orig).strip())
        status, kind, title, text = _DATABASE.get(getattr(error.orig, "sqlstate", None) or "", _AWAY)
        return problem(status, kind, title, text)

    @app.exception_handler(PoolTimeoutError)
    def database_busy(request: Request, error: PoolTimeoutError) -> JSONResponse:
        return problem(*_BUSY)

    @app.exception_handler(DBAPIError)
    def database_fault(request: Request, error: DBAPIError) -> JSONResponse:
        if error.connection_invalidated:
            return problem(*_AWAY)
        log.error("database fault", path=request.url.path, error=str(error.orig).strip())
        return problem(500, "unexpected", "Server error", "the error is in the log; nothing was saved")

    @app.exception_handler(Exception)
    def unexpected(request: Request, error: Exception) -> JSONResponse:
        log.exception("unexpected error", path=request.url.path)
        return problem(500, "unexpected", "Server error", "the error is in the log; nothing was saved")


def _fault(item: dict[str, Any]) -> FieldFault:
    loc = [str(part) for part in item["loc"]]
    # The first part says where it came from (body, path, query); the kind that tells bodies apart is no field.
    if loc[0] == "body" and len(loc) > 2 and loc[1] in _KINDS:
        del loc[1]
    if item["type"] == "kind":
        loc.append("kind")
    # What is wrong with the whole of a body has no field.
    path = ".".join(part for part in loc[1:]) or ("" if loc[0] == "body" else loc[0])
    context = item.get("ctx") or {}
    expected = context.get("expected") or context.get("expected_tags")
    accepts = tuple(part.strip(" '") for part in str(expected).replace(" or ", ",").split(",")) if expected else ()
    return FieldFault(path, plain_words(str(item["type"]), str(item["msg"]), context), accepts)
