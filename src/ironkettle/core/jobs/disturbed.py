"""The places that were opened in a job, and the test of the finished unit that proved each."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kinds.step import STEPS
from ironkettle.core.jobs.proven import verdict_on
from ironkettle.core.jobs.summary import VERDICT_SHOWN
from ironkettle.core.sheets.soundness import proof_of


@dataclass(frozen=True, slots=True)
class Disturbed:
    """A station that was opened: its seals, and what proves it, in words."""

    station: str
    seals: tuple[str, ...]
    proof: str


def disturbed(case: Case) -> Iterator[Disturbed]:
    """Every station that a step of this job opened, in the order of the sheet."""
    sheet, done = case.resolved.sheet, case.state.book(STEPS)
    opened = {key for step in sheet.steps if step.key in done for key in step.opens}
    proof = proof_of(sheet)
    names = {test.key: test.name for test in sheet.tests}
    for station in sheet.stations:
        if station.key not in opened:
            continue
        seals = tuple(element.name for seat in station.seats for element in seat.elements)
        lines = [
            f"{names[test]}: {VERDICT_SHOWN.get(verdict, verdict)}"
            for test, verdict in _verdicts(case, proof[station.key])
        ]
        why = f"not pressed by a test: {station.unproven}" if station.unproven else "not pressed by a test"
        yield Disturbed(station.name, seals, "; ".join(lines) or why)


def _verdicts(case: Case, tests: tuple[str, ...]) -> Iterator[tuple[str, str]]:
    """The tests that load a place with what they came to: those that passed, or all where none did."""
    found = [(test, verdict_on(case, test)) for test in tests]
    passed = [proof for proof in found if proof[1] == "pass"]
    yield from passed or found
