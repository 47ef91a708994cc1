"""Read a test trace from CSV text, telling every fault with its line."""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Iterable
from datetime import UTC, datetime

from ironkettle.core.errors import FieldFault, RuleError, fault
from ironkettle.core.pressure.model import MOST_SAMPLES, Sample
from ironkettle.core.quantities import Dimension, find_unit, to_base

_HEADER_HELP = ("t_s or time", "pressure_bar", "temperature_c (may be left out)")
_NUMBER = re.compile(r"^[+\-]?\d+([.,]\d+)?$")
_CLOCK = re.compile(r"^(?P<h>[01]?\d|2[0-3]):(?P<m>[0-5]\d)(?::(?P<s>[0-5]\d(?:[.,]\d+)?))?$")
_DAY_S = 86_400.0
MOST_FAULTS = 20


def read_trace(text: str, field: str = "csv") -> tuple[Sample, ...]:
    """Samples from CSV text with a header ``t_s, pressure_<unit>[, temperature_c]``, or ``time`` instead of ``t_s``.

    ``t_s`` are seconds; ``time`` is the clock (``14:03:05``) or a date with its time (``2026-11-26T14:03:05``), counted from
    the first row; a clock goes on past midnight. Separator comma, semicolon or tab; decimal commas only where the comma does not separate.
    Raises RuleError with up to 20 faults, each naming line and column: a wrong header, a hole, a
    number that is none, a time that does not run forward. Pressure is gauge. [s, MPa, °C]
    """
    lines = [line for line in text.replace("\ufeff", "").splitlines() if line.strip()]
    if not lines:
        raise fault(field, "the file is empty", *_HEADER_HELP)
    if len(lines) > MOST_SAMPLES + 1:
        raise fault(field, f"{len(lines)} lines are too many", f"up to {MOST_SAMPLES} samples")
    separator = next((mark for mark in (";", "\t", ",") if mark in lines[0]), ",")
    rows = list(csv.reader(io.StringIO("\n".join(lines)), delimiter=separator))
    time_at, pressure_at, temperature_at, scale = _columns([cell.strip() for cell in rows[0]], field)
    faults: list[FieldFault] = []
    samples: list[Sample] = []
    last: float | None = None
    clock = _Clock() if rows[0][time_at].strip().casefold() == "time" else None
    for number, row in enumerate(rows[1:], start=2):
        if len(row) != len(rows[0]):
            text_ = f"has {len(row)} cells, the header {len(rows[0])}"
            if separator == "," and len(row) > len(rows[0]):
                text_ += "; with decimal commas separate the columns by semicolons"
            faults.append(FieldFault(f"{field}.line {number}", text_, _HEADER_HELP))
            continue
        at = f"{field}.line {number}.{'time' if clock else 't_s'}"
        t = clock.read(row[time_at], at, faults) if clock else _cell(row[time_at], at, faults)
        pressure = _cell(row[pressure_at], f"{field}.line {number}.pressure", faults)
        temperature = (
            None
            if temperature_at is None
            else _cell(row[temperature_at], f"{field}.line {number}.temperature_c", faults)
        )
        if t is not None and last is not None and t <= last:
            text_ = f"time {t:g} s does not come after {last:g} s"
            faults.append(FieldFault(at, text_, ("times running forward",)))
        last = t if t is not None else last
        if t is None or pressure is None:
            continue
        samples.append(Sample(t, pressure * scale, temperature))
    if faults:
        raise RuleError(faults[:MOST_FAULTS])
    return tuple(samples)


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

    def __init__(self) -> None:
        self._first: float | None = None
        self._last = 0.0
        self._days = 0.0

    def read(self, text: str, field: str, faults: list[FieldFault]) -> float | None:
        moment = self._moment(text.strip(), field, faults)
        if moment is None:
            return None
        self._first = moment if self._first is None else self._first
        return round(moment - self._first, 6)

    def _moment(self, text: str, field: str, faults: list[FieldFault]) -> float | None:
        if match := _CLOCK.match(text):
            seconds = float((match["s"] or "0").replace(",", "."))
            at = int(match["h"]) * 3600 + int(match["m"]) * 60 + seconds
            # Past midnight it begins anew; half a day back is no slip of a clock.
            if at < self._last - _DAY_S / 2:
                self._days += _DAY_S
            self._last = at
            return at + self._days
        try:
            moment = datetime.fromisoformat(text.replace(",", "."))
            # Without a zone it is one clock all along, which never goes back for the summer.
            return (moment if moment.tzinfo else moment.replace(tzinfo=UTC)).timestamp()
        except (ValueError, OverflowError, OSError):
            faults.append(FieldFault(field, f"“{text[:30]}” is no time", ("14:03:05", "2026-11-26T14:03:05")))
            return None


def trace_csv(samples: Iterable[Sample]) -> str:
    """Samples as CSV that ``read_trace`` reads back: seconds, bar gauge, °C, any number of them. [s, MPa, °C]"""
    lines = ["t_s,pressure_bar,temperature_c"]
    for one in samples:
        # Without a temperature the column would be a hole: it is left out of the whole file then.
        warm = "" if one.temperature is None else f"{one.temperature:g}"
        lines.append(f"{one.t:.3f},{one.pressure * 10:.6g},{warm}")
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
