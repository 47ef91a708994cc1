"""A unit rinsed until the test strip is neutral: no acid, and no alkali, before what stood in it is out."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from typing import Literal

from ironkettle.core.base.errors import RefusedError
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.cleaning import proposed_cleaner, residues
from ironkettle.core.jobs.kind import EntryKind, Line, Section, keep
from ironkettle.core.jobs.kinds.base import ItemKey, Note, after_steps, ask_yes, known
from ironkettle.core.jobs.kinds.intake import intake_of
from ironkettle.core.jobs.kinds.take_apart import apart_since
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.jobs.state import Book, Payload
from ironkettle.core.jobs.task import Draft, Stage, Task, TaskKind
from ironkettle.core.sealing.compounds import CLEANERS, Cleaner, clash_of

_TASK = TaskKind("rinse", "Rinsed", rank=0, skippable=False)


class PartsRinsed(Payload):
    """``step``: the step of cleaning that it comes before; ``neutral``: what the test strip shows."""

    kind: Literal["parts_rinsed"] = "parts_rinsed"
    step: ItemKey
    neutral: bool
    note: Note = ""


RINSED: Book[str, PartsRinsed] = Book("rinsed")


def _acts(case: Case) -> dict[str, str]:
    """The steps whose proposed cleaner may not meet what stands in the unit, and why."""
    found: dict[str, str] = {}
    standing = residues(case)
    for step in case.resolved.sheet.steps if standing else ():
        cleaner = proposed_cleaner(case, step)
        why = None if cleaner is None else clash_of(cleaner, standing)
        if why is not None:
            found[step.key] = why
    return found


def _check(case: Case, payload: PartsRinsed) -> None:
    known("step", payload.step, _acts(case), "step that an acid or alkali is used at after a rinse")


def is_rinsed(case: Case, step: str | None = None) -> bool:
    """Whether the strip was neutral before a step of cleaning, or at all where none is named.

    It counts no more once a test wetted the unit again, or another fluid was told.
    """
    intake = intake_of(case.state)
    wetted = max([run.mark.seq for run in case.state.runs.values()] + ([intake.mark.seq] if intake else []), default=0)
    book = case.state.book(RINSED)
    return any(marked.value.neutral and marked.mark.seq > wetted for key, marked in book.items() if step in {None, key})


def _used(case: Case, step: str) -> bool:
    """Whether the step it came before was done on it, and stands: what wets the unit afterwards changes nothing of that."""
    marked, done = case.state.book(RINSED).get(step), case.state.completed.get(f"step:{step}", 0)
    return marked is not None and marked.value.neutral and done > marked.mark.seq and not apart_since(case, done)


def check_residue(case: Case, cleaners: Iterable[Cleaner], step: str | None = None) -> None:
    """Raises RefusedError where one of these cleaners would meet what still stands in the unit: no reason overrules that."""
    for cleaner in cleaners:
        why = clash_of(cleaner, residues(case))
        if why is not None and not is_rinsed(case, step):
            text = f"{CLEANERS[cleaner].name}: {why}; rinse until the test strip is neutral and record it, or choose another cleaner"
            raise RefusedError("not-safe", text)


def _drafts(case: Case) -> Iterator[Draft]:
    for key, why in _acts(case).items():
        task = Task(
            f"rinse:{key}",
            Stage.INSPECT,
            _TASK,
            key,
            "Rinse with plenty of water until a test strip shows neutral",
            {"kind": "parts_rinsed", "step": key},
            caution=f"{why[0].upper()}{why[1:]}: goggles and gloves, window open",
            tools=("running water", "test strip"),
            asks=(ask_yes("neutral", "Does the test strip show neutral?"),),
        )
        before = {f"step:{key}": f"rinse until neutral first: {why}"}
        yield Draft(
            task,
            is_rinsed(case, key) or _used(case, key),
            step=key,
            after=after_steps(case, key),
            before=before,
            refusal="not-safe",
        )


def _words(resolved: Resolved, payload: PartsRinsed) -> str:
    return f"rinsed, test strip {'neutral' if payload.neutral else 'not neutral yet'}{f': {payload.note}' if payload.note else ''}"


def _hand_over(case: Case) -> Iterator[Line]:
    for key, why in _acts(case).items():
        if not is_rinsed(case, key):
            yield Line(Section.DECIDED, f"Not rinsed neutral yet: {why}", caution=True)


KIND = EntryKind(
    payload=PartsRinsed,
    check=_check,
    apply=keep(RINSED, lambda payload: payload.step),
    words=_words,
    tasks=_drafts,
    completes="rinse:{step}",
    hand_over=_hand_over,
)
