"""Units over the years: found by label or words, their counters, what is due, their quick service, their history."""

from __future__ import annotations

from datetime import date, datetime, timedelta
from typing import Annotated
from uuid import UUID, uuid5

from fastapi import APIRouter, Query, Request, Response
from pydantic import AwareDatetime, BaseModel, Field
from sqlalchemy.orm import Session

from ironkettle.api.base.deps import DbSession, JobShop, now
from ironkettle.api.base.identity import allow
from ironkettle.api.base.problems import CONFLICT, ERROR_RESPONSES, GUARDED, NOT_THERE, NotThereError
from ironkettle.api.base.schemas import Body, NameText
from ironkettle.api.jobs.named import case_for
from ironkettle.api.jobs.view import JobView, job_view
from ironkettle.api.policies import Caller, UnitPolicy
from ironkettle.api.sheets.routes import find_sheet
from ironkettle.api.shop.unit_view import UnitDueOut, UnitSummary, UnitView, due_out, summary_of, unit_view
from ironkettle.core.base.errors import FieldFault, RefusedError, RuleError, fault
from ironkettle.core.base.text import Plain
from ironkettle.core.jobs import tasks_of
from ironkettle.core.jobs.kinds.intake import CounterShown, IntakeRecorded
from ironkettle.core.sheets.document import Sheet
from ironkettle.core.sheets.document.quick_service import conditions_of, counters_of, interval_of
from ironkettle.core.shop.service import CounterRead, Lower, Standing, check_reading, read_count, read_counters
from ironkettle.reports.label import unit_label_svg
from ironkettle.store.jobs.cases import case_of, state_of
from ironkettle.store.jobs.logs import NewEntry, append_entry
from ironkettle.store.jobs.rows import open_job
from ironkettle.store.shop.dues import units_due
from ironkettle.store.shop.settings import settings_in_force
from ironkettle.store.shop.tables import Shop
from ironkettle.store.shop.units import (
    CounterRow,
    UnitRow,
    dues_of_units,
    find_units,
    jobs_of_unit,
    label_text,
    newest_sheet,
    open_quick_service,
    open_quick_services,
    readings_of,
    register,
    unit_labelled,
    units_of_serial,
    update_dues,
)

router = APIRouter(prefix="/api", tags=["units"], responses=ERROR_RESPONSES | GUARDED)

# Units of a page of what is due.
DUE_PAGE = 50

Reader = Annotated[Caller, allow(UnitPolicy.read)]
Counting = Annotated[Caller, allow(UnitPolicy.count)]
Servicing = Annotated[Caller, allow(UnitPolicy.start_service)]
_CONDITION_SEEN = 1.0


class NewUnitBody(Body):
    """A unit or tool registered without a job, to carry a label."""

    sheet_key: NameText
    serial: NameText
    name: NameText
    customer: NameText


class CounterBody(Body):
    """What a counter stands at; ``counter`` may be a condition that is seen, without a value. The id comes from the client."""

    id: UUID
    counter: NameText
    value: float | Annotated[str, Field(max_length=40), Plain] | None = None
    at: AwareDatetime | None = None
    lower: Lower | None = None
    note: Annotated[str, Field(max_length=400), Plain] = ""


class CounterImportBody(Body):
    """Counter readings as CSV: unit (label or serial), counter, value, date; optionally lower."""

    text: Annotated[str, Field(max_length=4_000_000)]


class ImportedOut(BaseModel):
    """``new``: readings that were not there before."""

    rows: int
    new: int
    units: int


class QuickServiceBody(Body):
    """Starts the service of an interval, or gives the one that is open. Ids come from the client."""

    id: UUID
    entry_id: UUID
    interval: NameText
    bench_time: AwareDatetime
    sent_at: AwareDatetime | None = None
    counters: list[CounterShown] = Field(default_factory=list, max_length=12)


class UnitsOut(BaseModel):
    units: list[UnitSummary]


class DueListOut(BaseModel):
    """What is due up to a day, what is overdue first; ``unknown``: what has no reading.

    ``more``: more units have something due than are told here.
    """

    due: list[UnitDueOut]
    unknown: list[UnitDueOut]
    more: bool


def unit_at(session: Session, reference: str) -> UnitRow:
    """A unit by its label. Raises RuleError for what is no label of this shop, NotThereError for one not given out."""
    unit = unit_labelled(session, reference)
    if unit is None:
        raise NotThereError("unit", reference)
    return unit


def sheet_for(session: Session, unit: UnitRow) -> Sheet:
    """The newest sheet of a unit."""
    return find_sheet(session, unit.sheet_key, None)


@router.get("/units", summary="Units by words of name, serial or customer")
def units(
    session: DbSession,
    caller: Reader,
    q: Annotated[str, Query(max_length=200), Plain] = "",
    limit: Annotated[int, Query(ge=1, le=200)] = 50,
) -> UnitsOut:
    found = find_units(session, q, limit)
    return UnitsOut(units=[summary_of(session, unit, newest_sheet(session, unit)) for unit in found])


