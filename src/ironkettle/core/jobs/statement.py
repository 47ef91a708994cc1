"""What a certificate states, made from the log: what was done, and beside it whatever was not, in a customer's words."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from datetime import date

from ironkettle.core.base.errors import RuleError
from ironkettle.core.jobs.kinds.closing import ENDING_WORD
from ironkettle.core.jobs.kinds.identify import ring_of
from ironkettle.core.jobs.kinds.passed_over import GROUND_WORD, ChapterSkipped, MoveSkipped
from ironkettle.core.jobs.kinds.proven import counting_run, worked_since
from ironkettle.core.jobs.kinds.supply import shortages
from ironkettle.core.jobs.log import Case
from ironkettle.core.jobs.model import Move, Status
from ironkettle.core.jobs.runs import GaugeUsed, WrenchUsed
from ironkettle.core.sealing.grooves import check_gland
from ironkettle.core.sheets.document.facts import gland_of

# The end of a claim that nothing stands against.
FIT = ", and fit for service."
_VERDICT = {
    "fail": "failed",
    "undecided": "could not be decided",
    "invalid": "was not held as it must be",
}


def compose_statement(case: Case, moves: Sequence[Move]) -> tuple[str, ...]:
    """The sentences of the certificate: the first says what may be claimed, the others what stands beside it.

    Nothing is claimed that the log does not show: *tested* only when every test of the sheet was run
    and passed at last, *fit for service* only when nothing stands against it. What is no reason
    against it but has to be known, an old part that was kept or an earlier run that failed, follows.
    """
    ended = case.state.get("ended", "ended")
    if ended is not None:
        return (f"Not repaired, {ENDING_WORD[ended.how]}: {ended.reason}", *_to_know(case))
    against = tuple(_against(case, moves))
    tests = [test for test in case.resolved.sheet.tests if test.when in {"as_left", "both"}]
    untested = [test.name for test in tests if _verdict(case, test.key) != "pass"]
    care = case.resolved.care
    if care is not None:
        claim = f"Looked after as recorded: {care.what}, due every {' or '.join(care.every)}"
    elif not tests:
        claim = "Repaired as recorded; the build sheet asks for no test"
    elif untested:
        claim = f"Repaired as recorded, and not tested as it must be: {', '.join(untested)}"
    else:
        claim = "Repaired as recorded, and tested"
    ending = ". Read what stands beside it." if against else FIT
    return (claim + ending, *against, *_to_know(case))


def _verdict(case: Case, test: str) -> str:
    run = counting_run(case.state, test)
    if run is None or run.judgement is None:
        return "not run"
    bound = any(test in step.runs for step in case.resolved.sheet.steps)
    return "worked on since" if not bound and worked_since(case, run) else run.judgement.verdict


def _against(case: Case, moves: Sequence[Move]) -> Iterator[str]:
    if case.draft:
        sheet = case.resolved.whole
        yield f"Worked on a draft sheet: version {sheet.version} of {sheet.name} was not approved when this was signed."
    yield from _passed_over(case, moves)
    for test in case.resolved.sheet.tests:
        if test.when == "as_found":
            continue
        verdict = _verdict(case, test.key)
        runs, counts = _closed(case, test.key), counting_run(case.state, test.key)
        if counts is None:
            yield f"{test.name}: not run."
        elif verdict == "worked on since":
            yield f"{test.name}: passed, and the unit was worked on after it."
        elif verdict != "pass":
            yield f"{test.name}, run {runs.index(counts.key) + 1}: {_VERDICT[verdict]}."
    yield from _parts(case)
    yield from _overruled(case)
    yield from _tools(case)


def _closed(case: Case, test: str) -> list[str]:
    return [run.key for run in case.state.runs_of(test, "as_left") if run.closed is not None]


def _to_know(case: Case) -> Iterator[str]:
    for test in case.resolved.sheet.tests:
        counts = counting_run(case.state, test.key)
        for number, run in enumerate(
            [one for one in case.state.runs_of(test.key, "as_left") if one.closed is not None], start=1
        ):
            if run.abandoned:
                yield f"{test.name}, run {number}: abandoned, {run.note}."
            elif run is not counts and run.judgement is not None and run.judgement.verdict != "pass":
                yield f"{test.name}, run {number}: {_VERDICT[run.judgement.verdict]}; it was run again."
    for key, fitted in case.state.book("fitted").items():
        at = case.resolved.elements.get(key)
        if fitted.value.reused and at is not None:
            yield f"The old {at.spec.name} was kept."
    for words in sorted(_scripts(case)):
        yield f"Not all was entered by hand: {words}."


def _scripts(case: Case) -> set[str]:
    """By which scripts' tokens something was entered, in words."""
    marks = [
        marked.mark
        for book in (*case.state.books.values(), *case.state.seen_first.values())
        for marked in book.values()
    ]
    marks += [run.mark for run in case.state.runs.values()]
    return {mark.token.words for mark in marks if mark.token is not None}


