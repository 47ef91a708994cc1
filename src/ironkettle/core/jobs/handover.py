"""A job in half a minute: what is off and how it lay, what is decided and by whom, what waits for what, what is next."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import datetime

from ironkettle.core.jobs.chart import next_move
from ironkettle.core.jobs.inspecting import VERDICT_WORD
from ironkettle.core.jobs.kinds.again import undone
from ironkettle.core.jobs.kinds.measure import standing
from ironkettle.core.jobs.kinds.supply import short_of
from ironkettle.core.jobs.kinds.timer import running_timers
from ironkettle.core.jobs.log import Case, Mark
from ironkettle.core.jobs.model import Move
from ironkettle.core.sealing.failures import Sign


@dataclass(frozen=True, slots=True)
class Line:
    """One thing to know, who told it and when; nobody where it follows from the job as it stands."""

    words: str
    who: str | None = None
    when: datetime | None = None
    caution: bool = False


@dataclass(frozen=True, slots=True)
class HandOver:
    """``off``: what lies in the tray; ``lay``: how elements were found; ``decided``, ``waits``, ``open_ends`` in words."""

    next: str | None
    why: str | None
    off: tuple[Line, ...]
    lay: tuple[Line, ...]
    decided: tuple[Line, ...]
    waits: tuple[Line, ...]
    open_ends: tuple[Line, ...]


def hand_over(case: Case, moves: Sequence[Move]) -> HandOver:
    """What the next pair of hands has to know, in the order they ask for it."""
    following = next_move(tuple(moves))
    return HandOver(
        following.text if following else None,
        following.why if following else None,
        tuple(_off(case)),
        tuple(_lay(case)),
        tuple(_decided(case)),
        tuple(_waits(case)),
        tuple(_open_ends(case)),
    )


def _told(words: str, mark: Mark, *, caution: bool = False) -> Line:
    return Line(words, mark.author(), mark.when, caution)


def _off(case: Case) -> Iterator[Line]:
    """Parts that are off and have not gone back, with their places in the tray; steps marked between."""
    back = {
        part
        for step in case.resolved.sheet.steps
        if (marked := case.state.book("steps").get(step.key)) and not undone(case, "steps", step.key, marked.mark)
        for part in step.puts_on
    }
    for step in case.resolved.sheet.steps:
        marked = case.state.book("steps").get(step.key)
        if marked is None:
            continue
        for one in marked.value.parts_off:
            if one.part in case.resolved.parts and one.part not in back:
                yield _told(f"{case.resolved.parts[one.part].name}: tray, place {one.place}", marked.mark)
        if step.mark and marked.value.marked:
            across = " and ".join(
                case.resolved.parts[key].name.lower() for key in step.mark.across if key in case.resolved.parts
            )
            yield _told(f"{step.mark.count} {'mark' if step.mark.count == 1 else 'marks'} across {across}", marked.mark)
        if step.note and marked.value.note:
            yield _told(f"{step.note.ask}: {marked.value.note}", marked.mark)


def _lay(case: Case) -> Iterator[Line]:
    """How each element was found, the ones that speak first."""
    lines = []
    for key, marked in case.state.book("found").items():
        at, oriented = case.resolved.elements.get(key), case.resolved.oriented.get(key)
        if at is None or oriented is None:
            continue
        found = marked.value
        if not found.present:
            lines.append(_told(f"{at.spec.name}: missing; {found.note}", marked.mark, caution=True))
            continue
        turned = oriented.faces is not None and found.faced is not None and found.faced != oriented.faces
        faced = f", {oriented.word} to {case.resolved.zone_names[found.faced]}" if found.faced else ""
        signs = ", ".join(sign.value.replace("_", " ") for sign in found.signs if sign is not Sign.NONE)
        words = f"{at.spec.name}{faced}{', the wrong way round' if turned else ''}{f': {signs}' if signs else ''}{f'; {found.note}' if found.note else ''}"
        lines.append(_told(words, marked.mark, caution=turned or bool(signs)))
    yield from sorted(lines, key=lambda line: not line.caution)


def _decided(case: Case) -> Iterator[Line]:
    resolved, state = case.resolved, case.state
    for key, marked in state.book("answers").items():
        question = next((one for one in resolved.whole.questions if one.key == key), None)
        if question is not None:
            says = next((one.says for one in question.choices if one.key == marked.value.choice), marked.value.choice)
            yield _told(f"{question.ask} {says}", marked.mark)
    for key, marked in state.book("points").items():
        verdict, part = standing(case, key), resolved.parts.get(key)
        if verdict is not None and part is not None:
            yield _told(f"{part.name}: {VERDICT_WORD[verdict]}", marked.mark, caution=verdict.value != "reuse")
    for key, marked in state.book("causes").items():
        at = resolved.elements.get(key)
        if at is not None:
            yield _told(f"{at.spec.name} failed: {marked.value.named or marked.value.cause.value}", marked.mark)
    for key, marked in state.book("sizes").items():
        at = resolved.elements.get(key)
        if at is not None:
            yield _told(f"Size of the {at.spec.name}: {marked.value.size}", marked.mark)
    for (part_key, rung_key), marked in state.book("rungs").items():
        part = resolved.parts.get(part_key)
        came = "moved it" if marked.value.moved else "did not move it"
        harm = ", harm was done" if marked.value.harm else ""
        if part is not None:
            do = _rung(case, part_key, rung_key)
            yield _told(f"{part.name}, {do}: {came}{harm}", marked.mark, caution=marked.value.harm)


def _rung(case: Case, part: str, rung: str) -> str:
    ladders = [one for one in case.resolved.sheet.ladders if one.part == part]
    return next((one.do for ladder in ladders for one in ladder.rungs if one.key == rung), rung)


def _waits(case: Case) -> Iterator[Line]:
    for timer in running_timers(case):
        yield Line(f"{timer.what}: until {timer.until:%H:%M}", when=timer.until)
    for short in short_of(case):
        state = "ordered, not come" if short.ordered else "not ordered yet"
        yield Line(f"{short.missing} × {short.name}: {state}", caution=not short.ordered)


def _open_ends(case: Case) -> Iterator[Line]:
    """What was passed over, and notes somebody left."""
    for marked in case.state.book("skipped").values():
        yield _told(
            f"Passed over, {marked.value.move.replace(':', ' ')}: {marked.value.reason}", marked.mark, caution=True
        )
    for marked in case.state.book("notes").values():
        yield _told(marked.value.text, marked.mark)


__all__ = ["HandOver", "Line", "hand_over"]
