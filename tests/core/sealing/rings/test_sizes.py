"""The table of sizes: finding by name, parts, names of one ring."""

from __future__ import annotations

from collections import Counter

import numpy as np
import pytest

from ironkettle.core.base.errors import RuleError
from ironkettle.core.sealing.rings import AS568, ISO_3601, RingSize, RingTable
from ironkettle.reference import ring_table

TABLE = ring_table()


def test_finds_sizes_by_any_writing_and_names_what_fits() -> None:
    assert TABLE.find(AS568, "-214") is TABLE.find(AS568, "214")
    assert TABLE.find(ISO_3601, "20X1.80").section == 1.80
    with pytest.raises(RuleError, match="has no size"):
        TABLE.find(AS568, "999")
    with pytest.raises(RuleError, match="not a known series"):
        TABLE.find("DIN", "1")
    assert len(RingTable(()).sizes) == 0


def test_the_whole_of_as568_is_there() -> None:
    # SAE AS568 lists 369 sizes (reference/README).
    assert Counter(size.series for size in TABLE.sizes)[AS568] == 369


def test_a_part_carries_the_arrays_of_its_sizes() -> None:
    part = TABLE.part([5, 3, 900])
    plain = RingTable(part.sizes)
    for name in ("inside_diameter", "inside_tolerance", "section", "section_tolerance", "series_index"):
        assert np.array_equal(getattr(part, name), getattr(plain, name))


def test_names_of_one_ring_are_found_and_neighbours_left_apart() -> None:
    def ring(name: str, d1: float, d2: float) -> RingSize:
        return RingSize(AS568, name, d1, 0.1, d2, 0.05, "test")

    table = RingTable((ring("a", 30.0, 3.0), ring("b", 30.015, 3.01), ring("c", 30.0, 3.05), ring("d", 30.1, 3.0)))
    assert table.same_size == ((0, 1),)
    assert table.names_of(1) == (0, 1)
    assert table.names_of(3) == (3,)
    # By search over all pairs, the slow way.
    near = {
        (i, j)
        for i, a in enumerate(TABLE.sizes)
        if a.series == AS568
        for j, b in enumerate(TABLE.sizes)
        if i != j and abs(a.inside_diameter - b.inside_diameter) <= 0.02 and abs(a.section - b.section) <= 0.02
    }
    inch = {i for i, size in enumerate(TABLE.sizes) if size.series == AS568}
    assert {tuple(sorted(pair)) for pair in near} == {pair for pair in TABLE.same_size if inch & set(pair)}


@pytest.mark.parametrize("text", ["214", "-214", "2-214", "AS568-214", "as568 214", "AS568A-214", " 214 "])
def test_a_dash_number_is_found_however_it_is_written(text: str) -> None:
    assert TABLE.find(AS568, text).designation == "214"
