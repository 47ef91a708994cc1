"""What a job knows of a seal that failed: what was seen as it came off, its place on the sheet, and the sums of its groove."""

from __future__ import annotations

from ironkettle.core.base.errors import RuleError
from ironkettle.core.base.quantities import read_length, read_temperature
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kinds.find import FOUND
from ironkettle.core.jobs.kinds.intake import intake_of
from ironkettle.core.jobs.kinds.size import SIZES
from ironkettle.core.jobs.resolved import ElementAt
from ironkettle.core.sealing.catalogue import BACKUPS, KINDS, ElementKind
from ironkettle.core.sealing.compounds import Compound, find_compound, find_medium
from ironkettle.core.sealing.failures import Circumstances, Faced, Sign
from ironkettle.core.sealing.grooves import Gland, GlandCheck, check_gland
from ironkettle.core.sealing.rings import RingSize
from ironkettle.core.sheets.document.facts import gland_of, zones_by_key

_GASES = frozenset({"air", "gas"})
_STEAM = "steam"


def failed(case: Case) -> list[ElementAt]:
    """The elements that ask for a cause: those with a sign on them, those that lay the wrong way round, and rings whose
    backup did not exist."""
    return [at for key, at in case.resolved.elements.items() if case.state.has(FOUND, key) and _speaks(case, at)]


def _speaks(case: Case, at: ElementAt) -> bool:
    faced = _faced(case, at)
    turned = faced is not None and faced.was != faced.must
    return bool(_signs(case, at)) or turned or (KINDS[at.spec.kind].backed and _backup_missing(case, at))


def _signs(case: Case, at: ElementAt) -> tuple[Sign, ...]:
    found = case.state.get(FOUND, at.key)
    return tuple(sign for sign in found.signs if sign is not Sign.NONE) if found and found.present else ()


def circumstances_of(case: Case, at: ElementAt) -> Circumstances:
    """Everything known of one element as it was found. Temperature [°C], pressure [MPa]."""
    gland, check = _groove(case, at)
    found = case.state.get(FOUND, at.key)
    compound = compound_of(case, at)
    service = case.resolved.sheet.service
    gas = None if service.medium == _STEAM else is_gas(case)
    zones = zones_by_key(case.resolved.sheet)
    high = service.temperature[1] if service.temperature else None
    return Circumstances(
        at.spec.kind,
        _signs(case, at),
        at.station.motion.value,
        gland,
        check,
        _faced(case, at),
        next(iter(media_of(case)), None),
        gas,
        compound,
        read_temperature(high, "temperature") if high else None,
        pressure=max((abs(zones[key].pressure) for key in at.station.between), default=None),
        backup_missing=KINDS[at.spec.kind].backed and _backup_missing(case, at),
        section=_section(case, at),
        lubricant=found.lubricant if found and found.present else None,
    )


def _faced(case: Case, at: ElementAt) -> Faced | None:
    """As it was found first: a second look turns nothing round."""
    marked = case.state.first(FOUND).get(at.key)
    must = case.resolved.oriented[at.key].faces
    was = marked.value.faced if marked else None
    if must is None or was is None:
        return None
    names = case.resolved.zone_names
    return Faced(was, must, names.get(was, was), names.get(must, must))


def _backup_missing(case: Case, at: ElementAt) -> bool:
    backups = [element.key for element in at.seat.elements if element.kind in BACKUPS and element.same_as is None]
    found = [case.state.get(FOUND, key) for key in backups]
    return any(finding is not None and not finding.present for finding in found)


def _groove(case: Case, at: ElementAt) -> tuple[Gland | None, GlandCheck | None]:
    """The sums of the groove with the ring that belongs in it; nothing where the ring is not known."""
    ring = _ring(case, at)
    try:
        gland = gland_of(case.resolved.sheet, at.station, at.seat)
    except RuleError:
        return None, None
    if gland is None or ring is None:
        return None, None
    return gland, check_gland(gland, ring, case.tables.glands)


def _section(case: Case, at: ElementAt) -> tuple[float, float] | None:
    """The section of the ring that came off, where it was measured, beside that of the one that belongs there. [mm]"""
    found, ring = case.state.get(FOUND, at.key), _ring(case, at)
    if found is None or found.section is None or ring is None:
        return None
    return read_length(found.section, "section"), ring.section


def _ring(case: Case, at: ElementAt) -> RingSize | None:
    chosen = case.state.get(SIZES, at.key)
    size = chosen.size if chosen else f"{at.spec.ring.series} {at.spec.ring.designation}" if at.spec.ring else None
    if size is None or at.spec.kind is not ElementKind.O_RING:
        return None
    series, _, designation = size.strip().rpartition(" ")
    try:
        return case.tables.rings.find(series, designation)
    except RuleError:
        return None


def compound_of(case: Case, at: ElementAt) -> Compound | None:
    """What an element is made of, as the sheet or its kit line has it; None where that is not known."""
    lines = case.resolved.lines_of(at.key)
    named = at.spec.compound or next((line.compound for line in lines if line.compound), None)
    try:
        return None if named is None else find_compound(named, case.tables.glands.compounds)
    except RuleError:
        return None


def is_gas(case: Case) -> bool:
    """Whether the unit is worked with a gas; steam counts, it wets nothing."""
    return case.resolved.sheet.service.medium in _GASES | {_STEAM}


def media_of(case: Case) -> tuple[str, ...]:
    """The columns of the compatibility table for the fluid it came in with, then for those of the sheet, as far as they are known."""
    compounds = case.tables.glands.compounds
    media = tuple(compounds[0].ratings) if compounds else ()
    intake = intake_of(case.state)
    fluids = (*([intake.value.fluid] if intake else []), *case.resolved.sheet.service.fluids)
    found = (find_medium(fluid, media) for fluid in fluids)
    return tuple(dict.fromkeys(circumstance for circumstance in found if circumstance is not None))


__all__ = ["circumstances_of", "compound_of", "failed", "is_gas", "media_of"]
