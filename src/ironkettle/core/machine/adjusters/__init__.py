"""Settings: the next turn towards a target from the readings so far, and the routines without a figure."""

from ironkettle.core.machine.adjusters.advise import Advice, Reading, Sense, Target, advise
from ironkettle.core.machine.adjusters.routines import (
    Direction,
    Seen,
    advise_contact,
    advise_edge,
    advise_preset,
    turn_words,
)

__all__ = [
    "Advice",
    "Direction",
    "Reading",
    "Seen",
    "Sense",
    "Target",
    "advise",
    "advise_contact",
    "advise_edge",
    "advise_preset",
    "turn_words",
]
