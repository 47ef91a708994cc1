"""Read a test trace from CSV text, telling every fault with its line."""

from __future__ import annotations

import csv
import re
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import UTC, datetime

from ironkettle.core.base.errors import FieldFault, RuleError, fault
from ironkettle.core.base.quantities import Dimension, find_unit, to_base
from ironkettle.core.machine.pressure.model import MOST_SAMPLES, Sample

_HEADER_HELP = ("t_s or time", "pressure_bar", "temperature_c (may be left out)")
_NUMBER = re.compile(r"^[+\-]?\d+([.,]\d+)?$")
_CLOCK = re.compile(r"^(?P<h>[01]?\d|2[0-3]):(?P<m>[0-5]\d)(?::(?P<s>[0-5]\d(?:[.,]\d+)?))?$")
_DAY_S = 86_400.0
MOST_FAULTS = 20


@dataclass(frozen=True, slots=True)
class TraceState:
    """Where the reading of a long file stands between two parts: its header, lines read, the last time, its clock. [s]"""

    header: str
    lines: int
    last: float | None = None
    first_moment: float | None = None
    last_moment: float = 0.0
    days: float = 0.0


def read_trace(text: str, field: str = "csv") -> tuple[Sample, ...]:
    """Samples from CSV text with a header ``t_s, pressure_<unit>[, temperature_c]``, or ``time`` instead of ``t_s``.

    ``t_s`` are seconds; ``time`` is the clock (``14:03:05``) or a date with its time (``2026-11-26T14:03:05``), counted from
    the first row; a clock goes on past midnight. Separator comma, semicolon or tab; decimal commas only where the comma does not separate.
    Raises RuleError with up to 20 faults, each naming line and column: a wrong header, a hole, a
    number that is none, a time that does not run forward. Pressure is gauge. [s, MPa, °C]
    """
    return read_trace_part(text, None, field)[0]


def read_trace_part(text: str, state: TraceState | None, field: str = "csv") -> tuple[tuple[Sample, ...], TraceState]:
    """As ``read_trace``, for a file in parts of whole lines: the first with the header, the others with the state before.

    Raises RuleError as ``read_trace`` does. [s, MPa, °C]
    """
    lines = [line for line in text.replace("\ufeff", "").splitlines() if line.strip()]
    if not lines and state is None:
        raise fault(field, "the file is empty", *_HEADER_HELP)
    if len(lines) > MOST_SAMPLES + 1:
        raise fault(field, f"{len(lines)} lines are too many at once", f"up to {MOST_SAMPLES} samples")
    header, done = (lines[0], 1) if state is None else (state.header, state.lines)
    separator = next((mark for mark in (";", "\t", ",") if mark in header), ",")
    names, *_ = _rows_in([header], separator, field) or [[]]
    if not any(name.strip() for name in names) or header.splitlines() != [header]:
        raise fault("state.header", "is not the header of a file", *_HEADER_HELP)
    rows = _rows_in(lines[1:] if state is None else lines, separator, field)
    reader = _Rows(names, field, separator, state)
    samples = [
        sample for number, row in enumerate(rows, start=done + 1) if (sample := reader.read(number, row)) is not None
    ]
    if reader.faults:
        raise RuleError(reader.faults[:MOST_FAULTS])
    clock = reader.clock
    moments = (None, 0.0, 0.0) if clock is None else (clock.first, clock.last, clock.days)
    return tuple(samples), TraceState(header, done + len(rows), reader.last, *moments)


def _rows_in(lines: list[str], separator: str, field: str) -> list[list[str]]:
    try:
        return list(csv.reader(lines, delimiter=separator))
    except csv.Error as error:
        raise fault(field, f"cannot be read as CSV: {error}", *_HEADER_HELP) from None


