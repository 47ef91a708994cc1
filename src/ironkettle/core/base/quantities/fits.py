"""Limits of size by ISO 286-1: the fits met in cylinders and bearings, up to 500 mm."""

from __future__ import annotations

from bisect import bisect_left
from dataclasses import dataclass

from ironkettle.core.base.errors import fault

_LARGEST_MM = 500.0
_MICRON = 0.001


@dataclass(frozen=True, slots=True)
class _Steps:
    """Figures by step of nominal size: over the step before, up to and including. [mm] and [µm]"""

    up_to: tuple[float, ...]
    figures: dict[int | str, tuple[int, ...]]

    def at(self, size: float, key: int | str) -> int:
        return self.figures[key][bisect_left(self.up_to, size)]


# ISO 286-1:2010, table 1 (standard tolerances IT5 to IT11) and table 4 (shafts d to h), up to 500 mm.
_UP_TO = (3, 6, 10, 18, 30, 50, 80, 120, 180, 250, 315, 400, 500)
_TABLE = _Steps(
    _UP_TO,
    {
        5: (4, 5, 6, 8, 9, 11, 13, 15, 18, 20, 23, 25, 27),
        6: (6, 8, 9, 11, 13, 16, 19, 22, 25, 29, 32, 36, 40),
        7: (10, 12, 15, 18, 21, 25, 30, 35, 40, 46, 52, 57, 63),
        8: (14, 18, 22, 27, 33, 39, 46, 54, 63, 72, 81, 89, 97),
        9: (25, 30, 36, 43, 52, 62, 74, 87, 100, 115, 130, 140, 155),
        10: (40, 48, 58, 70, 84, 100, 120, 140, 160, 185, 210, 230, 250),
        11: (60, 75, 90, 110, 130, 160, 190, 220, 250, 290, 320, 360, 400),
        "d": (20, 30, 40, 50, 65, 80, 100, 120, 145, 170, 190, 210, 230),
        "e": (14, 20, 25, 32, 40, 50, 60, 72, 85, 100, 110, 125, 135),
        "f": (6, 10, 13, 16, 20, 25, 30, 36, 43, 50, 56, 62, 68),
        "g": (2, 4, 5, 6, 7, 9, 10, 12, 14, 15, 17, 18, 20),
        "h": (0,) * 13,
    },
)
_HOLE = "H"
LETTERS = (_HOLE, "d", "e", "f", "g", "h")
GRADES = tuple(range(5, 12))


def fit_limits(size: float, letter: str, grade: int, field: str) -> tuple[float, float]:
    """Lower and upper limit of a fit against the nominal size: ``50 H8`` is 0 and +0.039. [mm]

    Parameters: size : above 0 to 500 [mm]; letter : ``H`` for a hole, ``d e f g h`` for a shaft;
    grade : 5 to 11 [-].
    Raises RuleError for a size, letter or grade that the table does not hold.
    Source: ISO 286-1:2010, tables 1 and 4.
    """
    if letter not in LETTERS:
        raise fault(field, f"“{letter}{grade}” is not a known fit; write the limits", *LETTERS, "+0.03/+0.01")
    if grade not in GRADES:
        raise fault(field, f"grade {grade} is not known", *(f"{letter}{known}" for known in GRADES))
    if not 0 < size <= _LARGEST_MM:
        raise fault(field, f"fits are known up to {_LARGEST_MM:g} mm, not for {size:g} mm", "+0.03/+0.01")
    width = _TABLE.at(size, grade) * _MICRON
    if letter == _HOLE:
        return 0.0, width
    upper = -_TABLE.at(size, letter) * _MICRON
    return upper - width, upper
