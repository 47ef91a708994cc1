"""How a material is cleaned of a soil, how long it soaks, and what must not touch it."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Cleaning:
    """One row of the cleaning table; ``soak`` in minutes, 0 where nothing soaks; ``cleaner``: the usual one, none for what is dressed off.

    Source: this project's own shop practice.
    """

    material: str
    soil: str
    cleaner: str
    how: str
    soak: float
    never: str


def cleaning_of(rows: Iterable[Cleaning], material: str, soil: str) -> Cleaning | None:
    """The row for a material and a soil; None where the table has none."""
    return next((row for row in rows if (row.material, row.soil) == (material, soil.strip().casefold())), None)


__all__ = ["Cleaning", "cleaning_of"]
