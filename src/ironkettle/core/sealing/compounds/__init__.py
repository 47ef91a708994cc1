"""Compounds: what a seal is made of against fluid, temperature, service and lubricant."""

from ironkettle.core.sealing.compounds.advise import WORDS, CompoundAdvice, judge_compound, rank_compounds
from ironkettle.core.sealing.compounds.expansion import rubber_expansion
from ironkettle.core.sealing.compounds.lubricant import STRICT, check_lubricant, lubricant_column, refusals
from ironkettle.core.sealing.compounds.lubricants import (
    LUBRICANTS,
    Lubricant,
    find_lubricant,
    is_known,
    is_meant,
    lubricant_words,
)
from ironkettle.core.sealing.compounds.model import (
    Compound,
    Duty,
    Rating,
    duty_of_service,
    find_compound,
    find_medium,
    medium_of,
)

__all__ = [
    "LUBRICANTS",
    "STRICT",
    "WORDS",
    "Compound",
    "CompoundAdvice",
    "Duty",
    "Lubricant",
    "Rating",
    "check_lubricant",
    "duty_of_service",
    "find_compound",
    "find_lubricant",
    "find_medium",
    "is_known",
    "is_meant",
    "judge_compound",
    "lubricant_column",
    "lubricant_words",
    "medium_of",
    "rank_compounds",
    "refusals",
    "rubber_expansion",
]
