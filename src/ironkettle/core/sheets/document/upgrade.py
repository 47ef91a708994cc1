"""A sheet of format 1 as one of format 2, so that a job opened on it can still be read and worked.

What format 1 did not say is taken as little as can be: every station is opened by the last step of the strip-down
and closed before the first of the rebuild; a seat is as wide as the elements that lie side by side in it.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from typing import Any

from ironkettle.core.sealing.grooves import Seat
from ironkettle.core.sheets.document.format1 import BuildSheet, ElementSpec, FastenerGroup, StationSpec, ZoneSpec
from ironkettle.core.sheets.document.sheet import FORMAT_2, Sheet
from ironkettle.core.sheets.document.strays import without_strays
from ironkettle.core.shop.settings.limits import FAMILIES

_WATER = ("water", "glycol")
_GASES = ("air", "nitrogen", "gas")
# How a family was told before there was a list of them; its shop limits stay those of then.
_FORMER = {
    "ram": "cylinder", "cylinder": "cylinder", "jack": "cylinder", "compressor": "compressor", "pump": "pump", "motor": "pump",
    "injector": "valve", "regulator": "valve", "valve": "valve", "coupl": "coupler", "tool": "tool", "scaler": "tool", "head": "tool",
}  # fmt: skip
_NAMES_A_FAMILY = re.compile(rf"\b({'|'.join(_FORMER)})", re.IGNORECASE)
# Elements nearer than this lie side by side in one groove. [mm]
_BESIDE = 0.01


def upgraded_document(document: dict[str, Any]) -> Sheet:
    """A stored document, of either format, as a sheet of today. Raises pydantic's ValidationError for one that is neither."""
    if document.get("format") != FORMAT_2:
        return upgraded(BuildSheet.model_validate(document))
    sheet = Sheet.model_validate(without_strays(document))
    settled = settled_family(sheet.family)
    return (
        sheet
        if settled == sheet.family
        else sheet.model_copy(update={"family": settled, "like": [*sheet.like, sheet.family]})
    )


def settled_family(words: str) -> str:
    """The family a sheet is in whose family was told in words of its own: by the first of them that names one, else ``other``.

    >>> settled_family("oil-free piston compressor, two cylinders")
    'compressor'
    """
    if words in FAMILIES:
        return words
    found = _NAMES_A_FAMILY.search(words)
    return _FORMER[found[1].casefold()] if found else "other"


def upgraded(old: BuildSheet) -> Sheet:
    """The same unit in format 2. Keys stay as they were, so that the entries of its jobs keep their meaning."""
    document: dict[str, Any] = {
        "format": FORMAT_2,
        "key": old.key,
        "version": old.version,
        "name": old.name,
        "family": settled_family(old.family),
        "like": [old.family],
        "markings": old.markings,
        "authority": old.release_authority,
        "service": {
            "medium": _medium(old.ratings.fluids),
            "fluids": old.ratings.fluids,
            "pressure": old.ratings.pressure,
        },
        "cylinder": None if old.cylinder is None else old.cylinder.model_dump(),
        "zones": [_zone(zone) for zone in old.zones],
        "parts": [
            {"key": part.key, "name": part.name, "solid": [{"outline": part.outline}]} for part in old.drawing.parts
        ],
        "stations": [_station(station) for station in old.stations],
        "steps": _steps(old),
        "kits": [
            {
                "number": kit.number,
                "name": kit.name,
                "lines": [line.model_dump(exclude={"element"}) | _named(line.element) for line in kit.lines],
            }
            for kit in old.kits
        ],
        "fasteners": [_group(group) for group in old.fasteners],
        "tests": [test.model_dump() | {"kind": "pressure_hold"} for test in old.tests],
        "observations": [observation.model_dump() for observation in old.observations],
        "intervals": [{"every": [old.service_interval], "what": "reseal"}] if old.service_interval else [],
    }
    return Sheet.model_validate(without_strays(document))


def _named(element: str | None) -> dict[str, Any]:
    return {} if element is None else {"element": [element]}


def _medium(fluids: Sequence[str]) -> str:
    words = " ".join(fluids).casefold()
    if any(word in words for word in _GASES):
        return "air"
    return "water" if any(word in words for word in _WATER) else "oil"


def _zone(zone: ZoneSpec) -> dict[str, Any]:
    """A zone with the middle of each of its areas as a seed."""
    seeds = [
        {"at": [sum(z for z, _ in area) / len(area), sum(r for _, r in area) / len(area)]}
        for area in zone.areas
        if area
    ]
    return {"key": zone.key, "name": zone.name, "kind": zone.kind, "pressure": zone.pressure, "seeds": seeds}


def _station(station: StationSpec) -> dict[str, Any]:
    return {
        "key": station.key,
        "name": station.name,
        "between": list(station.between),
        "motion": station.motion.value,
        "entered_from": station.entered_from,
        "seats": [_seat(station, group) for group in _side_by_side(station.elements)],
    }


def _side_by_side(elements: Sequence[ElementSpec]) -> list[list[ElementSpec]]:
    """Elements that share a groove, by their slots."""
    groups: list[list[ElementSpec]] = []
    for element in elements:
        if groups and element.slot_mm[0] - groups[-1][-1].slot_mm[1] < _BESIDE:
            groups[-1].append(element)
        else:
            groups.append([element])
    return groups


def _seat(station: StationSpec, elements: Sequence[ElementSpec]) -> dict[str, Any]:
    seat = station.seat
    start, end = elements[0].slot_mm[0], elements[-1].slot_mm[1]
    figures = seat.model_dump(exclude={"kind"}, exclude_none=True)
    # A groove of several lies as its elements do; one of its own keeps its figure.
    if seat.kind is not Seat.FACE:
        figures["groove_width"] = f"{end - start:g} mm"
    listed = []
    for element in elements:
        facts = element.model_dump(exclude={"slot_mm"}, exclude_none=True)
        if len(elements) > 1:
            facts["length"] = f"{element.slot_mm[1] - element.slot_mm[0]:g} mm"
        listed.append(facts)
    return {"kind": seat.kind.value, "at": start, **figures, "elements": listed}


def _steps(old: BuildSheet) -> list[dict[str, Any]]:
    stations = [station.key for station in old.stations]
    last_strip = next((step.key for step in reversed(old.steps) if step.stage == "strip"), None)
    first_rebuild = next((step.key for step in old.steps if step.stage == "rebuild"), None)
    found = []
    for step in old.steps:
        facts: dict[str, Any] = step.model_dump(exclude_none=True)
        if step.key == last_strip:
            facts["opens"] = stations
        if step.key == first_rebuild:
            facts["closes"] = stations
        if step.key == first_rebuild and last_strip is not None and not step.after:
            facts["after"] = [last_strip]
        found.append(facts)
    return found


def _group(group: FastenerGroup) -> dict[str, Any]:
    facts = group.model_dump(exclude_none=True)
    torque = {name: facts.pop(name) for name in ("low", "high", "target", "passes_pct") if name in facts}
    return {**facts, "phases": [{"to": "torque", **torque}]}
