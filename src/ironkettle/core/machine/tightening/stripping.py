"""Whether the thread in a soft part strips before the bolt is tight."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass

from ironkettle.core.base.errors import fault
from ironkettle.core.machine.tightening.threads import Thread

# Of the cylinder at the major diameter, a tapped thread of basic size has seven eighths in shear.
_SHEARED = 0.875


@dataclass(frozen=True, slots=True)
class Tapped:
    """A part that a thread is tapped into: its shear strength [MPa], and whether it is soft."""

    material: str
    shear: float
    soft: bool


def strip_load(thread: Thread, engaged: float, tapped: Tapped) -> float:
    """The load at which a tapped thread strips: 0.875·π·d·Le·τ. [kN]

    Parameters: engaged > 0, full threads only [mm].
    Source: shear area of an internal thread at basic size (FED-STD-H28: π·Le·d·(1/2 + 0.57735·(d − d2)/p),
    with d − d2 = 0.6495·p).

    >>> round(strip_load(Thread("M8", 8, 1.25), 12, Tapped("aluminium", 120, True)), 1)
    31.7
    """
    return _SHEARED * math.pi * thread.major_diameter * engaged * tapped.shear / 1000


def engagement_needed(load: float, thread: Thread, tapped: Tapped, share: float) -> float:
    """The engaged length at which a load [kN] takes only this share of what strips the thread. [mm]

    Parameters: load > 0 [kN], share between 0 and 1 [-]. Source: as ``strip_load``.
    """
    return load * 1000 / (_SHEARED * math.pi * thread.major_diameter * tapped.shear * share)


def find_tapped(material: str, known: Iterable[Tapped], field: str) -> Tapped:
    """The material a thread is tapped into. Raises RuleError naming those known."""
    rows = tuple(known)
    for row in rows:
        if row.material.casefold() == material.strip().casefold():
            return row
    raise fault(field, f"“{material}” is not a known material", *(row.material for row in rows))
