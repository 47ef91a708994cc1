"""Tables of published figures and the one loader that turns them into core's types."""

from ironkettle.reference.loader import (
    bolt_strengths,
    extrusion_limits,
    fluids,
    gland_rows,
    nut_factors,
    ring_table,
    threads,
)

__all__ = [
    "bolt_strengths",
    "extrusion_limits",
    "fluids",
    "gland_rows",
    "nut_factors",
    "ring_table",
    "threads",
]
