"""Names of a sheet: each once, and every one that is used refers to something."""

from __future__ import annotations

from collections import Counter
from collections.abc import Collection, Iterable, Iterator, Sequence
from difflib import get_close_matches
from typing import Any

from ironkettle.core.base.errors import FieldFault
from ironkettle.core.sealing.facing import ZoneKind
from ironkettle.core.sheets.document.facts import dimension_of
from ironkettle.core.sheets.document.fastening import MarkPhase, TorquePhase
from ironkettle.core.sheets.document.fields import Item
from ironkettle.core.sheets.document.parts import Read
from ironkettle.core.sheets.document.sheet import Sheet
from ironkettle.core.sheets.document.work import StepNote

_MOST_SHOWN = 12


class Names:
    """The keys of a sheet by what they name."""

    def __init__(self, sheet: Sheet) -> None:
        self.sheet = sheet
        self.zones = [zone.key for zone in sheet.zones]
        self.parts = [part.key for part in sheet.parts]
        self.stations = [station.key for station in sheet.stations]
        self.elements = [element.key for *_, element in sheet.elements]
        self.steps = [step.key for step in sheet.steps]
        self.fasteners = [fastener.key for fastener in sheet.fasteners]
        self.settings = [setting.key for setting in sheet.settings]
        self.tests = [test.key for test in sheet.tests]
        self.questions = {question.key: [choice.key for choice in question.choices] for question in sheet.questions}
        self.marks = [step.mark.key for step in sheet.steps if step.mark]
        self.views = [view.key for view in sheet.views] or ["main"]
        self.points = {part.key: [point.key for point in part.points] for part in sheet.parts}


def name_faults(sheet: Sheet) -> Iterator[FieldFault]:
    """Keys used twice, names that name nothing, and conditions on questions that are not asked."""
    names = Names(sheet)
    yield from _repeated(sheet, names)
    yield from _zone_faults(sheet, names)
    yield from _station_faults(sheet, names)
    yield from _step_faults(sheet, names)
    yield from _supply_faults(sheet, names)
    yield from _group_faults(sheet, names)
    yield from _setting_faults(sheet, names)
    yield from _test_faults(sheet, names)
    yield from _only_faults(sheet, names)


def unknown(path: str, key: str | None, known: Collection[str], what: str) -> Iterator[FieldFault]:
    """A fault when a name is given that none of these has."""
    if key is not None and key not in known:
        article = "an" if what[0] in "aeiou" else "a"
        yield FieldFault(path, f"“{key}” is not {article} {what} of this sheet", tuple(known)[:_MOST_SHOWN])


def _all_known(path: str, keys: Iterable[str], known: Collection[str], what: str) -> Iterator[FieldFault]:
    for place, key in enumerate(keys):
        yield from unknown(f"{path}.{place}", key, known, what)


def _repeated(sheet: Sheet, names: Names) -> Iterator[FieldFault]:
    lists: dict[str, Sequence[str]] = {
        "zones": names.zones, "parts": names.parts, "stations": names.stations, "stations.elements": names.elements,
        "steps": names.steps, "fasteners": names.fasteners, "settings": names.settings, "tests": names.tests,
        "questions": [q.key for q in sheet.questions], "steps.mark": names.marks, "views": [v.key for v in sheet.views],
        "kits.lines": [line.key for kit in sheet.kits for line in kit.lines],
        "observations": [observation.key for observation in sheet.observations], "positions": [position.key for position in sheet.positions],
        "steps.timer": [step.timer.key for step in sheet.steps if step.timer],
    }  # fmt: skip
    for path, keys in lists.items():
        for key, count in Counter(keys).items():
            if count > 1:
                yield FieldFault(path, f"the key “{key}” is used {count} times")
    for index, part in enumerate(sheet.parts):
        for key, count in Counter(point.key for point in part.points).items():
            if count > 1:
                yield FieldFault(f"parts.{index}.points", f"the key “{key}” is used {count} times")


