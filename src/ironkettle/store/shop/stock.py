"""The shop's stock: seals and rings by size, kits by number, parts by name; and what jobs drew of it."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from datetime import datetime
from uuid import UUID

from sqlalchemy import ForeignKey, select
from sqlalchemy.orm import Mapped, Session, mapped_column

from ironkettle.core.base.quantities import read_length
from ironkettle.core.jobs import OnShelf
from ironkettle.core.sealing.seals import SealKind, SealSide, SealSize
from ironkettle.store.base import Base
from ironkettle.store.shop.trail import leave_trail

SOURCE = "shop stock"


class StockItem(Base):
    """One item in its place. A seal has its dimensions as written, in inch or mm; a ring or kit its ``size``.

    ``least``: below it the item is to be ordered; ``active``: False once it is kept no more.
    """

    __tablename__ = "stock"

    key: Mapped[str] = mapped_column(primary_key=True)
    name: Mapped[str]
    kind: Mapped[str]
    side: Mapped[str | None] = mapped_column(default=None)
    surface: Mapped[str | None] = mapped_column(default=None)
    groove: Mapped[str | None] = mapped_column(default=None)
    length: Mapped[str | None] = mapped_column(default=None)
    size: Mapped[str] = mapped_column(default="")
    compound: Mapped[str] = mapped_column(default="")
    in_stock: Mapped[int]
    least: Mapped[int] = mapped_column(default=0)
    place: Mapped[str]
    active: Mapped[bool] = mapped_column(default=True)

    def seal_size(self) -> SealSize | None:
        """The item as the core matches it by housing; None where it is no seal of a housing. [mm]"""
        if self.side is None or self.surface is None or self.groove is None or self.length is None:
            return None
        return SealSize(
            SealKind(self.kind),
            SealSide(self.side),
            read_length(self.surface, "surface"),
            read_length(self.groove, "groove"),
            read_length(self.length, "length"),
            f"{self.name} ({self.place})",
            SOURCE,
            self.in_stock,
        )

    def on_shelf(self) -> OnShelf:
        """The item as the tasks of a job look for it."""
        seal = self.seal_size()
        three = None if seal is None else (seal.surface, seal.groove, seal.length)
        return OnShelf(self.key, self.name, self.kind, self.in_stock, self.place, self.size, three, self.compound)


class DrawnRow(Base):
    """How many of an item a job has drawn so far, so that a job released twice draws once."""

    __tablename__ = "stock_drawn"

    job_id: Mapped[UUID] = mapped_column(ForeignKey("jobs.id"), primary_key=True)
    item: Mapped[str] = mapped_column(ForeignKey("stock.key"), primary_key=True)
    count: Mapped[int]


def all_stock(session: Session, *, ended: bool = False) -> list[StockItem]:
    """Every item by kind and key; with ``ended`` also those that are kept no more."""
    query = select(StockItem).order_by(StockItem.kind, StockItem.key)
    return list(session.scalars(query if ended else query.where(StockItem.active)))


def seals_in_stock(session: Session) -> list[SealSize]:
    """The seals that live in a housing, as the core matches them."""
    return [size for item in all_stock(session) if (size := item.seal_size()) is not None]


def low_stock(session: Session) -> list[StockItem]:
    """Items of which fewer are there than should be."""
    query = select(StockItem).where(StockItem.active, StockItem.in_stock < StockItem.least)
    return list(session.scalars(query.order_by(StockItem.name)))


def find_stock(session: Session, key: str) -> StockItem | None:
    return session.get(StockItem, key, with_for_update=True)


def add_stock(session: Session, item: StockItem) -> None:
    """Add an item; a key in use is refused by the database and told as a conflict."""
    session.add(item)
    session.flush()


def draw(session: Session, job: UUID, number: int, taken: Mapping[str, int], who: str, now: datetime) -> None:
    """Draw what a released job took and has not drawn yet; more than is there leaves none, and the trail says so."""
    rows = {row.item: row for row in session.scalars(select(DrawnRow).where(DrawnRow.job_id == job))}
    # By key, so that two jobs released at once never wait for each other.
    for key in sorted(taken):
        item = find_stock(session, key)
        further = taken[key] - (rows[key].count if key in rows else 0)
        if item is None or further <= 0:
            continue
        before, item.in_stock = item.in_stock, max(item.in_stock - further, 0)
        change = {"in_stock": item.in_stock, "job": number, "taken": further}
        if further > before:
            change["was_not_there"] = further - before
        if key in rows:
            rows[key].count = taken[key]
        else:
            session.add(DrawnRow(job_id=job, item=key, count=taken[key]))
        leave_trail(session, who, now, "stock", key, "drawn", {"in_stock": before}, change)


def shelf_of(items: Iterable[StockItem]) -> tuple[OnShelf, ...]:
    return tuple(item.on_shelf() for item in items)
