"""Every cleaner of the catalogue once: what it lifts, what it attacks, what it may never meet, and what follows it.

Source: no published source; this project's own table after common guides to parts cleaning. The label, the maker and local codes win.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from enum import StrEnum
from functools import lru_cache

from ironkettle.core.base.errors import fault
from ironkettle.core.sealing.compounds.model import Duty


class Cleaner(StrEnum):
    """What parts are cleaned with."""

    NEUTRAL_WASH = "neutral_wash"
    PARTS_WASH_ALKALINE = "parts_wash_alkaline"
    ULTRASONIC_NEUTRAL = "ultrasonic_neutral"
    WATER = "water"
    DRY_CLOTH = "dry_cloth"
    PARAFFIN = "paraffin"
    CLEANING_OIL = "cleaning_oil"
    CLEAN_FUEL = "clean_fuel"
    SOLVENT_SPRAY = "solvent_spray"
    ISOPROPANOL = "isopropanol"
    ACETONE = "acetone"
    SEALANT_REMOVER = "sealant_remover"
    CARBON_REMOVER = "carbon_remover"
    CITRIC_ACID = "citric_acid"
    VINEGAR = "vinegar"
    PHOSPHORIC_ACID = "phosphoric_acid"
    DESCALER_INHIBITED = "descaler_inhibited"
    HYDROCHLORIC_ACID = "hydrochloric_acid"
    HYPOCHLORITE = "hypochlorite"
    STEEL_WOOL_SHOT = "steel_wool_shot"


class Nature(StrEnum):
    """What a liquid is, as far as it must not meet another."""

    ACID = "acid"
    ALKALI = "alkali"
    HYPOCHLORITE = "hypochlorite"
    AMMONIA = "ammonia"


@dataclass(frozen=True, slots=True)
class CleanerFacts:
    """``lifts``: the soils it is for; ``attacks``: materials it may not touch; ``never_in``: duties it may not see; ``hazard``: said where it
    is used; ``after``: what follows it; ``refused``: why it is not for the bench at all; ``says``: further words it goes by.
    """

    name: str
    lifts: frozenset[str]
    attacks: frozenset[str]
    never_in: frozenset[Duty]
    nature: Nature | None
    flammable: bool
    hazard: str
    after: str
    refused: str
    says: tuple[str, ...]


_OIL, _GREASE, _CARBON, _SEALANT, _LIME, _RUST = (
    "oil and dirt", "hardened grease", "carbon", "old sealant", "salt and lime", "rust and scale",
)  # fmt: skip
SOILS = (_OIL, _GREASE, _CARBON, _SEALANT, _LIME, _RUST)
_HYDROCARBON = "breathing oxygen potable food"


def _row(
    name: str,
    lifts: tuple[str, ...],
    attacks: tuple[str, ...],
    after: str,
    *says: str,
    hazard: str = "",
    never_in: str = "",
    nature: Nature | None = None,
    flammable: bool = False,
    refused: str = "",
) -> CleanerFacts:
    return CleanerFacts(
        name, frozenset(lifts), frozenset(attacks), frozenset(map(Duty, never_in.split())), nature, flammable, hazard, after,
        refused, says,
    )  # fmt: skip


_SOFT = ("plastic", "rubber")
_ACID_ATTACKS = ("aluminium", "chromed steel")
_CHLORINE = "with bleach it gives off chlorine"
_VAPOUR = "flammable: no flame, ventilate"
# fmt: off
CLEANERS: Mapping[Cleaner, CleanerFacts] = {
    Cleaner.NEUTRAL_WASH: _row("Neutral washing fluid", (_OIL,), (), "rinse, dry", "washing fluid", "neutral detergent"),
    Cleaner.PARTS_WASH_ALKALINE: _row("Warm alkaline parts wash", (_OIL, _GREASE), ("aluminium",), "rinse, dry", "parts wash", "alkaline wash", "caustic cleaner", hazard="caustic splash: goggles", nature=Nature.ALKALI),
    Cleaner.ULTRASONIC_NEUTRAL: _row("Ultrasonic bath with neutral detergent", (_OIL, _CARBON), (), "rinse, dry", "ultrasonic bath", hazard="no hands in the bath"),
    Cleaner.WATER: _row("Clean water", (_OIL,), (), "mild soap where it is greasy; dry, oil what rusts at once", "soapy water"),
    Cleaner.DRY_CLOTH: _row("Dry cloth and soft brush", (_OIL,), (), "blow out", "dry cloth", "soft cloth", "soft brush"),
    Cleaner.PARAFFIN: _row("Paraffin or white spirit", (_OIL, _GREASE), _SOFT, "wipe dry", "white spirit", "kerosene", hazard=_VAPOUR, never_in=_HYDROCARBON, flammable=True),
    Cleaner.CLEANING_OIL: _row("Cleaning oil", (_OIL,), ("rubber",), "wipe dry", hazard="oily rags catch fire by themselves: closed bin", never_in=_HYDROCARBON),
    Cleaner.CLEAN_FUEL: _row("Clean fuel of the unit", (_OIL,), ("rubber",), "blow dry", "clean fuel", hazard=_VAPOUR, never_in=_HYDROCARBON, flammable=True),
    Cleaner.SOLVENT_SPRAY: _row("Solvent spray", (_OIL, _GREASE), _SOFT, "let it flash off", "solvent", "brake cleaner", "degreaser spray", hazard=f"{_VAPOUR}; a chlorinated one makes phosgene at a flame", never_in=_HYDROCARBON, flammable=True),
    Cleaner.ISOPROPANOL: _row("Isopropanol", (_OIL,), (), "dries by itself", "isopropyl alcohol", hazard=_VAPOUR, flammable=True),
    Cleaner.ACETONE: _row("Acetone", (_SEALANT,), _SOFT, "on bare metal only; let it flash off", hazard="highly flammable: no flame, ventilate", never_in="breathing oxygen", flammable=True),
    Cleaner.SEALANT_REMOVER: _row("Sealant remover", (_SEALANT,), _SOFT, "plastic scraper, wipe dry", hazard=f"gloves; {_VAPOUR}", never_in="breathing oxygen", flammable=True),
    Cleaner.CARBON_REMOVER: _row("Carbon remover, soaked", (_CARBON,), _SOFT, "brass brush, rinse, dry", "decarboniser", hazard=f"gloves; {_VAPOUR}", never_in="oxygen", flammable=True),
    Cleaner.CITRIC_ACID: _row("Citric acid", (_LIME, _RUST), _ACID_ATTACKS, "rinse until neutral, dry; oil what rusts at once", "citric", hazard=f"5 to 10 % is enough; goggles; {_CHLORINE}", nature=Nature.ACID),
    Cleaner.VINEGAR: _row("Dilute vinegar", (_LIME,), ("chromed steel",), "rinse, dry", "acetic acid", hazard=f"{_CHLORINE}", nature=Nature.ACID),
    Cleaner.PHOSPHORIC_ACID: _row("Phosphoric rust remover", (_RUST,), _ACID_ATTACKS, "rinse until neutral, dry, oil at once", "rust remover", "mild acid", hazard=f"goggles, gloves; {_CHLORINE}", nature=Nature.ACID),
    Cleaner.DESCALER_INHIBITED: _row("Inhibited descaler", (_LIME, _RUST), ("chromed steel",), "rinse, neutralise", "descaler", "limescale remover", hazard=f"read its label; {_CHLORINE}", nature=Nature.ACID),
    Cleaner.HYDROCHLORIC_ACID: _row("Hydrochloric acid", (_LIME, _RUST), _ACID_ATTACKS, "", "muriatic acid", "spirits of salt", nature=Nature.ACID, refused="not for this bench: its fumes, and springs and hard chrome turn brittle"),
    Cleaner.HYPOCHLORITE: _row("Hypochlorite", (), ("stainless steel", "aluminium"), "rinse with plenty of water", "bleach", nature=Nature.HYPOCHLORITE, refused="not for parts: it pits stainless steel and aluminium, and with any acid it gives off chlorine"),
    Cleaner.STEEL_WOOL_SHOT: _row("Steel wool or shot with oil", (_RUST,), ("aluminium", "brass", "bronze", "chromed steel", "plastic", "rubber"), "wash again: fibres and grit stay behind", "steel wool", "shot", never_in="breathing oxygen"),
}
# fmt: on
_BY_WORD = {
    word: key
    for key, facts in CLEANERS.items()
    for word in (key.value, key.value.replace("_", " "), facts.name.casefold(), *facts.says)
}
# The longest first: of two words that begin alike the one that is meant.
_WORDS = re.compile(rf"\b({'|'.join(re.escape(word) for word in sorted(_BY_WORD, key=len, reverse=True))})(?!\w)")
# Words in the name of a fluid that tell what may still stand in a unit.
_RESIDUES: Mapping[Nature, tuple[str, ...]] = {
    Nature.HYPOCHLORITE: ("hypochlorite", "bleach", "chlorine", "chlorinated", "chlorite", "disinfectant", "sanitiser", "sanitizer"),
    Nature.AMMONIA: ("ammonia",),
    Nature.ALKALI: ("caustic", "lye", "hydroxide", "alkaline", "alkali"),
    Nature.ACID: ("acid", "vinegar", "descaler"),
}  # fmt: skip
# Which residue a cleaner of some nature may not meet, and what comes of it.
_CLASHES: Mapping[tuple[Nature, Nature], str] = {
    (Nature.ACID, Nature.HYPOCHLORITE): "acid on hypochlorite gives off chlorine, which kills",
    (Nature.ACID, Nature.ALKALI): "acid on alkali boils up and splashes",
    (Nature.ALKALI, Nature.ACID): "alkali on acid boils up and splashes",
    (Nature.HYPOCHLORITE, Nature.ACID): "hypochlorite on acid gives off chlorine, which kills",
    (Nature.HYPOCHLORITE, Nature.AMMONIA): "hypochlorite on ammonia gives off chloramine",
}


def find_cleaner(word: str, field: str = "cleaner") -> Cleaner:
    """The cleaner of that key, or by one of the words it goes by.

    Raises RuleError naming the field for a word that is none: a cleaner is never guessed.
    """
    found = _BY_WORD.get(" ".join(word.casefold().split()))
    if found is None:
        text = f"“{word.strip()}” is not in the list of cleaners: read the label and choose what it is"
        raise fault(field, text, *(key.value for key, facts in CLEANERS.items() if not facts.refused))
    return found


def cleaner_words(word: str) -> str:
    """A cleaner as it is written in a record; the words themselves where an older entry has others."""
    try:
        name = CLEANERS[Cleaner(word)].name
    except ValueError:
        return word
    return f"{name[0].lower()}{name[1:]}"


@lru_cache(maxsize=4096)
def cleaners_named(text: str) -> tuple[Cleaner, ...]:
    """The cleaners that a text names, in the order of the list. Source: the list's own words."""
    plain = text.casefold()
    found = {_BY_WORD[word] for word in _WORDS.findall(plain)}
    return tuple(key for key in CLEANERS if key in found)


