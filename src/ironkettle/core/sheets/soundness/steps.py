"""What a step may do in its stage: a field of another stage is judged nowhere, so it is a fault at its path."""

from __future__ import annotations

from collections.abc import Iterator

from ironkettle.core.base.errors import FieldFault
from ironkettle.core.sheets.document.sheet import Sheet
from ironkettle.core.sheets.document.work import StepSpec

_APART = frozenset({"loosens", "relieves", "takes_off", "opens"})
_TOGETHER = frozenset({"puts_on", "closes", "tightens", "sets", "ahead_of", "meets", "lubricant"})
_CLEANING = frozenset({"cleans", "soil"})
# What the steps of a stage may have beside what every step may have.
OWN = {
    "safe": _APART | {"again_after_pressure"},
    "strip": _APART,
    "clean": _CLEANING,
    "rebuild": _TOGETHER | _CLEANING | {"again_after_pressure"},
}
_BOUND = _APART | _TOGETHER | _CLEANING | {"again_after_pressure"}


def stage_faults(sheet: Sheet) -> Iterator[FieldFault]:
    """The fields of steps that have no meaning in their stage."""
    for index, step in enumerate(sheet.steps):
        for name in sorted(_given(step) & (_BOUND - OWN[step.stage])):
            stages = tuple(stage for stage, own in OWN.items() if name in own)
            yield FieldFault(f"steps.{index}.{name}", f"does not belong to a step of the stage {step.stage}", stages)
        if step.stage == "safe" and step.again_after_pressure is False and not step.why:
            text = "a step of making safe comes back once a test has pressed the unit; say why this one need not"
            yield FieldFault(f"steps.{index}.why", text, ("the supply stays locked out during the test",))


def _given(step: StepSpec) -> set[str]:
    return {name for name in step.model_fields_set if getattr(step, name)}
