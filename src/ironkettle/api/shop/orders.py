"""The order list: what open jobs are short of, and what the shelf has too few of."""

from __future__ import annotations

import csv
import io
from typing import Annotated, Any
from uuid import UUID

from fastapi import APIRouter, Response
from pydantic import BaseModel

from ironkettle.api.base.deps import DbSession
from ironkettle.api.base.identity import allow
from ironkettle.api.base.problems import ERROR_RESPONSES, GUARDED
from ironkettle.api.policies import Caller, StockPolicy
from ironkettle.api.shop.stock import StockItemOut
from ironkettle.store.jobs.bench_list import short_jobs
from ironkettle.store.shop.stock import low_stock

router = APIRouter(prefix="/api/orders", tags=["stock"], responses=ERROR_RESPONSES | GUARDED)

Reader = Annotated[Caller, allow(StockPolicy.read)]


class OrderLineOut(BaseModel):
    """``what`` names it in the job's entries; ``shelf``: what the shelf has of it, in words."""

    job: UUID
    number: int
    unit: str
    serial: str
    what: str
    name: str
    missing: int
    ordered: bool
    shelf: str | None


class OrdersOut(BaseModel):
    lines: list[OrderLineOut]
    low: list[StockItemOut]


@router.get("", summary="What is to be ordered, and what is on its way")
def orders(session: DbSession, caller: Reader) -> OrdersOut:
    lines = [
        OrderLineOut(job=job.id, number=job.number, unit=job.unit, serial=job.serial, **line)
        for job in short_jobs(session)
        for line in job.short
    ]
    return OrdersOut(lines=lines, low=[StockItemOut.of(item) for item in low_stock(session)])


@router.get(".csv", summary="The order list as CSV", response_class=Response)
def as_csv(session: DbSession, caller: Reader) -> Response:
    listed = orders(session, caller)
    text = io.StringIO()
    writer = csv.writer(text)
    writer.writerow(["what", "count", "for", "state"])
    for line in listed.lines:
        of_job = f"job {line.number}, {line.unit} {line.serial}"
        writer.writerow(_plain([line.name, line.missing, of_job, "ordered" if line.ordered else "to order"]))
    for item in listed.low:
        what = " ".join(part for part in (item.name, item.compound) if part)
        writer.writerow(_plain([what, item.least - item.in_stock, f"shelf, {item.place}", "to order"]))
    headers = {"Content-Disposition": 'attachment; filename="order-list.csv"'}
    return Response(text.getvalue(), media_type="text/csv; charset=utf-8", headers=headers)


def _plain(row: list[Any]) -> list[Any]:
    """A row that no spreadsheet takes for a formula."""
    return [f"'{cell}" if isinstance(cell, str) and cell[:1] in "=+-@\t" else cell for cell in row]
