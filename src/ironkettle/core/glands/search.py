"""Which sizes fit a groove, best first, and why the near ones do not."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ironkettle.core.glands.check import GlandCheck, check_gland, fits_of
from ironkettle.core.glands.model import Gland, GlandTables, Seat
from ironkettle.core.rings.sizes import Floats, RingSize, RingTable

_VERDICT_ORDER = {"good": 0, "caution": 1, "reject": 2}
COMFORTABLE_STRETCH_PCT = 2.0
_LOOKED_AT_CLOSELY = 40


@dataclass(frozen=True, slots=True)
class Fit:
    """A size that fits, with its check."""

    size: RingSize
    check: GlandCheck


@dataclass(frozen=True, slots=True)
class NearMiss:
    """A size near the groove that does not fit, and why."""

    size: RingSize
    reasons: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class GrooveSearch:
    fits: tuple[Fit, ...]
    near: tuple[NearMiss, ...]


def search_rings(gland: Gland, table: RingTable, tables: GlandTables, *, limit: int = 10) -> GrooveSearch:
    """Sizes of ``table`` for a groove, best first.

    All sizes are sifted at nominal dimensions; those that fit are then checked over every tolerance.
    Order: verdict, then how far squeeze lies from the middle of its limits and stretch from 2 %,
    each in units of its allowance. Sizes that a full check rejects are near misses.

    Parameters: gland [mm, MPa, °C]; limit : how many of each kind, >= 1.
    Source: the groove check's limits.
    """
    fitting, reasons = fits_of(gland, table, tables.limits)
    distance = _distance(gland, table)
    order = [int(index) for index in np.argsort(distance, kind="stable")]
    checked = [
        Fit(table.sizes[index], check_gland(gland, table.sizes[index], tables))
        for index in [i for i in order if fitting[i]][:_LOOKED_AT_CLOSELY]
    ]
    fits = [fit for fit in checked if fit.check.verdict != "reject" or _only_backup(fit.check)]
    fits.sort(key=lambda fit: (_VERDICT_ORDER[fit.check.verdict], _discomfort(fit.check, gland, tables)))
    failed = [
        NearMiss(fit.size, tuple(f.message for f in fit.check.findings if f.severity == "reject"))
        for fit in checked
        if fit not in fits
    ]
    sifted = [NearMiss(table.sizes[index], reasons[index]) for index in order if not fitting[index]][:limit]
    return GrooveSearch(tuple(fits[:limit]), tuple([*failed, *sifted][:limit]))


def _distance(gland: Gland, table: RingTable) -> Floats:
    """How far each size is from the groove, diameter and section alike. [mm]"""
    if gland.seat is Seat.FACE:
        return np.asarray(np.abs(table.inside_diameter + 2 * table.section - gland.groove_diameter.nominal))
    sitting = gland.groove_diameter if gland.seat is Seat.PISTON else gland.rod
    across = gland.bore if gland.seat is Seat.PISTON else gland.groove_diameter
    assert sitting is not None
    assert across is not None
    depth = abs(across.nominal - sitting.nominal) / 2
    return np.asarray(np.abs(table.inside_diameter - sitting.nominal) + 4 * np.abs(table.section - depth / 0.82))


def _only_backup(check: GlandCheck) -> bool:
    """A ring is not at fault when all that is missing is a backup ring."""
    return all(f.code == "backup-missing" for f in check.findings if f.severity == "reject")


def _discomfort(check: GlandCheck, gland: Gland, tables: GlandTables) -> float:
    band = tables.limits.squeeze(gland.motion, gland.medium)
    middle, half = (band.low + band.high) / 2, (band.high - band.low) / 2
    return abs(check.squeeze_pct.nominal - middle) / half + abs(check.stretch_pct.nominal - COMFORTABLE_STRETCH_PCT) / 3
