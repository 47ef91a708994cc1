"""Figures of the core: matching, groove search."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

import numpy as np

from ironkettle.benchmarks.timing import median_time
from ironkettle.core.base.quantities import Toleranced
from ironkettle.core.sealing.grooves import Gland, GlandTables, Seat, search_rings
from ironkettle.core.sealing.rings import Condition, Measurement, RingTable, match_ring
from ironkettle.core.sealing.rings.likelihood import log_likelihood
from ironkettle.reference import compounds, extrusion_limits, gland_rows, ring_table

Figure = tuple[str, float, float]
READING = Measurement(44.1, 3.5, Condition.USED)


def figures() -> Iterator[Figure]:
    table = ring_table()
    floor = median_time(lambda: bare_pass(table))
    count = len(table.sizes)
    likelihoods = median_time(lambda: log_likelihood(READING, table))
    yield f"likelihood of {count} sizes / bare NumPy pass", likelihoods, floor
    yield "whole match, with advice / bare NumPy pass", median_time(lambda: match(table)), floor
    for times in (5, 20):
        larger = _larger(table, times)
        seconds = median_time(lambda larger=larger: match(larger), 10)  # type: ignore[misc]
        yield f"match over {times}x the table / over the table", seconds, median_time(lambda: match(table))
    gland = Gland(
        Seat.PISTON, Toleranced(44.4, 0.06), Toleranced(5.4, 0, 0.2), bore=Toleranced(50, 0, 0.039), pressure=18.0
    )
    tables = GlandTables(extrusion_limits(), gland_rows(), compounds=compounds())
    search = median_time(lambda: search_rings(gland, table, tables))
    yield f"groove search over {count} sizes, worst cases / bare pass", search, floor


def _larger(table: RingTable, times: int) -> RingTable:
    """The table several times over, each copy a little larger so that no two sizes are the same."""
    return RingTable(
        tuple(
            replace(size, inside_diameter=size.inside_diameter * (1 + copy * 1e-3), section=size.section + copy * 0.03)
            for copy in range(times)
            for size in table.sizes
        )
    )


def match(table: RingTable) -> object:
    return match_ring(READING, table)


def bare_pass(table: RingTable) -> object:
    """The same likelihoods of a used ring, written out over the same arrays and nothing else."""
    d1, t1, d2, t2 = table.inside_diameter, table.inside_tolerance / 3, table.section, table.section_tolerance / 3
    diameter = (1.005 * t1) ** 2 + 0.005**2 * (d1**2 + t1**2) + 0.066**2
    section = (0.985 * t2) ** 2 + 0.010**2 * (d2**2 + t2**2) + 0.025**2
    log = -0.5 * ((44.1 - 1.005 * d1) ** 2 / diameter + np.log(diameter))
    log = log - 0.5 * ((3.5 - 0.985 * d2) ** 2 / section + np.log(section))
    weight = np.exp(log - log.max())
    return weight / weight.sum()
