"""What is known of a failed seal beside what is seen on it, each fact as a word for or against one cause.

A fact that is not known says nothing. A fact speaks to one cause alone, so that more of it never lowers that cause.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ironkettle.core.sealing.catalogue import ElementKind
from ironkettle.core.sealing.compounds import LUBRICANTS, Compound, Lubricant, Rating, lubricant_column
from ironkettle.core.sealing.failures.model import Cause, Sign
from ironkettle.core.sealing.grooves import Gland, GlandCheck, Medium


@dataclass(frozen=True, slots=True)
class Faced:
    """The space an element faced and the one it must face, as keys, with the names people know them by."""

    was: str
    must: str
    was_name: str
    must_name: str


@dataclass(frozen=True, slots=True)
class Circumstances:
    """What is known. ``check``: the sums of its groove; ``medium``: a column of the compatibility table; ``gas``: whether
    it seals gas; ``lubricant``: what was on it as it came off; temperature [°C], speed [m/s], age [years], pressure [MPa]; ``section``: that of what came off, as measured, and that of what belongs there [mm]. None where it is
    not known.
    """

    element: ElementKind
    signs: tuple[Sign, ...] = ()
    motion: str | None = None
    gland: Gland | None = None
    check: GlandCheck | None = None
    faced: Faced | None = None
    medium: str | None = None
    gas: bool | None = None
    compound: Compound | None = None
    temperature: float | None = None
    speed: float | None = None
    years: float | None = None
    pressure: float | None = None
    backup_missing: bool = False
    section: tuple[float, float] | None = None
    lubricant: Lubricant | None = None


@dataclass(frozen=True, slots=True)
class Evidence:
    """One fact about one cause: how much more (or less) likely it makes it [-], and in words."""

    cause: Cause
    ratio: float
    text: str


# How much a fact counts. Source: this project's own judgement; a reversed lip is as good as proof.
_PROOF, _MUCH, _SOME = 100.0, 6.0, 3.0
_LITTLE_AGAINST, _AGAINST, _MUCH_AGAINST = 0.5, 0.3, 0.03
# A gap just over what is safe, and how fast it speaks the louder with each doubling: six times at twice the safe gap.
_BARELY, _BY_GAP = 1.2, 2.6
# Gas under less than this rarely tears rubber when it is let off [MPa]; faster than this a dry surface heats [m/s].
_GAS_TEARS, _FAST = 3.5, 0.5
_OLD, _VERY_OLD, _NEW = 5.0, 10.0, 1.0
_NEAR_LIMIT_C = 15.0
# Media that burn where air is pressed with them.
_BURNS = frozenset(
    {
        "mineral_hydraulic_oil",
        "synthetic_ester_hees",
        "vegetable_oil_hetg",
        "lubricated_air",
        "diesel",
        "petrol",
        "mineral_grease",
    }
)


def evidence_of(known: Circumstances) -> Iterator[Evidence]:
    """Every fact that speaks for or against a cause."""
    yield from _facing(known)
    yield from _size(known)
    yield from _groove(known)
    yield from _backup(known)
    yield from _compound(known)
    yield from _lubricant(known)
    yield from _gas(known)
    yield from _use(known)


def _facing(known: Circumstances) -> Iterator[Evidence]:
    if known.faced is None:
        return
    was, must = known.faced.was_name, known.faced.must_name
    if known.faced.was != known.faced.must:
        yield Evidence(Cause.REVERSED, _PROOF, f"it faced {was} and must face {must}")
    else:
        yield Evidence(Cause.REVERSED, _MUCH_AGAINST, f"it faced {must}, as it must")


# Rubber that lived in a groove has lost or gained this much without being another size. [-]
_SAME_SECTION = 0.08


def _size(known: Circumstances) -> Iterator[Evidence]:
    if known.section is None:
        return
    was, right = known.section
    text = f"its section was {was:.2f} mm, {right:.2f} mm belongs here"
    if was < right * (1 - _SAME_SECTION):
        yield Evidence(Cause.TOO_SMALL, _MUCH, text)
    elif was > right * (1 + _SAME_SECTION):
        yield Evidence(Cause.TOO_LARGE, _MUCH, text)


def _groove(known: Circumstances) -> Iterator[Evidence]:
    check, gland = known.check, known.gland
    if check is None or gland is None:
        return
    if check.gap is not None:
        yield _gap(check, gland)
    low, high = check.squeeze_pct.min, check.squeeze_pct.max
    band = check.squeeze_band
    if check.squeeze_pct.nominal < band.low:
        yield Evidence(Cause.TOO_SMALL, _MUCH, f"squeeze {check.squeeze_pct.nominal:.0f} %, {band.low:g} % wanted")
    elif check.stretch_pct.nominal > check.stretch_band.high:
        text = f"stretched {check.stretch_pct.nominal:.1f} %, {check.stretch_band.high:g} % allowed"
        yield Evidence(Cause.TOO_SMALL, _MUCH, text)
    elif low >= band.low:
        yield Evidence(Cause.TOO_SMALL, _AGAINST, f"squeeze {low:.0f} % at least, {band.low:g} % wanted")
    fill = check.fill_pct.max
    if fill > check.limits.fill_worst_max:
        yield Evidence(Cause.TOO_LARGE, _MUCH, f"it fills {fill:.0f} % of the groove at worst")
    elif check.squeeze_pct.nominal > band.high:
        yield Evidence(Cause.TOO_LARGE, _MUCH, f"squeeze {check.squeeze_pct.nominal:.0f} %, {band.high:g} % allowed")
    elif high <= band.high:
        yield Evidence(Cause.TOO_LARGE, _AGAINST, f"squeeze {high:.0f} % at most, {band.high:g} % allowed")


def _gap(check: GlandCheck, gland: Gland) -> Evidence:
    gap = check.gap
    assert gap is not None
    backed = check.backup.needed and gland.backup_rings_fitted >= check.backup.count
    at = f"at {abs(gland.pressure or 0.0) * 10:.0f} bar and {gland.hardness_shore_a} Shore A"
    if not check.backup.needed:
        # The groove check and this one never contradict each other.
        safe = "no gap to go into" if gap.worst <= 0 else f"gap {gap.worst:.2f} mm at worst, safe {at}"
        return Evidence(Cause.EXTRUSION, _MUCH_AGAINST if gap.worst <= 0 else _AGAINST, safe)
    allowed = "none allowed" if not gap.allowed else f"{gap.allowed:.2f} mm allowed"
    text = f"gap {gap.worst:.2f} mm at worst, {allowed} {at}"
    if backed and abs(gland.pressure or 0.0) <= gap.safe_backed:
        return Evidence(Cause.EXTRUSION, _LITTLE_AGAINST, f"{text} without a backup ring; one is fitted")
    return Evidence(Cause.EXTRUSION, _beyond(gap.worst, gap.allowed), text)


def _beyond(worst: float, allowed: float | None) -> float:
    """How much a gap speaks for extrusion, by how far it is over what is safe: a little over it hardly, twice over much. [-]"""
    if not allowed:
        return _MUCH
    return min(max(float((worst / allowed) ** _BY_GAP), _BARELY), 2 * _MUCH)


def _backup(known: Circumstances) -> Iterator[Evidence]:
    if known.backup_missing:
        yield Evidence(Cause.MISSING_BACKUP, _PROOF, "a backup ring belongs beside it and did not exist")
        return
    if known.check is None or known.gland is None or (known.check.gap is None and not known.check.backup.needed):
        return
    wanted, fitted = known.check.backup.count, known.gland.backup_rings_fitted
    if not known.check.backup.needed:
        yield Evidence(Cause.MISSING_BACKUP, _MUCH_AGAINST, "this gap asks for no backup ring")
    elif fitted < wanted:
        yield Evidence(
            Cause.MISSING_BACKUP, _MUCH, f"{wanted} backup {'ring' if wanted == 1 else 'rings'} wanted, {fitted} fitted"
        )
    else:
        yield Evidence(Cause.MISSING_BACKUP, _AGAINST, f"{fitted} fitted, as many as are wanted")


def _compound(known: Circumstances) -> Iterator[Evidence]:
    compound = known.compound
    if compound is None:
        return
    if known.medium is not None:
        rating, medium = compound.ratings[known.medium], known.medium.replace("_", " ")
        ratio = {Rating.GOOD: _AGAINST, Rating.FAIR: 1.0, Rating.DOUBTFUL: _SOME, Rating.DO_NOT_USE: _MUCH * 2}[rating]
        words = {1: "resists", 2: "fairly resists", 3: "hardly resists", 4: "does not resist"}[int(rating)]
        if rating is not Rating.FAIR:
            yield Evidence(Cause.CHEMICAL_SWELL, ratio, f"{compound.name} {words} {medium}")
    if known.temperature is not None:
        span = f"{compound.name} is for {compound.low:g} to {compound.high:g} °C"
        if known.temperature > compound.high:
            yield Evidence(Cause.HEAT, _MUCH * 2, f"{known.temperature:g} °C: {span}")
        elif known.temperature > compound.high - _NEAR_LIMIT_C:
            yield Evidence(Cause.HEAT, _SOME, f"{known.temperature:g} °C is near its limit: {span}")
        else:
            yield Evidence(Cause.HEAT, _AGAINST, f"{known.temperature:g} °C: {span}")


def _lubricant(known: Circumstances) -> Iterator[Evidence]:
    if known.lubricant is Lubricant.DRY:
        yield Evidence(Cause.DRY_RUNNING, _SOME, "it was dry as it came off")
    if known.lubricant is None or known.compound is None:
        return
    name, compound = LUBRICANTS[known.lubricant].name.lower(), known.compound
    column = lubricant_column(known.lubricant)
    rating = None if column is None else compound.ratings[column]
    if compound.name in LUBRICANTS[known.lubricant].attacks:
        rating = Rating.DO_NOT_USE
    if rating is Rating.DO_NOT_USE:
        yield Evidence(Cause.CHEMICAL_SWELL, _MUCH * 2, f"{name} was on it, which {compound.name} does not resist")
    elif rating is Rating.DOUBTFUL:
        yield Evidence(Cause.CHEMICAL_SWELL, _SOME, f"{name} was on it, which {compound.name} hardly resists")


def _gas(known: Circumstances) -> Iterator[Evidence]:
    gas = known.gas
    if gas is None and known.gland is not None:
        gas = known.gland.medium is Medium.GAS
    pressure = known.pressure
    if pressure is None and known.gland is not None:
        pressure = known.gland.load
    if gas is False:
        yield Evidence(Cause.RAPID_DECOMPRESSION, _MUCH_AGAINST, "it seals a liquid")
    elif gas and pressure is not None:
        if pressure >= _GAS_TEARS:
            yield Evidence(Cause.RAPID_DECOMPRESSION, _MUCH, f"gas at {pressure * 10:.0f} bar")
        else:
            text = f"gas at {pressure * 10:.0f} bar: rarely below {_GAS_TEARS * 10:.0f} bar"
            yield Evidence(Cause.RAPID_DECOMPRESSION, _AGAINST, text)
    if known.medium is not None and known.medium not in _BURNS:
        yield Evidence(Cause.DIESELING, _MUCH_AGAINST, f"{known.medium.replace('_', ' ')} does not burn")


def _use(known: Circumstances) -> Iterator[Evidence]:
    if known.speed is not None:
        if known.speed > _FAST:
            yield Evidence(Cause.DRY_RUNNING, _SOME, f"it runs at {known.speed:g} m/s")
        elif known.speed == 0:
            yield Evidence(Cause.DRY_RUNNING, _MUCH_AGAINST, "nothing runs on it")
    if known.years is not None:
        if known.years >= _VERY_OLD:
            yield Evidence(Cause.OLD_AGE, _MUCH, f"in for {known.years:g} years")
        elif known.years >= _OLD:
            yield Evidence(Cause.OLD_AGE, _SOME, f"in for {known.years:g} years")
        elif known.years < _NEW:
            yield Evidence(Cause.OLD_AGE, _AGAINST, "in for less than a year")
