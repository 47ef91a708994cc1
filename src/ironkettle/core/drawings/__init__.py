"""Drawings: the section through a unit as shapes in millimetres."""

from ironkettle.core.drawings.scene import ElementShape, PartShape, Scene, StationShape, ZoneShape, draw

__all__ = ["ElementShape", "PartShape", "Scene", "StationShape", "ZoneShape", "draw"]
