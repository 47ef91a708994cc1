"""What a customer reads of a job: what was found and how it is now, what was done and fitted, the tests, what stands against it.

No probabilities, no opinions, no keys of the sheet: the technical record has the rest.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import date

from ironkettle.core.base.dates import shown_day
from ironkettle.core.base.text import no_minus_zero
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kinds.arrival import CAME
from ironkettle.core.jobs.kinds.correction import decided_causes
from ironkettle.core.jobs.kinds.dressing import DRESSED
from ironkettle.core.jobs.kinds.ending import ending_of
from ironkettle.core.jobs.kinds.find import reversed_words
from ironkettle.core.jobs.kinds.fitting import FITTED
from ironkettle.core.jobs.kinds.inspection import POINTS
from ironkettle.core.jobs.kinds.kit_count import KITS
from ironkettle.core.jobs.kinds.observation import OBSERVED
from ironkettle.core.jobs.kinds.setting import SETTINGS, setting_words
from ironkettle.core.jobs.kinds.size import SIZES
from ironkettle.core.jobs.kinds.step import STEPS
from ironkettle.core.jobs.practice import signs_on
from ironkettle.core.jobs.registry import payload_words
from ironkettle.core.jobs.resolved import ElementAt
from ironkettle.core.jobs.runs import GaugeUsed, Judgement
from ironkettle.core.jobs.shortage import PART
from ironkettle.core.jobs.state import Mark, Run
from ironkettle.core.sheets.document.fastening import TargetSetting
from ironkettle.core.sheets.document.supplies import Kit, KitLine

VERDICT_SHOWN = {"pass": "passed", "fail": "failed", "undecided": "not decided", "invalid": "not held as required"}
NOT_RUN = "not run"


@dataclass(frozen=True, slots=True)
class FoundLeft:
    """One thing as it came in and as it goes out, in words with their units; ``allowed``: what it is held against."""

    what: str
    found: str
    left: str
    allowed: str = ""


@dataclass(frozen=True, slots=True)
class FittedLine:
    """Elements of a kind that were fitted alike: how many, their size and compound, where they came from."""

    what: str
    count: int
    size: str
    compound: str
    origin: str


@dataclass(frozen=True, slots=True)
class Figure:
    """One figure of a test: what it came to, its 95 % interval, and what it was held against."""

    name: str
    shown: str
    interval: str = ""
    within: str = ""


@dataclass(frozen=True, slots=True)
class TestLine:
    """The run of a test that counts. ``run``: its key, by which its readings are found; None where it was not run."""

    name: str
    verdict: str
    figures: tuple[Figure, ...] = ()
    gauge: str = ""
    run: str | None = None


@dataclass(frozen=True, slots=True)
class Summary:
    """The customer's page in words."""

    title: str
    found_left: tuple[FoundLeft, ...]
    causes: tuple[str, ...]
    done: tuple[str, ...]
    fitted: tuple[FittedLine, ...]
    tests: tuple[TestLine, ...]


def summary_of(case: Case) -> Summary:
    """The customer's page of a job as it stands. Source: the log alone."""
    return Summary(
        title_of(case),
        tuple(_found_left(case)),
        tuple(_causes(case)),
        tuple(_done(case)),
        tuple(_fitted(case)),
        tuple(_tests(case)),
    )


def title_of(case: Case) -> str:
    """What the paper is: of a repair, of a quick service, or of what was found."""
    if ending_of(case.state) is not None:
        return "Certificate of what was found"
    return "Repair certificate" if case.resolved.quick_service is None else "Service certificate"


def _found_left(case: Case) -> Iterator[FoundLeft]:
    state = case.state
    for observation in case.resolved.sheet.observations:
        unit = f" {observation.unit}" if observation.unit else ""
        # As found is what was seen first, whatever a second look said.
        seen = (
            state.first(OBSERVED).get((observation.key, "as_found")),
            state.book(OBSERVED).get((observation.key, "as_left")),
        )
        if any(seen):
            found, left = (f"{marked.value.value}{unit}" if marked else "not noted" for marked in seen)
            yield FoundLeft(observation.name, found, left)
    for test in case.resolved.sheet.tests:
        before, after = (_counting(case, test.key, when) for when in ("as_found", "as_left"))
        if before is None or after is None:
            continue
        was = {figure.name: figure for figure in figures_of(before)}
        for figure in figures_of(after):
            if figure.name in was:
                name = f"{test.name}: {figure.name.lower()}"
                yield FoundLeft(name, was[figure.name].shown, figure.shown, figure.within)
    yield from _settings_found(case)


def _settings_found(case: Case) -> Iterator[FoundLeft]:
    """A setting that was read before it was turned, beside where it was left."""
    for setting in case.resolved.sheet.settings:
        made = case.state.get(SETTINGS, setting.key)
        first = made.readings[0] if made is not None and made.readings else None
        if made is not None and first is not None and first.turns == 0 and first.value:
            wanted = setting_words(setting) if isinstance(setting, TargetSetting) else ""
            yield FoundLeft(setting.name, first.value, made.locked or made.value or "", wanted)


def _counting(case: Case, test: str, when: str) -> Run | None:
    runs = [run for run in case.state.runs_of(test, when) if run.counts]
    return runs[-1] if runs else None


def figures_of(run: Run) -> tuple[Figure, ...]:
    """What a run came to, figure by figure; nothing for one without a verdict."""
    judged = run.judgement
    if judged is None:
        return ()
    if run.record is not None:
        return tuple(
            Figure(result.name, result.shown, result.interval or "", result.within or "") for result in judged.results
        )
    return _of_hold(judged)


