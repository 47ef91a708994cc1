"""The next turn of an adjuster towards its target: a robust line through the readings, always approached from one side.

Springs and seats show another value on the way up than on the way down; a value that was come to from the wrong side
drifts. So a target that was overshot is backed away from, and come up to again. Nothing is suggested through a floor or a
ceiling, past the ends of the thread, or further than the readings carry.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from itertools import pairwise
from statistics import median

from ironkettle.core.base.errors import FieldFault, RuleError, fault
from ironkettle.core.base.findings import Finding, caution, info, reject

BASIS = "line through the readings (median of slopes); the maker's routine wins"


class Sense(StrEnum):
    """What a turn clockwise does to the value."""

    CLOCKWISE_RAISES = "clockwise_raises"
    CLOCKWISE_LOWERS = "clockwise_lowers"

    @property
    def sign(self) -> int:
        return 1 if self is Sense.CLOCKWISE_RAISES else -1


@dataclass(frozen=True, slots=True)
class Target:
    """What is wanted: a value with its tolerance, and what it must never pass. In one unit, whatever is read.

    ``travel``: the positions of the adjuster between its ends, clockwise positive [turns]; None where they are not known.
    """

    value: float
    minus: float
    plus: float
    sense: Sense
    floor: float | None = None
    ceiling: float | None = None
    travel: tuple[float, float] | None = None

    def __post_init__(self) -> None:
        faults = []
        if self.minus < 0 or self.plus < 0:
            faults.append(FieldFault("tolerance", "cannot be negative"))
        if self.floor is not None and self.floor > self.value:
            faults.append(FieldFault("floor", "lies above the target, so the target would be below its own floor"))
        if self.ceiling is not None and self.ceiling < self.value:
            faults.append(FieldFault("ceiling", "lies below the target, so the target would be above its own ceiling"))
        if faults:
            raise RuleError(faults)

    @property
    def low(self) -> float:
        """The least that is right: of the tolerance and the floor the higher."""
        low = self.value - self.minus
        return low if self.floor is None else max(low, self.floor)

    @property
    def high(self) -> float:
        """The most that is right."""
        high = self.value + self.plus
        return high if self.ceiling is None else min(high, self.ceiling)


@dataclass(frozen=True, slots=True)
class Reading:
    """Where the adjuster stood, clockwise positive [turns], and what was read there."""

    turns: float
    value: float


@dataclass(frozen=True, slots=True)
class Advice:
    """``next_turns`` from here, clockwise positive [turns]; ``expected`` after it, ``rate`` a turn: None while unknown."""

    done: bool
    next_turns: float
    expected: float | None
    rate: float | None
    findings: tuple[Finding, ...]


# A first turn that tells a rate without doing harm; never further at once than a turn, or than the readings span times this.
_TRIAL, _MOST, _CARRY = 0.125, 1.0, 4.0
# Turns closer than this are one position; values closer than this share of the target are one value.
_SAME_TURNS, _FLAT = 0.01, 1e-4
# Slopes that differ by more than this share are no line.
_UNEVEN = 0.5
# Fewer readings than this are no line, and no more than this share of what is left is turned on them at once.
_ENOUGH, _SHARE = 3, 0.5
# Slopes of two moves are one line when the larger is no more than this times the smaller.
_ALIKE = 1.5
# How much steeper it may go on where the last moves lie on a line, and where they do not; and how far short of an end.
_STEEPER, _STEEPEST, _SHORT = 2.2, 4.0, 0.9
# And no further at once towards an end than a quarter of a turn: so far a spring that begins to bind is still noticed.
_TOWARDS_END = 0.25
# How far below an overshot target it is backed off to, of the target, before it is come up to again. [-]
_BACK_OFF = 0.03
# As near to where it was aimed as counts as there, as a share of the target [-].
_LANDED = 1e-6


def advise(target: Target, readings: Sequence[Reading]) -> Advice:
    """The next turn, from the readings in the order they were taken.

    Parameters
    ----------
    target : what is wanted, in the unit the readings are in.
    readings : at least one; positions of the adjuster [turns] between -1000 and 1000.

    Raises RuleError without a reading. Source: Theil's median of slopes; shop practice of coming to a spring's setting
    from below.
    """
    if not readings:
        raise fault("readings", "take a reading first: the position of the adjuster and the value")
    here = readings[-1]
    findings: list[Finding] = _bounds(target, here)
    slopes = _slopes(readings)
    rate = median(slopes) if slopes else None
    within = target.low - 1e-9 <= here.value <= target.high + 1e-9
    way = _way(target, readings)
    if within and way is not _Way.FROM_BELOW and _has_no_room(target):
        findings.append(caution("no-room", "its floor leaves no room to come up to it from below", BASIS))
        way = _Way.FROM_BELOW
    if within and way is _Way.FROM_BELOW:
        text = "within its tolerance: lock it, and read once more after locking"
        return Advice(True, 0.0, here.value, rate, (*findings, info("done", text, BASIS)))
    if rate is None:
        return _trial(target, here, findings)
    wrong = rate * target.sense.sign < 0
    if abs(rate) < _FLAT * max(abs(target.value), 1e-12):
        text = "turning the adjuster changes nothing: it is at its end, stuck, or the wrong adjuster"
        return Advice(False, 0.0, None, rate, (*findings, reject("no-answer", text, BASIS)))
    if wrong:
        text = f"turned clockwise it {'fell' if rate < 0 else 'rose'}, and should have {'risen' if rate < 0 else 'fallen'}: check which way it was turned"
        return Advice(False, 0.0, None, rate, (*findings, reject("wrong-sense", text, BASIS)))
    if _is_uneven(slopes):
        findings.append(caution("uneven", "the readings do not lie on a line: take smaller turns", BASIS))
    aim = _aim(target, way, findings)
    turns = _bounded(target, readings, (aim - here.value) / rate, findings)
    return Advice(False, turns, here.value + rate * turns, rate, tuple(findings))


def _bounds(target: Target, here: Reading) -> list[Finding]:
    found = []
    if target.floor is not None and here.value < target.floor:
        found.append(reject("below-floor", "it is below its minimum: do not leave it there", BASIS))
    if target.ceiling is not None and here.value > target.ceiling:
        found.append(reject("above-ceiling", "it is above its maximum: do not leave it there", BASIS))
    return found


def _slopes(readings: Sequence[Reading]) -> list[float]:
    """The slope of every pair of positions that are apart; a position read twice counts as it was read last."""
    last: dict[float, Reading] = {}
    for reading in readings:
        last[round(reading.turns / _SAME_TURNS)] = reading
    places = list(last.values())
    return [(b.value - a.value) / (b.turns - a.turns) for place, a in enumerate(places) for b in places[place + 1 :]]


def _is_uneven(slopes: Sequence[float]) -> bool:
    middle = median(slopes)
    return len(slopes) > 1 and any(abs(slope - middle) > _UNEVEN * abs(middle) for slope in slopes)


class _Way(StrEnum):
    """How the value of the last reading was come to."""

    FROM_BELOW = "from below"
    FROM_ABOVE = "from above"
    BACKED_OFF = "backed off"


def _way(target: Target, readings: Sequence[Reading]) -> _Way:
    """Overshot it is come to from above, and will creep, until it was backed off far enough and rose again."""
    way, last = _Way.FROM_BELOW, readings[0].value
    # Half of the way is back far enough: a reading rarely lands where it was aimed.
    back = _back_to(target)
    near = (target.value if back >= target.low else target.low) + back
    enough = max(near / 2, back + _LANDED * abs(target.value))
    for reading in readings:
        if reading.value > target.high:
            way = _Way.FROM_ABOVE
        elif way is _Way.FROM_ABOVE and reading.value <= enough:
            way = _Way.BACKED_OFF
        elif way is _Way.BACKED_OFF and reading.value > last:
            way = _Way.FROM_BELOW
        last = reading.value
    return way


def _back_to(target: Target) -> float:
    """Past the tolerance, so that it is come up to again; never below the floor."""
    back = target.low - max(_BACK_OFF * abs(target.value), target.minus, target.plus)
    # Half of the room above a floor: no turn may reach it.
    return back if target.floor is None else max(back, (target.floor + target.value) / 2)


def _has_no_room(target: Target) -> bool:
    """Whether the floor stands at the target, so that nothing below it may be backed off to."""
    return target.floor is not None and target.value - target.floor <= _LANDED * abs(target.value)


def _trial(target: Target, here: Reading, findings: list[Finding]) -> Advice:
    up = here.value < target.value
    turns = _TRIAL * target.sense.sign * (1 if up else -1)
    turns = _in_travel(target, here, turns, findings)
    text = f"one position gives no rate: turn {abs(turns):g} of a turn and read again"
    return Advice(False, turns, None, None, (*findings, info("trial", text, BASIS)))


def _aim(target: Target, way: _Way, findings: list[Finding]) -> float:
    """What the next turn is to bring: the target, or below it where it was overshot."""
    if way is not _Way.FROM_ABOVE:
        return target.value
    back = _back_to(target)
    if target.floor is not None and back == (target.floor + target.value) / 2:
        text = "backed off half of the way to its floor only; come up to the target from there"
        findings.append(caution("floor", text, BASIS))
    else:
        findings.append(info("overshot", "too high: back off below it, then come up to it from below", BASIS))
    return back


def _bounded(target: Target, readings: Sequence[Reading], turns: float, findings: list[Finding]) -> float:
    """The turn as far as the readings carry it: never where the steepest slope they allow could reach floor or ceiling."""
    here = readings[-1]
    span = max(reading.turns for reading in readings) - min(reading.turns for reading in readings)
    most = min(_MOST, _CARRY * span)
    if abs(turns) > most:
        findings.append(info("part-way", "beyond the range of the readings: go part of the way and read again", BASIS))
        turns = most if turns > 0 else -most
    turns = _careful(target, readings, turns, findings)
    return _in_travel(target, here, turns, findings)


def _careful(target: Target, readings: Sequence[Reading], turns: float, findings: list[Finding]) -> float:
    """Where it must not pass an end, at most half of what is left on few or uneven readings."""
    if _end(target, turns) is None:
        return turns
    moves = _moves(readings)
    steady = len(readings) >= _ENOUGH and len(moves) > 1 and _agree(moves[-2][1], moves[-1][1])
    if not steady:
        last = abs(moves[-1][0]) if moves else _TRIAL
        most = min(_SHARE * abs(turns), last)
        if abs(turns) > most + 1e-9:
            why = "fewer than three readings" if len(readings) < _ENOUGH else "the last readings do not lie on one line"
            text = f"{why}: a spring may stiffen and a thread has backlash, so at most half of what is left is turned at once"
            findings.append(info("careful", text, BASIS))
            turns = most if turns > 0 else -most
    return _short_of_ends(target, readings, turns, moves, steady, findings)


def _short_of_ends(
    target: Target,
    readings: Sequence[Reading],
    turns: float,
    moves: Sequence[tuple[float, float]],
    steady: bool,
    findings: list[Finding],
) -> float:
    """The turn shortened so that the steepest slope that the readings allow stays short of floor and ceiling."""
    rises, end = turns * target.sense.sign > 0, _end(target, turns)
    slopes = [abs(slope) for _, slope in moves]
    if end is None or not any(slopes):
        return turns
    growth = slopes[-1] / slopes[-2] if steady and slopes[-2] > 0 else 1.0
    steepest = max(slopes) * (max(_STEEPER, growth**2) if steady else _STEEPEST)
    room = max(abs(end - readings[-1].value) if (end > readings[-1].value) == rises else 0.0, 0.0)
    most = _SHORT * room / steepest
    most = min(most, max(_TOWARDS_END, most / 2))
    if abs(turns) <= most:
        return turns
    word = "ceiling" if rises else "floor"
    text = f"by the steepest that the readings allow, further might reach the {word}: turn less and read again"
    findings.append(info("short-of-end", text, BASIS))
    return most if turns > 0 else -most


def _end(target: Target, turns: float) -> float | None:
    """What a turn must not pass: the ceiling where it raises, else the floor; None where there is none."""
    return target.ceiling if turns * target.sense.sign > 0 else target.floor


def _moves(readings: Sequence[Reading]) -> list[tuple[float, float]]:
    """Turn and slope from reading to reading, since the adjuster was turned the other way last."""
    found: list[tuple[float, float]] = []
    for before, here in pairwise(readings):
        turn = here.turns - before.turns
        if abs(turn) < _SAME_TURNS:
            continue
        if found and (turn > 0) != (found[-1][0] > 0):
            found = []
        found.append((turn, (here.value - before.value) / turn))
    return found


def _agree(one: float, other: float) -> bool:
    return one * other > 0 and max(abs(one), abs(other)) <= _ALIKE * min(abs(one), abs(other))


def _in_travel(target: Target, here: Reading, turns: float, findings: list[Finding]) -> float:
    if target.travel is None:
        return turns
    low, high = target.travel
    wanted = here.turns + turns
    if low - 1e-9 <= wanted <= high + 1e-9:
        return turns
    findings.append(
        reject("end-of-thread", "the adjuster does not have that much travel: check the spring and its seat", BASIS)
    )
    return min(max(wanted, low), high) - here.turns


__all__ = ["Advice", "Reading", "Sense", "Target", "advise"]
