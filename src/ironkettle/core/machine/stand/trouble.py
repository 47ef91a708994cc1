"""What is wrong with a stand while it is recorded, told from what it shows: each fault once, at the time it is seen."""

from __future__ import annotations

import math
from collections import deque
from dataclasses import dataclass, field
from itertools import pairwise

# A channel that stands still this often and so long after it was alive has frozen. [-, s]
_SAME, _SAME_S, _ALIVE = 40, 20.0, 5
# A reading that jumps out and back by so many times the usual step, and by this share of what is shown, is a spike.
_SPIKE_STEPS, _SPIKE_SHARE, _RECENT = 10.0, 0.01, 40
# How far the stand's clock may run from ours: a second, and this share of the time.
_CLOCK_S, _CLOCK_SHARE = 1.5, 0.02
# No reading of the channel, or none of the stand, for so long ends a recording. [s]
NO_READING_S, GONE_S = 5.0, 30.0
# Times of what was asked for that a channel shows whose scale or unit is another, within a tenth.
_FACTORS = (
    (10.0, "ten times what was asked for: its scale is wrong by ten"),
    (0.1, "a tenth of what was asked for: its scale is wrong by ten"),
    (14.504, "14.5 times what was asked for: it may be set to psi"),
    (0.06895, "a fifteenth of what was asked for: it may be read as psi"),
    (100.0, "a hundred times what was asked for: it may be set to kPa"),
    (0.01, "a hundredth of what was asked for: it may be set to MPa"),
)
_NEAR, _LEAST_MPA, _JUMP = 0.12, 0.3, 3.0


@dataclass(frozen=True, slots=True)
class Trouble:
    """``key`` names the fault, ``at`` when it was seen [s of the recording]; ``ends``: nothing read after it counts."""

    key: str
    at: float
    says: str
    ends: bool = False


def took_none(since: float) -> Trouble:
    """The stand answers and has taken no reading since a time of the recording, 0 or above. [s]"""
    text = (
        f"the stand has taken no reading since {since:.0f} s: the number of its reading stands still. "
        "Check the stand, and the register of that number"
    )
    return Trouble("took_none", since, text, ends=True)


