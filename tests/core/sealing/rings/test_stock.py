"""Metric stock by rule."""

from __future__ import annotations

import pytest

from ironkettle.core.sealing.rings.stock import inside_tolerance_iso3601, metric_stock, section_tolerance_stock


def test_tolerance_formula_of_iso_3601() -> None:
    # ISO 3601-1: 0.009·d^0.95 + 0.11; for d = 100 mm by hand 0.009·79.43 + 0.11 = 0.82.
    assert inside_tolerance_iso3601(100) == pytest.approx(0.82)


def test_stock_is_labelled_and_holds_to_its_rule() -> None:
    sizes = metric_stock()
    assert all(size.inside_diameter >= 2 * size.section for size in sizes if not size.seldom)
    assert all("not a standard" in size.sure for size in sizes)
    names = {size.designation for size in sizes}
    assert {"2x1", "44.5x3.5", "119x5", "400x8"} <= names
    assert "50.5x3" not in names
    assert len(names) == len(sizes)


def test_sections_of_jis_are_met_in_stock_too_but_seldom() -> None:
    seldom = [size for size in metric_stock() if size.seldom]
    assert {size.section for size in seldom} == {1.9, 2.4, 3.1, 5.7, 8.4}
    assert {"10x1.9", "30x1.9", "3.3x2.4", "19.3x2.4", "22.3x2.4", "44.2x5.7", "144.2x5.7", "249.1x8.4"} <= {
        size.designation for size in seldom
    }
    assert all("not a standard" in size.sure and size.tolerance_estimated for size in seldom)
    assert all("seldom met" in size.source for size in seldom)
    assert not any(size.seldom for size in metric_stock() if size.section in {1.0, 2.0, 2.5, 3.0, 5.0})


def test_section_tolerance_grows_with_the_section() -> None:
    values = [section_tolerance_stock(section) for section in (1.0, 2.5, 3.5, 5.0, 8.0)]
    assert values == sorted(values)
