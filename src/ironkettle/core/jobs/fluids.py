"""The fluid a unit came in with, held against its sheet and against what each of its seals is made of: said, not refused; it was in there."""

from __future__ import annotations

from collections.abc import Iterator

from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.circumstances import compound_of
from ironkettle.core.jobs.kinds.intake import intake_of
from ironkettle.core.jobs.resolved import ElementAt
from ironkettle.core.sealing.compounds import WORDS, Rating, find_medium

# Whoever writes this means what the sheet says.
_AS_THE_SHEET = "sheet"


def fluid_words(case: Case) -> str | None:
    """Why the fluid at intake is not one of this unit's, in words; None where it is, and before the intake."""
    named = _told(case)
    fluids = case.resolved.sheet.service.fluids
    if named is None or named.casefold() in {fluid.casefold() for fluid in fluids}:
        return None
    medium, own = _medium(case, named), {_medium(case, fluid) for fluid in fluids}
    if medium is None:
        return f"It came in with “{named}”, which no table knows: what that does to its seals is not checked"
    return None if medium in own else f"It came in with {named}; its sheet is for {' or '.join(fluids)}"


def attacked(case: Case, at: ElementAt) -> str | None:
    """Why a seal does not stand the fluid the unit came in with, in words; None where it does, or where that is not known."""
    fluid, compound = _told(case), compound_of(case, at)
    medium = None if fluid is None else _medium(case, fluid)
    if medium is None or compound is None or compound.ratings[medium] < Rating.DOUBTFUL:
        return None
    return f"{compound.name} in {fluid}: {WORDS[compound.ratings[medium]]}"


def attacked_seals(case: Case) -> Iterator[str]:
    """Every seal of the unit that does not stand the fluid it came in with, in words."""
    for at in case.resolved.elements.values():
        why = attacked(case, at)
        if why is not None:
            yield f"{at.spec.name[0].upper()}{at.spec.name[1:]}, {why}"


def _told(case: Case) -> str | None:
    intake = intake_of(case.state)
    return None if intake is None or _AS_THE_SHEET in intake.value.fluid.casefold() else intake.value.fluid.strip()


def _medium(case: Case, fluid: str) -> str | None:
    compounds = case.tables.glands.compounds
    return find_medium(fluid, tuple(compounds[0].ratings)) if compounds else None
