"""Nothing that a part will cover may still be loose when the part goes on: by the order of the strip-down and by the drawing."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Set
from functools import cached_property
from typing import TypeAlias

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.geometry.base import BaseGeometry as Geometry

from ironkettle.core.base.errors import FieldFault, RuleError
from ironkettle.core.sheets.document.answers import answered, geometry_answers
from ironkettle.core.sheets.document.beforehand import step_of, with_first_work
from ironkettle.core.sheets.document.fastening import FastenerGroup
from ironkettle.core.sheets.document.sheet import Sheet
from ironkettle.core.sheets.document.work import StepSpec
from ironkettle.core.sheets.drawing.proof import MOST_COMBINATIONS
from ironkettle.core.sheets.drawing.section import Section, section, views_of
from ironkettle.core.sheets.soundness.order import dependencies, off_in_step, side_by_side

# For each step, the steps it comes after.
Needed: TypeAlias = Mapping[str, Mapping[str, str]]
# So many pairs of a part and a group are looked at in the drawing.
MOST_JUDGED = 60
# Lines across the drawing along which it is looked at a part, in each direction. [-]
_LINES = 120
# What of a part has to be seen from one side for a tool to get to it. [share of its lines]
_SEEN = 0.3
# Faces that touch hide nothing. [mm]
_TOUCHES = 0.05


def covering_faults(sheet: Sheet) -> Iterator[FieldFault]:
    """Steps that put a part over fasteners which are tightened later.

    Covered is what came loose only after the part was off, and what no tool gets to with the part on: seen from
    outside along the axis or across it, by the drawing's solids. A group whose part has no solid is not judged.
    """
    try:
        combinations = geometry_answers(sheet, MOST_COMBINATIONS)
    except RuleError:
        return  # told by the proof of the drawing
    places = {step.key: place for place, step in enumerate(sheet.steps)}
    named: set[str] = set()
    left = MOST_JUDGED
    for answers in combinations:
        reduced = with_first_work(answered(sheet, answers))
        needed, drawings = dependencies(reduced), _Drawings(reduced)
        for step, part, group in _left_loose(reduced, needed):
            path = f"steps.{places[step_of(step.key)]}.puts_on"
            if path in named:
                continue
            if (left := left - 1) < 0:
                text = "too many fasteners are still loose when parts go on over them: tighten them at earlier steps"
                yield FieldFault("steps", text, (f"up to {MOST_JUDGED} pairs of a part and a group",))
                return
            if _is_covered(drawings, _before(needed, step.key), part, group):
                named.add(path)
                names = {other.key: other.name for other in sheet.parts}
                text = f"{names[part]} goes on over {group.name}, which is tightened later: tighten it before, or at this step"
                yield FieldFault(path, text)


def _left_loose(sheet: Sheet, needed: Needed) -> Iterator[tuple[StepSpec, str, FastenerGroup]]:
    """What goes on, and which fasteners are tightened later though they came loose only after it was off."""
    off_in = off_in_step(sheet)
    loosened = {key: place for place, by in reversed(list(enumerate(sheet.steps))) for key in by.loosens}
    tight = {key: by.key for by in sheet.steps if by.stage == "rebuild" for key in by.tightens}
    for step in (other for other in sheet.steps if other.stage == "rebuild"):
        before = _before(needed, step.key)
        for group in (fastener for fastener in sheet.fasteners if fastener.part is not None and fastener.key in tight):
            # One that no step loosens came away with its part.
            place = loosened.get(group.key, off_in.get(group.part or "", -1))
            if tight[group.key] in before:
                continue
            for part in (put_on for put_on in step.puts_on if put_on in off_in and put_on != group.part):
                if place > off_in[part] and not side_by_side(part, group.key):
                    yield step, part, group


def _before(needed: Needed, step: str) -> set[str]:
    """The steps that are surely done when a step is, and the step itself."""
    found, left = {step}, [step]
    while left:
        left += (more := set(needed.get(left.pop(), ())) - found)
        found |= more
    return found


class _Drawings:
    """The sections of a sheet, made when the first of them is looked at."""

    def __init__(self, sheet: Sheet) -> None:
        self.sheet = sheet

    @cached_property
    def sections(self) -> list[Section]:
        return [section(self.sheet, view) for view in views_of(self.sheet)]


def _is_covered(drawings: _Drawings, before: Set[str], part: str, group: FastenerGroup) -> bool:
    """Whether a part takes away the last side from which the fasteners' own part can be reached. ``before``: the steps done by then."""
    sheet, held = drawings.sheet, group.part or ""
    off = off_in_step(sheet)
    on = {other.key for other in sheet.parts if other.key not in off}
    on |= {key for by in sheet.steps if by.key in before for key in by.puts_on} - {part}
    for drawn in drawings.sections:
        inside = drawn.metal.get(held)
        if inside is None or part not in drawn.metal:
            continue
        if _is_reached(drawn, inside, on - {held}) and not _is_reached(drawn, inside, (on | {part}) - {held}):
            return True
    return False


def _is_reached(drawn: Section, inside: Geometry, on: set[str]) -> bool:
    """Whether enough of a part is seen from the left, from the right, or from outside the axis."""
    around = shapely.union_all([area for key, area in drawn.metal.items() if key in on])
    z0, r0, z1, r1 = drawn.envelope.bounds
    across = np.linspace(z0, z1, _LINES)
    up = shapely.linestrings([((z, r0), (z, r1)) for z in across])
    along = shapely.linestrings([((z0, r), (z1, r)) for r in np.linspace(r0, r1, _LINES)])
    mine, others = (_ends(up, area) for area in (inside, around))
    if _share(mine, others[:, 3] > mine[:, 3] - _TOUCHES) >= _SEEN:
        return True
    mine, others = (_ends(along, area) for area in (inside, around))
    left, right = others[:, 0] < mine[:, 0] + _TOUCHES, others[:, 2] > mine[:, 2] - _TOUCHES
    return max(_share(mine, left), _share(mine, right)) >= _SEEN


def _ends(lines: NDArray[np.object_], area: Geometry) -> NDArray[np.float64]:
    """Where an area begins and ends on each line, NaN where it does not meet it."""
    ends: NDArray[np.float64] = shapely.bounds(shapely.intersection(lines, area))
    return ends


def _share(mine: NDArray[np.float64], hidden: NDArray[np.bool_]) -> float:
    """Which share of the lines through a part is not hidden. [-]"""
    met = ~np.isnan(mine[:, 0])
    return float((met & ~hidden).sum() / max(int(met.sum()), 1))
