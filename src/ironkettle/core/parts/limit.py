"""Limits as a sheet writes them: ``at most 0.05 mm``, ``at least 12 mm``, ``1 mm to 4 mm``, ``28 mm +0/-0.052``."""

from __future__ import annotations

import re
from dataclasses import dataclass

from ironkettle.core.errors import RuleError, fault
from ironkettle.core.quantities import Dimension, read_number, read_quantity, read_toleranced

_AT_MOST = re.compile(r"^\s*(?:at most|up to|no more than|not above|≤|<=|<)\s*(?P<value>.+)$", re.IGNORECASE)
_AT_LEAST = re.compile(r"^\s*(?:at least|no less than|not below|from|≥|>=|>)\s*(?P<value>.+)$", re.IGNORECASE)
_BETWEEN = re.compile(r"^\s*(?:between\s+|from\s+)?(?P<low>.+?)\s+(?:to|and|…)\s+(?P<high>.+)$", re.IGNORECASE)
_FITS = ("at most 0.05 mm", "at least 12 mm", "1 mm to 4 mm", "28 mm +0/-0.052")


@dataclass(frozen=True, slots=True)
class Limit:
    """Between what a reading must lie, ends included; None where there is no end. In the dimension's base unit."""

    low: float | None
    high: float | None
    text: str

    def holds(self, value: float) -> bool:
        """Whether a value lies within. A rounding of a millionth of the limit is no fault."""
        slack = 1e-6 * max(abs(self.low or 0.0), abs(self.high or 0.0))
        return (self.low is None or value >= self.low - slack) and (self.high is None or value <= self.high + slack)


def read_limit(text: str, field: str, dimension: Dimension | None) -> Limit:
    """A limit from its text, in the base unit of the dimension; plain numbers where there is no dimension.

    Raises RuleError where it cannot be read, or its ends are the wrong way round.

    >>> read_limit("at most 0.05 mm", "limit", Dimension.LENGTH)
    Limit(low=None, high=0.05, text='at most 0.05 mm')
    >>> read_limit("1 to 4 mm", "limit", Dimension.LENGTH).low
    1.0
    """
    if match := _AT_MOST.match(text):
        return Limit(None, _value(match["value"], field, dimension), text)
    if match := _BETWEEN.match(text):
        low, high = _ends(match["low"], match["high"], field, dimension)
        if low > high:
            raise fault(field, f"{match['low']} is above {match['high']}", *_FITS)
        return Limit(low, high, text)
    if match := _AT_LEAST.match(text):
        return Limit(_value(match["value"], field, dimension), None, text)
    if dimension is None:
        value = _value(text, field, None)
        return Limit(value, value, text)
    _, toleranced = read_toleranced(text, dimension, field)
    return Limit(toleranced.low, toleranced.high, text)


def _ends(low: str, high: str, field: str, dimension: Dimension | None) -> tuple[float, float]:
    try:
        first = _value(low, field, dimension)
    except RuleError:
        # "1 to 4 mm": the unit of the second holds for the first.
        unit = re.sub(r"^[\s\d.,+\-−/½¼¾⅛⅜⅝⅞]*", "", high)
        first = _value(f"{low} {unit}", field, dimension)
    return first, _value(high, field, dimension)


def _value(text: str, field: str, dimension: Dimension | None) -> float:
    if dimension is None:
        return read_number(text, field)
    return read_quantity(text, dimension, field).value
