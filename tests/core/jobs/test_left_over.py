"""What a kit holds and this unit does not need is left over, and said where it goes; a kit counted in one tap."""

from __future__ import annotations

import pytest

from ironkettle.core.base.errors import RuleError
from ironkettle.core.jobs import compose_statement
from ironkettle.core.jobs.registry import payload_words
from tests.bench import filled
from tests.core.jobs.at_work import at, fields


@pytest.mark.parametrize(
    ("unit", "left"),
    [
        # The regulator came with a metal diaphragm, the compressors with the old head and round heads: the first choices of their sheets.
        ("control-air-regulator", ["cloth diaphragm"]),
        ("diver-compressor", ["upper gasket for the new pattern"]),
        ("net-pen-compressor", ["leaf screws with flat heads"]),
        ("dosing-check-valve", []),
    ],
)
def test_what_is_not_needed_is_asked_about_by_name(unit: str, left: list[str]) -> None:
    job = at(unit, "account")
    task = job.task("account")
    asks = [ask for ask in task.asks if ask.field.startswith("left")]
    assert [ask.label for ask in asks] == [f"{name[0].upper()}{name[1:]}, not used: where does it go?" for name in left]
    kit = next(ask for ask in task.asks if ask.field == "kit")
    assert kit.label == (f"Kit: only {left[0]} is left over, not used?" if left else "Kit: nothing is left over?")


def test_where_it_goes_is_on_the_record_and_on_the_certificate() -> None:
    job = at("control-air-regulator", "account")
    whole = filled(job.task("account"))
    with pytest.raises(RuleError) as caught:
        job.do({**whole, "left": []})
    assert fields(caught) == ["left"]
    with pytest.raises(RuleError, match="not a line of a kit that is left over"):
        job.do({**whole, "left": [{"line": "k-metal", "goes": "scrap"}]})
    with pytest.raises(RuleError, match="told twice"):
        job.do({**whole, "left": [{"line": "k-cloth", "goes": "unit"}, {"line": "k-cloth", "goes": "scrap"}]})
    job.do({**whole, "left": [{"line": "k-cloth", "goes": "unit"}]})
    assert payload_words(job.resolved, job.entries[-1][0]) == (
        "tray and kit accounted for; cloth diaphragm not used, with the unit"
    )
    assert "Not used: cloth diaphragm, with the unit." in compose_statement(job.case(), job.tasks())


def test_who_has_counted_taps_once() -> None:
    job = at("net-pen-compressor", "count:FN-K-OC2")
    task = job.task("count:FN-K-OC2")
    once = task.kind.screen(job.case(), task).as_should  # type: ignore[attr-defined]
    assert once.words == "Counted, all as listed"
    # A look into the bag comes first: Enter does not take it.
    assert once.focus is False
    assert list(once.values.values()) == ["2", "2", "2", "2"]


def test_what_is_in_no_bag_is_counted_as_none() -> None:
    job = at("swing-bridge-ram", "count:FN-K-5028")
    task = job.task("count:FN-K-5028")
    once = task.kind.screen(job.case(), task).as_should  # type: ignore[attr-defined]
    names = [line.name for line in job.resolved.sheet.kits[0].lines]
    assert names[-1] == "thread locker"
    assert list(once.values.values())[-1] == "0"
