"""The size of an element that the sheet leaves to measuring: measured, matched, chosen."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Literal

from ironkettle.core.base.errors import RuleError
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
from ironkettle.core.sheets.document.facts import gland_of
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


SIZES: Book[str, SizeChosen] = Book("sizes")


def _check(case: Case, payload: SizeChosen) -> None:
    known("element", payload.element, case.resolved.elements, "element")
    if case.resolved.elements[payload.element].spec.kind.value == "o_ring":
        ring_of(case, payload.size)


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
        rest = tuple(one for one in fitting if one.key != before)
        same = next((one for one in fitting if one.key == before), Choice(before, before))
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
        asks.insert(0, Ask("size", Read.TEXT, "Size to fit: shaft × bore × width", proposed=before, hint=hint))
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
    names = [f"{one.size.series} {one.size.designation}" for one in found]
    held = [shelf_words(for_ring(case.shelf, name, at.spec.compound)) for name in names]
    return tuple(
        Choice(
            name,
            f"{name}: {one.size.inside_diameter:g} × {one.size.section:g} mm",
            "; ".join(part for part in (one.check.verdict, on_shelf) if part),
        )
        for name, one, on_shelf in zip(names, found, held, strict=True)
    )


def _words(resolved: Resolved, payload: SizeChosen) -> str:
    at = resolved.elements.get(payload.element)
    return f"size of the {at.spec.name if at else payload.element}: {payload.size}"


def _against(case: Case, tasks: Sequence[Task]) -> Iterator[str]:
    for key, chosen in case.state.book(SIZES).items():
        at = case.resolved.elements.get(key)
        if at is None or at.spec.kind.value != "o_ring":
            continue
        gland = groove_of(case, key)
        try:
            ring = ring_of(case, chosen.value.size)
        except RuleError:
            continue
        # Judged here, not taken over from the one who chose.
        if gland is not None and check_gland(gland, ring, case.tables.glands).verdict == "reject":
            size = chosen.value.size
            yield f"The size chosen for the {at.spec.name}, {size}, is outside the usual limits of its groove."


def _hand_over(case: Case) -> Iterator[Line]:
    for key, marked in case.state.book(SIZES).items():
        at = case.resolved.elements.get(key)
        if at is not None:
            yield Line.by(Section.DECIDED, f"Size of the {at.spec.name}: {marked.value.size}", marked.mark)


KIND = EntryKind(
    payload=SizeChosen,
    check=_check,
    apply=keep(SIZES, lambda one: one.element),
    words=_words,
    tasks=_drafts,
    completes="identify:{element}",
    screens=(SizeScreen,),
    against=_against,
    hand_over=_hand_over,
)
