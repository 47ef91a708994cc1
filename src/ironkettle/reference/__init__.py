"""Tables of published figures and the one loader that turns them into core's types."""

from ironkettle.reference.loader import (
    bolt_strengths,
    cleaning,
    compounds,
    extrusion_limits,
    failure_table,
    fastener_tables,
    fluids,
    gland_rows,
    media,
    nut_factors,
    ring_table,
    seal_sizes,
    shipped_tables,
    tapped_materials,
    threads,
)

__all__ = [
    "bolt_strengths",
    "cleaning",
    "compounds",
    "extrusion_limits",
    "failure_table",
    "fastener_tables",
    "fluids",
    "gland_rows",
    "media",
    "nut_factors",
    "ring_table",
    "seal_sizes",
    "shipped_tables",
    "tapped_materials",
    "threads",
]
