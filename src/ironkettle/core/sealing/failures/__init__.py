"""Why a seal failed: what is seen on it and the sums of its place, weighed against each cause."""

from ironkettle.core.sealing.failures.diagnose import Diagnosed, diagnose
from ironkettle.core.sealing.failures.evidence import Circumstances, Faced
from ironkettle.core.sealing.failures.model import Cause, CauseFacts, Correction, FailureTable, Sign, SignFacts, Weight

__all__ = [
    "Cause",
    "CauseFacts",
    "Circumstances",
    "Correction",
    "Diagnosed",
    "Faced",
    "FailureTable",
    "Sign",
    "SignFacts",
    "Weight",
    "diagnose",
]
