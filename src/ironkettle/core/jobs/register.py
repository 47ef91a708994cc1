"""The slices in one list: every kind of entry, in the order in which moves of one chapter are listed."""

from __future__ import annotations

from collections.abc import Iterable
from typing import TYPE_CHECKING, Annotated, Any, Union
from uuid import UUID

from pydantic import Field, TypeAdapter

from ironkettle.core.jobs.kinds import (
    adjust,
    again,
    answer,
    care,
    cause,
    closing,
    find,
    fit,
    identify,
    ladder,
    leak,
    measure,
    observe,
    passed_over,
    photo,
    step,
    supply,
    tighten,
    timer,
    trial,
)
from ironkettle.core.jobs.log import Case, Mark, Payload, State
from ironkettle.core.jobs.resolved import Resolved

SLICES: tuple[Any, ...] = (
    observe, leak, answer, step, find, cause, measure, identify, supply, fit, tighten, timer, adjust, trial, closing, care, again, ladder, photo, passed_over,
)  # fmt: skip
_BY_PAYLOAD: dict[type[Payload], Any] = {payload: one for one in SLICES for payload in one.PAYLOADS}
if TYPE_CHECKING:
    AnyPayload = Payload
else:
    AnyPayload = Annotated[Union[tuple(_BY_PAYLOAD)], Field(discriminator="kind")]  # noqa: UP007
_READ: TypeAdapter[Payload] = TypeAdapter(AnyPayload)


def read_payload(document: Any) -> Payload:
    """A payload of any kind from what was sent. Raises pydantic's ValidationError."""
    return _READ.validate_python(document)


def check_payload(case: Case, payload: Payload) -> None:
    """Raises RuleError for names or figures that do not fit, RefusedError for what the state forbids."""
    _BY_PAYLOAD[type(payload)].check(case, payload)


def payload_words(resolved: Resolved, payload: Payload) -> str:
    """One entry in a short sentence with part, value and unit."""
    told: str = _BY_PAYLOAD[type(payload)].words(resolved, payload)
    return told


def complete(case: Case, payload: Payload) -> Payload:
    """The entry with what the server alone knows, as a wrench of the shop's list."""
    one = _BY_PAYLOAD[type(payload)]
    return one.complete(case, payload) if hasattr(one, "complete") and type(payload) is one.PAYLOADS[0] else payload


def as_sent(payload: Payload) -> Payload:
    """The entry without what the server set or keeps elsewhere, to tell whether another is the same."""
    one = _BY_PAYLOAD[type(payload)]
    return one.as_sent(payload) if hasattr(one, "as_sent") and type(payload) is one.PAYLOADS[0] else payload


def apply_entry(state: State, payload: Payload, mark: Mark) -> None:
    """Take one entry more into the state. A striking calls for folding the log anew: see ``fold``."""
    state.count += 1
    _BY_PAYLOAD[type(payload)].apply(state, payload, mark)


def fold(entries: Iterable[tuple[Payload, Mark]]) -> State:
    """The state that entries add up to. Those struck out count no more, whatever came between."""
    listed = list(entries)
    struck: set[UUID] = {payload.entry for payload, _ in listed if isinstance(payload, passed_over.EntryStruck)}
    state = State()
    for payload, mark in listed:
        if mark.entry in struck:
            state.count += 1
        else:
            apply_entry(state, payload, mark)
    return state
