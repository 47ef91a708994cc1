"""Which cleaners and lubricants burn at a flame or on hot metal."""

from __future__ import annotations

import re
from functools import lru_cache

from ironkettle.core.sealing.compounds.cleaners import CLEANERS, cleaners_named
from ironkettle.core.sealing.compounds.lubricants import LUBRICANTS, Lubricant, words_of

_BURNING = (Lubricant.PENETRATING_OIL, Lubricant.DIESEL_FUEL)
_FUELS = frozenset({"petrol", "gasoline", "diesel", "fuel", "kerosene", "paraffin", "alcohol", "ethanol", "methanol"})


@lru_cache(maxsize=4096)
def flammable_in(text: str) -> str | None:
    """The name of the first flammable cleaner or lubricant that a text names; None where it names none. Source: the two lists."""
    cleaner = next((key for key in cleaners_named(text) if CLEANERS[key].flammable), None)
    if cleaner is not None:
        return CLEANERS[cleaner].name
    plain = text.casefold()
    for key in _BURNING:
        if any(re.search(rf"\b{re.escape(word)}\b", plain) for word in words_of(key)):
            return LUBRICANTS[key].name
    return None


def is_fuel(fluid: str) -> bool:
    """Whether the fluid of a unit burns, by the words in its name; no published source."""
    return not _FUELS.isdisjoint(re.findall(r"[a-z]+", fluid.casefold()))
