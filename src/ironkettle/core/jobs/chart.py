"""The moves of a job in order, each with its status: one pure function of resolved sheet, state and clock."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from graphlib import CycleError, TopologicalSorter
from heapq import heappop, heappush
from typing import Any

from ironkettle.core.base.errors import RefusedError, fault
from ironkettle.core.jobs.kinds import closing
from ironkettle.core.jobs.kinds.passed_over import MoveSkipped, is_passable
from ironkettle.core.jobs.log import Case, Payload
from ironkettle.core.jobs.model import Chapter, Draft, Kind, Move, Status
from ironkettle.core.jobs.register import SLICES, check_payload

_CHAPTERS = list(Chapter)


def moves_of(case: Case) -> tuple[Move, ...]:
    """Every move of the job, chapter by chapter, in the order they are best worked.

    The first that can be done is *next*; where nothing can be but wait, the timer that runs is, so that it
    can be cut short with a reason.
    """
    drafts = _drafts(case)
    after = _whole_after(drafts)
    listed = _in_order(case, drafts, after)
    blockers = _Blockers(drafts, after)
    moves: list[Move] = []
    found_next = False
    for draft in listed:
        status, blocked_by = _status(draft, blockers)
        if status is Status.OPEN and not found_next:
            status, found_next = Status.NEXT, True
        moves.append(replace(draft.move, status=status, blocked_by=blocked_by))
    if not found_next:
        waiting = next((place for place, move in enumerate(moves) if move.status is Status.WAITING), None)
        if waiting is not None:
            moves[waiting] = replace(moves[waiting], status=Status.NEXT)
    return tuple(moves)


def _drafts(case: Case) -> dict[str, Draft]:
    return {draft.move.key: _skipped(case, draft) for one in SLICES for draft in one.drafts(case)}


def circle_in(case: Case) -> list[str]:
    """Moves that wait for each other in a circle, in its order; empty where the job can be worked."""
    after = _whole_after(_drafts(case))
    try:
        TopologicalSorter({key: list(before) for key, before in after.items()}).prepare()
    except CycleError as error:
        return [str(one) for one in error.args[1]]
    return []


def next_move(moves: tuple[Move, ...]) -> Move | None:
    """The one that is next; None when there is nothing left to do, or nothing that can be done."""
    return next((move for move in moves if move.status is Status.NEXT), None)


def check_entry(case: Case, payload: Payload) -> None:
    """Whether an entry may be added to the job as it stands.

    Raises RuleError for names or figures that do not fit, RefusedError for what the state forbids, with the words of
    what blocks it.
    """
    closed = case.state.closed
    if closed is not None and not isinstance(payload, closing.Reopened):
        how = "released" if closed.value.kind == "released" else closing.ENDING_WORD[closed.value.how]
        raise RefusedError("job-released", f"the job is {how} and takes no entry; reopen it with a reason first")
    if not case.state.has("intake", "intake") and payload.kind != "intake_recorded":  # type: ignore[attr-defined]
        raise RefusedError("no-intake", "the first entry of a job is its intake")
    check_payload(case, payload)
    moves = moves_of(case)
    if isinstance(payload, MoveSkipped):
        _check_passable(moves, payload)
    blocked = _blocked(moves, payload)
    if blocked:
        raise RefusedError("too-early", f"first: {blocked}")


def _check_passable(moves: tuple[Move, ...], payload: MoveSkipped) -> None:
    move = next((one for one in moves if one.key == payload.move), None)
    if move is None:
        raise fault("move", f"“{payload.move}” is no move of this job", *(one.key for one in moves[:12]))
    if not is_passable(move):
        raise RefusedError("not-passable", f"this is {move.status.value} and not to be passed over: {move.text}")


def _blocked(moves: tuple[Move, ...], payload: Payload) -> str:
    """The words of what stands before the move this entry completes; empty where nothing does."""
    key = move_key_of(payload)
    if key is None:
        return ""
    for move in moves:
        if move.key == key and move.status is Status.BLOCKED:
            return "; ".join(move.blocked_by[:3])
    return ""


_MOVE_OF = {
    "intake_recorded": "intake", "question_answered": "answer:{question}", "step_done": "step:{step}",
    "element_found": "find:{element}", "element_fitted": "fit:{element}",
    "leak_seen": "leak", "cause_decided": "cause:{element}", "correction_made": "correct:{element}:{correction}", "size_chosen": "identify:{element}",
    "points_read": "measure:{part}", "part_dressed": "dress:{part}", "kit_counted": "count:{kit}",
    "part_arrived": "receive:{what}", "part_ordered": "order:{what}", "timer_cut": "timer:{timer}",
    "group_tightened": "tighten:{group}:{phase}:{turn}", "setting_made": "set:{setting}",
    "test_run": "test:{test}:{when}", "test_started": "test:{test}:{when}",
    "observation_noted": "observe:{observation}:{when}", "accounted": "account", "disposed": "dispose",
    "released": "sign",
}  # fmt: skip


def move_key_of(payload: Payload) -> str | None:
    """The move that a payload completes; None where it belongs to none, as a note does."""
    return move_key_of_document(payload.model_dump(mode="json", exclude={"samples", "readings", "lines", "points"}))


def move_key_of_document(document: Mapping[str, Any]) -> str | None:
    """The move that a payload completes, from its document; None where it belongs to none or lacks what names it."""
    template = _MOVE_OF.get(str(document.get("kind")))
    try:
        return None if template is None else template.format(**{"turn": 1, "when": "as_left", **document})
    except (KeyError, IndexError, ValueError, TypeError):
        return None


def _skipped(case: Case, draft: Draft) -> Draft:
    chapter = "tighten" if draft.move.kind is Kind.TIGHTEN else draft.move.stage.value
    # A job that is closed has nothing left to do, whatever moves later rules would bring.
    passed_over = (
        case.state.passed_over(draft.move.key)
        or case.state.has("skipped_chapters", chapter)
        or case.state.closed is not None
    )
    return replace(draft, skipped=True) if passed_over and not draft.done else draft


def _whole_after(drafts: Mapping[str, Draft]) -> dict[str, dict[str, str]]:
    """What each move waits for, spelled out: a step with all that rides on it, a signature with everything."""
    riders = _riders(drafts)
    found: dict[str, dict[str, str]] = {}
    for key, draft in drafts.items():
        after: dict[str, str] = {}
        for one, why in draft.after.items():
            after[one] = why
            if draft.move.kind is not Kind.TIMER and not _rides_on(key, one, riders):
                after.update({rider: why for rider in riders.get(one, ()) if rider != key})
        found[key] = {one: why for one, why in after.items() if one in drafts}
    if "sign" in found:
        found["sign"] = {key: "" for key in drafts if key != "sign"}
    return found


_RIDING = frozenset({Kind.TIGHTEN, Kind.SET, Kind.TIMER, Kind.TEST})


def _riders(drafts: Mapping[str, Draft]) -> dict[str, list[str]]:
    """What rides on a step and comes right after it: its tightening, its settings, its timer, its tests."""
    found: dict[str, list[str]] = {}
    for key, draft in drafts.items():
        if draft.step is not None and draft.move.kind in _RIDING:
            found.setdefault(f"step:{draft.step}", []).append(key)
    return found


def _rides_on(key: str, step_key: str, riders: Mapping[str, list[str]]) -> bool:
    return key in riders.get(step_key, ())


# In the place of its step: what is fitted before it, the step, then what it brings.
_WITHIN = (
    Kind.FIT, Kind.STEP, Kind.FIND, Kind.CAUSE, Kind.ANSWER, Kind.TIGHTEN, Kind.SET, Kind.TIMER, Kind.TEST, Kind.MEASURE,
)  # fmt: skip


def _in_order(case: Case, drafts: Mapping[str, Draft], after: Mapping[str, Mapping[str, str]]) -> list[Draft]:
    """Chapter by chapter, step by step; what comes first before what waits for it, else as listed by the slices."""
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


def _place(draft: Draft, steps: Mapping[str, int]) -> tuple[int, int, int]:
    step = steps.get(draft.step or "", len(steps))
    within = _WITHIN.index(draft.move.kind) if draft.move.kind in _WITHIN else len(_WITHIN)
    return _CHAPTERS.index(draft.move.stage), step, within


class _Blockers:
    """What stands before each move: what it waits for itself, and what that waits for where it was done before."""

    def __init__(self, drafts: Mapping[str, Draft], after: Mapping[str, Mapping[str, str]]) -> None:
        self._drafts, self._after = drafts, after
        self._open: dict[str, frozenset[str]] = {}

    def of(self, key: str) -> tuple[str, ...]:
        """The words of what blocks a move: what it waits for itself first, else what stands further before."""
        own = [(one, why) for one, why in self._after[key].items() if self._is_open(one)]
        if own:
            return tuple(f"{self._drafts[one].move.text}{f' ({why})' if why else ''}" for one, why in own)
        return tuple(self._drafts[one].move.text for one in sorted(self._open_before(key)))

    def _is_open(self, key: str) -> bool:
        return not self._drafts[key].done and not self._drafts[key].skipped

    def _open_before(self, key: str) -> frozenset[str]:
        """Everything that is not done, however far before a move."""
        if key not in self._open:
            self._open[key] = frozenset()
            found: set[str] = set()
            for one in self._after[key]:
                if self._is_open(one):
                    found.add(one)
                elif not self._drafts[one].skipped:
                    found |= self._open_before(one)
            self._open[key] = frozenset(found)
        return self._open[key]


def _status(draft: Draft, blockers: _Blockers) -> tuple[Status, tuple[str, ...]]:
    if draft.done:
        return Status.DONE, ()
    if draft.skipped:
        return Status.SKIPPED, ()
    if draft.waits:
        return Status.WAITING, ()
    blocked_by = blockers.of(draft.move.key)
    return (Status.BLOCKED, blocked_by) if blocked_by else (Status.OPEN, ())
