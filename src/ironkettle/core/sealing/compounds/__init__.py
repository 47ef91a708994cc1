"""Compounds: what a seal is made of against fluid, temperature, service and lubricant."""

from ironkettle.core.sealing.compounds.advise import WORDS, CompoundAdvice, judge_compound, rank_compounds
from ironkettle.core.sealing.compounds.expansion import rubber_expansion
from ironkettle.core.sealing.compounds.lubricant import check_lubricant, lubricant_column
from ironkettle.core.sealing.compounds.model import Compound, Duty, Lubricant, Rating, find_compound, medium_of

__all__ = [
    "WORDS",
    "Compound",
    "CompoundAdvice",
    "Duty",
    "Lubricant",
    "Rating",
    "check_lubricant",
    "find_compound",
    "judge_compound",
    "lubricant_column",
    "medium_of",
    "rank_compounds",
    "rubber_expansion",
]
