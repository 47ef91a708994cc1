"""The wrench of a tightening: which of the shop's are proposed, and whether the one that was used could read it."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from datetime import date

from ironkettle.core.base.dates import shown_day
from ironkettle.core.base.errors import fault
from ironkettle.core.base.quantities import read_torque
from ironkettle.core.jobs.ask import Ask, Choice
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.runs import WrenchUsed
from ironkettle.core.machine.tightening import TorqueRange, Wrench
from ironkettle.core.machine.tightening.setting import setting_within, torque_words
from ironkettle.core.sheets.document.parts import Read

_SHORTEST_REASON = 8


def check_wrench(
    case: Case, wrench: str | None, readings: Sequence[str], right: TorqueRange, overdue: str | None, *, last: bool
) -> None:
    """Whether a wrench may have read these torques, which are right between two figures [N·m].

    Raises RuleError where none is named, where one that is not on the shop's list, out of calibration, too coarse for the range or, in the ``last`` pass, read
    low on its scale has no reason (``overdue``), or a reading is outside its range.
    """
    if wrench is None:
        raise fault("wrench", "which wrench was it?", *(listed.name for listed in case.wrenches.values()))
    used = listed_wrench(case, wrench)
    ended = None if used is None else _past_calibration(case, used)
    why = ended or doubt(case, wrench, used, right, readings if last else ())
    if why is not None and len((overdue or "").strip()) < _SHORTEST_REASON:
        raise fault("overdue", f"{why}: use another, or give the reason for this one")
    if used is None:
        return
    low, high = read_torque(used.low, "low"), read_torque(used.high, "high")
    for reading in readings:
        if not low <= read_torque(reading, "reading") <= high:
            text = f"{used.name} reads from {used.low} to {used.high}; {reading} is not in its range"
            raise fault("wrench", text, "a wrench with a suitable range")


def _why_not(case: Case, used: WrenchUsed, right: TorqueRange) -> str | None:
    """What speaks against a wrench, in words; None where nothing does."""
    return _past_calibration(case, used) or _too_coarse(used, right)


def _past_calibration(case: Case, used: WrenchUsed) -> str | None:
    ended = _ended(case, used)
    return None if ended is None else f"the calibration of {used.name} ended on {shown_day(ended)}"


def doubt(case: Case, wrench: str, used: WrenchUsed | None, right: TorqueRange, readings: Sequence[str]) -> str | None:
    """Why what a wrench showed is in doubt, in words; None where it is not. [N·m]

    ``used``: as the shop's list has it. A shop without a list knows none of its wrenches, and that is not held against one.
    """
    if used is None:
        return f"{wrench} is not on the shop's list, so its calibration is not known" if case.wrenches else None
    return _too_coarse(used, right) or _read_low(used, readings)


def _too_coarse(used: WrenchUsed, right: TorqueRange) -> str | None:
    """Why a wrench cannot hold a range, whatever it is set to, in words; None where it can. [N·m]"""
    if setting_within(right, used.accuracy_pct) is not None:
        return None
    return f"{used.name}, ±{used.accuracy_pct:g} %, cannot hold {right.words}"


def _read_low(used: WrenchUsed, readings: Sequence[str]) -> str | None:
    """Why a wrench is not trusted with what was read on it, in words; None where its scale is. [N·m]

    Source: ISO 6789: a torque tool is calibrated from 20 to 100 % of its scale.
    """
    from_here = _scale(used).usable_low
    lowest = min((read_torque(reading, "reading") for reading in readings), default=from_here)
    if lowest >= from_here * (1 - 1e-9):
        return None
    return (
        f"{torque_words(lowest)} is below the {torque_words(from_here)} from which the scale of {used.name} is trusted"
    )


def _scale(used: WrenchUsed) -> Wrench:
    return Wrench(read_torque(used.low, "low"), read_torque(used.high, "high"), used.accuracy_pct)


def _ended(case: Case, used: WrenchUsed) -> date | None:
    """The day on which its calibration ended; None while it is valid, and where it has no end."""
    until = used.calibrated_until
    return until if until is not None and until < case.now.date() else None


def listed_wrench(case: Case, wrench: str | None) -> WrenchUsed | None:
    """The wrench of the shop's list by its key or name; None where it is none of them."""
    named = {listed.name: listed for listed in case.wrenches.values()}
    return case.wrenches.get(wrench or "") or named.get(wrench or "")


def _setting(used: WrenchUsed, right: TorqueRange) -> float:
    """What it is set to for a range: what holds it, else its middle. [N·m]"""
    held = setting_within(right, used.accuracy_pct)
    return right.middle if held is None else held


def _reads(used: WrenchUsed, right: TorqueRange) -> bool:
    """Whether a range lies on its scale, trusted or not."""
    return read_torque(used.low, "low") <= right.low and right.high <= read_torque(used.high, "high")


def _reaches(used: WrenchUsed, right: TorqueRange) -> bool:
    """Whether a range lies on its scale where that is trusted."""
    return _reads(used, right) and _scale(used).reaches(_setting(used, right))


def _wrenches(case: Case, right: TorqueRange, last: TorqueRange, carried: str | None) -> tuple[Choice, ...]:
    """The shop's wrenches, the best first: those whose scale reaches and is trusted, in calibration, fine enough to hold the range,
    that need not be changed before the last pass, the one carried over, then the smallest. [N·m]"""

    def rank(key: str) -> tuple[bool, bool, bool, bool, bool, bool, float]:
        used = case.wrenches[key]
        ended, holds = _ended(case, used) is not None, setting_within(right, used.accuracy_pct) is not None
        carries = carried in {key, used.name}
        end = read_torque(used.high, "high")
        return (
            not _reads(used, right),
            not _reaches(used, right),
            ended,
            not holds,
            not _reaches(used, last),
            not carries,
            end,
        )

    def in_words(used: WrenchUsed) -> str:
        return f"{used.name}, {used.low} to {used.high}{'; calibration ended' if _ended(case, used) else ''}"

    return tuple(Choice(key, in_words(case.wrenches[key])) for key in sorted(case.wrenches, key=rank))


def _only_one(case: Case, right: TorqueRange, last: TorqueRange) -> str | None:
    """The only wrench of the shop that holds every pass and is in calibration; None where there is a choice. [N·m]"""
    fit = [
        key
        for key, used in case.wrenches.items()
        if all(_reaches(used, asked) and _why_not(case, used, asked) is None for asked in (right, last))
    ]
    return fit[0] if len(fit) == 1 else None


def wrench_asks(case: Case, right: TorqueRange, last: TorqueRange, carried: str | None) -> Iterator[Ask]:
    """What is asked of the wrench for the range of a pass; ``last``: that of the last one; ``carried``: the one that the copied job used. [N·m]"""
    choices = _wrenches(case, right, last, carried)
    read = Read.CHOICE if choices else Read.TEXT
    yield Ask("wrench", read, "Wrench", choices, proposed=_only_one(case, right, last))

    def needs_reason(used: WrenchUsed) -> bool:
        low = right == last and _reads(used, right) and not _scale(used).reaches(_setting(used, right))
        return low or _why_not(case, used, right) is not None

    if any(needs_reason(used) for used in case.wrenches.values()):
        label = "Reason for a wrench that is out of calibration, too coarse or read low on its scale"
        yield Ask("overdue", Read.TEXT, label, optional=not needs_reason(case.wrenches[choices[0].key]))
