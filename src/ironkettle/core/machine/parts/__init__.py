"""Parts: what is read off them, what readings come to, and the limits they are held against."""

from ironkettle.core.machine.parts.cleaning import Cleaning, cleaning_of
from ironkettle.core.machine.parts.figures import figure_of, flatness, ovality, run_out, taper, wear
from ironkettle.core.machine.parts.limit import Limit, read_limit

__all__ = [
    "Cleaning",
    "Limit",
    "cleaning_of",
    "figure_of",
    "flatness",
    "ovality",
    "read_limit",
    "run_out",
    "taper",
    "wear",
]
