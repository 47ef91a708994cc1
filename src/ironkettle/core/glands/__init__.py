"""Glands: the groove a ring lives in, checked by squeeze, stretch, fill and gap."""

from ironkettle.core.glands.check import GlandCheck, check_gland, fits_of
from ironkettle.core.glands.geometry import installed_section
from ironkettle.core.glands.model import (
    ExtrusionLimit,
    Gland,
    GlandRow,
    GlandTables,
    HouseLimits,
    Medium,
    Motion,
    PressureDirection,
    Seat,
    Span,
)
from ironkettle.core.glands.search import Fit, GrooveSearch, NearMiss, search_rings

__all__ = [
    "ExtrusionLimit",
    "Fit",
    "Gland",
    "GlandCheck",
    "GlandRow",
    "GlandTables",
    "GrooveSearch",
    "HouseLimits",
    "Medium",
    "Motion",
    "NearMiss",
    "PressureDirection",
    "Seat",
    "Span",
    "check_gland",
    "fits_of",
    "installed_section",
    "search_rings",
]
