"""The tasks of a job in order, each with its status: one pure function of resolved sheet, state and clock."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from graphlib import CycleError, TopologicalSorter
from heapq import heappop, heappush
from uuid import UUID

from ironkettle.core.base.errors import NotAllowedError, RefusedError, fault
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.condemned import check_may_overrule
from ironkettle.core.jobs.kinds.begin import TaskBegun
from ironkettle.core.jobs.kinds.ending import closed_by, closed_words
from ironkettle.core.jobs.kinds.intake import intake_of
from ironkettle.core.jobs.kinds.skip import TaskSkipped, is_skipped, may_be_skipped
from ironkettle.core.jobs.kinds.stage_skip import stage_is_skipped
from ironkettle.core.jobs.kinds.strike import EntryStruck, check_strike
from ironkettle.core.jobs.registry import kind_of, kinds, task_key_of
from ironkettle.core.jobs.shortage import PART
from ironkettle.core.jobs.state import Payload
from ironkettle.core.jobs.task import Draft, Stage, Status, Task

_STAGES = list(Stage)
_NEW_PART = f"receive:{PART}"
# How a task is refused by what stands before it, the weightiest first; the last where only its turn has not come.
_REFUSALS = ("condemned", "not-safe", "too-early", "short", "blocked")
_TURN = _REFUSALS[-1]


def tasks_of(case: Case) -> tuple[Task, ...]:
    """Every task of the job, stage by stage, in the order they are best worked.

    The first that can be done is *next*; where nothing can be but wait, the timer that runs is, so that it
    can be cut short with a reason. They are worked out once for a case.
    """
    if not case.listed:
        case.listed.append(_work_out(case))
    return case.listed[0]


def _work_out(case: Case) -> tuple[Task, ...]:
    drafts = _drafts(case)
    after = _whole_after(drafts)
    listed = _in_order(case, drafts, after)
    blockers = _Blockers(drafts, after)
    tasks: list[Task] = []
    found_next = False
    for draft in listed:
        status, blocked_by, refusal = _status(draft, blockers)
        if status is Status.OPEN and not found_next:
            status, found_next = Status.NEXT, True
        tasks.append(replace(draft.task, status=status, blocked_by=blocked_by, refusal=refusal))
    if not found_next:
        waiting = next((place for place, task in enumerate(tasks) if task.status is Status.WAITING), None)
        if waiting is not None:
            tasks[waiting] = replace(tasks[waiting], status=Status.NEXT)
    return tuple(tasks)


def _drafts(case: Case) -> dict[str, Draft]:
    closed = closed_by(case.state) is not None
    return {draft.task.key: _skipped(case, draft, closed=closed) for kind in kinds() for draft in kind.tasks(case)}


def circle_in(case: Case) -> list[str]:
    """Tasks that wait for each other in a circle, in its order; empty where the job can be worked."""
    after = _whole_after(_drafts(case))
    try:
        TopologicalSorter({key: list(before) for key, before in after.items()}).prepare()
    except CycleError as error:
        return [str(key) for key in error.args[1]]
    return []


def next_task(tasks: Sequence[Task]) -> Task | None:
    """The one that is next; None when there is nothing left to do, or nothing that can be done."""
    return next((task for task in tasks if task.status is Status.NEXT), None)


def check_entry(case: Case, payload: Payload) -> None:
    """Whether an entry may be added to the job as it stands.

    Raises RuleError for names or figures that do not fit, RefusedError for what the state forbids, with the words of
    what blocks it.
    """
    kind = kind_of(payload)
    if closed_by(case.state) is not None and not kind.reopens:
        raise RefusedError(
            "job-released", f"the job is {closed_words(case.state)} and takes no entries; reopen it with a reason first"
        )
    if intake_of(case.state) is None and not kind.opens:
        raise RefusedError("no-intake", "the first entry of a job is its intake")
    kind.check_payload(case, payload)
    if isinstance(payload, EntryStruck):
        check_stays(case)
    key = task_key_of(payload)
    if isinstance(payload, TaskSkipped):
        _check_skippable(tasks_of(case), payload)
        if payload.task.startswith(_NEW_PART):
            check_may_overrule(case, payload.task.removeprefix(_NEW_PART))
    if isinstance(payload, TaskBegun):
        key = _check_may_begin(tasks_of(case), payload)
    blocked = None if key is None else _blocked(tasks_of(case), key)
    if blocked is not None:
        raise RefusedError(blocked.refusal, f"first: {'; '.join(blocked.blocked_by[:3])}")


def check_stays(case: Case) -> None:
    """Raises RefusedError where the entry that is to be struck out stays in a log for good: signatures, and strikings themselves."""
    if case.target is not None and kind_of(case.target[1]).stays:
        raise RefusedError(
            "not-strikable", "releases, reopenings and strike-outs cannot be struck out; make a new entry instead"
        )


def is_strikable(case: Case, entry: UUID, owner: str, payload: Payload) -> bool:
    """Whether the author of the case may strike this entry out as the job stands."""
    looked = replace(case, target=(owner, payload))
    try:
        check_strike(looked, EntryStruck(entry=entry, reason="as looked at"))
        check_stays(looked)
    except (RefusedError, NotAllowedError):
        return False
    return closed_by(case.state) is None


def _check_skippable(tasks: Sequence[Task], payload: TaskSkipped) -> None:
    task = next((listed for listed in tasks if listed.key == payload.task), None)
    if task is None:
        raise fault("task", f"“{payload.task}” is not a task of this job", *(listed.key for listed in tasks[:12]))
    if not may_be_skipped(task):
        raise RefusedError("not-passable", f"this is {task.status.value} and cannot be skipped: {task.text}")


def _check_may_begin(tasks: Sequence[Task], payload: TaskBegun) -> str:
    """The key of the task that begins. Raises RuleError for one that is none of this job's, or takes no time."""
    task = next((listed for listed in tasks if listed.key == payload.task), None)
    if task is None or task.lasts is None:
        timed = (listed.key for listed in tasks if listed.lasts is not None)
        raise fault("task", f"“{payload.task}” is not a task of this job that takes a time", *timed)
    return task.key


