"""Signs, causes and corrections, and the table that holds them against each other."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum
from functools import cached_property

from ironkettle.core.sealing.catalogue import KINDS, ElementKind, Group


class Sign(StrEnum):
    """What is seen on a seal that came off, and how it is written in a record."""

    words: str

    def __new__(cls, key: str, words: str = "") -> Sign:
        sign = str.__new__(cls, key)
        sign._value_ = key
        sign.words = words
        return sign

    NONE = ("none", "none of these")
    NIBBLED_LOW_SIDE = ("nibbled_low_side", "edge nibbled on the low-pressure side")
    FLAT_ONE_SIDE = ("flat_one_side", "flat on one side")
    FLAT_BOTH_SIDES = ("flat_both_sides", "flat on both sides")
    HARD_CRACKED = ("hard_cracked", "hard, with cracks")
    SOFT_SWOLLEN = ("soft_swollen", "soft and swollen")
    SHRUNK = ("shrunk", "shrunk and loose")
    SPIRAL_CUTS = ("spiral_cuts", "cuts in a spiral")
    CUT_AT_FITTING = ("cut_at_fitting", "one clean cut")
    BLISTERED = ("blistered", "blisters or pits inside")
    WORN_ONE_SIDE = ("worn_one_side", "worn on one side of the circumference")
    WORN_EVENLY = ("worn_evenly", "worn evenly all round")
    SCORED_ALONG = ("scored_along", "scored along the stroke")
    LIP_TORN = ("lip_torn", "lip torn")
    LIP_FOLDED = ("lip_folded", "lip folded over")
    ENERGISER_SPOILED = ("energiser_spoiled", "energiser cut, twisted or flat")
    CHEWED = ("chewed", "chewed all round")
    BURNT = ("burnt", "burnt or charred at the edge")
    EXTRUDED_INTO_THREADS = ("extruded_into_threads", "pressed into a thread or a gap")
    MISSING_PIECE = ("missing_piece", "a piece is missing")
    RUST_BEHIND = ("rust_behind", "rust behind it")
    DIRT_EMBEDDED = ("dirt_embedded", "embedded grit")
    REVERSED = ("reversed", "it was the wrong way round")
    GLAZED = ("glazed", "shiny, glazed face")


class Cause(StrEnum):
    EXTRUSION = "extrusion"
    COMPRESSION_SET = "compression_set"
    HEAT = "heat"
    CHEMICAL_SWELL = "chemical_swell"
    SHRINKAGE = "shrinkage"
    TWIST = "twist"
    FITTING_DAMAGE = "fitting_damage"
    RAPID_DECOMPRESSION = "rapid_decompression"
    SIDE_LOAD = "side_load"
    DIRT = "dirt"
    REVERSED = "reversed"
    DRY_RUNNING = "dry_running"
    TOO_SMALL = "too_small"
    TOO_LARGE = "too_large"
    OLD_AGE = "old_age"
    ENERGISER_FAULT = "energiser_fault"
    ROUGH_SURFACE = "rough_surface"
    DIESELING = "dieseling"
    MISSING_BACKUP = "missing_backup"
    WIPER_FAILURE = "wiper_failure"


class Weight(StrEnum):
    """How often a sign is seen where a cause was at work, as the table writes it."""

    STRONG = "3"
    TYPICAL = "2"
    POSSIBLE = "1"
    UNUSUAL = ""
    AGAINST = "x"

    @property
    def ratio(self) -> float:
        """How often the sign is seen with this cause, over how often it is seen by chance (3 in 100). [-]

        Source: this project's own judgement: 75, 35, 12, 3 and 0.4 in 100.
        """
        return {"3": 25.0, "2": 35 / 3, "1": 4.0, "": 1.0, "x": 0.4 / 3}[self.value]


# Signs that only some elements can show. The wrong way round is asked for by itself.
_ONLY: Mapping[Sign, frozenset[Group]] = {
    Sign.LIP_TORN: frozenset({Group.LIP, Group.WIPER, Group.PACKING}),
    Sign.LIP_FOLDED: frozenset({Group.LIP, Group.WIPER, Group.PACKING}),
    Sign.SPIRAL_CUTS: frozenset({Group.RING, Group.ENERGISER}),
    Sign.ENERGISER_SPOILED: frozenset({Group.SLIDE, Group.ENERGISER}),
    Sign.REVERSED: frozenset(),
}
_ON_HARD = frozenset({
    Sign.NONE, Sign.WORN_ONE_SIDE, Sign.WORN_EVENLY, Sign.SCORED_ALONG, Sign.MISSING_PIECE, Sign.RUST_BEHIND,
    Sign.DIRT_EMBEDDED, Sign.BURNT, Sign.HARD_CRACKED,
})  # fmt: skip


@dataclass(frozen=True, slots=True)
class Correction:
    """What puts a cause right. ``when``: the stage it belongs to; *fit*: done by fitting the new one as drawn."""

    key: str
    text: str
    when: str


@dataclass(frozen=True, slots=True)
class CauseFacts:
    """A cause: its name, what a customer is told, how common it is by group of elements and by motion [-], what puts it right."""

    cause: Cause
    name: str
    customer: str
    prior: Mapping[Group, float]
    by_motion: Mapping[str, float]
    corrections: tuple[Correction, ...]


@dataclass(frozen=True, slots=True)
class SignFacts:
    """How a sign speaks for or against each cause."""

    sign: Sign
    weights: Mapping[Cause, Weight]


@dataclass(frozen=True)
class FailureTable:
    """Signs against causes, and how common each cause is.

    Source: reference/tables/failure_*.csv, this project's own judgement after common guides to seal failure.
    """

    signs: Mapping[Sign, SignFacts]
    causes: Mapping[Cause, CauseFacts]

    @cached_property
    def corrections(self) -> Mapping[str, Correction]:
        return {correction.key: correction for cause in self.causes.values() for correction in cause.corrections}

    @cached_property
    def offered(self) -> Mapping[ElementKind, tuple[SignFacts, ...]]:
        """The signs each kind of element can show, *nothing* first, then by how often they are seen on its kind."""
        return {kind: self._offered_for(facts.group) for kind, facts in KINDS.items()}

    def _offered_for(self, group: Group) -> tuple[SignFacts, ...]:
        can = [
            facts
            for sign, facts in self.signs.items()
            if group in _ONLY.get(sign, set(Group)) and (group is not Group.HARD or sign in _ON_HARD)
        ]
        return tuple(sorted(can, key=lambda cause: (cause.sign is not Sign.NONE, -self._often(cause, group))))

    def _often(self, facts: SignFacts, group: Group) -> float:
        return sum(self.causes[cause].prior[group] * weight.ratio for cause, weight in facts.weights.items())
