"""Errors the rules raise; the API maps them to problem+json in one place."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class FieldFault:
    """What is wrong with one field: its path, a sentence, and what would fit."""

    field: str
    message: str
    accepts: tuple[str, ...] = ()

    def under(self, parent: str) -> FieldFault:
        """The same fault seen from one level up: ``groove`` + ``bore`` is ``groove.bore``."""
        return FieldFault(f"{parent}.{self.field}", self.message, self.accepts)


class RuleError(Exception):
    """Input the rules refuse. Carries every fault found, each naming its field."""

    title = "Some fields need correcting"

    def __init__(self, faults: Iterable[FieldFault], code: str = "invalid-input") -> None:
        self.faults, self.code = tuple(faults), code
        super().__init__("; ".join(f"{fault.field}: {fault.message}" for fault in self.faults))


class RefusedError(Exception):
    """An action the state of the job does not allow, with the reason and what to do instead."""

    def __init__(self, code: str, message: str) -> None:
        self.code = code
        super().__init__(message)


class NotAllowedError(Exception):
    """Something this person may not do, with who may."""

    def __init__(self, code: str, message: str) -> None:
        self.code = code
        super().__init__(message)


class DamagedEntryError(Exception):
    """A stored entry that cannot be read any more; the sentence goes behind "entry 12"."""


class UnconvergedError(Exception):
    """A solver that did not settle: iterations, last point and residual tell where."""

    def __init__(self, what: str, iterations: int, last: float, residual: float) -> None:
        self.what, self.iterations, self.last, self.residual = what, iterations, last, residual
        super().__init__(f"{what} did not settle in {iterations} rounds (last {last!r}, residual {residual!r})")


def fault(field_name: str, message: str, *accepts: str, code: str = "invalid-input") -> RuleError:
    """A RuleError with a single fault; ``code``: the type of problem, where scripts may rely on one of its own."""
    return RuleError([FieldFault(field_name, message, tuple(accepts))], code)
