"""Units as the shop knows them over the years: who they are, their counters, what was done when, what is due."""

from __future__ import annotations

import secrets
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, datetime
from enum import StrEnum
from uuid import UUID, uuid4, uuid5

from sqlalchemy import ForeignKey, Identity, Index, UniqueConstraint, delete, exists, func, or_, select
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Mapped, Session, mapped_column

from ironkettle.core.base.errors import RefusedError
from ironkettle.core.jobs import Case
from ironkettle.core.jobs.kinds.ending import ENDING_WORD, Ending
from ironkettle.core.jobs.kinds.intake import intake_of
from ironkettle.core.jobs.kinds.release import fulfilled, release_of
from ironkettle.core.sheets.document import Sheet
from ironkettle.core.sheets.document.quick_service import every_of
from ironkettle.core.sheets.document.trials import Interval
from ironkettle.core.shop.service import (
    LETTERS,
    SHOP_LENGTH,
    CounterRead,
    Due,
    Lower,
    Past,
    Standing,
    due_of,
    label_of,
    number_of,
    read_label,
    serial_key,
)
from ironkettle.store.base import Base
from ironkettle.store.jobs.rows import JobRow
from ironkettle.store.sheets.rows import load_sheet


class InstallationRow(Base):
    """What marks this installation: the four letters its labels begin with."""

    __tablename__ = "installation"

    key: Mapped[str] = mapped_column(primary_key=True)
    value: Mapped[str]


class UnitRow(Base):
    """A unit by its serial and kind of sheet; serial, name and customer are as its last job writes them.

    ``by_hand``: made known to carry a label, without a job.
    """

    __tablename__ = "units"
    __table_args__ = (
        UniqueConstraint("number"), UniqueConstraint("sheet_key", "serial_key"), Index("ix_units_serial_key", "serial_key"),
        Index("ix_units_sheet_key_id", "sheet_key", "id"),
    )  # fmt: skip

    id: Mapped[UUID] = mapped_column(primary_key=True)
    number: Mapped[int] = mapped_column(Identity(start=1))
    sheet_key: Mapped[str]
    serial: Mapped[str]
    serial_key: Mapped[str]
    name: Mapped[str]
    customer: Mapped[str]
    first_at: Mapped[datetime]
    by_hand: Mapped[bool] = mapped_column(default=False)
    # The first day on which anything comes, and the first from which something has no reading: for the list of what is due.
    due_by: Mapped[date | None] = mapped_column(index=True, default=None)
    unknown_from: Mapped[date | None] = mapped_column(index=True, default=None)


class ServiceRow(Base):
    """An interval that a released job began anew; follows the job's log."""

    __tablename__ = "services"

    job_id: Mapped[UUID] = mapped_column(ForeignKey("jobs.id"), primary_key=True)
    interval: Mapped[str] = mapped_column(primary_key=True)
    unit_id: Mapped[UUID] = mapped_column(ForeignKey("units.id"), index=True)
    done_at: Mapped[datetime]


class CounterRow(Base):
    """What a counter stood at; those of a job follow its log, the others stay as they came."""

    __tablename__ = "counter_readings"
    __table_args__ = (Index("ix_counter_readings_unit_id", "unit_id", "counter"),)

    id: Mapped[UUID] = mapped_column(primary_key=True)
    unit_id: Mapped[UUID] = mapped_column(ForeignKey("units.id"))
    counter: Mapped[str]
    value: Mapped[float]
    at: Mapped[datetime]
    who: Mapped[str] = mapped_column(ForeignKey("people.key"))
    source: Mapped[str]
    job_id: Mapped[UUID | None] = mapped_column(ForeignKey("jobs.id"), default=None)
    lower: Mapped[str | None] = mapped_column(default=None)
    note: Mapped[str] = mapped_column(default="")


class DueRow(Base):
    """The day an interval of a unit comes, as last reckoned; what it rests on is told when it is shown.

    ``by``: that day, or the one on which little was left of a count whose day cannot be told; ``unknown_from``: the day
    from which it cannot be told any more.
    """

    __tablename__ = "dues"

    unit_id: Mapped[UUID] = mapped_column(ForeignKey("units.id"), primary_key=True)
    interval: Mapped[str] = mapped_column(primary_key=True)
    by: Mapped[date | None] = mapped_column(index=True)
    unknown_from: Mapped[date | None] = mapped_column(index=True)


