"""Read what a technician writes: a number and its unit, feet with inches, a fit behind a size."""

from __future__ import annotations

import re
from dataclasses import dataclass
from functools import lru_cache

from ironkettle.core.base.errors import fault
from ironkettle.core.base.quantities.notation import plain_notation
from ironkettle.core.base.quantities.number import NUMBER, read_number
from ironkettle.core.base.quantities.units import (
    BASE_UNIT,
    DROP_ML,
    Dimension,
    Unit,
    accepted_symbols,
    find_unit,
    to_base,
    with_drop,
)

LONGEST_TEXT = 60
# A full vacuum, with a little for a high barometer. [MPa gauge]
_LOWEST_GAUGE = -0.1085
_ABSOLUTE_ZERO_C = -273.15
# Less than this, and not nothing, is no figure of this trade: a tenth of a micrometre, a bubble a year. [base unit]
_LEAST = {
    Dimension.LENGTH: 1e-4, Dimension.PRESSURE: 1e-7, Dimension.TORQUE: 1e-4, Dimension.VOLUME: 1e-6,
    Dimension.FLOW: 1e-7, Dimension.TIME: 1e-3, Dimension.ANGLE: 1e-3, Dimension.SPEED: 1e-7, Dimension.FORCE: 1e-4,
    Dimension.AREA: 1e-6,
}  # fmt: skip

# A hyphen may stand between figure and unit, as in "1/2-in", with nothing round it.
_QUANTITY = re.compile(rf"(?P<number>{NUMBER})(?:\s*|-(?=[a-zA-Z]))(?P<unit>[^0-9\s\-].*?)?")
# Units of countries that set off thousands by a comma: in them 1,000 is a thousand.
_THOUSANDS = frozenset({"psi", "lbf·ft", "lbf·in", "ozf·in", "lbf", "US gal", "US gal/min", "°F"})
_GROUPED = re.compile(r"[+\-]?[1-9][0-9]{0,2}(?:,[0-9]{3})+(?:\.[0-9]+)?")
_FEET_AND_INCHES = re.compile(
    rf"(?P<feet>[0-9]+)\s*(?:'|ft\.?|feet|foot)\s*-?\s*(?P<inches>{NUMBER})\s*(?:\"|in\.?|inch|inches)", re.IGNORECASE
)


@dataclass(frozen=True, slots=True)
class Quantity:
    """A value in the base unit of its dimension, with the unit and text it came in."""

    value: float
    unit: Unit
    text: str


@lru_cache(maxsize=4096)
def read_quantity(text: str, dimension: Dimension, field: str, drop_ml: float = DROP_ML) -> Quantity:
    """A quantity of the given dimension from free text.

    Parameters
    ----------
    text : number and unit, at most 60 characters, e.g. ``1-5/16 in``, ``2' 3"``, ``28 inHg vacuum``.
    dimension : what the field measures.
    field : path of the field, for the message.
    drop_ml : the shop's size of a drop, for flows in drops per minute. [ml]

    Raises RuleError when the unit is missing, unknown or of another kind, and for what cannot be:
    a gauge pressure below a full vacuum, an absolute one below zero, a temperature below absolute zero,
    what is not zero and too small to be measured.
    Source: unit sizes by definition (international inch 25.4 mm, standard gravity 9.80665 m/s²).
    """
    accepts = accepted_symbols(dimension)
    if len(text) > LONGEST_TEXT:
        raise fault(field, f"is longer than {LONGEST_TEXT} characters", *accepts)
    plain, shown = plain_notation(text), text.strip()
    if not plain.isprintable():
        raise fault(field, f"{shown!a} contains a character that is not text", *accepts)
    both = _FEET_AND_INCHES.fullmatch(plain) if dimension is Dimension.LENGTH else None
    if both:
        return _feet_and_inches(both, field, shown)
    match = _QUANTITY.fullmatch(plain)
    if not match:
        raise fault(field, f"“{shown}” is not {_a(dimension)} with a unit", *accepts)
    if not match["unit"]:
        raise fault(field, f"“{shown}” has no unit; write for example {match['number']} {accepts[0]}", *accepts)
    unit = find_unit(match["unit"])
    if unit is None:
        raise fault(field, f"“{match['unit']}” is not a recognised unit", *accepts)
    if unit.dimension is not dimension:
        raise fault(field, f"“{shown}” is {_a(unit.dimension)}; {_a(dimension)} is wanted", *accepts)
    unit = with_drop(unit, drop_ml)
    number = match["number"]
    if unit.symbol.split()[0] in _THOUSANDS and _GROUPED.fullmatch(number.strip()):
        number = number.replace(",", "")
    value = to_base(read_number(number, field), unit)
    _check_possible(value, unit, field, shown)
    return Quantity(value, unit, shown)


