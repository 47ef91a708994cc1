"""What the drawing of a job shows: what is in the unit now, and what is off it."""

from __future__ import annotations

from ironkettle.core.jobs.found import drawn_elements
from ironkettle.core.jobs.kinds.step import parts_off
from tests.bench import Job, filled
from tests.core.jobs.at_work import at, plugged


def states(job: Job) -> dict[str, str]:
    return {drawn_element.element: drawn_element.state for drawn_element in drawn_elements(job.case())}


def test_what_came_off_is_drawn_as_found_while_it_is_stripped_and_as_empty_after() -> None:
    job = at("swing-bridge-ram", "find:rod-lip")
    assert states(job)["gland-ring"] == "found"
    assert {"rod", "gland", "piston"} <= parts_off(job.case())
    assert "barrel" not in parts_off(job.case())
    job.walk(until=lambda task: task.key == "step:wash")
    assert set(states(job).values()) == {"off"}
    job.walk(until=lambda task: task.key == "step:gland-on")
    assert (states(job)["rod-lip"], states(job)["gland-ring"]) == ("fitted", "off")
    job.walk(until=lambda task: task.key == "step:free-stroke")
    assert parts_off(job.case()) == frozenset()


def test_a_reversed_one_stays_wrong_though_it_is_off() -> None:
    job = at("swing-bridge-ram", "find:rod-lip")
    job.do(filled(job.task("find:rod-lip"), faced="outside"))
    job.walk(until=lambda task: task.key == "step:wash")
    (lip,) = [drawn_element for drawn_element in drawn_elements(job.case()) if drawn_element.element == "rod-lip"]
    assert (lip.state, lip.faces, lip.wrong) == ("off", "outside", True)


def test_what_is_taken_apart_again_is_off_again() -> None:
    job = plugged()
    job.walk(until=lambda task: task.key == "account")
    assert (states(job), parts_off(job.case())) == ({"ring": "fitted"}, frozenset())
    job.do({"kind": "taken_apart", "step": "out", "reason": "it weeps at the ring"})
    assert parts_off(job.case()) == {"plug"}
    assert states(job)["ring"] != "fitted"
