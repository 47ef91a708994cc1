"""The catalogue: every kind of element once."""

from ironkettle.core.sealing.catalogue.kinds import (
    BACKUPS,
    KINDS,
    WIPERS,
    ElementKind,
    Group,
    KindFacts,
    Law,
    has_law,
    nested,
)
from ironkettle.core.sealing.catalogue.outlines import BLOCK, Polygon

__all__ = [
    "BACKUPS",
    "BLOCK",
    "KINDS",
    "WIPERS",
    "ElementKind",
    "Group",
    "KindFacts",
    "Law",
    "Polygon",
    "has_law",
    "nested",
]
