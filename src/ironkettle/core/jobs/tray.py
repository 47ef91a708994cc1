"""The part tray: what lies in which place, what has gone back, what goes to scrap."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.inspecting import Verdict
from ironkettle.core.jobs.kinds.inspection import standing
from ironkettle.core.jobs.kinds.step import STEPS, parts_off, renewed


@dataclass(frozen=True, slots=True)
class Lying:
    """A part that came off and its numbered place in the tray. ``scrap``: it does not go back on; ``gone``: it has gone back, its place is empty."""

    part: str
    name: str
    place: int
    scrap: bool
    gone: bool


def in_tray(case: Case) -> tuple[Lying, ...]:
    """What was laid into the tray, in the order of its places."""
    parts, off = case.resolved.parts, parts_off(case)
    found: dict[str, Lying] = {}
    for step in case.resolved.sheet.steps:
        marked = case.state.book(STEPS).get(step.key)
        for laid in marked.value.parts_off if marked else ():
            if laid.part in parts:
                scrap = is_scrap(case, laid.part)
                gone = laid.part not in off and not scrap
                found[laid.part] = Lying(laid.part, parts[laid.part].name, laid.place, scrap, gone)
    return tuple(sorted(found.values(), key=lambda lying: lying.place))


def scrapped(case: Case) -> Iterator[str]:
    """The parts that come off and do not go back on, by key, in the order of the strip-down."""
    off = [part for step in case.resolved.sheet.steps for part in step.takes_off if part in case.resolved.parts]
    yield from (key for key in dict.fromkeys(off) if is_scrap(case, key))


def is_scrap(case: Case, part: str) -> bool:
    """Whether a part that came off does not go back on: renewed, judged *replace*, or put back by no step. What is sent out comes back."""
    on = any(part in step.puts_on for step in case.resolved.sheet.steps if step.stage == "rebuild")
    return not on or renewed(case.resolved, part) or standing(case, part) is Verdict.REPLACE
