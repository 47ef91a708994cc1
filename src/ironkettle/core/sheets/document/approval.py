"""When a sheet is the shop's and when it is a draft: who may bring it in, who may approve it, who releases on it."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date

from ironkettle.core.base.errors import NotAllowedError
from ironkettle.core.sheets.document.loosening import Change, loosens
from ironkettle.core.sheets.document.sheet import Sheet
from ironkettle.core.shop.people import AUTHORITY_WORD, ROLE_WORD, Author, Authority, Role, rank_of, strictest

# What somebody breathes from is guarded whatever the sheet says of it.
_GUARDED_SERVICE = {"breathing": Authority.BREATHING_AIR, "oxygen": Authority.BREATHING_AIR}


@dataclass(frozen=True, slots=True)
class Standing:
    """How a sheet stands when a job on it is signed.

    ``draft``: nobody who may has approved it. ``guards``: the authorities its release needs: that of the sheet, for a draft
    the strictest of any version of the same unit; one of each where several are as strict.
    """

    draft: bool
    guards: tuple[Authority, ...]


def asked_by(sheet: Sheet) -> Authority:
    """The authority that a sheet asks for, by its own word or by what its unit serves, whichever is stricter."""
    served = _GUARDED_SERVICE.get(sheet.service.cleanliness, Authority.NONE)
    return sheet.authority if rank_of(sheet.authority) >= rank_of(served) else served


def standing_of(sheet: Sheet, versions: Iterable[Sheet], *, draft: bool) -> Standing:
    """How a sheet stands. ``versions``: every version of its key, and sheets of other keys for the same unit (``same_unit``)."""
    own = asked_by(sheet)
    return Standing(draft, strictest([own, *(asked_by(version) for version in versions)] if draft else [own]))


def same_unit(sheet: Sheet, other: Sheet) -> bool:
    """Whether two sheets of different keys speak of the same unit: by a marking on the body, a kit number, or the name."""
    return bool(_names(sheet) & _names(other))


def _names(sheet: Sheet) -> set[str]:
    said = (sheet.name, *sheet.markings, *(kit.number for kit in sheet.kits))
    return {"".join(text.casefold().split()) for text in said}


def may_approve(author: Author, guards: Iterable[Authority], day: date) -> bool:
    """Whether a person may make a sheet the shop's: the lead; for a guarded unit a holder of each authority it asks for."""
    wanted = tuple(guards)
    if rank_of(max(wanted, key=rank_of, default=Authority.NONE)) <= rank_of(Authority.WORKSHOP):
        return author.role is Role.LEAD
    return all(author.authorisation(guard, day) is not None for guard in wanted)


def is_draft_at_import(
    author: Author, sheet: Sheet, known: bool, found: tuple[Change, ...], others: Iterable[Sheet]
) -> bool:
    """Whether a sheet that somebody brings in is a draft at first.

    A lead's own import of a new key, or of a version that loosens nothing, is the shop's at once; a new key for a unit that
    another sheet guards more strictly is not. ``known``: whether the shop has an approved version of it already; ``found``: what
    changes against that one; ``others``: sheets of other keys for the same unit (``same_unit``).
    """
    if author.role is not Role.LEAD:
        return True
    if known:
        return loosens(found)
    own = asked_by(sheet)
    return strictest([own, *(asked_by(other) for other in others)]) != strictest([own])


def check_may_approve(author: Author, guards: tuple[Authority, ...], day: date, drafted_by: str, others: bool) -> None:
    """Raises NotAllowedError for one who may not approve, and for the one who drafted it where somebody else may.

    ``others``: whether the shop has anybody else who may.
    """
    if not may_approve(author, guards, day):
        guarded = [guard for guard in guards if rank_of(guard) > rank_of(Authority.WORKSHOP)]
        needed = f"a person authorised for {words_of(guarded)}" if guarded else f"the {ROLE_WORD[Role.LEAD]}"
        raise NotAllowedError("not-allowed", f"{author.name} may not approve this sheet; it needs {needed}")
    if others and drafted_by == author.key:
        raise NotAllowedError("second-person", f"{author.name} drafted this version; a second person must approve it")


def words_of(guards: Iterable[Authority]) -> str:
    """Authorities in words."""
    return " and ".join(AUTHORITY_WORD[guard] for guard in guards)
