"""Read a test trace from CSV text, telling every fault with its line."""

from __future__ import annotations

import csv
import io
import re

from ironkettle.core.errors import FieldFault, RuleError, fault
from ironkettle.core.pressure.model import MOST_SAMPLES, Sample
from ironkettle.core.quantities import Dimension, find_unit, to_base

_HEADER_HELP = ("t_s", "pressure_bar", "temperature_c (may be left out)")
_NUMBER = re.compile(r"^[+\-]?\d+([.,]\d+)?$")
MOST_FAULTS = 20


def read_trace(text: str, field: str = "csv") -> tuple[Sample, ...]:
    """Samples from CSV text with a header ``t_s, pressure_<unit>[, temperature_c]``.

    Separator comma, semicolon or tab; decimal commas only where the comma does not separate.
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
    for number, row in enumerate(rows[1:], start=2):
        if len(row) != len(rows[0]):
            text_ = f"has {len(row)} cells, the header {len(rows[0])}"
            if separator == "," and len(row) > len(rows[0]):
                text_ += "; with decimal commas separate the columns by semicolons"
            faults.append(FieldFault(f"{field}.line {number}", text_, _HEADER_HELP))
            continue
        t = _cell(row[time_at], f"{field}.line {number}.t_s", faults)
        pressure = _cell(row[pressure_at], f"{field}.line {number}.pressure", faults)
        temperature = (
            None
            if temperature_at is None
            else _cell(row[temperature_at], f"{field}.line {number}.temperature_c", faults)
        )
        if t is not None and last is not None and t <= last:
            text_ = f"time {t:g} s does not come after {last:g} s"
            faults.append(FieldFault(f"{field}.line {number}.t_s", text_, ("times running forward",)))
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
    if "t_s" not in names or len(pressures) != 1:
        raise fault(
            f"{field}.line 1", f"header “{', '.join(header)[:80]}” lacks t_s or one pressure_<unit>", *_HEADER_HELP
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
    return names.index("t_s"), pressures[0], temperature, to_base(1.0, unit)


def _cell(text: str, field: str, faults: list[FieldFault]) -> float | None:
    plain = text.strip()
    if not plain:
        faults.append(FieldFault(field, "is empty", ("a number",)))
        return None
    if not _NUMBER.match(plain):
        faults.append(FieldFault(field, f"“{plain[:20]}” is not a number", ("210.4",)))
        return None
    return float(plain.replace(",", "."))
