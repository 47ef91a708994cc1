"""What parts are cleaned with: what is proposed at a step, what soil, material and duty allow, and what still stands in the unit."""

from __future__ import annotations

from ironkettle.core.base.errors import RuleError, fault
from ironkettle.core.jobs.ask import Choice
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kinds.intake import intake_of
from ironkettle.core.jobs.lubricating import duty_of
from ironkettle.core.machine.parts import Cleaning, cleaning_of
from ironkettle.core.sealing.compounds import (
    CLEANERS,
    Cleaner,
    Nature,
    cleaner_faults,
    cleaner_words,
    cleaners_named,
    find_cleaner,
    residues_of,
    suitable_cleaners,
)
from ironkettle.core.sheets.document.hazards import done_in
from ironkettle.core.sheets.document.work import StepSpec


def materials_of(case: Case, step: StepSpec) -> tuple[str, ...]:
    """What the parts that a step cleans are made of, each material once."""
    parts = (case.resolved.parts.get(key) for key in step.cleans)
    return tuple(dict.fromkeys(part.material.value for part in parts if part is not None and part.material))


def rows_of(case: Case, step: StepSpec) -> tuple[Cleaning, ...]:
    """The rows of the cleaning table for the parts that a step cleans."""
    rows = (cleaning_of(case.tables.cleaning, material, step.soil or "") for material in materials_of(case, step))
    return tuple(row for row in rows if row is not None)


def proposed_cleaner(case: Case, step: StepSpec) -> Cleaner | None:
    """What the sheet says, in its figures or its words, else what the table has for the first material it may be used on; None where nothing is cleaned by a liquid."""
    if not step.cleans:
        return None
    allowed = allowed_cleaners(case, step)
    if step.cleaner:
        try:
            return find_cleaner(step.cleaner)
        except RuleError:
            pass
    named = [key for text in (step.text, *step.consumables) for key in cleaners_named(done_in(text))]
    usual = [find_cleaner(row.cleaner) for row in rows_of(case, step) if row.cleaner]
    return next((cleaner for cleaner in (*named, *usual, *allowed) if cleaner in allowed), None)


def allowed_cleaners(case: Case, step: StepSpec) -> tuple[Cleaner, ...]:
    """The cleaners that lift the soil of a step and that nothing speaks against but what stands in the unit, in the order of the list."""
    if not step.cleans:
        return ()
    return suitable_cleaners(step.soil or "", frozenset(materials_of(case, step)), duty_of(case))


def cleaner_choices(case: Case, step: StepSpec) -> tuple[Choice, ...]:
    """What a step may be done with, to choose from."""
    return tuple(Choice(key.value, CLEANERS[key].name) for key in allowed_cleaners(case, step))


def check_cleaner(case: Case, step: StepSpec, word: str | None) -> Cleaner | None:
    """What a step was cleaned with; None for one that cleans nothing.

    Raises RuleError where nobody says, for a word that is in no list, and for what does not suit.
    """
    names = tuple(key.value for key in allowed_cleaners(case, step))
    if word is None:
        if step.cleans and proposed_cleaner(case, step) is not None:
            raise fault("cleaner", "what was it cleaned with?", *names)
        return None
    if not step.cleans:
        raise fault("cleaner", "nothing is cleaned at this step; leave this out")
    cleaner = find_cleaner(word)
    why = _faults(case, step, cleaner)
    if why:
        raise fault("cleaner", "; ".join(why), *names, code="wrong-cleaner")
    return cleaner


def residues(case: Case) -> frozenset[Nature]:
    """What may still stand in the unit: by the fluid it came in with, and by those of its sheet."""
    intake = intake_of(case.state)
    return residues_of((*([intake.value.fluid] if intake else []), *case.resolved.sheet.service.fluids))


def cleaning_words(case: Case, step: StepSpec) -> tuple[str, ...]:
    """How the parts of a step are cleaned, each material once with its don'ts; and the hazard of what is proposed."""
    if not step.cleans:
        return ()
    proposed = proposed_cleaner(case, step)
    found = [_row_words(row, proposed) for row in rows_of(case, step)]
    if proposed is not None and CLEANERS[proposed].hazard:
        found.append(f"{CLEANERS[proposed].name}: {CLEANERS[proposed].hazard}")
    return tuple(found)


def _row_words(row: Cleaning, proposed: Cleaner | None) -> str:
    how = f"{row.how}{f'; soaks {row.soak:g} min' if row.soak else ''}"
    if row.cleaner and proposed is not None and proposed.value != row.cleaner:
        how = f"{cleaner_words(proposed.value)}, {CLEANERS[proposed].after}"
    words = f"{row.soil} on {row.material}: {how}. Never {row.never}"
    return f"{words[0].upper()}{words[1:]}"


def _faults(case: Case, step: StepSpec, cleaner: Cleaner) -> tuple[str, ...]:
    return cleaner_faults(cleaner, step.soil or "", materials_of(case, step), duty_of(case))
