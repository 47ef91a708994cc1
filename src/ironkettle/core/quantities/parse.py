"""Read what a technician writes: fractions, decimals with point or comma, a unit, a tolerance."""

from __future__ import annotations

import re
from dataclasses import dataclass

from ironkettle.core.errors import fault
from ironkettle.core.quantities.units import (
    BASE_UNIT,
    Dimension,
    Unit,
    accepted_symbols,
    find_unit,
    scale_and_offset,
    to_base,
)

LONGEST_TEXT = 60
LARGEST_NUMBER = 1e9

_SIGNED = r"[+\-]?"
_MIXED = r"\d+[ \-]\d+/\d+"
_FRACTION = r"\d+/\d+"
_DECIMAL = r"\d*[.,]?\d+|\d+[.,]"
_NUMBER = rf"{_SIGNED}\s*(?:{_MIXED}|{_FRACTION}|{_DECIMAL})"
_QUANTITY = re.compile(rf"^\s*(?P<number>{_NUMBER})\s*(?P<unit>[^\d\s].*?)?\s*$")
_PLUS_MINUS = re.compile(rf"(?:±|\+/-|\+-)\s*(?P<both>{_DECIMAL})")
_TWO_SIDED = re.compile(
    rf"\+\s*(?P<plus>{_DECIMAL})\s*/\s*-\s*(?P<minus>{_DECIMAL})"
    rf"|-\s*(?P<minus2>{_DECIMAL})\s*/\s*\+\s*(?P<plus2>{_DECIMAL})"
)
_AMBIGUOUS_COMMA = re.compile(r"^[+\-]?[1-9]\d{0,2},\d{3}$")


@dataclass(frozen=True, slots=True)
class Quantity:
    """A value in the base unit of its dimension, with the unit and text it came in."""

    value: float
    unit: Unit
    text: str


@dataclass(frozen=True, slots=True)
class Toleranced:
    """A nominal value with its allowance below and above, all in the base unit, both >= 0."""

    nominal: float
    minus: float = 0.0
    plus: float = 0.0

    @property
    def low(self) -> float:
        return self.nominal - self.minus

    @property
    def high(self) -> float:
        return self.nominal + self.plus

    def scaled(self, factor: float) -> Toleranced:
        return Toleranced(self.nominal * factor, self.minus * factor, self.plus * factor)


def read_number(text: str, field: str) -> float:
    """The number written as ``24,9``, ``.984``, ``5/16``, ``1-5/16`` or ``1 5/16``. [-]

    Raises RuleError when it is no number, has a zero denominator, is larger than 1e9, or when a
    comma could be a thousands mark as well as a decimal one (``3,000``).
    """
    plain = text.strip().replace("−", "-")
    if _AMBIGUOUS_COMMA.match(plain):
        raise fault(
            field,
            f"“{text.strip()}” can be read two ways; write {plain.replace(',', '')} or {plain.replace(',', '.')}",
            plain.replace(",", ""),
            plain.replace(",", "."),
        )
    match = re.fullmatch(rf"(?P<sign>{_SIGNED})\s*(?:(?P<whole>\d+)[ \-])?(?P<over>\d+)/(?P<under>\d+)", plain)
    if match:
        if int(match["under"]) == 0:
            raise fault(field, f"“{text.strip()}” divides by zero", "5/16", "1-5/16")
        value = int(match["whole"] or 0) + int(match["over"]) / int(match["under"])
        value = -value if match["sign"] == "-" else value
    else:
        try:
            value = float(plain.replace(",", ".").replace(" ", ""))
        except ValueError:
            raise fault(field, f"“{text.strip()}” is not a number", "24.9", "24,9", "1-5/16") from None
    if not abs(value) <= LARGEST_NUMBER:
        raise fault(field, f"“{text.strip()[:20]}” is out of any range", "up to 1000000000")
    return value


def read_quantity(text: str, dimension: Dimension, field: str) -> Quantity:
    """A quantity of the given dimension from free text.

    Parameters
    ----------
    text : number and unit, at most 60 characters, e.g. ``1-5/16 in``.
    dimension : what the field measures.
    field : path of the field, for the message.

    Raises RuleError when the unit is missing, unknown or of another kind.
    Source: unit sizes by definition (international inch 25.4 mm, standard gravity 9.80665 m/s²).
    """
    accepts = accepted_symbols(dimension)
    if len(text) > LONGEST_TEXT:
        raise fault(field, f"is longer than {LONGEST_TEXT} characters", *accepts)
    match = _QUANTITY.match(text.replace("−", "-"))
    if not match:
        raise fault(field, f"“{text.strip()}” is not a {dimension} with a unit", *accepts)
    if not match["unit"]:
        raise fault(field, f"“{text.strip()}” has no unit; write for example {match['number']} {accepts[0]}", *accepts)
    unit = find_unit(match["unit"])
    if unit is None:
        raise fault(field, f"“{match['unit']}” is not a unit known here", *accepts)
    if unit.dimension is not dimension:
        raise fault(field, f"“{text.strip()}” is a {unit.dimension}; a {dimension} is wanted", *accepts)
    return Quantity(to_base(read_number(match["number"], field), unit), unit, text.strip())


