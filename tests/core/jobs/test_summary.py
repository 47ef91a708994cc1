"""What a customer reads of a job."""

from __future__ import annotations

import pytest

from ironkettle.core.jobs.history import FigureTold
from ironkettle.core.jobs.summary import Summary, summary_of
from tests.bench import Job, filled
from tests.tiny import sheet_of, unit


@pytest.fixture(scope="module")
def ram() -> Summary:
    """A ram found with a reversed lip and without its backup, its kit's batch noted, worked to its signature."""
    job = Job(sheet_of(unit("swing-bridge-ram")))
    found = {
        "observe:rod-leak:as_found": {"value": "12"},
        "find:rod-lip": {"faced": "outside"},
        "find:gland-backup": {"present": False, "faced": None, "note": "nothing beside the ring"},
        "observe:rod-leak:as_left": {"value": "0"},
        "count:FN-K-5028": {"batch": "B 2611"},
    }
    while (task := job.next()) is not None and task.key != "sign":
        job.take(task, **found.get(task.key, {}))
    return summary_of(job.case())


def test_as_found_stands_beside_as_left(ram: Summary) -> None:
    leak = next(line for line in ram.found_left if line.what == "Leak at the rod")
    assert (leak.found, leak.left) == ("12 drops per minute", "0 drops per minute")


def test_what_was_fitted_has_its_size_and_its_kit_with_the_batch(ram: Summary) -> None:
    lip = next(line for line in ram.fitted if line.what == "rod lip seal")
    assert (lip.count, lip.size, lip.origin) == (1, "28 × 38 × 6.3", "new, kit FN-K-5028, batch B 2611")
    band = next(line for line in ram.fitted if line.what == "rod wear band")
    assert band.origin == "old one kept"


def test_a_reversed_lip_is_told_with_its_cause(ram: Summary) -> None:
    assert any("rod lip seal was found reversed" in words for words in ram.causes)


def test_a_hold_is_told_with_its_figures_and_its_gauge(ram: Summary) -> None:
    line = next(line for line in ram.tests if line.name == "Hold on the rod side")
    assert line.verdict == "passed"
    assert [figure.name for figure in line.figures] == ["Pressure held", "Leak"]
    # The sheet asks for 180 bar and at most 0.5 ml/min.
    assert [figure.within for figure in line.figures] == ["required 180 bar", "limit 0.5 ml/min"]
    assert "Digital gauge 250 bar ±0.5 %" in line.gauge
    assert not line.figures[1].shown.startswith("-0.000")


def test_nothing_of_it_tells_a_share_or_an_opinion(ram: Summary) -> None:
    words = str(ram)
    assert "% likely" not in words
    assert "Others:" not in words
    assert "rod-lip" not in words


def test_a_test_that_was_not_run_says_so() -> None:
    job = Job(sheet_of(unit("swing-bridge-ram")))
    assert {line.verdict for line in summary_of(job.case()).tests} == {"not run"}


@pytest.mark.parametrize(("as_found", "left"), [("252 bar", "284 bar")])
def test_a_setting_tells_what_was_wanted_and_where_it_was_left(as_found: str, left: str) -> None:
    job = Job(sheet_of(unit("fuel-injector")))
    job.walk(until=lambda task: task.key == "set:opening")
    readings = [{"turns": 0.0, "value": as_found}, {"turns": 0.25, "value": left}]
    job.do(filled(job.task("set:opening"), value=left, locked=left, readings=readings))
    summary = summary_of(job.case())
    assert any(f"set to {left}" in words and "(wanted: " in words for words in summary.done)
    # What it read before it was turned, and where it was left: the sheet wants 280 bar.
    (line,) = (line for line in summary.found_left if line.found == as_found)
    assert (line.left, line.allowed.split()[:2]) == (left, ["280", "bar"])


def test_a_job_that_was_given_up_is_no_repair() -> None:
    job = Job(sheet_of(unit("swing-bridge-ram")))
    job.do({"kind": "job_ended", "how": "returned", "reason": "the barrel is cracked"})
    assert summary_of(job.case()).title == "Certificate of what was found"