def _of_hold(judged: Judgement) -> tuple[Figure, ...]:
    held = f"{judged.held_low_mpa * 10:.1f} to {judged.held_high_mpa * 10:.1f} bar for {judged.hold_s:.0f} s"
    leak = f"{no_minus_zero(round(judged.rate_ml_min, 3)):.3f} ml/min"
    return (
        Figure("Pressure held", held, within=f"required {judged.wanted}"),
        Figure("Leak", leak, f"{judged.low_ml_min:.3f} to {judged.high_ml_min:.3f} ml/min", f"limit {judged.limit}"),
    )


def _causes(case: Case) -> Iterator[str]:
    decided = decided_causes(case)
    known = {cause.element for cause in decided}
    for element, words in reversed_words(case).items():
        yield f"{'Found' if element in known else 'Likely cause'}: {words}"
    for cause in decided:
        made = f" Corrected: {'; '.join(cause.corrected)}." if cause.corrected else ""
        yield f"Cause, {cause.name}: {cause.customer}{made}"


def _done(case: Case) -> Iterator[str]:
    """What was done to parts and settings, as far as the log has it; elements are told with what was fitted."""
    parts, state = case.resolved.parts, case.state
    for key, dressed in state.book(DRESSED).items():
        read = state.book(POINTS).get(key)
        if key in parts:
            again = " and read again" if read is not None and read.mark.seq > dressed.mark.seq else ""
            yield f"{parts[key].name}: dressed{again}"
    for what, came in state.book(CAME).items():
        key = what.removeprefix(PART)
        if what.startswith(PART) and key in parts:
            serial = f", serial or batch {came.value.serial}" if came.value.serial else ""
            yield f"{parts[key].name}: a new one {'put on' if _put_on_since(case, key, came.mark) else 'received'}{serial}"
    wanted = {setting.key: setting_words(setting) for setting in case.resolved.sheet.settings}
    for key, made in case.state.book(SETTINGS).items():
        if key in wanted:
            yield f"{payload_words(case.resolved, made.value)} (wanted: {wanted[key]})"


def _put_on_since(case: Case, part: str, came: Mark) -> bool:
    """Whether a step that puts a part on was done after the new one had come."""
    steps, done = case.resolved.sheet.steps, case.state.book(STEPS)
    return any(part in step.puts_on and step.key in done and done[step.key].mark.seq > came.seq for step in steps)


def _fitted(case: Case) -> Iterator[FittedLine]:
    lines = Counter(_fitted_as(case, at) for at in case.resolved.elements.values() if case.state.has(FITTED, at.key))
    for (what, size, compound, origin), count in lines.items():
        yield FittedLine(what, count, size, compound, origin)


def _fitted_as(case: Case, at: ElementAt) -> tuple[str, str, str, str]:
    fitted, chosen = case.state.book(FITTED)[at.key].value, case.state.get(SIZES, at.key)
    ring = at.spec.ring
    size = chosen.size if chosen else f"{ring.series} {ring.designation}" if ring else at.spec.size or ""
    line = next(iter(case.resolved.lines_of(at.key)), None)
    compound = (line.compound if line else None) or at.spec.compound or ""
    # Alike at every position: told once with their count.
    name = at.spec.name.rpartition(", ")[0] if "@" in at.key else at.spec.name
    return name, size, compound, _origin(case, at, reused=bool(fitted.reused), source=fitted.source)


def _origin(case: Case, at: ElementAt, *, reused: bool, source: str | None) -> str:
    if reused:
        return f"old one kept{', signs on it' if signs_on(case, at) else ''}"
    if source is not None:
        return "new, from stock" if source == "stock" else "new, ordered"
    found = [(kit, line) for kit in case.resolved.sheet.kits for line in kit.lines if at.key in line.all_elements]
    return f"new{_bag_words(case, *found[0])}" if found else "new"


def _bag_words(case: Case, kit: Kit, line: KitLine) -> str:
    """Where the items of a kit line came from: the bag as far as it was counted there, what came beside it."""
    counted, came = case.state.get(KITS, kit.number), case.state.get(CAME, line.key)
    in_bag = counted is not None and any(count.line == line.key and count.counted for count in counted.lines)
    words = ""
    if counted is not None and in_bag and not line.not_in_kit:
        words = f", kit {kit.number}{f', batch {counted.batch}' if counted.batch else ''}"
    if came is not None:
        words += ", from stock" if came.source == "shelf" else ", delivered for this job"
    return words


def _tests(case: Case) -> Iterator[TestLine]:
    for test in case.resolved.sheet.tests:
        if test.when not in {"as_left", "both"}:
            continue
        run = _counting(case, test.key, "as_left")
        if run is None or run.judgement is None:
            yield TestLine(test.name, NOT_RUN)
            continue
        gauge = "" if run.gauge is None else gauge_words(run.gauge)
        yield TestLine(test.name, VERDICT_SHOWN[run.judgement.verdict], figures_of(run), gauge, run.key)


def gauge_words(gauge: GaugeUsed) -> str:
    """A gauge with its accuracy and calibration."""
    return tool_words(gauge.name, gauge.accuracy_pct, gauge.calibration, gauge.calibrated_until)


def tool_words(name: str, accuracy_pct: float, calibration: str | None, until: date | None) -> str:
    """A wrench or gauge with its accuracy and calibration.

    Parameters: accuracy_pct : above 0, up to 20 [%]. Source: no published source; what the shop's list says.
    """
    known = ", ".join(part for part in (calibration, f"valid to {shown_day(until)}" if until else None) if part)
    return f"{name} ±{accuracy_pct:g} % ({f'calibration {known}' if known else 'no calibration noted'})"


def deviations_of(statement: Sequence[str]) -> tuple[str, ...]:
    """What a statement says beside its claim: restrictions, what was skipped, what has to be known."""
    return tuple(statement[1:])
