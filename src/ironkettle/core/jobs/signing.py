"""Which entries are signatures, who may write what, and what a signature stands on."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta

from ironkettle.core.base.dates import shown_day
from ironkettle.core.base.errors import NotAllowedError, fault
from ironkettle.core.jobs.entry import Entry
from ironkettle.core.jobs.registry import kind_of
from ironkettle.core.jobs.state import Payload
from ironkettle.core.sheets.document.approval import Standing, words_of
from ironkettle.core.shop.people import AUTHORITY_WORD, ROLE_WORD, Author, Authority, Role, Signature

# A device without a battery wakes up at either end of its calendar; nothing here is older than the shop.
EARLIEST = datetime(2000, 1, 1, tzinfo=UTC)


LATEST = datetime(2100, 1, 1, tzinfo=UTC)


MOST_AHEAD = timedelta(days=1)


# A clock off by more than this is told to the one who reads it.
CLOCK_DOUBT_S = 120.0


def needs_signature(payload: Payload) -> bool:
    """Whether an entry is a signature: a release or another end, a reopening, or the skipping of a task."""
    return kind_of(payload).signed


def clock_in_doubt(entry: Entry) -> bool:
    """Whether the bench's clock was so far off that it is told beside the entry."""
    return entry.clock_ahead_s is not None and abs(entry.clock_ahead_s) > CLOCK_DOUBT_S


def signed_words(signature: Signature | None) -> str | None:
    """What a signature stood on, for a certificate; None where there is none."""
    if signature is None:
        return None
    if signature.authority is Authority.NONE:
        return f"signed by PIN as {ROLE_WORD[signature.role]}"
    until = f", valid to {shown_day(signature.until)}" if signature.until else ""
    return f"signed by PIN, authorised for {AUTHORITY_WORD[signature.authority]}{until}"


def check_bench_time(moment: datetime, now: datetime, field: str = "bench_time") -> None:
    """Raises RuleError for a bench time no working clock would give."""
    if not EARLIEST <= moment < LATEST or moment > now + MOST_AHEAD:
        raise fault(
            field,
            f"{moment.isoformat()} is not possible: check the clock of this device",
            f"from {shown_day(EARLIEST)} to a day from now",
        )


def check_may_write(author: Author, payload: Payload) -> None:
    """Raises NotAllowedError when the author's role does not write such an entry."""
    kind = kind_of(payload)
    # One who only signs, an inspector, say, need not be able to do anything else.
    if author.role in kind.writers or (author.authorisations and kind.signers_write):
        return
    raise NotAllowedError(
        "not-allowed", f"{author.name} ({ROLE_WORD[author.role]}) may not record this; a technician or the lead may"
    )


def signature_of(standing: Standing, payload: Payload, author: Author, now: datetime) -> Signature | None:
    """What this entry stands on when the author signs it now; None for an entry that is no signature.

    ``standing``: how the job's sheet stands. Raises NotAllowedError when the author does not hold the authority that the
    sheet asks for, on a draft the strictest that any version of it did.
    """
    kind = kind_of(payload)
    if not kind.signed:
        return None
    if not kind.needs_authority or not standing.guards:
        return Signature(role=author.role, authority=Authority.NONE)
    held = [author.authorisation(guard, now.date()) for guard in standing.guards]
    first = held[0]
    if first is not None and all(authorisation is not None for authorisation in held):
        return Signature(role=author.role, authority=first.authority, until=first.until)
    if kind.reopens and author.role is Role.LEAD:
        return Signature(role=author.role, authority=Authority.NONE)
    missing = next(guard for guard, authorisation in zip(standing.guards, held, strict=True) if authorisation is None)
    ended = [authorisation.until for authorisation in author.authorisations if authorisation.authority is missing]
    why = f"; the authority ended on {shown_day(max(ended))}" if ended else ""
    needed = f"it needs a named person authorised for {words_of(standing.guards)}{why}"
    if standing.draft:
        text = f"{author.name} may not release on a draft sheet: {needed}, until the sheet is approved"
        raise NotAllowedError("draft-sheet", text)
    raise NotAllowedError("not-authorised", f"{author.name} may not release this unit: {needed}")
