"""Zones, stations and elements: what seals, between which spaces, in which physical order."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass
from enum import StrEnum

from ironkettle.core.base.errors import FieldFault, RuleError
from ironkettle.core.base.findings import Finding
from ironkettle.core.sealing.catalogue import KINDS, ElementKind


class ZoneKind(StrEnum):
    PRESSURE = "pressure"
    ATMOSPHERE = "atmosphere"
    DRAIN = "drain"
    VACUUM = "vacuum"


@dataclass(frozen=True, slots=True)
class Zone:
    """A pressure space, a drain, a vacuum or the open air. Pressure in MPa gauge."""

    key: str
    kind: ZoneKind
    pressure: float = 0.0
    name: str = ""

    @property
    def label(self) -> str:
        return self.name or self.key.replace("_", " ")

    @property
    def rank(self) -> tuple[int, float]:
        """Order by how hard the zone pushes: vacuum, open air, drain, then by pressure."""
        order = (ZoneKind.VACUUM, ZoneKind.ATMOSPHERE, ZoneKind.DRAIN, ZoneKind.PRESSURE)
        return order.index(self.kind), self.pressure if self.kind is ZoneKind.PRESSURE else 0.0


@dataclass(frozen=True, slots=True)
class Element:
    """``faces``: the zone the maker has it face, which outranks the rule; ``word``: what faces, where not the usual;
    ``as_marked``: the marks that tell its way round, for what has no side of its own to look at."""

    key: str
    kind: ElementKind
    name: str = ""
    faces: str | None = None
    word: str = ""
    why: str = ""
    as_marked: str = ""

    @property
    def label(self) -> str:
        return self.name or self.key

    @property
    def face(self) -> str:
        """What of it faces a zone."""
        return self.word or KINDS[self.kind].word


@dataclass(frozen=True, slots=True)
class Station:
    """One place that seals. Elements lie in physical order from the first zone to the second."""

    key: str
    between: tuple[str, str]
    elements: tuple[Element, ...]
    motion: str = "static"
    entered_from: str | None = None

    def nearest(self, place: int, kinds: Collection[ElementKind]) -> list[int]:
        """The places of the nearest other elements of some kinds: one, or two where they lie as near on both sides."""
        places = [i for i, element in enumerate(self.elements) if element.kind in kinds and i != place]
        least = min((abs(i - place) for i in places), default=0)
        return [i for i in places if abs(i - place) == least]


@dataclass(frozen=True, slots=True)
class OrientedElement:
    """``instruction``: which way round, with the zone; ``reason``: what decides it, without naming a zone."""

    key: str
    kind: ElementKind
    faces: str | None
    instruction: str
    reason: str
    label: str
    word: str


@dataclass(frozen=True, slots=True)
class OrientedStation:
    key: str
    elements: tuple[OrientedElement, ...]
    fitting_order: tuple[str, ...]
    removal_order: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Orientation:
    stations: tuple[OrientedStation, ...]
    findings: tuple[Finding, ...]

    def facing(self, element: str) -> str | None:
        """The zone this element must face, or None when it has no direction."""
        for station in self.stations:
            for oriented in station.elements:
                if oriented.key == element:
                    return oriented.faces
        return None


def check_references(zones: tuple[Zone, ...], stations: tuple[Station, ...], as_found: dict[str, str]) -> None:
    """Raises RuleError naming every unknown zone, unknown element and repeated key."""
    keys = {zone.key for zone in zones}
    names = tuple(sorted(keys))
    faults: list[FieldFault] = []
    seen: set[str] = set()
    for s, station in enumerate(stations):
        for side, key in enumerate(station.between):
            if key not in keys:
                faults.append(FieldFault(f"stations.{s}.between.{side}", f"“{key}” is not a zone", names))
        if station.between[0] == station.between[1]:
            faults.append(FieldFault(f"stations.{s}.between", "a station seals between two different zones", names))
        if station.entered_from is not None and station.entered_from not in station.between:
            faults.append(
                FieldFault(
                    f"stations.{s}.entered_from",
                    f"“{station.entered_from}” is not one of its two zones",
                    station.between,
                )
            )
        for e, element in enumerate(station.elements):
            if element.key in seen:
                faults.append(FieldFault(f"stations.{s}.elements.{e}.key", f"“{element.key}” is used twice"))
            seen.add(element.key)
            if element.faces is not None and element.faces not in station.between:
                text = f"“{element.faces}” is not one of its station's two zones"
                faults.append(FieldFault(f"stations.{s}.elements.{e}.faces", text, station.between))
    for key, zone in as_found.items():
        if key not in seen:
            faults.append(
                FieldFault(f"as_found.{key}", "is not an element of these stations", tuple(sorted(seen))[:12])
            )
        if zone not in keys:
            faults.append(FieldFault(f"as_found.{key}", f"“{zone}” is not a zone", names))
    if faults:
        raise RuleError(faults)
