"""The order of fitting and of removal at a station."""

from __future__ import annotations

from ironkettle.core.sealing.catalogue import KINDS
from ironkettle.core.sealing.facing.model import Station


def fitting_order(station: Station) -> tuple[str, ...]:
    """Keys in the order they go in: deepest first as seen from where the station is entered.

    An energiser goes in before the slide ring it lies under, whatever the side. Without
    ``entered_from`` the station is taken as entered from its second zone.
    """
    elements = list(station.elements)
    if station.entered_from == station.between[0]:
        elements.reverse()
    for index in range(len(elements) - 1):
        if KINDS[elements[index + 1].kind].inside is elements[index].kind:
            elements[index], elements[index + 1] = elements[index + 1], elements[index]
    return tuple(element.key for element in elements)


def removal_order(station: Station) -> tuple[str, ...]:
    """The fitting order backwards: what went in last comes out first."""
    return tuple(reversed(fitting_order(station)))
