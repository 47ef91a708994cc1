"""What can happen to a job: the typed payloads of its log."""

from __future__ import annotations

from datetime import datetime
from enum import StrEnum
from typing import Annotated, Literal
from uuid import UUID

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, StringConstraints

from ironkettle.core.buildsheets.model import Key, Length, Pressure, Torque
from ironkettle.core.rings import Condition


def _no_nul(text: str) -> str:
    if "\x00" in text:
        raise ValueError("holds a NUL character; plain text is wanted")
    return text


ShortText = Annotated[
    str, StringConstraints(min_length=1, max_length=120, strip_whitespace=True), AfterValidator(_no_nul)
]
Note = Annotated[str, StringConstraints(max_length=2000, strip_whitespace=True), AfterValidator(_no_nul)]
Reason = Annotated[str, StringConstraints(min_length=5, max_length=600, strip_whitespace=True), AfterValidator(_no_nul)]


class Stage(StrEnum):
    """The stages of a job in the order they are worked."""

    INTAKE = "intake"
    SAFE = "safe"
    STRIP = "strip"
    MATCH = "match"
    KIT = "kit"
    REBUILD = "rebuild"
    TIGHTEN = "tighten"
    TEST = "test"
    RELEASE = "release"


class _Payload(BaseModel):
    model_config = ConfigDict(extra="forbid", frozen=True)


class IntakeRecorded(_Payload):
    """The first entry of every job; a later one corrects it."""

    kind: Literal["intake_recorded"] = "intake_recorded"
    unit: ShortText
    serial: ShortText
    customer: ShortText
    complaint: Note = Field(min_length=1)
    fluid: ShortText
    pressure: Pressure
    hours: ShortText | None = None


class StepDone(_Payload):
    kind: Literal["step_done"] = "step_done"
    step: Key
    note: Note = ""


class ObservationNoted(_Payload):
    """What was seen, as found or as left."""

    kind: Literal["observation_noted"] = "observation_noted"
    observation: Key
    when: Literal["as_found", "as_left"]
    value: ShortText


class ElementFound(_Payload):
    """An element as it came off: there or missing, which zone it faced, where the old part lies now."""

    kind: Literal["element_found"] = "element_found"
    element: Key
    present: bool
    faced: Key | None = None
    tray: Literal["scrap", "reuse", "later"] = "later"
    note: Note = ""


class RingChosen(_Payload):
    """The size chosen for an element, with the measurement and what spoke for it."""

    kind: Literal["ring_chosen"] = "ring_chosen"
    element: Key
    series: ShortText
    designation: ShortText
    inside_diameter: Length | None = None
    section: Length | None = None
    condition: Condition = Condition.USED
    probability: float | None = Field(default=None, ge=0, le=1)
    groove_verdict: Literal["good", "caution", "reject"] | None = None
    reason: Reason


class KitCounted(_Payload):
    """A kit line counted; ``decision`` for one of several alternatives, ``ordered`` for what is short."""

    kind: Literal["kit_counted"] = "kit_counted"
    line: Key
    counted: int = Field(ge=0, le=9999)
    decision: Literal["use", "unused"] = "use"
    ordered: bool = False
    note: Note = ""


class ElementFitted(_Payload):
    """A new element fitted; ``faces`` as seen by the one who fitted it."""

    kind: Literal["element_fitted"] = "element_fitted"
    element: Key
    faces: Key | None = None
    reused: bool = False
    note: Note = ""


class WrenchUsed(_Payload):
    """The wrench as it was when used, so that the record stands by itself."""

    name: ShortText
    low: Torque
    high: Torque
    accuracy_pct: float = Field(gt=0, le=20)


class FastenerTightened(_Payload):
    kind: Literal["fastener_tightened"] = "fastener_tightened"
    group: Key
    round: int = Field(ge=1, le=20, description="which pass, from 1")
    number: int = Field(ge=1, le=64)
    reading: Torque
    wrench: WrenchUsed


class GaugeUsed(_Payload):
    name: ShortText
    range: Pressure
    resolution: Pressure
    accuracy_pct: float = Field(gt=0, le=20)


class TestStarted(_Payload):
    """A run of a test begins; its samples follow as they come."""

    __test__ = False
    kind: Literal["test_started"] = "test_started"
    test: Key
    run: UUID
    gauge: GaugeUsed
    source: Literal["typed", "csv", "stand"]


class SampleRead(_Payload):
    t_s: float = Field(ge=0, le=1e7, allow_inf_nan=False)
    pressure_mpa: float = Field(ge=-0.11, le=1000, allow_inf_nan=False)
    temperature_c: float | None = Field(default=None, ge=-100, le=300, allow_inf_nan=False)


class TestSamples(_Payload):
    """A chunk of samples of a running test, times running forward over all chunks."""

    __test__ = False
    kind: Literal["test_samples"] = "test_samples"
    run: UUID
    samples: list[SampleRead] = Field(min_length=1, max_length=20_000)


class TestClosed(_Payload):
    __test__ = False
    kind: Literal["test_closed"] = "test_closed"
    run: UUID
    note: Note = ""


class StageSkipped(_Payload):
    """Going on without finishing a stage, with a written reason."""

    kind: Literal["stage_skipped"] = "stage_skipped"
    stage: Stage
    reason: Reason


class NoteMade(_Payload):
    kind: Literal["note_made"] = "note_made"
    stage: Stage
    text: Note = Field(min_length=1)


class EntryStruck(_Payload):
    """An earlier entry was a mistake; it stays in the log and counts no more."""

    kind: Literal["entry_struck"] = "entry_struck"
    entry: UUID
    reason: Reason


class Released(_Payload):
    kind: Literal["released"] = "released"
    statement: Reason
    next_service: ShortText | None = None


class Reopened(_Payload):
    kind: Literal["reopened"] = "reopened"
    reason: Reason


Payload = Annotated[
    IntakeRecorded
    | StepDone
    | ObservationNoted
    | ElementFound
    | RingChosen
    | KitCounted
    | ElementFitted
    | FastenerTightened
    | TestStarted
    | TestSamples
    | TestClosed
    | StageSkipped
    | NoteMade
    | EntryStruck
    | Released
    | Reopened,
    Field(discriminator="kind"),
]


class Entry(BaseModel):
    """One entry as it stands in the log. Times are UTC; ``seq`` starts at 1 and is set by the server."""

    model_config = ConfigDict(frozen=True)

    id: UUID
    seq: int
    who: str
    bench_time: datetime
    server_time: datetime
    payload: Payload


__all__ = [
    "ElementFitted",
    "ElementFound",
    "Entry",
    "EntryStruck",
    "FastenerTightened",
    "GaugeUsed",
    "IntakeRecorded",
    "KitCounted",
    "NoteMade",
    "ObservationNoted",
    "Payload",
    "Released",
    "Reopened",
    "RingChosen",
    "SampleRead",
    "Stage",
    "StageSkipped",
    "StepDone",
    "TestClosed",
    "TestSamples",
    "TestStarted",
    "WrenchUsed",
]
