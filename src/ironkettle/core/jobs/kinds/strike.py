"""An earlier entry struck out: it was a mistake; it stays in the log and counts no more."""

from __future__ import annotations

from typing import Literal
from uuid import UUID

from ironkettle.core.base.errors import NotAllowedError, RefusedError, fault
from ironkettle.core.jobs.ask import Ask
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.condemned import CONDEMNED, check_may_overrule
from ironkettle.core.jobs.kind import EntryKind
from ironkettle.core.jobs.kinds.base import Reason
from ironkettle.core.jobs.kinds.inspection import POINTS, PointsRead, standing
from ironkettle.core.jobs.kinds.intake import intake_of
from ironkettle.core.jobs.state import Book, Mark, Payload, State
from ironkettle.core.sheets.document.parts import Read
from ironkettle.core.shop.people import Role


class EntryStruck(Payload):
    """An earlier entry was a mistake; it stays in the log and counts no more."""

    kind: Literal["entry_struck"] = "entry_struck"
    entry: UUID
    reason: Reason


# Why an entry was struck out that was taken back by a tap within seconds.
UNDONE = "taken back with Undo"
STRUCK: Book[str, EntryStruck] = Book("struck")


def check_strike(case: Case, payload: EntryStruck) -> None:
    """Whether the author of the case may strike the target out. Raises RuleError, RefusedError or NotAllowedError."""
    if case.target is None:
        raise fault("entry", "no such entry in this job")
    owner, _ = case.target
    if case.author is not None and owner != case.author.key and case.author.role is not Role.LEAD:
        raise NotAllowedError("not-yours", "only the one who made an entry, or the lead, strikes it out")
    if case.state.has(STRUCK, str(payload.entry)):
        raise RefusedError("struck-already", "this entry is already struck out")
    _, target = case.target
    if isinstance(target, PointsRead) and _condemns(case, target, payload):
        check_may_overrule(case, target.part)
    intake = intake_of(case.state)
    if intake is not None and intake.mark.entry == payload.entry:
        raise RefusedError("last-intake", "record the corrected intake first, then strike the one before it")


def _condemns(case: Case, target: PointsRead, payload: EntryStruck) -> bool:
    """Whether the reading that is to be struck out is the one by which its part stands condemned."""
    stands = case.state.book(POINTS).get(target.part)
    return stands is not None and stands.mark.entry == payload.entry and standing(case, target.part) in CONDEMNED


def _apply(state: State, payload: EntryStruck, mark: Mark) -> None:
    state.note(STRUCK, str(payload.entry), payload, mark)


KIND = EntryKind(
    payload=EntryStruck,
    check=check_strike,
    apply=_apply,
    words=lambda resolved, payload: f"an entry struck out: {payload.reason}",
    stays=True,
    about_unit=True,
    loose_asks=(Ask("reason", Read.TEXT, "Reason"),),
)
