"""Which way round: the zone each element must face, from the zones and the kind of element.

Basis: how each profile works. A lip is pushed open by the pressure it holds, a wiper lip scrapes
dirt back to where it comes from, a hollow backup hugs its O-ring. The maker's drawing wins.
"""

from __future__ import annotations

from collections.abc import Mapping

from ironkettle.core.findings import Finding, caution, info, reject
from ironkettle.core.stacks.model import Element, ElementKind, OrientedElement, Station, Zone, ZoneKind

BASIS = "way-round rule by kind of element and pressure zones (the maker's drawing wins)"

LIPPED = {ElementKind.LIP_SEAL, ElementKind.CUP_SEAL, ElementKind.V_PACKING}
WIPERS = {ElementKind.WIPER, ElementKind.METAL_CLAD_WIPER}
BACKUPS = {ElementKind.BACKUP_RING, ElementKind.CONTOURED_BACKUP}

WORD = {
    ElementKind.LIP_SEAL: "open lips",
    ElementKind.CUP_SEAL: "open side of the cup",
    ElementKind.V_PACKING: "openings of the V",
    ElementKind.WIPER: "scraping lip",
    ElementKind.METAL_CLAD_WIPER: "scraping lip",
    ElementKind.SHAFT_SEAL: "spring side",
    ElementKind.CONTOURED_BACKUP: "hollow face",
    ElementKind.HEADER_RING: "flat face",
    ElementKind.FOLLOWER_RING: "flat face",
    ElementKind.SLIDE_RING: "bevelled edge",
}
_UNDIRECTED = {
    ElementKind.O_RING: "no direction; free of twist",
    ElementKind.BACKUP_RING: "flat backup on the side away from pressure",
    ElementKind.ENERGISER: "no direction; goes in before the ring it presses",
    ElementKind.WEAR_BAND: "no direction; gap free of burrs",
    ElementKind.LANTERN_RING: "holes in line with the supply port",
    ElementKind.CONED_WASHER: "crown towards the nut",
    ElementKind.GASKET: "marked face as the sheet says; clean and dry",
    ElementKind.DIAPHRAGM: "convolution free to roll the way it was moulded",
    ElementKind.SLIDE_RING: "works both ways; no direction",
}


def orient_elements(station: Station, zones: Mapping[str, Zone]) -> tuple[tuple[OrientedElement, ...], list[Finding]]:
    """The zone each element of a station must face, with an instruction in words, and findings."""
    first, second = zones[station.between[0]], zones[station.between[1]]
    high = max(first, second, key=lambda zone: zone.rank)
    even = first.rank == second.rank
    oriented: list[OrientedElement] = []
    findings: list[Finding] = []
    for index, element in enumerate(station.elements):
        faces = _faces(station, index, first, second, high)
        oriented.append(
            OrientedElement(element.key, element.kind, faces, _instruction(element, faces, zones), element.label)
        )
    both_pressed = first.kind is ZoneKind.PRESSURE and second.kind is ZoneKind.PRESSURE
    lips = [element for element in oriented if element.kind in {ElementKind.LIP_SEAL, ElementKind.CUP_SEAL}]
    if both_pressed and len(lips) == 1:
        other = second if lips[0].faces == first.key else first
        text = f"one lip faces {zones[lips[0].faces or high.key].label}; nothing holds pressure from {other.label}"
        findings.append((caution if even else info)("one-way-seal", f"{station.key}: {text}", BASIS))
    findings += _backup_findings(station, first, second, high, both_pressed)
    return tuple(oriented), findings


def _faces(station: Station, index: int, first: Zone, second: Zone, high: Zone) -> str | None:
    element = station.elements[index]
    kind = element.kind
    low = second if high is first else first
    both_pressed = first.kind is ZoneKind.PRESSURE and second.kind is ZoneKind.PRESSURE
    if kind in WIPERS:
        return _air_side(first, second, low).key
    if kind in LIPPED:
        return _lip_side(station, index, first, second).key if both_pressed else high.key
    if kind is ElementKind.SHAFT_SEAL:
        air = _air_side(first, second, low)
        return (second if air is first else first).key
    if kind is ElementKind.CONTOURED_BACKUP:
        ring = _nearest(station, index, {ElementKind.O_RING})
        return None if ring is None else (first if ring < index else second).key
    if kind in {ElementKind.HEADER_RING, ElementKind.FOLLOWER_RING}:
        packing = _nearest(station, index, {ElementKind.V_PACKING})
        return None if packing is None else (second if packing < index else first).key
    if kind is ElementKind.SLIDE_RING and not both_pressed:
        return high.key
    return None


def _lip_side(station: Station, index: int, first: Zone, second: Zone) -> Zone:
    """Between two pressure spaces the lips nearest a space hold that space.

    Of several lips the first half faces the first zone; a single lip faces the higher pressure.
    """
    kind = station.elements[index].kind
    places = [i for i, element in enumerate(station.elements) if element.kind is kind]
    if len(places) == 1:
        return first if first.rank >= second.rank else second
    return first if places.index(index) < (len(places) + 1) // 2 else second


def _air_side(first: Zone, second: Zone, low: Zone) -> Zone:
    for zone in (first, second):
        if zone.kind is ZoneKind.ATMOSPHERE:
            return zone
    return low


def _nearest(station: Station, index: int, kinds: set[ElementKind]) -> int | None:
    places = [i for i, element in enumerate(station.elements) if element.kind in kinds]
    return min(places, key=lambda place: abs(place - index)) if places else None


def _instruction(element: Element, faces: str | None, zones: Mapping[str, Zone]) -> str:
    if faces is None:
        return _UNDIRECTED.get(element.kind, "no direction")
    word = WORD[element.kind]
    if element.kind is ElementKind.CONTOURED_BACKUP:
        return f"{word} against the O-ring, which lies on the {zones[faces].label} side"
    return f"{word} towards {zones[faces].label}"


def _backup_findings(station: Station, first: Zone, second: Zone, high: Zone, both_pressed: bool) -> list[Finding]:
    rings = [i for i, element in enumerate(station.elements) if element.kind is ElementKind.O_RING]
    backups = [i for i, element in enumerate(station.elements) if element.kind in BACKUPS]
    if not rings or not backups:
        return []
    findings: list[Finding] = []
    if both_pressed:
        ring = rings[0]
        if all(i < ring for i in backups) or all(i > ring for i in backups):
            findings.append(
                caution(
                    "backup-one-side",
                    f"{station.key}: pressure comes from both sides; a backup lies on one only",
                    BASIS,
                )
            )
        return findings
    for index in backups:
        ring = min(rings, key=lambda place: abs(place - index))
        on_first_side = index < ring
        if (first if on_first_side else second) is high:
            text = f"{station.key}: {station.elements[index].label} lies on the pressure side; it belongs on the side away from {high.label}"
            findings.append(reject("backup-high-side", text, BASIS))
    return findings
