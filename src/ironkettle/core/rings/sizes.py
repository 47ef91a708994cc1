"""O-ring sizes: one row of a standard's table, and all rows as arrays for fast matching."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from ironkettle.core.errors import fault

Floats = NDArray[np.float64]

AS568 = "AS568"
ISO_3601 = "ISO 3601"
JIS_B_2401 = "JIS B 2401"
METRIC_STOCK = "metric"
SERIES = (AS568, ISO_3601, JIS_B_2401, METRIC_STOCK)


@dataclass(frozen=True, slots=True)
class RingSize:
    """One ring size. Diameters and section in mm, tolerances as ± in mm.

    ``source`` names the table; ``sure`` says how far its tolerances can be trusted.
    """

    series: str
    designation: str
    inside_diameter: float
    inside_tolerance: float
    section: float
    section_tolerance: float
    source: str
    sure: str = "as published"

    @property
    def outside_diameter(self) -> float:
        return self.inside_diameter + 2.0 * self.section


@dataclass(frozen=True)
class RingTable:
    """All sizes known to the shop, in a fixed order."""

    sizes: tuple[RingSize, ...]

    def find(self, series: str, designation: str, field: str = "ring") -> RingSize:
        """The size of that name. Raises RuleError naming the field when there is none."""
        found = self._by_name.get((series, _plain(designation)))
        if found is None:
            if series not in SERIES:
                raise fault(f"{field}.series", f"“{series}” is not a series known here", *SERIES)
            raise fault(f"{field}.designation", f"{series} has no size “{designation}”", *self._near(series))
        return found

    def of_series(self, series: Iterable[str]) -> RingTable:
        """Only the sizes of the named series, in the same order."""
        wanted = set(series)
        return RingTable(tuple(size for size in self.sizes if size.series in wanted))

    @cached_property
    def _by_name(self) -> dict[tuple[str, str], RingSize]:
        return {(size.series, _plain(size.designation)): size for size in self.sizes}

    def _near(self, series: str) -> tuple[str, ...]:
        return tuple(size.designation for size in self.sizes if size.series == series)[:3]

    @cached_property
    def inside_diameter(self) -> Floats:
        return np.array([size.inside_diameter for size in self.sizes])

    @cached_property
    def inside_tolerance(self) -> Floats:
        return np.array([size.inside_tolerance for size in self.sizes])

    @cached_property
    def section(self) -> Floats:
        return np.array([size.section for size in self.sizes])

    @cached_property
    def section_tolerance(self) -> Floats:
        return np.array([size.section_tolerance for size in self.sizes])

    @cached_property
    def series_index(self) -> NDArray[np.intp]:
        return np.array([SERIES.index(size.series) for size in self.sizes], dtype=np.intp)


def _plain(designation: str) -> str:
    return designation.strip().removeprefix("-").replace(" ", "").casefold()
