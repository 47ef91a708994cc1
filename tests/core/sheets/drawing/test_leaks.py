"""The way a leak takes, reasoned by hand from the stations of the demo units."""

from __future__ import annotations

from ironkettle.core.sheets.drawing.leaks import leak_paths, paths_through
from tests.tiny import plug, sheet_of, unit


def ways(key: str, zone: str) -> list[tuple[str, tuple[str, ...]]]:
    return [(path.source, path.stations) for path in leak_paths(sheet_of(unit(key)), zone)]


def test_an_overfilling_tank_names_both_seals() -> None:
    assert ways("header-tank-valve", "tank") == [("supply", ("end-seat",)), ("supply", ("plunger-bore",))]


def test_a_leak_at_the_rod_names_the_stations_that_hold_the_rod_side_and_not_the_wiper() -> None:
    assert ways("swing-bridge-ram", "outside") == [("rod_side", ("rod-seal",)), ("rod_side", ("gland-bore",))]
    # Nothing pushes harder than the cap side; the rod side is its equal.
    assert ways("swing-bridge-ram", "cap_side") == []


def test_a_way_may_lead_through_a_zone_that_holds_less() -> None:
    document = plug()
    document["zones"].append({"key": "vent", "name": "vent", "kind": "atmosphere"})
    document["stations"].append(document["stations"][0] | {"key": "second", "between": ["air", "vent"]})
    found = [(p.source, p.stations) for p in leak_paths(sheet_of(document), "vent")]
    assert found == [("oil", ("ring-place", "second"))]
    assert leak_paths(sheet_of(document), "moon") == ()


def test_a_station_that_fails_lets_the_harder_zone_through() -> None:
    sheet = sheet_of(unit("swing-bridge-ram"))
    (path,) = paths_through(sheet, "rod-seal")
    assert (path.source, path.zone, path.stations) == ("rod_side", "outside", ("rod-seal",))
    both = paths_through(sheet, "piston-bore")
    assert {(p.source, p.zone) for p in both} == {("cap_side", "rod_side"), ("rod_side", "cap_side")}
    (valve,) = paths_through(sheet_of(unit("dosing-check-valve")), "disc-seat")
    assert (valve.source, valve.zone) == ("inlet", "outlet")
    assert paths_through(sheet, "moon") == ()
