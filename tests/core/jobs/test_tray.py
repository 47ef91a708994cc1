"""The part tray of the latch ram: what lies in it while the unit is apart, and what is left at the end.

By its sheet the wire, the rod, the piston and the gland come off in this order; the wire is of one use.
"""

from __future__ import annotations

import pytest

from ironkettle.core.jobs.tray import in_tray, is_scrap, scrapped
from tests.bench import Job
from tests.core.jobs.at_work import at
from tests.tiny import sheet_of, unit


def lying(job_at: str) -> dict[str, tuple[int, bool, bool]]:
    return {one.part: (one.place, one.scrap, one.gone) for one in in_tray(at("swing-bridge-ram", job_at).case())}


def test_it_is_empty_before_anything_comes_off() -> None:
    assert lying("step:wire-out") == {}


def test_what_came_off_lies_in_its_numbered_place() -> None:
    assert lying("step:piston-off") == {"wire": (1, True, False), "rod": (2, False, False)}


def test_what_went_back_leaves_its_place_empty_and_what_is_renewed_stays_for_scrap() -> None:
    at_the_end = lying("account")
    assert at_the_end["wire"] == (1, True, False)
    assert {part for part, (_, _, gone) in at_the_end.items() if gone} == {"rod", "piston", "gland"}
    assert sorted(place for place, _, _ in at_the_end.values()) == [1, 2, 3, 4]


def test_what_is_scrap_is_known_before_it_comes_off() -> None:
    assert list(scrapped(at("swing-bridge-ram", "step:wire-out").case())) == ["wire"]


def test_a_condemned_part_does_not_go_back() -> None:
    job = at("swing-bridge-ram", "measure:rod")
    assert not next(one for one in in_tray(job.case()) if one.part == "rod").scrap
    job.take(job.task("measure:rod"), verdict="replace", note="scored from end to end")
    rod = next(one for one in in_tray(job.case()) if one.part == "rod")
    assert rod.scrap
    assert not rod.gone


def test_the_old_one_of_a_part_that_was_replaced_is_left_at_the_end() -> None:
    job = at("swing-bridge-ram", "measure:rod")
    job.take(job.task("measure:rod"), verdict="replace", note="scored from end to end")
    job.walk(until=lambda task: task.key == "account")
    assert next(one for one in in_tray(job.case()) if one.part == "rod").scrap
    assert "retaining wire, rod" in job.task("account").asks[0].label


def test_what_no_step_puts_back_is_scrap() -> None:
    document = unit("swing-bridge-ram")
    for step in document["steps"]:
        if step.get("stage") == "rebuild" and "gland" in step.get("puts_on", []):
            step["puts_on"] = [part for part in step["puts_on"] if part != "gland"]
    case = Job(sheet_of(document)).case()
    assert is_scrap(case, "gland")
    assert not is_scrap(case, "piston")


def test_a_part_that_is_sent_out_comes_back_and_is_no_scrap() -> None:
    job = at("swing-bridge-ram", "measure:rod")
    job.take(job.task("measure:rod"), verdict="send_out", note="to be chromed again")
    assert not next(one for one in in_tray(job.case()) if one.part == "rod").scrap
    job.walk(until=lambda task: task.key == "account")
    assert next(one for one in in_tray(job.case()) if one.part == "rod").gone


@pytest.mark.parametrize("key", ["swing-bridge-ram", "header-tank-valve", "net-pen-compressor"])
def test_the_picture_of_the_end_shows_what_the_question_names(key: str) -> None:
    job = at(key, "account")
    left = [one.name.lower() for one in in_tray(job.case()) if not one.gone]
    asked = job.task("account").asks[0].label
    assert all(name in asked for name in left)
    assert bool(left) == ("scrap" in asked)
