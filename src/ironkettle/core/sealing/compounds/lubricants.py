"""Every lubricant of the catalogue once: what it is made of, which seals it attacks, and what duties it may see.

Source: no published source; this project's own table after common guides to compounds and greases. The tin, the maker and local
codes win. ``PU`` of those guides is ``AU`` here.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum

from ironkettle.core.base.errors import RuleError, fault
from ironkettle.core.sealing.compounds.model import Duty


class Lubricant(StrEnum):
    """What a seal is fitted with, or was found with."""

    LITHIUM_GREASE = "lithium_grease"
    CALCIUM_GREASE = "calcium_grease"
    PETROLEUM_JELLY = "petroleum_jelly"
    HYDRAULIC_OIL = "hydraulic_oil"
    ENGINE_OIL = "engine_oil"
    AIR_TOOL_OIL = "air_tool_oil"
    PENETRATING_OIL = "penetrating_oil"
    FOOD_H1_GREASE = "food_h1_grease"
    SILICONE_GREASE = "silicone_grease"
    SILICONE_GREASE_POTABLE = "silicone_grease_potable"
    PFPE_GREASE = "pfpe_grease"
    BREATHING_AIR_GREASE = "breathing_air_grease"
    RUBBER_GREASE = "rubber_grease"
    GLYCERINE = "glycerine"
    SOAP_SOLUTION = "soap_solution"
    POLYGLYCOL_GREASE = "polyglycol_grease"
    ESTER_GREASE = "ester_grease"
    FOOD_GEL = "food_gel"
    ANTI_SEIZE_COPPER = "anti_seize_copper"
    ANTI_SEIZE_NICKEL = "anti_seize_nickel"
    MOLY_PASTE = "moly_paste"
    VISCOUS_FLUID = "viscous_fluid"
    SERVICE_WATER = "service_water"
    SEALANT_ANAEROBIC = "sealant_anaerobic"
    SEALANT_PTFE_PASTE = "sealant_ptfe_paste"
    SERVICE_FLUID = "service_fluid"
    MINERAL_OIL = "mineral_oil"
    MINERAL_GREASE = "mineral_grease"
    DIESEL_FUEL = "diesel_fuel"
    GASKET_SEALANT = "gasket_sealant"
    DRY = "dry"


@dataclass(frozen=True, slots=True)
class LubricantFacts:
    """``attacks``: compounds it may not touch; ``never_in``: duties it may not see; ``listed_for``: duties it is listed for by its kind.

    ``on_seals``: it may lie on a seal at all, some are for threads only; ``gaskets_only``: of all seals on flat gaskets alone; ``says``: further words it goes by, in small letters.
    """

    name: str
    base: str
    thickener: str
    attacks: frozenset[str]
    never_in: frozenset[Duty]
    listed_for: frozenset[Duty]
    silicone_free: bool
    on_seals: bool
    gaskets_only: bool
    note: str
    says: tuple[str, ...]

    @property
    def is_grease(self) -> bool:
        return self.thickener != "none" or self.base == "petroleum"

    @property
    def is_oil(self) -> bool:
        return not self.is_grease and any(word in self.base for word in ("mineral", "silicone"))


def _row(
    name: str,
    base: str,
    thickener: str,
    attacks: str,
    never_in: str,
    listed_for: str,
    note: str,
    *says: str,
    silicone_free: bool = True,
    on_seals: bool = True,
    gaskets_only: bool = False,
) -> LubricantFacts:
    return LubricantFacts(
        name, base, thickener, frozenset(attacks.split()), frozenset(map(Duty, never_in.split())),
        frozenset(map(Duty, listed_for.split())), silicone_free, on_seals, gaskets_only, note, says,
    )  # fmt: skip


_ALL = "breathing oxygen potable food"
# fmt: off
LUBRICANTS: Mapping[Lubricant, LubricantFacts] = {
    Lubricant.LITHIUM_GREASE: _row("Lithium grease", "mineral", "lithium soap", "EPDM NR SBR IIR", _ALL, "", "the common workshop grease", "white grease", "multi-purpose grease", "bearing grease", "wheel bearing grease"),
    Lubricant.CALCIUM_GREASE: _row("Calcium grease", "mineral", "calcium soap", "EPDM NR SBR IIR", _ALL, "", "holds water off", "water-resistant grease"),
    Lubricant.PETROLEUM_JELLY: _row("Petroleum jelly", "petroleum", "none", "EPDM NR SBR IIR VMQ", _ALL, "", "softens above 40 °C; also sold under brand and pharmacy names", "petrolatum", "white petrolatum", "soft paraffin", "mineral jelly"),
    Lubricant.HYDRAULIC_OIL: _row("Clean hydraulic oil of the unit", "mineral", "none", "EPDM NR SBR IIR", _ALL, "", "only where the unit runs on it", "clean service oil", "service oil", "hydraulic oil"),
    Lubricant.ENGINE_OIL: _row("Clean engine oil", "mineral", "none", "EPDM NR SBR IIR", _ALL, "", "detergents: not for water hydraulics", "motor oil", "engine oil", "crankcase oil"),
    Lubricant.AIR_TOOL_OIL: _row("Air-tool oil", "mineral", "none", "EPDM NR SBR IIR", _ALL, "", "", "airline oil", "pneumatic oil"),
    Lubricant.PENETRATING_OIL: _row("Penetrating oil or spray", "petroleum solvent", "none", "EPDM NR SBR IIR VMQ NBR AU", _ALL, "", "for threads only; flammable: no flame until it has dried", "penetrating oil", "penetrating spray", "penetrating fluid", "easing oil", "release oil", "penetrant", on_seals=False),
    Lubricant.FOOD_H1_GREASE: _row("Food-grade grease (H1)", "white mineral or PAO", "calcium sulfonate or aluminium complex", "EPDM NR SBR IIR", "breathing oxygen potable", "food", "incidental contact with food; a hydrocarbon all the same", "food-grade grease", "food grease", "h1 grease"),
    Lubricant.SILICONE_GREASE: _row("Silicone grease", "silicone (PDMS)", "silica", "VMQ FVMQ", "breathing oxygen", "", "creeps; never where paint or bonding follows", "silicon grease", "silicone paste", silicone_free=False),
    Lubricant.SILICONE_GREASE_POTABLE: _row("Silicone grease listed for potable water", "silicone (PDMS)", "silica", "VMQ FVMQ", "breathing oxygen", "potable food", "the listing on the tube decides", "potable water grease", "drinking water grease", "tap grease", silicone_free=False),
    Lubricant.PFPE_GREASE: _row("PFPE grease", "perfluoropolyether", "PTFE", "FVMQ", "", "breathing oxygen", "listed for oxygen and breathing gas only with its certificate; dear", "perfluorinated grease", "oxygen grease"),
    Lubricant.BREATHING_AIR_GREASE: _row("Grease listed for breathing air", "perfluoropolyether or listed halocarbon", "PTFE", "FVMQ", "", "breathing oxygen", "as the maker of the set names it", "listed breathing-air grease", "breathing-air grease", "breathing air grease"),
    Lubricant.RUBBER_GREASE: _row("Castor-based rubber grease", "vegetable (castor)", "soap", "AU ACM", _ALL, "", "for glycol brake systems; dries in years", "rubber grease", "red rubber grease", "castor grease", "brake grease"),
    Lubricant.GLYCERINE: _row("Glycerine", "glycerol", "none", "", "breathing oxygen", "potable food", "draws water", "glycerin", "glycerol"),
    Lubricant.SOAP_SOLUTION: _row("Soapy water", "water", "none", "AU", "breathing oxygen", "", "fitting aid; dry before gas service", "washing-up liquid", "soap"),
    Lubricant.POLYGLYCOL_GREASE: _row("Polyglycol (PAG) grease", "polyalkylene glycol", "soap", "AU CR", _ALL, "", "attacks some paints and polycarbonate", "pag grease", "polyglycol grease"),
    Lubricant.ESTER_GREASE: _row("Ester grease", "synthetic ester", "soap", "NBR EPDM CR NR", _ALL, "", ""),
    Lubricant.FOOD_GEL: _row("Food-grade gel for diaphragms", "white mineral oil", "silica", "EPDM NR SBR IIR", "breathing oxygen", "food", "", "food-grade gel", "diaphragm gel"),
    Lubricant.ANTI_SEIZE_COPPER: _row("Copper anti-seize", "mineral with copper", "soap", "EPDM NR SBR IIR", _ALL, "", "threads only; not on stainless at heat with chlorides", "copper grease", "copper paste", on_seals=False),
    Lubricant.ANTI_SEIZE_NICKEL: _row("Nickel anti-seize", "mineral with nickel", "soap", "EPDM NR SBR IIR", _ALL, "", "threads only", "nickel paste", on_seals=False),
    Lubricant.MOLY_PASTE: _row("Molybdenum disulfide paste", "mineral", "soap", "EPDM NR SBR IIR", _ALL, "", "threads and splines; changes the nut factor", "moly grease", "molybdenum disulphide paste", "mos2 paste", on_seals=False),
    Lubricant.VISCOUS_FLUID: _row("Viscous silicone fluid of the unit", "silicone (PDMS)", "none", "VMQ FVMQ", _ALL, "", "a bath; not a grease", "viscous fluid", "silicone bath fluid", silicone_free=False),
    Lubricant.SERVICE_WATER: _row("Clean water of the unit", "water", "none", "AU", "breathing oxygen", "potable food", "only clean water is a lubricant", "water", "clean water"),
    Lubricant.SEALANT_ANAEROBIC: _row("Anaerobic thread sealant", "dimethacrylate", "none", "ABS PC PMMA", "breathing oxygen food", "", "metal threads; not on plastic", "anaerobic sealant", "thread locker", "threadlocker", on_seals=False),
    Lubricant.SEALANT_PTFE_PASTE: _row("PTFE thread paste", "vegetable oil", "PTFE", "", "breathing oxygen", "", "tapered threads", "thread paste", on_seals=False),
    Lubricant.SERVICE_FLUID: _row("The fluid of the unit", "as the unit", "none", "", "breathing oxygen", "potable food", "what it does to a seal is judged as the fluid of the unit", "service fluid", "clean service fluid"),
    Lubricant.MINERAL_OIL: _row("Mineral oil", "mineral", "none", "EPDM NR SBR IIR", _ALL, "", "whose kind is not known"),
    Lubricant.MINERAL_GREASE: _row("Mineral grease", "mineral", "soap", "EPDM NR SBR IIR", _ALL, "", "whose thickener is not known"),
    Lubricant.DIESEL_FUEL: _row("Clean diesel fuel of the unit", "mineral", "none", "EPDM NR SBR IIR VMQ", _ALL, "", "only where the unit runs on it", "clean diesel fuel", "diesel"),
    Lubricant.GASKET_SEALANT: _row("Gasket sealant, a thin film", "synthetic resin", "none", "ABS PC PMMA", "oxygen potable food", "breathing", "flat gaskets only, as the maker of the unit names it", "sealant", "jointing compound", gaskets_only=True),
    Lubricant.DRY: _row("Dry", "none", "none", "", "", _ALL, "a choice that is asked for and recorded as such", "nothing", "none"),
}
# fmt: on


def words_of(key: Lubricant) -> tuple[str, ...]:
    """Every word that a lubricant goes by, in small letters: its key, its name, its everyday names."""
    facts = LUBRICANTS[key]
    return (key.value, key.value.replace("_", " "), facts.name.casefold(), *facts.says)


_BY_WORD = {word: key for key in LUBRICANTS for word in words_of(key)}


def plain_word(word: str) -> str:
    """A name as it is looked up: in small letters, with single spaces."""
    return " ".join(word.casefold().split())


def find_lubricant(word: str, field: str = "lubricant", own: Mapping[str, Lubricant] | None = None) -> Lubricant:
    """The lubricant of that key, or by one of the words it goes by; ``own``: the names that the shop has given to some.

    Raises RuleError naming the field for a word that is none: a lubricant is never guessed.
    """
    plain = plain_word(word)
    found = _BY_WORD.get(plain) or (own or {}).get(plain)
    if found is None:
        text = f"“{word.strip()}” is not in the list of lubricants: read the tin and choose what it is"
        raise fault(
            field, text, *(key.value for key, facts in LUBRICANTS.items() if facts.on_seals), code="wrong-lubricant"
        )
    return found


def check_own_name(word: str, lubricant: Lubricant, field: str = "name") -> None:
    """Raises RuleError for a name of a shop's own that the list has for another lubricant: two meanings of one word are a trap."""
    meant = _BY_WORD.get(plain_word(word))
    if meant is not None:
        other = LUBRICANTS[meant].name
        text = (
            f"“{word.strip()}” is already {other}" if meant is lubricant else f"“{word.strip()}” is {other} in the list"
        )
        raise fault(field, f"{text}; give a name of your own", "as it stands on the tin")


