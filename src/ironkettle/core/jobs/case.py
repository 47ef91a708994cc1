"""What the rules of a job compute from: its sheet, its state, the tables, the shop's lists, the clock, and who asks."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import datetime
from typing import TYPE_CHECKING

from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.jobs.runs import GaugeUsed, WrenchUsed
from ironkettle.core.jobs.state import Payload, State
from ironkettle.core.machine.parts import Cleaning
from ironkettle.core.machine.pressure import Fluid, HoldRules, Sample
from ironkettle.core.machine.tightening import FastenerTables
from ironkettle.core.sealing.catalogue import ElementKind
from ironkettle.core.sealing.compounds import Duty, Lubricant
from ironkettle.core.sealing.failures import FailureTable
from ironkettle.core.sealing.grooves import Fit, Gland, GlandTables, search_rings
from ironkettle.core.sealing.rings import RingTable
from ironkettle.core.shop.people import Author
from ironkettle.core.shop.service import CounterRead
from ironkettle.core.shop.settings import ShopSettings

if TYPE_CHECKING:
    from ironkettle.core.jobs.task import Task


@dataclass(frozen=True)
class Tables:
    """The tables a task looks things up in, and the shop's rules. Searches are remembered, since a job asks them again."""

    rings: RingTable
    fluids: tuple[Fluid, ...]
    glands: GlandTables
    failures: FailureTable
    fasteners: FastenerTables
    cleaning: tuple[Cleaning, ...] = ()
    settings: ShopSettings = field(default_factory=lambda: ShopSettings({}))
    allowed: dict[
        tuple[str | None, tuple[str, ...], Duty, ElementKind, str | None, tuple[str, ...]], frozenset[Lubricant]
    ] = field(default_factory=dict, repr=False, compare=False)
    """What may lie on a seal, by compound, media, duty, whether it is a packing, and what its sheet forbids."""
    _fits: dict[Gland, tuple[Fit, ...]] = field(default_factory=dict, repr=False, compare=False)

    @property
    def hold_rules(self) -> HoldRules:
        """How a pressure hold is judged."""
        return self.settings.hold_rules

    def fits(self, gland: Gland, limit: int) -> tuple[Fit, ...]:
        """The ring sizes that fit a groove, the best first."""
        if gland not in self._fits:
            self._fits[gland] = search_rings(gland, self.rings, self.glands, limit=limit).fits
        return self._fits[gland]


@dataclass(frozen=True, slots=True)
class OnShelf:
    """Something of the shop's stock: a seal or ring by kind and size, a kit by its number, a part by its name.

    ``three``: the dimensions of a seal in any order [mm]; ``size``: what a ring or a kit is called by.
    """

    key: str
    name: str
    kind: str
    count: int
    place: str
    size: str = ""
    three: tuple[float, float, float] | None = None
    compound: str = ""


@dataclass(frozen=True, slots=True)
class Carried:
    """What a job takes over from that of a sister unit it is a copy of: proposed, never recorded as done.

    ``sizes`` by element, ``answers`` by question, ``wrenches`` by group and phase.
    """

    number: int
    sizes: Mapping[str, str]
    answers: Mapping[str, str]
    wrenches: Mapping[tuple[str, int], str]

    @property
    def words(self) -> str:
        """Where it comes from."""
        return f"as on job {self.number}"


@dataclass(frozen=True)
class Case:
    """What a slice computes from: the resolved sheet, the state, the tables, the server's clock, and who asks.

    ``wrenches`` and ``gauges``: the shop's, by key; ``shelf``: its stock. ``recorded``: the samples of the run that an entry closes;
    ``target``: the entry that another strikes out, and who made it; ``photos``: the hashes of those sent for the job, when
    an entry tells of one. ``carried``: what a copy takes over from a sister unit's job. ``counters``: what was read of the
    unit's counters beside this job, when its intake tells of them; ``happened``: when that was, by the bench's clock.
    ``draft``: nobody who may has approved the job's sheet. ``number``: of the job; ``trace_of``: of the job another test of which
    sealed the very trace that an entry would close a run with. ``lubricants``: the shop's own names of some, in small letters.
    """

    resolved: Resolved
    state: State
    tables: Tables
    now: datetime
    author: Author | None = None
    wrenches: Mapping[str, WrenchUsed] = field(default_factory=dict)
    gauges: Mapping[str, GaugeUsed] = field(default_factory=dict)
    shelf: tuple[OnShelf, ...] = ()
    recorded: tuple[Sample, ...] = ()
    target: tuple[str, Payload] | None = None
    photos: Mapping[str, str] = field(default_factory=dict)
    carried: Carried | None = None
    counters: Mapping[str, Sequence[CounterRead]] = field(default_factory=dict)
    happened: datetime | None = None
    draft: bool = False
    number: int = 0
    trace_of: int | None = None
    lubricants: Mapping[str, Lubricant] = field(default_factory=dict)
    listed: list[tuple[Task, ...]] = field(default_factory=list, init=False, repr=False, compare=False)
    """The tasks of the job as it stands here, once they were worked out."""
