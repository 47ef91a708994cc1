"""Figures of the core: matching, groove search, state of a long job."""

from __future__ import annotations

import uuid
from collections.abc import Iterator
from datetime import UTC, datetime
from pathlib import Path

import numpy as np

import ironkettle.demo
from ironkettle.bench.timing import median_time
from ironkettle.core.buildsheets import read_sheet
from ironkettle.core.glands import Gland, HouseLimits, Seat, fits_of
from ironkettle.core.jobs import Entry, job_state
from ironkettle.core.jobs.entries import NoteMade, StepDone
from ironkettle.core.quantities import Toleranced
from ironkettle.core.rings import Measurement, RingTable, match_ring
from ironkettle.reference import ring_table

Figure = tuple[str, float, float]
LONG_LOG = 1000


def figures() -> Iterator[Figure]:
    table = ring_table()
    floor = median_time(lambda: bare_pass(table))
    yield f"match over {len(table.sizes)} sizes / bare NumPy pass", median_time(lambda: match(table)), floor
    for times in (5, 20):
        larger = RingTable(table.sizes * times)
        one = median_time(lambda larger=larger: match(larger), 10)  # type: ignore[misc]
        yield f"match over {times}x the table / over the table", one, median_time(lambda: match(table))
    gland = Gland(
        Seat.PISTON, Toleranced(44.4, 0.06), Toleranced(5.4, 0, 0.2), bore=Toleranced(50, 0, 0.039), pressure=18.0
    )
    search = median_time(lambda: fits_of(gland, table, HouseLimits()))
    yield f"groove search over {len(table.sizes)} sizes, worst cases / bare pass", search, floor
    sheet = read_sheet((Path(ironkettle.demo.__file__).parent / "sheets/swing_bridge_ram.yaml").read_text("utf-8"))
    log = long_log()
    state = median_time(lambda: job_state(sheet, log))
    yield f"state of a job from {LONG_LOG:,} entries / walking the list", state, median_time(lambda: walk(log))


def match(table: RingTable) -> object:
    return match_ring(Measurement(44.1, 3.5), table)


def bare_pass(table: RingTable) -> object:
    """The same likelihood of a new ring, written out over the same arrays and nothing else."""
    diameter = np.hypot(table.inside_tolerance / 3, 0.066)
    section = np.hypot(table.section_tolerance / 3, 0.025)
    weight = np.exp(
        -0.5 * ((44.1 - table.inside_diameter) / diameter) ** 2 - 0.5 * ((3.5 - table.section) / section) ** 2
    )
    weight = weight / (diameter * section)
    return weight / weight.sum()


def long_log() -> list[Entry]:
    now = datetime.now(UTC)
    payloads = [StepDone(step="isolate"), NoteMade(stage="strip", text="turned, cleaned, looked at")]
    return [
        Entry(id=uuid.uuid4(), seq=i + 1, who="bede", bench_time=now, server_time=now, payload=payloads[i % 2])
        for i in range(LONG_LOG)
    ]


def walk(log: list[Entry]) -> int:
    return sum(entry.payload is not None for entry in log)
