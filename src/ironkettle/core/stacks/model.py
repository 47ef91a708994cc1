"""Zones, stations and elements: what seals, between which spaces, in which physical order."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

from ironkettle.core.errors import FieldFault, RuleError
from ironkettle.core.findings import Finding


class ZoneKind(StrEnum):
    PRESSURE = "pressure"
    ATMOSPHERE = "atmosphere"
    DRAIN = "drain"
    VACUUM = "vacuum"


class ElementKind(StrEnum):
    O_RING = "o_ring"
    BACKUP_RING = "backup_ring"
    CONTOURED_BACKUP = "contoured_backup"
    LIP_SEAL = "lip_seal"
    WIPER = "wiper"
    METAL_CLAD_WIPER = "metal_clad_wiper"
    SLIDE_RING = "slide_ring"
    ENERGISER = "energiser"
    WEAR_BAND = "wear_band"
    V_PACKING = "v_packing"
    HEADER_RING = "header_ring"
    FOLLOWER_RING = "follower_ring"
    LANTERN_RING = "lantern_ring"
    CONED_WASHER = "coned_washer"
    CUP_SEAL = "cup_seal"
    GASKET = "gasket"
    DIAPHRAGM = "diaphragm"
    SHAFT_SEAL = "shaft_seal"


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
    key: str
    kind: ElementKind
    name: str = ""

    @property
    def label(self) -> str:
        return self.name or self.key


@dataclass(frozen=True, slots=True)
class Station:
    """One place that seals. Elements lie in physical order from the first zone to the second."""

    key: str
    between: tuple[str, str]
    elements: tuple[Element, ...]
    motion: str = "static"
    entered_from: str | None = None


@dataclass(frozen=True, slots=True)
class OrientedElement:
    key: str
    kind: ElementKind
    faces: str | None
    instruction: str
    label: str


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
    for key, zone in as_found.items():
        if key not in seen:
            faults.append(
                FieldFault(f"as_found.{key}", "is not an element of these stations", tuple(sorted(seen))[:12])
            )
        if zone not in keys:
            faults.append(FieldFault(f"as_found.{key}", f"“{zone}” is not a zone", names))
    if faults:
        raise RuleError(faults)
