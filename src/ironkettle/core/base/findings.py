"""What a rule has to say about a result."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from enum import StrEnum


class Severity(StrEnum):
    INFO = "info"
    CAUTION = "caution"
    REJECT = "reject"


@dataclass(frozen=True, slots=True)
class Finding:
    """One statement with its weight and the rule or table it rests on."""

    code: str
    severity: Severity
    message: str
    basis: str


def info(code: str, message: str, basis: str) -> Finding:
    """Something to know. ``basis``: the rule or standard it is judged by."""
    return Finding(code, Severity.INFO, message, basis)


def caution(code: str, message: str, basis: str) -> Finding:
    """Something to take care of."""
    return Finding(code, Severity.CAUTION, message, basis)


def reject(code: str, message: str, basis: str) -> Finding:
    """Something that must not be so."""
    return Finding(code, Severity.REJECT, message, basis)


def verdict_of(findings: Iterable[Finding]) -> str:
    """``reject`` if anything rejects, else ``caution`` if anything cautions, else ``good``."""
    severities = {finding.severity for finding in findings}
    if Severity.REJECT in severities:
        return "reject"
    return "caution" if Severity.CAUTION in severities else "good"
