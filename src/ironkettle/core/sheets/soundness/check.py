"""Everything that is wrong with a sheet, each fault under its path; and what the proof found where nothing is."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any

from pydantic import ValidationError

from ironkettle.core.base.errors import FieldFault, RuleError
from ironkettle.core.sheets.document.findings import validation_faults
from ironkettle.core.sheets.document.sheet import Sheet
from ironkettle.core.sheets.document.text import read_document
from ironkettle.core.sheets.drawing.proof import Proof, prove
from ironkettle.core.sheets.soundness.cleaners import cleaner_sheet_faults
from ironkettle.core.sheets.soundness.consistent import consistency_faults
from ironkettle.core.sheets.soundness.covering import covering_faults
from ironkettle.core.sheets.soundness.entering import entering_faults
from ironkettle.core.sheets.soundness.figures import SheetTables, figure_faults
from ironkettle.core.sheets.soundness.lubricants import lubricant_faults
from ironkettle.core.sheets.soundness.names import name_faults
from ironkettle.core.sheets.soundness.order import order_faults
from ironkettle.core.sheets.soundness.proven import proof_faults
from ironkettle.core.sheets.soundness.steps import stage_faults


@dataclass
class Soundness:
    """``sheet`` where the text has the shape of one; ``faults`` empty where it is sound."""

    sheet: Sheet | None = None
    faults: list[FieldFault] = field(default_factory=list)
    proof: Proof = field(default_factory=Proof)


def check_text(text: str, tables: SheetTables) -> Soundness:
    """A sheet's text checked for shape, names, figures, order and geometry. Faults are an answer, nothing is raised."""
    try:
        document = read_document(text)
    except RuleError as error:
        return Soundness(faults=list(error.faults))
    return check_document(document, tables)


def check_document(document: dict[str, Any], tables: SheetTables) -> Soundness:
    """A parsed document checked like ``check_text``."""
    try:
        sheet = Sheet.model_validate(document)
    except ValidationError as error:
        return Soundness(faults=validation_faults(error))
    return check_sheet(sheet, tables)


def check_sheet(sheet: Sheet, tables: SheetTables) -> Soundness:
    """A well-formed sheet: geometry is proved only where names and figures are sound, for it stands on them."""
    faults = [
        *stage_faults(sheet),
        *name_faults(sheet),
        *figure_faults(sheet, tables),
        *lubricant_faults(sheet, tables.compounds),
        *cleaner_sheet_faults(sheet),
        *proof_faults(sheet),
    ]
    if faults:
        return Soundness(sheet, faults)
    faults = [*consistency_faults(sheet, tables.fasteners.threads), *entering_faults(sheet), *order_faults(sheet)]
    if not faults:
        # The order has to be sound for what is on at a step to be known.
        faults += covering_faults(sheet)
    proof = prove(sheet)
    return Soundness(sheet, [*faults, *proof.faults], proof)


def read_text(text: str, tables: SheetTables) -> Sheet:
    """A sound sheet from its text. Raises RuleError with every fault found."""
    found = check_text(text, tables)
    if found.faults or found.sheet is None:
        raise RuleError(found.faults)
    return found.sheet
