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

from ironkettle.core.machine.tests import TRIALS, Instrument

SHARES = (0.5, 0.9, 0.98, 1.02, 1.05, 1.2, 1.5)
_Chance = np.random.Generator
_Draw = Callable[[float, _Chance], list[dict[str, Any]]]


@dataclass(frozen=True)
class World:
    """A kind as a sheet would have it: its figures, what it is read on, and how a run of a share of what is allowed comes out,
    look by look."""

    name: str
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


def _opening(share: float, chance: _Chance) -> list[dict[str, Any]]:
    read = _shown(280 + 5 * share, 0.5, 0.25, 0.1, 5, chance)
    return [{"openings": _written(read, "bar", 1)}]


def _whole_bar(share: float, chance: _Chance) -> list[dict[str, Any]]:
    """Written to the whole bar, and nobody says on what it was read."""
    read = _shown(280 + 5 * share, 0.2, 0.0, 1.0, 5, chance)
    return [{"openings": _written(read, "bar", 0)}]


def _set_point(share: float, chance: _Chance) -> list[dict[str, Any]]:
    return [{"readings": _written(_shown(4 - 0.1 * share, 0.01, 0.25, 0.01, 5, chance), "bar", 2)}]


def _creep(share: float, chance: _Chance) -> list[dict[str, Any]]:
    """Still for minutes, then it rises within one minute, of the ten it is watched, by a share of 0.2 bar."""
    times = np.arange(0.0, 601.0, 15.0)
    begun = float(chance.integers(4, 32)) * 15
    truth = 4.0 + 0.2 * share * np.clip((times - begun) / 60, 0.0, 1.0)
    shown = np.round((truth + chance.normal(0, 0.002, len(times))) / 0.01) * 0.01
    rows = [{"t_s": float(t), "pressure": f"{p:.2f} bar"} for t, p in zip(times, shown, strict=True)]
    return [{"readings": _written(_shown(4.0, 0.01, 0.25, 0.01, 5, chance), "bar", 2), "creep_readings": rows}]


def _effort(share: float, chance: _Chance) -> list[dict[str, Any]]:
    return [{"readings": _written(_shown(40 + 5 * share, 0.4, 0.5, 0.1, 5, chance), "N", 1)}]


def _friction(share: float, chance: _Chance) -> list[dict[str, Any]]:
    read = _shown(8 * share, 0.05, 0.5, 0.1, 3, chance)
    return [{"breakaways": _written(read, "bar", 1), "smooth": True}]


def _count(share: float, chance: _Chance) -> list[dict[str, Any]]:
    """Drops come by chance, ten a minute allowed, counted for twenty minutes."""
    return [{"counts": [{"t_s": 1200.0, "count": int(chance.poisson(200 * share))}]}]


def _watched(share: float, chance: _Chance) -> list[dict[str, Any]]:
    """The same drops, looked at every minute until somebody likes what he sees."""
    drops = np.cumsum(chance.poisson(10 * share, 60))
    return [{"counts": [{"t_s": 60.0 * (n + 1), "count": int(drops[n])}]} for n in range(60)]


def _drift(share: float, chance: _Chance) -> list[dict[str, Any]]:
    """A bore of 63 mm, 1 ml/min allowed: 0.3208 mm a minute, read on a dial in hundredths each minute for half an hour."""
    speed = share * 1000 / (math.pi / 4 * 63**2) / 60
    rows = []
    for n in range(31):
        at = 100 - speed * 60 * n + chance.normal(0, 0.01)
        rows.append({"t_s": 60.0 * n, "position_mm": round(float(at), 2)})
    return [{"samples": rows}]


def _reading(share: float, chance: _Chance) -> list[dict[str, Any]]:
    return [{"readings": _written(_shown(60 * share, 0.1, 0.5, 0.1, 3, chance), "°C", 1)}]


WORLDS = (
    World("opening pressure", "opening_pressure", {"value": "280 bar ±5", "repeats": 5}, Instrument(0.01, 0.25, 60.0), _opening),
    World(
        "opening pressure, in whole bar, no gauge told", "opening_pressure", {"value": "280 bar ±5", "repeats": 5}, Instrument(), _whole_bar
    ),
    World("set point", "set_point", {"value": "4 bar ±0.1", "repeats": 5}, Instrument(0.001, 0.25, 0.6), _set_point),
    World(
        "creep within one minute of ten", "set_point",
        {"value": "4 bar ±0.1", "repeats": 5, "creep": {"in": "60 s", "limit": "0.2 bar"}}, Instrument(0.001, 0.25, 0.6), _creep,
    ),
    World("effort", "effort", {"value": "40 N", "tolerance": "5 N", "repeats": 5}, Instrument(0.1, 0.5, 100.0), _effort),
    World("friction", "friction", {"breakaway": "8 bar"}, Instrument(0.01, 0.5, 2.5), _friction),
    World("count", "count", {"what": "drops", "limit": "at most 10 /min"}, Instrument(), _count),
    World("count, watched until it passes", "count", {"what": "drops", "limit": "at most 10 /min"}, Instrument(), _watched),
    World("drift", "drift", {"bore": "63 mm", "rod": "36 mm", "side": "cap", "limit": "1 ml/min", "volume": "800 ml"}, Instrument(0.01), _drift),
    World(
        "reading", "reading", {"quantity": "Housing", "limit": "at most 60 °C", "repeats": 3}, Instrument(0.1, 0.5, 100.0), _reading
    ),
)  # fmt: skip


def verdicts(world: World, share: float, runs: int, seed: int) -> dict[str, float]:
    """Of so many runs, each closed at its first verdict, the share that came to each. [-]"""
    chance = np.random.default_rng((seed, round(share * 1000)))
    trial = TRIALS[world.kind]
    criteria = trial.criteria_of(dict(world.figures))
    found = dict.fromkeys(("pass", "fail", "undecided", "invalid"), 0)
    for _ in range(runs):
        verdict = "undecided"
        for look in world.draw(share, chance):
            verdict = trial.analyse(criteria, trial.record.model_validate(look), world.instrument).verdict
            if verdict in {"pass", "fail"}:
                break
        found[verdict] += 1
    return {verdict: count / runs for verdict, count in found.items()}
