"""How finely a reading was written: what was rounded away cannot be known any more."""

from __future__ import annotations

import re

from ironkettle.core.base.quantities.notation import plain_notation
from ironkettle.core.base.quantities.parse import read_quantity
from ironkettle.core.base.quantities.units import Dimension, scale_and_offset

_DECIMALS = re.compile(r"[0-9]*[.,](?P<places>[0-9]+)")
_FRACTION = re.compile(r"[0-9]+/(?P<under>[0-9]+)")


def written_half(text: str, dimension: Dimension, field: str) -> float:
    """Half of the last figure a reading was written to: ``280 bar`` is 0.5 bar, ``24.9 mm`` 0.05 mm, ``5/16 in`` 1/32 in.

    Parameters: text : a quantity, a figure above or below 0 [the dimension's base unit]. Raises RuleError for what is no quantity. Source: by definition of rounding.

    >>> written_half("24.9 mm", Dimension.LENGTH, "inside_diameter")
    0.05
    """
    unit = read_quantity(text, dimension, field).unit
    scale, _ = scale_and_offset(unit)
    plain = plain_notation(text)
    if fraction := _FRACTION.search(plain):
        last = 1 / int(fraction["under"])
    else:
        decimals = _DECIMALS.search(plain)
        last = 10.0 ** -len(decimals["places"]) if decimals else 1.0
    return abs(scale) * last / 2
