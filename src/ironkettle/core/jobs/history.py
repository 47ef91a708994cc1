"""What a unit's jobs tell over the years: figures as found and as left, what was fitted."""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kinds.fitting import FITTED
from ironkettle.core.jobs.kinds.observation import OBSERVED
from ironkettle.core.jobs.kinds.size import SIZES
from ironkettle.core.sheets.document.trials import TestSpec

_NUMBER = re.compile(r"-?\d+(?:[.,]\d+)?")
_TOLD = re.compile(rf"\s*({_NUMBER.pattern})(.*)")


@dataclass(frozen=True, slots=True)
class FigureTold:
    """A figure of a test or observation: ``key`` names it over all jobs; ``shown`` has its unit."""

    key: str
    name: str
    when: str
    value: float
    shown: str

    @property
    def drawn(self) -> tuple[float, str]:
        """The number as it is shown, and its unit. [its own unit] Source: no published source; what the record says."""
        figure = _TOLD.match(self.shown)
        return (self.value, "") if figure is None else (float(figure[1].replace(",", ".")), figure[2].strip())


def figures_of(case: Case) -> Iterator[FigureTold]:
    """The figures of a job: of the last closed run of each test, as found and as left, and of what was observed.

    An observation in words has none.
    """
    state = case.state
    tests = case.resolved.sheet.tests
    for spec in tests:
        left = _as_left_of(spec, tests)
        for when in ("as_found", "as_left"):
            runs = [run for run in state.runs_of(spec.key, when) if run.counts and run.judgement is not None]
            judgement = runs[-1].judgement if runs else None
            if judgement is None:
                continue
            for result in judgement.results:
                name = left.name if result.name == left.name else f"{left.name}, {result.name.lower()}"
                yield FigureTold(f"{left.key}:{result.key}", name, when, result.value, result.shown)
            if not judgement.results and judgement.hold_s > 0:
                shown = f"{judgement.rate_ml_min:.3g} ml/min"
                yield FigureTold(f"{left.key}:rate", f"{left.name}, leak", when, judgement.rate_ml_min, shown)
    for observation in case.resolved.sheet.observations:
        for when in ("as_found", "as_left"):
            seen = state.get(OBSERVED, (observation.key, when))
            number = None if seen is None else _NUMBER.search(seen.value)
            if seen is not None and number is not None:
                unit = f" {observation.unit}" if observation.unit else ""
                value = float(number[0].replace(",", "."))
                yield FigureTold(observation.key, observation.name, when, value, f"{seen.value}{unit}")


def _as_left_of(spec: TestSpec, tests: Sequence[TestSpec]) -> TestSpec:
    """The test as left that a test as found is held beside: itself, or the only other one of its kind."""
    if spec.when != "as_found":
        return spec
    left = [test for test in tests if test.kind is spec.kind and test.when == "as_left"]
    found = [test for test in tests if test.kind is spec.kind and test.when == "as_found"]
    return left[0] if len(left) == len(found) == 1 else spec


def fitted_words(case: Case) -> tuple[str, ...]:
    """What was fitted, by name and size."""
    found = []
    for key in case.state.book(FITTED):
        at = case.resolved.elements.get(key)
        if at is not None:
            chosen = case.state.get(SIZES, key)
            size = chosen.size if chosen is not None else at.spec.size
            found.append(f"{at.spec.name}{f', {size}' if size else ''}")
    return tuple(found)
