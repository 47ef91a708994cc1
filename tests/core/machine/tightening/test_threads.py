"""Threads as they are written, and their stress areas."""

from __future__ import annotations

import pytest

from ironkettle.core.base.errors import RuleError
from ironkettle.core.machine.tightening import find_thread, stress_area
from ironkettle.reference import threads


@pytest.mark.parametrize(
    # ISO 898-1, nominal stress areas in mm².
    ("name", "area"),
    [("M6", 20.1), ("M8", 36.6), ("M10", 58.0), ("M12", 84.3), ("M16", 157), ("M20", 245), ("M24", 353), ("M30", 561)],
)
def test_stress_areas_of_iso_898(name: str, area: float) -> None:
    assert stress_area(find_thread(name, threads(), "thread")) == pytest.approx(area, rel=0.003)


@pytest.mark.parametrize(
    # ASME B1.1, tensile stress areas in in². With the metric 0.9382·p they would come out 1 % too large.
    ("name", "area"),
    [("1/4-20", 0.0318), ("3/8-16 UNC", 0.0775), ("1/2-13", 0.1419), ("3/4-10", 0.334), ("1-8", 0.606)],
)
def test_stress_areas_of_unified_threads(name: str, area: float) -> None:
    assert stress_area(find_thread(name, threads(), "thread")) / 25.4**2 == pytest.approx(area, rel=0.003)


@pytest.mark.parametrize(
    # Diameter and pitch as the standards have them: ISO 261, ASME B1.1 (25.4/turns), ISO 228-1, ISO 7-1.
    ("text", "diameter", "pitch"),
    [
        ("M10", 10, 1.5),
        (" m 10 ", 10, 1.5),
        ("M60", 60, 5.5),
        ("M60x2", 60, 2),
        ("M 42 × 2", 42, 2),
        ("M3,5x0,6", 3.5, 0.6),
        ("3/8-16 UNC", 9.525, 1.5875),
        ("3/8-16", 9.525, 1.5875),
        ("3/8 - 24 UNF", 9.525, 1.0583),
        ("1-1/16-12 UN", 26.9875, 2.1167),
        ("1 1/16-12", 26.9875, 2.1167),
        ("11/16-12", 17.4625, 2.1167),
        ("#10-32", 4.826, 0.79375),
        ("#6-48", 3.5052, 0.52917),  # in no table: 0.060 in + 6 × 0.013 in (ASME B1.1)
        ("1-8", 25.4, 3.175),
        ("G1/4", 13.157, 1.3368),
        ('G 1/4"', 13.157, 1.3368),
        ("G1-1/4", 41.91, 2.3091),
        ("Rc 1/2", 20.955, 1.8143),
        ("R 3/4", 26.441, 1.8143),
        ("1/4 NPT", 13.716, 1.4111),
    ],
)
def test_threads_as_they_are_written(text: str, diameter: float, pitch: float) -> None:
    found = find_thread(text, threads(), "thread")
    assert (found.major_diameter, found.pitch) == pytest.approx((diameter, pitch), abs=1e-3)


def test_a_thread_of_the_table_is_found_by_its_figures() -> None:
    assert find_thread("M10x1.5", threads(), "t").designation == "M10"
    assert find_thread("1-1/16-12 UN", threads(), "t").designation == "1 1/16-12"
    assert find_thread("M10x1.4", threads(), "t").designation == "M10x1.4"
    assert find_thread("3/8-16", threads(), "t").unified
    assert not find_thread("M10", threads(), "t").unified


@pytest.mark.parametrize(
    "text",
    ["Q9", "", "Mx", "M10xfoo", "M10x", "17/16-12", "1/0-12", "3/8-0", "M10x9", "M0x0", "M2000x2", "G9/7", "M10" * 50],
)
def test_what_is_no_thread_is_refused(text: str) -> None:
    with pytest.raises(RuleError) as caught:
        find_thread(text, threads(), "thread")
    assert caught.value.faults[0].field == "thread"
    assert "M42x2" in caught.value.faults[0].accepts


def test_a_pitch_of_half_the_diameter_is_the_coarsest() -> None:
    assert find_thread("M10x5", threads(), "t").pitch == 5
    with pytest.raises(RuleError, match="does not go with its diameter"):
        find_thread("M10x5.1", threads(), "t")
    assert find_thread("M1000x6", threads(), "t").major_diameter == 1000
