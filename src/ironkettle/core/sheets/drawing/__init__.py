"""The drawing of a sheet from its own facts: solids, seats, spaces found and proved, the picture, leak paths."""

from ironkettle.core.sheets.drawing.picture import Picture, picture
from ironkettle.core.sheets.drawing.proof import prove

__all__ = ["Picture", "picture", "prove"]
