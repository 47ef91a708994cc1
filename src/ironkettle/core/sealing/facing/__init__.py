"""Stacks of seals: which way round, in what order, and what was found reversed."""

from ironkettle.core.sealing.facing.model import (
    Element,
    Orientation,
    OrientedElement,
    OrientedStation,
    Station,
    Zone,
    ZoneKind,
)
from ironkettle.core.sealing.facing.orient import orient, reversed_finding

__all__ = [
    "Element",
    "Orientation",
    "OrientedElement",
    "OrientedStation",
    "Station",
    "Zone",
    "ZoneKind",
    "orient",
    "reversed_finding",
]