def test_a_quick_service_has_a_title_of_its_own() -> None:
    sheet = sheet_of(unit("needle-scaler"))
    quick = next(interval.name for interval in sheet.intervals if interval.steps)
    assert summary_of(Job(sheet, quick_service=quick).case()).title == "Service certificate"


def test_a_new_part_is_received_until_a_step_has_put_it_on() -> None:
    job = Job(sheet_of(unit("swing-bridge-ram")))
    while (task := job.next()) is not None and task.key != "receive:part-rod":
        reads = task.key == "measure:rod"
        job.take(task, **{"verdict": "replace", "note": "scored from end to end"} if reads else {})
    job.do(filled(job.task("receive:part-rod"), serial="R 7"))
    assert "Rod: a new one received, serial or batch R 7" in summary_of(job.case()).done
    # Another step puts it on no more than its arrival does.
    job.walk(until=lambda task: task.key.startswith("step:") and "rod" not in job.resolved.steps[task.subject].puts_on)
    job.take(job.next())
    assert "Rod: a new one received, serial or batch R 7" in summary_of(job.case()).done
    on = next(step.key for step in job.resolved.sheet.steps if "rod" in step.puts_on)
    job.walk(until=lambda task: task.key == f"step:{on}")
    job.take(job.task(f"step:{on}"))
    assert "Rod: a new one put on, serial or batch R 7" in summary_of(job.case()).done


def test_a_part_is_read_again_only_when_somebody_has() -> None:
    job = Job(sheet_of(unit("swing-bridge-ram")))
    job.walk(until=lambda task: task.key == "measure:rod")
    job.do(filled(job.task("measure:rod")))
    job.do({"kind": "part_dressed", "part": "rod"})
    assert summary_of(job.case()).done == ("Rod: dressed",)
    job.walk(until=lambda task: task.key == "measure:rod")
    job.take(job.task("measure:rod"))
    assert "Rod: dressed and read again" in summary_of(job.case()).done


@pytest.mark.parametrize(
    ("came", "words"),
    [
        ({}, "new, delivered for this job"),
        ({"source": "delivery"}, "new, delivered for this job"),
    ],
)
def test_what_was_not_in_the_bag_is_not_told_to_be_of_the_kit(came: dict[str, str], words: str) -> None:
    job = Job(sheet_of(unit("swing-bridge-ram")))
    job.walk(until=lambda task: task.key == "count:FN-K-5028")
    task = job.task("count:FN-K-5028")
    place = next(n for n, line in enumerate(dict(task.entry)["lines"]) if "rod-lip" in str(line["line"]))
    line = dict(task.entry)["lines"][place]["line"]
    job.do(filled(task, **{f"lines.{place}.counted": 0}))
    job.do({"kind": "part_ordered", "what": line})
    job.do({"kind": "part_arrived", "what": line, "counted": 1, **came})
    job.walk(until=lambda task: task.key == "fit:rod-lip")
    job.take(job.task("fit:rod-lip"))
    assert next(line.origin for line in summary_of(job.case()).fitted if line.what == "rod lip seal") == words


def test_a_kit_that_nobody_counted_is_not_named() -> None:
    job = Job(sheet_of(unit("swing-bridge-ram")))
    job.walk(until=lambda task: task.key == "count:FN-K-5028")
    job.do({"kind": "task_skipped", "task": "count:FN-K-5028", "reason": "no bag came with it"})
    job.walk(until=lambda task: task.key == "fit:rod-lip")
    job.take(job.task("fit:rod-lip"))
    assert next(line.origin for line in summary_of(job.case()).fitted if line.what == "rod lip seal") == "new"


@pytest.mark.parametrize(
    ("shown", "drawn"),
    [
        ("283.0 bar", (283.0, "bar")), ("-0.75 bar", (-0.75, "bar")), ("12 drops per minute", (12.0, "drops per minute")),
        ("5,5 mm", (5.5, "mm")), ("3", (3.0, "")), ("none seen", (7.0, "")),
    ],
)  # fmt: skip
def test_a_figure_is_drawn_in_the_unit_it_is_shown_in(shown: str, drawn: tuple[float, str]) -> None:
    assert FigureTold("key", "name", "as_left", 7.0, shown).drawn == drawn
