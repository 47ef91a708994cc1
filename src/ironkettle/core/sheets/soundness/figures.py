"""Figures of a sheet against what the tables know: grooves that can be, rings, threads, media and compounds that exist."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator
from dataclasses import dataclass

from ironkettle.core.base.errors import FieldFault, RuleError
from ironkettle.core.base.quantities import (
    read_temperature,
    seconds_words,
    stated_seconds,
)
from ironkettle.core.machine.parts import Cleaning, cleaning_of, read_limit
from ironkettle.core.machine.pressure import Fluid, find_fluid
from ironkettle.core.machine.tightening import FastenerTables
from ironkettle.core.sealing.compounds import Compound, find_compound
from ironkettle.core.sealing.rings import RingTable
from ironkettle.core.sealing.seals.in_seat import misfit
from ironkettle.core.sheets.document.facts import cylinder_of, dimension_of, gland_of, rating_of, space_of
from ironkettle.core.sheets.document.parts import LookPoint, MeasuredPoint, PointSpec
from ironkettle.core.sheets.document.places import FaceSeat
from ironkettle.core.sheets.document.sheet import Sheet
from ironkettle.core.sheets.document.trials import DriftTest, FunctionTest, HoldTest
from ironkettle.core.sheets.document.work import StepSpec
from ironkettle.core.sheets.soundness.fastening import group_faults
from ironkettle.core.shop.service import read_every
from ironkettle.core.shop.settings.limits import FAMILIES, PART_LIMITS, part_limit

# A test may press a unit this much above its rating, not more.
PROOF_FACTOR = 1.5


@dataclass(frozen=True)
class SheetTables:
    """What a sheet's names of rings, threads, fluids and compounds are looked up in."""

    rings: RingTable
    fasteners: FastenerTables
    fluids: tuple[Fluid, ...]
    compounds: tuple[Compound, ...]
    cleaning: tuple[Cleaning, ...]


def figure_faults(sheet: Sheet, tables: SheetTables) -> Iterator[FieldFault]:
    """Figures that cannot be, and names of rings, threads, fluids and compounds that no table knows."""
    if sheet.family not in FAMILIES:
        yield FieldFault("family", f"“{sheet.family}” is not a unit family; put search words under like", FAMILIES)
    if sheet.cylinder is not None:
        yield from _refused("cylinder", lambda: cylinder_of(sheet))
    if sheet.service.temperature is not None:
        low, high = (read_temperature(text, "temperature") for text in sheet.service.temperature)
        if low >= high:
            yield FieldFault(
                "service.temperature", f"{sheet.service.temperature[0]} is not below {sheet.service.temperature[1]}"
            )
    yield from _seat_faults(sheet, tables)
    yield from _kit_sizes(sheet)
    for index, part in enumerate(sheet.parts):
        for place, point in enumerate(part.points):
            yield from _point_faults(f"parts.{index}.points.{place}", point, sheet.family)
    for index, step in enumerate(sheet.steps):
        yield from _cleaning_faults(f"steps.{index}", step, sheet, tables.cleaning)
    for index, group in enumerate(sheet.fasteners):
        yield from group_faults(f"fasteners.{index}", group, tables.fasteners)
    yield from _untimed_faults(sheet)
    yield from _test_faults(sheet, tables)
    for index, interval in enumerate(sheet.intervals):
        for place, text in enumerate(interval.every):
            yield from _refused(f"intervals.{index}", lambda t=text, p=place: read_every(t, f"every.{p}"))  # type: ignore[misc]


def _refused(path: str, act: Callable[[], object]) -> Iterator[FieldFault]:
    try:
        act()
    except RuleError as error:
        yield from (found.under(path) for found in error.faults)


def _seat_faults(sheet: Sheet, tables: SheetTables) -> Iterator[FieldFault]:
    known = {zone.key for zone in sheet.zones}
    for index, station in enumerate(sheet.stations):
        for place, seat in enumerate(station.seats):
            path = f"stations.{index}.seats.{place}"
            if set(station.between) <= known:
                yield from _refused(path, lambda s=station, t=seat: gland_of(sheet, s, t))  # type: ignore[misc]
            if not isinstance(seat, FaceSeat):
                inner, outer = (edge.value.nominal for edge in seat.edges[:2])
                if inner >= outer:
                    yield FieldFault(path, f"inner {inner:g} mm is not below outer {outer:g} mm")
            for at, element in enumerate(seat.elements):
                if element.ring:
                    ring = element.ring
                    yield from _refused(
                        f"{path}.elements.{at}",
                        lambda r=ring: tables.rings.find(r.series, r.designation, "ring"),  # type: ignore[misc]
                    )
                space = space_of(seat, element)
                why = None if space is None or not element.size else misfit(element.kind, element.size, space)
                if why is not None:
                    yield FieldFault(f"{path}.elements.{at}.size", f"{element.size}: {why}")
                if element.compound:
                    name = element.compound
                    yield from _refused(
                        f"{path}.elements.{at}",
                        lambda n=name: find_compound(n, tables.compounds, "compound"),  # type: ignore[misc]
                    )


# A shorter one is over before anybody could wait.
_WAITED_FROM_S = 60.0
_THREE = re.compile(r"\d[\d.,]* × \d[\d.,]* × \d[\d.,]*")


