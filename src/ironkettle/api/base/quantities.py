"""What a text means, in its own unit and in the other; and what a bare number means in this shop."""

from __future__ import annotations

from fastapi import APIRouter
from pydantic import BaseModel

from ironkettle.api.base.deps import SettingsInForce
from ironkettle.api.base.problems import ERROR_RESPONSES
from ironkettle.api.base.schemas import Body, QuantityText
from ironkettle.core.base.quantities import (
    BASE_UNIT,
    Dimension,
    in_both,
    read_quantity,
    read_toleranced,
    show_tolerance,
)

router = APIRouter(prefix="/api/quantities", tags=["quantities"], responses=ERROR_RESPONSES)


class ReadBody(Body):
    text: QuantityText
    dimension: Dimension
    toleranced: bool = False


class ReadOut(BaseModel):
    """``value``, and with ``toleranced`` ``minus`` and ``plus``, in the base unit named beside it.

    ``shown`` is in the unit written, the other in brackets.
    """

    value: float
    base_unit: str
    unit: str
    shown: str
    minus: float | None
    plus: float | None


@router.post("/read", summary="Read a quantity as a technician writes it")
def read(body: ReadBody, settings: SettingsInForce) -> ReadOut:
    drop = settings.hold_rules.drop_ml
    if not body.toleranced:
        quantity, around = read_quantity(body.text, body.dimension, "text", drop), None
    else:
        quantity, around = read_toleranced(body.text, body.dimension, "text")
    tolerance = "" if around is None else show_tolerance(around, quantity.unit)
    return ReadOut(
        value=quantity.value,
        base_unit=BASE_UNIT[body.dimension],
        unit=quantity.unit.symbol,
        shown=in_both(quantity.value, quantity.unit) + (f", {tolerance}" if tolerance else ""),
        minus=None if around is None else around.minus,
        plus=None if around is None else around.plus,
    )


@router.get("/units", summary="What a number without a unit means in this shop, by dimension")
def units(settings: SettingsInForce) -> dict[Dimension, str]:
    return {Dimension(dimension): symbol for dimension, symbol in settings.units.items()}
