"""Durations that a text states: *no drip in 10 min*, *for a minute*, *a ten-minute look*."""

from __future__ import annotations

import re

_COUNTS = {
    "a": 1.0, "an": 1.0, "one": 1.0, "two": 2.0, "three": 3.0, "four": 4.0, "five": 5.0, "six": 6.0, "seven": 7.0,
    "eight": 8.0, "nine": 9.0, "ten": 10.0, "twelve": 12.0, "fifteen": 15.0, "twenty": 20.0, "thirty": 30.0, "half an": 0.5,
}  # fmt: skip
_SECONDS = {"s": 1.0, "sec": 1.0, "second": 1.0, "min": 60.0, "minute": 60.0, "h": 3600.0, "hour": 3600.0}
_WORDS = "|".join(sorted(_COUNTS, key=len, reverse=True))
# A figure may touch its unit, a word may not: *in as they lay* states no second.
_COUNT = rf"(?:(?P<count>\d+(?:[.,]\d+)?)[\s\u00a0]*|(?P<word>{_WORDS})[\s\u00a0]+)"
_COUNT_JOINED = rf"(?P<joined>\d+(?:[.,]\d+)?|{_WORDS})"
_UNIT = r"(?P<unit>seconds?|sec|s|minutes?|min|hours?|h)"
# *within 2 min* is the most it may take, and no time to wait out; so is *by* and *before*.
_STATED = re.compile(
    rf"(?:(?<!up to )\b(?:in|for|over|after|during|throughout)\s+(?:the\s+first\s+|at\s+least\s+|another\s+)?{_COUNT}{_UNIT}\b(?!\s*/)"
    rf"|\b{_COUNT_JOINED}-{_UNIT.replace('unit', 'unit2')}\b)",
    re.IGNORECASE,
)


def stated_seconds(text: str) -> float | None:
    """The longest time that a text says something lasts; None where it states none. [s]

    What a thing may take at most (*within 2 min*) is no time to wait out. Range: every text. Source: English usage; no published source.
    """
    return max((_seconds_of(match) for match in _STATED.finditer(text)), default=None)


def _seconds_of(match: re.Match[str]) -> float:
    count, unit = match["count"] or match["word"] or match["joined"], (match["unit"] or match["unit2"]).lower()
    number = _COUNTS.get(count.lower()) or float(count.replace(",", "."))
    return number * _SECONDS[unit if unit in _SECONDS else unit.removesuffix("s")]


def seconds_words(seconds: float) -> str:
    """A time as it is said: *10 min*, *90 s*, *1.5 h*. [s] Range: above 0. Source: the units."""
    for unit, size in (("h", 3600.0), ("min", 60.0)):
        if seconds >= 2 * size or seconds == size:
            return f"{round(seconds / size, 1):g} {unit}"
    return f"{round(seconds, 1):g} s"