@dataclass(slots=True)
class Watch:
    """Watches one recording. ``asked``: the pressure the stand was told to hold, None if somebody else raised it [MPa].

    Times are those of the recording by the server's own clock [s], pressures MPa gauge.
    """

    channel: str
    hold: int | None
    asked: float | None = None
    clock_from: tuple[float, float] | None = None
    last: float | None = None
    last_at: float = 0.0
    moved: int = 0
    same: int = 0
    same_since: float = 0.0
    none_since: float | None = None
    gone_since: float | None = None
    spikes: int = 0
    reported: set[str] = field(default_factory=set)
    recent: deque[float] = field(default_factory=lambda: deque(maxlen=_RECENT))

    def look(self, at: float, pressure: float, held: float | None, hold: int | None) -> list[Trouble]:
        """What is newly wrong at a reading; NaN is one the channel could not give.

        Parameters: at : rising from 0 [s]; pressure : any [MPa gauge]; held : since the valve was shut, from 0 up [s].
        """
        found = self._state(at, held, hold)
        if math.isnan(pressure):
            return [*found, *self._none(at)]
        self.none_since = None
        found += [*self._scale(at, pressure), *self._frozen(at, pressure), *self._spike(at, pressure)]
        self.last, self.last_at = pressure, at
        return found

    def away(self, at: float, why: str) -> list[Trouble]:
        """The stand did not answer, at any time from 0 up. [s]"""
        if self.gone_since is None:
            self.gone_since = at
            return [Trouble("gone", at, f"the stand stopped answering at {at:.0f} s: {why}")]
        if at - self.gone_since >= GONE_S and self._first("gone_for_good"):
            text = f"the stand did not answer for {at - self.gone_since:.0f} s"
            return [Trouble("gone", self.gone_since, text, ends=True)]
        return []

    def answered(self, at: float) -> list[Trouble]:
        """The stand answered, at any time from 0 up. [s]"""
        if self.gone_since is None:
            return []
        was, self.gone_since = self.gone_since, None
        return [Trouble("back", at, f"the stand answered again after {at - was:.1f} s")]

    def _first(self, key: str) -> bool:
        fresh = key not in self.reported
        self.reported.add(key)
        return fresh

    def _state(self, at: float, held: float | None, hold: int | None) -> list[Trouble]:
        if hold is not None and self.hold is not None and hold != self.hold:
            text = "the stand is on another hold than when this run began; was it restarted?"
            return [Trouble("other_hold", at, text, ends=True)]
        if held is None:
            return []
        if held <= 0:
            return [Trouble("opened", at, "the valve was opened", ends=True)]
        if self.clock_from is None:
            self.clock_from = (at, held)
            return []
        ours, theirs = at - self.clock_from[0], held - self.clock_from[1]
        if abs(theirs - ours) > _CLOCK_S + _CLOCK_SHARE * ours and self._first("clock"):
            text = f"the stand's clock went {theirs:.0f} s while {ours:.0f} s passed; times are by the server's clock"
            return [Trouble("clock", at, text)]
        return []

    def _none(self, at: float) -> list[Trouble]:
        fresh = self.none_since is None
        self.none_since = at if self.none_since is None else self.none_since
        if at - self.none_since >= NO_READING_S and self._first("no_reading"):
            text = f"{self.channel} gave no valid reading for {at - self.none_since:.0f} s"
            return [Trouble("out_of_range", self.none_since, text, ends=True)]
        if fresh and self._first("out_of_range"):
            return [Trouble("out_of_range", at, f"{self.channel} is beyond its range; check the sensor and cable")]
        return []

    def _scale(self, at: float, pressure: float) -> list[Trouble]:
        if self.last is None and self.asked is not None and abs(self.asked) >= _LEAST_MPA:
            ratio = pressure / self.asked
            for factor, says in _FACTORS:
                if abs(ratio / factor - 1) <= _NEAR:
                    return [Trouble("wrong_scale", at, f"{self.channel} shows {says}", ends=True)]
        jumped = self.last is not None and self.last >= _LEAST_MPA and pressure >= _JUMP * self.last
        if jumped and self._first("jumped"):
            text = f"{self.channel} jumped to {pressure / (self.last or 1):.1f} times what it showed: its scale changed, or it was pumped"
            return [Trouble("wrong_scale", at, text, ends=True)]
        return []

    def _frozen(self, at: float, pressure: float) -> list[Trouble]:
        if self.last is not None and pressure != self.last:
            self.moved, self.same = self.moved + 1, 0
            return []
        self.same_since = at if self.same == 0 else self.same_since
        self.same += 1
        stands = self.same >= _SAME and at - self.same_since >= _SAME_S and self.moved >= _ALIVE
        if stands and self.moved >= 0.5 * len(self.recent) and self._first("frozen"):
            text = f"{self.channel} has shown the same since {self.same_since:.0f} s, after it moved with every reading: it may be frozen"
            return [Trouble("frozen", at, text)]
        return []

    def _spike(self, at: float, pressure: float) -> list[Trouble]:
        """Whether the reading before stood out on its own."""
        self.recent.append(pressure)
        if len(self.recent) < 10:
            return []
        before, suspect, after = self.recent[-3], self.recent[-2], self.recent[-1]
        values = list(self.recent)
        steps = sorted(abs(b - a) for a, b in pairwise(values))
        usual = steps[len(steps) // 2]
        least = max(_SPIKE_STEPS * usual, _SPIKE_SHARE * abs(before))
        out, back = suspect - before, suspect - after
        if min(abs(out), abs(back)) > least and out * back > 0 and abs(after - before) < 0.5 * abs(out):
            self.spikes += 1
            if self._first("spikes"):
                text = f"{self.channel} jumped by {abs(out) * 10:.1f} bar and back at {self.last_at:.0f} s; check the cable and plug"
                return [Trouble("spikes", at, text)]
        return []


__all__ = ["GONE_S", "NO_READING_S", "Trouble", "Watch", "took_none"]
