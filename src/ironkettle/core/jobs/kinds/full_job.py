"""Quick service made into a full job: something wants replacing, or more is wrong than the service looks at."""

from __future__ import annotations

from typing import Literal

from ironkettle.core.base.errors import RefusedError
from ironkettle.core.jobs.ask import Ask
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.condemned import CONDEMNED
from ironkettle.core.jobs.kind import EntryKind, keep
from ironkettle.core.jobs.kinds.base import Reason
from ironkettle.core.jobs.kinds.inspection import standing
from ironkettle.core.jobs.kinds.intake import intake_of
from ironkettle.core.jobs.state import Book, Payload, State
from ironkettle.core.sheets.document.parts import Read


class ServiceWidened(Payload):
    """From here on the whole sheet is worked; what was done in the service stays done."""

    kind: Literal["service_widened"] = "service_widened"
    reason: Reason


MADE_FULL: Book[str, ServiceWidened] = Book("made_full")
_ONLY = "full"


def quick_service_in(state: State) -> str | None:
    """The interval whose quick service a job is; None for a full job, and once it was made one."""
    intake = intake_of(state)
    return None if intake is None or state.has(MADE_FULL, _ONLY) else intake.value.quick_service


def _check(case: Case, payload: ServiceWidened) -> None:
    if quick_service_in(case.state) is None:
        raise RefusedError("no-service", "this is already a full job")


def condemned(case: Case) -> tuple[str, ...]:
    """The names of the parts that a quick service found to be replaced or sent out: the reason for a full job."""
    return tuple(part.name for part in case.resolved.sheet.parts if standing(case, part.key) in CONDEMNED)


KIND = EntryKind(
    payload=ServiceWidened,
    check=_check,
    apply=keep(MADE_FULL, lambda payload: _ONLY),
    words=lambda resolved, payload: f"made a full job: {payload.reason}",
    about_unit=True,
    loose_asks=(Ask("reason", Read.TEXT, "Reason"),),
)
