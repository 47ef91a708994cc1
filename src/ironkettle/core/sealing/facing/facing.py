"""Which way round: the zone each element must face, from the zones and the kind of element.

Basis: how each profile works (core/sealing/catalogue). A lip is pushed open by the pressure it holds, a wiper
lip scrapes dirt back to where it comes from, a hollow backup hugs its ring. The maker's drawing wins:
a facing that the sheet gives outranks the rule, and the difference is told.
"""

from __future__ import annotations

from collections.abc import Mapping

from ironkettle.core.base.findings import Finding, caution, info
from ironkettle.core.sealing.catalogue import BACKUPS, KINDS, ElementKind, Law, has_law
from ironkettle.core.sealing.facing.model import Element, OrientedElement, Station, Zone, ZoneKind
from ironkettle.core.sealing.facing.support import misplaced

BASIS = "way-round rule by kind of element and pressure zones (the maker's drawing wins)"
_LIPPED = has_law(Law.HELD)
_BEVELLED = has_law(Law.BEVEL)


def orient_elements(station: Station, zones: Mapping[str, Zone]) -> tuple[tuple[OrientedElement, ...], list[Finding]]:
    """The zone each element of a station must face, with an instruction in words, and findings.

    The answer is the same when the station is listed from its other end. Where zones and kinds do not
    say which way round, the facing is left open and said so.
    """
    sides = _Sides(station, zones[station.between[0]], zones[station.between[1]])
    oriented, findings = [], []
    for place, element in enumerate(station.elements):
        by_rule, known = (None, True) if element.as_marked else sides.of(place)
        faces = element.faces or by_rule
        known = known or element.faces is not None
        oriented.append(
            OrientedElement(
                element.key,
                element.kind,
                faces,
                _instruction(element, faces, zones, known=known),
                _reason(element, by_rule, zones, known=known),
                element.label,
                element.face,
            )
        )
        if not known:
            text = f"{station.key}: neither zones nor kind say which way round {element.label} goes; the maker's drawing must"
            findings.append(caution("way-unknown", text, BASIS))
        elif element.faces and by_rule and element.faces != by_rule:
            findings.append(_differs(element, by_rule, zones))
    findings += _one_way(station, oriented, sides)
    findings += _supposed(station, sides)
    findings += misplaced(
        station, {placed.key: placed.faces for placed in oriented}, (sides.first, sides.second), sides.high
    )
    findings += _entered(station, sides)
    return tuple(oriented), findings


class _Sides:
    """The two zones of a station, and which of them an element must face."""

    def __init__(self, station: Station, first: Zone, second: Zone) -> None:
        self.station, self.first, self.second = station, first, second
        self.both_pressed = first.kind is ZoneKind.PRESSURE and second.kind is ZoneKind.PRESSURE
        self.high: Zone | None = None
        if first.rank != second.rank:
            self.high = max(first, second, key=lambda zone: zone.rank)
        self.low = None if self.high is None else self.other(self.high)

    def other(self, zone: Zone) -> Zone:
        return self.second if zone is self.first else self.first

    def of(self, place: int) -> tuple[str | None, bool]:
        """The zone faced, None for an element without direction; and whether that is known."""
        law = KINDS[self.station.elements[place].kind].law
        if law is Law.AIR:
            return _known(self.dirty)
        if law is Law.HELD:
            return _known(self._shared(place, _LIPPED) if self.both_pressed else self.high)
        if law is Law.HIGHER:
            return _known(self.high)
        if law is Law.LOWER:
            return _known(self.low)
        if law is Law.RING:
            return self._towards(place, _RINGS, self.high)
        if law is Law.PACKING:
            # The flat face of either lies away from the packing it carries.
            return self._towards(place, {ElementKind.V_PACKING}, None, away=True)
        if law is Law.BEVEL:
            return self._bevel(place)
        return None, True

    @property
    def dirty(self) -> Zone | None:
        """The side dirt comes from: the open air where one side is, else the lower pressure."""
        airs = [zone for zone in (self.first, self.second) if zone.kind is ZoneKind.ATMOSPHERE]
        return airs[0] if len(airs) == 1 else self.low

    def _bevel(self, place: int) -> tuple[str | None, bool]:
        if not self.both_pressed:
            return (None if self.high is None else self.high.key), True
        if sum(element.kind in _BEVELLED for element in self.station.elements) == 1:
            return None, True
        return _known(self._shared(place, _BEVELLED))

    def _shared(self, place: int, kinds: frozenset[ElementKind]) -> Zone | None:
        """Between two pressures those nearest a space hold that space; one alone, or in the middle, the higher.

        V-rings that lie together are one set and face one way.
        """
        sets = _sets(self.station, kinds)
        at = next(index for index, places in enumerate(sets) if place in places)
        from_middle = 2 * at - (len(sets) - 1)
        if from_middle == 0:
            return self.high
        return self.first if from_middle < 0 else self.second

    def _towards(
        self, place: int, kinds: set[ElementKind], tie: Zone | None, *, away: bool = False
    ) -> tuple[str | None, bool]:
        """The side on which the nearest element of some kinds lies, or the other; ``tie`` where one lies on both."""
        near = self.station.nearest(place, kinds)
        if not near:
            return None, True
        if len(near) == 2:
            return _known(tie)
        return (self.first if (near[0] < place) is not away else self.second).key, True


