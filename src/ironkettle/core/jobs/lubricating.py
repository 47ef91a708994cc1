"""What an element is fitted with: what is proposed, and what its compound and the duty of the unit forbid."""

from __future__ import annotations

import contextlib
from collections.abc import Iterator

from ironkettle.core.base.errors import RuleError, fault
from ironkettle.core.base.findings import Finding
from ironkettle.core.jobs.ask import Choice
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.circumstances import compound_of, is_gas, media_of
from ironkettle.core.jobs.resolved import ElementAt
from ironkettle.core.sealing.catalogue import KINDS, ElementKind, Group
from ironkettle.core.sealing.compounds import (
    LUBRICANTS,
    STRICT,
    Duty,
    Lubricant,
    check_lubricant,
    duty_of_service,
    find_lubricant,
    is_meant,
    refusals,
)

_BY_PRACTICE = {0: Lubricant.SERVICE_FLUID, 1: Lubricant.LITHIUM_GREASE, 2: Lubricant.DRY}
# What is proposed instead where compound or duty forbid the usual, the commonest first.
_INSTEAD = (
    Lubricant.SILICONE_GREASE, Lubricant.SILICONE_GREASE_POTABLE, Lubricant.PFPE_GREASE, Lubricant.BREATHING_AIR_GREASE,
    Lubricant.DRY,
)  # fmt: skip
_SHORTEST_REASON = 5
_CHOICES = {key: Choice(key.value, facts.name) for key, facts in LUBRICANTS.items()}


def duty_of(case: Case) -> Duty:
    """The duty of the unit, as its sheet has it."""
    return duty_of_service(case.resolved.whole.service.cleanliness)


def proposed_by_sheet(at: ElementAt) -> Lubricant | None:
    """What the sheet names for an element; None where it names none of the list."""
    with contextlib.suppress(RuleError):
        return find_lubricant(at.spec.lubricant) if at.spec.lubricant else None
    return None


def proposed_lubricant(case: Case, at: ElementAt) -> Lubricant:
    """What the sheet says, else the shop's way where compound and duty allow it, else the first that they allow."""
    if (named := proposed_by_sheet(at)) is not None:
        return named
    if not KINDS[at.spec.kind].lubricated:
        return Lubricant.DRY
    usual = _BY_PRACTICE[next(place for place in _BY_PRACTICE if case.tables.settings.follows("fitting", place))]
    # Air and steam wet nothing.
    if usual is Lubricant.SERVICE_FLUID and is_gas(case):
        usual = Lubricant.LITHIUM_GREASE
    allowed = allowed_lubricants(case, at)
    return next(lubricant for lubricant in (usual, *_INSTEAD) if lubricant is Lubricant.DRY or lubricant in allowed)


def lubricant_choices(case: Case, at: ElementAt) -> tuple[Choice, ...]:
    """What may lie on a seal of this unit, in the order of the list."""
    allowed = allowed_lubricants(case, at)
    if not case.lubricants:
        return tuple(_CHOICES[key] for key in LUBRICANTS if key in allowed)
    return tuple(Choice(key.value, _named(case, key)) for key in LUBRICANTS if key in allowed)


def _named(case: Case, lubricant: Lubricant) -> str:
    own = ", ".join(word for word, key in case.lubricants.items() if key is lubricant)
    return f"{LUBRICANTS[lubricant].name} ({own})" if own else LUBRICANTS[lubricant].name


def allowed_lubricants(case: Case, at: ElementAt) -> frozenset[Lubricant]:
    """Those that nothing speaks against; worked out once for seals that are alike, since every task asks again."""
    compound = compound_of(case, at)
    forbidden = tuple(never.what for never in at.spec.never)
    alike = (
        compound.name if compound else None,
        media_of(case),
        duty_of(case),
        at.spec.kind,
        at.spec.lubricant,
        forbidden,
    )
    found = case.tables.allowed.get(alike)
    if found is None:
        listed = [key for key, facts in LUBRICANTS.items() if facts.on_seals]
        found = frozenset(key for key in listed if not refused_lubricant(case, at, key))
        case.tables.allowed[alike] = found
    return found


def refused_lubricant(case: Case, at: ElementAt, lubricant: Lubricant) -> tuple[str, ...]:
    """Why an element may not be fitted with a lubricant; nothing where it may."""
    return (
        *(refusal.message for refusal in _refusals(case, at, lubricant)),
        *_never(case, at, lubricant),
        *_unnamed(case, at, lubricant),
    )


def is_refused_word(case: Case, at: ElementAt, word: str) -> bool:
    """Whether a word of a record names a lubricant that may not go on an element, or none of the list, as older records do."""
    try:
        return bool(refused_lubricant(case, at, find_lubricant(word, own=case.lubricants)))
    except RuleError:
        return True


def check_fitting_lubricant(case: Case, at: ElementAt, word: str, against: str) -> None:
    """Raises RuleError for a word that is in no list, and for what compound or duty forbid.

    A written reason overrules the compound and the sheet, but not the duty of a unit that is breathed from, drunk from, or holds oxygen.
    """
    lubricant = find_lubricant(word, own=case.lubricants)
    why = refused_lubricant(case, at, lubricant)
    if not why:
        return
    allowed = allowed_lubricants(case, at)
    right = [key.value for key in LUBRICANTS if key in allowed]
    text = f"{at.spec.name}: {'; '.join(why)}"
    if duty_of(case) in STRICT:
        raise fault("lubricant", f"{text}; no reason overrules this", *right, code="wrong-lubricant")
    if len(against) < _SHORTEST_REASON:
        raise fault("lubricant", f"{text}; only a written reason overrules this", *right, code="wrong-lubricant")


def _is_packing(at: ElementAt) -> bool:
    return KINDS[at.spec.kind].group is Group.PACKING


def _refusals(case: Case, at: ElementAt, lubricant: Lubricant) -> tuple[Finding, ...]:
    found = check_lubricant(
        lubricant, compound_of(case, at), media_of(case), duty=duty_of(case), packing_set=_is_packing(at),
        gasket=at.spec.kind is ElementKind.GASKET,
    )  # fmt: skip
    return refusals(found)


def _unnamed(case: Case, at: ElementAt, lubricant: Lubricant) -> Iterator[str]:
    """A sealant has no listing of its own: where only what is listed goes on, the maker of the unit names it."""
    if duty_of(case) in STRICT and LUBRICANTS[lubricant].gaskets_only and proposed_by_sheet(at) is not lubricant:
        yield f"{LUBRICANTS[lubricant].name}: the build sheet names none here"


def _never(case: Case, at: ElementAt, lubricant: Lubricant) -> Iterator[str]:
    for never in at.spec.never:
        if is_meant(never.what, lubricant, media_of(case)):
            yield f"never {never.what}{f': {never.why}' if never.why else ''}"