@dataclass(frozen=True, slots=True)
class IntervalDue:
    """An interval of a unit and how it stands."""

    interval: Interval
    past: Past
    due: Due


def shop_mark(session: Session) -> str:
    """The letters this installation's labels begin with, drawn by lot when they are asked for first."""
    row = session.get(InstallationRow, "shop")
    if row is None:
        drawn = "".join(secrets.choice(LETTERS) for _ in range(SHOP_LENGTH))
        first = insert(InstallationRow).values(key="shop", value=drawn)
        session.execute(first.on_conflict_do_nothing(index_elements=["key"]))
        row = session.get_one(InstallationRow, "shop", populate_existing=True)
    return row.value


def label_text(session: Session, unit: UnitRow) -> str:
    return label_of(shop_mark(session), unit.number)


def unit_labelled(session: Session, text: str) -> UnitRow | None:
    """The unit of a label that was scanned or typed; None for one that was never given out. Raises RuleError."""
    number = number_of(read_label(text, shop_mark(session)))
    return session.scalars(select(UnitRow).where(UnitRow.number == number)).one_or_none()


def unit_of(session: Session, sheet_key: str, serial: str) -> UnitRow | None:
    query = select(UnitRow).where(UnitRow.sheet_key == sheet_key, UnitRow.serial_key == serial_key(serial))
    return session.scalars(query).one_or_none()


def units_of_serial(session: Session, serial: str) -> list[UnitRow]:
    """The units of any kind that have a serial."""
    return list(session.scalars(select(UnitRow).where(UnitRow.serial_key == serial_key(serial))))


def register(session: Session, sheet_key: str, serial: str, name: str, customer: str, now: datetime) -> UnitRow:
    """The unit of that serial and kind, made known if it is not; told twice at once it is there once."""
    made = insert(UnitRow).values(
        id=uuid4(), sheet_key=sheet_key, serial=serial, serial_key=serial_key(serial), name=name, customer=customer,
        first_at=now, by_hand=False,
    )  # fmt: skip
    session.execute(made.on_conflict_do_nothing(index_elements=["sheet_key", "serial_key"]))
    found = unit_of(session, sheet_key, serial)
    assert found is not None
    return found


def keep_unit(session: Session, job: JobRow, case: Case, now: datetime) -> None:
    """Bring the job's unit up to what its log says: who it is, counters read at its intake, what its release began anew."""
    intake = intake_of(case.state)
    if intake is None:
        return
    counters = intake.value
    before = job.unit_id
    unit = register(session, job.sheet_key, counters.serial, counters.unit, counters.customer, now)
    if _newest(session, unit, job):
        unit.serial, unit.name, unit.customer = counters.serial, counters.unit, counters.customer
    job.unit_id = unit.id
    session.execute(delete(CounterRow).where(CounterRow.job_id == job.id))
    session.execute(delete(ServiceRow).where(ServiceRow.job_id == job.id))
    for counter in counters.counters:
        if counter.value is not None:
            session.add(
                CounterRow(
                    id=uuid5(job.id, counter.counter), unit_id=unit.id, counter=counter.counter, value=counter.value,
                    at=intake.mark.when, who=intake.mark.who, source="service" if counters.quick_service else "intake", job_id=job.id,
                    lower=counter.lower, note="",
                )
            )  # fmt: skip
    released = release_of(case.state)
    if released is not None:
        session.add_all(
            ServiceRow(job_id=job.id, interval=key, unit_id=unit.id, done_at=released.mark.when)
            for key in fulfilled(case)
        )
    session.flush()
    for key in sorted({unit.id} if before is None else {before, unit.id}):
        update_dues(session, session.get_one(UnitRow, key), now)


def _newest(session: Session, unit: UnitRow, job: JobRow) -> bool:
    later = select(JobRow.id).where(JobRow.unit_id == unit.id, JobRow.number > job.number).limit(1)
    return session.scalars(later).one_or_none() is None


