"""O-ring sizes: one row of a standard's table, and all rows as arrays for fast matching."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
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

# Finer than any caliper on rubber: what agrees to this is one ring.
SAME_SIZE_MM = 0.02
# How many neighbours by diameter are compared; on one diameter stand at most ten stock sections.
_MOST_NAMES = 24


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
    tolerance_estimated: bool = False

    @property
    def outside_diameter(self) -> float:
        return self.inside_diameter + 2.0 * self.section

    @property
    def label(self) -> str:
        """How the size is called among people."""
        return f"{'metric stock' if self.series == METRIC_STOCK else self.series} {self.designation}"


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
        return self.part([place for place, size in enumerate(self.sizes) if size.series in wanted])

    def part(self, places: Sequence[int]) -> RingTable:
        """The sizes at some places, in that order, their arrays cut out of this table's."""
        part = RingTable(tuple(self.sizes[place] for place in places))
        at = np.array(places, dtype=np.intp)
        for name in ("inside_diameter", "inside_tolerance", "section", "section_tolerance", "series_index"):
            part.__dict__[name] = getattr(self, name)[at]  # fills the cached property
        return part

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

    @cached_property
    def series_counts(self) -> NDArray[np.intp]:
        """How many sizes each series has here, in the order of SERIES."""
        return np.bincount(self.series_index, minlength=len(SERIES))

    def names_of(self, place: int) -> tuple[int, ...]:
        """The places of all names of the size at a place, itself among them."""
        return self._owner.get(place, (place,))

    @cached_property
    def _owner(self) -> dict[int, tuple[int, ...]]:
        return {place: members for members in self.same_size for place in members}

    @cached_property
    def same_size(self) -> tuple[tuple[int, ...], ...]:
        """Places of sizes that agree to 0.02 mm in diameter and section: one ring under several names."""
        order = np.argsort(self.inside_diameter, kind="stable")
        d1, d2 = self.inside_diameter[order], self.section[order]
        group = list(range(len(order)))
        for step in range(1, _MOST_NAMES):
            near = np.flatnonzero(
                (d1[step:] - d1[:-step] <= SAME_SIZE_MM) & (abs(d2[step:] - d2[:-step]) <= SAME_SIZE_MM)
            )
            for i in near:
                group[int(i) + step] = group[int(i)]
        members: dict[int, list[int]] = {}
        for place, owner in enumerate(group):
            members.setdefault(owner, []).append(int(order[place]))
        return tuple(tuple(sorted(places)) for places in members.values() if len(places) > 1)


def _plain(designation: str) -> str:
    return designation.strip().removeprefix("-").replace(" ", "").casefold()
