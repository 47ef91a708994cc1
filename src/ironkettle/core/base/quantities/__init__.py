"""Quantities as a technician writes them, and back."""

from ironkettle.core.base.quantities.band import Band, read_band, read_tolerance
from ironkettle.core.base.quantities.fits import fit_limits
from ironkettle.core.base.quantities.format import in_both, show, show_tolerance
from ironkettle.core.base.quantities.lasting import seconds_words, stated_seconds
from ironkettle.core.base.quantities.notation import plain_notation
from ironkettle.core.base.quantities.number import read_number
from ironkettle.core.base.quantities.parse import (
    Quantity,
    read_flow,
    read_gauge_pressure,
    read_length,
    read_quantity,
    read_speed,
    read_temperature,
    read_torque,
    read_volume,
)
from ironkettle.core.base.quantities.slips import unit_slip
from ironkettle.core.base.quantities.tolerance import Toleranced, read_toleranced, read_toleranced_length
from ironkettle.core.base.quantities.turns import turns_of, written_turns
from ironkettle.core.base.quantities.units import (
    BASE_UNIT,
    DROP_ML,
    OFFERED,
    Dimension,
    Unit,
    accepted_symbols,
    find_unit,
    from_base,
    scale_and_offset,
    to_base,
)
from ironkettle.core.base.quantities.written import written_half

__all__ = [
    "BASE_UNIT",
    "DROP_ML",
    "OFFERED",
    "Band",
    "Dimension",
    "Quantity",
    "Toleranced",
    "Unit",
    "accepted_symbols",
    "find_unit",
    "fit_limits",
    "from_base",
    "in_both",
    "plain_notation",
    "read_band",
    "read_flow",
    "read_gauge_pressure",
    "read_length",
    "read_number",
    "read_quantity",
    "read_speed",
    "read_temperature",
    "read_tolerance",
    "read_toleranced",
    "read_toleranced_length",
    "read_torque",
    "read_volume",
    "scale_and_offset",
    "seconds_words",
    "show",
    "show_tolerance",
    "stated_seconds",
    "to_base",
    "turns_of",
    "unit_slip",
    "written_half",
    "written_turns",
]
