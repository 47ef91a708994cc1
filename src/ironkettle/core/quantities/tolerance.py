"""A length with its tolerance: written out, or as a fit of ISO 286 behind the size."""

from __future__ import annotations

import re
from dataclasses import dataclass

from ironkettle.core.errors import fault
from ironkettle.core.quantities.fits import fit_limits
from ironkettle.core.quantities.notation import plain_notation
from ironkettle.core.quantities.number import DECIMAL, read_number
from ironkettle.core.quantities.parse import LONGEST_TEXT, Quantity, in_range, read_quantity
from ironkettle.core.quantities.units import Dimension, find_unit, scale_and_offset

_UNITS = r"(?:\s*(?:mm|in|\"|µm|thou))?"
_PLUS_MINUS = re.compile(rf"(?:±|\+\s*/\s*-|\+-)\s*(?P<both>{DECIMAL})")
# Two limits: each with its sign, a zero may stand without; a stroke or a gap between them.
_LIMIT = rf"(?:[+\-]\s*(?:{DECIMAL})|0(?:[.,]0+)?)"
_TWO_LIMITS = re.compile(rf"(?P<one>[+\-]\s*(?:{DECIMAL})){_UNITS}\s*[/ ]\s*(?P<other>{_LIMIT})(?![0-9/.,])")
_FIT = re.compile(rf"(?P<size>{DECIMAL})\s*(?:mm\s*)?(?P<letter>[A-Za-z]{{1,2}})\s*(?P<grade>[0-9]{{1,2}})")


@dataclass(frozen=True, slots=True)
class Toleranced:
    """A nominal value with its allowance below and above, all in the base unit.

    ``-minus <= plus``: both limits may lie on one side of the nominal (``+0.03/+0.01``).
    """

    nominal: float
    minus: float = 0.0
    plus: float = 0.0

    @property
    def low(self) -> float:
        return self.nominal - self.minus

    @property
    def high(self) -> float:
        return self.nominal + self.plus

    @property
    def middle(self) -> float:
        return (self.low + self.high) / 2

    def scaled(self, factor: float) -> Toleranced:
        return Toleranced(self.nominal * factor, self.minus * factor, self.plus * factor)


def read_toleranced(text: str, dimension: Dimension, field: str) -> tuple[Quantity, Toleranced]:
    """A value with tolerance: ``50 mm +0.03/-0``, ``+.002 -.000``, ``+0.03/+0.01``, ``3.53 mm ±0.10``, ``50 H8``.

    The tolerance is in the unit of the value; a fit letter means millimetres. Gives the value as read
    and all three figures [base unit]. Raises RuleError for a tolerance that is no number, upside
    down, or behind a temperature.
    Source: ISO 286-1 for fits.
    """
    plain = plain_notation(text)
    fit = _FIT.fullmatch(plain) if dimension is Dimension.LENGTH and len(text) <= LONGEST_TEXT else None
    if fit and not _is_length(fit["letter"]):
        return _of_fit(fit, field, text.strip())
    value, minus, plus = _split(plain, field)
    quantity = read_quantity(value, dimension, field)
    scale, _ = scale_and_offset(quantity.unit)
    return quantity, Toleranced(quantity.value, minus * scale, plus * scale)


def read_toleranced_length(text: str, field: str, *, low: float = 0.0, high: float = 20_000.0) -> Toleranced:
    """A length with tolerance, ``low`` < value <= ``high`` [mm]: see ``read_toleranced``.

    Raises RuleError outside, and when the tolerance is not narrower than the value. Source: ISO 286-1 for fits.
    """
    quantity, found = read_toleranced(text, Dimension.LENGTH, field)
    in_range(quantity, field, low, high)
    if (widest := max(abs(found.minus), abs(found.plus))) and widest >= found.nominal:
        raise fault(field, f"the tolerance of “{text.strip()}” is as wide as the value", "50 mm ±0.05")
    return found


def _is_length(symbol: str) -> bool:
    unit = find_unit(symbol)
    return unit is not None and unit.dimension is Dimension.LENGTH


def _split(plain: str, field: str) -> tuple[str, float, float]:
    """The value without its tolerance, and the allowance below and above in the unit of the value."""
    for pattern, limits in ((_PLUS_MINUS, _of_both), (_TWO_LIMITS, _of_two)):
        span = pattern.search(plain, 1)
        if span:
            low, high = limits(span, field)
            return f"{plain[: span.start()]} {plain[span.end() :]}".strip(), -low, high
    return plain, 0.0, 0.0


def _of_both(span: re.Match[str], field: str) -> tuple[float, float]:
    width = read_number(span["both"], field)
    return -width, width


def _of_two(span: re.Match[str], field: str) -> tuple[float, float]:
    one, other = sorted(read_number(span[name], field) for name in ("one", "other"))
    return one, other


def _of_fit(match: re.Match[str], field: str, shown: str) -> tuple[Quantity, Toleranced]:
    size = read_number(match["size"], field)
    lower, upper = fit_limits(size, match["letter"], int(match["grade"]), field)
    unit = find_unit("mm")
    assert unit is not None
    return Quantity(size, unit, shown), Toleranced(size, -lower, upper)
