"""Is a build sheet sound: its shape, its names, its figures, its order of work, its geometry. Every fault by its path."""

from ironkettle.core.sheets.soundness.check import Soundness, check_sheet, check_text, read_text
from ironkettle.core.sheets.soundness.figures import SheetTables
from ironkettle.core.sheets.soundness.proven import proof_of

__all__ = ["SheetTables", "Soundness", "check_sheet", "check_text", "proof_of", "read_text"]
