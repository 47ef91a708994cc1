"""What of an entry may be put right: the asks of the task it completes, with what stands in each."""

from __future__ import annotations

from collections.abc import Mapping

from ironkettle.core.jobs.ask import Ask
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.registry import loose_asks_of, task_key_of_document
from ironkettle.core.jobs.tasks import tasks_of
from ironkettle.core.sheets.document.parts import Read


def asked_of(case: Case, document: Mapping[str, object]) -> tuple[tuple[Ask, object], ...]:
    """The asks of an entry, taken or refused, with their values; none where there is nothing to change.

    Parameters: document : the payload as it was sent, of any shape.
    """
    asks: tuple[Ask, ...] = loose_asks_of(document)
    key = task_key_of_document(document)
    if key is not None:
        task = next((open_task for open_task in tasks_of(case) if open_task.key == key), None)
        asks = tuple(ask for ask in task.asks if ask.read is not Read.TRACE) if task else ()
    if "note" in document and all(ask.field != "note" for ask in asks):
        asks = (*asks, Ask("note", Read.TEXT, "Note", optional=True))
    return tuple((ask, _at(document, ask.field)) for ask in asks)


def _at(document: object, path: str) -> object:
    """The value at a dotted path; None where there is none."""
    for name in path.split("."):
        if isinstance(document, Mapping):
            document = document.get(name)
        elif isinstance(document, list) and name.isdigit() and int(name) < len(document):
            document = document[int(name)]
        else:
            return None
    return document
