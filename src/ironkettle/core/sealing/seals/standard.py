"""Standard seal sizes made by rule: every standard rod and bore with every housing section that suits it."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from ironkettle.core.sealing.seals.model import HousingRow, SealKind, SealSide, SealSize

# A section much thinner or thicker than this share of the diameter is not made.
_THINNEST, _THICKEST = 0.02, 0.55
_ONLY_ON_RODS = {SealKind.WIPER}
# Wear bands are cut from strip; thickness and width in mm as strip is commonly sold.
STRIP_THICKNESS_MM = (1.5, 2.0, 2.5, 4.0)
STRIP_WIDTH_MM = (4.0, 5.6, 6.3, 8.1, 9.7, 15.0, 20.0, 25.0)
STRIP_SOURCE = "common strip sizes, by rule; not a standard"


def standard_seals(
    rods: Sequence[float], bores: Sequence[float], housings: Iterable[HousingRow]
) -> tuple[SealSize, ...]:
    """Every standard rod and bore with every housing section that suits it. [mm]

    Parameters: rods and bores of the standard series [mm], > 0; housings by standard.
    Source: ISO 3320 series, ISO 5597, ISO 7425 and ISO 6195 A sections and lengths
    (reference/tables); the pairing is by rule, so not every size made here is on a maker's list.
    """
    made = []
    for row in [*housings, *_strip()]:
        for side, surfaces in ((SealSide.ROD, rods), (SealSide.BORE, bores)):
            if row.side not in (None, side) or (side is SealSide.BORE and row.kind in _ONLY_ON_RODS):
                continue
            outward = 1 if side is SealSide.ROD else -1
            made += [
                SealSize(
                    row.kind,
                    side,
                    surface,
                    surface + outward * 2 * row.section,
                    row.length,
                    f"{row.standard} {surface:g} × {surface + outward * 2 * row.section:g} × {row.length:g}",
                    row.source,
                )
                for surface in surfaces
                if _THINNEST <= row.section / surface <= _THICKEST and surface + outward * 2 * row.section > 0
            ]
    return tuple(made)


def _strip() -> list[HousingRow]:
    return [
        HousingRow("strip", SealKind.WEAR_BAND, thickness, width, STRIP_SOURCE)
        for thickness in STRIP_THICKNESS_MM
        for width in STRIP_WIDTH_MM
    ]
