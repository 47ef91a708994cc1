"""What a step or a rung puts on and whether it heats: as its figures say, and as its words give away where they do not."""

from __future__ import annotations

import re
from collections.abc import Iterable
from functools import lru_cache

from ironkettle.core.sealing.compounds import CLEANERS, Nature, cleaners_named, flammable_in

# What a text forbids is not what it does.
_FORBIDDEN = re.compile(r"\b(no|never|without)\s+\w+", re.IGNORECASE)
_HEAT = re.compile(r"\b(heat|heated|heating|flame|torch|burner|oven|hot air|blowlamp)\b", re.IGNORECASE)
# Above this [°C] it is heat: warm water is none.
_WARM = 60
_DEGREES = re.compile(r"(\d+) °C")


@lru_cache(maxsize=4096)
def is_hot(text: str, said: bool) -> bool:
    """Whether heat comes with it: as said, or by the words. Above 60 °C it is heat; no published source."""
    warmest = max(map(int, _DEGREES.findall(text)), default=0)
    return said or _HEAT.search(done_in(text)) is not None or warmest > _WARM


def put_on(text: str, named: Iterable[str]) -> tuple[str, ...]:
    """What is put on: as named, and what the text names that burns or is an acid. Source: the lists of cleaners and lubricants."""
    done = done_in(text)
    acids = [key.value for key in cleaners_named(done) if CLEANERS[key].nature is Nature.ACID]
    burns = flammable_in(done)
    return tuple(dict.fromkeys((*named, *acids, *([burns] if burns else []))))


def done_in(text: str) -> str:
    """A text without what it forbids: *wash, no solvent* names no solvent."""
    return _FORBIDDEN.sub(" ", text)
