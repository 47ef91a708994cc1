"""What was opened is proven: each station that a step opens is loaded by a test of the finished unit, or says why it is not."""

from __future__ import annotations

from collections.abc import Iterable, Iterator

from ironkettle.core.base.errors import FieldFault
from ironkettle.core.sheets.document.positions import base_key
from ironkettle.core.sheets.document.sheet import Sheet
from ironkettle.core.sheets.document.trials import TestSpec


def stations_opened(sheet: Sheet) -> tuple[str, ...]:
    """The stations that some step opens, in the order of the sheet."""
    opened = {key for step in sheet.steps for key in step.opens}
    return tuple(station.key for station in sheet.stations if station.key in opened)


def proof_of(sheet: Sheet) -> dict[str, tuple[str, ...]]:
    """By station that is opened, the as-left tests that load it: they press one of its two zones and not the other, once it is closed.

    A test names the zones it presses; all others are vented. Source: by definition of a pressure across a seal.
    """
    return {key: tuple(test.key for test in sheet.tests if _loads(sheet, test, key)) for key in stations_opened(sheet)}


def proof_faults(sheet: Sheet) -> Iterator[FieldFault]:
    """Stations that are opened and loaded by no test, and say nothing of it."""
    proof = proof_of(sheet)
    for index, station in enumerate(sheet.stations):
        tests = proof.get(station.key)
        if tests is None:
            continue
        if not tests and station.unproven is None:
            sides = " or ".join(station.between)
            text = (
                f"{station.name} is opened, and no test of the finished unit loads it: name the zone {sides} alone in the zones of an as-left "
                "test, or say why not (unproven)"
            )
            yield FieldFault(f"stations.{index}", text)


def _loads(sheet: Sheet, test: TestSpec, station: str) -> bool:
    if test.when == "as_found":
        return False
    between = next(other.between for other in sheet.stations if other.key == station)
    return len(_plain(test.all_zones) & _plain(between)) == 1 and _closed_before(sheet, test, station)


def _plain(zones: Iterable[str]) -> set[str]:
    """Zones without their position: a test of all positions names them once."""
    return {base_key(zone) for zone in zones}


def _closed_before(sheet: Sheet, test: TestSpec, station: str) -> bool:
    """Whether a station is closed again when a test is run: one that a step runs, or that comes after a step, may come before that."""
    places = {step.key: place for place, step in enumerate(sheet.steps)}
    closing = [place for place, step in enumerate(sheet.steps) if station in step.closes]
    running = [places[step.key] for step in sheet.steps if test.key in step.runs]
    after = running or [places[key] for key in test.after if key in places]
    return not closing or not after or max(after) >= max(closing)
