"""A length with its tolerance: written out, or as a fit of ISO 286 behind the size."""

from __future__ import annotations

from dataclasses import dataclass

from ironkettle.core.base.errors import fault
from ironkettle.core.base.quantities.band import read_band
from ironkettle.core.base.quantities.parse import Quantity, in_range
from ironkettle.core.base.quantities.units import Dimension


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
    """A value with tolerance: ``50 mm +0.03/-0``, ``+.002 -.000``, ``+0.03/+0.01``, ``3.53 mm ±0.10``, ``50 H8``, or a range,
    ``280 to 290 bar``, whose middle is then the value.

    A tolerance without a unit is in that of the value; a fit letter means millimetres. Gives the value as read
    and all three figures [base unit]. Raises RuleError for a tolerance that is no number, for one with one sign only, and for
    a most or a least, which is not a value.
    Source: ISO 286-1 for fits.
    """
    band = read_band(text, dimension, field)
    if band.low is None or band.high is None:
        raise fault(
            field,
            f"“{text.strip()}” has one end only; a value with its tolerance is wanted",
            "280 bar ±5",
            "280 to 290 bar",
        )
    assert band.unit is not None
    nominal = (band.low + band.high) / 2 if band.nominal is None else band.nominal
    # What is lost by adding a tolerance to its value and taking it off again is no part of the drawing.
    minus, plus = round(nominal - band.low, 12), round(band.high - nominal, 12)
    return Quantity(nominal, band.unit, text.strip()), Toleranced(nominal, minus, plus)


def read_toleranced_length(text: str, field: str, *, low: float = 0.0, high: float = 20_000.0) -> Toleranced:
    """A length with tolerance, ``low`` < value <= ``high`` [mm]: see ``read_toleranced``.

    Raises RuleError outside, and when the tolerance is not narrower than the value. Source: ISO 286-1 for fits.
    """
    quantity, found = read_toleranced(text, Dimension.LENGTH, field)
    in_range(quantity, field, low, high)
    if (widest := max(abs(found.minus), abs(found.plus))) and widest >= found.nominal:
        raise fault(field, f"the tolerance of “{text.strip()}” is as wide as the value", "50 mm ±0.05")
    return found
