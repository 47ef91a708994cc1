"""Every error as problem+json, in one place."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

import structlog
from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from pydantic import BaseModel
from sqlalchemy.exc import IntegrityError, OperationalError
from starlette.exceptions import HTTPException

from ironkettle.core.errors import FieldFault, RefusedError, RuleError

log = structlog.get_logger()
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


ERROR_RESPONSES: dict[int | str, dict[str, Any]] = {
    422: {"model": Problem, "description": "An entry does not fit", "content": {MEDIA_TYPE: {}}},
}
NOT_THERE: dict[int | str, dict[str, Any]] = {
    404: {"model": Problem, "description": "Not there", "content": {MEDIA_TYPE: {}}}
}
CONFLICT: dict[int | str, dict[str, Any]] = {
    409: {"model": Problem, "description": "Refused", "content": {MEDIA_TYPE: {}}}
}


def problem(status: int, kind: str, title: str, detail: str, faults: Iterable[FieldFault] = ()) -> JSONResponse:
    errors = [FieldErrorOut(field=f.field, message=f.message, accepts=list(f.accepts)) for f in faults]
    body = Problem(type=f"/problems/{kind}", title=title, status=status, detail=detail, errors=errors)
    return JSONResponse(body.model_dump(), status_code=status, media_type=MEDIA_TYPE)


def install(app: FastAPI) -> None:
    """Register the handlers on the application."""

    @app.exception_handler(RuleError)
    def rule_error(request: Request, error: RuleError) -> JSONResponse:
        return problem(422, error.code, error.title, str(error)[:2000], error.faults)

    @app.exception_handler(RefusedError)
    def refused(request: Request, error: RefusedError) -> JSONResponse:
        return problem(409, error.code, "Not possible now", str(error))

    @app.exception_handler(NotThereError)
    def not_there(request: Request, error: NotThereError) -> JSONResponse:
        return problem(404, "not-there", "Not there", str(error))

    @app.exception_handler(RequestValidationError)
    def malformed(request: Request, error: RequestValidationError) -> JSONResponse:
        faults = [_fault(item) for item in error.errors()[:50]]
        detail = "; ".join(f"{fault.field}: {fault.message}" for fault in faults)
        return problem(422, RuleError.code, RuleError.title, detail[:2000], faults)

    @app.exception_handler(HTTPException)
    def http_error(request: Request, error: HTTPException) -> JSONResponse:
        return problem(error.status_code, "http", str(error.detail), f"{request.method} {request.url.path}")

    @app.exception_handler(IntegrityError)
    def conflict(request: Request, error: IntegrityError) -> JSONResponse:
        log.warning("conflict", path=request.url.path, error=str(error.orig))
        return problem(409, "conflict", "Already there", "something with this key or id exists already")

    @app.exception_handler(OperationalError)
    def database_away(request: Request, error: OperationalError) -> JSONResponse:
        log.error("database away", path=request.url.path, error=str(error.orig))
        return problem(503, "database-away", "Database not reachable", "nothing was written; try again in a moment")

    @app.exception_handler(Exception)
    def unexpected(request: Request, error: Exception) -> JSONResponse:
        log.exception("unexpected error", path=request.url.path)
        return problem(500, "unexpected", "Something went wrong here", "the fault is logged; nothing was written")


def _fault(item: dict[str, Any]) -> FieldFault:
    loc = [str(part) for part in item["loc"]]
    # The first part says where it came from (body, path, query); the discriminator of an entry is no field.
    path = ".".join(part for part in loc[1:]) or loc[0]
    context = item.get("ctx") or {}
    expected = context.get("expected") or context.get("expected_tags")
    accepts = tuple(part.strip(" '") for part in str(expected).replace(" or ", ",").split(",")) if expected else ()
    return FieldFault(path, str(item["msg"]).removeprefix("Value error, "), accepts)
