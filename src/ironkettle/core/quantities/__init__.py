"""Quantities as a technician writes them, and back."""

from ironkettle.core.quantities.format import in_both, show
from ironkettle.core.quantities.parse import (
    Quantity,
    Toleranced,
    read_flow,
    read_gauge_pressure,
    read_length,
    read_number,
    read_quantity,
    read_temperature,
    read_toleranced_length,
    read_torque,
    read_volume,
    split_tolerance,
)
from ironkettle.core.quantities.units import BASE_UNIT, Dimension, Unit, find_unit, from_base, to_base

__all__ = [
    "BASE_UNIT",
    "Dimension",
    "Quantity",
    "Toleranced",
    "Unit",
    "find_unit",
    "from_base",
    "in_both",
    "read_flow",
    "read_gauge_pressure",
    "read_length",
    "read_number",
    "read_quantity",
    "read_temperature",
    "read_toleranced_length",
    "read_torque",
    "read_volume",
    "show",
    "split_tolerance",
    "to_base",
]
