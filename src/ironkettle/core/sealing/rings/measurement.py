"""A ring as measured: what was read, how it is, and how far each reading can be trusted."""

from __future__ import annotations

import math
from dataclasses import dataclass
from enum import StrEnum

from ironkettle.core.sealing.rings.condition import Condition

DEFAULT_UNCERTAINTY_MM = 0.05


class Read(StrEnum):
    """What can be read on a ring, or on the groove it came out of."""

    INSIDE = "inside_diameter"
    OUTSIDE = "outside_diameter"
    CIRCUMFERENCE = "inside_circumference"
    CUT_LENGTH = "cut_length"
    CONE = "cone_diameter"
    SECTION = "section"
    SECTION_CROSSED = "section_crossed"
    GROOVE_DIAMETER = "groove_diameter"
    GROOVE_WIDTH = "groove_width"

    @property
    def words(self) -> str:
        return _WORDS.get(self, self.value.replace("_", " "))


_WORDS = {Read.CONE: "cone reading", Read.SECTION_CROSSED: "crossed section", Read.CUT_LENGTH: "length when cut"}

# The readings that can stand for the diameter: each is share_1 · inside diameter + share_2 · section.
# A cut ring laid straight shows the length of its middle line, π·(d₁ + d₂); a tape inside shows π·d₁.
ACROSS: dict[Read, tuple[float, float]] = {
    Read.INSIDE: (1.0, 0.0),
    Read.OUTSIDE: (1.0, 2.0),
    Read.CIRCUMFERENCE: (math.pi, 0.0),
    Read.CUT_LENGTH: (math.pi, math.pi),
    Read.CONE: (1.0, 0.0),
}

# Of the reading itself: a soft ring gives way under a caliper, less so when it settles on a cone
# by itself; a tape or a ruler is read to half a millimetre.
SOFT_SHARE = 0.003
CONE_SHARE = 0.001
TAPE_UNCERTAINTY_MM = 0.5

# A further reading is taken because finer was asked for: its uncertainty when nothing is said.
FURTHER_UNCERTAINTY_MM: dict[Read, float] = {
    Read.INSIDE: 0.05,
    Read.OUTSIDE: 0.05,
    Read.CIRCUMFERENCE: TAPE_UNCERTAINTY_MM,
    Read.CUT_LENGTH: TAPE_UNCERTAINTY_MM,
    Read.CONE: 0.05,
    Read.SECTION: 0.01,
    Read.GROOVE_DIAMETER: 0.05,
    Read.GROOVE_WIDTH: 0.05,
}


# What a gentle pair of jaws presses a section of 70 Shore A by, and how much softer rubber gives way more.
_SQUEEZE_70_MM, _A_SHORE = 0.02, 0.045
# Where the hardness is not known, from 60 to 90 Shore A. [mm]
_UNKNOWN_SQUEEZE_MM = 0.012


def squeezed(hardness: float) -> float:
    """By how much a caliper reads a rubber section too small, at a hardness from 30 to 98 Shore A. [mm]

    Source: no published source; typical workshop practice with a gentle touch: 0.02 mm at 70 Shore A, and as the modulus of
    rubber goes with its hardness (about 4.5 % a degree).
    """
    return float(_SQUEEZE_70_MM * math.exp(-_A_SHORE * (hardness - 70)))


@dataclass(frozen=True, slots=True)
class Further:
    """One reading more, taken to settle the matter; ``uncertainty`` is its 95 % half-width. [mm]"""

    what: Read
    value: float
    uncertainty: float | None = None

    @property
    def deviation(self) -> float:
        """Standard deviation of the reading. [mm]"""
        return (self.uncertainty or FURTHER_UNCERTAINTY_MM[self.what]) / 2.0


@dataclass(frozen=True, slots=True)
class Measurement:
    """A ring as measured. Lengths in mm.

    ``diameter`` is what ``across`` says, the inside diameter if nothing is said. ``uncertainty`` is
    the 95 % half-width of one reading and then holds for both; without it the section counts with
    ``default_uncertainty`` and the diameter with the larger of that and 0.3 % of the reading (a
    cone 0.1 %, a tape or ruler 0.5 mm), because a soft ring gives way under the caliper. ``as_well``: conditions it is in as
    well; ``hardness_shore_a``: of its rubber, None where it is not known: then what a caliper squeezes is taken wide.
    """

    diameter: float
    section: float
    condition: Condition = Condition.NEW
    section_crossed: float | None = None
    uncertainty: float | None = None
    across: Read = Read.INSIDE
    default_uncertainty: float = DEFAULT_UNCERTAINTY_MM
    further: tuple[Further, ...] = ()
    as_well: tuple[Condition, ...] = ()
    hardness_shore_a: int | None = None

    @property
    def inside_diameter(self) -> float:
        """The inside diameter that the reading across the ring comes to. [mm]"""
        a, b = ACROSS[self.across]
        return (self.diameter - b * self.round_section) / a

    @property
    def round_section(self) -> float:
        """The round section of equal area, √(a·b) when two crossed readings were taken, as it is without the jaws. [mm]"""
        read = self.section if self.section_crossed is None else math.sqrt(self.section * self.section_crossed)
        return read if self.hardness_shore_a is None else read + squeezed(self.hardness_shore_a)

    @property
    def single_section_deviation(self) -> float:
        """Standard deviation of one reading of the section, with what the jaws may squeeze it by. [mm]"""
        if self.uncertainty is not None:
            return self.uncertainty / 2.0
        jaws = _UNKNOWN_SQUEEZE_MM if self.hardness_shore_a is None else squeezed(self.hardness_shore_a) / 2
        return math.hypot(self.default_uncertainty / 2.0, jaws)

    @property
    def section_deviation(self) -> float:
        """Standard deviation of the section as it counts; two crossed readings are averaged. [mm]"""
        readings = 1 if self.section_crossed is None else 2
        return self.single_section_deviation / math.sqrt(readings)

    @property
    def diameter_deviation(self) -> float:
        """Standard deviation of the reading across the ring. [mm]"""
        if self.uncertainty is not None:
            return self.uncertainty / 2.0
        if self.across in {Read.CIRCUMFERENCE, Read.CUT_LENGTH}:
            return max(self.default_uncertainty, TAPE_UNCERTAINTY_MM) / 2.0
        share = CONE_SHARE if self.across is Read.CONE else SOFT_SHARE
        return max(self.default_uncertainty, share * self.diameter) / 2.0