def _passed_over(case: Case, moves: Sequence[Move]) -> Iterator[str]:
    skipped = case.state.book("skipped")
    for move in moves:
        if move.status is not Status.SKIPPED:
            continue
        marked = skipped.get(move.key)
        if marked is not None:
            yield f"Passed over: {move.text}. {_because(marked.value)}."
    for chapter, marked in case.state.book("skipped_chapters").items():
        if any(move.status is Status.SKIPPED and move.key not in skipped for move in moves):
            yield f"Went on without finishing {chapter}: {_because(marked.value)}."


def _because(passed: MoveSkipped | ChapterSkipped) -> str:
    ground = f"{GROUND_WORD[passed.grounds]}; " if passed.grounds else ""
    return f"{ground}{passed.reason}"


def _parts(case: Case) -> Iterator[str]:
    for key, chosen in case.state.book("sizes").items():
        at = case.resolved.elements.get(key)
        if at is None or at.spec.kind.value != "o_ring":
            continue
        try:
            gland = gland_of(case.resolved.sheet, at.station, at.seat)
            ring = ring_of(case, chosen.value.size)
        except RuleError:
            continue
        # Judged here, not taken over from the one who chose.
        if gland is not None and check_gland(gland, ring, case.tables.glands).verdict == "reject":
            size = chosen.value.size
            yield f"The size chosen for the {at.spec.name}, {size}, is outside the usual limits of its groove."
    for what, missing in shortages(case).items():
        line = case.resolved.kit_lines.get(what)
        part = case.resolved.parts.get(what.removeprefix("part-"))
        name = line.name if line else part.name if part else what
        yield f"{name}: {missing} short and not come by the end."


def _overruled(case: Case) -> Iterator[str]:
    for key, fitted in case.state.book("fitted").items():
        at = case.resolved.elements.get(key)
        if fitted.value.against and at is not None:
            yield f"{at.spec.name} fitted with {fitted.value.lubricant} against the build sheet: {fitted.value.against}."
    timers = {step.timer.key: step.timer for step in case.resolved.sheet.steps if step.timer}
    for key, cut in case.state.book("cut").items():
        timer = timers.get(key)
        # Where the sheet lets a timer be cut it is no deviation.
        if timer is not None and not timer.may_cut:
            yield f"Cut short, {timer.minutes:g} min for {timer.what_for or 'a wait'}: {cut.value.reason}."


def _tools(case: Case) -> Iterator[str]:
    uses: list[tuple[WrenchUsed | GaugeUsed, date]] = [
        (marked.value.wrench_used, marked.mark.when.date())
        for marked in case.state.book("tightened").values()
        if marked.value.wrench_used is not None
    ]
    uses += [(run.gauge, run.mark.when.date()) for run in case.state.runs.values() if run.gauge is not None]
    ended = {
        tool.name: tool.calibrated_until for tool, day in uses if tool.calibrated_until and day > tool.calibrated_until
    }
    for name, until in ended.items():
        yield f"{name} was used past its calibration, which ended on {until.isoformat()}."
    for test in case.resolved.sheet.tests:
        run, told = counting_run(case.state, test.key), case.resolved.told.get(test.key)
        if run is not None and run.gauge is None and told is not None and told.reads_pressure:
            yield f"{test.name} was read on no gauge of the shop's list: how far that may be off is not known."