def lubricant_words(word: str) -> str:
    """A lubricant as it is written in a record; the words themselves where an older entry has others."""
    try:
        name = LUBRICANTS[Lubricant(word)].name
    except ValueError:
        return word
    return name[0].lower() + name[1:] if name[:2] != name[:2].upper() else name


# What a lubricant is named by beside its own words: what it is made of, or what it is like.
_BASES = ("mineral", "silicone", "petroleum")
_LIKE = ("grease", "oil")


def is_known(what: str) -> bool:
    """Whether this names a lubricant, or a base: what a sheet may forbid."""
    word = what.strip().casefold()
    return word in {*_BASES, *_LIKE} or " ".join(word.split()) in _BY_WORD


def is_meant(what: str, lubricant: Lubricant, media: tuple[str, ...] = ()) -> bool:
    """Whether a lubricant is what somebody names: a key, a word it goes by, or a base, to which whatever is made of it belongs.

    Parameters: media : columns of the compatibility table that the fluid of the unit belongs to, for ``service_fluid``.
    """
    word = what.strip().casefold()
    facts = LUBRICANTS[lubricant]
    if word in _LIKE:
        return facts.is_grease if word == "grease" else facts.is_oil
    if word not in _BASES:
        try:
            named = find_lubricant(word)
        except RuleError:
            return False
        if named not in {Lubricant.MINERAL_GREASE, Lubricant.MINERAL_OIL}:
            return named is lubricant
        # Named without its kind it stands for all that are made alike.
        grease = named is Lubricant.MINERAL_GREASE
        return _is_of("mineral", lubricant, media) and facts.is_grease is grease
    return _is_of(word, lubricant, media)


def _is_of(base: str, lubricant: Lubricant, media: tuple[str, ...]) -> bool:
    own = LUBRICANTS[lubricant].base
    if lubricant is Lubricant.SERVICE_FLUID:
        own = "mineral" if {"mineral_hydraulic_oil", "diesel", "petrol"} & set(media) else ""
    return base in own or (base == "mineral" and "petroleum" in own)
