"""What lies on the wrong side of its neighbour: a backup before its ring, a header ring behind its packing."""

from __future__ import annotations

from collections.abc import Iterator, Mapping

from ironkettle.core.base.findings import Finding, caution, reject
from ironkettle.core.sealing.catalogue import BACKUPS, ElementKind, Law, has_law
from ironkettle.core.sealing.facing.model import Station, Zone, ZoneKind

_BASIS = "support lies behind what it supports, away from the pressure (the maker's drawing wins)"
# What a backup may back up.
_BACKED = {ElementKind.O_RING, ElementKind.SLIDE_RING} | set(has_law(Law.HELD))


def misplaced(
    station: Station, faces: Mapping[str, str | None], zones: tuple[Zone, Zone], high: Zone | None
) -> list[Finding]:
    """Backups, header and follower rings that lie on the wrong side of what they support.

    Parameters: faces : the zone each element faces; zones : the station's two, in order; high : the one
    that pushes harder, None where they are alike.
    """
    return [*_backups(station, faces, zones, high), *_packing_ends(station, faces, zones)]


def _backups(
    station: Station, faces: Mapping[str, str | None], zones: tuple[Zone, Zone], high: Zone | None
) -> Iterator[Finding]:
    """A backup before its ring; between two pressures, backups of a ring that holds both on one side only."""
    both_pressed = all(zone.kind is ZoneKind.PRESSURE for zone in zones)
    one_sided: set[bool] = set()
    for place, element in enumerate(station.elements):
        near = station.nearest(place, _BACKED) if element.kind in BACKUPS else []
        if len(near) != 1:
            continue
        backed = station.elements[near[0]]
        lies_towards = zones[0] if near[0] > place else zones[1]
        held = faces.get(backed.key)
        if held is not None:
            pressed = held == lies_towards.key
        elif both_pressed:
            one_sided.add(near[0] > place)
            continue
        else:
            pressed = high is lies_towards
        if pressed:
            text = (
                f"{station.key}: {element.label} lies on the pressure side of {backed.label}; it belongs on the side "
                f"away from {lies_towards.label}"
            )
            yield reject("backup-high-side", text, _BASIS)
    if len(one_sided) == 1:
        text = f"{station.key}: pressure comes from both sides; a backup lies on one only"
        yield caution("backup-one-side", text, _BASIS)


def _packing_ends(station: Station, faces: Mapping[str, str | None], zones: tuple[Zone, Zone]) -> Iterator[Finding]:
    """A header ring lies at the openings of its V-rings, a follower at their backs."""
    for place, element in enumerate(station.elements):
        if element.kind not in {ElementKind.HEADER_RING, ElementKind.FOLLOWER_RING}:
            continue
        near = station.nearest(place, {ElementKind.V_PACKING})
        opens = faces.get(station.elements[near[0]].key) if len(near) == 1 else None
        if opens is None:
            continue
        lies_towards = (zones[0] if near[0] > place else zones[1]).key
        at_openings = lies_towards == opens
        if at_openings is not (element.kind is ElementKind.HEADER_RING):
            where = "openings" if element.kind is ElementKind.HEADER_RING else "backs"
            text = f"{station.key}: {element.label} lies at the wrong end of its V-rings; it belongs at their {where}"
            yield reject("packing-end", text, _BASIS)
