"""The end of a job: tray and kit accounted for, waste disposed of, signed."""

from __future__ import annotations

from collections.abc import Iterator
from enum import StrEnum
from typing import Literal

from ironkettle.core.base.errors import NotAllowedError, RefusedError, fault
from ironkettle.core.jobs.inspecting import Verdict
from ironkettle.core.jobs.kinds.again import apart_since
from ironkettle.core.jobs.kinds.base import Note, Reason, Short, ask_yes
from ironkettle.core.jobs.kinds.measure import standing
from ironkettle.core.jobs.kinds.passed_over import needs_lead
from ironkettle.core.jobs.kinds.step import renewed
from ironkettle.core.jobs.log import Case, Mark, Payload, State
from ironkettle.core.jobs.model import Ask, Chapter, Draft, Kind, Move
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.sheets.document.care import every_of
from ironkettle.core.sheets.document.parts import Read
from ironkettle.core.sheets.document.trials import Interval
from ironkettle.core.shop.people import Role
from ironkettle.core.shop.service import next_words


class Accounted(Payload):
    """``tray``: nothing left in it but what is to be scrapped; ``kit``: nothing left of it but what was not used."""

    kind: Literal["accounted"] = "accounted"
    tray: bool
    kit: bool
    note: Note = ""


class Disposed(Payload):
    kind: Literal["disposed"] = "disposed"
    done: bool


class Released(Payload):
    """Signed. What was done and what was not is told by the log; ``remark`` is the signer's own."""

    kind: Literal["released"] = "released"
    remark: Note = ""
    next_service: Short | None = None


class Ending(StrEnum):
    """How a job ends that is not released."""

    SCRAPPED = "scrapped"
    RETURNED = "returned"
    CANCELLED = "cancelled"


ENDING_WORD = {
    Ending.SCRAPPED: "scrapped",
    Ending.RETURNED: "returned unrepaired",
    Ending.CANCELLED: "cancelled",
}


class JobEnded(Payload):
    """The job ends without a release, signed, with the reason; its certificate tells what was found."""

    kind: Literal["job_ended"] = "job_ended"
    how: Ending
    reason: Reason


class Reopened(Payload):
    kind: Literal["reopened"] = "reopened"
    reason: Reason


PAYLOADS = (Accounted, Disposed, Released, JobEnded, Reopened)


def check(case: Case, payload: Payload) -> None:
    if isinstance(payload, Accounted):
        if not payload.tray:
            raise fault("tray", f"what is left in the tray belongs on the unit or to scrap: {_tray_words(case)}", "yes")
        if not payload.kit and not payload.note:
            raise fault("kit", f"something is left over of the kit; only this may be: {_left_words(case)}", "yes")
    elif isinstance(payload, Disposed) and not payload.done:
        raise fault("done", "say when it is done", "yes")
    elif isinstance(payload, Released):
        if needs_lead(case.state) and case.author is not None and case.author.role is not Role.LEAD:
            text = (
                "something that is there against a danger was passed over on this job: only the workshop lead signs it"
            )
            raise NotAllowedError("lead-signs", text)
    elif isinstance(payload, Reopened) and case.state.closed is None:
        raise RefusedError("not-released", "the job is not released, so there is nothing to reopen")


def apply(state: State, payload: Payload, mark: Mark) -> None:
    if isinstance(payload, Accounted):
        state.note("closing", "accounted", payload, mark)
    elif isinstance(payload, Disposed):
        state.note("closing", "disposed", payload, mark)
    elif isinstance(payload, Released):
        state.note("released", "released", payload, mark)
    elif isinstance(payload, JobEnded):
        state.note("ended", "ended", payload, mark)
    elif isinstance(payload, Reopened):
        state.book("released").pop("released", None)
        state.book("ended").pop("ended", None)
        state.book("closing").pop("accounted", None)
        state.note("reopened", mark.seq, payload, mark)


