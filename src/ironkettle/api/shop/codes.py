"""A scanned code, and what it names."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Query
from pydantic import BaseModel

from ironkettle.api.base.deps import DbSession
from ironkettle.api.base.problems import ERROR_RESPONSES, NOT_THERE, NotThereError
from ironkettle.api.jobs.named import Reader
from ironkettle.api.shop.unit_view import UnitSummary, summary_of
from ironkettle.core.base.text import Plain
from ironkettle.core.shop.service import CodeKind, read_code
from ironkettle.store.shop.units import newest_sheet, shop_mark, unit_labelled

router = APIRouter(prefix="/api/codes", tags=["units"], responses=ERROR_RESPONSES | NOT_THERE)


class CodeOut(BaseModel):
    """``key``: the label of the unit or the number of the job; ``record``: how the record of a certificate begins."""

    kind: CodeKind
    key: str
    record: str
    unit: UnitSummary | None


@router.get("", summary="What a scanned code names: a unit or a certificate")
def read(
    session: DbSession, caller: Reader, code: Annotated[str, Query(min_length=1, max_length=400), Plain]
) -> CodeOut:
    named = read_code(code, shop_mark(session))
    unit = None
    if named.kind is CodeKind.UNIT:
        found = unit_labelled(session, named.key)
        if found is None:
            raise NotThereError("unit", named.key)
        unit = summary_of(session, found, newest_sheet(session, found))
    return CodeOut(kind=named.kind, key=named.key, record=named.record, unit=unit)
