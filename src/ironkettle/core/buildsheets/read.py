"""Read a build sheet from YAML or JSON text, reporting each fault with its path."""

from __future__ import annotations

from typing import Any

import yaml
from pydantic import ValidationError

from ironkettle.core.buildsheets.check import sheet_faults
from ironkettle.core.buildsheets.model import FORMAT, BuildSheet
from ironkettle.core.errors import FieldFault, RuleError, fault

LONGEST_SHEET = 400_000


def read_sheet(text: str) -> BuildSheet:
    """A checked build sheet from YAML text (JSON is YAML).

    Raises RuleError with every fault found, each under its path (``stations.2.between.0``).
    """
    if len(text) > LONGEST_SHEET:
        raise fault("sheet", f"is longer than {LONGEST_SHEET} characters")
    try:
        document = yaml.safe_load(text)
    except yaml.YAMLError as error:
        mark = getattr(error, "problem_mark", None)
        where = f"line {mark.line + 1}, column {mark.column + 1}" if mark else "somewhere"
        problem = getattr(error, "problem", None) or "it is not YAML"
        raise fault("sheet", f"cannot be read as YAML at {where}: {problem}") from None
    except (RecursionError, ValueError):
        raise fault("sheet", "cannot be read as YAML: it holds a value no sheet can hold") from None
    if not isinstance(document, dict):
        raise fault("sheet", "is not a document with named fields", f"format: {FORMAT}")
    return sheet_from_document(document)


def sheet_from_document(document: dict[str, Any]) -> BuildSheet:
    """A checked build sheet from a parsed document. Raises RuleError with every fault."""
    try:
        sheet = BuildSheet.model_validate(document)
    except ValidationError as error:
        raise RuleError(validation_faults(error)) from None
    faults = sheet_faults(sheet)
    if faults:
        raise RuleError(faults)
    return sheet


def validation_faults(error: ValidationError, prefix: str = "") -> list[FieldFault]:
    """Pydantic's findings as field faults, without its wrapping words."""
    faults = []
    for item in error.errors(include_url=False, include_context=True):
        path = ".".join(str(part) for part in item["loc"]) or "document"
        message = item["msg"].removeprefix("Value error, ")
        expected = (item.get("ctx") or {}).get("expected")
        accepts = tuple(part.strip(" '") for part in str(expected).replace(" or ", ",").split(",")) if expected else ()
        faults.append(FieldFault(f"{prefix}{path}", message, accepts))
    return faults


def sheet_schema() -> dict[str, Any]:
    """The published JSON Schema of a build sheet."""
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **BuildSheet.model_json_schema()}
