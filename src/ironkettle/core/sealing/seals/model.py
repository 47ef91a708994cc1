"""Lip seals, wipers, slide rings, wear bands, packings and shaft seals by the housing they live in."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum


class SealKind(StrEnum):
    LIP_SEAL = "lip_seal"
    WIPER = "wiper"
    SLIDE_RING = "slide_ring"
    WEAR_BAND = "wear_band"
    V_PACKING = "v_packing"
    SHAFT_SEAL = "shaft_seal"
    METAL_CLAD_WIPER = "metal_clad_wiper"


class SealSide(StrEnum):
    """Whether the moving surface is a rod (housing larger) or a bore (groove smaller)."""

    ROD = "rod"
    BORE = "bore"


@dataclass(frozen=True, slots=True)
class HousingRow:
    """Section and length of a standard housing [mm]; ``side`` where the standard has it for one only."""

    standard: str
    kind: SealKind
    section: float
    length: float
    source: str
    side: SealSide | None = None


@dataclass(frozen=True, slots=True)
class SealSize:
    """A seal by its housing: rod or bore it runs on, groove diameter, length. [mm]

    ``in_stock`` counts what the shop holds; None for a standard size nobody has counted.
    """

    kind: SealKind
    side: SealSide
    surface: float
    groove: float
    length: float
    name: str
    source: str
    in_stock: int | None = None

    @property
    def section(self) -> float:
        """Radial section of the housing. [mm]"""
        return abs(self.groove - self.surface) / 2


@dataclass(frozen=True, slots=True)
class Housing:
    """A housing as measured; ``tolerance`` is how far a size may lie off and still be it. [mm]"""

    kind: SealKind
    side: SealSide
    surface: float
    groove: float
    length: float
    tolerance: float = 0.15