def readings_of(session: Session, unit: UUID, but_job: UUID | None = None) -> dict[str, list[CounterRead]]:
    """What a unit's counters stood at, by counter, in order of time."""
    return _readings(session, [unit], but_job).get(unit, {})


def _readings(
    session: Session, units: Sequence[UUID], but_job: UUID | None = None
) -> dict[UUID, dict[str, list[CounterRead]]]:
    """What the counters of some units stood at, by unit and counter, in order of time."""
    query = (
        select(CounterRow.unit_id, CounterRow.counter, CounterRow.at, CounterRow.value, CounterRow.lower)
        .where(CounterRow.unit_id.in_(units))
        .order_by(CounterRow.at, CounterRow.id)
    )
    if but_job is not None:
        query = query.where(CounterRow.job_id.is_(None) | (CounterRow.job_id != but_job))
    found: dict[UUID, dict[str, list[CounterRead]]] = {}
    for unit, counter, at, value, lower in session.execute(query):
        read = CounterRead(at, value, None if lower is None else Lower(lower))
        found.setdefault(unit, {}).setdefault(counter, []).append(read)
    return found


def readings_before(session: Session, job: JobRow, serial: str) -> Mapping[str, Sequence[CounterRead]]:
    """What was read of a job's unit beside this job, for its intake to be held against."""
    unit = unit_of(session, job.sheet_key, serial)
    return {} if unit is None else readings_of(session, unit.id, but_job=job.id)


def _last_done(session: Session, units: Sequence[UUID]) -> dict[UUID, dict[str, datetime]]:
    """When each interval of some units was begun again last, by unit and interval."""
    query = select(ServiceRow.unit_id, ServiceRow.interval, func.max(ServiceRow.done_at))
    found: dict[UUID, dict[str, datetime]] = {}
    of_units = query.where(ServiceRow.unit_id.in_(units)).group_by(ServiceRow.unit_id, ServiceRow.interval)
    for unit, interval, done in session.execute(of_units):
        found.setdefault(unit, {})[interval] = done
    return found


def dues_of(session: Session, unit: UnitRow, sheet: Sheet, now: datetime) -> list[IntervalDue]:
    """How every interval of a unit stands, those that come first on top."""
    return dues_of_units(session, [(unit, sheet)], now)[unit.id]


def dues_of_units(
    session: Session, listed: Sequence[tuple[UnitRow, Sheet]], now: datetime
) -> dict[UUID, list[IntervalDue]]:
    """As ``dues_of`` for many units, in as few queries."""
    ids = [unit.id for unit, _ in listed]
    done, readings = _last_done(session, ids), _readings(session, ids)
    return {
        unit.id: _dues(unit, sheet, done.get(unit.id, {}), readings.get(unit.id, {}), now) for unit, sheet in listed
    }


def _dues(
    unit: UnitRow,
    sheet: Sheet,
    done: Mapping[str, datetime],
    readings: Mapping[str, Sequence[CounterRead]],
    now: datetime,
) -> list[IntervalDue]:
    found = []
    for interval in sheet.intervals:
        last = done.get(interval.name)
        past = Past(unit.first_at, first_known=True) if last is None else Past(last)
        found.append(IntervalDue(interval, past, due_of(every_of(interval), past, readings, now)))
    order = (Standing.OVERDUE, Standing.SOON, Standing.UNKNOWN, Standing.LATER)
    return sorted(found, key=lambda due: (order.index(due.due.standing), due.due.by or date.max))


def update_dues(session: Session, unit: UnitRow, now: datetime, sheet: Sheet | None = None) -> None:
    """Keep the days on which a unit's intervals come, for the list of what is due."""
    # One at a time: two that update_dues at once would write the same rows.
    session.get_one(UnitRow, unit.id, with_for_update=True)
    sheet = sheet or newest_sheet(session, unit)
    session.execute(delete(DueRow).where(DueRow.unit_id == unit.id))
    days: list[date] = []
    unknown: list[date] = []
    for due in [] if sheet is None or retirement_of(session, unit) else dues_of(session, unit, sheet, now):
        by = due.due.by or (now.date() if due.due.standing is Standing.SOON else None)
        row = DueRow(unit_id=unit.id, interval=due.interval.name, by=by, unknown_from=due.due.unknown_from)
        session.add(row)
        days += [by] if by is not None else []
        unknown += [due.due.unknown_from] if due.due.unknown_from is not None else []
    unit.due_by, unit.unknown_from = min(days, default=None), min(unknown, default=None)
    session.flush()


