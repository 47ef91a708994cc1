"""The unit taken apart again from a step of its strip-down on: what that touches is to be done again."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from ironkettle.core.base.errors import RefusedError
from ironkettle.core.jobs.ask import Ask
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kind import EntryKind, keep
from ironkettle.core.jobs.kinds.base import ItemKey, Reason, known
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.jobs.state import Book, Mark, Payload
from ironkettle.core.sheets.document.parts import Read


class TakenApart(Payload):
    """After a failed test or a reopening: from this step of the strip-down on, and back through all that rests on it."""

    kind: Literal["taken_apart"] = "taken_apart"
    step: ItemKey
    reason: Reason


APART: Book[str, TakenApart] = Book("apart")


def _check(case: Case, payload: TakenApart) -> None:
    strip = [step.key for step in case.resolved.sheet.steps if step.stage == "strip"]
    known("step", payload.step, strip, "step of the strip-down")
    if f"step:{payload.step}" not in case.state.completed:
        raise RefusedError("not-apart", "this step is not done yet; there is nothing to take apart again")


def _words(resolved: Resolved, payload: TakenApart) -> str:
    step = resolved.steps.get(payload.step)
    return f"taken apart again from: {step.text if step else payload.step}: {payload.reason}"


@dataclass(frozen=True)
class Touched:
    """What taking a unit apart from a step on undoes, by key."""

    steps: frozenset[str]
    elements: frozenset[str]
    groups: frozenset[str]
    settings: frozenset[str]
    kits: frozenset[str]


def touched_by(resolved: Resolved, step: str) -> Touched:
    """The steps of the strip-down from one on, what of the rebuild puts back what they take off, and what rides on that.

    Elements of one use that come out are renewed, so the kits that hold them are counted again.
    """
    following = _following(resolved, {step})
    strip = {key for key in following if resolved.steps[key].stage == "strip"}
    off = {part for key in strip for part in resolved.steps[key].takes_off}
    opened = {station for key in strip for station in resolved.steps[key].opens}
    back = {
        other.key
        for other in resolved.sheet.steps
        if other.stage == "rebuild" and (off & set(other.puts_on) or opened & set(other.closes))
    }
    back |= {key for key in _following(resolved, back) if resolved.steps[key].stage == "rebuild"}
    elements = {key for station in opened for key in resolved.fitting_order.get(station, ())}
    renewed = {key for key in elements if resolved.elements[key].one_use}
    return Touched(
        frozenset(strip | back),
        frozenset(elements),
        frozenset(key for step_key in back for key in resolved.steps[step_key].tightens),
        frozenset(key for step_key in back for key in resolved.steps[step_key].sets),
        frozenset(
            kit.number for kit in resolved.sheet.kits if any(renewed & set(line.all_elements) for line in kit.lines)
        ),
    )


def _following(resolved: Resolved, steps: set[str]) -> set[str]:
    """These steps and every step that comes after one of them, however far."""
    found = set(steps)
    while True:
        more = {key for key, before in resolved.before.items() if key not in found and found & set(before)}
        if not more:
            return found
        found |= more


def undone(case: Case, what: Literal["steps", "elements", "groups", "settings", "kits"], key: str, mark: Mark) -> bool:
    """Whether the unit was taken apart again after something was recorded, so that it is to be done anew."""
    return any(
        marked.mark.seq > mark.seq and key in getattr(touched_by(case.resolved, step), what)
        for step, marked in case.state.book(APART).items()
        if step in case.resolved.steps
    )


def apart_since(case: Case, seq: int) -> bool:
    """Whether the unit was taken apart again, anywhere, after an entry. ``seq``: its place in the log [counted from 1]."""
    return any(marked.mark.seq > seq for marked in case.state.book(APART).values())


KIND = EntryKind(
    payload=TakenApart,
    check=_check,
    apply=keep(APART, lambda payload: payload.step),
    words=_words,
    loose_asks=(Ask("reason", Read.TEXT, "Reason"),),
)