def drafts(case: Case) -> Iterator[Draft]:
    state = case.state
    rebuilt = {f"step:{step.key}": "" for step in case.resolved.sheet.steps if step.stage == "rebuild"}
    account = Move(
        "account",
        Chapter.RELEASE,
        Kind.ACCOUNT,
        "tray and kit",
        f"Tray and kit accounted for: {_tray_words(case)}; {_left_words(case)}",
        {"kind": "accounted"},
        why="a part left over is a part left out",
        asks=(ask_yes("tray", f"Tray: {_tray_words(case)}?"), ask_yes("kit", f"Kit: {_left_words(case)}?")),
    )
    counted = state.book("closing").get("accounted")
    # A care without a kit, whose parts all went back on, has nothing to count.
    if case.resolved.care is None or case.resolved.sheet.kits:
        yield Draft(account, counted is not None and not apart_since(case, counted.mark), after=rebuilt)
    if case.resolved.sheet.disposal:
        where = "; ".join(f"{one.what} to the {one.where}" for one in case.resolved.sheet.disposal)
        dispose = Move(
            "dispose", Chapter.RELEASE, Kind.DISPOSE, "waste", f"Dispose: {where}", {"kind": "disposed"},
            asks=(ask_yes("done", f"{where}?"),),
        )  # fmt: skip
        yield Draft(dispose, state.has("closing", "disposed"))
    intervals = [f"{one.what} {next_words(every_of(one), case.now.date())}" for one in _renewed_by(case)]
    sign = Move(
        "sign",
        Chapter.RELEASE,
        Kind.SIGN,
        "release",
        "Sign and release",
        {"kind": "released", "next_service": "; ".join(intervals)[:120] or None},
        asks=(Ask("remark", Read.TEXT, "Remark", optional=True),),
    )
    yield Draft(sign, state.has("released", "released"))


def fulfilled(case: Case) -> tuple[str, ...]:
    """The intervals that a release of this job begins anew: those of a care, else all but parts that were not replaced."""
    if case.resolved.care is not None:
        return (case.resolved.care.name,)
    resolved = case.resolved

    def counts(one: Interval) -> bool:
        if one.of == "unit" or one.what != "replace" or one.of not in resolved.parts:
            return True
        return renewed(resolved, one.of) or standing(case, one.of) is Verdict.REPLACE

    return tuple(one.name for one in resolved.sheet.intervals if counts(one))


def _renewed_by(case: Case) -> list[Interval]:
    """What the next service is told from: the care in hand, else what is of the whole unit."""
    if case.resolved.care is not None:
        return [case.resolved.care]
    return [one for one in case.resolved.sheet.intervals if one.of == "unit" and not one.steps]


def _tray_words(case: Case) -> str:
    """What of what came off does not go back on."""
    resolved = case.resolved
    on = {part for step in resolved.sheet.steps if step.stage == "rebuild" for part in step.puts_on}
    off = [part for step in resolved.sheet.steps for part in step.takes_off if part in resolved.parts]
    condemned = {Verdict.REPLACE, Verdict.SEND_OUT}
    scrap = [
        resolved.parts[key].name.lower()
        for key in off
        if key not in on or renewed(resolved, key) or standing(case, key) in condemned
    ]
    return f"only old parts for scrap are left ({', '.join(scrap)})" if scrap else "it is empty"


def _left_words(case: Case) -> str:
    lines = case.resolved.kit_lines
    unused = [
        lines[one.line].name
        for marked in case.state.book("kits").values()
        for one in marked.value.lines
        if not one.used and one.counted and one.line in lines
    ]
    return f"only {', '.join(unused)} is left over, not used" if unused else "nothing of it is left over"


def words(resolved: Resolved, payload: Payload) -> str:
    if isinstance(payload, Accounted):
        return f"tray and kit accounted for{f': {payload.note}' if payload.note else ''}"
    if isinstance(payload, Disposed):
        return "waste disposed of"
    if isinstance(payload, Released):
        return f"released{f': {payload.remark}' if payload.remark else ''}"
    if isinstance(payload, JobEnded):
        return f"ended, {ENDING_WORD[payload.how]}: {payload.reason}"
    return f"reopened: {payload.reason}" if isinstance(payload, Reopened) else ""
