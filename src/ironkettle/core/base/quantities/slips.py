"""A reading in another unit than the one that is expected, whose bare number would fit, or one that has lost its point."""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator

from ironkettle.core.base.errors import RuleError
from ironkettle.core.base.quantities.format import show
from ironkettle.core.base.quantities.number import NUMBER
from ironkettle.core.base.quantities.parse import Quantity, read_quantity
from ironkettle.core.base.quantities.units import Dimension, find_unit, to_base

# Within this factor of an expected figure a number is near it, beyond the other it is far from it. No published source.
_NEAR, _FAR = 2.0, 3.0
# So many times more than anything expected is no reading of it: a point was lost. No published source.
_LOST_POINT = 100.0
_FIGURE = re.compile(rf"(?P<number>{NUMBER})\s*(?P<unit>[^\W\d_][^\s,;+±]*)")
# A number near a temperature in another unit says nothing: the scales cross.
_APART = frozenset(Dimension) - {Dimension.TEMPERATURE, Dimension.ANGLE}


def unit_slip(text: str, expected: Iterable[str]) -> str | None:
    """Why a reading looks as if its unit was mistaken or its point lost, in words; None where it does not, and where the text is no quantity.

    Parameters: text : a reading as written, with its unit; expected : what was written about it, figures with their units anywhere in them.

    Source: no published source.
    """
    read = _quantity(text)
    if read is None or read.unit.dimension not in _APART or read.value <= 0:
        return None
    figures = [figure for words in expected for figure in _figures(words, read.unit.dimension)]
    if not figures or any(_ratio(read.value, figure.value) <= _FAR for figure in figures):
        return None
    for figure in figures:
        meant = to_base(_number(text), figure.unit)
        if figure.unit != read.unit and _ratio(meant, figure.value) <= _NEAR:
            return f"{text.strip()} is {show(read.value, figure.unit)}; {figure.text} is expected: was it {_number(text):g} {figure.unit.symbol}?"
    highest = max(figures, key=lambda candidate: candidate.value)
    if read.value >= _LOST_POINT * highest.value * (1 - 1e-9):
        return f"{text.strip()} is {read.value / highest.value:.0f} times {highest.text}: is the decimal point missing?"
    return None


def _quantity(text: str) -> Quantity | None:
    match = _FIGURE.fullmatch(text.strip())
    unit = find_unit(match["unit"]) if match else None
    if unit is None:
        return None
    try:
        return read_quantity(text, unit.dimension, "reading")
    except RuleError:
        return None


def _number(text: str) -> float:
    match = _FIGURE.fullmatch(text.strip())
    assert match is not None
    return float(match["number"].replace(",", "."))


def _figures(words: str, dimension: Dimension) -> Iterator[Quantity]:
    for match in _FIGURE.finditer(words):
        unit = find_unit(match["unit"])
        if unit is not None and unit.dimension is dimension:
            found = _quantity(match[0])
            if found is not None and found.value > 0:
                yield found


def _ratio(one: float, other: float) -> float:
    return max(one, other) / min(one, other)
