"""The room that a seat leaves for each of its elements."""

from __future__ import annotations

from ironkettle.core.sealing.seals.in_seat import Space
from ironkettle.core.sheets.document.facts import space_of
from tests.tiny import sheet_of, unit


def test_the_room_of_an_element_is_what_the_others_leave() -> None:
    """By the sheets: the jetting head's hard seat has 4 mm of 11 mm, the liquid end has two spacers in 4 mm."""
    head = sheet_of(unit("rotary-jetting-head"))
    seats = {element.key: (seat, element) for _, seat, element in head.elements}
    assert space_of(*seats["hard-seat"]) == Space(12, 22, 4)
    seat, hard = seats["hard-seat"]
    bare = seat.model_copy(update={"elements": [one.model_copy(update={"length": None}) for one in seat.elements]})
    assert space_of(bare, bare.elements[0]) == Space(12, 22, 11, shared=True)
    half = seat.model_copy(update={"elements": [hard, seat.elements[1].model_copy(update={"length": None})]})
    assert space_of(half, half.elements[1]) == Space(12, 22, 7, shared=True)
    pump = sheet_of(unit("air-pump-liquid-end"))
    spacers = next((seat, element) for _, seat, element in pump.elements if element.key == "spacer")
    assert space_of(*spacers) == Space(20, 32, 4, shared=True)