def _zone_faults(sheet: Sheet, names: Names) -> Iterator[FieldFault]:
    for index, zone in enumerate(sheet.zones):
        if zone.kind is ZoneKind.PRESSURE and zone.pressure is None:
            yield FieldFault(f"zones.{index}.pressure", "is needed for a pressure zone", ("bar", "psi", "MPa"))
        for place, seed in enumerate(zone.all_seeds):
            yield from unknown(f"zones.{index}.seeds.{place}.view", seed.view, names.views, "view")
    for index, part in enumerate(sheet.parts):
        for place, solid in enumerate(part.solid):
            yield from unknown(f"parts.{index}.solid.{place}.view", solid.view, names.views, "view")
            zone_name = getattr(solid.body, "zone", None)
            yield from unknown(f"parts.{index}.solid.{place}.zone", zone_name, names.zones, "zone")


def _station_faults(sheet: Sheet, names: Names) -> Iterator[FieldFault]:
    for index, station in enumerate(sheet.stations):
        path = f"stations.{index}"
        yield from _all_known(f"{path}.between", station.between, names.zones, "zone")
        if station.between[0] == station.between[1]:
            yield FieldFault(f"{path}.between", "a station seals between two different zones")
        if station.entered_from is not None and station.entered_from not in station.between:
            text = f"“{station.entered_from}” is not one of its two zones"
            yield FieldFault(f"{path}.entered_from", text, station.between)
        yield from unknown(f"{path}.carrier", station.carrier, names.parts, "part")
        yield from unknown(f"{path}.counterface", station.counterface, names.parts, "part")
        for s, seat in enumerate(station.seats):
            yield from unknown(f"{path}.seats.{s}.view", seat.view, names.views, "view")
            for e, element in enumerate(seat.elements):
                at = f"{path}.seats.{s}.elements.{e}"
                yield from unknown(f"{at}.part", element.part, names.parts, "part")
                others = [key for key in names.elements if key != element.key]
                yield from unknown(f"{at}.same_as", element.same_as, others, "element")
                if element.faces is not None and element.faces not in station.between:
                    text = f"“{element.faces}” is not one of its station's two zones"
                    yield FieldFault(f"{at}.faces", text, station.between)
                towards = element.offset.towards if element.offset else None
                if towards is not None and towards not in station.between:
                    yield FieldFault(
                        f"{at}.offset.towards", f"“{towards}” is not one of its station's two zones", station.between
                    )


def _step_faults(sheet: Sheet, names: Names) -> Iterator[FieldFault]:
    pressed = (*names.parts, *names.zones, *names.settings)
    for index, step in enumerate(sheet.steps):
        path = f"steps.{index}"
        for field, known, what in (
            ("after", names.steps, "step"), ("loosens", names.fasteners, "fastener group"),
            ("relieves", pressed, "part, zone or setting"), ("takes_off", names.parts, "part"), ("cleans", names.parts, "part"),
            ("opens", names.stations, "station"), ("puts_on", names.parts, "part"),
            ("closes", names.stations, "station"), ("tightens", names.fasteners, "fastener group"),
            ("sets", names.settings, "setting"), ("ahead_of", names.parts, "part"), ("handles", names.parts, "part"), ("runs", names.tests, "test"),
            ("meets", names.marks, "mark"),
        ):  # fmt: skip
            yield from _all_known(f"{path}.{field}", getattr(step, field) or (), known, what)
        for place, name in enumerate(step.reads):
            yield from _point_faults(f"{path}.reads.{place}", name.part, name.point, names)
        if step.mark:
            yield from _all_known(f"{path}.mark.across", step.mark.across, names.parts, "part")
        if step.note:
            yield from unknown(f"{path}.note.again_at", step.note.again_at, names.steps, "step")
            yield from _note_faults(f"{path}.note", step.note)
        for place, word in enumerate(step.first.takes if step.first else ()):
            # A tool is written in words; what is nearly the name of a part was meant as one.
            if word not in names.parts and (near := get_close_matches(word, names.parts, 1, 0.8)):
                yield from unknown(f"{path}.first.takes.{place}", word, near, "part")
        if step.shows and sheet.cylinder is None:
            yield FieldFault("cylinder", f"is needed, since {step.key} shows a formula made from it")
    for index, ladder in enumerate(sheet.ladders):
        yield from unknown(f"ladders.{index}.part", ladder.part, names.parts, "part")
        for place, rung in enumerate(ladder.rungs):
            for at, name in enumerate(rung.reads):
                yield from _point_faults(f"ladders.{index}.rungs.{place}.reads.{at}", name.part, name.point, names)


