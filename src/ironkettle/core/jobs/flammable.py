"""What burns on a unit: no heat until what was put on it has been wiped off and has dried, nothing flammable on what is hot."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime, timedelta

from ironkettle.core.base.errors import RefusedError
from ironkettle.core.base.quantities import seconds_words
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.state import Mark
from ironkettle.core.sealing.compounds import flammable_in

# How long a flammable liquid dries once it is wiped off, and how long what was heated cools. No published source; the label wins.
DRYING_MIN = 15.0
DRY_WORDS = f"penetrating oil and solvent wiped off and dried for {DRYING_MIN:g} min before any heat"


@dataclass(frozen=True, slots=True)
class Act:
    """Something done to the unit: what, when, whether it made it hot, and the liquids put on, by words of the lists."""

    what: str
    mark: Mark
    hot: bool
    liquids: tuple[str, ...]

    @property
    def flammable(self) -> bool:
        return any(flammable_in(liquid) for liquid in self.liquids)


def check_heat(case: Case, acts: Iterable[Act], *, hot: bool, liquids: Iterable[str]) -> None:
    """Raises RefusedError for heat on what a flammable liquid was put on less than ``DRYING_MIN`` ago, and for such a liquid on what is hot.

    Parameters: acts : what was done to the unit before; hot : heat comes with this one; liquids : what it puts on.
    """
    wet = next((name for name in map(flammable_in, liquids) if name is not None), None)
    for act in acts:
        left = (_over(act.mark) - case.now).total_seconds()
        if left <= 0:
            continue
        when = f"{seconds_words(left)}, until {_over(act.mark):%H:%M}"
        if hot and act.flammable:
            text = f"{act.what}: what was put on is flammable; wipe it off and let it dry for {when}, then heat"
            raise RefusedError("too-early", text)
        if wet is not None and act.hot:
            raise RefusedError(
                "too-early",
                f"{act.what}: it is hot, and {wet.lower()} is flammable; let it cool for {when}, then put it on",
            )


def _over(mark: Mark) -> datetime:
    return (mark.noted or mark.when) + timedelta(minutes=DRYING_MIN)
