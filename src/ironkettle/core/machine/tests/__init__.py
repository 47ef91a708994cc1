"""Kinds of test: each with its figures, what is read, its plan, its verdict with doubt, its words and its curve."""

from ironkettle.core.machine.tests.model import (
    BoundTest,
    Criteria,
    Curve,
    Instrument,
    InstrumentUsed,
    Outcome,
    Record,
    Result,
    Trial,
    TrialPlan,
    Verdict,
    Wanted,
)
from ironkettle.core.machine.tests.reading import (
    allowed,
    any_of,
    band_of,
    in_unit,
    instrument_of,
    interval_words,
    shown,
    within_words,
)
from ironkettle.core.machine.tests.registry import TRIALS

__all__ = [
    "TRIALS",
    "BoundTest",
    "Criteria",
    "Curve",
    "Instrument",
    "InstrumentUsed",
    "Outcome",
    "Record",
    "Result",
    "Trial",
    "TrialPlan",
    "Verdict",
    "Wanted",
    "allowed",
    "any_of",
    "band_of",
    "in_unit",
    "instrument_of",
    "interval_words",
    "shown",
    "within_words",
]
