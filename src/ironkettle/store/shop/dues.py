"""What is due on all units, and the update of their due days after a new version of their sheet."""

from __future__ import annotations

from datetime import date, datetime
from uuid import UUID

from sqlalchemy import Identity, select
from sqlalchemy.orm import Mapped, Session, mapped_column

from ironkettle.store.base import Base
from ironkettle.store.shop.units import UnitRow, newest_sheet, update_dues


class SheetChangeRow(Base):
    """A sheet has a version by which the days of its units are to be worked out; they are, up to the unit ``after``."""

    __tablename__ = "sheet_changes"

    id: Mapped[int] = mapped_column(Identity(), primary_key=True)
    sheet_key: Mapped[str]
    after: Mapped[UUID | None] = mapped_column(default=None)


def note_new_sheet(session: Session, key: str) -> None:
    """A sheet has a new version: the due days of its units are updated in the background (``update_changed_dues``).

    It is put down as a row of its own, which waits for nobody, however many units there are.
    """
    session.add(SheetChangeRow(sheet_key=key))
    session.flush()


def update_changed_dues(session: Session, now: datetime, most: int = 50) -> bool:
    """Update the due days of some units whose sheet has a new version; whether there was anything to do."""
    query = select(SheetChangeRow).order_by(SheetChangeRow.id).limit(1).with_for_update(skip_locked=True)
    change = session.scalars(query).one_or_none()
    if change is None:
        return False
    newer = select(SheetChangeRow).where(SheetChangeRow.sheet_key == change.sheet_key, SheetChangeRow.id > change.id)
    units = select(UnitRow).where(UnitRow.sheet_key == change.sheet_key).order_by(UnitRow.id).limit(most)
    if change.after is not None:
        units = units.where(UnitRow.id > change.after)
    # A later version walks the same units from the beginning.
    found = [] if session.scalar(select(newer.exists())) else list(session.scalars(units))
    sheet = newest_sheet(session, found[0]) if found else None
    for unit in found:
        update_dues(session, unit, now, sheet)
    if found:
        change.after = found[-1].id
    else:
        session.delete(change)
    session.flush()
    return True


def units_due(session: Session, today: date, until: date, limit: int) -> list[UnitRow]:
    """Units with an interval that comes by a day, the earliest first; then, up to the limit, those without a reading."""
    found: list[UnitRow] = []
    for first, last in ((UnitRow.due_by, until), (UnitRow.unknown_from, today)):
        there = [unit.id for unit in found]
        ordered = select(UnitRow).where(first <= last, UnitRow.id.not_in(there)).order_by(first, UnitRow.number)
        found += session.scalars(ordered.limit(limit - len(found)))
    return found
