"""Is a build sheet sound: its shape, its names, its figures, its order of work, its geometry. Every fault by its path."""

from ironkettle.core.soundness.check import Soundness, check_sheet, check_text, read_text
from ironkettle.core.soundness.figures import SheetTables

__all__ = ["SheetTables", "Soundness", "check_sheet", "check_text", "read_text"]
