"""Shapes shared by several endpoints."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from typing import Annotated, Any, Self

from pydantic import BaseModel, ConfigDict, Field, StringConstraints, model_validator

from ironkettle.core.base.errors import FieldFault, RuleError
from ironkettle.core.base.findings import Finding
from ironkettle.core.base.text import Plain, half_character_at
from ironkettle.core.sealing.grooves import Span
from ironkettle.core.sealing.rings import RingSize

QuantityText = Annotated[str, StringConstraints(min_length=1, max_length=60), Plain, Field(examples=["24.9 mm"])]
# A quantity of one kind: the schema names it as its format.
LengthText = Annotated[QuantityText, Field(json_schema_extra={"format": "length"})]
PressureText = Annotated[QuantityText, Field(json_schema_extra={"format": "pressure"})]
TorqueText = Annotated[QuantityText, Field(json_schema_extra={"format": "torque"})]
VolumeText = Annotated[QuantityText, Field(json_schema_extra={"format": "volume"})]
FlowText = Annotated[QuantityText, Field(json_schema_extra={"format": "flow"})]
ForceText = Annotated[QuantityText, Field(json_schema_extra={"format": "force"})]
SpeedText = Annotated[QuantityText, Field(json_schema_extra={"format": "speed"})]
TemperatureText = Annotated[QuantityText, Field(json_schema_extra={"format": "temperature"})]
NameText = Annotated[str, StringConstraints(min_length=1, max_length=80, strip_whitespace=True), Plain]


class Body(BaseModel):
    """A request body: unknown fields are refused."""

    model_config = ConfigDict(extra="forbid")

    @model_validator(mode="before")
    @classmethod
    def _is_text(cls, value: Any) -> Any:
        """Half a character (a lone surrogate) is no text: no database and no answer can hold it."""
        at = half_character_at(value)
        if at is not None:
            raise ValueError(f"{at or 'a name of a field'} contains half a character, which is not text")
        return value


class FindingOut(BaseModel):
    code: str
    severity: str
    message: str
    basis: str


def findings_out(findings: Iterable[Finding]) -> list[FindingOut]:
    return [FindingOut(code=f.code, severity=f.severity, message=f.message, basis=f.basis) for f in findings]


class SpanOut(BaseModel):
    min: float
    nominal: float
    max: float

    @classmethod
    def of(cls, span: Span) -> Self:
        return cls(min=span.min, nominal=span.nominal, max=span.max)


class SizeName(BaseModel):
    """The name of a ring size: series and designation."""

    series: str
    designation: str

    @classmethod
    def of(cls, size: RingSize) -> Self:
        return cls(series=size.series, designation=size.designation)


class SizeOut(SizeName):
    """A ring size with its tolerances as ±, and whether the diameter's is only an estimate."""

    inside_diameter_mm: float
    inside_diameter_tolerance_mm: float
    section_mm: float
    section_tolerance_mm: float
    tolerance_estimated: bool


def size_out(size: RingSize) -> dict[str, Any]:
    """The fields of ``SizeOut`` for a size."""
    return {
        "series": size.series,
        "designation": size.designation,
        "inside_diameter_mm": round(size.inside_diameter, 4),
        "inside_diameter_tolerance_mm": round(size.inside_tolerance, 4),
        "section_mm": round(size.section, 4),
        "section_tolerance_mm": round(size.section_tolerance, 4),
        "tolerance_estimated": size.tolerance_estimated,
    }


class Collector:
    """Reads several fields and raises all their faults together.

    ``get`` returns None for a field at fault; ``done`` must be called before the values are used.
    """

    def __init__(self) -> None:
        self._faults: list[FieldFault] = []

    def get(self, read: Callable[..., Any], text: Any, field: str, **limits: float) -> Any:
        if text is None:
            return None
        try:
            return read(text, field, **limits)
        except RuleError as error:
            self._faults.extend(error.faults)
            return None

    def require(self, present: bool, field: str, message: str, *accepts: str) -> None:
        if not present:
            self._faults.append(FieldFault(field, message, accepts))

    def done(self) -> None:
        if self._faults:
            raise RuleError(self._faults)
