"""The tables as shipped."""

from __future__ import annotations

import pytest

from ironkettle.core.rings import AS568, ISO_3601, JIS_B_2401, METRIC_STOCK
from ironkettle.reference import bolt_strengths, extrusion_limits, fluids, gland_rows, nut_factors, ring_table, threads


def test_all_sizes_are_there() -> None:
    series = [size.series for size in ring_table().sizes]
    assert series.count(AS568) == 369
    assert series.count(ISO_3601) == 484
    assert series.count(JIS_B_2401) == 178
    assert series.count(METRIC_STOCK) > 1500
    assert len({(s.series, s.designation) for s in ring_table().sizes}) == len(series)


@pytest.mark.parametrize(
    # SAE AS568: inside diameter, tolerance and section in inches.
    ("dash", "inside", "section"),
    [("010", 0.239, 0.070), ("214", 0.984, 0.139), ("325", 1.475, 0.210), ("425", 4.475, 0.275)],
)
def test_known_inch_sizes(dash: str, inside: float, section: float) -> None:
    size = ring_table().find(AS568, dash)
    assert size.inside_diameter == pytest.approx(inside * 25.4)
    assert size.section == pytest.approx(section * 25.4)


def test_doubtful_tolerances_are_marked() -> None:
    assert "estimated" in ring_table().find(JIS_B_2401, "P44").sure
    assert all(size.source and size.sure for size in ring_table().sizes)


def test_the_other_tables_are_read_whole() -> None:
    assert len(extrusion_limits()) == 50
    assert len(gland_rows()) == 15
    assert len(threads()) == 61
    assert len(nut_factors()) == 6
    assert len(bolt_strengths()) == 13
    assert [f.name for f in fluids() if f.gas] == ["air", "nitrogen"]
