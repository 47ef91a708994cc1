"""Glands: the groove a ring lives in, checked by squeeze, stretch, fill and gap."""

from ironkettle.core.glands.check import GlandCheck, check_gland, check_rings
from ironkettle.core.glands.design import GrooveProposal, GrooveWish, design_groove, tolerance_grade
from ironkettle.core.glands.extrusion import bore_growth, hardness_for
from ironkettle.core.glands.geometry import installed_section
from ironkettle.core.glands.model import (
    ExtrusionLimit,
    Gland,
    GlandRow,
    GlandTables,
    HouseLimits,
    Medium,
    Motion,
    PressedFrom,
    PressureDirection,
    Seat,
    Span,
)
from ironkettle.core.glands.search import Fit, GrooveSearch, NearMiss, search_rings
from ironkettle.core.glands.sift import Sift, sift_rings

__all__ = [
    "ExtrusionLimit",
    "Fit",
    "Gland",
    "GlandCheck",
    "GlandRow",
    "GlandTables",
    "GrooveProposal",
    "GrooveSearch",
    "GrooveWish",
    "HouseLimits",
    "Medium",
    "Motion",
    "NearMiss",
    "PressedFrom",
    "PressureDirection",
    "Seat",
    "Sift",
    "Span",
    "bore_growth",
    "check_gland",
    "check_rings",
    "design_groove",
    "hardness_for",
    "installed_section",
    "search_rings",
    "sift_rings",
    "tolerance_grade",
]
