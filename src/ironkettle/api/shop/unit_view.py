"""How units, what is due on them and their history are told."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from datetime import date, datetime
from uuid import UUID

from pydantic import BaseModel
from sqlalchemy.orm import Session

from ironkettle.core.base.dates import shown_day
from ironkettle.core.jobs import Case
from ironkettle.core.jobs.history import figures_of, fitted_words
from ironkettle.core.sheets.document import Sheet
from ironkettle.core.sheets.document.quick_service import conditions_of, counters_of
from ironkettle.core.shop.service import STANDING_WORD, CounterRead, Lower, Standing, rate_of, totals
from ironkettle.store.jobs.rows import JobRow
from ironkettle.store.shop.people import names_of
from ironkettle.store.shop.units import (
    CounterRow,
    Gone,
    IntervalDue,
    UnitRow,
    counter_rows,
    dues_of,
    label_text,
    open_quick_services,
    readings_of,
    retirement_of,
)

_SOURCE_WORD = {"intake": "at the intake", "service": "at a service", "typed": "typed", "import": "from a file"}
_NOTHING_DUE = {
    None: "Its sheet names no interval.",
    Gone.SCRAPPED: "Scrapped: nothing is due.",
    Gone.NAMED_BY_MISTAKE: "An intake gave this serial by mistake and was corrected: there is no such unit.",
}
WHAT_WORD = {"reseal": "Reseal", "look": "Look over", "oil": "Oil", "replace": "Replace"}


class UnitSummary(BaseModel):
    """``label``: what stands on it, typed or scanned."""

    id: UUID
    label: str
    name: str
    serial: str
    customer: str
    sheet_key: str
    sheet_name: str


class ReachOut(BaseModel):
    standing: Standing
    words: str


class DueOut(BaseModel):
    """``of``: which part, or the unit; ``by``: the day it comes, as far as it can be told; ``quick_service``: it is quick service.

    ``begun``: the number of the quick service that is begun and not ended.
    """

    interval: str
    title: str
    of: str
    standing: Standing
    says: str
    by: date | None
    done_at: datetime | None
    reaches: list[ReachOut]
    quick_service: bool
    begun: int | None


class UnitDueOut(BaseModel):
    unit: UnitSummary
    due: DueOut


class CounterReadingOut(BaseModel):
    id: UUID
    counter: str
    value: float
    at: datetime
    words: str


class CounterOut(BaseModel):
    """A counter of a unit: what it stands at, since when, and what it runs a day as far as that can be told."""

    counter: str
    value: float | None
    at: datetime | None
    a_day: float | None


class ConditionOut(BaseModel):
    """Something that makes it due when it is seen."""

    condition: str
    says: str


class PastJobOut(BaseModel):
    """A job of the unit: what failed in it, what was fitted. ``quick_service``: the quick service it was, in words."""

    number: int
    opened_at: datetime
    released: bool
    ended: str
    quick_service: str
    complaint: str
    causes: list[str]
    fitted: list[str]


class PointTold(BaseModel):
    """What a job found and what it left, in the unit of its series, with their words."""

    number: int
    day: date
    as_found: float | None
    found_words: str | None
    as_left: float | None
    left_words: str | None


class SeriesOut(BaseModel):
    key: str
    name: str
    unit: str
    points: list[PointTold]


class UnitView(BaseModel):
    """``nothing_due``: why nothing is, where nothing is."""

    unit: UnitSummary
    first_at: datetime
    due: list[DueOut]
    nothing_due: str
    counters: list[CounterOut]
    conditions: list[ConditionOut]
    readings: list[CounterReadingOut]
    jobs: list[PastJobOut]
    series: list[SeriesOut]


def summary_of(session: Session, unit: UnitRow, sheet: Sheet | None) -> UnitSummary:
    return UnitSummary(
        id=unit.id,
        label=label_text(session, unit),
        name=unit.name,
        serial=unit.serial,
        customer=unit.customer,
        sheet_key=unit.sheet_key,
        sheet_name=sheet.name if sheet else unit.sheet_key,
    )


def due_out(
    unit: UnitRow, sheet: Sheet, due: IntervalDue, now: datetime, begun: Mapping[tuple[UUID, str], int]
) -> DueOut:
    """How one interval stands; ``begun``: the numbers of open service jobs, by unit and interval."""
    interval = due.interval
    parts = {part.key: part.name for part in sheet.parts}
    of = "the unit" if interval.of == "unit" else parts.get(interval.of, interval.of)
    return DueOut(
        interval=interval.name,
        title=WHAT_WORD[interval.what] + ("" if interval.of == "unit" else f": {of.lower()}"),
        of=of,
        standing=due.due.standing,
        says=_standing_words(due, now.date()),
        by=due.due.by,
        done_at=None if due.past.first_known else due.past.at,
        reaches=[ReachOut(standing=reach.standing, words=reach.words) for reach in due.due.reaches],
        quick_service=bool(interval.steps),
        begun=begun.get((unit.id, interval.name)) if interval.steps else None,
    )


def _standing_words(due: IntervalDue, today: date) -> str:
    """How it stands, with its day: the latest one where a counter that nobody read may come before it."""
    word, by = STANDING_WORD[due.due.standing], due.due.by
    if by is None:
        return word
    if due.due.standing is Standing.SOON and by < today:
        return f"at the present rate overdue since {shown_day(by)}"
    return (
        f"{word}; at the latest {shown_day(by)}" if due.due.standing is Standing.UNKNOWN else f"{word}, {shown_day(by)}"
    )


def unit_view(
    session: Session, unit: UnitRow, sheet: Sheet, jobs: Sequence[tuple[JobRow, Case | None]], now: datetime
) -> UnitView:
    """Everything a screen needs of a unit; ``jobs``: its jobs with how each stands, the newest first."""
    why = retirement_of(session, unit)
    standing = [] if why else dues_of(session, unit, sheet, now)
    begun = open_quick_services(session, [unit.id])
    dues = [due_out(unit, sheet, due, now, begun) for due in standing]
    names = names_of(session)
    read = readings_of(session, unit.id)
    conditions = conditions_of(sheet)
    return UnitView(
        unit=summary_of(session, unit, sheet),
        first_at=unit.first_at,
        due=dues,
        nothing_due="" if dues else _NOTHING_DUE[why],
        counters=[_counter(key, read.get(key, ()), now) for key in counters_of(sheet)],
        conditions=[ConditionOut(condition=condition, says=_seen(condition)) for condition in conditions],
        readings=[_reading(row, names.get(row.who, row.who), conditions) for row in counter_rows(session, unit.id, 30)],
        jobs=[_past(sheet, job, case) for job, case in jobs],
        series=_series(jobs),
    )


def _counter(key: str, read: Sequence[CounterRead], now: datetime) -> CounterOut:
    found = totals(read)
    last = found[-1] if found else None
    rate = rate_of(found, now)
    return CounterOut(
        counter=key,
        value=None if last is None else last.shown,
        at=None if last is None else last.at,
        a_day=None if rate is None else round(rate, 2),
    )


def _reading(row: CounterRow, who: str, conditions: Sequence[str]) -> CounterReadingOut:
    read = row.counter if row.counter in conditions else f"{row.value:,.10g} {row.counter}"
    why = {None: "", Lower.NEW_COUNTER: "; a new counter", Lower.MISTAKE: "; the earlier reading was a mistake"}
    lower = None if row.lower is None else Lower(row.lower)
    note = f"; {row.note}" if row.note else ""
    words = f"{shown_day(row.at)}: {read}, {who}, {_SOURCE_WORD.get(row.source, row.source)}{why[lower]}{note}"
    return CounterReadingOut(id=row.id, counter=row.counter, value=row.value, at=row.at, words=words)


def _seen(condition: str) -> str:
    """A condition as it is told when it is there: without its when."""
    return condition[len("when ") :] if condition.lower().startswith("when ") else condition


def _past(sheet: Sheet, job: JobRow, case: Case | None) -> PastJobOut:
    service_words = {
        interval.name: f"{WHAT_WORD[interval.what].lower()}, every {' or '.join(interval.every)}"
        for interval in sheet.intervals
    }
    return PastJobOut(
        number=job.number,
        opened_at=job.opened_at,
        released=job.released,
        ended=job.ended,
        quick_service=service_words.get(job.quick_service, job.quick_service),
        complaint=job.complaint,
        causes=[f"{cause['name']}: {cause['cause']}" for cause in job.causes],
        fitted=[] if case is None else list(fitted_words(case)),
    )


def _series(jobs: Sequence[tuple[JobRow, Case | None]]) -> list[SeriesOut]:
    """The figures that two jobs at least tell, or one as found and as left, in order of time."""
    names: dict[str, str] = {}
    units: dict[str, str] = {}
    points: dict[str, dict[int, PointTold]] = {}
    for job, case in reversed(jobs):
        for figure in figures_of(case) if case is not None else ():
            names.setdefault(figure.key, figure.name)
            value, unit = figure.drawn
            units.setdefault(figure.key, unit)
            at = points.setdefault(figure.key, {})
            point = at.setdefault(
                job.number,
                PointTold(
                    number=job.number, day=job.opened_at.date(), as_found=None, found_words=None, as_left=None,
                    left_words=None,
                ),
            )  # fmt: skip
            if figure.when == "as_found":
                point.as_found, point.found_words = value, figure.shown
            else:
                point.as_left, point.left_words = value, figure.shown
    return [
        SeriesOut(key=key, name=names[key], unit=units[key], points=list(at.values()))
        for key, at in points.items()
        if sum((figure.as_found is not None) + (figure.as_left is not None) for figure in at.values()) > 1
    ]
