"""The rungs of a ladder that were tried on a part, in words; and which of them were hot or left something flammable."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.flammable import DRY_WORDS, Act
from ironkettle.core.jobs.kinds.base import ItemKey, Note
from ironkettle.core.jobs.state import Book, Payload
from ironkettle.core.jobs.task import Rung
from ironkettle.core.sheets.document.hazards import is_hot, put_on
from ironkettle.core.sheets.document.parts import LadderSpec
from ironkettle.core.sheets.document.parts import Rung as RungSpec


class RungTried(Payload):
    """``harm``: it did what it may do; that becomes a point of inspection of the part."""

    kind: Literal["rung_tried"] = "rung_tried"
    part: ItemKey
    rung: ItemKey
    moved: bool
    harm: bool = False
    note: Note = ""


RUNGS: Book[tuple[str, str], RungTried] = Book("rungs")


def rungs_of(case: Case, ladder: LadderSpec) -> tuple[Rung, ...]:
    """The rungs of a ladder with what came of each."""
    found = []
    for rung in ladder.rungs:
        tried = case.state.get(RUNGS, (ladder.part, rung.key))
        harm = ", and caused damage" if tried and tried.harm else ""
        came = None if tried is None else f"{'moved it' if tried.moved else 'did not move it'}{harm}"
        found.append(Rung(ladder.part, rung.key, rung.do, rung.may, _caution(rung), rung.never, came))
    return tuple(found)


def rung_acts(case: Case) -> Iterator[Act]:
    """What the rungs that were tried put on the unit, and which made it hot."""
    rungs = {(ladder.part, rung.key): rung for ladder in case.resolved.sheet.ladders for rung in ladder.rungs}
    for key, tried in case.state.book(RUNGS).items():
        if key in rungs:
            spec = rungs[key]
            yield Act(spec.do, tried.mark, is_hot(spec.do, spec.hot), put_on(spec.do, spec.uses))


def _caution(rung: RungSpec) -> str | None:
    """What the sheet says; with heat, what was put on before must be dry."""
    return (
        "; ".join([*([rung.caution] if rung.caution else []), *([DRY_WORDS] if is_hot(rung.do, rung.hot) else [])])
        or None
    )
