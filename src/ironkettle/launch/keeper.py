"""Keeping what was started running: what dies is started again, with growing pauses, in words."""

from __future__ import annotations

import time
from collections.abc import Callable
from dataclasses import dataclass, field

from ironkettle.launch.trouble import Trouble, say

FIRST_PAUSE_S = 1.0
LONGEST_PAUSE_S = 60.0
# One that has run this long is taken as sound again: the next pause is short.
SOUND_AFTER_S = 60.0


@dataclass
class Kept:
    """One thing that is kept running: how to see that it runs, and how to start it again."""

    name: str
    is_alive: Callable[[], bool]
    start: Callable[[], None]
    clock: Callable[[], float] = time.monotonic
    pause: float = field(default=FIRST_PAUSE_S, init=False)
    started: float = field(default=0.0, init=False)
    down_since: float | None = field(default=None, init=False)
    next_try: float = field(default=0.0, init=False)

    def __post_init__(self) -> None:
        self.started = self.clock()

    def look(self) -> None:
        """Look once: nothing while it lives; otherwise a new try when its pause is over."""
        now = self.clock()
        if self.down_since is None:
            if self.is_alive():
                return
            if now - self.started > SOUND_AFTER_S:
                self.pause = FIRST_PAUSE_S
            self.down_since, self.next_try = now, now + self.pause
            say(f"{self.name} ended by itself. What was recorded is kept; it is started again in {self.pause:.0f} s.")
        if now < self.next_try:
            return
        self.pause = min(self.pause * 2, LONGEST_PAUSE_S)
        try:
            self.start()
        except Trouble as trouble:
            self.next_try = self.clock() + self.pause
            say(f"{self.name} could not be started: {trouble} Next try in {self.pause:.0f} s.")
            return
        self.started = self.clock()
        say(f"{self.name} runs again after {self.started - self.down_since:.0f} s.")
        self.down_since = None
