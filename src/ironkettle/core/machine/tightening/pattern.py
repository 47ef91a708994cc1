"""The order in which fasteners are tightened. Numbers start at 1 as on the drawing."""

from __future__ import annotations

from enum import StrEnum

from ironkettle.core.base.errors import fault

MOST_FASTENERS = 64


class Layout(StrEnum):
    SINGLE = "single"
    CIRCLE = "circle"
    RECTANGLE = "rectangle"
    FLANGE = "flange"


def tightening_sequence(layout: Layout, count: int) -> tuple[int, ...]:
    """Star for a circle, cross for a rectangle, from the middle out for a long flange. [-]

    Circle and rectangle are numbered around; a flange is numbered column by column along its
    length, two to a column, odd numbers on the near side.

    Parameters: count : 1 to 64. Raises RuleError outside.
    Source: crossed halving order of common flange practice (ASME PCC-1 legacy pattern for 4, 8, 12, 16 bolts).

    >>> tightening_sequence(Layout.CIRCLE, 6)
    (1, 4, 2, 5, 3, 6)
    """
    if not 1 <= count <= MOST_FASTENERS:
        raise fault("pattern.count", f"{count} fasteners; a pattern holds 1 to {MOST_FASTENERS}", "1 to 64")
    if layout is Layout.SINGLE:
        return tuple(range(1, count + 1))
    if layout is Layout.FLANGE:
        return _from_the_middle(count)
    return tuple(place + 1 for place in _star(count))


def _star(count: int) -> list[int]:
    if count % 2 == 0 and count > 2:
        return [place for low in _star(count // 2) for place in (low, low + count // 2)]
    step = max(1, count // 2)
    return [(turn * step) % count for turn in range(count)]


def _from_the_middle(count: int) -> tuple[int, ...]:
    columns = [tuple(range(start, min(start + 2, count + 1))) for start in range(1, count + 1, 2)]
    middle = (len(columns) - 1) / 2
    ordered = sorted(range(len(columns)), key=lambda column: (abs(column - middle), column))
    return tuple(number for column in ordered for number in columns[column])
