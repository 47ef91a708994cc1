"""What of an entry may be put right: the asks of the move it completes, with what stands in each."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from ironkettle.core.jobs.chart import move_key_of_document, moves_of
from ironkettle.core.jobs.log import Case
from ironkettle.core.jobs.model import Ask
from ironkettle.core.sheets.document.parts import Read

# Fields of entries that belong to no move.
_LOOSE = {
    "note_made": (Ask("text", Read.TEXT, "Note"),),
    "entry_struck": (Ask("reason", Read.TEXT, "Reason"),),
    "move_skipped": (Ask("reason", Read.TEXT, "Reason"),),
    "reopened": (Ask("reason", Read.TEXT, "Reason"),),
    "taken_apart": (Ask("reason", Read.TEXT, "Reason"),),
    "test_closed": (Ask("note", Read.TEXT, "Note"),),
}


def asked_of(case: Case, document: Mapping[str, Any]) -> tuple[tuple[Ask, Any], ...]:
    """The asks of an entry, taken or refused, with their values; none where there is nothing to change.

    Parameters: document : the payload as it was sent, of any shape.
    """
    asks: tuple[Ask, ...] = _LOOSE.get(str(document.get("kind")), ())
    key = move_key_of_document(document)
    if key is not None:
        move = next((one for one in moves_of(case) if one.key == key), None)
        asks = tuple(ask for ask in move.asks if ask.read is not Read.TRACE) if move else ()
    if "note" in document and all(ask.field != "note" for ask in asks):
        asks = (*asks, Ask("note", Read.TEXT, "Note", optional=True))
    return tuple((ask, _at(document, ask.field)) for ask in asks)


def _at(document: Any, path: str) -> Any:
    """The value at a dotted path; None where there is none."""
    for name in path.split("."):
        if isinstance(document, Mapping):
            document = document.get(name)
        elif isinstance(document, list) and name.isdigit() and int(name) < len(document):
            document = document[int(name)]
        else:
            return None
    return document
