"""Is the match honest: rings drawn from a world like a shop's, against the best classifier there can be.

The draws and the best classifier are written from the statement of the model (docs/guide/ring-match.md),
apart from the rule's own code: making, condition, the mistake about it and reading are drawn one by
one, and the best classifier sums over drawn factors instead of a closed form. How often a condition is
told wrong is either what the model keeps for it, or a share of its own, spread evenly over the neighbours.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field

import numpy as np

from ironkettle.core.sealing.rings import DEFAULT_PRIOR, SERIES, Condition, Measurement, RingTable, match_ring
from ironkettle.core.sealing.rings.condition import MISTAKEN
from ironkettle.core.sealing.rings.sizes import Floats

# Quarters of the sections that are seldom met.
_SELDOM = 0.25
_FACTORS = 3000
_NEAREST = 80
_USUAL_DEVIATIONS = 2.6
EDGES = (0.5, 0.6, 0.7, 0.8, 0.9, 1.0)


@dataclass
class Bins:
    """Of the draws by stated probability: how many, how many right, the sum of what was stated."""

    count: dict[float, int] = field(default_factory=dict)
    right: dict[float, int] = field(default_factory=dict)
    stated: dict[float, float] = field(default_factory=dict)

    def add(self, stated: float, *, right: bool) -> None:
        low = max((edge for edge in EDGES[:-1] if stated >= edge), default=0.0)
        self.count[low] = self.count.get(low, 0) + 1
        self.right[low] = self.right.get(low, 0) + right
        self.stated[low] = self.stated.get(low, 0.0) + stated

    def take(self, other: Bins) -> None:
        """Add another count to this."""
        for mine, theirs in ((self.count, other.count), (self.right, other.right)):
            for low, number in theirs.items():
                mine[low] = mine.get(low, 0) + number
        for low, total in other.stated.items():
            self.stated[low] = self.stated.get(low, 0.0) + total

    def gaps(self) -> Iterator[tuple[float, int, float]]:
        """Lower edge, draws, and true less stated share. [-]"""
        for low in sorted(self.count):
            count = self.count[low]
            yield low, count, (self.right[low] - self.stated[low]) / count


@dataclass
class Honesty:
    """How a condition fared: draws, right, right by the best classifier, decided, and of these right."""

    draws: int = 0
    right: int = 0
    best: int = 0
    decided: int = 0
    decided_right: int = 0
    bins: Bins = field(default_factory=Bins)

    def take(self, other: Honesty) -> None:
        """Add other draws to these."""
        for name in ("draws", "right", "best", "decided", "decided_right"):
            setattr(self, name, getattr(self, name) + getattr(other, name))
        self.bins.take(other.bins)

    @property
    def against_best(self) -> float:
        return self.right / max(self.best, 1)

    @property
    def decided_right_share(self) -> float:
        return self.decided_right / max(self.decided, 1)


def try_match(
    table: RingTable,
    draws: int,
    seed: int,
    uncertainty: float = 0.05,
    told_wrong: float | None = None,
    as_well: Condition | None = None,
) -> dict[Condition, Honesty]:
    """Draw rings told to be in every condition alike and compare the match with the best classifier.

    Parameters: draws : how many rings; uncertainty : 95 % half-width of both readings [mm];
    told_wrong : share of conditions told wrong, the model's own where None [-];
    as_well : a state every ring has beside the one that is told, which nobody says.
    """
    chance = np.random.default_rng(seed)
    weight = np.where([size.seldom for size in table.sizes], _SELDOM, 1.0)
    series = np.bincount(table.series_index, weights=weight, minlength=len(SERIES))
    prior = np.array([DEFAULT_PRIOR[s] for s in SERIES])[table.series_index] * weight / series[table.series_index]
    prior = prior / prior.sum()
    worlds = {condition: _really(condition, told_wrong) for condition in Condition}
    factors = {
        condition: np.array([_both(worlds[condition], as_well, chance) for _ in range(_FACTORS)])
        for condition in Condition
    }
    found = {condition: Honesty() for condition in Condition}
    for draw in range(draws):
        condition = list(Condition)[draw % len(Condition)]
        truth = int(chance.choice(len(prior), p=prior))
        d, s = _reading(table, truth, _both(worlds[condition], as_well, chance), uncertainty, chance)
        match = match_ring(Measurement(d, s, condition, uncertainty=uncertainty), table, limit=1)
        first = match.candidates[0]
        right = table.sizes[truth] in {first.size, *first.also}
        honesty = found[condition]
        honesty.draws += 1
        honesty.right += right
        honesty.best += _best_guess(table, prior, factors[condition], (d, s), uncertainty) in table.names_of(truth)
        honesty.decided += match.decided
        honesty.decided_right += match.decided and right
        honesty.bins.add(first.probability, right=right)
    return found


def _really(condition: Condition, wrong: float | None) -> Mapping[Condition, float]:
    """How a ring that is told so really is. [-]"""
    if wrong is None:
        return MISTAKEN[condition]
    neighbours = [other for other in MISTAKEN[condition] if other is not condition]
    return {condition: 1 - wrong} | dict.fromkeys(neighbours, wrong / len(neighbours))


def _both(
    really: Mapping[Condition, float], as_well: Condition | None, chance: np.random.Generator
) -> tuple[float, float]:
    """Factors of a ring that is as it is told, and in the other state as well."""
    d, s = _factors(really, chance)
    if as_well is None:
        return d, s
    more_d, more_s = _factors({as_well: 1.0}, chance)
    return d * more_d, s * more_s


def _factors(really: Mapping[Condition, float], chance: np.random.Generator) -> tuple[float, float]:
    """Factors on diameter and section of a ring, drawn from how it may really be."""
    condition = list(really)[int(chance.choice(len(really), p=list(really.values())))]
    if condition is Condition.NEW:
        return 1.0, 1.0
    if condition is Condition.USED:
        return float(chance.normal(1.005, 0.005)), float(chance.normal(0.985, 0.010))
    if condition is Condition.FLATTENED:
        return float(chance.normal(1.010, 0.008)), float(1 - chance.uniform(0.05, 0.95) * chance.uniform(0.10, 0.25))
    if condition is Condition.SWOLLEN:
        growth = float((1 + chance.uniform(0.02, 0.30)) ** (1 / 3))
        return growth, growth
    stretch = float(chance.uniform(1.005, 1.07))
    return stretch, stretch**-0.5


def _reading(
    table: RingTable, truth: int, factors: tuple[float, float], uncertainty: float, chance: np.random.Generator
) -> tuple[float, float]:
    """Diameter and section as read on a ring made to a size, by a maker of this or that evenness. [mm]"""
    kept = chance.uniform(2.2, 3.0)
    made_d = chance.normal(table.inside_diameter[truth], table.inside_tolerance[truth] / kept)
    made_s = chance.normal(table.section[truth], table.section_tolerance[truth] / kept)
    return (
        float(max(chance.normal(made_d * factors[0], uncertainty / 2), 0.3)),
        float(max(chance.normal(made_s * factors[1], uncertainty / 2), 0.2)),
    )


def _best_guess(table: RingTable, prior: Floats, factors: Floats, read: tuple[float, float], uncertainty: float) -> int:
    """The place with the largest prior times likelihood, summed over drawn factors; names of one ring together."""
    d, s = read
    far = (np.log(d / table.inside_diameter) / 0.04) ** 2 + (np.log(s / table.section) / 0.06) ** 2
    near = np.argpartition(far, _NEAREST)[:_NEAREST]
    d1, t1, d2, t2 = (
        values[near, None]
        for values in (table.inside_diameter, table.inside_tolerance, table.section, table.section_tolerance)
    )
    f, g = factors[:, 0], factors[:, 1]
    likelihood = _density(d, d1 * f, t1 / _USUAL_DEVIATIONS * f, uncertainty / 2)
    likelihood = likelihood * _density(s, d2 * g, t2 / _USUAL_DEVIATIONS * g, uncertainty / 2)
    weight = likelihood.sum(axis=1) * prior[near]
    lines: dict[int, float] = {}
    for place, share in zip(near.tolist(), weight.tolist(), strict=True):
        line = min(table.names_of(place))
        lines[line] = lines.get(line, 0.0) + share
    return max(lines, key=lambda line: lines[line])


def _density(value: float, mean: Floats, made: Floats, read: float) -> Floats:
    variance = made**2 + read**2
    return np.asarray(np.exp(-0.5 * (value - mean) ** 2 / variance) / np.sqrt(variance))
