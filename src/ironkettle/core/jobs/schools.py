"""Which of the house's schools a move rests on, and what follows of it."""

from __future__ import annotations

from collections.abc import Iterable

from ironkettle.core.jobs.log import Case
from ironkettle.core.jobs.model import Chapter, Kind, Move
from ironkettle.core.jobs.resolved import ElementAt
from ironkettle.core.sealing.catalogue import ElementKind
from ironkettle.core.sealing.failures import Sign
from ironkettle.core.shop.settings import Held

_CAREFUL, _KEEP = 0, 1
_LUBRICANT = {0: "clean service fluid", 1: "grease that suits the compound", 2: "dry"}
# What slides or is pushed over an edge wants something on it; flat and hard elements go in as the sheet says.
_LUBRICATED = frozenset({
    ElementKind.O_RING, ElementKind.LIP_SEAL, ElementKind.CUP_SEAL, ElementKind.SHAFT_SEAL, ElementKind.V_PACKING,
    ElementKind.HEADER_RING, ElementKind.FOLLOWER_RING, ElementKind.WIPER, ElementKind.SLIDE_RING, ElementKind.ENERGISER,
    ElementKind.BACKUP_RING, ElementKind.CONTOURED_BACKUP,
})  # fmt: skip


def school_of(case: Case, move: Move) -> Held | None:
    """The school a move rests on; None where it rests on none."""
    schools = case.tables.house.schools
    if move.kind is Kind.FIT and move.subject in case.resolved.elements:
        at = case.resolved.elements[move.subject]
        if may_be_kept(case, at) or _is_house_renewed(at):
            return schools["seals"]
        return None if at.spec.lubricant else schools["fitting"]
    if move.kind is Kind.TIGHTEN:
        return schools["aim"]
    if move.kind is Kind.MEASURE and _asks_for_pits(case, move.subject):
        return schools["pits"]
    if move.kind is Kind.FIND:
        return schools["pry"]
    if move.kind is Kind.STEP and move.stage is Chapter.STRIP and move.tray:
        return schools["scrap"]
    if move.kind is Kind.TEST and move.stage is Chapter.TEST:
        return schools["place"]
    return None


def schools_in(case: Case, moves: Iterable[Move]) -> tuple[Held, ...]:
    """The schools that a job rests on, each once, in the order of the list."""
    held = {one.school.key for move in moves if (one := school_of(case, move)) is not None}
    return tuple(one for key, one in case.tables.house.schools.items() if key in held)


def _asks_for_pits(case: Case, part: str) -> bool:
    spec = case.resolved.parts.get(part)
    return spec is not None and any(point.dress is not None and point.dress.pits for point in spec.points)


def _is_house_renewed(at: ElementAt) -> bool:
    """Whether it is renewed because the house renews every seal, not because the sheet says so."""
    return at.one_use and at.spec.one_use is None


def may_be_kept(case: Case, at: ElementAt) -> bool:
    """Whether the old one may go back: where neither sheet nor kind forbid it, or where the house keeps what looks sound."""
    if not at.one_use:
        return True
    if at.spec.one_use is not None or not case.tables.house.holds("seals", _KEEP):
        return False
    found = case.state.get("found", at.key)
    turned = found is not None and found.faced not in {None, case.resolved.oriented[at.key].faces}
    return found is not None and found.present and not turned and not set(found.signs) - {Sign.NONE}


def lubricant_of(case: Case, at: ElementAt) -> str:
    """What an element is fitted with: what the sheet says, else the house's way."""
    if at.spec.lubricant:
        return at.spec.lubricant
    if at.spec.kind not in _LUBRICATED:
        return _LUBRICANT[2]
    place = next(place for place in _LUBRICANT if case.tables.house.holds("fitting", place))
    return _LUBRICANT[place]


__all__ = ["lubricant_of", "may_be_kept", "school_of", "schools_in"]
