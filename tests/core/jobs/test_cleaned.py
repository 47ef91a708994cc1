"""What parts are cleaned with is said and suits them; no acid on bleach; no heat on what burns."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

import pytest

from ironkettle.core.base.errors import RefusedError, RuleError
from ironkettle.core.jobs.cleaning import allowed_cleaners, cleaning_words, proposed_cleaner
from ironkettle.core.jobs.kinds.rinse import is_rinsed
from ironkettle.core.jobs.registry import payload_words
from ironkettle.core.sealing.compounds import Cleaner
from ironkettle.core.sheets.document.hazards import is_hot, put_on
from ironkettle.core.sheets.soundness.check import check_text, read_text
from tests.bench import INTAKE, Job, filled
from tests.core.jobs.at_work import at, fields
from tests.tiny import TABLES, UNITS, sheet_of, unit

EVERY = sorted(path.stem for path in UNITS.glob("*.yaml"))


@pytest.mark.parametrize("key", EVERY)
def test_every_step_of_cleaning_proposes_what_it_allows(key: str) -> None:
    job = Job(sheet_of(unit(key)))
    case = job.case()
    for step in case.resolved.sheet.steps:
        proposed, allowed = proposed_cleaner(case, step), allowed_cleaners(case, step)
        assert (proposed in allowed) if step.cleans else (proposed is None and allowed == ())
        asks = {ask.field: ask for ask in job.task(f"step:{step.key}").asks}
        assert ("cleaner" in asks) is bool(step.cleans)
        if proposed is not None:
            assert asks["cleaner"].proposed == proposed.value
            assert [choice.key for choice in asks["cleaner"].choices] == [one.value for one in allowed]


def last_words(job: Job) -> str:
    return payload_words(job.resolved, job.entries[-1][0])


def washed(job: Job, **changes: Any) -> None:
    job.do(filled(job.task("step:wash")) | changes)


@pytest.mark.parametrize(
    ("cleaner", "says"),
    [
        ("elbow grease", "not in the list of cleaners"),
        ("hydrochloric acid", "not for this bench"),
        ("phosphoric_acid", "does not lift oil and dirt; Phosphoric rust remover attacks chromed steel"),
    ],
)
def test_what_does_not_suit_the_parts_is_refused(cleaner: str | None, says: str) -> None:
    job = at("swing-bridge-ram", "step:wash")
    with pytest.raises(RuleError) as caught:
        washed(job, cleaner=cleaner)
    assert fields(caught) == ["cleaner"]
    assert says in caught.value.faults[0].message


def test_what_it_was_cleaned_with_is_said_and_stands_on_the_record() -> None:
    job = at("swing-bridge-ram", "step:wash")
    with pytest.raises(RuleError, match="what was it cleaned with"):
        washed(job, cleaner=None)
    washed(job, cleaner="white spirit")
    assert last_words(job).endswith("; cleaned with paraffin or white spirit")
    with pytest.raises(RuleError, match="nothing is cleaned at this step"):
        job.do({"kind": "step_done", "step": "bleed", "cleaner": "water"})


def test_acid_waits_for_a_neutral_strip_where_bleach_stood() -> None:
    job = at("dosing-check-valve", "rinse:wash")
    task = job.next()
    assert task is not None
    assert "gives off chlorine" in str(task.caution)
    with pytest.raises(RefusedError) as caught:
        job.do(filled(job.task("step:wash")))
    assert caught.value.code == "not-safe"
    job.do(filled(task) | {"neutral": False})
    with pytest.raises(RefusedError, match="rinse until the test strip is neutral"):
        job.do(filled(job.task("step:wash")))
    job.do(filled(job.task("rinse:wash")))
    assert last_words(job) == "rinsed, test strip neutral"
    washed(job)


def test_bleach_at_intake_counts_on_every_sheet() -> None:
    job = Job(sheet_of(unit("dosing-motor")), intake=False)
    job.do({**INTAKE, "pressure": "6 bar", "fluid": "pool bleach"})
    assert any(task.key == "rinse:rinse" for task in job.tasks())
    assert not any(task.key.startswith("rinse:") for task in Job(sheet_of(unit("dosing-motor"))).tasks())
    # What may only be chosen is refused as well: nobody rinsed.
    tank = Job(sheet_of(unit("header-tank-valve")), intake=False)
    tank.do({**INTAKE, "pressure": "4 bar", "fluid": "chlorinated water"})
    with pytest.raises(RefusedError) as caught:
        tank.do({"kind": "rung_tried", "part": "plunger", "rung": "lime", "moved": True})
    assert caught.value.code == "not-safe"


@pytest.mark.parametrize("key", EVERY)
def test_a_part_is_read_after_it_was_washed(key: str) -> None:
    """Where the sheet does not say at which step: what is under dirt cannot be judged."""
    job = Job(sheet_of(unit(key)))
    steps = job.sheet.steps
    named = {name.part for step in steps for name in step.reads}
    every = {step.key for step in steps if step.stage == "clean" and step.cleans}
    for part in job.sheet.parts:
        own = {step.key for step in steps if part.key in step.cleans} or every
        task = next((one for one in job.tasks() if one.key == f"measure:{part.key}"), None)
        if part.key not in named and task is not None:
            first = next(step.text for step in steps if step.key in own)
            assert any(first in words for words in task.blocked_by), part.key


def rung(job: Job, key: str, part: str = "seat") -> None:
    job.do({"kind": "rung_tried", "part": part, "rung": key, "moved": False})


def test_no_heat_on_penetrating_oil_until_it_has_dried() -> None:
    job = at("ballast-globe-valve", "step:seat-out")
    ladder = {one.key: one for one in job.task("step:seat-out").ladder}
    assert "wiped off and dried for 15 min before any heat" in str(ladder["heat"].caution)
    rung(job, "soak")
    with pytest.raises(RefusedError, match="flammable; wipe it off and let it dry for") as caught:
        rung(job, "heat")
    assert caught.value.code == "too-early"
    job.now += timedelta(minutes=14, seconds=59)
    with pytest.raises(RefusedError):
        rung(job, "heat")
    job.now += timedelta(seconds=1)
    rung(job, "heat")
    with pytest.raises(RefusedError, match="it is hot, and penetrating oil or spray is flammable"):
        rung(job, "soak")
    job.now += timedelta(minutes=15)
    rung(job, "soak")


def test_the_words_of_cleaning_are_one_cleaner_s() -> None:
    case = Job(sheet_of(unit("dosing-motor"))).case()
    words = cleaning_words(case, case.resolved.steps["rinse"])
    assert any("dilute vinegar" in word.casefold() for word in words)
    assert not any("citric" in word.casefold() for word in words)


@pytest.mark.parametrize(
    ("key", "was", "now", "path"),
    [
        ("dosing-motor", "cleaner: vinegar", "cleaner: solvent", "steps"),
        ("dosing-motor", "cleaner: vinegar", "cleaner: citric_acid", "steps"),
        ("dry-disconnect-coupler", "A bar on the wrench", "Body in the oven, a bar on the wrench", "ladders.0.rungs.2.hot"),
        ("dry-disconnect-coupler", "uses: [penetrating_oil]", "uses: [holy_water]", "ladders.0.rungs.1.uses"),
        ("weed-skip-ram", "only where there is scale or rust: mild acid", "steel wool and citric acid", None),
        ("tilt-ram", "hone lightly, then wash", "rust remover, wash", None),
    ],
)  # fmt: skip
def test_a_sheet_that_says_one_thing_and_another_is_refused(key: str, was: str, now: str, path: str | None) -> None:
    text = (UNITS / f"{key}.yaml").read_text(encoding="utf-8")
    assert was in text
    found = check_text(text.replace(was, now), TABLES).faults
    assert [one.field.startswith(path) for one in found if path] == [True] * len(found if path else [])
    assert bool(found) is (path is not None)


def test_what_a_sheet_forgets_to_flag_its_words_give_away() -> None:
    text = (UNITS / "ballast-globe-valve.yaml").read_text(encoding="utf-8")
    bare = text.replace("uses: [penetrating_oil]", "uses: []").replace("hot: true, ", "")
    job = Job(read_text(bare, TABLES))
    job.walk(until=lambda task: task.key == "step:seat-out")
    rung(job, "soak")
    with pytest.raises(RefusedError, match="flammable; wipe it off"):
        rung(job, "heat")


@pytest.mark.parametrize(
    ("text", "hot", "on"),
    [
        ("Heat the belly from both sides", True, ()),
        ("Warm the rod end to 120 °C", True, ()),
        ("Warm water of 60 °C over the crust", False, ()),
        ("Warmed to 61 °C", True, ()),
        ("Pull it off, no heat", False, ()),
        ("Penetrant round the nut, never paraffin", False, ("Penetrating oil or spray",)),
        ("Warm citric acid, rinse", False, ("citric_acid",)),
        ("Tap it", False, ()),
    ],
)
def test_heat_and_liquids_in_words(text: str, hot: bool, on: tuple[str, ...]) -> None:
    assert is_hot(text, False) is hot
    assert is_hot(text, True)
    assert put_on(text, ()) == on
    assert put_on(text, ("acetone",)) == ("acetone", *on)


def test_what_a_text_forbids_is_not_proposed() -> None:
    text = (UNITS / "swing-bridge-ram.yaml").read_text(encoding="utf-8")
    said = text.replace(
        "Wash all parts, blow the ports through", "Wash all parts, no solvent, blow the ports through"
    ).replace("consumables: [washing fluid, lint-free rags]", "consumables: [lint-free rags]")
    assert said != text
    case = Job(read_text(said, TABLES)).case()
    assert proposed_cleaner(case, case.resolved.steps["wash"]) is Cleaner.NEUTRAL_WASH


def test_a_rinse_counts_no_more_once_another_fluid_is_told() -> None:
    job = at("dosing-check-valve", "rinse:wash")
    job.do(filled(job.task("rinse:wash")))
    assert is_rinsed(job.case(), "wash")
    job.do({**job.entries[0][0].model_dump(mode="json"), "fluid": "bleach"})
    assert not is_rinsed(job.case(), "wash")
    assert job.task("rinse:wash").status.value == "next"


def test_a_rinse_that_was_used_is_not_asked_for_again_after_the_test() -> None:
    job = at("dosing-check-valve", "account")
    assert job.task("rinse:wash").status.value == "done"
    assert not is_rinsed(job.case(), "wash")
