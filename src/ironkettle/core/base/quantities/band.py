"""What a figure may be: a value with its tolerance, a range, a most or a least, as a technician writes it. The one reader
for sheets, desks, settings and tests."""

from __future__ import annotations

import re
from dataclasses import dataclass

from ironkettle.core.base.errors import RuleError, fault
from ironkettle.core.base.quantities.fits import fit_limits
from ironkettle.core.base.quantities.notation import plain_notation
from ironkettle.core.base.quantities.number import DECIMAL, read_number
from ironkettle.core.base.quantities.parse import LONGEST_TEXT, Quantity, read_quantity
from ironkettle.core.base.quantities.units import Dimension, Unit, find_unit, scale_and_offset

_UNIT = r"[^\s0-9+\-±/][^+\-±]*?"
_SIGNED = rf"[+\-]\s*(?:{DECIMAL})"
_BOTH = re.compile(rf"(?P<value>.*?)\s*(?:±|\+\s*/\s*-|\+-)\s*(?P<both>{DECIMAL})\s*(?P<unit>{_UNIT})?")
# Two limits: each with its sign, a nought may stand without; a stroke or a gap between them, each with its unit or not.
_TWO = re.compile(
    rf"(?P<value>.*?)\s*(?P<one>{_SIGNED})\s*(?P<unit_one>[^\s0-9+\-±/][^+\-±/]*?)?\s*[/ ]\s*"
    rf"(?P<other>{_SIGNED}|0(?:[.,]0+)?)\s*(?P<unit>{_UNIT})?"
)
_ONE = re.compile(
    rf"(?P<value>.*?)\s*(?P<one>(?<=[^\d\s/])\s*-\s*(?:{DECIMAL})|\+\s*(?:{DECIMAL}))\s*(?P<unit>{_UNIT})?"
)
_FIT = re.compile(rf"(?P<size>{DECIMAL})\s*(?:mm\s*)?(?P<letter>[A-Za-z]{{1,2}})\s*(?P<grade>[0-9]{{1,2}})")
_AT_MOST = re.compile(r"(?:at most|max\.?|maximum|up to|no more than|not above|≤|<=|<)\s*(?P<value>.+)", re.IGNORECASE)
_AT_LEAST = re.compile(r"(?:at least|min\.?|minimum|no less than|not below|≥|>=|>)\s*(?P<value>.+)", re.IGNORECASE)
_RANGE = re.compile(
    r"(?:between\s+|from\s+)?(?P<low>.*?\d.*?)\s*(?:\.\.\.?|(?<=\s)(?:to|and)(?=\s))\s*(?P<high>[+\-]?[\d.,].*)",
    re.IGNORECASE,
)
_FROM = re.compile(r"from\s+(?P<value>.+)", re.IGNORECASE)
_TAIL = re.compile(r"^[+\-]?[\s\d.,/]*")


@dataclass(frozen=True, slots=True)
class Band:
    """Between what a figure must lie, ends included; None where there is no end. ``nominal``: the value a tolerance stands
    behind; None for a range, a most or a least. In the base unit, or plain numbers with ``unit`` None."""

    low: float | None
    high: float | None
    nominal: float | None
    unit: Unit | None


def read_band(text: str, dimension: Dimension | None, field: str) -> Band:
    """A figure with what it may be: ``280 bar +10/-0``, ``±10``, ``280…290 bar``, ``280 to 290 bar``, ``at least 280 bar``,
    ``max 290 bar``, ``50 H8``, or a value alone.

    A tolerance without a unit is in that of the value. Parameters: dimension : None for plain numbers [-].
    Raises RuleError for what cannot be read, a range upside down, and a tolerance with one sign only, which can be read two ways.
    Source: ISO 286-1 for fits.
    """
    plain = plain_notation(text)
    if match := _AT_MOST.fullmatch(plain):
        value, unit = _value(match["value"], dimension, field)
        return Band(None, value, None, unit)
    if match := _AT_LEAST.fullmatch(plain):
        value, unit = _value(match["value"], dimension, field)
        return Band(value, None, None, unit)
    if match := _RANGE.fullmatch(plain):
        return _range(match, dimension, field)
    if match := _FROM.fullmatch(plain):
        value, unit = _value(match["value"], dimension, field)
        return Band(value, None, None, unit)
    fit = _FIT.fullmatch(plain) if dimension is Dimension.LENGTH and len(text) <= LONGEST_TEXT else None
    if fit and not _is_length(fit["letter"]):
        size = read_number(fit["size"], field)
        lower, upper = fit_limits(size, fit["letter"], int(fit["grade"]), field)
        return Band(size + lower, size + upper, size, find_unit("mm"))
    return _toleranced(plain, dimension, field)


