"""Turns of a screw as they are written: ``0.25``, ``1/3``, ``0,33``, ``1/3 turn``, ``120°``."""

from __future__ import annotations

from ironkettle.core.base.errors import RuleError
from ironkettle.core.base.quantities.number import read_number
from ironkettle.core.base.quantities.parse import read_quantity
from ironkettle.core.base.quantities.units import Dimension

_TURN_DEG = 360.0


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
