"""How a material is cleaned of a soil, how long it soaks, and what must not touch it."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Cleaning:
    """One row of the cleaning table; ``soak`` in minutes, 0 where nothing soaks. Source: this project's own shop practice."""

    material: str
    soil: str
    how: str
    soak: float
    never: str

    @property
    def words(self) -> str:
        """What to do, and the don't."""
        soak = f"; soaks {self.soak:g} min" if self.soak else ""
        return f"{self.soil} on {self.material}: {self.how}{soak}. Never {self.never}"


def cleaning_of(rows: Iterable[Cleaning], material: str, soil: str) -> Cleaning | None:
    """The row for a material and a soil; None where the table has none."""
    return next((row for row in rows if (row.material, row.soil) == (material, soil.strip().casefold())), None)


__all__ = ["Cleaning", "cleaning_of"]
