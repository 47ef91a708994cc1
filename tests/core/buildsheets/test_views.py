"""A sheet's texts as the rules take them."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import pytest

import ironkettle.demo
from ironkettle.core.buildsheets import (
    BuildSheet,
    cylinder_of,
    gland_of,
    orientation_of,
    read_sheet,
    torque_range_of,
    zones_of,
)
from ironkettle.core.buildsheets.model import FastenerGroup
from ironkettle.core.errors import RuleError
from ironkettle.core.glands import GlandTables, Seat, check_gland
from ironkettle.reference import compounds, extrusion_limits, gland_rows, ring_table

SHEET = read_sheet((Path(ironkettle.demo.__file__).parent / "sheets/swing_bridge_ram.yaml").read_text(encoding="utf-8"))
STATIONS = {station.key: station for station in SHEET.stations}


def without_cylinder() -> BuildSheet:
    return SHEET.model_copy(update={"cylinder": None})


def test_pressures_come_in_megapascal() -> None:
    assert {zone.key: zone.pressure for zone in zones_of(SHEET)} == {"cap_side": 18.0, "rod_side": 18.0, "outside": 0.0}
    cylinder = cylinder_of(SHEET)
    assert (cylinder.bore, cylinder.rod, cylinder.stroke) == (50, 28, 80)
    with pytest.raises(RuleError, match="no cylinder"):
        cylinder_of(without_cylinder())


def test_a_gland_takes_the_higher_pressure_beside_it_and_counts_its_backups() -> None:
    gland = gland_of(SHEET, STATIONS["gland-bore"])
    assert (gland.seat, gland.pressure, gland.backup_rings_fitted) == (Seat.PISTON, 18.0, 1)
    assert gland.bore is not None
    assert (gland.bore.nominal, gland.bore.plus) == (50, 0.039)
    assert gland.rod is None
    assert gland_of(SHEET, STATIONS["piston-rod"]).backup_rings_fitted == 0


def test_every_ring_named_in_the_sheet_fits_its_own_groove() -> None:
    tables = GlandTables(extrusion_limits(), gland_rows(), compounds=compounds())
    named = [(s, e.ring) for s in SHEET.stations for e in s.elements if e.ring is not None]
    assert named
    for station, ring in named:
        size = ring_table().find(ring.series, ring.designation)
        assert check_gland(gland_of(SHEET, station), size, tables).verdict != "reject", station.key


def test_what_was_found_reversed_is_called_out() -> None:
    assert orientation_of(SHEET).findings == ()
    found = orientation_of(SHEET, {"rod-lip": "outside", "rod-wiper-ring": "outside"})
    assert [finding.code for finding in found.findings] == ["reversed"]
    assert "rod lip seal" in found.findings[0].message
    assert found.facing("rod-lip") == "rod_side"
    assert found.facing("gland-ring") is None


@pytest.mark.parametrize(
    ("torques", "expected"),
    [({"low": "21 N·m", "high": "25 N·m"}, (21, 25)), ({"target": "18 lbf·ft"}, (24.405, 24.405))],
)
def test_torque_of_a_group(torques: dict[str, Any], expected: tuple[float, float]) -> None:
    torque = torque_range_of(FastenerGroup(key="g", name="g", count=4, layout="circle", **torques))
    # 18 lbf·ft · 1.35582 = 24.405 N·m.
    assert (torque.low, torque.high) == pytest.approx(expected, abs=1e-3)


@pytest.mark.parametrize(
    "torques",
    [{}, {"low": "21 N·m"}, {"low": "30 N·m", "high": "25 N·m"}, {"low": "1 N·m", "high": "2 N·m", "target": "1 N·m"}],
)
def test_torques_that_cannot_be(torques: dict[str, Any]) -> None:
    with pytest.raises(RuleError):
        torque_range_of(FastenerGroup(key="g", name="g", count=4, layout="circle", **torques))
