"""Limits of inspection by family of units: what a sheet takes over where it gives none of its own. [mm]"""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class PartLimit:
    """The most that is allowed of a fault in a family. [mm] Source: this project's usual values; the maker's drawing wins."""

    family: str
    key: str
    name: str
    most: float

    @property
    def rule(self) -> str:
        """Its key among the shop settings."""
        return f"limit_{self.family}_{self.key}"


PART_LIMITS: tuple[PartLimit, ...] = (
    PartLimit("cylinder", "rod_pit", "Depth of a pit in the rod", 0.05),
    PartLimit("cylinder", "rod_score", "Depth of a score in the rod", 0.02),
    PartLimit("cylinder", "rod_bend", "Run-out of the rod", 0.10),
    PartLimit("cylinder", "rod_wear", "Wear of the rod", 0.05),
    PartLimit("cylinder", "bore_score", "Depth of a score in the bore", 0.02),
    PartLimit("cylinder", "bore_oval", "Ovality of the bore", 0.05),
    PartLimit("cylinder", "bore_wear", "Wear of the bore", 0.10),
    PartLimit("pump", "plunger_score", "Depth of a score in the plunger", 0.02),
    PartLimit("pump", "plunger_wear", "Wear of the plunger", 0.03),
    PartLimit("compressor", "bore_score", "Depth of a score in the cylinder", 0.02),
    PartLimit("compressor", "bore_wear", "Wear of the cylinder", 0.05),
    PartLimit("compressor", "face_flat", "Face out of flat", 0.05),
    PartLimit("valve", "face_flat", "Seat face out of flat", 0.02),
    PartLimit("valve", "stem_score", "Depth of a score in the stem", 0.02),
    PartLimit("coupler", "face_flat", "Seal face out of flat", 0.03),
    PartLimit("tool", "bore_wear", "Wear of the bore", 0.10),
)
FAMILIES = (
    "cylinder", "valve", "regulator", "injector", "coupler", "pump", "motor", "compressor", "tool", "other",
)  # fmt: skip
"""What a sheet's family can be; a shop limit is its family's own."""


def part_limit(family: str, key: str) -> PartLimit | None:
    """The shop limit of that key for a sheet's family, one of ``FAMILIES``; None where there is none."""
    return next((limit for limit in PART_LIMITS if (limit.family, limit.key) == (family, key)), None)