@router.post("/units", summary="Register a unit or tool, to carry a label")
def make_known(body: NewUnitBody, session: DbSession, caller: Servicing) -> UnitSummary:
    sheet = find_sheet(session, body.sheet_key, None)
    unit = register(session, sheet.key, body.serial, body.name, body.customer, now())
    unit.by_hand = True
    update_dues(session, unit, now(), sheet)
    return summary_of(session, unit, sheet)


@router.get("/units/{label}", summary="A unit by its label: what is due, counters, history", responses=NOT_THERE)
def unit(label: NameText, session: DbSession, caller: Reader, shop: JobShop) -> UnitView:
    found = unit_at(session, label)
    return _view(session, found, shop, caller)


def _view(session: Session, found: UnitRow, shop: Shop, caller: Caller) -> UnitView:
    jobs = [
        (job, case_of(session, job, state_of(session, job), shop, caller.author, now()) if job.entry_count else None)
        for job in jobs_of_unit(session, found.id)
    ]
    return unit_view(session, found, sheet_for(session, found), jobs, now())


@router.get("/units/{label}/label.svg", summary="The label: a QR code that opens the unit here", responses=NOT_THERE)
def label_svg(label: NameText, request: Request, session: DbSession, caller: Reader) -> Response:
    found = unit_at(session, label)
    text = label_text(session, found)
    link = f"{request.base_url}u/{text}"
    return Response(unit_label_svg(link, text, found.name, found.serial), media_type="image/svg+xml")


@router.post("/units/{label}/counters", summary="Enter a counter reading", responses=NOT_THERE | CONFLICT)
def count(label: NameText, body: CounterBody, session: DbSession, caller: Counting, shop: JobShop) -> UnitView:
    found = unit_at(session, label)
    sheet = sheet_for(session, found)
    session.get_one(UnitRow, found.id, with_for_update=True)
    present = session.get(CounterRow, body.id)
    if present is None:
        _count(session, found, sheet, body, caller)
        update_dues(session, found, now(), sheet)
    elif (present.unit_id, present.counter) != (found.id, body.counter):
        raise fault("id", "a reading with this id is of another counter")
    return _view(session, found, shop, caller)


def _count(session: Session, unit: UnitRow, sheet: Sheet, body: CounterBody, caller: Caller) -> None:
    if session.get(CounterRow, body.id) is not None:
        return
    conditions, at = conditions_of(sheet), body.at or now()
    if body.counter not in (*counters_of(sheet), *conditions):
        raise fault("counter", f"this unit has no counter “{body.counter}”", *counters_of(sheet), *conditions)
    written = f"{body.value:f}" if isinstance(body.value, float) else body.value
    value = _CONDITION_SEEN if body.counter in conditions else None if written is None else read_count(written)
    if value is None:
        raise fault("value", f"enter its reading, in {body.counter}", "1250")
    before = () if body.counter in conditions else readings_of(session, unit.id).get(body.counter, ())
    check_reading(before, CounterRead(at, value, body.lower), now(), body.counter)
    session.add(
        CounterRow(
            id=body.id, unit_id=unit.id, counter=body.counter, value=value, at=at, who=caller.key, source="typed",
            lower=body.lower, note=body.note,
        )
    )  # fmt: skip
    session.flush()


@router.post("/counters/import", summary="Counter readings from CSV, all or none")
def import_counters(body: CounterImportBody, session: DbSession, caller: Counting) -> ImportedOut:
    rows = sorted(read_counters(body.text), key=lambda row: (row.at, row.line))
    found: dict[str, UnitRow] = {}
    sheets: dict[UUID, Sheet] = {}
    readings: dict[UUID, dict[str, list[CounterRead]]] = {}
    faults: list[FieldFault] = []
    new = 0
    for row in rows:
        try:
            unit = found.get(row.unit) or _unit_named(session, row.unit)
            found[row.unit] = unit
            sheet = sheets.setdefault(unit.id, sheet_for(session, unit))
            if row.counter not in counters_of(sheet):
                raise fault("counter", f"{unit.name} has no counter “{row.counter}”", *counters_of(sheet))
            key = uuid5(unit.id, f"{row.counter} {row.value!r} {row.at.isoformat()}")
            if session.get(CounterRow, key) is not None:
                continue
            before = readings.setdefault(unit.id, readings_of(session, unit.id)).setdefault(row.counter, [])
            read = CounterRead(row.at, row.value, row.lower)
            check_reading(before, read, now(), row.counter)
            before.append(read)
            session.add(
                CounterRow(
                    id=key, unit_id=unit.id, counter=row.counter, value=row.value, at=row.at, who=caller.key,
                    source="import", lower=row.lower, note="",
                )
            )  # fmt: skip
            new += 1
        except RuleError as error:
            faults += [
                FieldFault(f"line {row.line}, {invalid.field}", invalid.message, invalid.accepts)
                for invalid in error.faults
            ]
    if faults:
        raise RuleError(faults[:20])
    session.flush()
    for unit in {known.id: known for known in found.values()}.values():
        update_dues(session, unit, now())
    return ImportedOut(rows=len(rows), new=new, units=len({known.id for known in found.values()}))


