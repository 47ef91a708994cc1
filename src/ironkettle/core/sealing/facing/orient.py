"""Orientation of all stations, and comparison with the way things were found."""

from __future__ import annotations

from collections.abc import Mapping

from ironkettle.core.base.findings import Finding, reject
from ironkettle.core.sealing.catalogue import KINDS
from ironkettle.core.sealing.facing.facing import BASIS, orient_elements
from ironkettle.core.sealing.facing.model import (
    Orientation,
    OrientedElement,
    OrientedStation,
    Station,
    Zone,
    check_references,
)
from ironkettle.core.sealing.facing.order import fitting_order, removal_order


def orient(
    zones: tuple[Zone, ...], stations: tuple[Station, ...], as_found: Mapping[str, str] | None = None
) -> Orientation:
    """Facing and order of every element; elements found the wrong way round are called out.

    Parameters
    ----------
    zones : every pressure space, drain and the open air. [MPa gauge]
    stations : elements in physical order from the first zone to the second.
    as_found : element key to the zone it faced at strip-down.

    Raises RuleError for unknown zones and elements and repeated keys.
    """
    found = dict(as_found or {})
    check_references(zones, stations, found)
    by_key = {zone.key: zone for zone in zones}
    oriented: list[OrientedStation] = []
    findings: list[Finding] = []
    for station in stations:
        elements, station_findings = orient_elements(station, by_key)
        oriented.append(OrientedStation(station.key, elements, fitting_order(station), removal_order(station)))
        findings += station_findings
        findings += [f for e in elements if (f := reversed_finding(e, found.get(e.key), by_key)) is not None]
    return Orientation(tuple(oriented), tuple(findings))


def reversed_finding(element: OrientedElement, faced: str | None, zones: Mapping[str, Zone]) -> Finding | None:
    """The finding for an element that faced another zone than it must, or None.

    What comes of it is told by kind: a lip leaks, a wiper lets dirt in.
    """
    if faced is None or element.faces is None or faced == element.faces:
        return None
    must, was = zones[element.faces].label, zones[faced].label
    effect = KINDS[element.kind].reversed
    text = f"{element.label} was found reversed: {element.word} towards {was}, must be towards {must}; {effect}"
    return reject("reversed", text, BASIS)
