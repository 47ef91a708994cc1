"""What pydantic finds wrong with a sheet, as faults each under its path."""

from __future__ import annotations

from collections.abc import Iterator

from pydantic import ValidationError

from ironkettle.core.base.errors import FieldFault
from ironkettle.core.base.wording import plain_words


def validation_faults(error: ValidationError, prefix: str = "") -> list[FieldFault]:
    """Pydantic's findings as field faults, without its wrapping words."""
    faults = []
    for item in error.errors(include_url=False, include_context=True):
        path = ".".join(_path(item["loc"])) or "document"
        context = item.get("ctx") or {}
        message = plain_words(item["type"], item["msg"], context)
        expected = context.get("expected") or context.get("expected_tags")
        accepts = tuple(part.strip(" '") for part in str(expected).replace(" or ", ",").split(",")) if expected else ()
        faults.append(FieldFault(f"{prefix}{path}", message, accepts))
    return faults


# Lists whose items are told apart by their kind: it stands in pydantic's path, and is no field of the sheet.
_TAGGED = frozenset({"seats", "tests", "settings", "phases", "points"})


def _path(loc: tuple[int | str, ...]) -> Iterator[str]:
    for place, part in enumerate(loc):
        # The body of a solid is no field either: its primitive stands there.
        if part == "body" or (place > 1 and loc[place - 2] in _TAGGED and isinstance(loc[place - 1], int)):
            continue
        yield str(part)
