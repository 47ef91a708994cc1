"""What a housing is made of: how it gives under pressure, and how it grows with heat."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum


class HousingMaterial(StrEnum):
    """What the part around a seal or a test volume is made of."""

    STEEL = "steel"
    STAINLESS = "stainless"
    CAST_IRON = "cast_iron"
    ALUMINIUM = "aluminium"
    BRASS = "brass"
    PLASTIC = "plastic"


REFERENCE_TEMPERATURE_C = 20.0


@dataclass(frozen=True, slots=True)
class Housing:
    """Young's modulus [MPa], Poisson's ratio [-] and linear expansion [1/K], at 20 °C; ``word`` for a sentence."""

    word: str
    youngs_modulus: float
    poisson: float
    linear_expansion: float


# Usual handbook values at 20 °C; brass stands for bronze as well, plastic for POM. The maker's data sheet wins.
HOUSINGS = {
    HousingMaterial.STEEL: Housing("steel", 206_000.0, 0.29, 11.7e-6),
    HousingMaterial.STAINLESS: Housing("stainless steel", 193_000.0, 0.30, 16.0e-6),
    HousingMaterial.CAST_IRON: Housing("cast iron", 110_000.0, 0.26, 10.5e-6),
    HousingMaterial.ALUMINIUM: Housing("aluminium", 70_000.0, 0.33, 23.1e-6),
    HousingMaterial.BRASS: Housing("brass", 105_000.0, 0.34, 19.0e-6),
    HousingMaterial.PLASTIC: Housing("plastic", 2_700.0, 0.38, 80e-6),
}
