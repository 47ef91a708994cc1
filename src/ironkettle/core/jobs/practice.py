"""What follows of the shop's practice options: whether an old element may be kept, and which of them a fitting rests on."""

from __future__ import annotations

from collections.abc import Iterable

from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kinds.find import FOUND
from ironkettle.core.jobs.resolved import ElementAt
from ironkettle.core.jobs.task import Task
from ironkettle.core.sealing.failures import Sign
from ironkettle.core.shop.settings import Held

_KEEP = 1


def practice_of(case: Case, at: ElementAt) -> Held | None:
    """The practice option that the fitting of an element rests on; None where it rests on none."""
    options = case.tables.settings.practice
    if may_be_kept(case, at) or _is_renewed_by_choice(at):
        return options["seals"]
    return None if at.spec.lubricant else options["fitting"]


def practices_in(case: Case, tasks: Iterable[Task]) -> tuple[Held, ...]:
    """The practice options that a job rests on, each once, in the order of the list."""
    held = {task.practice.option.key for task in tasks if task.practice is not None}
    return tuple(option for key, option in case.tables.settings.practice.items() if key in held)


def _is_renewed_by_choice(at: ElementAt) -> bool:
    """Whether it is renewed because the shop renews every seal, not because the sheet says so."""
    return at.one_use and at.spec.one_use is None


def was_missing(case: Case, at: ElementAt) -> bool:
    """Whether there was none when the unit was opened: then there is no old one."""
    found = case.state.get(FOUND, at.key)
    return found is not None and not found.present


def signs_on(case: Case, at: ElementAt) -> str:
    """What was seen on the old one, in words; empty where it was not looked at, or nothing was seen.

    As it came off first and as it was looked at last: a second look does not wipe a sign out.
    """
    first, last = case.state.first(FOUND).get(at.key), case.state.get(FOUND, at.key)
    looks = [*(first.value.signs if first else ()), *(last.signs if last else ())]
    return ", ".join(dict.fromkeys(sign.words for sign in looks if sign is not Sign.NONE))


def may_be_kept(case: Case, at: ElementAt) -> bool:
    """Whether the old one may go back: where neither sheet nor kind forbid it, or where the shop keeps what looks sound."""
    if not at.one_use:
        return True
    if at.spec.one_use is not None or not case.tables.settings.follows("seals", _KEEP):
        return False
    found = case.state.get(FOUND, at.key)
    turned = found is not None and found.faced not in {None, case.resolved.oriented[at.key].faces}
    return found is not None and found.present and not turned and not set(found.signs) - {Sign.NONE}
