"""Quick care made into a full job: something wants replacing, or more is wrong than the care looks at."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from ironkettle.core.base.errors import RefusedError
from ironkettle.core.jobs.inspecting import Verdict
from ironkettle.core.jobs.kinds.base import Reason
from ironkettle.core.jobs.kinds.measure import standing
from ironkettle.core.jobs.log import Case, Mark, Payload, State
from ironkettle.core.jobs.model import Draft
from ironkettle.core.jobs.resolved import Resolved


class CareWidened(Payload):
    """From here on the whole sheet is worked; what was done in the care stays done."""

    kind: Literal["care_widened"] = "care_widened"
    reason: Reason


PAYLOADS = (CareWidened,)


def check(case: Case, payload: CareWidened) -> None:
    if case.state.care is None:
        raise RefusedError("no-care", "this is a full job already")


def apply(state: State, payload: CareWidened, mark: Mark) -> None:
    state.note("care", "widened", payload, mark)


def drafts(case: Case) -> Iterator[Draft]:
    yield from ()


def condemned(case: Case) -> tuple[str, ...]:
    """The names of the parts that a care found to be replaced or sent out: the reason for a full job."""
    return tuple(
        part.name
        for part in case.resolved.sheet.parts
        if standing(case, part.key) in {Verdict.REPLACE, Verdict.SEND_OUT}
    )


def words(resolved: Resolved, payload: CareWidened) -> str:
    return f"made a full job: {payload.reason}"
