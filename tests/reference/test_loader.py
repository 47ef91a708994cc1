"""The tables as shipped."""

from __future__ import annotations

import pytest

from ironkettle.core.sealing.rings import AS568, ISO_3601, JIS_B_2401, METRIC_STOCK
from ironkettle.reference import (
    bolt_strengths,
    compounds,
    extrusion_limits,
    fluids,
    gland_rows,
    media,
    nut_factors,
    ring_table,
    seal_sizes,
    threads,
)


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
    assert all(size.source for size in ring_table().sizes)
    assert all(size.sure or size.series == AS568 for size in ring_table().sizes)


def test_the_other_tables_are_read_whole() -> None:
    assert len(extrusion_limits()) == 50
    assert len(gland_rows()) == 15
    assert len(threads()) == 119
    assert len(nut_factors()) == 6
    assert len(bolt_strengths()) == 13
    assert [f.name for f in fluids() if f.gas] == ["air", "nitrogen"]


def test_compounds_and_media_are_read_whole() -> None:
    assert [compound.name for compound in compounds()] == ["NBR", "HNBR", "FKM", "EPDM", "VMQ", "CR", "AU", "PTFE"]
    assert len(media()) == 17
    assert all(set(compound.ratings) == set(media()) for compound in compounds())
    # compatibility.csv: PTFE stands everything in the table; EPDM and mineral grease do not go together.
    assert {rating.value for rating in next(c for c in compounds() if c.name == "PTFE").ratings.values()} == {1}
    assert next(c for c in compounds() if c.name == "EPDM").ratings["mineral_grease"] == 4


def test_tables_are_consistent_in_themselves() -> None:
    for row in gland_rows():
        assert row.depth_min < row.depth_max < row.section < row.width_no_backup
        assert row.squeeze_min < row.squeeze_max
        if row.width_one_backup and row.width_two_backups:
            assert row.width_no_backup < row.width_one_backup < row.width_two_backups
    gaps = {(r.hardness, r.section_over, r.pressure_max): r.gap_max for r in extrusion_limits()}
    for (hardness, section, pressure), gap in gaps.items():
        higher = [g for (h, s, p), g in gaps.items() if (h, s) == (hardness, section) and p > pressure]
        assert all(g <= gap for g in higher), "more pressure never allows a wider gap"
    assert len({size.name for size in seal_sizes()}) == len(seal_sizes())
