"""The way a leak takes: the stations whose failure would let pressure into a zone, nearest first."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from ironkettle.core.sealing.facing import Zone
from ironkettle.core.sheets.document.facts import zones_by_key
from ironkettle.core.sheets.document.places import StationSpec
from ironkettle.core.sheets.document.sheet import Sheet
from ironkettle.core.sheets.drawing.seats import BARE, element_seals


@dataclass(frozen=True, slots=True)
class LeakPath:
    """From a zone that pushes harder to the one the leak is seen in, through these stations in this order."""

    source: str
    zone: str
    stations: tuple[str, ...]


def leak_paths(sheet: Sheet, zone: str) -> tuple[LeakPath, ...]:
    """Every way a leak seen in a zone may have come, the shortest first.

    A way leads from station to station through zones, and ends at the first zone that pushes harder than the one
    it is seen in. Stations of wipers, bands or guides alone hold nothing back and are no way.

    Parameters: zone : key of the zone the leak is seen in; an unknown one has no ways.
    """
    zones = zones_by_key(sheet)
    if zone not in zones:
        return ()
    edges = [station for station in sheet.stations if _holds(station)]
    found: list[LeakPath] = []
    waiting: list[tuple[str, tuple[str, ...], frozenset[str]]] = [(zone, (), frozenset({zone}))]
    while waiting:
        at, way, seen = waiting.pop(0)
        for station, beyond in _beside(at, edges):
            if beyond in seen:
                continue
            through = (station.key, *way)
            if _pushes_harder(zones[beyond], zones[zone]):
                found.append(LeakPath(beyond, zone, through))
            else:
                waiting.append((beyond, through, seen | {beyond}))
    return tuple(found)


def paths_through(sheet: Sheet, station: str) -> tuple[LeakPath, ...]:
    """The ways a leak takes when one station fails: from the harder pushing of its zones to the other.

    Parameters: station : key of the station where an element is missing or reversed.
    """
    zones = zones_by_key(sheet)
    spec = next((there for there in sheet.stations if there.key == station), None)
    if spec is None:
        return ()
    first, second = (zones[key] for key in spec.between)
    if first.rank == second.rank:
        return (LeakPath(first.key, second.key, (station,)), LeakPath(second.key, first.key, (station,)))
    high, low = (first, second) if first.rank > second.rank else (second, first)
    return (LeakPath(high.key, low.key, (station,)),)


def _holds(station: StationSpec) -> bool:
    return any(
        any(element_seals(element) for element in seat.elements) if seat.elements else seat.kind in BARE
        for seat in station.seats
    )


def _beside(zone: str, stations: Iterable[StationSpec]) -> list[tuple[StationSpec, str]]:
    """The stations at a zone, with the zone beyond each."""
    found = []
    for station in stations:
        if zone in station.between:
            first, second = station.between
            found.append((station, second if first == zone else first))
    return found


def _pushes_harder(one: Zone, other: Zone) -> bool:
    return one.rank > other.rank
