"""What a step writes down: a word, one reading, or several that are held by how far they differ."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from ironkettle.core.base.errors import fault
from ironkettle.core.base.quantities import show
from ironkettle.core.jobs.ask import Ask
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kinds.base import measured, refuse_below_zero, value_of
from ironkettle.core.jobs.overstressed import check_proof
from ironkettle.core.machine.parts import figure_of
from ironkettle.core.sheets.document.facts import dimension_of
from ironkettle.core.sheets.document.fastening import TorquePhase
from ironkettle.core.sheets.document.parts import Read
from ironkettle.core.sheets.document.work import StepNote, StepSpec


def check_noted(case: Case, step: StepSpec, note: str, readings: Sequence[str], against: str | None) -> None:
    """Raises RuleError for what is left out or no reading, and for one outside its limit where it may not be, or without a reason."""
    spec = step.note
    _check_there(spec, note, readings)
    if spec is None or spec.read is Read.TEXT:
        return
    _, _, limit = measured(spec.read, spec.limit, "note")
    for place, text in enumerate(readings):
        field = f"readings.{place}"
        refuse_below_zero(text, value_of(text, spec.read, field), spec.read, None, field)
    value = _value(spec, note, readings)
    if not readings:
        refuse_below_zero(note, value, spec.read, limit, "note")
    for group in case.resolved.sheet.fasteners:
        if any(isinstance(phase, TorquePhase) and phase.noted_at == step.key for phase in group.phases):
            check_proof(case, group, value, "note")
    if limit is None or limit.holds(value):
        return
    field = "readings" if spec.readings else "note"
    says = f"{noted_words(spec, note, readings)} is not {spec.limit}: {spec.ask}"
    if not may_be_otherwise(step):
        raise fault(field, says, spec.limit or "", code="out-of-limits")
    if against is None:
        text = f"{says}; read again, or give the reason why it is so all the same"
        raise fault(field, text, spec.limit or "", code="out-of-limits")


def _check_there(spec: StepNote | None, note: str, readings: Sequence[str]) -> None:
    """Raises RuleError for what a step asks for and is left out, and for readings that it does not ask for."""
    if (spec is None or not spec.readings) and readings:
        raise fault("readings", "this step asks for no separate readings: leave them out")
    if spec is None:
        return
    if spec.readings and len(readings) != len(spec.readings):
        raise fault("readings", f"{spec.ask}: enter a reading for each: {', '.join(spec.readings)}")
    if not spec.readings and not note:
        raise fault("note", f"write down: {spec.ask}")


def _value(spec: StepNote, note: str, readings: Sequence[str]) -> float:
    """What is held against the limit: the reading, or how far several differ. [base unit]"""
    if not spec.readings:
        return value_of(note, spec.read, "note")
    read = [value_of(text, spec.read, f"readings.{place}") for place, text in enumerate(readings)]
    return figure_of("difference", read, None)


def noted_words(spec: StepNote | None, note: str, readings: Sequence[str]) -> str:
    """What was written down, as the record has it; empty where nothing was."""
    if spec is None or not spec.readings or len(readings) != len(spec.readings):
        return note
    unit, _, _ = measured(spec.read, spec.limit, "note")
    apart = figure_of("difference", [value_of(text, spec.read, "readings") for text in readings], None)
    differ = show(apart, unit) if unit is not None and dimension_of(spec.read) is not None else f"{apart:g}"
    each = ", ".join(f"{name} {text}" for name, text in zip(spec.readings, readings, strict=True))
    return f"{each}: {differ} apart{f'; {note}' if note else ''}"


def noting_asks(step: StepSpec) -> Iterator[Ask]:
    """The fields of what a step writes down."""
    spec = step.note
    if spec is None:
        return
    unit, limit, _ = measured(spec.read, spec.limit, "note")
    if spec.readings:
        _, wide, _ = measured(spec.read, None, "note")
        for place, name in enumerate(spec.readings):
            # What each reads is free; how far they differ is held.
            hint = f"{spec.limit} between them" if spec.limit else None
            yield Ask(f"readings.{place}", spec.read, f"{spec.ask}: {name}", unit=unit, limit=wide, hint=hint)
    else:
        yield Ask("note", spec.read, spec.ask, unit=unit, limit=limit)
    if spec.limit and may_be_otherwise(step):
        yield Ask("against", Read.TEXT, "Outside the limit all the same: why?", optional=True)
    if spec.page:
        yield Ask("page", Read.TEXT, "Manual and page")


def may_be_otherwise(step: StepSpec) -> bool:
    """Whether what a step reads may lie outside its limit for a reason: as found, and where no load or pressure is let go by it."""
    return step.stage in {"strip", "clean"} and not step.relieves
