"""Turns of a screw as they are written: ``0.25``, ``1/3``, ``0,33``, ``1/3 turn``, ``120°``."""

from __future__ import annotations

from fractions import Fraction

from ironkettle.core.base.errors import RuleError
from ironkettle.core.base.quantities.number import read_number
from ironkettle.core.base.quantities.parse import read_quantity
from ironkettle.core.base.quantities.units import Dimension

_TURN_DEG = 360.0
# Shares of a turn that a hand knows, and how near a figure has to lie to be one. [turns]
_SHARES = (2, 3, 4, 6, 8)
_NEAR = 0.002


def turns_of(value: object) -> object:
    """A number of turns from what was written; what is no text stays as it is. [turns]

    Raises ValueError with what fits. Source: by definition of a turn.

    >>> turns_of("1/4 turn")
    0.25
    """
    if not isinstance(value, str):
        return value
    try:
        return read_number(value, "turns")
    except RuleError:
        pass
    try:
        return read_quantity(value, Dimension.ANGLE, "turns").value / _TURN_DEG
    except RuleError as error:
        raise ValueError(f"{error.faults[0].message} (fits: 1/3, 0.33 turn, 120°)") from None


def written_turns(turns: float) -> str:
    """A number of turns as a hand makes it: halves, thirds, quarters, sixths and eighths as such, else three figures.

    Parameters: turns : 0 or more [turns]. Raises nothing. Source: by definition of a turn.

    >>> written_turns(0.1667)
    '1/6'
    >>> written_turns(1.75)
    '1 3/4'
    """
    whole = int(turns + _NEAR)
    left = turns - whole
    share = next((found for of in _SHARES if abs((found := Fraction(round(left * of), of)) - left) <= _NEAR), None)
    if share is None:
        return f"{turns:.3g}"
    if share == 0:
        return str(whole)
    return f"{whole} {share}" if whole else str(share)
