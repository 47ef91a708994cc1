"""What the fields of a build sheet hold: keys, words, quantities with their unit, and conditions on answers."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import Annotated, Any, Generic, Self, TypeVar

from pydantic import BaseModel, BeforeValidator, ConfigDict, Field, GetPydanticSchema, StringConstraints
from pydantic_core import core_schema

from ironkettle.core.base.errors import RuleError
from ironkettle.core.base.quantities import (
    Dimension,
    Toleranced,
    read_flow,
    read_gauge_pressure,
    read_length,
    read_quantity,
    read_temperature,
    read_toleranced,
    read_toleranced_length,
    read_torque,
    read_volume,
)
from ironkettle.core.base.text import Figure, Plain, PlainLines

# The lowest gauge pressure there is: no air at all. [MPa]
FULL_VACUUM = -0.101325


T = TypeVar("T")


class Measure(str, Generic[T]):
    """A quantity as a sheet writes it, and its ``value``, read once when the sheet is. [base unit]"""

    value: T

    def __new__(cls, text: str, value: T) -> Self:
        made = super().__new__(cls, text)
        made.value = value
        return made

    def __getnewargs__(self) -> tuple[str, T]:  # type: ignore[override]
        """What a copy is made from."""
        return str(self), self.value


def _quantity(read: Callable[[str, str], T], dimension: Dimension) -> GetPydanticSchema:
    """How a quantity is read; the schema names its dimension as the format."""

    def keep(text: str) -> Measure[T]:
        try:
            return Measure(text, read(text, "value"))
        except RuleError as error:
            fault = error.faults[0]
            fits = f" (fits: {', '.join(fault.accepts)})" if fault.accepts else ""
            raise ValueError(f"{fault.message}{fits}") from None

    return GetPydanticSchema(
        lambda _, handler: core_schema.no_info_after_validator_function(keep, handler.generate_schema(Written)),
        lambda schema, handler: {**handler(schema), "format": dimension.value},
    )


def _of(dimension: Dimension) -> Callable[[str, str], float]:
    return lambda text, field: read_quantity(text, dimension, field).value


def _toleranced(dimension: Dimension) -> Callable[[str, str], Toleranced]:
    return lambda text, field: read_toleranced(text, dimension, field)[1]


def _as_text(value: Any) -> Any:
    """Numbers that YAML has read where a word is wanted: ``of: [1, 2]``."""
    return str(value) if isinstance(value, int) and not isinstance(value, bool) else value


def _as_list(value: Any) -> Any:
    return value if isinstance(value, list | tuple) or value is None else [value]


Text = Annotated[str, StringConstraints(min_length=1, max_length=600), *PlainLines]
Key = Annotated[str, BeforeValidator(_as_text), StringConstraints(pattern=r"^[a-z0-9][a-z0-9_\-]{0,59}$")]
# A key that may name one of several alike: ``piston@2``.
Name = Annotated[
    str, BeforeValidator(_as_text), StringConstraints(pattern=r"^[a-z0-9][a-z0-9_\-]{0,59}(@[a-z0-9_\-]{1,20})?$")
]
Names = Annotated[list[Name], BeforeValidator(_as_list)]
Written = Annotated[str, StringConstraints(max_length=60), Plain]
Length = Annotated[Measure[float], _quantity(read_length, Dimension.LENGTH)]
TolerancedLength = Annotated[Measure[Toleranced], _quantity(read_toleranced_length, Dimension.LENGTH)]
# No unit of a workshop sees more: water jets end at 4000 bar. [MPa]
Pressure = Annotated[Measure[float], _quantity(partial(read_gauge_pressure, high=500.0), Dimension.PRESSURE)]
# A diameter that may be nothing: the inner edge of a disc.
InnerDiameter = Annotated[
    Measure[Toleranced], _quantity(lambda text, field: read_toleranced_length(text, field, low=-1e-9), Dimension.LENGTH)
]
# Of a zone: below zero it is a vacuum.
ZonePressure = Annotated[
    Measure[float], _quantity(partial(read_gauge_pressure, low=FULL_VACUUM, high=500.0), Dimension.PRESSURE)
]
TolerancedPressure = Annotated[Measure[Toleranced], _quantity(_toleranced(Dimension.PRESSURE), Dimension.PRESSURE)]
Torque = Annotated[Measure[float], _quantity(partial(read_torque, high=20_000.0), Dimension.TORQUE)]
Volume = Annotated[Measure[float], _quantity(read_volume, Dimension.VOLUME)]
Flow = Annotated[Measure[float], _quantity(read_flow, Dimension.FLOW)]
Temperature = Annotated[Measure[float], _quantity(read_temperature, Dimension.TEMPERATURE)]
Time = Annotated[Measure[float], _quantity(_of(Dimension.TIME), Dimension.TIME)]
Millimetres = Annotated[Figure, Field(ge=-5000, le=5000)]
Radius = Annotated[Figure, Field(ge=0, le=5000)]
Place = tuple[Millimetres, Millimetres]
Only = Annotated[
    dict[Key, Annotated[list[Key], BeforeValidator(_as_list), Field(min_length=1)]],
    Field(default_factory=dict, description="the item applies only with these answers"),
]


class Strict(BaseModel):
    """A mapping of a sheet: no name it does not know, nothing changed after reading."""

    model_config = ConfigDict(extra="forbid", frozen=True, populate_by_name=True)


class Item(Strict):
    """An item of a list, which may count for some answers only."""

    only: Only


class Keyed(Item):
    key: Key


class Named(Keyed):
    name: Text