def _kit_sizes(sheet: Sheet) -> Iterator[FieldFault]:
    """A line of a kit whose name has another size than the seat of what it is for: counted by it, the wrong seal would be there."""
    seats = {
        other.key: (seat, other) for station in sheet.stations for seat in station.seats for other in seat.elements
    }
    for index, kit in enumerate(sheet.kits):
        for place, line in enumerate(kit.lines):
            said = _THREE.search(line.name)
            for key in line.all_elements if said else ():
                if said is None or key not in seats:
                    continue
                seat, element = seats[key]
                if (space := space_of(seat, element)) is None:
                    continue
                why = misfit(element.kind, said[0], space)
                if why is not None:
                    yield FieldFault(f"kits.{index}.lines.{place}.name", f"{said[0]} for the {element.name}: {why}")


def _point_faults(path: str, point: PointSpec, family: str) -> Iterator[FieldFault]:
    if isinstance(point, LookPoint) and point.dress:
        for place, sign in enumerate(point.dress.of):
            if sign not in point.bad:
                yield FieldFault(
                    f"{path}.dress.of.{place}", f"“{sign}” is not among what speaks against the part", tuple(point.bad)
                )
    if not isinstance(point, MeasuredPoint):
        return
    dimension = dimension_of(point.read)
    if point.rule is not None and part_limit(family, point.rule) is None:
        known = [limit.key for limit in PART_LIMITS if limit.family == family]
        yield FieldFault(f"{path}.rule", f"there is no shop limit “{point.rule}” for “{family}”", tuple(known))
        return
    if point.limit is None and point.rule is None:
        yield FieldFault(f"{path}.limit", "is needed for what is measured, or a shop setting", ("at most 0.05 mm",))
        return
    if point.compute == "wear" and point.nominal is None:
        yield FieldFault(f"{path}.nominal", "is needed for wear", ("28 mm +0/-0.052",))
    if point.compute == "ovality" and point.places < 2:
        yield FieldFault(f"{path}.places", "ovality needs two readings or more", ("2", "6"))
    for field, text in (
        ("limit", point.limit),
        ("nominal", point.nominal),
        ("dress.to", point.dress and point.dress.to),
    ):
        if text:
            yield from _refused(path, lambda t=text, f=field: read_limit(t, f, dimension))  # type: ignore[misc]


def _cleaning_faults(path: str, step: StepSpec, sheet: Sheet, rows: tuple[Cleaning, ...]) -> Iterator[FieldFault]:
    """What is cleaned of a soil that the table does not know on its material, or soaks without a timer."""
    if step.cleans and step.soil is None:
        yield FieldFault(
            f"{path}.soil", "is needed for what is cleaned", tuple(dict.fromkeys(row.soil for row in rows))
        )
        return
    parts = {part.key: part for part in sheet.parts}
    for place, key in enumerate(step.cleans):
        part = parts.get(key)
        if part is None:
            continue
        if part.material is None:
            yield FieldFault(
                f"{path}.cleans.{place}", f"{part.name} has no material, so how it is cleaned is not known"
            )
            continue
        row = cleaning_of(rows, part.material.value, step.soil or "")
        if row is None:
            known = tuple(line.soil for line in rows if line.material == part.material.value)
            yield FieldFault(f"{path}.soil", f"the table has no “{step.soil}” on {part.material.value}", known)
        elif row.soak and step.timer is None and (step.cleaner or row.cleaner) == row.cleaner:
            text = f"{row.soil} on {row.material} soaks {row.soak:g} min: give the step a timer"
            yield FieldFault(f"{path}.timer", text)


def _untimed_faults(sheet: Sheet) -> Iterator[FieldFault]:
    """Steps whose text states a time that nothing waits out, or not all of it."""
    for index, step in enumerate(sheet.steps):
        stated = stated_seconds(step.text) or 0
        waited = 60 * step.timer.minutes if step.timer is not None else 0
        if stated < _WAITED_FROM_S or stated <= waited or step.runs:
            continue
        text = (
            f"the text says {seconds_words(stated)}: give the step a timer of {stated / 60:g} min, or the test it runs"
        )
        yield FieldFault(f"steps.{index}.timer", text, (f"{{key, minutes: {stated / 60:g}, for}}",))


def _test_faults(sheet: Sheet, tables: SheetTables) -> Iterator[FieldFault]:
    rating = rating_of(sheet)
    for index, test in enumerate(sheet.tests):
        if (
            isinstance(test, FunctionTest)
            and test.seconds
            and test.seconds < (stated := stated_seconds(test.sign) or 0)
        ):
            text = f"{seconds_words(test.seconds)} is less than the {seconds_words(stated)} that the sign says"
            yield FieldFault(f"tests.{index}.seconds", text, (f"{stated:g}",))
        medium = test.medium if isinstance(test, HoldTest | DriftTest) else None
        if medium is not None:
            yield from _refused(f"tests.{index}", lambda m=medium: find_fluid(m, tables.fluids, "medium"))  # type: ignore[misc]
        pressure = test.pressure if isinstance(test, HoldTest | DriftTest) else None
        if pressure and pressure.value > PROOF_FACTOR * rating + 1e-9:
            text = f"{pressure} is more than {PROOF_FACTOR:g} times the weakest rating, {rating * 10:g} bar"
            yield FieldFault(f"tests.{index}.pressure", text, (f"up to {PROOF_FACTOR * rating * 10:g} bar",))
