"""Every kind of entry in one list, in the order in which tasks of one stage are listed; and what is read off their declarations."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from typing import TYPE_CHECKING, Annotated, Union, cast
from uuid import UUID

from pydantic import BeforeValidator, Field, TypeAdapter

from ironkettle.core.jobs.ask import Ask
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kind import AnyKind
from ironkettle.core.jobs.kinds import (
    account,
    arrival,
    begin,
    cause,
    correction,
    disposal,
    dressing,
    ending,
    find,
    fitting,
    full_job,
    inspection,
    intake,
    kit_count,
    leak,
    note,
    observation,
    order,
    photo,
    question,
    release,
    reopening,
    rinse,
    rung,
    setting,
    size,
    skip,
    stage_skip,
    step,
    strike,
    take_apart,
    test_close,
    test_run,
    test_samples,
    test_start,
    tightening,
    timer_cut,
)
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.jobs.runs import Judgement
from ironkettle.core.jobs.screen import PlainScreen, Screen
from ironkettle.core.jobs.state import Mark, Payload, State

ENTRY_KINDS: tuple[AnyKind, ...] = (
    intake.KIND, begin.KIND, observation.KIND, leak.KIND, question.KIND, rinse.KIND, step.KIND, find.KIND, cause.KIND, correction.KIND, inspection.KIND,
    dressing.KIND, size.KIND, kit_count.KIND, order.KIND, arrival.KIND, fitting.KIND, tightening.KIND, timer_cut.KIND, setting.KIND,
    test_run.KIND, test_start.KIND, test_samples.KIND, test_close.KIND, account.KIND, disposal.KIND, release.KIND, ending.KIND,
    reopening.KIND, full_job.KIND, take_apart.KIND, rung.KIND, photo.KIND, skip.KIND, stage_skip.KIND, note.KIND, strike.KIND,
)  # fmt: skip


class Registry:
    """Kinds of entry, found by their payload and by their names, those of older logs among them."""

    def __init__(self, kinds: Sequence[AnyKind]) -> None:
        self.kinds = tuple(kinds)
        self._by_model = {kind.model: kind for kind in kinds}
        self._by_name = {name: kind for kind in kinds for name in (kind.name, *kind.former)}
        self.payloads = Annotated[
            Union[tuple(self._by_model)], Field(discriminator="kind"), BeforeValidator(self._renamed)  # noqa: UP007
        ]
        self._reader: TypeAdapter[Payload] = TypeAdapter(cast("type[Payload]", self.payloads))

    def read(self, document: object) -> Payload:
        """A payload of any kind from its document. Raises pydantic's ValidationError."""
        return self._reader.validate_python(document)

    def of(self, payload: Payload) -> AnyKind:
        """The kind of a payload."""
        return self._by_model[type(payload)]

    def named(self, document: Mapping[str, object]) -> AnyKind | None:
        """The kind that a document names; None where there is no such kind."""
        return self._by_name.get(str(document.get("kind")))

    def _renamed(self, document: object) -> object:
        """A payload's document under the name its kind has now."""
        if isinstance(document, dict):
            kind = self.named(document)
            if kind is not None and document["kind"] != kind.name:
                return {**document, "kind": kind.name}
        return document


REGISTRY = Registry(ENTRY_KINDS)
if TYPE_CHECKING:
    AnyPayload = Payload
else:
    AnyPayload = REGISTRY.payloads


def kinds() -> tuple[AnyKind, ...]:
    """Every kind of entry, in the order in which tasks of one stage are listed."""
    return REGISTRY.kinds


# The screens of all tasks, told apart by their kind.
SCREENS: tuple[type[Screen], ...] = tuple(
    dict.fromkeys([PlainScreen, *(screen for kind in ENTRY_KINDS for screen in kind.screens)])
)
if TYPE_CHECKING:
    AnyScreen = Screen
else:
    AnyScreen = Annotated[Union[SCREENS], Field(discriminator="kind")]  # noqa: UP007


def read_payload(document: object) -> Payload:
    """A payload of any kind from what was sent, also under a name its kind had before. Raises pydantic's ValidationError."""
    return REGISTRY.read(document)


def kind_of(payload: Payload) -> AnyKind:
    """What is known of the kind of an entry."""
    return REGISTRY.of(payload)


def payload_words(resolved: Resolved, payload: Payload) -> str:
    """One entry in a short sentence with part, value and unit."""
    return kind_of(payload).words_of(resolved, payload)


def complete(case: Case, payload: Payload) -> Payload:
    """The entry with what the server alone knows, as a wrench of the shop's list."""
    return kind_of(payload).completed(case, payload)


def as_sent(payload: Payload) -> Payload:
    """The entry without what the server set or keeps elsewhere, to tell whether another is the same."""
    return kind_of(payload).as_it_was_sent(payload)


def judgement_of(case: Case, payload: Payload) -> Judgement | None:
    """What the run comes to that an entry closes; None for an entry that closes none."""
    return kind_of(payload).judgement_of(case, payload)


def task_key_of(payload: Payload) -> str | None:
    """The key of the task that a payload completes; None where it completes none, as a note does."""
    return _filled(kind_of(payload).completes, vars(payload))


def task_key_of_document(document: Mapping[str, object]) -> str | None:
    """The key of the task that a payload completes, from its document; None where it completes none or lacks what names it."""
    kind = REGISTRY.named(document)
    return None if kind is None else _filled(kind.completes, {"turn": 1, "when": "as_left", **document})


def _filled(template: str | None, fields: Mapping[str, object]) -> str | None:
    try:
        return None if template is None else template.format(**fields)
    except (KeyError, IndexError, ValueError, TypeError):
        return None


def loose_asks_of(document: Mapping[str, object]) -> tuple[Ask, ...]:
    """The fields of an entry that may be put right where it completes no task; none for a kind that is not known."""
    kind = REGISTRY.named(document)
    return () if kind is None else kind.loose_asks


def apply_entry(state: State, payload: Payload, mark: Mark) -> None:
    """Take one entry more into the state. A striking calls for folding the log again: see ``fold``."""
    state.count += 1
    kind_of(payload).apply_payload(state, payload, mark)
    task = task_key_of(payload)
    if task is not None:
        state.completed[task] = mark.seq


def fold(entries: Iterable[tuple[Payload, Mark]]) -> State:
    """The state that entries add up to. Those struck out count no more, whatever came between."""
    listed = list(entries)
    struck: set[UUID] = {payload.entry for payload, _ in listed if isinstance(payload, strike.EntryStruck)}
    state = State()
    for payload, mark in listed:
        if mark.entry in struck:
            state.count += 1
        else:
            apply_entry(state, payload, mark)
    return state