def _note_faults(path: str, note: StepNote) -> Iterator[FieldFault]:
    """Readings whose difference is held: two at least, of something measured or counted."""
    if note.readings and note.read is not Read.NUMBER and dimension_of(note.read) is None:
        yield FieldFault(
            f"{path}.read",
            "readings are compared, so they have to be measured or counted: say what is read",
            ("length", "number"),
        )
    if len(note.readings) == 1:
        yield FieldFault(f"{path}.readings", "a difference needs two readings: name another, or leave this out")


def _point_faults(path: str, part: str, point: str, names: Names) -> Iterator[FieldFault]:
    yield from unknown(f"{path}.part", part, names.parts, "part")
    if part in names.points:
        yield from unknown(f"{path}.point", point, names.points[part], f"point of {part}")


def _supply_faults(sheet: Sheet, names: Names) -> Iterator[FieldFault]:
    for k, kit in enumerate(sheet.kits):
        for n, line in enumerate(kit.lines):
            path = f"kits.{k}.lines.{n}"
            yield from _all_known(f"{path}.elements", line.all_elements, names.elements, "element")
            yield from _all_known(f"{path}.parts", line.all_parts, names.parts, "part")
            yield from _all_known(f"{path}.fastener", line.fastener, names.fasteners, "fastener group")
    for index, question in enumerate(sheet.questions):
        if all(choice.refuses for choice in question.choices):
            yield FieldFault(
                f"questions.{index}.choices", "every choice refuses the unit; one must be worked by this sheet"
            )
    for index, interval in enumerate(sheet.intervals):
        yield from unknown(f"intervals.{index}.of", interval.of, ("unit", *names.parts), "part")
        yield from _all_known(f"intervals.{index}.steps", interval.steps, names.steps, "step")
    yield from _interval_faults(sheet)
    repeating = {
        "zones": names.zones, "parts": names.parts, "stations": names.stations, "steps": names.steps,
        "fasteners": names.fasteners, "settings": names.settings, "tests": names.tests, "marks": names.marks,
        "questions": list(names.questions),
    }  # fmt: skip
    owner: dict[tuple[str, str], str] = {}
    for index, position in enumerate(sheet.positions):
        for field, known in repeating.items():
            for place, key in enumerate(getattr(position, field)):
                if owner.setdefault((field, key), position.key) != position.key:
                    text = f"{key} repeats with {owner[field, key]} already; a thing belongs to one kind of position"
                    yield FieldFault(f"positions.{index}.{field}.{place}", text)
            yield from _all_known(
                f"positions.{index}.{field}", getattr(position, field), known, field.removesuffix("s")
            )


def _interval_faults(sheet: Sheet) -> Iterator[FieldFault]:
    """Intervals with the same name, and quick service that leaves something off, open or loose."""
    seen = Counter(named.name for named in sheet.intervals)
    for index, interval in enumerate(sheet.intervals):
        if seen[interval.name] > 1:
            yield FieldFault(
                f"intervals.{index}.key", f"{interval.name} is there {seen[interval.name]} times; give each a key"
            )
        steps = [step for step in sheet.steps if step.key in interval.steps]
        apart = any(step.stage == "strip" for step in steps)
        unsafe = [step.text for step in sheet.steps if step.stage == "safe" and step not in steps] if apart else []
        if unsafe:
            text = f"this service takes things apart without making safe: {'; '.join(unsafe)}"
            yield FieldFault(f"intervals.{index}.steps", text)
        for does, undoes in (("takes_off", "puts_on"), ("opens", "closes"), ("loosens", "tightens")):
            left = {key for step in steps for key in getattr(step, does)} - {
                key for step in steps for key in getattr(step, undoes)
            }
            if left:
                words = does.replace("_", " ")
                text = f"this service {words} {', '.join(sorted(left))}, and no step of it {undoes.replace('_', ' ')} it again"
                yield FieldFault(f"intervals.{index}.steps", text)


