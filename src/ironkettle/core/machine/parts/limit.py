"""Limits as a sheet writes them: ``at most 0.05 mm``, ``at least 12 mm``, ``1 mm to 4 mm``, ``28 mm +0/-0.052``."""

from __future__ import annotations

from dataclasses import dataclass

from ironkettle.core.base.quantities import Dimension, read_band


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
    found = read_band(text, dimension, field)
    return Limit(found.low, found.high, text)
