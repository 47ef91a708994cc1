"""A figure judged, and what of it is looked at."""

from __future__ import annotations

from typing import Any

from ironkettle.core.machine.tests import TRIALS, Instrument, Outcome


def run(kind: str, figures: dict[str, Any], record: dict[str, Any], gauge: Instrument = Instrument()) -> Outcome:
    trial = TRIALS[kind]
    return trial.analyse(trial.criteria_of(figures), trial.record.model_validate(record), gauge)


def codes(outcome: Outcome) -> set[str]:
    return {finding.code for finding in outcome.findings}


def interval(outcome: Outcome, key: str) -> tuple[float, float]:
    found = next(result.interval for result in outcome.results if result.key == key)
    assert found is not None
    return found
