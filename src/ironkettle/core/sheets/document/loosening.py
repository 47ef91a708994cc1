"""What a new version of a sheet changes, by what it means: safety, a limit, or words; and what of it is loosened.

A change counts as loosened unless it is shown that nothing got looser: a limit held within the old one, something
added that asks for more, or words that carry no limit and no warning. An unknown kind of change is therefore shown first
and needs a second person, never the other way round.
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from typing import Any

from ironkettle.core.base.errors import RuleError
from ironkettle.core.base.quantities import Dimension, stated_seconds
from ironkettle.core.machine.parts.limit import Limit, read_limit
from ironkettle.core.sheets.document.compare import RawDifference, raw_differences, shown
from ironkettle.core.sheets.document.sheet import Sheet
from ironkettle.core.shop.people.model import Authority, rank_of


class Weight(StrEnum):
    """What a change is about."""

    SAFETY = "safety"
    LIMIT = "limit"
    TEXT = "text"


@dataclass(frozen=True, slots=True)
class Change:
    """One change between two versions, in words. ``loosens``: whether less is asked for, or it cannot be shown that not."""

    path: str
    was: str | None
    now: str | None
    weight: Weight
    loosens: bool


# Words that describe and neither warn nor limit.
_WORDS = frozenset(
    {
        "name", "markings", "like", "ask", "says", "how", "why", "do", "text", "word", "views", "observations",
        "tools", "consumables", "unit", "page", "state", "stays", "across", "shows", "what_for", "for", "item", "place",
        "disposal", "stock", "number", "kit_number", "supplier",
    }
)  # fmt: skip
# Warnings, and what stands in for one.
_WARNINGS = frozenset(
    {"caution", "delicate", "never", "stop", "hold", "may", "refuses", "free", "align", "side", "does"}
)
# Words that a test is held against: whatever stood there must stand there still.
_CRITERIA = frozenset({"sign"})
_SAFETY = frozenset(
    {
        "authority", "cleanliness", "again_after_pressure", "relieves", "one_use", "fate", "locking", "may_cut", "unproven",
        "tests", "steps", "stations", "ladders", "intervals", "when", "kind", "key", "else", "fitted", "faces", "between",
    }
)  # fmt: skip
# Shape of the drawing: proved anew on import, so that it cannot hide an open space.
_DRAWN = frozenset({"solid", "cut", "seed", "seeds", "view", "views", "axis"})
# Given, they ask for something; taken away, they ask for less.
_ASKS_IF_TRUE = frozenset(
    {"again_after_pressure", "one_use", "easily_missed", "soft_thread", "identify", "photo", "early"}
)
# Given, they allow something.
_ALLOWS = frozenset(
    {
        "only",
        "may_cut",
        "unproven",
        "dress",
        "faces",
        "tolerance",
        "tolerance_pct",
        "alternative_group",
        "each",
        "after",
    }
)
_LARGER_IS_LOOSER = frozenset(
    {
        "leak_limit", "tolerance", "tolerance_pct", "spread", "lock_up", "hysteresis", "breakaway", "running", "within",
        "settle", "tolerance_deg", "high", "rated", "in",
    }
)  # fmt: skip
_SMALLER_IS_LOOSER = frozenset({"floor", "low", "hold", "repeats", "minutes", "seconds"})
_WORSE_FIRST = {
    "fate": ("leave", "keep", "judge", "renew", "one_use"),
    "else": ("reuse", "dress", "judge", "send_out", "replace"),
    "when": ("as_found", "as_left", "both"),
}


def changes(old: Sheet, new: Sheet) -> tuple[Change, ...]:
    """Every change from one version to another: what loosens first, then by weight, then as it stands in the sheet."""
    before, after = _whole(old), _whole(new)
    safe = {str(step["key"]) for step in (*before["steps"], *after["steps"]) if step.get("stage") == "safe"}
    found = [_change(raw_difference, safe) for raw_difference in raw_differences(before, after)]
    order = list(Weight)
    return tuple(sorted(found, key=lambda difference: (not difference.loosens, order.index(difference.weight))))


def loosens(found: tuple[Change, ...]) -> bool:
    """Whether any of the changes asks for less than before."""
    return any(difference.loosens for difference in found)


def _whole(sheet: Sheet) -> dict[str, Any]:
    """The sheet with its defaults, since leaving a word out says the default."""
    document = sheet.model_dump(mode="json", by_alias=True, exclude_none=True)
    return {name: value for name, value in document.items() if name not in {"version", "format"}}


def _change(difference: RawDifference, safe: set[str]) -> Change:
    making_safe = difference.path[0] == "steps" and len(difference.path) > 1 and difference.path[1] in safe
    return Change(
        ".".join(difference.path),
        shown(difference.was),
        shown(difference.now),
        _weight(difference, making_safe),
        _loosens(difference, making_safe),
    )


def _field(difference: RawDifference) -> str:
    """The name of the field that changed: the last of the path that is no place in a list."""
    return next((part for part in reversed(difference.path) if not part.isdigit()), "")


def _weight(difference: RawDifference, making_safe: bool) -> Weight:
    field = _field(difference)
    whole = len(difference.path) == 2 and difference.path[0] in _SAFETY
    if making_safe or whole or field in _WARNINGS or (field in _SAFETY and field != "key"):
        return Weight.SAFETY
    return Weight.TEXT if _describes(difference) else Weight.LIMIT


def _describes(difference: RawDifference) -> bool:
    """Whether it is words or shape only."""
    drawn = any(part in _DRAWN for part in difference.path)
    words = difference.path[0] in {"observations", "disposal"} or _field(difference) in _WORDS
    return drawn or (words and not _takes_less_time(difference))


def _takes_less_time(difference: RawDifference) -> bool:
    """Whether a test or look states less time to wait out than before: the words say how long it lasts."""
    if difference.path[0] not in {"tests", "observations"} or not isinstance(difference.was, str):
        return False
    now = stated_seconds(difference.now) if isinstance(difference.now, str) else None
    return (stated_seconds(difference.was) or 0) > (now or 0)


def _loosens(difference: RawDifference, making_safe: bool) -> bool:
    field, was, now = _field(difference), difference.was, difference.now
    if field == "authority":
        return rank_of(Authority(now or "none")) < rank_of(Authority(was or "none")) or _other_guard(was, now)
    if _describes(difference) and not (making_safe and field == "text"):
        return False
    if isinstance(was, bool) or isinstance(now, bool):
        asks = field in _ASKS_IF_TRUE
        return bool(was) and not now if asks else bool(now) and not was if field in _ALLOWS else True
    if was is None:
        return any(part in _ALLOWS for part in difference.path[-2:])
    if now is None:
        return True
    if _takes_less_time(difference):
        return True
    if field in _WARNINGS | _CRITERIA and isinstance(was, str) and isinstance(now, str):
        return was.casefold() not in now.casefold()
    if isinstance(was, list) and isinstance(now, list):
        # More of what is wanted, never less; a list of fluids or choices that grows lets more in.
        return field in {"fluids", "passes_pct", "every"} or not all(item in now for item in was)
    if field in _WORSE_FIRST:
        order = _WORSE_FIRST[field]
        return was not in order or now not in order or order.index(now) < order.index(was)
    return _figure_loosens(difference, field)


def _other_guard(was: str | None, now: str | None) -> bool:
    """Whether one authority takes the place of another that is as strict: who held the first need not hold the second."""
    return was != now and rank_of(Authority(now or "none")) == rank_of(Authority(was or "none"))


def _figure_loosens(difference: RawDifference, field: str) -> bool:
    ends = _both(difference.was, difference.now)
    if ends is None:
        return True
    was, now = ends
    if field == "pressure" and difference.path[0] == "tests":
        return _low(now) < _low(was)
    if field in _LARGER_IS_LOOSER or (field == "limit" and was.low == was.high and now.low == now.high):
        return _high(now) > _high(was)
    if field in _SMALLER_IS_LOOSER:
        return _low(now) < _low(was)
    if field in {"limit", "value", "nominal", "ceiling"} and not (was.low == was.high and now.low == now.high):
        return _low(now) < _low(was) or _high(now) > _high(was)
    return True


def _low(limit: Limit) -> float:
    return float("-inf") if limit.low is None else limit.low


def _high(limit: Limit) -> float:
    return float("inf") if limit.high is None else limit.high


def _both(was: Any, now: Any) -> tuple[Limit, Limit] | None:
    """Two figures as limits in one dimension; None where they are none, or cannot be held against each other."""
    if isinstance(was, int | float) and isinstance(now, int | float):
        return Limit(float(was), float(was), ""), Limit(float(now), float(now), "")
    if not isinstance(was, str) or not isinstance(now, str):
        return None
    for dimension in (None, *Dimension):
        try:
            return read_limit(was, "was", dimension), read_limit(now, "now", dimension)
        except RuleError:
            continue
    return None