def _group_faults(sheet: Sheet, names: Names) -> Iterator[FieldFault]:
    for index, group in enumerate(sheet.fasteners):
        path = f"fasteners.{index}"
        yield from unknown(f"{path}.part", group.part, names.parts, "part")
        placed = Counter(number for place in group.places for number in place.numbers)
        for number, count in placed.items():
            if number > group.count or count > 1:
                why = f"there are {group.count}" if number > group.count else "it is listed twice"
                yield FieldFault(f"{path}.places", f"number {number} cannot be: {why}")
        for place, phase in enumerate(group.phases):
            yield from unknown(f"{path}.phases.{place}.at", phase.at, names.steps, "step")
            if isinstance(phase, MarkPhase):
                yield from unknown(f"{path}.phases.{place}.mark", phase.mark, names.marks, "mark")
            if isinstance(phase, TorquePhase):
                yield from _noted_faults(f"{path}.phases.{place}.noted_at", sheet, names, phase.noted_at)


def _noted_faults(path: str, sheet: Sheet, names: Names, noted_at: str | None) -> Iterator[FieldFault]:
    """A torque told at a step wants a note of a torque there, with the limits of what can be."""
    yield from unknown(path, noted_at, names.steps, "step")
    for step in sheet.steps:
        note = step.note
        figure_known = note is not None and note.read is Read.TORQUE and note.limit is not None and not note.readings
        if step.key == noted_at and not figure_known:
            text = "its step writes down no torque: a note with read: torque and a limit"
            yield FieldFault(path, text, ("limit: 10 N·m to 60 N·m",))


def _setting_faults(sheet: Sheet, names: Names) -> Iterator[FieldFault]:
    for index, setting in enumerate(sheet.settings):
        if setting.adjuster is not None:
            yield from unknown(f"settings.{index}.adjuster.part", setting.adjuster.part, names.parts, "part")


def _test_faults(sheet: Sheet, names: Names) -> Iterator[FieldFault]:
    for index, test in enumerate(sheet.tests):
        yield from _all_known(f"tests.{index}.zones", test.all_zones, names.zones, "zone")
        yield from _all_known(f"tests.{index}.after", test.after, names.steps, "step")
        yield from unknown(f"tests.{index}.corrected_by", test.corrected_by, names.settings, "setting")


def _only_faults(sheet: Sheet, names: Names) -> Iterator[FieldFault]:
    for path, item in conditional(sheet):
        for question, choices in item.only.items():
            yield from unknown(f"{path}.only", question, names.questions, "question")
            for choice in choices:
                if question in names.questions:
                    yield from unknown(
                        f"{path}.only.{question}", choice, names.questions[question], f"choice of {question}"
                    )
    for index, asked in enumerate(sheet.questions):
        yield from unknown(f"questions.{index}.seen_at", asked.seen_at, names.steps, "step")


def conditional(sheet: Sheet) -> Iterator[tuple[str, Item]]:
    """Every item of the sheet that may depend on an answer, with its path."""
    lists: dict[str, Sequence[Any]] = {
        name: getattr(sheet, name)
        for name in (
            "zones", "parts", "stations", "steps", "ladders", "kits", "fasteners", "settings", "tests", "positions",
            "observations", "intervals", "disposal",
        )
    }  # fmt: skip
    inner = {
        "parts": ("points",), "stations": ("seats",), "kits": ("lines",), "fasteners": ("phases",), "ladders": ("rungs",),
    }  # fmt: skip
    for name, items in lists.items():
        for index, item in enumerate(items):
            yield f"{name}.{index}", item
            for field in inner.get(name, ()):
                for place, key in enumerate(getattr(item, field)):
                    yield f"{name}.{index}.{field}.{place}", key
                    for at, element in enumerate(getattr(key, "elements", ()) if field == "seats" else ()):
                        yield f"{name}.{index}.{field}.{place}.elements.{at}", element
