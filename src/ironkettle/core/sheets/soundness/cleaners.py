"""Cleaners and heat of a sheet: each cleaner is in the list and suits what it is used on; acids and what burns are said in figures too."""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator

from ironkettle.core.base.errors import FieldFault, RuleError
from ironkettle.core.machine.parts import Cleaning, cleaning_of
from ironkettle.core.sealing.compounds import (
    CLEANERS,
    Cleaner,
    Nature,
    cleaner_faults,
    cleaners_named,
    duty_of_service,
    find_cleaner,
    flammable_in,
    is_fuel,
)
from ironkettle.core.sheets.document.parts import Rung
from ironkettle.core.sheets.document.sheet import Sheet
from ironkettle.core.sheets.document.work import StepSpec

# What a text forbids is not what it does.
_FORBIDDEN = re.compile(r"\b(no|never|without)\s+\w+", re.IGNORECASE)
# Above this [°C] it is heat: warm water is none.
_WARM = 60
_DEGREES = re.compile(r"(\d+) °C")
_HEAT = re.compile(r"\b(heat|heated|flame|torch|burner|oven|hot air)\b", re.IGNORECASE)


def cleaner_sheet_faults(sheet: Sheet, rows: tuple[Cleaning, ...]) -> Iterator[FieldFault]:
    """Cleaners that are in no list or do not suit, acids and flammable liquids that only a text names, heat that is not said to be heat."""
    for index, step in enumerate(sheet.steps):
        yield from _step(f"steps.{index}", step, sheet, rows)
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


def _step(path: str, step: StepSpec, sheet: Sheet, rows: tuple[Cleaning, ...]) -> Iterator[FieldFault]:
    materials = [part.material.value for part in sheet.parts if part.key in step.cleans and part.material]
    used: set[Cleaner] = set()
    if step.cleaner is not None:
        try:
            cleaner = find_cleaner(step.cleaner)
        except RuleError as error:
            yield from (FieldFault(f"{path}.cleaner", one.message, one.accepts[:12]) for one in error.faults)
            return
        duty = duty_of_service(sheet.service.cleanliness)
        why = cleaner_faults(cleaner, step.soil or "", materials, duty)
        if not step.cleans:
            yield FieldFault(f"{path}.cleaner", "this step cleans nothing: name the parts under cleans")
        elif why:
            yield FieldFault(f"{path}.cleaner", "; ".join(why))
        used = {cleaner}
    elif step.cleans:
        found = (cleaning_of(rows, material, step.soil or "") for material in materials)
        used = {find_cleaner(row.cleaner) for row in found if row is not None and row.cleaner}
    said = (step.text, *step.consumables) if step.cleans else (step.text,)
    for key in _acids(said):
        if key not in used:
            others = " and ".join(sorted(CLEANERS[one].name for one in used)) or "nothing"
            text = f"{CLEANERS[key].name} stands in its words, and {others} in its figures; one of them"
            yield FieldFault(f"{path}.cleaner", text, (key.value,))
    yield from _heat(path, step.text, step.hot, sheet)


def _rung(path: str, rung: Rung, sheet: Sheet) -> Iterator[FieldFault]:
    for key in _acids((rung.do,)):
        if key not in {one for word in rung.uses for one in cleaners_named(word)}:
            yield FieldFault(f"{path}.uses", f"{CLEANERS[key].name} is put on: name it", (key.value,))
    burns = flammable_in(_said(rung.do))
    if burns is not None and not any(flammable_in(word) for word in rung.uses):
        yield FieldFault(f"{path}.uses", f"{burns} is put on, and it is flammable: name it")
    for place, word in enumerate(rung.uses):
        if not cleaners_named(word) and flammable_in(word) is None:
            yield FieldFault(f"{path}.uses.{place}", f"“{word}” is neither in the list of cleaners nor flammable")
    yield from _heat(path, rung.do, rung.hot, sheet)


def _said(text: str) -> str:
    return _FORBIDDEN.sub(" ", text)


def _acids(texts: Iterable[str]) -> tuple[Cleaner, ...]:
    named = dict.fromkeys(key for text in texts for key in cleaners_named(_said(text)))
    return tuple(key for key in named if CLEANERS[key].nature is Nature.ACID)


def _heat(path: str, text: str, hot: bool, sheet: Sheet) -> Iterator[FieldFault]:
    warmest = max(map(int, _DEGREES.findall(text)), default=0)
    if (_HEAT.search(_said(text)) or warmest > _WARM) and not hot:
        yield FieldFault(f"{path}.hot", "its words say heat: say so, since nothing flammable may be near", ("true",))
    fuel = next((fluid for fluid in sheet.service.fluids if is_fuel(fluid)), None)
    if hot and fuel is not None:
        yield FieldFault(f"{path}.hot", f"no heat on a unit that holds {fuel}: its vapour burns")