def read_length(text: str, field: str, *, low: float = 0.0, high: float = 20_000.0) -> float:
    """A length in mm, ``low`` < value <= ``high`` [mm]. Raises RuleError outside."""
    return _in_range(read_quantity(text, Dimension.LENGTH, field), field, low, high)


def read_gauge_pressure(text: str, field: str, *, low: float = 0.0, high: float = 1000.0) -> float:
    """A gauge pressure in MPa, ``low`` <= value <= ``high`` [MPa]; an absolute one is refused."""
    quantity = read_quantity(text, Dimension.PRESSURE, field)
    if quantity.unit.absolute:
        raise fault(field, f"“{text.strip()}” is absolute; gauge pressure is wanted here", "bar", "psi", "MPa")
    return _in_range(quantity, field, low, high, closed=True)


def read_torque(text: str, field: str, *, high: float = 50_000.0) -> float:
    """A torque in N·m, 0 < value <= ``high`` [N·m]. Raises RuleError outside."""
    return _in_range(read_quantity(text, Dimension.TORQUE, field), field, 0.0, high)


def read_temperature(text: str, field: str) -> float:
    """A temperature in °C, -200 <= value <= 500 [°C]. Raises RuleError outside."""
    return _in_range(read_quantity(text, Dimension.TEMPERATURE, field), field, -200.0, 500.0, closed=True)


def read_volume(text: str, field: str, *, high: float = 10_000_000.0) -> float:
    """A volume in ml, 0 < value <= ``high`` [ml]. Raises RuleError outside."""
    return _in_range(read_quantity(text, Dimension.VOLUME, field), field, 0.0, high)


def read_flow(text: str, field: str, *, high: float = 100_000_000.0) -> float:
    """A flow in ml/min, 0 < value <= ``high`` [ml/min]. Raises RuleError outside."""
    return _in_range(read_quantity(text, Dimension.FLOW, field), field, 0.0, high)


def split_tolerance(text: str, field: str) -> tuple[str, float, float]:
    """The value without its tolerance, and the allowance below and above in the unit of the value.

    ``50 mm +0.03/-0`` gives ``50 mm``, 0 and 0.03; both are 0 where no tolerance is written.
    Raises RuleError when a tolerance is no number.
    """
    cleaned = text.replace("−", "-")
    minus = plus = 0.0
    span = _PLUS_MINUS.search(cleaned)
    if span:
        minus = plus = read_number(span["both"], field)
    else:
        span = _TWO_SIDED.search(cleaned)
        if span:
            plus = read_number(span["plus"] or span["plus2"], field)
            minus = read_number(span["minus"] or span["minus2"], field)
    if span is None:
        return cleaned, 0.0, 0.0
    return f"{cleaned[: span.start()]} {cleaned[span.end() :]}".strip(), minus, plus


def read_toleranced_length(text: str, field: str, *, low: float = 0.0, high: float = 20_000.0) -> Toleranced:
    """A length with tolerance in mm: ``50 mm +0.03/-0``, ``3.53 mm ±0.10``, ``0.984 in``.

    The tolerance is in the unit of the value. Raises RuleError when it is not narrower than the value.
    """
    value, minus, plus = split_tolerance(text, field)
    quantity = read_quantity(value, Dimension.LENGTH, field)
    nominal = _in_range(quantity, field, low, high)
    scale, _ = scale_and_offset(quantity.unit)
    if minus * scale >= nominal or plus * scale >= nominal:
        raise fault(field, f"the tolerance of “{text.strip()}” is as wide as the value", "50 mm ±0.05")
    return Toleranced(nominal, minus * scale, plus * scale)


def _in_range(quantity: Quantity, field: str, low: float, high: float, *, closed: bool = False) -> float:
    above = quantity.value >= low if closed else quantity.value > low
    if not above or quantity.value > high:
        base = BASE_UNIT[quantity.unit.dimension]
        word = "from" if closed else "above"
        raise fault(
            field,
            f"“{quantity.text}” is outside the range {word} {low:g} to {high:g} {base}",
            f"{word} {low:g} {base}",
            f"up to {high:g} {base}",
        )
    return quantity.value
