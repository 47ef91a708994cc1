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
from ironkettle.core.machine.tightening import TorqueRange
from ironkettle.core.machine.tightening.setting import setting_within
from ironkettle.core.sheets.document.parts import Read

_SHORTEST_REASON = 8


def check_wrench(
    case: Case, wrench: str | None, readings: Sequence[str], right: TorqueRange, overdue: str | None
) -> None:
    """Whether a wrench may have read these torques, which are right between two figures [N·m].

    Raises RuleError where none is named, where one out of calibration or too coarse for the range has no reason (``overdue``),
    or a reading is outside its range.
    """
    if wrench is None:
        raise fault("wrench", "which wrench was it?", *(listed.name for listed in case.wrenches.values()))
    used = listed_wrench(case, wrench)
    if used is None:
        return
    why = _why_not(case, used, right)
    if why is not None and len((overdue or "").strip()) < _SHORTEST_REASON:
        raise fault("overdue", f"{why}: use another, or give the reason for this one")
    low, high = read_torque(used.low, "low"), read_torque(used.high, "high")
    for reading in readings:
        if not low <= read_torque(reading, "reading") <= high:
            text = f"{used.name} reads from {used.low} to {used.high}; {reading} is not in its range"
            raise fault("wrench", text, "a wrench with a suitable range")


def _why_not(case: Case, used: WrenchUsed, right: TorqueRange) -> str | None:
    """What speaks against a wrench, in words; None where nothing does."""
    if (ended := _ended(case, used)) is not None:
        return f"the calibration of {used.name} ended on {shown_day(ended)}"
    return too_coarse(used, right)


def too_coarse(used: WrenchUsed, right: TorqueRange) -> str | None:
    """Why a wrench cannot hold a range, whatever it is set to, in words; None where it can. [N·m]"""
    if setting_within(right, used.accuracy_pct) is not None:
        return None
    return f"{used.name}, ±{used.accuracy_pct:g} %, cannot hold {right.words}"


def _ended(case: Case, used: WrenchUsed) -> date | None:
    """The day on which its calibration ended; None while it is valid, and where it has no end."""
    until = used.calibrated_until
    return until if until is not None and until < case.now.date() else None


def listed_wrench(case: Case, wrench: str | None) -> WrenchUsed | None:
    """The wrench of the shop's list by its key or name; None where it is none of them."""
    named = {listed.name: listed for listed in case.wrenches.values()}
    return case.wrenches.get(wrench or "") or named.get(wrench or "")


def _reaches(used: WrenchUsed, right: TorqueRange) -> bool:
    return read_torque(used.low, "low") <= right.low and right.high <= read_torque(used.high, "high")


def _wrenches(case: Case, right: TorqueRange, last: TorqueRange, carried: str | None) -> tuple[Choice, ...]:
    """The shop's wrenches, the best first: those that reach, in calibration, fine enough to hold the range, that need not be
    changed before the last pass, the one carried over, then the smallest. [N·m]"""
    whole = TorqueRange(right.low, last.high)

    def rank(key: str) -> tuple[bool, bool, bool, bool, bool, float]:
        used = case.wrenches[key]
        reaches, holds = _reaches(used, right), setting_within(right, used.accuracy_pct) is not None
        changed, ended = not _reaches(used, whole), _ended(case, used) is not None
        return not reaches, ended, not holds, changed, carried not in {key, used.name}, read_torque(used.high, "high")

    def in_words(used: WrenchUsed) -> str:
        return f"{used.name}, {used.low} to {used.high}{'; calibration ended' if _ended(case, used) else ''}"

    return tuple(Choice(key, in_words(case.wrenches[key])) for key in sorted(case.wrenches, key=rank))


def _only_one(case: Case, right: TorqueRange, last: TorqueRange) -> str | None:
    """The only wrench of the shop that holds every pass and is in calibration; None where there is a choice. [N·m]"""
    whole = TorqueRange(right.low, last.high)
    fit = [
        key
        for key, used in case.wrenches.items()
        if _reaches(used, whole) and _why_not(case, used, right) is None and too_coarse(used, last) is None
    ]
    return fit[0] if len(fit) == 1 else None


def wrench_asks(case: Case, right: TorqueRange, last: TorqueRange, carried: str | None) -> Iterator[Ask]:
    """What is asked of the wrench for the range of a pass; ``last``: that of the last one; ``carried``: the one that the copied job used. [N·m]"""
    choices = _wrenches(case, right, last, carried)
    read = Read.CHOICE if choices else Read.TEXT
    yield Ask("wrench", read, "Wrench", choices, proposed=_only_one(case, right, last))
    if any(_why_not(case, wrench, right) is not None for wrench in case.wrenches.values()):
        first = case.wrenches[choices[0].key]
        label = "Reason for a wrench that is out of calibration or too coarse"
        yield Ask("overdue", Read.TEXT, label, optional=_why_not(case, first, right) is None)
