"""POST /api/settings/advise: the next turn of an adjuster, to a figure or by a routine."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated, Any, Literal

from fastapi import APIRouter
from pydantic import BaseModel, Discriminator, Field, Tag

from ironkettle.api.base.problems import ERROR_RESPONSES
from ironkettle.api.base.schemas import Body, Collector, FindingOut, LengthText, QuantityText, findings_out
from ironkettle.core.base.errors import RuleError, fault
from ironkettle.core.base.quantities import (
    Dimension,
    Quantity,
    Toleranced,
    Unit,
    from_base,
    read_length,
    read_quantity,
    read_toleranced,
)
from ironkettle.core.base.text import Figure
from ironkettle.core.machine.adjusters import (
    Advice,
    Direction,
    Reading,
    Seen,
    Sense,
    Target,
    advise,
    advise_contact,
    advise_edge,
    advise_preset,
    turn_words,
)

router = APIRouter(prefix="/api/settings", tags=["settings"], responses=ERROR_RESPONSES)

_READ = (Dimension.PRESSURE, Dimension.FORCE, Dimension.FLOW, Dimension.LENGTH)


class SettingReading(Body):
    """``turns``: where the adjuster stands, clockwise positive, from any beginning."""

    turns: Figure = Field(ge=-1000, le=1000)
    value: QuantityText = Field(examples=["331 bar"])


class SettingBody(Body):
    """What is wanted, its tolerance behind it or apart, and the readings so far.

    ``travel``: how far the adjuster goes from its first reading, both ways.
    """

    kind: Literal["target"] = "target"
    target: QuantityText = Field(examples=["350 bar", "280 bar +10/-0"])
    tolerance: QuantityText | None = Field(default=None, examples=["5 bar"])
    floor: QuantityText | None = None
    ceiling: QuantityText | None = None
    sense: Sense = Sense.CLOCKWISE_RAISES
    pitch: LengthText | None = Field(default=None, examples=["1 mm"])
    travel: LengthText | None = Field(default=None, examples=["8 mm"])
    readings: list[SettingReading] = Field(min_length=1, max_length=100)


class SeenAt(Body):
    """``turns``: where the adjuster stands; ``sign``: whether it is there: it stands at the bottom, hisses, touches."""

    turns: Figure = Field(ge=-1000, le=1000)
    sign: bool


class RoutineBody(Body):
    readings: list[SeenAt] = Field(min_length=1, max_length=100)
    pitch: LengthText | None = Field(default=None, examples=["1 mm"])


class PresetBody(RoutineBody):
    """From the bottom so many turns back."""

    kind: Literal["preset"]
    bottom: Direction
    turns: Figure = Field(ge=0.001, le=50)
    tolerance: Figure = Field(default=0.1, ge=0.001, le=10)


class EdgeBody(RoutineBody):
    """Open until the sign shows, close until it is gone, then so much further. [deg]"""

    kind: Literal["edge"]
    open: Direction
    close_plus_deg: Figure = Field(ge=0, le=720)
    tolerance_deg: Figure = Field(default=5.0, ge=0.1, le=180)


class ContactBody(RoutineBody):
    """Turned until it just touches."""

    kind: Literal["contact"]
    towards: Direction = "clockwise"


class SettingAdviceOut(BaseModel):
    """``next_turns``: from here, clockwise positive; ``turn``: in words; ``travel_mm`` with it, where the pitch is given.

    ``values``: what was read, in the unit of the target.
    """

    done: bool
    next_turns: float
    turn: str
    expected: str | None
    rate: str | None
    travel_mm: float | None
    values: list[float] = []
    findings: list[FindingOut]


_KINDS = {"target": SettingBody, "preset": PresetBody, "edge": EdgeBody, "contact": ContactBody}


def _kind_of(body: Any) -> str:
    """Which body it is: to a figure where no kind is told."""
    return str(body.get("kind", "target") if isinstance(body, dict) else getattr(body, "kind", "target"))


AnyBody = Annotated[
    Annotated[SettingBody, Tag("target")]
    | Annotated[PresetBody, Tag("preset")]
    | Annotated[EdgeBody, Tag("edge")]
    | Annotated[ContactBody, Tag("contact")],
    Discriminator(
        _kind_of,
        custom_error_type="kind",
        custom_error_message=f"is not a way of setting; use one of {', '.join(_KINDS)}",
    ),
]


@router.post("/advise", summary="The next turn of an adjuster, to a figure or by a routine")
def advise_setting(body: AnyBody) -> SettingAdviceOut:
    if isinstance(body, SettingBody):
        return _to_target(body)
    pitch = None if body.pitch is None else read_length(body.pitch, "pitch", high=50.0)
    seen = [Seen(reading.turns, reading.sign) for reading in body.readings]
    if isinstance(body, PresetBody):
        found = advise_preset(body.bottom, body.turns, body.tolerance, seen)
    elif isinstance(body, EdgeBody):
        found = advise_edge(body.open, body.close_plus_deg, body.tolerance_deg, seen)
    else:
        found = advise_contact(body.towards, seen)
    return advice_out(found, pitch)


def advice_out(
    found: Advice, pitch: float | None, expected: str | None = None, rate: str | None = None
) -> SettingAdviceOut:
    """Advice as it is answered; ``pitch`` in mm."""
    return SettingAdviceOut(
        done=found.done,
        next_turns=round(found.next_turns, 4) + 0.0,
        turn=turn_words(found.next_turns),
        expected=expected,
        rate=rate,
        travel_mm=None if pitch is None else round(found.next_turns * pitch, 4) + 0.0,
        findings=findings_out(found.findings),
    )


def _to_target(body: SettingBody) -> SettingAdviceOut:
    wanted, band = _target(body)
    dimension, unit = wanted.unit.dimension, wanted.unit
    read = Collector()

    def value(text: str, field: str) -> float:
        return read_quantity(text, dimension, field).value

    floor, ceiling = read.get(value, body.floor, "floor"), read.get(value, body.ceiling, "ceiling")
    pitch = read.get(read_length, body.pitch, "pitch", high=50.0)
    travel = read.get(read_length, body.travel, "travel", high=1000.0)
    readings = [
        Reading(reading.turns, read.get(value, reading.value, f"readings.{place}.value"))
        for place, reading in enumerate(body.readings)
    ]
    read.require(travel is None or body.pitch is not None, "pitch", "is needed to convert travel to turns", "1 mm")
    read.done()
    reach = None if travel is None or pitch is None else travel / pitch
    start = readings[0].turns
    ends = None if reach is None else (start - reach, start + reach)
    found = advise(Target(band.nominal, band.minus, band.plus, body.sense, floor, ceiling, ends), readings)
    return advice_in(unit, found, pitch, [reading.value for reading in readings])


def advice_in(unit: Unit, found: Advice, pitch: float | None, values: Sequence[float]) -> SettingAdviceOut:
    """Advice to a figure as it is answered, in the unit of the target; ``values``: what was read [base unit]."""
    # A rate is a difference: what a unit adds, as °C or absolute pressure does, falls out of it.
    zero = from_base(0.0, unit)
    rate = None if found.rate is None else f"{from_base(found.rate, unit) - zero:.4g} {unit.symbol}/turn"
    expected = None if found.expected is None else f"{from_base(found.expected, unit):.4g} {unit.symbol}"
    answer = advice_out(found, pitch, expected, rate)
    return answer.model_copy(update={"values": [from_base(value, unit) for value in values]})


def _target(body: SettingBody) -> tuple[Quantity, Toleranced]:
    """The target in whatever it is, a pressure, a force, a flow or a length, with its tolerance. Raises RuleError."""
    first_error: RuleError | None = None
    for dimension in _READ:
        try:
            wanted, band = read_toleranced(body.target, dimension, "target")
        except RuleError as error:
            first_error = first_error or error
            continue
        if body.tolerance is not None:
            amount = _difference(body.tolerance, "tolerance", wanted)
            band = Toleranced(band.nominal, amount, amount)
        if band.high <= band.low:
            raise fault("tolerance", "is needed: give the tolerance", "5 bar", "280 bar +10/-0")
        return wanted, band
    assert first_error is not None
    raise first_error


def _difference(text: str, field: str, like: Quantity) -> float:
    """A tolerance: an amount of the target's dimension, above nothing."""
    amount = read_quantity(text, like.unit.dimension, field)
    if amount.unit.absolute:
        raise fault(field, "a tolerance is an amount, not an absolute pressure", "5 bar")
    if amount.value <= 0:
        raise fault(field, "must be above zero", "5 bar")
    return amount.value
