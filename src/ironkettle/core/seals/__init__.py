"""Seals that are not O-rings: matched by housing, stacked in a box, pressed into a bore."""

from ironkettle.core.seals.match import SealCandidate, SealMatch, match_seal
from ironkettle.core.seals.model import Housing, HousingRow, SealKind, SealSide, SealSize
from ironkettle.core.seals.packing import PackingBox, PackingPlan, plan_packing
from ironkettle.core.seals.pressfit import Cladding, PressFit, allowance, check_press_fit
from ironkettle.core.seals.standard import standard_seals

__all__ = [
    "Cladding",
    "Housing",
    "HousingRow",
    "PackingBox",
    "PackingPlan",
    "PressFit",
    "SealCandidate",
    "SealKind",
    "SealMatch",
    "SealSide",
    "SealSize",
    "allowance",
    "check_press_fit",
    "match_seal",
    "plan_packing",
    "standard_seals",
]
