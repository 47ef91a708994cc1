"""The trail of changes to people, rights, tools and shop settings."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any

from fastapi import APIRouter, Query
from pydantic import BaseModel

from ironkettle.api.base.deps import DbSession
from ironkettle.api.base.identity import allow
from ironkettle.api.base.problems import ERROR_RESPONSES, GUARDED
from ironkettle.api.policies import Caller, TrailPolicy
from ironkettle.store.shop.people import names_of
from ironkettle.store.shop.trail import trail

router = APIRouter(prefix="/api/trail", tags=["trail"], responses=ERROR_RESPONSES | GUARDED)


class ChangeOut(BaseModel):
    """``subject`` is the person's name where it is a person; ``before`` and ``after`` hold only what changed."""

    id: int
    at: datetime
    who: str
    noun: str
    subject: str
    change: str
    before: dict[str, Any]
    after: dict[str, Any]


@router.get("", summary="Changes, the newest first")
def changes(
    session: DbSession,
    caller: Annotated[Caller, allow(TrailPolicy.read)],
    before: Annotated[int | None, Query(ge=1, le=2_000_000_000)] = None,
    limit: Annotated[int, Query(ge=1, le=500)] = 100,
) -> list[ChangeOut]:
    known = names_of(session)
    return [
        ChangeOut(
            id=row.id,
            at=row.at,
            who=known.get(row.who, row.who),
            noun=row.noun,
            subject=known.get(row.subject, row.subject) if row.noun == "person" else row.subject,
            change=row.change,
            before=row.before,
            after=row.after,
        )
        for row in trail(session, before, limit)
    ]
