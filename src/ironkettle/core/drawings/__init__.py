"""The drawing of a sheet from its own facts: solids, seats, spaces found and proved, the picture, leak paths."""

from ironkettle.core.drawings.picture import Picture, picture
from ironkettle.core.drawings.proof import prove

__all__ = ["Picture", "picture", "prove"]