def read_length(text: str, field: str, *, low: float = 0.0, high: float = 20_000.0) -> float:
    """A length in mm, ``low`` < value <= ``high`` [mm]. Raises RuleError outside. Source: units by definition."""
    return in_range(read_quantity(text, Dimension.LENGTH, field), field, low, high)


def read_gauge_pressure(text: str, field: str, *, low: float = 0.0, high: float = 1000.0) -> float:
    """A gauge pressure, ``low`` <= value <= ``high`` [MPa].

    Raises RuleError outside, and for an absolute one. Source: units by definition.
    """
    quantity = read_quantity(text, Dimension.PRESSURE, field)
    if quantity.unit.absolute:
        raise fault(field, f"“{text.strip()}” is absolute; enter a gauge pressure", "bar", "psi", "MPa")
    return in_range(quantity, field, low, high, closed=True)


def read_torque(text: str, field: str, *, high: float = 50_000.0) -> float:
    """A torque in N·m, 0 < value <= ``high`` [N·m]. Raises RuleError outside. Source: units by definition."""
    return in_range(read_quantity(text, Dimension.TORQUE, field), field, 0.0, high)


def read_temperature(text: str, field: str) -> float:
    """A temperature in °C, -200 <= value <= 500 [°C]. Raises RuleError outside. Source: units by definition."""
    return in_range(read_quantity(text, Dimension.TEMPERATURE, field), field, -200.0, 500.0, closed=True)


def read_speed(text: str, field: str) -> float:
    """A speed in m/s, 0 <= value <= 300 [m/s]. Raises RuleError outside. Source: units by definition."""
    return in_range(read_quantity(text, Dimension.SPEED, field), field, 0.0, 300.0, closed=True)


def read_volume(text: str, field: str, *, high: float = 10_000_000.0) -> float:
    """A volume in ml, 0 < value <= ``high`` [ml]. Raises RuleError outside. Source: units by definition."""
    return in_range(read_quantity(text, Dimension.VOLUME, field), field, 0.0, high)


def read_flow(text: str, field: str, *, high: float = 100_000_000.0, drop_ml: float = DROP_ML) -> float:
    """A flow, 0 < value <= ``high`` [ml/min]; ``drop_ml`` is the size of a drop [ml].

    Raises RuleError outside. Source: units by definition.
    """
    return in_range(read_quantity(text, Dimension.FLOW, field, drop_ml), field, 0.0, high)


def in_range(quantity: Quantity, field: str, low: float, high: float, *, closed: bool = False) -> float:
    """The value, ``low`` < value <= ``high``, with ``closed`` from ``low`` on. [base unit] Raises RuleError outside. Source: units by definition."""
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


def _feet_and_inches(match: re.Match[str], field: str, shown: str) -> Quantity:
    inches = read_number(match["inches"], field)
    if not 0 <= inches < 12:
        raise fault(field, f"“{shown}”: a foot has 12 inches", "2' 3\"", f"{int(match['feet']) * 12 + inches:g} in")
    unit = find_unit("in")
    assert unit is not None
    return Quantity(to_base(int(match["feet"]) * 12 + inches, unit), unit, shown)


def _check_possible(value: float, unit: Unit, field: str, shown: str) -> None:
    """Raises RuleError for what cannot be. [base unit]"""
    least = _LEAST.get(unit.dimension, 0.0)
    if 0 < abs(value) < least * (1 - 1e-9):
        text = f"“{shown}” is smaller than any {unit.dimension} measured here"
        raise fault(field, text, "0", f"from {least:g} {BASE_UNIT[unit.dimension]}")
    if unit.dimension is Dimension.TEMPERATURE and value < _ABSOLUTE_ZERO_C - 1e-9:
        raise fault(field, f"“{shown}” is below absolute zero, −273.15 °C", "°C", "°F")
    if unit.dimension is not Dimension.PRESSURE:
        return
    if unit.vacuum and value > 0:
        raise fault(field, f"“{shown}”: a vacuum is written without a minus", f"{shown.lstrip('-−')}")
    if value < (0.0 if unit.absolute else _LOWEST_GAUGE):
        lowest = "0 absolute" if unit.absolute else "−1.013 bar gauge"
        raise fault(field, f"“{shown}” is below a full vacuum, {lowest}", "-0.6 bar", "18 inHg vacuum")


def _a(dimension: Dimension) -> str:
    return f"{'an' if dimension[0] in 'aeiou' else 'a'} {dimension}"
