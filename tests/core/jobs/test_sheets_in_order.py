"""What each shipped sheet says in what order, as its technician knows it: one test for each thing that was found wrong by trying."""

from __future__ import annotations

import pytest

from ironkettle.core.base.errors import RefusedError
from ironkettle.core.jobs.kinds.tightening import TurnScreen
from tests.bench import Job, filled
from tests.core.jobs.at_work import at
from tests.tiny import sheet_of, unit

# By unit, what comes first and what then. The line of the stuffing box is drawn where the nut stands once it has had its turn.
ORDER: dict[str, list[tuple[str, str]]] = {
    "jetting-pump-box": [
        ("tighten:nut-turns@1:1:1", "step:back-off@1"),
        ("step:back-off@1", "tighten:nut-back@1:0:1"),
        ("tighten:nut-back@1:0:1", "step:plunger-in@1"),
    ],
    "weed-skip-ram": [("step:nut-off", "find:vees"), ("test:hold:as_left", "test:outside-dry:as_left")],
    "escape-set-regulator": [("step:lever-down", "fit:diaphragm"), ("set:orifice-preset", "step:slots")],
    "control-air-regulator": [("step:pusher-in", "fit:metal-diaphragm")],
    "net-pen-compressor": [
        ("step:cylinder-on@2", "step:mid-stroke"),
        ("step:mid-stroke", "step:head-on@1"),
        ("tighten:leaf-screws@1:0:1", "step:plate-on@1"),
        ("step:plate-off@1", "answer:heads"),
    ],
    "fuel-injector": [("step:pipes-on", "tighten:hold-down:3:3"), ("tighten:hold-down:3:3", "step:turned")],
    "diver-compressor": [("tighten:head-bolts:1:3", "tighten:stud-nut:1:1")],
    "fastening-tool": [
        ("tighten:puller-bottom:0:1", "tighten:puller-screws:0:1"),
        ("tighten:gland-slot:1:1", "step:gland-proof"),
    ],
    "tilt-ram": [("timer:ring", "step:rod-in")],
    "loader-lift-ram": [("fit:rod-wiper-ring", "step:gland-on")],
    "boring-head": [("answer:model", "step:hose-off")],
}


@pytest.mark.parametrize("key", ORDER)
def test_one_comes_before_the_other_and_not_the_other_way_round(key: str) -> None:
    job, came = Job(sheet_of(unit(key))), list[str]()
    while (task := job.next()) is not None:
        for first, then in ORDER[key]:
            if first == task.key:
                with pytest.raises(RefusedError):
                    job.do(filled(job.task(then)))
        came.append(task.key)
        job.take(task)
    for first, then in ORDER[key]:
        assert came.index(first) < came.index(then)


def test_the_machine_carries_no_load_on_what_the_stand_has_not_proved() -> None:
    job = at("weed-skip-ram", "test:hold:as_left")
    assert "prove it on the bench before it goes on the machine" in job.task("test:outside-dry:as_left").blocked_by[0]


@pytest.mark.parametrize(
    ("key", "task", "says"),
    [
        ("jetting-pump-box", "tighten:nut-back@1:0:1", "Backed off"),
        ("jetting-pump-box", "tighten:nut-turns@1:1:1", None),
        ("fastening-tool", "tighten:gland-slot:1:1", "Backed off"),
        ("fastening-tool", "tighten:gland-slot:0:1", None),
        ("fuel-injector", "tighten:hold-down:1:1", "Loosened"),
    ],
)
def test_what_is_backed_off_is_not_called_tightened(key: str, task: str, says: str | None) -> None:
    assert at(key, task).task(task).action == says


def test_a_turn_is_counted_from_where_the_nut_stands() -> None:
    job = at("jetting-pump-box", "tighten:nut-turns@1:1:1")
    task = job.task("tighten:nut-turns@1:1:1")
    screen = task.kind.screen(job.case(), task)
    assert isinstance(screen, TurnScreen)
    assert screen.dial is not None
    assert screen.dial.words == "from where it stands now, as drawn"


def test_a_check_ball_has_no_side_and_a_reed_plate_lies_as_it_is_marked() -> None:
    ball = at("air-pump-liquid-end", "fit:ball").task("fit:ball")
    assert [ask.field for ask in ball.asks if ask.field == "faces"] == []
    reed = at("diver-compressor", "fit:reed-plate").task("fit:reed-plate")
    assert [ask.label for ask in reed.asks if ask.field in {"faces", "marks"}] == [
        "As marked: word TOP up, four suction holes to the suction pocket?"
    ]


@pytest.mark.parametrize(
    ("key", "element", "lubricant"),
    [
        ("jetting-pump-box", "bottom@1", "engine_oil"), ("jetting-pump-box", "wiper@1", "engine_oil"),
        ("ballast-globe-valve", "lower-gasket", "gasket_sealant"), ("ballast-globe-valve", "upper-gasket", "gasket_sealant"),
        ("diver-compressor", "lower-gasket", "gasket_sealant"), ("net-pen-compressor", "head-gasket@1", "silicone_grease"),
        ("dosing-motor", "diaphragm", "food_gel"), ("dosing-check-valve", "disc-seal", "glycerine"),
    ],
)  # fmt: skip
def test_what_the_step_says_is_what_is_proposed(key: str, element: str, lubricant: str) -> None:
    job = at(key, f"fit:{element}")
    (ask,) = (ask for ask in job.task(f"fit:{element}").asks if ask.field == "lubricant")
    assert ask.proposed == lubricant
