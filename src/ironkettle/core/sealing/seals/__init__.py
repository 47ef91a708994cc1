"""Seals that are not O-rings: matched by housing, stacked in a box, pressed into a bore."""

from ironkettle.core.sealing.seals.match import SealCandidate, SealMatch, match_seal
from ironkettle.core.sealing.seals.model import Housing, HousingRow, SealKind, SealSide, SealSize
from ironkettle.core.sealing.seals.packing import PackingBox, PackingPlan, plan_packing
from ironkettle.core.sealing.seals.pressfit import Cladding, PressFit, allowance, check_press_fit
from ironkettle.core.sealing.seals.standard import standard_seals

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
