"""Compounds and the media they meet, and how a shop reads the ratings."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from enum import IntEnum, StrEnum
from functools import lru_cache

from ironkettle.core.base.errors import fault

BASIS = "compatibility table (general guidance; the compound maker's data win)"


class Rating(IntEnum):
    """How a compound stands a medium, as the table writes it."""

    GOOD = 1
    FAIR = 2
    DOUBTFUL = 3
    DO_NOT_USE = 4


class Duty(StrEnum):
    """Services with rules of their own, over and above the medium."""

    GENERAL = "general"
    OXYGEN = "oxygen"
    BREATHING = "breathing"
    FOOD = "food"
    POTABLE = "potable"


def duty_of_service(cleanliness: str) -> Duty:
    """The duty that a sheet names as the cleanliness of its service; *none* is general."""
    return Duty.GENERAL if cleanliness == "none" else Duty(cleanliness)


@dataclass(frozen=True, slots=True)
class Compound:
    """A compound family: temperature range in °C and its rating by medium."""

    name: str
    low: float
    high: float
    ratings: Mapping[str, Rating]


# The fluids of the fluid table by the column of the compatibility table they belong to.
_FLUID_STARTS = {
    "mineral oil": "mineral_hydraulic_oil",
    "hydraulic oil": "mineral_hydraulic_oil",
    "brake fluid": "glycol_brake_fluid",
    "antifreeze": "glycol_coolant",
    "coolant": "glycol_coolant",
    "fresh water": "water",
    "river water": "water",
    "sea water": "water",
    "heated water": "water",
    "drinking water": "water",
    "compressed air": "dry_air",
    "water-glycol": "water_glycol_hfc",
    "synthetic ester": "synthetic_ester_hees",
    "phosphate ester": "phosphate_ester_hfdr",
    "vegetable oil": "vegetable_oil_hetg",
    "nitrogen": "dry_air",
    "diesel": "diesel",
    "petrol": "petrol",
    "air": "dry_air",
}


def medium_of(fluid: str, media: tuple[str, ...], field: str = "fluid") -> str:
    """The column of the compatibility table for a fluid or medium by its name.

    Raises RuleError naming the field, with the media that are known, when there is none.
    """
    found = find_medium(fluid, media)
    if found is None:
        raise fault(field, f"“{fluid.strip()}” is not a known medium", *media)
    return found


@lru_cache(maxsize=512)
def find_medium(fluid: str, media: tuple[str, ...]) -> str | None:
    """The column of the compatibility table for a fluid or medium by its name; None where there is none. Source: the table's own names."""
    plain = fluid.strip().casefold()
    key = plain.replace(" ", "_").replace("-", "_")
    if key in media:
        return key
    return next((column for start, column in _FLUID_STARTS.items() if plain.startswith(start)), None)


def find_compound(name: str, compounds: tuple[Compound, ...], field: str = "material") -> Compound:
    """The compound of that name. Raises RuleError naming the field when there is none."""
    found = next((compound for compound in compounds if compound.name.casefold() == name.strip().casefold()), None)
    if found is None:
        raise fault(field, f"“{name.strip()}” is not a known compound", *(compound.name for compound in compounds))
    return found