def _blocked(tasks: Sequence[Task], key: str) -> Task | None:
    """The task of that key where something stands before it."""
    return next((task for task in tasks if task.key == key and task.status is Status.BLOCKED), None)


def _skipped(case: Case, draft: Draft, *, closed: bool) -> Draft:
    # A job that is closed has nothing left to do, whatever tasks later rules would bring.
    skipped = closed or is_skipped(case.state, draft.task.key) or stage_is_skipped(case.state, draft.task)
    return replace(draft, skipped=True) if skipped and not draft.done else draft


def _whole_after(drafts: Mapping[str, Draft]) -> dict[str, dict[str, str]]:
    """What each task waits for, spelled out: a step with all that rides on it, a signature with everything."""
    riders = _riders(drafts)
    found: dict[str, dict[str, str]] = {}
    for key, draft in drafts.items():
        after: dict[str, str] = {}
        for earlier, why in draft.after.items():
            after[earlier] = why
            if not draft.task.kind.beside_riders and not _rides_on(key, earlier, riders):
                after.update({rider: why for rider in riders.get(earlier, ()) if rider != key})
        found[key] = (
            dict.fromkeys(drafts, "")
            if draft.last
            else {earlier: why for earlier, why in after.items() if earlier in drafts}
        )
        found[key].pop(key, None)
    for key, draft in drafts.items():
        for later, why in draft.before.items():
            if later in found:
                found[later][key] = why
    return found


def _riders(drafts: Mapping[str, Draft]) -> dict[str, list[str]]:
    """What rides on a step and comes right after it: its tightening, its settings, its timer, its tests."""
    found: dict[str, list[str]] = {}
    for key, draft in drafts.items():
        if draft.step is not None and draft.task.kind.rides:
            found.setdefault(f"step:{draft.step}", []).append(key)
    return found


def _rides_on(key: str, step_key: str, riders: Mapping[str, list[str]]) -> bool:
    return key in riders.get(step_key, ())


def _in_order(case: Case, drafts: Mapping[str, Draft], after: Mapping[str, Mapping[str, str]]) -> list[Draft]:
    """Stage by stage, step by step; what comes first before what waits for it, else as listed by the kinds."""
    steps = {step.key: place for place, step in enumerate(case.resolved.sheet.steps)}
    wanted = {key: (*_place(draft, steps), rank) for rank, (key, draft) in enumerate(drafts.items())}
    sorter = TopologicalSorter({key: list(before) for key, before in after.items()})
    try:
        sorter.prepare()
    except CycleError:
        return [drafts[key] for key in sorted(drafts, key=lambda key: wanted[key])]
    ready: list[tuple[tuple[int, ...], str]] = []
    order: list[Draft] = []
    while sorter.is_active():
        for key in sorter.get_ready():
            heappush(ready, (wanted[key], key))
        _, best = heappop(ready)
        order.append(drafts[best])
        sorter.done(best)
    return order


def _place(draft: Draft, steps: Mapping[str, int]) -> tuple[int, ...]:
    step = steps.get(draft.step or "", len(steps))
    return _STAGES.index(draft.task.stage), step, draft.task.kind.rank, draft.place


class _Blockers:
    """What stands before each task: what it waits for itself, and what that waits for where it was done before."""

    def __init__(self, drafts: Mapping[str, Draft], after: Mapping[str, Mapping[str, str]]) -> None:
        self._drafts, self._after = drafts, after
        self._open: dict[str, frozenset[str]] = {}

    def of(self, key: str) -> tuple[tuple[str, ...], str]:
        """The words of what blocks a task, what it waits for itself first, else what stands further before; and how it is refused."""
        own = {earlier: why for earlier, why in self._after[key].items() if self._is_open(earlier)}
        found = own or dict.fromkeys(sorted(self._open_before(key)), "")
        if self._drafts[key].last:
            return tuple(self._drafts[found_key].task.text for found_key in found), _TURN
        ranked = sorted(found, key=lambda candidate: _REFUSALS.index(self._drafts[candidate].refusal))
        words = tuple(
            f"{self._drafts[candidate].task.text}{f' ({found[candidate]})' if found[candidate] else ''}"
            for candidate in ranked
        )
        return words, next((self._drafts[candidate].refusal for candidate in ranked), _TURN)

    def _is_open(self, key: str) -> bool:
        return not self._drafts[key].done and not self._drafts[key].skipped

    def _open_before(self, key: str) -> frozenset[str]:
        """Everything that is not done, however far before a task."""
        if key not in self._open:
            self._open[key] = frozenset()
            found: set[str] = set()
            for earlier in self._after[key]:
                if self._is_open(earlier):
                    found.add(earlier)
                elif not self._drafts[earlier].skipped:
                    found |= self._open_before(earlier)
            self._open[key] = frozenset(found)
        return self._open[key]


def _status(draft: Draft, blockers: _Blockers) -> tuple[Status, tuple[str, ...], str]:
    if draft.done:
        return Status.DONE, (), _TURN
    if draft.skipped:
        return Status.SKIPPED, (), _TURN
    if draft.waits:
        return Status.WAITING, (), _TURN
    blocked_by, refusal = blockers.of(draft.task.key)
    return (Status.BLOCKED if blocked_by else Status.OPEN), blocked_by, refusal
