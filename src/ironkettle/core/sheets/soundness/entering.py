"""Whether a rigid ring can still get to its seat: what enters from outside only cannot wait until an eye stands before it."""

from __future__ import annotations

from collections.abc import Iterator
from typing import TypeGuard

from ironkettle.core.base.errors import FieldFault
from ironkettle.core.sealing.catalogue import ElementKind
from ironkettle.core.sheets.document.parts import PartSpec
from ironkettle.core.sheets.document.places import BoxSeat, PressInSeat, SeatSpec, StationSpec
from ironkettle.core.sheets.document.sheet import Sheet
from ironkettle.core.sheets.document.solids import Bar, Cone, Plate, Tube

# A ring passes what stands out by less. [mm]
_PASSES = 0.5
_ROUND = (Bar, Tube, Plate, Cone)
# Closed rings that neither stretch nor fold: in a box as where they are pressed in.
_STIFF = {ElementKind.METAL_CLAD_WIPER, ElementKind.SHAFT_SEAL, ElementKind.CONED_WASHER, ElementKind.SPACER}


def entering_faults(sheet: Sheet) -> Iterator[FieldFault]:
    """Stations with a stiff ring that are closed after their carrier is on, where the part inside is thicker on the way in."""
    listed = [step for step in sheet.steps if step.stage == "rebuild"]
    parts = {part.key: part for part in sheet.parts}
    for index, station in enumerate(sheet.stations):
        inside, outside = parts.get(station.counterface or ""), parts.get(station.carrier or "")
        if inside is None or outside is None or station.entered_from not in station.between:
            continue
        on = next((place for place, step in enumerate(listed) if outside.key in step.puts_on), None)
        closed = next((place for place, step in enumerate(listed) if station.key in step.closes), None)
        if on is None or closed is None or closed <= on:
            continue
        for place, seat in enumerate(station.seats):
            if _holds_stiff(seat) and _stands_before(station, seat, inside):
                text = (
                    f"{outside.name} is on before {station.name} is closed, and {inside.name} is thicker on the way in: "
                    f"close it before “{listed[on].text}”, or with it"
                )
                yield FieldFault(f"stations.{index}.seats.{place}", text)


def _holds_stiff(seat: SeatSpec) -> TypeGuard[BoxSeat | PressInSeat]:
    return isinstance(seat, PressInSeat) or (
        isinstance(seat, BoxSeat) and any(element.kind in _STIFF for element in seat.elements)
    )


def _stands_before(station: StationSpec, seat: BoxSeat | PressInSeat, inside: PartSpec) -> bool:
    """Whether the part inside has something thicker than the hole of the ring, on the side that the ring enters from."""
    if seat.shaft.value.nominal <= 0:
        return False  # a disc goes over nothing
    hole = seat.shaft.value.nominal / 2 + _PASSES
    from_left = station.entered_from == station.between[0]
    thicker = [
        body for body in (solid.body for solid in inside.solid) if isinstance(body, _ROUND) and _radius(body) > hole
    ]
    return any(body.start < seat.at if from_left else body.end > seat.at for body in thicker)


def _radius(solid: Bar | Tube | Plate | Cone) -> float:
    return max(solid.outer) if isinstance(solid.outer, tuple) else solid.outer
