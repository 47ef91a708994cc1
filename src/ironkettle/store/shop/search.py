"""One search over jobs, units, sheets, stock: a few of each, the likeliest first."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime
from typing import Literal

from sqlalchemy import or_, select
from sqlalchemy.orm import Session

from ironkettle.core.sealing.rings import RingSize, RingTable
from ironkettle.store.jobs.bench_list import Sought, list_jobs
from ironkettle.store.sheets.rows import latest_sheets
from ironkettle.store.shop.stock import StockItem
from ironkettle.store.shop.units import find_units, label_text

HitKind = Literal["job", "unit", "sheet", "size", "stock"]
_EACH = 6


@dataclass(frozen=True, slots=True)
class Hit:
    """Something found. ``key``: how its page is called: the number of a job, the label of a unit, the key of a sheet, the name of a
    size or of an item."""

    kind: HitKind
    key: str
    title: str
    detail: str


def search(session: Session, words: str, table: RingTable, now: datetime) -> list[Hit]:
    """What holds every word, by kind, at most six of each."""
    if not words.split():
        return []
    return [
        *_jobs(session, words, now),
        *_units(session, words),
        *_sheets(session, words),
        *_sizes(table, words),
        *_stock(session, words),
    ]


def _jobs(session: Session, words: str, now: datetime) -> Iterator[Hit]:
    for job in list_jobs(session, Sought(words=words), now, limit=_EACH).jobs:
        state = job.ended or ("released" if job.released else job.next_need or job.stage)
        yield Hit("job", str(job.number), f"{job.unit}, {job.serial}", f"job {job.number}, {state}")


def _units(session: Session, words: str) -> Iterator[Hit]:
    for unit in find_units(session, words, _EACH):
        yield Hit("unit", label_text(session, unit), f"{unit.name}, {unit.serial}", unit.customer)


def _holds_all(text: str, words: str) -> bool:
    return all(word in text.casefold() for word in words.casefold().split())


def _sheets(session: Session, words: str) -> Iterator[Hit]:
    found = [row for row in latest_sheets(session) if _holds_all(f"{row.name} {row.key} {row.family}", words)]
    for row in found[:_EACH]:
        yield Hit("sheet", row.key, row.name, f"{row.family}, version {row.version}")


def _sizes(table: RingTable, words: str) -> Iterator[Hit]:
    """Sizes that are called so; the whole designation before a part of it."""
    wanted = words.casefold().split()

    def rank(size: RingSize) -> tuple[bool, bool]:
        named = size.designation.casefold()
        return named not in wanted, not any(named.startswith(word) for word in wanted)

    found = sorted((size for size in table.sizes if _holds_all(size.label, words)), key=rank)
    for size in found[:_EACH]:
        yield Hit("size", size.designation, size.label, f"{size.inside_diameter:g} × {size.section:g} mm")


def _stock(session: Session, words: str) -> Iterator[Hit]:
    columns = (StockItem.name, StockItem.size, StockItem.compound, StockItem.place)
    wanted = [or_(*(column.icontains(word, autoescape=True) for column in columns)) for word in words.split()]
    query = select(StockItem).where(StockItem.active, *wanted).order_by(StockItem.name).limit(_EACH)
    for item in session.scalars(query):
        yield Hit("stock", item.name, item.name, f"{item.in_stock} in {item.place}")
