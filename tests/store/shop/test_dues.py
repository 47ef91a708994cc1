"""A new version of a sheet: the days of its units are worked out behind the request, in parts, and none is passed over."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from uuid import uuid4

from sqlalchemy import Engine, select, text
from sqlalchemy.orm import Session

from ironkettle.core.sheets.document import Sheet
from ironkettle.store.base import session_of
from ironkettle.store.sheets.rows import add_sheet, load_sheet
from ironkettle.store.shop.dues import SheetChangeRow, note_new_sheet, update_changed_dues
from ironkettle.store.shop.units import DueRow, UnitRow

KEY = "rotary-jetting-head"
NOW = datetime(2026, 11, 30, 9, tzinfo=UTC)
UNITS = 23


def with_units(engine: Engine) -> Sheet:
    """So many units of a sheet, none of them worked out; gives the sheet."""
    with session_of(engine) as session:
        sheet = load_sheet(session, KEY)
        assert sheet is not None
        session.add_all(
            UnitRow(
                id=uuid4(),
                sheet_key=KEY,
                serial=f"FN-79{n:02}",
                serial_key=f"fn-79{n:02}",
                name="Jetting head",
                customer="Dredging",
                first_at=NOW,
                by_hand=True,
            )
            for n in range(UNITS)
        )
    return sheet


def every(session: Session) -> set[str]:
    """The intervals that are kept of these units."""
    rows = session.execute(select(UnitRow.serial, DueRow.interval).join(DueRow).where(UnitRow.serial.like("FN-79%")))
    found: dict[str, set[str]] = {}
    for serial, interval in rows:
        found.setdefault(serial, set()).add(interval)
    assert len(found) in {0, UNITS}
    kinds = {frozenset(one) for one in found.values()}
    assert len(kinds) <= 1
    return set(next(iter(kinds), frozenset()))


def work_out(engine: Engine, most: int = 5) -> int:
    """Works in parts until nothing is left; gives how many there were."""
    parts = 0
    while True:
        with session_of(engine) as session:
            if not update_changed_dues(session, NOW + timedelta(days=1), most):
                return parts
        parts += 1


def test_every_unit_is_worked_out_in_parts(workshop: Engine) -> None:
    sheet = with_units(workshop)
    with session_of(workshop) as session:
        note_new_sheet(session, KEY)
    # 23 of ours in fives, the demo's own among them, and the part that finds no more.
    assert work_out(workshop) >= 6
    with session_of(workshop) as session:
        assert every(session) == {interval.name for interval in sheet.intervals}
        assert session.scalars(select(SheetChangeRow)).all() == []


def test_a_version_that_comes_half_way_is_the_one_all_are_worked_out_by(workshop: Engine) -> None:
    sheet = with_units(workshop)
    with session_of(workshop) as session:
        note_new_sheet(session, KEY)
    with session_of(workshop) as session:
        assert update_changed_dues(session, NOW, 5)
    first, *others = sheet.intervals
    renamed = sheet.model_copy(
        update={"version": sheet.version + 1, "intervals": [first.model_copy(update={"key": "weekly"}), *others]}
    )
    with session_of(workshop) as session:
        add_sheet(session, renamed)
        note_new_sheet(session, KEY)
    work_out(workshop)
    with session_of(workshop) as session:
        assert "weekly" in every(session)
        assert first.name not in every(session)


def test_bringing_in_a_version_waits_for_nobody(workshop: Engine) -> None:
    """Whatever is locked: the units, and the part that is being worked out."""
    with_units(workshop)
    with session_of(workshop) as session:
        note_new_sheet(session, KEY)
    with workshop.connect() as busy, busy.begin():
        busy.execute(text("SELECT 1 FROM units FOR UPDATE"))
        busy.execute(text("SELECT 1 FROM sheet_changes FOR UPDATE"))
        with session_of(workshop) as session:
            session.execute(text("SET LOCAL lock_timeout = '1ms'"))
            note_new_sheet(session, KEY)
    assert work_out(workshop) > 1
