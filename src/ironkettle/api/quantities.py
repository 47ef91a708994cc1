"""POST /api/quantities/read: what a text means, in its own unit and in the other."""

from __future__ import annotations

from fastapi import APIRouter
from pydantic import BaseModel

from ironkettle.api.problems import ERROR_RESPONSES
from ironkettle.api.schemas import Body, QuantityText
from ironkettle.core.quantities import BASE_UNIT, Dimension, in_both, read_quantity, split_tolerance

router = APIRouter(prefix="/api/quantities", tags=["quantities"], responses=ERROR_RESPONSES)


class ReadBody(Body):
    text: QuantityText
    dimension: Dimension
    toleranced: bool = False


class ReadOut(BaseModel):
    """``value`` in the base unit named beside it; ``shown`` in the unit written, the other in brackets."""

    value: float
    base_unit: str
    unit: str
    shown: str


@router.post("/read", summary="Read a quantity as a technician writes it")
def read(body: ReadBody) -> ReadOut:
    text, minus, plus = split_tolerance(body.text, "text") if body.toleranced else (body.text, 0.0, 0.0)
    quantity = read_quantity(text, body.dimension, "text")
    tolerance = f", ±{plus:g}" if minus == plus else f", +{plus:g}/−{minus:g}"
    return ReadOut(
        value=quantity.value,
        base_unit=BASE_UNIT[body.dimension],
        unit=quantity.unit.symbol,
        shown=in_both(quantity.value, quantity.unit.symbol) + (tolerance if minus or plus else ""),
    )
