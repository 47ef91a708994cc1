"""Which sizes fit a groove, best first, and why the near ones do not."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ironkettle.core.sealing.grooves.check import GlandCheck, check_rings
from ironkettle.core.sealing.grooves.model import Gland, GlandTables
from ironkettle.core.sealing.grooves.sift import sift_rings
from ironkettle.core.sealing.rings.sizes import RingSize, RingTable

_VERDICT_ORDER = {"good": 0, "caution": 1, "reject": 2}
_LOOKED_AT_CLOSELY = 60


@dataclass(frozen=True, slots=True)
class Fit:
    """A size that fits, with its check and its other names."""

    size: RingSize
    check: GlandCheck
    also: tuple[RingSize, ...]


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

    All sizes are sifted at nominal dimensions; those that can live there are checked over every
    tolerance. Order: verdict, then how far squeeze lies from the middle of its limits and stretch
    from 2 %, each in units of its allowance. Sizes that the full check rejects, for more than a
    backup ring that is wanting, are near misses, and so are the nearest that the sifting left out.

    Parameters: gland [mm, MPa, °C]; limit : how many of each kind, >= 1.
    Source: the groove check's limits.
    """
    sifted = sift_rings(gland, table, tables.limits)
    discomfort = sifted.discomfort
    inside = [int(i) for i in np.argsort(discomfort, kind="stable") if sifted.fits[i]][:_LOOKED_AT_CLOSELY]
    checks = dict(zip(inside, check_rings(gland, [table.sizes[i] for i in inside], tables), strict=True))
    sound = [i for i in inside if checks[i].verdict != "reject" or _only_backup(checks[i])]
    sound.sort(key=lambda i: (_VERDICT_ORDER[checks[i].verdict], discomfort[i]))
    fits = _merged(sound, table, checks)
    failed = [
        NearMiss(table.sizes[i], tuple(f.message for f in checks[i].findings if f.severity == "reject"))
        for i in inside
        if i not in sound
    ]
    outside = [
        NearMiss(table.sizes[int(i)], sifted.reasons(int(i)))
        for i in np.argsort(sifted.misfit + 0.05 * discomfort, kind="stable")[: len(inside) + limit]
        if not sifted.fits[i]
    ]
    return GrooveSearch(tuple(fits[:limit]), tuple([*failed, *outside][:limit]))


def _merged(order: list[int], table: RingTable, checks: dict[int, GlandCheck]) -> list[Fit]:
    """One line for sizes that are one ring under several names, at the place of the best, first name of the table."""
    fits, seen = [], set[int]()
    for place in order:
        if place in seen:
            continue
        first, *others = sorted(i for i in table.names_of(place) if i in order)
        seen.update((first, *others))
        fits.append(Fit(table.sizes[first], checks[first], tuple(table.sizes[i] for i in others)))
    return fits


def _only_backup(check: GlandCheck) -> bool:
    """A ring is not at fault when all that is missing is a backup ring."""
    return all(f.code == "backup-missing" for f in check.findings if f.severity == "reject")
