"""Is the match honest: rings drawn from its stated model, against the best classifier there can be.

The draws and the best classifier are written from the statement of the model (docs/guide/ring-match.md),
apart from the rule's own code: making, condition and reading are drawn one by one, and the best
classifier integrates over the condition on a fine grid instead of in closed form.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ironkettle.core.rings import DEFAULT_PRIOR, SERIES, Condition, Measurement, RingTable, match_ring
from ironkettle.core.rings.sizes import Floats

# Mean and deviation of the factors on diameter and section; None: tied to the factor on the diameter.
_STATED: dict[Condition, tuple[tuple[float, float], tuple[float, float] | None]] = {
    Condition.NEW: ((1.0, 0.0), (1.0, 0.0)),
    Condition.USED: ((1.005, 0.005), (0.985, 0.010)),
    Condition.FLATTENED: ((1.010, 0.008), (0.90, 0.05)),
    Condition.SWOLLEN: ((1.040, 0.020), None),
    Condition.STRETCHED: ((1.030, 0.015), None),
}
_GRID = np.linspace(-5.0, 5.0, 401)
_NEAREST = 60


@dataclass(frozen=True)
class Honesty:
    """Share of draws the first candidate is right, and the best classifier; gap per tenth of stated probability."""

    draws: int
    right: float
    best: float
    gaps: dict[str, tuple[int, float]]

    @property
    def against_best(self) -> float:
        return self.right / self.best

    @property
    def widest_gap(self) -> float:
        """Largest difference between stated and true share, in points, over tenths with 200 draws and more."""
        return max((abs(gap) for count, gap in self.gaps.values() if count >= 200), default=0.0) * 100


def try_match(table: RingTable, draws: int, seed: int, uncertainty: float = 0.05) -> Honesty:
    """Draw rings in every condition alike and compare the match with the best classifier.

    Parameters: draws : how many rings; uncertainty : 95 % half-width of both readings [mm].
    """
    chance = np.random.default_rng(seed)
    counts = np.bincount(table.series_index, minlength=len(SERIES))
    prior = np.array([DEFAULT_PRIOR[s] for s in SERIES])[table.series_index] / counts[table.series_index]
    prior = prior / prior.sum()
    stated, right, best = np.empty(draws), np.empty(draws, bool), 0
    for draw in range(draws):
        condition = list(Condition)[draw % len(Condition)]
        truth = int(chance.choice(len(prior), p=prior))
        d, s = _reading(table, truth, condition, uncertainty, chance)
        found = match_ring(Measurement(d, s, condition, uncertainty=uncertainty), table, limit=1).candidates[0]
        names = {found.size, *found.also}
        stated[draw], right[draw] = found.probability, table.sizes[truth] in names
        best += table.sizes[_best_guess(table, prior, condition, d, s, uncertainty)] == table.sizes[truth]
    gaps = {}
    for low in np.arange(0.5, 0.95, 0.1):
        chosen = (stated >= low) & (stated < low + 0.1 + (low > 0.85))
        if chosen.any():
            gap = float(right[chosen].mean() - stated[chosen].mean())
            gaps[f"{low:.1f}"] = (int(chosen.sum()), gap)
    return Honesty(draws, float(right.mean()), best / draws, gaps)


def _reading(
    table: RingTable, truth: int, condition: Condition, uncertainty: float, chance: np.random.Generator
) -> tuple[float, float]:
    """Diameter and section as read on a ring made to a size. [mm]"""
    made_d = chance.normal(table.inside_diameter[truth], table.inside_tolerance[truth] / 3)
    made_s = chance.normal(table.section[truth], table.section_tolerance[truth] / 3)
    diameter, section = _STATED[condition]
    factor = chance.normal(*diameter)
    on_section = _tied(condition, factor) if section is None else chance.normal(*section)
    return (
        float(chance.normal(made_d * factor, uncertainty / 2)),
        float(chance.normal(made_s * on_section, uncertainty / 2)),
    )


def _tied(condition: Condition, factor: Floats | float) -> Floats | float:
    return factor if condition is Condition.SWOLLEN else np.asarray(factor) ** -0.5


def _best_guess(table: RingTable, prior: Floats, condition: Condition, d: float, s: float, uncertainty: float) -> int:
    """The place with the largest prior times likelihood, the condition integrated on a grid."""
    diameter, section = _STATED[condition]
    middle = diameter[0]
    far = ((d - middle * table.inside_diameter) / (0.02 * d + 0.3)) ** 2 + ((s - table.section) / (0.08 * s + 0.1)) ** 2
    near = np.argpartition(far, _NEAREST)[:_NEAREST]
    d1, t1, d2, t2 = (
        values[near, None]
        for values in (table.inside_diameter, table.inside_tolerance, table.section, table.section_tolerance)
    )
    weight = np.exp(-0.5 * _GRID**2)
    f = diameter[0] + diameter[1] * _GRID
    by_diameter = _density(d, d1 * f, t1 / 3 * f, uncertainty / 2)
    if section is None:
        g = np.asarray(_tied(condition, f))
        likelihood = (weight * by_diameter * _density(s, d2 * g, t2 / 3 * g, uncertainty / 2)).sum(axis=1)
    else:
        g = section[0] + section[1] * _GRID
        by_section = _density(s, d2 * g, t2 / 3 * g, uncertainty / 2)
        likelihood = (weight * by_diameter).sum(axis=1) * (weight * by_section).sum(axis=1)
    return int(near[np.argmax(likelihood * prior[near])])


def _density(value: float, mean: Floats, made: Floats, read: float) -> Floats:
    variance = made**2 + read**2
    return np.asarray(np.exp(-0.5 * (value - mean) ** 2 / variance) / np.sqrt(variance))
