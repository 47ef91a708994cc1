"""What pydantic finds wrong with a sheet, as faults each under its path."""

from __future__ import annotations

from pydantic import ValidationError

from ironkettle.core.base.errors import FieldFault
from ironkettle.core.base.wording import plain_words


def validation_faults(error: ValidationError, prefix: str = "") -> list[FieldFault]:
    """Pydantic's findings as field faults, without its wrapping words."""
    faults = []
    for item in error.errors(include_url=False, include_context=True):
        # The body of a solid is no field of the sheet: its primitive stands there.
        path = ".".join(str(part) for part in item["loc"] if part != "body") or "document"
        context = item.get("ctx") or {}
        message = plain_words(item["type"], item["msg"], context)
        expected = context.get("expected") or context.get("expected_tags")
        accepts = tuple(part.strip(" '") for part in str(expected).replace(" or ", ",").split(",")) if expected else ()
        faults.append(FieldFault(f"{prefix}{path}", message, accepts))
    return faults
