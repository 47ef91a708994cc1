"""Pressure spaces are found, not drawn: what solids and seals leave open, named by the seeds that lie in it.

The proof of a sheet: with all elements in no two zones are one space; with the elements of one station
taken out, its two zones are.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import shapely
from shapely import Point
from shapely.geometry.base import BaseGeometry as Geometry

from ironkettle.core.base.errors import FieldFault
from ironkettle.core.sealing.facing import ZoneKind
from ironkettle.core.sheets.document.places import ALONG
from ironkettle.core.sheets.document.sheet import Sheet
from ironkettle.core.sheets.drawing.seats import BARE, element_seals
from ironkettle.core.sheets.drawing.section import SeatAt, Section

# An open space wider than this has to be named. [mm]
_WIDE = 0.3
# How near a space must lie to a seat to touch it: what parts and seals are changed by in the proof. [mm]
_NEAR = 0.12


@dataclass(frozen=True)
class Spaces:
    """The open spaces of one view by zone; ``unnamed``: those that no seed lies in."""

    zones: dict[str, Geometry]
    unnamed: list[Geometry]
    faults: list[FieldFault]


@dataclass(frozen=True)
class _Seeded:
    path: str
    zone: str
    at: tuple[float, float]


def spaces_of(sheet: Sheet, section: Section, first_view: str) -> Spaces:
    """The spaces of a view with all elements in, and what is wrong with them."""
    groups = _joined(section, section.free())
    seeds = list(_seeds(sheet, section, first_view))
    faults: list[FieldFault] = []
    owner: dict[int, _Seeded] = {}
    zones: dict[str, list[Geometry]] = {}
    for seed in seeds:
        place = _group_at(groups, seed.at)
        if place is None:
            faults.append(
                FieldFault(seed.path, f"lies in metal or in a seal, at {_at(seed.at)}; a seed lies in open space")
            )
            continue
        other = owner.get(place)
        if other is not None and other.zone != seed.zone:
            faults.append(_meeting(sheet, section, groups[place], other, seed))
            continue
        owner[place] = seed
        zones.setdefault(seed.zone, [])
        if groups[place] not in zones[seed.zone]:
            zones[seed.zone].append(groups[place])
    unnamed = [group for place, group in enumerate(groups) if place not in owner]
    if not faults:
        # What lies in a groove is filled by what lies in it, whether that seals or not.
        filled = shapely.buffer(shapely.union_all([seat.box.area for seat in section.seats]), _NEAR)
        spare = [shapely.difference(group, filled) for group in unnamed]
        faults += [_without_name(group) for group in spare if not shapely.buffer(group, -_WIDE / 2).is_empty]
    return Spaces({key: shapely.union_all(areas) for key, areas in zones.items()}, unnamed, faults)


def station_faults(sheet: Sheet, section: Section, spaces: Spaces) -> Iterator[FieldFault]:
    """Stations that part nothing, or whose zones are listed the wrong way round."""
    names = {zone.key: zone.name for zone in sheet.zones}
    for index, station in enumerate(sheet.stations):
        mine = [seat for seat in section.seats if seat.station.key == station.key]
        if not mine or not any(_is_tried(seat) for seat in mine):
            continue
        path = f"stations.{index}.between"
        first, second = station.between
        if first not in spaces.zones or second not in spaces.zones:
            continue
        if not parts_zones(section, spaces, station.key, station.between):
            text = f"{station.key} does not part {names[first]} from {names[second]}: without its elements they are still apart"
            yield FieldFault(path, text)
        elif _wrong_way(mine, spaces.zones[first], spaces.zones[second]):
            way = "smaller z" if mine[0].seat.kind in ALONG else "smaller radius"
            text = f"{station.key}: {names[second]} lies at the {way}; list it first"
            yield FieldFault(path, text, (f"[{second}, {first}]",))


def parts_zones(section: Section, spaces: Spaces, station: str, between: tuple[str, str]) -> bool:
    """Whether the two zones become one space when the elements of a station are taken out."""
    pieces = _joined(section, section.free(without=station))
    first, second = (spaces.zones[key] for key in between)
    return any(_overlaps(piece, first) and _overlaps(piece, second) for piece in pieces)


def _is_tried(seat: SeatAt) -> bool:
    """A station of wipers, bands or guides alone is not tried."""
    if not seat.seat.elements:
        return seat.seat.kind in BARE
    return any(element_seals(element) for element in seat.seat.elements)


def _overlaps(one: Geometry, other: Geometry) -> bool:
    return shapely.intersection(one, other).area > 1e-3


def _seeds(sheet: Sheet, section: Section, first_view: str) -> Iterator[_Seeded]:
    airs = [zone for zone in sheet.zones if zone.kind is ZoneKind.ATMOSPHERE]
    for index, zone in enumerate(sheet.zones):
        for place, seed in enumerate(zone.all_seeds):
            if (seed.view or first_view) == section.view:
                path = f"zones.{index}.seed" if zone.seed is not None and place == 0 else f"zones.{index}.seeds.{place}"
                yield _Seeded(path, zone.key, seed.at)
    # What lies around everything is the open air.
    if len(airs) == 1 or (airs and not any(zone.all_seeds for zone in airs)):
        z0, _, _, r1 = section.envelope.bounds
        yield _Seeded(f"zones.{sheet.zones.index(airs[0])}", airs[0].key, (z0 + 0.5, r1 - 0.5))


def _joined(section: Section, pieces: list[Geometry]) -> list[Geometry]:
    """Pieces as one where a passage joins them."""
    groups = list(pieces)
    for start, end in section.joined:
        one, other = _group_at(groups, start), _group_at(groups, end)
        if one is not None and other is not None and one != other:
            merged = shapely.union(groups[one], groups[other])
            groups = [group for place, group in enumerate(groups) if place not in {one, other}] + [merged]
    return groups


def _group_at(groups: list[Geometry], at: tuple[float, float]) -> int | None:
    point = Point(at)
    return next((place for place, group in enumerate(groups) if group.intersects(point)), None)


def _wrong_way(seats: list[SeatAt], first: Geometry, second: Geometry) -> bool:
    """Whether the second zone touches the seats where the first should: at smaller z, or further in."""
    along = seats[0].seat.kind in ALONG
    one, other = (_touch(seats, zone, along=along) for zone in (first, second))
    return one is not None and other is not None and one > other + 0.02


def _touch(seats: list[SeatAt], zone: Geometry, *, along: bool) -> float | None:
    touching = []
    for seat in seats:
        near = shapely.intersection(shapely.buffer(seat.box.area, _NEAR), zone)
        if not near.is_empty:
            touching.append(near)
    if not touching:
        return None
    middle = shapely.centroid(shapely.union_all(touching))
    return float(middle.x if along else middle.y)


def _meeting(sheet: Sheet, section: Section, space: Geometry, one: _Seeded, other: _Seeded) -> FieldFault:
    names = {zone.key: zone.name for zone in sheet.zones}
    width, at = narrowest(space, one.at, other.at)
    near = sorted(section.metal, key=lambda key: float(section.metal[key].distance(Point(at))))[:2]
    parts = {part.key: part.name for part in sheet.parts}
    between = f", between {' and '.join(parts[key] for key in near)}" if len(near) == 2 else ""
    through = f" through {width:.2g} mm near {_at(at)}{between}" if width else ": both seeds lie in one open space"
    return FieldFault(other.path, f"{names[other.zone]} meets {names[one.zone]}{through}")


def narrowest(
    space: Geometry, one: tuple[float, float], other: tuple[float, float]
) -> tuple[float, tuple[float, float]]:
    """Where a space is narrowest between two points of it: the width there, and the place. [mm]

    Found by growing everything round it until the two are parted; width 0 where no neck parts them: the
    room of one of them is the narrowest.
    Source: erosion of a polygon (shapely), by definition.
    """
    z0, r0, z1, r1 = space.bounds
    low, high = 0.0, min(z1 - z0, r1 - r0) / 2 + 0.01
    while high - low > 0.005:
        middle = (low + high) / 2
        if _joined_at(space, one, other, middle):
            low = middle
        else:
            high = middle
    left = shapely.buffer(space, -high)
    a, b = (_room_of(left, at, high) for at in (one, other))
    if a is None or b is None:
        return 0.0, one
    opened = shapely.buffer(left, high * 1.02)
    a, b = (shapely.buffer(room, high * 1.02) for room in (a, b))
    lost = [piece for piece in shapely.get_parts(shapely.difference(space, opened)) if piece.area > 1e-6]
    necks = [piece for piece in lost if piece.distance(a) < 0.05 and piece.distance(b) < 0.05]
    if not necks:
        return 2 * high, one
    middle_of = shapely.centroid(min(necks, key=lambda piece: float(piece.area)))
    return 2 * high, (float(middle_of.x), float(middle_of.y))


def _joined_at(space: Geometry, one: tuple[float, float], other: tuple[float, float], growth: float) -> bool:
    left = shapely.buffer(space, -growth)
    a, b = (_room_of(left, at, growth) for at in (one, other))
    return a is not None and b is not None and bool(a.equals(b))


def _room_of(left: Geometry, at: tuple[float, float], growth: float) -> Geometry | None:
    """The piece a point belongs to when everything has grown; None when its own room has closed."""
    pieces = [piece for piece in shapely.get_parts(left) if not piece.is_empty]
    nearest = min(pieces, key=lambda piece: float(piece.distance(Point(at))), default=None)
    # From the corner of a room the diagonal leads to what is left of it.
    return nearest if nearest is not None and nearest.distance(Point(at)) <= 1.5 * growth + 0.01 else None


def _without_name(space: Geometry) -> FieldFault:
    at = shapely.point_on_surface(space)
    return FieldFault(
        "zones", f"an open space near {_at((float(at.x), float(at.y)))} belongs to no zone; give it a seed"
    )


def _at(at: tuple[float, float]) -> str:
    return f"z {at[0]:.1f}, r {at[1]:.1f}"


__all__ = ["Spaces", "narrowest", "parts_zones", "spaces_of", "station_faults"]