class _Rows:
    """Reads row after row, and keeps what is wrong with them."""

    def __init__(self, names: list[str], field: str, separator: str, state: TraceState | None) -> None:
        self._names, self._field, self._separator = names, field, separator
        self._time, self._pressure, self._temperature, self._scale = _columns([name.strip() for name in names], field)
        self.faults: list[FieldFault] = []
        self.last = None if state is None else state.last
        self.clock = _Clock(state) if names[self._time].strip().casefold() == "time" else None

    def read(self, number: int, row: list[str]) -> Sample | None:
        line = f"{self._field}.line {number}"
        if len(row) != len(self._names):
            text = f"has {len(row)} cells, the header {len(self._names)}"
            if self._separator == "," and len(row) > len(self._names):
                text += "; with decimal commas separate the columns by semicolons"
            self.faults.append(FieldFault(line, text, _HEADER_HELP))
            return None
        at = f"{line}.{'time' if self.clock else 't_s'}"
        written = row[self._time]
        t = self.clock.read(written, at, self.faults) if self.clock else _cell(written, at, self.faults)
        pressure = _cell(row[self._pressure], f"{line}.pressure", self.faults)
        warm = self._temperature
        temperature = None if warm is None else _cell(row[warm], f"{line}.temperature_c", self.faults)
        if t is not None and self.last is not None and t <= self.last:
            text = f"time {t:g} s does not come after {self.last:g} s"
            self.faults.append(FieldFault(at, text, ("times running forward",)))
        self.last = t if t is not None else self.last
        return None if t is None or pressure is None else Sample(t, pressure * self._scale, temperature)


def _columns(header: list[str], field: str) -> tuple[int, int, int | None, float]:
    names = [name.casefold() for name in header]
    pressures = [i for i, name in enumerate(names) if name.startswith("pressure_")]
    times = [i for i, name in enumerate(names) if name in {"t_s", "time"}]
    if len(times) != 1 or len(pressures) != 1:
        raise fault(
            f"{field}.line 1",
            f"header “{', '.join(header)[:80]}” lacks one t_s or time, or one pressure_<unit>",
            *_HEADER_HELP,
        )
    unit = find_unit(names[pressures[0]].removeprefix("pressure_"))
    if unit is None or unit.dimension is not Dimension.PRESSURE or unit.absolute:
        raise fault(
            f"{field}.line 1",
            f"“{header[pressures[0]]}” names no gauge pressure unit",
            "pressure_bar",
            "pressure_psi",
            "pressure_mpa",
        )
    temperature = names.index("temperature_c") if "temperature_c" in names else None
    return times[0], pressures[0], temperature, to_base(1.0, unit)


class _Clock:
    """Times of day, or with their date, as seconds from the first."""

    def __init__(self, state: TraceState | None) -> None:
        self.first = None if state is None else state.first_moment
        self.last = 0.0 if state is None else state.last_moment
        self.days = 0.0 if state is None else state.days

    def read(self, text: str, field: str, faults: list[FieldFault]) -> float | None:
        moment = self._moment(text.strip(), field, faults)
        if moment is None:
            return None
        self.first = moment if self.first is None else self.first
        return round(moment - self.first, 6)

    def _moment(self, text: str, field: str, faults: list[FieldFault]) -> float | None:
        if match := _CLOCK.match(text):
            seconds = float((match["s"] or "0").replace(",", "."))
            at = int(match["h"]) * 3600 + int(match["m"]) * 60 + seconds
            # Past midnight it begins anew; half a day back is no slip of a clock.
            if at < self.last - _DAY_S / 2:
                self.days += _DAY_S
            self.last = at
            return at + self.days
        try:
            moment = datetime.fromisoformat(text.replace(",", "."))
            # Without a zone it is one clock all along, which never goes back for the summer.
            return (moment if moment.tzinfo else moment.replace(tzinfo=UTC)).timestamp()
        except (ValueError, OverflowError, OSError):
            faults.append(FieldFault(field, f"“{text[:30]}” is not a time", ("14:03:05", "2026-11-26T14:03:05")))
            return None


def trace_csv(samples: Iterable[Sample]) -> str:
    """Samples as CSV that ``read_trace`` reads back: seconds, bar gauge, °C, any number of them. [s, MPa, °C]"""
    lines = ["t_s,pressure_bar,temperature_c"]
    for sample in samples:
        # Without a temperature the column would be a hole: it is left out of the whole file then.
        warm = "" if sample.temperature is None else f"{sample.temperature:g}"
        lines.append(f"{sample.t:.3f},{sample.pressure * 10:.6g},{warm}")
    if any(line.endswith(",") for line in lines[1:]):
        lines = [line.rpartition(",")[0] for line in lines]
    return "\n".join(lines) + "\n"


def _cell(text: str, field: str, faults: list[FieldFault]) -> float | None:
    plain = text.strip()
    if not plain:
        faults.append(FieldFault(field, "is empty", ("a number",)))
        return None
    if not _NUMBER.match(plain):
        faults.append(FieldFault(field, f"“{plain[:20]}” is not a number", ("210.4",)))
        return None
    return float(plain.replace(",", "."))
