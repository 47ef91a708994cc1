"""What a sheet must hold beyond its shape: names that refer to something, geometry that can be."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from functools import partial

from ironkettle.core.buildsheets.model import BuildSheet, FastenerGroup, StepSpec
from ironkettle.core.buildsheets.views import cylinder_of, gland_of, torque_range_of
from ironkettle.core.errors import FieldFault, RuleError
from ironkettle.core.quantities import read_gauge_pressure
from ironkettle.core.stacks import ZoneKind


def sheet_faults(sheet: BuildSheet) -> list[FieldFault]:
    """Every fault of a well-formed sheet with its path; empty when it is sound."""
    faults = [
        *_repeated("zones", [zone.key for zone in sheet.zones]),
        *_repeated("stations", [station.key for station in sheet.stations]),
        *_repeated("steps", [step.key for step in sheet.steps]),
        *_repeated("fasteners", [group.key for group in sheet.fasteners]),
        *_repeated("tests", [test.key for test in sheet.tests]),
        *_repeated("observations", [seen.key for seen in sheet.observations]),
        *_repeated("kits.lines", [line.key for line in sheet.kit_lines]),
        *_repeated("stations.elements", [e.key for s in sheet.stations for e in s.elements]),
        *_zone_faults(sheet),
        *_station_faults(sheet),
        *_step_faults(sheet.steps),
        *_kit_faults(sheet),
    ]
    for index, group in enumerate(sheet.fasteners):
        faults += _group_faults(index, group)
    if sheet.cylinder is not None:
        faults += _refused("cylinder", lambda: cylinder_of(sheet))
    if any(step.shows for step in sheet.steps) and sheet.cylinder is None:
        faults.append(FieldFault("cylinder", "is needed, since a step shows a sum made from it"))
    return faults


def _repeated(path: str, keys: Sequence[str]) -> list[FieldFault]:
    twice = {key for key in keys if keys.count(key) > 1}
    return [FieldFault(path, f"the key “{key}” is used more than once") for key in sorted(twice)]


def _unknown(path: str, key: str, known: Iterable[str], what: str) -> list[FieldFault]:
    names = tuple(known)
    return [] if key in names else [FieldFault(path, f"“{key}” is not a {what} of this sheet", names[:12])]


def _zone_faults(sheet: BuildSheet) -> list[FieldFault]:
    faults: list[FieldFault] = []
    zones = [zone.key for zone in sheet.zones]
    for index, zone in enumerate(sheet.zones):
        if zone.kind is ZoneKind.PRESSURE and zone.pressure is None:
            faults.append(FieldFault(f"zones.{index}.pressure", "is needed for a pressure zone", ("bar", "psi", "MPa")))
    for index, test in enumerate(sheet.tests):
        faults += _unknown(f"tests.{index}.zone", test.zone, zones, "zone")
        zone_spec = sheet.zone(test.zone)
        if zone_spec and read_gauge_pressure(test.pressure, "pressure") > 1.5 * read_gauge_pressure(
            sheet.ratings.pressure, "pressure"
        ):
            text = f"{test.pressure} is more than 1.5 times the rating {sheet.ratings.pressure}"
            faults.append(FieldFault(f"tests.{index}.pressure", text, (f"up to 1.5 × {sheet.ratings.pressure}",)))
    return faults


def _station_faults(sheet: BuildSheet) -> list[FieldFault]:
    faults: list[FieldFault] = []
    zones = [zone.key for zone in sheet.zones]
    for index, station in enumerate(sheet.stations):
        path = f"stations.{index}"
        for side, zone in enumerate(station.between):
            faults += _unknown(f"{path}.between.{side}", zone, zones, "zone")
        if station.between[0] == station.between[1]:
            faults.append(FieldFault(f"{path}.between", "a station seals between two different zones"))
        if station.entered_from is not None and station.entered_from not in station.between:
            faults.append(
                FieldFault(
                    f"{path}.entered_from", f"“{station.entered_from}” is not one of its two zones", station.between
                )
            )
        last = float("-inf")
        for place, element in enumerate(station.elements):
            start, end = element.slot_mm
            if start >= end or start < last - 1e-6:
                text = "must run from small to large z, in the order of the elements, without overlap"
                faults.append(FieldFault(f"{path}.elements.{place}.slot_mm", text))
            last = end
        if not any(zone not in zones for zone in station.between):
            faults += _refused(f"{path}.seat", partial(gland_of, sheet, station))
    return faults


def _step_faults(steps: Sequence[StepSpec]) -> list[FieldFault]:
    keys = [step.key for step in steps]
    faults: list[FieldFault] = []
    for index, step in enumerate(steps):
        for place, before in enumerate(step.after):
            faults += _unknown(f"steps.{index}.after.{place}", before, keys, "step")
    waiting = {step.key: {key for key in step.after if key in keys} for step in steps}
    while ready := [key for key, before in waiting.items() if not before]:
        for key in ready:
            del waiting[key]
        for still_before in waiting.values():
            still_before.difference_update(ready)
    for key in waiting:
        faults.append(FieldFault(f"steps.{keys.index(key)}.after", "waits for itself in a circle"))
    return faults


def _kit_faults(sheet: BuildSheet) -> list[FieldFault]:
    elements = [element.key for station in sheet.stations for element in station.elements]
    return [
        fault
        for k, kit in enumerate(sheet.kits)
        for n, line in enumerate(kit.lines)
        if line.element is not None
        for fault in _unknown(f"kits.{k}.lines.{n}.element", line.element, elements, "element")
    ]


def _group_faults(index: int, group: FastenerGroup) -> list[FieldFault]:
    faults = _refused(f"fasteners.{index}", lambda: torque_range_of(group))
    if group.passes_pct[-1] != 100:
        faults.append(FieldFault(f"fasteners.{index}.passes_pct", "the last pass must be 100", ("30, 70, 100",)))
    return faults


def _refused(path: str, act: Callable[[], object]) -> list[FieldFault]:
    try:
        act()
    except RuleError as error:
        return [fault.under(path) for fault in error.faults]
    return []
