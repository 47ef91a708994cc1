"""One search over the shop."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Query
from pydantic import BaseModel

from ironkettle.api.base.deps import DbSession, now
from ironkettle.api.base.problems import ERROR_RESPONSES
from ironkettle.api.jobs.named import Reader
from ironkettle.core.base.text import Plain
from ironkettle.reference import ring_table
from ironkettle.store.shop.search import HitKind, search

router = APIRouter(prefix="/api/search", tags=["jobs"], responses=ERROR_RESPONSES)


class HitOut(BaseModel):
    """Something found. ``key``: how its page is called."""

    kind: HitKind
    key: str
    title: str
    detail: str


@router.get("", summary="Jobs, units, sheets, sizes and stock that hold every word")
def find(
    session: DbSession, caller: Reader, q: Annotated[str, Query(min_length=1, max_length=200), Plain]
) -> list[HitOut]:
    return [
        HitOut(kind=hit.kind, key=hit.key, title=hit.title, detail=hit.detail)
        for hit in search(session, q, ring_table(), now())
    ]
