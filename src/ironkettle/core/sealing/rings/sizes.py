"""O-ring sizes: one row of a standard's table, and all rows as arrays for fast matching."""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from ironkettle.core.base.errors import fault

Floats = NDArray[np.float64]

AS568 = "AS568"
ISO_3601 = "ISO 3601"
JIS_B_2401 = "JIS B 2401"
METRIC_STOCK = "metric"
SERIES = (AS568, ISO_3601, JIS_B_2401, METRIC_STOCK)

# How many standard deviations of their making makers keep inside the tolerance, on the whole (2.2 to 3).
TOLERANCE_DEVIATIONS = 2.6
# Finer than any caliper on rubber: what agrees to this is one ring.
SAME_SIZE_MM = 0.02
# How many neighbours by diameter are compared: more than ever stand within 0.02 mm of one.
_MOST_NAMES = 40

# SAE AS568 dash numbers go with the name of the standard, or with the 2 that its first drawing bore.
_DASH_NUMBER = re.compile(r"(?:as568[a-z]?)?-?(?:2-)?-?([0-9]{3})")


@dataclass(frozen=True, slots=True)
class RingSize:
    """One ring size. Diameters and section in mm, tolerances as ± in mm.

    ``source`` names the table; ``sure`` says how far its tolerances can be trusted; ``seldom``: may be
    met, but not often.
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
    seldom: bool = False

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
        found = self._by_name.get((series, plain_designation(designation)))
        if found is None:
            if series not in SERIES:
                raise fault(f"{field}.series", f"“{series}” is not a known series", *SERIES)
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
        for name in ("inside_diameter", "inside_tolerance", "section", "section_tolerance", "series_index", "seldom"):
            part.__dict__[name] = getattr(self, name)[at]  # fills the cached property
        return part

    @cached_property
    def _by_name(self) -> dict[tuple[str, str], RingSize]:
        return {(size.series, plain_designation(size.designation)): size for size in self.sizes}

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
    def seldom(self) -> NDArray[np.bool_]:
        return np.array([size.seldom for size in self.sizes], dtype=np.bool_)

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


def plain_designation(text: str) -> str:
    """A designation as it is looked up: ``-214``, ``2-214`` and ``AS568-214`` are all ``214``."""
    plain = text.strip().removeprefix("-").replace(" ", "").casefold()
    dash_number = _DASH_NUMBER.fullmatch(plain)
    return dash_number[1] if dash_number else plain
