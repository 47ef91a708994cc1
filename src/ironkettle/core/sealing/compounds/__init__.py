"""Compounds: what a seal is made of against fluid, temperature, service and lubricant."""

from ironkettle.core.sealing.compounds.advise import WORDS, CompoundAdvice, judge_compound, rank_compounds
from ironkettle.core.sealing.compounds.cleaners import (
    CLEANERS,
    Cleaner,
    Nature,
    clash_of,
    cleaner_faults,
    cleaner_words,
    cleaners_named,
    find_cleaner,
    residues_of,
    suitable_cleaners,
)
from ironkettle.core.sealing.compounds.expansion import rubber_expansion
from ironkettle.core.sealing.compounds.flammable import flammable_in, is_fuel
from ironkettle.core.sealing.compounds.lubricant import STRICT, check_lubricant, lubricant_column, refusals
from ironkettle.core.sealing.compounds.lubricants import (
    LUBRICANTS,
    Lubricant,
    check_own_name,
    find_lubricant,
    is_known,
    is_meant,
    lubricant_words,
    plain_word,
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
    "CLEANERS",
    "LUBRICANTS",
    "STRICT",
    "WORDS",
    "Cleaner",
    "Compound",
    "CompoundAdvice",
    "Duty",
    "Lubricant",
    "Nature",
    "Rating",
    "check_lubricant",
    "check_own_name",
    "clash_of",
    "cleaner_faults",
    "cleaner_words",
    "cleaners_named",
    "duty_of_service",
    "find_cleaner",
    "find_compound",
    "find_lubricant",
    "find_medium",
    "flammable_in",
    "is_fuel",
    "is_known",
    "is_meant",
    "judge_compound",
    "lubricant_column",
    "lubricant_words",
    "medium_of",
    "plain_word",
    "rank_compounds",
    "refusals",
    "residues_of",
    "rubber_expansion",
    "suitable_cleaners",
]
