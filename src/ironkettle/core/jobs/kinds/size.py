"""The size of an element that the sheet leaves to measuring: measured, matched, chosen."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Literal

from ironkettle.core.base.errors import RuleError, fault
from ironkettle.core.jobs.ask import Ask, Choice
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kind import EntryKind, Line, Section, keep
from ironkettle.core.jobs.kinds.base import ItemKey, Note, Short, known
from ironkettle.core.jobs.resolved import ElementAt, Resolved
from ironkettle.core.jobs.screen import Screen
from ironkettle.core.jobs.shelf import for_ring, shelf_words
from ironkettle.core.jobs.state import Book, Payload
from ironkettle.core.jobs.task import Draft, Stage, Task, TaskKind, plain_screen
from ironkettle.core.sealing.grooves import Gland, check_gland
from ironkettle.core.sealing.rings import Condition, RingSize
from ironkettle.core.sealing.seals.in_seat import Space, misfit, ring_misfit, told_size
from ironkettle.core.sheets.document.facts import gland_of, space_of
from ironkettle.core.sheets.document.fields import Length
from ironkettle.core.sheets.document.parts import Read


class SizeScreen(Screen):
    """An element whose size is found by measuring the old one, held against its groove."""

    kind: Literal["size"] = "size"
    element: str


def _screen(case: Case, task: Task) -> Screen:
    return plain_screen(case, task) if groove_of(case, task.subject) is None else SizeScreen(element=task.subject)


_TASK = TaskKind("identify", "Take this size", screen=_screen)
_OFFERED = 6


class SizeChosen(Payload):
    """``size``: series and designation in one, as *AS568 214*; or the words of a seal that is no O-ring.

    What was measured stands beside it; what the groove says of it is worked out by the server, not sent.
    """

    kind: Literal["size_chosen"] = "size_chosen"
    element: ItemKey
    size: Short
    inside_diameter: Length | None = None
    section: Length | None = None
    condition: Condition = Condition.USED
    reason: Note = ""


_SHORTEST_REASON = 5
# A worn, swollen or stretched seal is larger or smaller than its size by this at most. No published source.
_UNLIKE = 1.35
SIZES: Book[str, SizeChosen] = Book("sizes")


def _check(case: Case, payload: SizeChosen) -> None:
    known("element", payload.element, case.resolved.elements, "element")
    at = case.resolved.elements[payload.element]
    space = None if at.spec.kind.value == "o_ring" else space_of(at.seat, at.spec)
    if space is not None and told_size(at.spec.kind, payload.size) is None:
        text = f"“{payload.size}” is no size: write inside × outside × width in mm"
        raise fault("size", text, size_of_space(space))
    why = misfit_of(case, payload) or _unlike(case, payload)
    if why is not None and len(payload.reason) < _SHORTEST_REASON:
        name = case.resolved.elements[payload.element].spec.name
        text = f"{payload.size} for the {name}: {why}; measure again, or give the reason in writing"
        raise fault("size", text, code="wrong-size")


def misfit_of(case: Case, payload: SizeChosen) -> str | None:
    """Why the size chosen does not belong in its seat; None where it does. Raises RuleError for an O-ring of no series."""
    at = case.resolved.elements[payload.element]
    if at.spec.kind.value != "o_ring":
        space = space_of(at.seat, at.spec)
        return None if space is None else misfit(at.spec.kind, payload.size, space)
    ring, gland = ring_of(case, payload.size), groove_of(case, payload.element)
    if gland is None:
        space = space_of(at.seat, at.spec)
        return None if space is None else ring_misfit(ring.inside_diameter, ring.section, space)
    check = check_gland(gland, ring, case.tables.glands)
    return "outside the usual limits of its groove" if check.verdict == "reject" else None


def _unlike(case: Case, payload: SizeChosen) -> str | None:
    """Which of the readings is not of the size that was chosen, in words; None where they agree, or none was taken."""
    at = case.resolved.elements[payload.element]
    if at.spec.kind.value == "o_ring":
        ring = ring_of(case, payload.size)
        inside, section = ring.inside_diameter, ring.section
    else:
        size = told_size(at.spec.kind, payload.size)
        if size is None:
            return None
        inside, section = size[0], (size[1] - size[0]) / 2
    for name, read, should in (
        ("inside diameter", payload.inside_diameter, inside), ("section", payload.section, section),
    ):  # fmt: skip
        # A disc has no hole to be measured.
        if read is not None and should > 0 and not 1 / _UNLIKE <= read.value / should <= _UNLIKE:
            return f"its {name} is {should:g} mm, {read} was read"
    return None


def size_of_space(space: Space) -> str:
    """The size that a seat asks for, as sizes are written."""
    return f"{space.inner:g} × {space.outer:g} × {space.length:g}"


def ring_of(case: Case, size: str) -> RingSize:
    """The ring a size names. Raises RuleError naming the field."""
    series, _, designation = size.strip().rpartition(" ")
    return case.tables.rings.find(series, designation, "size")


def groove_of(case: Case, element: str) -> Gland | None:
    """The groove of an element, as its size is checked in; None for a seat that is no groove, or whose figures cannot be read."""
    at = case.resolved.elements[element]
    try:
        return gland_of(case.resolved.sheet, at.station, at.seat)
    except RuleError:
        return None


def _drafts(case: Case) -> Iterator[Draft]:
    for key, at in case.resolved.elements.items():
        if at.spec.identify:
            opened = any(at.station.key in step.opens for step in case.resolved.sheet.steps)
            after = {f"find:{key}": ""} if opened else {}
            yield Draft(_task(case, at), case.state.has(SIZES, key), after=after)


def _task(case: Case, at: ElementAt) -> Task:
    fitting = _fitting(case, at)
    before = case.carried.sizes.get(at.key) if case.carried else None
    if before and fitting:
        rest = tuple(choice for choice in fitting if choice.key != before)
        same = next((choice for choice in fitting if choice.key == before), Choice(before, before))
        sign = "; ".join(part for part in (same.sign, case.carried.words if case.carried else "") if part)
        fitting = (Choice(same.key, same.says, sign), *rest)
    asks = [
        Ask(
            "inside_diameter",
            Read.LENGTH,
            "Inside diameter of the old one",
            unit="mm",
            limit=(0.5, 1000.0),
            optional=True,
        ),
        Ask("section", Read.LENGTH, "Its section", unit="mm", limit=(0.5, 30.0), optional=True),
    ]
    if fitting:
        asks.insert(0, Ask("size", Read.CHOICE, "Size to fit", fitting))
    else:
        hint = case.carried.words if before and case.carried else None
        space = space_of(at.seat, at.spec)
        right = None if space is None else size_of_space(space)
        label = "Size to fit: inside × outside × width, in mm"
        asks.insert(0, Ask("size", Read.TEXT, label, proposed=before, hint=hint, right=before or right))
    return Task(
        f"identify:{at.key}",
        Stage.MATCH,
        _TASK,
        at.key,
        f"Find the size of the {at.spec.name}",
        {"kind": "size_chosen", "element": at.key},
        place=at.station.key,
        asks=tuple(asks),
    )


def _fitting(case: Case, at: ElementAt) -> tuple[Choice, ...]:
    """Ring sizes that fit the groove, the best first."""
    if at.spec.kind.value != "o_ring":
        return ()
    gland = groove_of(case, at.key)
    if gland is None:
        return ()
    found = case.tables.fits(gland, _OFFERED)
    names = [f"{candidate.size.series} {candidate.size.designation}" for candidate in found]
    held = [shelf_words(for_ring(case.shelf, name, at.spec.compound)) for name in names]
    return tuple(
        Choice(
            name,
            f"{name}: {candidate.size.inside_diameter:g} × {candidate.size.section:g} mm",
            "; ".join(part for part in (candidate.check.verdict, on_shelf) if part),
        )
        for name, candidate, on_shelf in zip(names, found, held, strict=True)
    )


def _words(resolved: Resolved, payload: SizeChosen) -> str:
    at = resolved.elements.get(payload.element)
    return f"size of the {at.spec.name if at else payload.element}: {payload.size}"


def _against(case: Case, tasks: Sequence[Task]) -> Iterator[str]:
    for key, chosen in case.state.book(SIZES).items():
        at = case.resolved.elements.get(key)
        if at is None:
            continue
        # Judged here, not taken over from the one who chose.
        try:
            why = misfit_of(case, chosen.value)
        except RuleError:
            continue
        if why is not None:
            reason = f" Reason: {chosen.value.reason}." if chosen.value.reason else ""
            yield f"The size chosen for the {at.spec.name}, {chosen.value.size}: {why}.{reason}"


def _hand_over(case: Case) -> Iterator[Line]:
    for key, marked in case.state.book(SIZES).items():
        at = case.resolved.elements.get(key)
        if at is not None:
            yield Line.by(Section.DECIDED, f"Size of the {at.spec.name}: {marked.value.size}", marked.mark)
            if marked.value.inside_diameter is None and marked.value.section is None:
                words = f"Size of the {at.spec.name}: by its seat, the old one was not measured"
                yield Line.by(Section.ASSUMED, words, marked.mark)


KIND = EntryKind(
    payload=SizeChosen,
    check=_check,
    apply=keep(SIZES, lambda payload: payload.element),
    words=_words,
    tasks=_drafts,
    completes="identify:{element}",
    screens=(SizeScreen,),
    against=_against,
    hand_over=_hand_over,
)