def newest_sheet(session: Session, unit: UnitRow) -> Sheet | None:
    """The newest sheet of a unit; None where there is none, or none that this version can read."""
    try:
        return load_sheet(session, unit.sheet_key)
    except RefusedError:
        return None


class Gone(StrEnum):
    """Why nothing is due on a unit any more."""

    SCRAPPED = "scrapped"
    NAMED_BY_MISTAKE = "named_by_mistake"


def retirement_of(session: Session, unit: UnitRow) -> Gone | None:
    """Whether nothing is due on a unit: its last job ended with it scrapped, or an intake that named it was corrected."""
    last = session.scalars(select(JobRow).where(JobRow.unit_id == unit.id).order_by(JobRow.number.desc()).limit(1))
    job = last.one_or_none()
    if job is None:
        return None if unit.by_hand else Gone.NAMED_BY_MISTAKE
    return Gone.SCRAPPED if job.ended == ENDING_WORD[Ending.SCRAPPED] else None


def find_units(session: Session, words: str, limit: int) -> list[UnitRow]:
    """Units whose name, serial or customer holds every word, by serial; a serial is found without the signs in it."""
    plain = func.regexp_replace(UnitRow.serial, "[-/. ]", "", "g")
    columns = (UnitRow.name, UnitRow.serial, UnitRow.customer, plain)
    wanted = [or_(*(column.icontains(word, autoescape=True) for column in columns)) for word in words.split()]
    # A serial that was typed wrong at an intake and corrected is no unit.
    wanted.append(or_(UnitRow.by_hand, exists().where(JobRow.unit_id == UnitRow.id)))
    return list(session.scalars(select(UnitRow).where(*wanted).order_by(UnitRow.serial, UnitRow.number).limit(limit)))


def jobs_of_unit(
    session: Session, unit: UUID, limit: int = 30, *, released: bool | None = None, quick_services: bool = True
) -> list[JobRow]:
    """The jobs of a unit, the newest first. ``released``: those that are closed, or not; without quick services where they are not asked for."""
    query = select(JobRow).where(JobRow.unit_id == unit).order_by(JobRow.number.desc())
    if released is not None:
        query = query.where(JobRow.released.is_(released))
    if not quick_services:
        query = query.where(JobRow.quick_service == "")
    return list(session.scalars(query.limit(limit)))


def open_quick_service(session: Session, unit: UUID, interval: str) -> JobRow | None:
    """The quick service of an interval that is begun and not ended."""
    query = select(JobRow).where(JobRow.unit_id == unit, JobRow.quick_service == interval, JobRow.released.is_(False))
    return session.scalars(query.order_by(JobRow.number.desc()).limit(1)).one_or_none()


def open_quick_services(session: Session, units: Sequence[UUID]) -> dict[tuple[UUID, str], int]:
    """The numbers of the service jobs that are open on some units, by unit and interval."""
    query = select(JobRow.unit_id, JobRow.quick_service, func.max(JobRow.number)).where(
        JobRow.unit_id.in_(units), JobRow.quick_service != "", JobRow.released.is_(False)
    )
    rows = session.execute(query.group_by(JobRow.unit_id, JobRow.quick_service))
    return {(unit, interval): number for unit, interval, number in rows if unit is not None}


def counter_rows(session: Session, unit: UUID, limit: int = 200) -> list[CounterRow]:
    """Every counter reading of a unit, the newest first."""
    query = select(CounterRow).where(CounterRow.unit_id == unit).order_by(CounterRow.at.desc(), CounterRow.id)
    return list(session.scalars(query.limit(limit)))
