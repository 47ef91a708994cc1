"""Cylinders: areas, forces, volumes, times."""

from ironkettle.core.cylinders.size import Cylinder, CylinderSums, oil_to_drain, size_cylinder

__all__ = ["Cylinder", "CylinderSums", "oil_to_drain", "size_cylinder"]
