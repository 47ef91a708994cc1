"""Cylinder sums: areas, forces, volumes, speeds, intensification, loads, drift, heat, ratings."""

from ironkettle.core.machine.cylinders.loads import Rating, drift_of, held_pressure, leak_of, thermal_rise, weakest
from ironkettle.core.machine.cylinders.size import Cylinder, CylinderSums, oil_to_drain, size_cylinder

__all__ = [
    "Cylinder",
    "CylinderSums",
    "Rating",
    "drift_of",
    "held_pressure",
    "leak_of",
    "oil_to_drain",
    "size_cylinder",
    "thermal_rise",
    "weakest",
]
