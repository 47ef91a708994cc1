"""Cleaners and heat of a sheet: each cleaner is in the list and suits what it is used on; no heat where fuel stood."""

from __future__ import annotations

from collections.abc import Iterator

from ironkettle.core.base.errors import FieldFault, RuleError
from ironkettle.core.sealing.compounds import (
    CLEANERS,
    cleaner_faults,
    cleaners_named,
    duty_of_service,
    find_cleaner,
    flammable_in,
    is_fuel,
)
from ironkettle.core.sheets.document.hazards import is_hot, put_on
from ironkettle.core.sheets.document.parts import Rung
from ironkettle.core.sheets.document.sheet import Sheet
from ironkettle.core.sheets.document.work import StepSpec


def cleaner_sheet_faults(sheet: Sheet) -> Iterator[FieldFault]:
    """Cleaners that are in no list, that do not suit, or that the words of a step contradict; heat on what holds a fuel."""
    for index, step in enumerate(sheet.steps):
        yield from _step(f"steps.{index}", step, sheet)
    for at, ladder in enumerate(sheet.ladders):
        for place, rung in enumerate(ladder.rungs):
            yield from _rung(f"ladders.{at}.rungs.{place}", rung, sheet)
    materials = {part.key: part.material.value for part in sheet.parts if part.material}
    for index, part in enumerate(sheet.parts):
        for place, point in enumerate(part.points):
            named = cleaners_named(point.dress.how) if point.dress and point.dress.how else ()
            attacked = [key for key in named if materials.get(part.key) in CLEANERS[key].attacks]
            for key in attacked:
                text = f"{CLEANERS[key].name} attacks {materials[part.key]}"
                yield FieldFault(f"parts.{index}.points.{place}.dress.how", text)


def _step(path: str, step: StepSpec, sheet: Sheet) -> Iterator[FieldFault]:
    materials = [part.material.value for part in sheet.parts if part.key in step.cleans and part.material]
    if step.cleaner is not None:
        try:
            cleaner = find_cleaner(step.cleaner)
        except RuleError as error:
            yield from (FieldFault(f"{path}.cleaner", fault.message, fault.accepts[:12]) for fault in error.faults)
            return
        why = cleaner_faults(cleaner, step.soil or "", materials, duty_of_service(sheet.service.cleanliness))
        if not step.cleans:
            yield FieldFault(f"{path}.cleaner", "this step cleans nothing: name the parts under cleans")
        elif why:
            yield FieldFault(f"{path}.cleaner", "; ".join(why))
        for word in put_on(step.text, ()):
            for key in cleaners_named(word):
                if key is not cleaner:
                    text = f"{CLEANERS[key].name} stands in its words, and {CLEANERS[cleaner].name} in its figures; one of them"
                    yield FieldFault(f"{path}.cleaner", text, (key.value,))
    yield from _heat(path, is_hot(step.text, step.hot), sheet)


def _rung(path: str, rung: Rung, sheet: Sheet) -> Iterator[FieldFault]:
    for place, word in enumerate(rung.uses):
        if not cleaners_named(word) and flammable_in(word) is None:
            yield FieldFault(f"{path}.uses.{place}", f"“{word}” is neither in the list of cleaners nor flammable")
    yield from _heat(path, is_hot(rung.do, rung.hot), sheet)


def _heat(path: str, hot: bool, sheet: Sheet) -> Iterator[FieldFault]:
    fuel = next((fluid for fluid in sheet.service.fluids if is_fuel(fluid)), None)
    if hot and fuel is not None:
        yield FieldFault(f"{path}.hot", f"no heat on a unit that holds {fuel}: its vapour burns")
