"""The box of a seat from its figures, and the place of each element in it. [mm]"""

from __future__ import annotations

from dataclasses import dataclass

import shapely
from shapely import box
from shapely.geometry.base import BaseGeometry as Geometry

from ironkettle.core.sealing.catalogue import KINDS, nested
from ironkettle.core.sheets.document.places import ALONG, ElementSpec, FaceSeat, SeatKind, SeatSpec

# Seats that hold several alike, one behind the other; elsewhere a count stands for several places alike, drawn once.
STACKED = frozenset({SeatKind.BOX, SeatKind.PRESS_IN})
# Seats that close over their whole contact without an element: faces that are pressed together.
BARE = frozenset({SeatKind.SEAT, SeatKind.JOINT})


@dataclass(frozen=True, slots=True)
class Box:
    """From z, inner r, to z, outer r. [mm]"""

    z0: float
    r0: float
    z1: float
    r1: float

    @property
    def area(self) -> Geometry:
        return box(self.z0, self.r0, self.z1, self.r1)

    @property
    def corners(self) -> tuple[float, float, float, float]:
        return self.z0, self.r0, self.z1, self.r1


def box_of(seat: SeatSpec, counterface: Geometry | None = None, *, rests_inside: bool = False) -> Box:
    """The box of a seat. [mm]

    Parameters
    ----------
    counterface : the metal that a face ring presses on; tells to which side of its floor the groove opens.
    rests_inside : a face ring is pressed from outside and rests on the inner wall.
    """
    if isinstance(seat, FaceSeat):
        return _face_box(seat, counterface, rests_inside=rests_inside)
    inner, outer, length = seat.edges
    low, high = inner.value.nominal / 2, outer.value.nominal / 2
    return Box(seat.at, seat.axis + low, seat.at + length.value.nominal, seat.axis + high)


def _face_box(seat: FaceSeat, counterface: Geometry | None, *, rests_inside: bool) -> Box:
    at, wall = seat.at, seat.groove_diameter.value.nominal / 2
    width, depth = seat.groove_width.value.nominal, seat.groove_depth.value.nominal
    r0, r1 = (wall, wall + width) if rests_inside else (wall - width, wall)
    r0, r1 = seat.axis + max(r0, 0.0), seat.axis + r1
    right = Box(at, r0, at + depth, r1)
    left = Box(at - depth, r0, at, r1)
    if counterface is None or counterface.is_empty:
        return right
    beyond_right = box(right.z1, r0, right.z1 + 1.0, r1)
    beyond_left = box(left.z0 - 1.0, r0, left.z0, r1)
    pressed_left = (
        shapely.intersection(counterface, beyond_left).area > shapely.intersection(counterface, beyond_right).area
    )
    return left if pressed_left else right


@dataclass(frozen=True, slots=True)
class Laid:
    """An element at its place: one of ``count`` alike."""

    element: ElementSpec
    box: Box
    number: int


def lay(seat: SeatSpec, whole: Box, *, carrier_inside: bool) -> list[Laid]:
    """The elements of a seat in their boxes, in their order along the axis, or from the inside outwards.

    Those with a length take it, the others share what is left. An energiser lies under its slide ring.
    """
    pairs = _pairs(seat.elements)
    rows = [(row, row[0].count if seat.kind in STACKED else 1) for row in pairs]
    along = seat.kind in ALONG
    room = (whole.z1 - whole.z0) if along else (whole.r1 - whole.r0)
    given = [row[0].length.value if row[0].length else None for row, _ in rows]
    taken = sum(length * count for length, (_, count) in zip(given, rows, strict=True) if length is not None)
    shared = sum(count for length, (_, count) in zip(given, rows, strict=True) if length is None)
    rest = max(room - taken, 0.02 * room) / shared if shared else 0.0
    shrink = min(1.0, room / max(taken + rest * shared, 1e-9))
    laid: list[Laid] = []
    start = whole.z0 if along else whole.r0
    for length, (row, count) in zip(given, rows, strict=True):
        width = (rest if length is None else length) * shrink
        for number in range(count):
            box = (
                Box(start, whole.r0, start + width, whole.r1)
                if along
                else Box(whole.z0, start, whole.z1, start + width)
            )
            laid += _layers(row, box, number, carrier_inside=carrier_inside)
            start += width
    return laid


def _pairs(elements: list[ElementSpec]) -> list[list[ElementSpec]]:
    """Elements one after the other; what lies inside its neighbour shares its place."""
    rows: list[list[ElementSpec]] = []
    for element in elements:
        last = rows[-1][-1] if rows else None
        if last is not None and len(rows[-1]) == 1 and nested(last.kind, element.kind):
            rows[-1].append(element)
        else:
            rows.append([element])
    return rows


def _layers(row: list[ElementSpec], whole: Box, number: int, *, carrier_inside: bool) -> list[Laid]:
    if len(row) == 1:
        return [Laid(row[0], whole, number)]
    under, over = (row[0], row[1]) if KINDS[row[0].kind].inside is row[1].kind else (row[1], row[0])
    middle = whole.r0 + (whole.r1 - whole.r0) * (0.55 if carrier_inside else 0.45)
    inner, outer = Box(whole.z0, whole.r0, whole.z1, middle), Box(whole.z0, middle, whole.z1, whole.r1)
    at_bottom, at_top = (inner, outer) if carrier_inside else (outer, inner)
    boxes = {under.key: at_bottom, over.key: at_top}
    return [Laid(element, boxes[element.key], number) for element in row]


def element_seals(element: ElementSpec) -> bool:
    """Whether it holds pressure: by its kind, unless the sheet says otherwise."""
    return KINDS[element.kind].seals if element.seals is None else element.seals


def closing(seat: SeatSpec, whole: Box, laid: list[Laid]) -> Geometry | None:
    """What of a seat is closed with its elements in; None where nothing seals."""
    if not seat.elements:
        return whole.area if seat.kind in BARE else None
    sealing = [placed for placed in laid if element_seals(placed.element)]
    if not sealing:
        return None
    if len(sealing) == len(laid):
        return whole.area
    return shapely.union_all([placed.box.area for placed in sealing])
