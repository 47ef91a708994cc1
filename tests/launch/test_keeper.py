"""What dies is started again, with growing pauses, in words."""

from __future__ import annotations

from dataclasses import dataclass, field

import pytest

from ironkettle.launch.keeper import Kept
from ironkettle.launch.trouble import Trouble


@dataclass
class Thing:
    """Something that dies and starts as told, on a clock of its own."""

    alive: bool = True
    fails: int = 0
    now: float = 0.0
    starts: list[float] = field(default_factory=list)

    def start(self) -> None:
        self.starts.append(self.now)
        if self.fails:
            self.fails -= 1
            raise Trouble("The port is taken.")
        self.alive = True

    def kept(self) -> Kept:
        return Kept("The database", lambda: self.alive, self.start, clock=lambda: self.now)

    def run(self, kept: Kept, until: float) -> None:
        while self.now < until:
            kept.look()
            self.now += 0.5
        kept.look()


def test_one_that_lives_is_left_alone(capsys: pytest.CaptureFixture[str]) -> None:
    thing = Thing()
    thing.run(thing.kept(), 300)
    assert thing.starts == []
    assert capsys.readouterr().out == ""


def test_one_that_died_is_started_after_a_second_and_said(capsys: pytest.CaptureFixture[str]) -> None:
    thing = Thing()
    kept = thing.kept()
    thing.run(kept, 100)
    thing.alive = False
    thing.run(kept, 110)
    assert thing.starts == [101.0]
    told = capsys.readouterr().out
    assert "The database ended by itself" in told
    assert "The database runs again after 1 s." in told


def test_the_pauses_double_up_to_a_minute_and_the_reason_is_told(capsys: pytest.CaptureFixture[str]) -> None:
    thing = Thing(alive=False, fails=9)
    thing.run(thing.kept(), 600)
    gaps = [after - before for before, after in zip([0.0, *thing.starts], thing.starts, strict=False)]
    # By hand: 1 s, then doubled from one failed try to the next, at most 60 s.
    assert gaps == [1, 2, 4, 8, 16, 32, 60, 60, 60, 60]
    assert capsys.readouterr().out.count("could not be started: The port is taken.") == 9


def test_one_that_keeps_dying_waits_longer_and_a_sound_one_is_forgiven() -> None:
    thing = Thing()
    kept = thing.kept()
    for _ in range(4):
        thing.alive = False
        thing.run(kept, thing.now + 20)
    pauses = [after - before for before, after in zip(thing.starts, thing.starts[1:], strict=False)]
    assert pauses == sorted(pauses)
    assert kept.pause == 16
    thing.run(kept, thing.now + 61)
    thing.alive = False
    died = thing.now
    thing.run(kept, thing.now + 20)
    assert thing.starts[-1] - died == 1.0
