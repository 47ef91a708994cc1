"""Work of a step that comes before its seals are fitted: a lever lowered, a body turned over. A step of its own for whoever does it."""

from __future__ import annotations

from ironkettle.core.sheets.document.sheet import Sheet
from ironkettle.core.sheets.document.work import StepSpec

_FIRST = "first-"


def step_of(key: str) -> str:
    """The step of the sheet that a step belongs to: its own key, but for what comes first.

    >>> step_of("first-diaphragm-in")
    'diaphragm-in'
    """
    return key.removeprefix(_FIRST)


def with_first_work(sheet: Sheet) -> Sheet:
    """The sheet with what a step does first listed as a step before it, which it comes after.

    What that takes in hand and the step would put on, or no step does, goes on there.
    """
    if not any(step.first for step in sheet.steps):
        return sheet
    on = {part for step in sheet.steps if step.stage == "rebuild" for part in step.puts_on}
    known = {part.key for part in sheet.parts}
    off = {part for step in sheet.steps for part in step.takes_off}
    steps: list[StepSpec] = []
    for step in sheet.steps:
        if step.first is None:
            steps.append(step)
            continue
        parts = [take for take in step.first.takes if take in step.puts_on or (take in off and take not in on)]
        handled = [take for take in step.first.takes if take in known]
        steps.append(
            # The key of a position is written by no sheet: it is not checked as one.
            StepSpec.model_construct(
                key=f"{_FIRST}{step.key}",
                only=step.only,
                stage=step.stage,
                text=step.first.does,
                after=step.after,
                hold=step.hold,
                tools=[take for take in step.first.takes if take not in known],
                puts_on=parts,
                ahead_of=step.ahead_of,
                handles=handled,
            )
        )
        left = [part for part in step.puts_on if part not in parts]
        after = None if step.after is None else [f"{_FIRST}{step.key}"]
        steps.append(step.model_copy(update={"first": None, "puts_on": left, "after": after}))
    return sheet.model_copy(update={"steps": steps})
