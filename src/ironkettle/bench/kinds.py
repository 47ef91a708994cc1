"""Is the verdict of every kind of test honest: runs drawn from a plain world, judged as a job judges them.

Apart from the rule's own code: what is true is a share of what is allowed, the readings scatter about it, the gauge is off by up
to its accuracy the whole run, and shows steps. Below 1 a *fail* is false, above 1 a *pass* is.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

import numpy as np

from ironkettle.core.trials import TRIALS, Instrument

SHARES = (0.5, 0.9, 0.98, 1.02, 1.1, 1.5)
_Chance = np.random.Generator
_Draw = Callable[[float, _Chance], dict[str, Any]]


@dataclass(frozen=True)
class World:
    """A kind as a sheet would have it: its figures, what it is read on, and how a run of a share of what is allowed comes out."""

    kind: str
    figures: Mapping[str, Any]
    instrument: Instrument
    draw: _Draw


def _shown(truth: float, scatter: float, accuracy_pct: float, step: float, many: int, chance: _Chance) -> list[float]:
    """Readings of one gauge: off the same way all along, scattered, in steps. [unit of the truth]"""
    off = 1 + accuracy_pct / 100 * chance.uniform(-1, 1)
    values = truth * off + chance.normal(0, scatter, many)
    return [round(float(value) / step) * step for value in values]


def _written(values: list[float], unit: str, decimals: int) -> list[str]:
    return [f"{value:.{decimals}f} {unit}" for value in values]


def _opening(share: float, chance: _Chance) -> dict[str, Any]:
    read = _shown(280 + 5 * share, 0.5, 0.25, 0.1, 5, chance)
    return {"openings": _written(read, "bar", 1)}


def _set_point(share: float, chance: _Chance) -> dict[str, Any]:
    return {"readings": _written(_shown(4 - 0.1 * share, 0.01, 0.25, 0.01, 5, chance), "bar", 2)}


def _effort(share: float, chance: _Chance) -> dict[str, Any]:
    return {"readings": _written(_shown(40 + 5 * share, 0.4, 0.5, 0.1, 5, chance), "N", 1)}


def _friction(share: float, chance: _Chance) -> dict[str, Any]:
    read = _shown(8 * share, 0.05, 0.5, 0.1, 3, chance)
    return {"breakaways": _written(read, "bar", 1), "smooth": True}


def _count(share: float, chance: _Chance) -> dict[str, Any]:
    """Drops come by chance, ten a minute allowed, counted for twenty minutes."""
    return {"counts": [{"t_s": 1200.0, "count": int(chance.poisson(200 * share))}]}


def _drift(share: float, chance: _Chance) -> dict[str, Any]:
    """A bore of 63 mm, 1 ml/min allowed: 0.3208 mm a minute, read on a dial in hundredths each minute for half an hour."""
    speed = share * 1000 / (math.pi / 4 * 63**2) / 60
    rows = []
    for n in range(31):
        at = 100 - speed * 60 * n + chance.normal(0, 0.01)
        rows.append({"t_s": 60.0 * n, "position_mm": round(float(at), 2)})
    return {"samples": rows}


def _reading(share: float, chance: _Chance) -> dict[str, Any]:
    return {"readings": _written(_shown(60 * share, 0.1, 0.5, 0.1, 3, chance), "°C", 1)}


WORLDS = (
    World("opening_pressure", {"value": "280 bar ±5", "repeats": 5}, Instrument(0.01, 0.25, 60.0), _opening),
    World("set_point", {"value": "4 bar ±0.1", "repeats": 5}, Instrument(0.001, 0.25, 0.6), _set_point),
    World("effort", {"value": "40 N", "tolerance": "5 N", "repeats": 5}, Instrument(0.1, 0.5, 100.0), _effort),
    World("friction", {"breakaway": "8 bar"}, Instrument(0.01, 0.5, 2.5), _friction),
    World("count", {"what": "drops", "limit": "at most 10 /min"}, Instrument(), _count),
    World("drift", {"bore": "63 mm", "rod": "36 mm", "side": "cap", "limit": "1 ml/min", "volume": "800 ml"}, Instrument(0.01), _drift),
    World(
        "reading", {"quantity": "Housing", "limit": "at most 60 °C", "repeats": 3}, Instrument(0.1, 0.5, 100.0), _reading
    ),
)  # fmt: skip


def verdicts(world: World, share: float, runs: int, seed: int) -> dict[str, float]:
    """Of so many runs, the share that came to each verdict. [-]"""
    chance = np.random.default_rng((seed, round(share * 1000)))
    trial = TRIALS[world.kind]
    criteria = trial.criteria_of(dict(world.figures))
    found = dict.fromkeys(("pass", "fail", "undecided", "invalid"), 0)
    for _ in range(runs):
        record = trial.record.model_validate(world.draw(share, chance))
        found[trial.analyse(criteria, record, world.instrument).verdict] += 1
    return {verdict: count / runs for verdict, count in found.items()}
