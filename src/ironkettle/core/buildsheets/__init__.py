"""Build sheets: the document, its schema, reading it with precise faults, and views for the rules."""

from ironkettle.core.buildsheets.model import (
    FORMAT,
    BuildSheet,
    ElementSpec,
    FastenerGroup,
    Kit,
    KitLine,
    StationSpec,
    StepSpec,
    TestSpec,
)
from ironkettle.core.buildsheets.read import read_sheet, sheet_from_document, sheet_schema, validation_faults
from ironkettle.core.buildsheets.views import cylinder_of, gland_of, orientation_of, torque_range_of, zones_of

__all__ = [
    "FORMAT",
    "BuildSheet",
    "ElementSpec",
    "FastenerGroup",
    "Kit",
    "KitLine",
    "StationSpec",
    "StepSpec",
    "TestSpec",
    "cylinder_of",
    "gland_of",
    "orientation_of",
    "read_sheet",
    "sheet_from_document",
    "sheet_schema",
    "torque_range_of",
    "validation_faults",
    "zones_of",
]
