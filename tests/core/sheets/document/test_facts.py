"""What the rules take from a sheet: glands with their pressure, ratings, zones."""

from __future__ import annotations

import pytest

from ironkettle.core.sealing.grooves import Medium, PressedFrom, PressureDirection
from ironkettle.core.sheets.document.facts import gland_of, orientation_of, rating_of, zones_by_key
from tests.tiny import plug, sheet_of, unit


def gland(key: str, station: str, **changes: object) -> object:
    sheet = sheet_of(unit(key) if key != "plug" else plug(**changes))
    spec = next(one for one in sheet.stations if one.key == station)
    return gland_of(sheet, spec, spec.seats[0])


def test_the_harder_pressed_of_its_zones_presses_a_groove_and_a_vacuum_counts_as_one() -> None:
    assert gland("plug", "ring-place").pressure == pytest.approx(10.0)  # type: ignore[attr-defined]
    vacuum = gland("plug", "ring-place", zones__0__kind="vacuum", zones__0__pressure="-0.8 bar")
    assert vacuum.pressure == pytest.approx(-0.08)  # type: ignore[attr-defined]
    check = gland("dosing-check-valve", "inlet-face")
    assert check.pressure == pytest.approx(0.6)  # type: ignore[attr-defined]
    assert check.pressed_from is PressedFrom.INSIDE  # type: ignore[attr-defined]
    assert check.medium is Medium.LIQUID  # type: ignore[attr-defined]


def test_between_two_pressures_it_is_pressed_from_both_sides() -> None:
    both = gland("swing-bridge-ram", "piston-rod")
    assert both.pressure_direction is PressureDirection.BOTH_SIDES  # type: ignore[attr-defined]
    one = gland("swing-bridge-ram", "gland-bore")
    assert one.pressure_direction is PressureDirection.ONE_SIDE  # type: ignore[attr-defined]
    assert one.backup_rings_fitted == 1  # type: ignore[attr-defined]
    # A ring alone has none beside it.
    assert gland("plug", "ring-place").backup_rings_fitted == 0  # type: ignore[attr-defined]


def test_a_seat_without_a_groove_has_no_gland() -> None:
    assert gland("header-tank-valve", "end-seat") is None


def test_ratings_and_zones() -> None:
    assert rating_of(sheet_of(plug())) == pytest.approx(10.0)
    assert rating_of(sheet_of(plug(parts__0__rated="60 bar"))) == pytest.approx(6.0)
    zones = zones_by_key(sheet_of(plug()))
    assert (zones["oil"].pressure, zones["air"].pressure, zones["oil"].name) == (pytest.approx(10.0), 0.0, "oil side")


def test_a_plate_with_leaves_both_ways_lies_as_marked_and_a_single_leaf_faces_its_seat() -> None:
    def faces(key: str) -> dict[str, str | None]:
        stations = orientation_of(sheet_of(unit(key))).stations
        return {element.key: element.faces for station in stations for element in station.elements}

    assert faces("diver-compressor")["reed-plate"] is None
    assert faces("net-pen-compressor")["bent-leaf"] == "suction"


def test_the_side_that_faces_is_called_as_the_sheet_calls_it() -> None:
    stations = orientation_of(sheet_of(unit("fuel-injector"))).stations
    (washer,) = next(station for station in stations if station.key == "seat-washer").elements
    assert (washer.faces, washer.word) == ("combustion", "plain face")
