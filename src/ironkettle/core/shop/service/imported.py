"""Counter readings from another system: a table of unit, counter, value and day, all of it or none."""

from __future__ import annotations

import csv
from dataclasses import dataclass
from datetime import UTC, datetime
from io import StringIO

from ironkettle.core.base.errors import FieldFault, RuleError, fault
from ironkettle.core.base.text import plain_text
from ironkettle.core.shop.service.counters import Lower, read_count

COLUMNS = ("unit", "counter", "value", "date")
MOST_ROWS = 2000
_MOST_FAULTS = 20
_LOWER = {"": None, "new counter": Lower.NEW_COUNTER, "mistake": Lower.MISTAKE}


@dataclass(frozen=True, slots=True)
class ImportedRead:
    """One row: its line in the file, the unit as written (label or serial), what is counted, what it stands at, and when."""

    line: int
    unit: str
    counter: str
    value: float
    at: datetime
    lower: Lower | None


def read_counters(text: str, field: str = "text") -> tuple[ImportedRead, ...]:
    """Counter readings from CSV with the columns unit, counter, value, date, and optionally lower.

    Commas or semicolons part them, decimal points or commas are read; a date is ISO, with or without a time (UTC where it
    names no zone). Parameters: text : any, up to 2,000 rows. Raises RuleError with every line that cannot be read.
    Source: RFC 4180, ISO 8601.
    """
    lines = StringIO(text.lstrip("\ufeff"), newline=None)
    apart = ";" if ";" in lines.readline() else ","
    lines.seek(0)
    try:
        rows = list(csv.reader(lines, delimiter=apart))
    except csv.Error as error:
        raise fault(field, f"this is not a table: {error}", ";".join(COLUMNS)) from None
    header = [cell.strip().lower() for cell in rows[0]] if rows else []
    missing = [column for column in COLUMNS if column not in header]
    if missing:
        raise fault(field, f"the first line must name its columns; {', '.join(missing)} is missing", ";".join(COLUMNS))
    if len(rows) - 1 > MOST_ROWS:
        raise fault(field, f"{len(rows) - 1} rows are too many at once", f"up to {MOST_ROWS} rows")
    found, faults = [], []
    for line, row in enumerate(rows[1:], start=2):
        if not any(cell.strip() for cell in row):
            continue
        try:
            found.append(_row(line, dict(zip(header, (cell.strip() for cell in row), strict=False))))
        except ValueError as error:
            faults.append(FieldFault(f"line {line}", str(error)))
    if faults:
        raise RuleError(faults[:_MOST_FAULTS])
    if not found:
        raise fault(field, "there is no row in it", ";".join(COLUMNS))
    return tuple(found)


def _row(line: int, cells: dict[str, str]) -> ImportedRead:
    for name in COLUMNS:
        if not cells.get(name):
            raise ValueError(f"{name} is empty")
        try:
            plain_text(cells[name])
        except ValueError as error:
            raise ValueError(f"{name} {error}") from None
    try:
        value = read_count(cells["value"])
    except RuleError as error:
        raise ValueError(error.faults[0].message) from None
    try:
        at = datetime.fromisoformat(cells["date"])
    except ValueError:
        raise ValueError(f"“{cells['date'][:40]}” is not a date; write 2026-11-26 or 2026-11-26T14:30") from None
    lower = cells.get("lower", "").lower()
    if lower not in _LOWER:
        raise ValueError(f"“{lower[:40]}” does not say why it is lower; write new counter or mistake")
    moment = at if at.tzinfo else at.replace(tzinfo=UTC)
    return ImportedRead(line, cells["unit"][:120], cells["counter"][:120], value, moment, _LOWER[lower])
