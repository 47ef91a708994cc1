"""A hand-over tells what is known from what is assumed."""

from __future__ import annotations

from ironkettle.core.jobs.handover import hand_over
from tests.bench import filled
from tests.core.jobs.at_work import at


def assumed(unit: str, task: str) -> list[str]:
    job = at(unit, task)
    return [line.words for line in hand_over(job.case(), job.tasks()).assumed]


def test_what_was_only_told_and_what_nobody_has_seen_yet_is_said() -> None:
    assert assumed("control-air-regulator", "step:slack") == [
        "As told at intake, not looked at: fluid “mineral oil ISO VG 46”, pressure 16 bar",
        "Not known yet: Which diaphragm is fitted?",
    ]
    assert len(assumed("control-air-regulator", "step:cap-off")) == 1


def test_a_size_taken_from_its_seat_alone_is_an_assumption() -> None:
    job = at("swing-bridge-ram", "identify:gland-ring")
    entry = filled(job.task("identify:gland-ring"))
    job.do({key: value for key, value in entry.items() if key not in {"inside_diameter", "section"}})
    told = [line.words for line in hand_over(job.case(), job.tasks()).assumed]
    assert "Size of the gland outer O-ring: by its seat, the old one was not measured" in told
    job.do({**entry, "inside_diameter": "40 mm", "section": "3.53 mm", "reason": "measured again"})
    told = [line.words for line in hand_over(job.case(), job.tasks()).assumed]
    assert not any("Size of" in words for words in told)