def read_tolerance(text: str, like: Quantity, field: str) -> tuple[float, float]:
    """A tolerance that stands apart from its value: ``±10 bar``, ``5 bar`` (either way), ``+10/-0 bar``, ``-0/+10``.

    Gives what is allowed below and above, each 0 or more [base unit]; without a unit it is in that of the value.
    Raises RuleError for one with one sign only, and for nothing at all. Source: common notation of drawings.
    """
    plain = plain_notation(text)
    for pattern in (_BOTH, _TWO):
        match = pattern.fullmatch(plain)
        if match and not match["value"]:
            low, high = _ends(match, field, like.unit, like.unit.dimension)
            break
    else:
        if plain[:1] in "+-":
            raise _two_ways(text, plain, plain[0], plain[1:].strip(), field)
        amount = _amount(plain, like.unit.dimension, field)
        low, high = -amount, amount
    if high < low or (low == high == 0):
        raise fault(field, f"“{text.strip()}” allows nothing; a tolerance must be above zero", f"±5 {like.unit.symbol}")
    return -low, high


def _amount(text: str, dimension: Dimension, field: str) -> float:
    """A difference in a unit: what a unit adds, as °C does, falls out. [base unit]"""
    found = read_quantity(text, dimension, field)
    if found.unit.absolute:
        raise fault(field, "a tolerance is an amount, not an absolute pressure", "5 bar")
    scale, offset = scale_and_offset(found.unit)
    return found.value - offset if scale else found.value


def _range(match: re.Match[str], dimension: Dimension | None, field: str) -> Band:
    high, unit = _value(match["high"], dimension, field)
    try:
        low, _ = _value(match["low"], dimension, field)
    except RuleError:
        # "1 to 4 mm": the unit of the second holds for the first.
        low, _ = _value(f"{match['low']} {_TAIL.sub('', match['high'])}", dimension, field)
    if low > high:
        raise fault(field, f"{match['low']} is above {match['high']}", f"{match['high']} to {match['low']}")
    return Band(low, high, None, unit)


def _toleranced(plain: str, dimension: Dimension | None, field: str) -> Band:
    for pattern in (_BOTH, _TWO):
        match = pattern.fullmatch(plain)
        if match and match["value"]:
            value, unit = _value(_with_unit(match["value"], match["unit"]), dimension, field)
            low, high = _ends(match, field, unit, dimension)
            return Band(value + low, value + high, value, unit)
    single = _ONE.fullmatch(plain)
    if single and single["value"] and any(char.isdigit() for char in single["value"]):
        raise _two_ways(
            plain, f"{single['value'].strip()} ", single["one"].strip()[0], single["one"].strip()[1:].strip(), field
        )
    value, unit = _value(plain, dimension, field)
    return Band(value, value, value, unit)


def _two_ways(text: str, value: str, sign: str, amount: str, field: str) -> RuleError:
    """A tolerance with one sign: either way, or to one side?"""
    before = value if value.endswith(" ") else ""
    ways = (f"{before}±{amount}", f"{before}{'+' + amount + '/-0' if sign == '+' else '+0/-' + amount}")
    return fault(field, f"“{text.strip()}” can be read two ways; write {ways[0]} or {ways[1]}", *ways)


def _ends(match: re.Match[str], field: str, unit: Unit | None, dimension: Dimension | None) -> tuple[float, float]:
    """What is allowed below and above the value, the lower first. [base unit]"""
    groups = match.groupdict()
    if groups.get("both") is not None:
        width = _in_base(groups["both"], groups["unit"], unit, dimension, field)
        return -width, width
    single = _in_base(groups["one"], groups["unit_one"], unit, dimension, field)
    other = _in_base(groups["other"], groups["unit"], unit, dimension, field)
    low, high = sorted((single, other))
    return low, high


def _in_base(number: str, symbol: str | None, unit: Unit | None, dimension: Dimension | None, field: str) -> float:
    own = find_unit(symbol.strip()) if symbol and symbol.strip() else unit
    if own is None and dimension is not None:
        raise fault(field, f"“{(symbol or '').strip()}” is not a recognised unit", "mm", "bar")
    if own is not None and dimension is not None and own.dimension is not dimension:
        raise fault(field, f"“{own.symbol}” is not a unit of {dimension}")
    scale = 1.0 if own is None else scale_and_offset(own)[0]
    return scale * read_number(number, field)


def _with_unit(value: str, unit: str | None) -> str:
    """The value with the unit that stands behind its tolerance, where it has none of its own."""
    value = value.strip()
    return f"{value} {unit.strip()}" if unit and value[-1:].isdigit() else value


def _value(text: str, dimension: Dimension | None, field: str) -> tuple[float, Unit | None]:
    if dimension is None:
        return read_number(text, field), None
    found = read_quantity(text.strip(), dimension, field)
    return found.value, found.unit


def _is_length(symbol: str) -> bool:
    unit = find_unit(symbol)
    return unit is not None and unit.dimension is Dimension.LENGTH
