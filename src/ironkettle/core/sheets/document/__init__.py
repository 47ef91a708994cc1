"""Build sheets: the document, its schema, its answers and positions, and what the rules take from it."""

from ironkettle.core.sheets.document.answers import answered, first_answers
from ironkettle.core.sheets.document.compare import Difference, differences
from ironkettle.core.sheets.document.findings import validation_faults
from ironkettle.core.sheets.document.sheet import FORMAT_2, Sheet, document_of, sheet_schema
from ironkettle.core.sheets.document.upgrade import upgraded_document

__all__ = [
    "FORMAT_2",
    "Difference",
    "Sheet",
    "answered",
    "differences",
    "document_of",
    "first_answers",
    "sheet_schema",
    "upgraded_document",
    "validation_faults",
]
