"""Glands: the groove a ring lives in, checked by squeeze, stretch, fill and gap."""

from ironkettle.core.sealing.grooves.check import GlandCheck, check_gland, check_rings
from ironkettle.core.sealing.grooves.design import GrooveProposal, GrooveWish, design_groove, tolerance_grade
from ironkettle.core.sealing.grooves.extrusion import bore_growth, hardness_for
from ironkettle.core.sealing.grooves.geometry import installed_section
from ironkettle.core.sealing.grooves.model import (
    ExtrusionLimit,
    Gland,
    GlandRow,
    GlandTables,
    GrooveLimits,
    Medium,
    Motion,
    PressedFrom,
    PressureDirection,
    Seat,
    Span,
)
from ironkettle.core.sealing.grooves.search import Fit, GrooveSearch, NearMiss, search_rings
from ironkettle.core.sealing.grooves.sift import Sift, sift_rings

__all__ = [
    "ExtrusionLimit",
    "Fit",
    "Gland",
    "GlandCheck",
    "GlandRow",
    "GlandTables",
    "GrooveLimits",
    "GrooveProposal",
    "GrooveSearch",
    "GrooveWish",
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
