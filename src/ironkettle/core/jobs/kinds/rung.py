"""A rung of a ladder tried on a part that would not come: whether it moved it, and whether it did harm."""

from __future__ import annotations

from collections.abc import Iterator

from ironkettle.core.base.errors import fault
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.flammable import check_heat
from ironkettle.core.jobs.kind import EntryKind, Line, Section
from ironkettle.core.jobs.kinds.base import known
from ironkettle.core.jobs.kinds.rinse import check_residue
from ironkettle.core.jobs.kinds.step import acts_of
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.jobs.rungs import RUNGS, RungTried
from ironkettle.core.jobs.state import Mark, State
from ironkettle.core.sealing.compounds import cleaners_named
from ironkettle.core.sheets.document.hazards import is_hot, put_on

_SHORTEST_NOTE = 4


def _check(case: Case, payload: RungTried) -> None:
    ladder = next((other for other in case.resolved.sheet.ladders if other.part == payload.part), None)
    known("part", payload.part, [other.part for other in case.resolved.sheet.ladders], "part with a ladder")
    assert ladder is not None
    known("rung", payload.rung, [other.key for other in ladder.rungs], "rung of this ladder")
    rung = next(other for other in ladder.rungs if other.key == payload.rung)
    if payload.harm and rung.may is None and len(payload.note) < _SHORTEST_NOTE:
        raise fault("note", "say what damage it caused")
    liquids = put_on(rung.do, rung.uses)
    check_residue(case, [cleaner for word in liquids for cleaner in cleaners_named(word)])
    check_heat(case, acts_of(case), hot=is_hot(rung.do, rung.hot), liquids=liquids)


def _apply(state: State, payload: RungTried, mark: Mark) -> None:
    # Harm once done stays done, whatever a second try did.
    before = state.get(RUNGS, (payload.part, payload.rung))
    kept = payload.model_copy(update={"harm": payload.harm or bool(before and before.harm)})
    state.note(RUNGS, (payload.part, payload.rung), kept, mark)
    if kept.harm:
        state.changed[f"part:{payload.part}"] = mark.seq


def _words(resolved: Resolved, payload: RungTried) -> str:
    part = resolved.parts.get(payload.part)
    rungs = {
        rung.key: rung.do for ladder in resolved.sheet.ladders if ladder.part == payload.part for rung in ladder.rungs
    }
    name, moved = part.name if part else payload.part, "it moved" if payload.moved else "it did not move"
    harm = ", and damage was caused" if payload.harm else ""
    return (
        f"{name}, {rungs.get(payload.rung, payload.rung)}: {moved}{harm}{f': {payload.note}' if payload.note else ''}"
    )


def _hand_over(case: Case) -> Iterator[Line]:
    for (part_key, rung_key), marked in case.state.book(RUNGS).items():
        part = case.resolved.parts.get(part_key)
        came = "moved it" if marked.value.moved else "did not move it"
        harm = ", damage was caused" if marked.value.harm else ""
        if part is not None:
            words = f"{part.name}, {_do(case, part_key, rung_key)}: {came}{harm}"
            yield Line.by(Section.DECIDED, words, marked.mark, caution=marked.value.harm)


def _do(case: Case, part: str, rung: str) -> str:
    ladders = [ladder for ladder in case.resolved.sheet.ladders if ladder.part == part]
    return next((other.do for ladder in ladders for other in ladder.rungs if other.key == rung), rung)


KIND = EntryKind(payload=RungTried, check=_check, apply=_apply, words=_words, hand_over=_hand_over)
