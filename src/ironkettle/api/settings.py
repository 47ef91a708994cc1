"""POST /api/settings/advise: the next turn of an adjuster towards its target."""

from __future__ import annotations

from typing import Literal

from fastapi import APIRouter
from pydantic import BaseModel, Field

from ironkettle.api.problems import ERROR_RESPONSES
from ironkettle.api.schemas import Body, Collector, FindingOut, QuantityText, findings_out
from ironkettle.core.errors import RuleError, fault
from ironkettle.core.quantities import Dimension, Quantity, from_base, read_length, read_quantity
from ironkettle.core.settings import Reading, Sense, Target, advise
from ironkettle.core.text import Figure

router = APIRouter(prefix="/api/settings", tags=["settings"], responses=ERROR_RESPONSES)

_READ = (Dimension.PRESSURE, Dimension.FORCE, Dimension.FLOW, Dimension.LENGTH)


class SettingReading(Body):
    """``turns``: where the adjuster stands, clockwise positive, from any beginning."""

    turns: Figure = Field(ge=-1000, le=1000)
    value: QuantityText = Field(examples=["331 bar"])


class SettingBody(Body):
    """What is wanted, and the readings so far. ``travel``: how far the adjuster goes from its first reading, both ways."""

    kind: Literal["target"] = "target"
    target: QuantityText = Field(examples=["350 bar"])
    tolerance: QuantityText = Field(examples=["5 bar"])
    floor: QuantityText | None = None
    ceiling: QuantityText | None = None
    sense: Sense = Sense.CLOCKWISE_RAISES
    pitch: QuantityText | None = Field(default=None, examples=["1 mm"])
    travel: QuantityText | None = Field(default=None, examples=["8 mm"])
    readings: list[SettingReading] = Field(min_length=1, max_length=100)


class SettingAdviceOut(BaseModel):
    """``next_turns``: from here, clockwise positive; ``travel_mm`` of the adjuster with it, where its pitch is given."""

    done: bool
    next_turns: float
    expected: str | None
    rate: str | None
    travel_mm: float | None
    findings: list[FindingOut]


@router.post("/advise", summary="The next turn of an adjuster towards its target")
def advise_setting(body: SettingBody) -> SettingAdviceOut:
    wanted = _target(body.target)
    dimension, unit = wanted.unit.dimension, wanted.unit
    read = Collector()

    def value(text: str, field: str) -> float:
        return read_quantity(text, dimension, field).value

    tolerance = read.get(lambda text, field: _difference(text, field, wanted), body.tolerance, "tolerance")
    floor, ceiling = read.get(value, body.floor, "floor"), read.get(value, body.ceiling, "ceiling")
    pitch = read.get(read_length, body.pitch, "pitch", high=50.0)
    travel = read.get(read_length, body.travel, "travel", high=1000.0)
    readings = [
        Reading(one.turns, read.get(value, one.value, f"readings.{place}.value"))
        for place, one in enumerate(body.readings)
    ]
    read.require(travel is None or body.pitch is not None, "pitch", "is needed to tell turns from travel", "1 mm")
    read.done()
    reach = None if travel is None or pitch is None else travel / pitch
    start = readings[0].turns
    ends = None if reach is None else (start - reach, start + reach)
    found = advise(Target(wanted.value, tolerance, tolerance, body.sense, floor, ceiling, ends), readings)
    # A rate is a difference: what a unit adds, as °C or absolute pressure does, falls out of it.
    zero = from_base(0.0, unit)
    rate = None if found.rate is None else from_base(found.rate, unit) - zero
    return SettingAdviceOut(
        done=found.done,
        next_turns=round(found.next_turns, 4) + 0.0,
        expected=None if found.expected is None else f"{from_base(found.expected, unit):.4g} {unit.symbol}",
        rate=None if rate is None else f"{rate:.4g} {unit.symbol}/turn",
        travel_mm=None if pitch is None else round(found.next_turns * pitch, 4) + 0.0,
        findings=findings_out(found.findings),
    )


def _target(text: str) -> Quantity:
    """The target in whatever it is: a pressure, a force, a flow or a length. Raises RuleError."""
    told: RuleError | None = None
    for dimension in _READ:
        try:
            return read_quantity(text, dimension, "target")
        except RuleError as error:
            told = told or error
    assert told is not None
    raise told


def _difference(text: str, field: str, like: Quantity) -> float:
    """A tolerance: an amount of the target's dimension, above nothing."""
    amount = read_quantity(text, like.unit.dimension, field)
    if amount.unit.absolute:
        raise fault(field, "a tolerance is an amount, not an absolute pressure", "5 bar")
    if amount.value <= 0:
        raise fault(field, "must be above zero", "5 bar")
    return amount.value