# What a hollow backup hugs.
_RINGS = {ElementKind.O_RING}


def _known(zone: Zone | None) -> tuple[str | None, bool]:
    return (None, False) if zone is None else (zone.key, True)


def _sets(station: Station, kinds: frozenset[ElementKind]) -> list[list[int]]:
    """Places of the elements of some kinds; V-rings side by side are one set."""
    sets: list[list[int]] = []
    for place, element in enumerate(station.elements):
        if element.kind not in kinds:
            continue
        adjoins = sets and sets[-1][-1] == place - 1 and station.elements[place - 1].kind is ElementKind.V_PACKING
        if element.kind is ElementKind.V_PACKING and adjoins:
            sets[-1].append(place)
        else:
            sets.append([place])
    return sets


def _instruction(element: Element, faces: str | None, zones: Mapping[str, Zone], *, known: bool) -> str:
    if not known:
        return f"{element.face}: as the maker's drawing shows; the zones do not tell"
    if faces is None:
        return element.as_marked or KINDS[element.kind].undirected
    if element.kind is ElementKind.CONTOURED_BACKUP:
        return f"{element.face} against the O-ring, towards {zones[faces].label}"
    return f"{element.face} towards {zones[faces].label}"


_REASON = {
    Law.HELD: "towards the pressure it holds",
    Law.HIGHER: "towards the higher pressure",
    Law.LOWER: "towards the lower pressure",
    Law.AIR: "towards the side that dirt comes from",
    Law.RING: "against the O-ring",
    Law.PACKING: "away from the packing",
    Law.BEVEL: "towards the pressure",
}


def _reason(element: Element, by_rule: str | None, zones: Mapping[str, Zone], *, known: bool) -> str:
    """What decides the way round, for one who has the unit in hand: no answer to a question about the zone."""
    if not known:
        return f"{element.face}: as the maker's drawing shows; the zones do not tell"
    if element.faces is None and by_rule is None:
        return element.as_marked or KINDS[element.kind].undirected
    if element.faces in {None, by_rule}:
        return f"{element.face} {_REASON[KINDS[element.kind].law]}"
    named = any(zone.label.casefold() in element.why.casefold() for zone in zones.values())
    why = f": {element.why}" if element.why and not named else ""
    return f"{element.face} as the maker's drawing shows{why}"


def _differs(element: Element, by_rule: str, zones: Mapping[str, Zone]) -> Finding:
    why = f": {element.why}" if element.why else ""
    text = (
        f"{element.label}: {element.face} towards {zones[element.faces or by_rule].label} as the sheet has it{why}; "
        f"by the rule it would be {zones[by_rule].label}"
    )
    return info("way-differs", text, "the build sheet; the maker's drawing wins")


def _one_way(station: Station, oriented: list[OrientedElement], sides: _Sides) -> list[Finding]:
    """Between two pressures, a space that no lip is open towards is not held."""
    faced = {element.faces for element in oriented if element.kind in _LIPPED}
    both_ways = any(element.kind in _BEVELLED or element.kind is ElementKind.O_RING for element in oriented)
    if not sides.both_pressed or not faced or both_ways:
        return []
    unheld = [zone.label for zone in (sides.first, sides.second) if zone.key not in faced]
    if None in faced or not unheld:
        return []
    text = f"{station.key}: no lip is open towards {unheld[0]}, so nothing holds pressure from there"
    return [caution("one-way-seal", text, BASIS)]


def _supposed(station: Station, sides: _Sides) -> list[Finding]:
    """Several lips between two pressures, odd in number or of two kinds, are split by place: that is a supposition."""
    sets = _sets(station, _LIPPED)
    kinds = {station.elements[places[0]].kind for places in sets}
    given = all(station.elements[places[0]].faces for places in sets)
    if not sides.both_pressed or len(sets) < 2 or given or (len(sets) % 2 == 0 and len(kinds) == 1):
        return []
    text = (
        f"{station.key}: {len(sets)} lipped seals between two pressures, {'of two kinds' if len(kinds) > 1 else 'an odd number'}: "
        "taken to hold the space each lies nearest; look at the maker's drawing"
    )
    return [caution("way-supposed", text, BASIS)]


def _entered(station: Station, sides: _Sides) -> list[Finding]:
    """Where the order of fitting rests on a supposition, or a metal-clad wiper would come from inside."""
    dirty = sides.dirty
    clad = [element for element in station.elements if element.kind is ElementKind.METAL_CLAD_WIPER]
    if clad and station.entered_from is not None and dirty is not None and station.entered_from != dirty.key:
        text = f"{station.key}: {clad[0].label} is pressed in from {dirty.label} only; it cannot come from inside"
        return [caution("clad-from-inside", text, BASIS)]
    if station.entered_from is None and len(station.elements) > 1:
        text = f"{station.key}: from which side it is entered is not said; the order of fitting is the one listed"
        return [info("entered-supposed", text, BASIS)]
    return []


__all__ = ["BACKUPS", "BASIS", "orient_elements"]