def _unit_named(session: Session, text: str) -> UnitRow:
    """A unit by its label or its serial. Raises RuleError where none or several have it."""
    listed = units_of_serial(session, text)
    if len(listed) == 1:
        return listed[0]
    if listed:
        raise fault("unit", f"{len(listed)} units have the serial {text}: write the label")
    try:
        labelled = unit_labelled(session, text)
    except RuleError:
        labelled = None
    if labelled is None:
        raise fault("unit", f"no unit here has the serial or label “{text}”")
    return labelled


@router.post(
    "/units/{label}/service", summary="Start the service of an interval, or continue it", responses=NOT_THERE | CONFLICT
)
def start_quick_service(
    label: NameText, body: QuickServiceBody, session: DbSession, caller: Servicing, shop: JobShop
) -> JobView:
    found = unit_at(session, label)
    # Two devices at one quick service: the second gets what the first began.
    session.get_one(UnitRow, found.id, with_for_update=True)
    sheet = sheet_for(session, found)
    begun = open_quick_service(session, found.id, body.interval)
    if begun is not None:
        _take_along(session, found, sheet, body, caller)
        case = case_for(session, begun, shop, caller)
        return job_view(session, begun, case, tasks_of(case))
    interval = interval_of(sheet, body.interval)
    job = open_job(session, body.id, sheet, settings_in_force(session), now())
    if job.entry_count and job.unit_id != found.id:
        raise RefusedError("job-exists", "a job with this id is open on another unit")
    fluid = sheet.service.fluids[0] if sheet.service.fluids else sheet.service.medium
    intake = IntakeRecorded(
        unit=found.name, serial=found.serial, customer=found.customer, fluid=fluid, pressure=sheet.service.pressure,
        complaint=f"Service: {interval.what}, due every {' or '.join(interval.every)}", quick_service=interval.name,
        counters=body.counters,
    )  # fmt: skip
    done = append_entry(
        session, job.id, NewEntry(body.entry_id, body.bench_time, intake, body.sent_at), caller.author, shop, now()
    )
    return job_view(session, job, done.case, done.tasks)


def _take_along(session: Session, unit: UnitRow, sheet: Sheet, body: QuickServiceBody, caller: Caller) -> None:
    """What the second of two devices read is kept beside what the first did. Sent twice it is there once."""
    for place, reading in enumerate(body.counters):
        if reading.value is None or session.get(CounterRow, uuid5(body.id, reading.counter)) is not None:
            continue
        read = CounterBody(
            id=uuid5(body.entry_id, reading.counter), counter=reading.counter, value=reading.value, lower=reading.lower
        )
        try:
            _count(session, unit, sheet, read, caller)
        except RuleError as error:
            raise RuleError([found.under(f"counters.{place}") for found in error.faults]) from None
    update_dues(session, unit, now(), sheet)


@router.get("/due", summary="Services due on all units, overdue first")
def due(
    session: DbSession,
    caller: Reader,
    days: Annotated[int, Query(ge=0, le=3660)] = 30,
    limit: Annotated[int, Query(ge=1, le=500)] = DUE_PAGE,
) -> DueListOut:
    listed, more = due_list(session, now(), days, limit)
    return DueListOut(
        due=[due for due in listed if due.due.standing is not Standing.UNKNOWN],
        unknown=[due for due in listed if due.due.standing is Standing.UNKNOWN],
        more=more,
    )


def due_list(session: Session, at: datetime, days: int, limit: int) -> tuple[list[UnitDueOut], bool]:
    """What comes up to so many days from now, and what has no reading, the earliest first; and whether there are more units."""
    until = (at + timedelta(days=days)).date()
    found = []
    units_found = units_due(session, at.date(), until, limit=limit + 1)
    sheets: dict[str, Sheet | None] = {}
    for unit in units_found[:limit]:
        if unit.sheet_key not in sheets:
            sheets[unit.sheet_key] = newest_sheet(session, unit)
    listed = [(unit, sheet) for unit in units_found[:limit] if (sheet := sheets[unit.sheet_key]) is not None]
    dues, begun = dues_of_units(session, listed, at), open_quick_services(session, [unit.id for unit, _ in listed])
    for unit, sheet in listed:
        summary = summary_of(session, unit, sheet)
        for due in dues[unit.id]:
            by = due.due.by
            if (by is not None and by <= until) or due.due.standing is not Standing.LATER:
                found.append(UnitDueOut(unit=summary, due=due_out(unit, sheet, due, at, begun)))
    order = (Standing.OVERDUE, Standing.SOON, Standing.LATER, Standing.UNKNOWN)
    shown = sorted(found, key=lambda due: (order.index(due.due.standing), due.due.by or date.min, due.unit.serial))
    return shown, len(units_found) > limit