def residues_of(fluids: Iterable[str]) -> frozenset[Nature]:
    """What may still stand in a unit that was worked with these fluids, by the words in their names; no published source."""
    words = {word for fluid in fluids for word in re.findall(r"[a-z]+", fluid.casefold())}
    return frozenset(nature for nature, named in _RESIDUES.items() if words & set(named))


def clash_of(cleaner: Cleaner, residues: Iterable[Nature]) -> str | None:
    """Why a cleaner may not meet what still stands in a unit, in words; None where it may."""
    nature = CLEANERS[cleaner].nature
    found = (_CLASHES.get((nature, residue)) for residue in sorted(residues) if nature is not None)
    return next((why for why in found if why is not None), None)


@lru_cache(maxsize=1024)
def suitable_cleaners(soil: str, materials: frozenset[str], duty: Duty) -> tuple[Cleaner, ...]:
    """The cleaners that nothing speaks against, in the order of the list. Source: the list of cleaners."""
    return tuple(key for key in CLEANERS if not cleaner_faults(key, soil, materials, duty))


def cleaner_faults(cleaner: Cleaner, soil: str, materials: Iterable[str], duty: Duty) -> tuple[str, ...]:
    """Why parts of these materials are not cleaned of a soil with a cleaner in a unit of some duty, in words; nothing where they may be.

    A cleaner that is not for the bench at all is refused whatever it meets. Source: the list of cleaners.
    """
    facts = CLEANERS[cleaner]
    if facts.refused:
        return (f"{facts.name} is {facts.refused}",)
    attacked = sorted(set(materials) & facts.attacks)
    found = [] if soil.strip().casefold() in facts.lifts else [f"{facts.name} does not lift {soil}"]
    found += [f"{facts.name} attacks {' and '.join(attacked)}"] if attacked else []
    found += [f"{facts.name} is not for {duty.value} service"] if duty in facts.never_in else []
    return tuple(found)
