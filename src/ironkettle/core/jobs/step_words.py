"""What a step says beside its text: its grip, its marks, a sum of the cylinder."""

from __future__ import annotations

from collections.abc import Iterator

from ironkettle.core.base.quantities import seconds_words
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.machine.cylinders import oil_to_drain, size_cylinder
from ironkettle.core.sheets.document.facts import cylinder_of
from ironkettle.core.sheets.document.parts import Fate
from ironkettle.core.sheets.document.work import StepSpec
from ironkettle.core.sheets.soundness.order import side_by_side


def shown_at(resolved: Resolved, step: StepSpec) -> str | None:
    """A sum of the cylinder; or that a timer can run while the work goes on."""
    if step.timer is not None and step.timer.early:
        wait = f"{seconds_words(60 * step.timer.minutes)} for {step.timer.what_for or step.text}"
        return f"Begin it now: {wait}, while the other work goes on"
    return shown_sum(resolved, step.shows) if step.shows and resolved.sheet.cylinder else None


def grip_words(resolved: Resolved, step: StepSpec) -> str | None:
    """How it is gripped; a grip other than the one before is called out."""
    if step.hold is None:
        return None
    listed = [other for other in resolved.sheet.steps if other.hold]
    place = listed.index(step)
    changed = place > 0 and listed[place - 1].hold != step.hold
    return f"{'Change of grip' if changed else 'Grip'}: {step.hold}"


def left_on(resolved: Resolved, step: StepSpec) -> Iterator[str]:
    """Parts that are never taken off in this job, where a hand is at work beside them: not those of another position."""
    for part in resolved.parts.values():
        if step.stage == "strip" and part.fate is Fate.LEAVE and not side_by_side(part.key, step.key):
            yield f"{part.name}: leave on{f', {part.why}' if part.why else ''}"


def shown_sum(resolved: Resolved, name: str) -> str:
    """A named sum of the cylinder in words; the name itself where it is none of them."""
    cylinder = cylinder_of(resolved.whole)
    if name == "oil_to_drain":
        return f"up to {oil_to_drain(cylinder):.0f} ml comes out: the bore over the whole stroke"
    if name == "blocked_rod_pressure":
        pressure = resolved.sheet.service.pressure.value
        blocked = size_cylinder(cylinder, pressure).blocked_rod_pressure
        if blocked is None:
            return "a plunger has no rod side that can be blocked"
        return f"a blocked rod side reaches {blocked * 10:.0f} bar: rating × cap area / annulus area"
    return name


def mark_words(resolved: Resolved, step: StepSpec) -> str:
    """The marks that a step makes: how many, and across which parts."""
    assert step.mark is not None
    across = " and ".join(resolved.parts[key].name.lower() for key in step.mark.across if key in resolved.parts)
    count = "One mark" if step.mark.count == 1 else f"{step.mark.count} marks"
    stays = "; it stays on" if step.mark.stays else ""
    return f"{step.mark.word or count}{f' across {across}' if across else ''}{stays}"


def met_words(resolved: Resolved, step: StepSpec) -> list[str]:
    """The marks that must meet at a step, each in words."""
    made = {other.mark.key: other for other in resolved.sheet.steps if other.mark}
    return [mark_words(resolved, made[key]) for key in step.meets if key in made]
