"""Shapes shared by several endpoints."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from typing import Annotated, Any, Self

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, StringConstraints

from ironkettle.core.errors import FieldFault, RuleError
from ironkettle.core.findings import Finding
from ironkettle.core.glands import Span


def _no_nul(text: str) -> str:
    if "\x00" in text:
        raise ValueError("holds a NUL character; plain text is wanted")
    return text


QuantityText = Annotated[
    str, StringConstraints(min_length=1, max_length=60), AfterValidator(_no_nul), Field(examples=["24.9 mm"])
]
NameText = Annotated[str, StringConstraints(min_length=1, max_length=80), AfterValidator(_no_nul)]
Finite = Annotated[float, Field(allow_inf_nan=False)]


class Body(BaseModel):
    """A request body: unknown fields are refused."""

    model_config = ConfigDict(extra="forbid")


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


class Collector:
    """Reads several fields and raises all their faults together.

    ``get`` returns None for a field at fault; ``done`` must be called before the values are used.
    """

    def __init__(self) -> None:
        self._faults: list[FieldFault] = []

    def get(self, read: Callable[..., Any], text: str | None, field: str, **limits: float) -> Any:
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
