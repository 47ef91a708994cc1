"""Lubricants of a sheet: each is in the list, and none is one that compound, duty or the sheet itself forbid."""

from __future__ import annotations

import contextlib
import re
from collections.abc import Iterator

from ironkettle.core.base.errors import FieldFault, RuleError
from ironkettle.core.sealing.catalogue import KINDS, ElementKind, Group
from ironkettle.core.sealing.compounds import (
    Compound,
    check_lubricant,
    duty_of_service,
    find_compound,
    find_lubricant,
    find_medium,
    is_known,
    is_meant,
    refusals,
)
from ironkettle.core.sheets.document.places import ElementSpec
from ironkettle.core.sheets.document.sheet import Sheet

# What a text puts on a gasket or a diaphragm, and what lies dry where nothing is named.
_PUT_ON = re.compile(r"\b(sealant|gel|silicone)\b", re.IGNORECASE)
_DRY_KINDS = frozenset({ElementKind.GASKET, ElementKind.DIAPHRAGM})


def lubricant_faults(sheet: Sheet, compounds: tuple[Compound, ...]) -> Iterator[FieldFault]:
    """Lubricants that are in no list, and those that may not lie where the sheet puts them."""
    for index, station in enumerate(sheet.stations):
        for place, seat in enumerate(station.seats):
            for at, element in enumerate(seat.elements):
                yield from _element(f"stations.{index}.seats.{place}.elements.{at}", element, sheet, compounds)
    yield from _dry_beside_words(sheet)
    for index, step in enumerate(sheet.steps):
        if step.lubricant is not None:
            yield from _unlisted(f"steps.{index}.lubricant", step.lubricant)


def _dry_beside_words(sheet: Sheet) -> Iterator[FieldFault]:
    """Flat gaskets and diaphragms that no lubricant is named for, closed at a step whose text puts sealant, gel or silicone on."""
    closing = {key: step for step in sheet.steps for key in step.closes}
    for index, station in enumerate(sheet.stations):
        step = closing.get(station.key)
        said = _PUT_ON.search(step.text) if step else None
        if step is None or said is None:
            continue
        here = [
            there
            for other in sheet.stations
            if other.key in step.closes
            for seat in other.seats
            for there in seat.elements
        ]
        if any(_is_put_on(said[0], other.lubricant) for other in here):
            continue
        for place, seat in enumerate(station.seats):
            for at, element in enumerate(seat.elements):
                if element.kind in _DRY_KINDS and element.same_as is None and element.lubricant in {None, "dry"}:
                    text = f"the step says {said[0]}, and nothing it closes is fitted with it: “{step.text}”"
                    yield FieldFault(f"stations.{index}.seats.{place}.elements.{at}.lubricant", text, (said[0],))


def _is_put_on(word: str, lubricant: str | None) -> bool:
    return lubricant is not None and word.casefold().split()[0] in lubricant.replace("_", " ")


def _element(path: str, element: ElementSpec, sheet: Sheet, compounds: tuple[Compound, ...]) -> Iterator[FieldFault]:
    for place, never in enumerate(element.never):
        if not is_known(never.what):
            text = f"“{never.what}” is neither in the list of lubricants nor a base of them"
            yield FieldFault(f"{path}.never.{place}.what", text, ("mineral", "silicone", "petroleum", "lithium_grease"))
    if element.lubricant is None:
        return
    unlisted = list(_unlisted(f"{path}.lubricant", element.lubricant))
    yield from unlisted
    if unlisted:
        return
    lubricant, compound = find_lubricant(element.lubricant), None
    if element.compound is not None:
        with contextlib.suppress(RuleError):
            compound = find_compound(element.compound, compounds)
    media = tuple(_media(sheet, compounds))
    packing = KINDS[element.kind].group is Group.PACKING
    duty = duty_of_service(sheet.service.cleanliness)
    gasket = element.kind is ElementKind.GASKET
    found = check_lubricant(lubricant, compound, media, duty=duty, packing_set=packing, gasket=gasket)
    against = [refusal.message for refusal in refusals(found)]
    against += [
        f"the sheet itself says never {name.what}" for name in element.never if is_meant(name.what, lubricant, media)
    ]
    if against:
        yield FieldFault(f"{path}.lubricant", "; ".join(against))


def _unlisted(path: str, word: str) -> Iterator[FieldFault]:
    try:
        find_lubricant(word)
    except RuleError as error:
        for fault in error.faults:
            yield FieldFault(path, fault.message, fault.accepts[:12])


def _media(sheet: Sheet, compounds: tuple[Compound, ...]) -> Iterator[str]:
    columns = tuple(compounds[0].ratings) if compounds else ()
    found = (find_medium(fluid, columns) for fluid in sheet.service.fluids)
    yield from (invalid for invalid in found if invalid is not None)
