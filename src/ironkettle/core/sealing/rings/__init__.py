"""O-rings: sizes, the model of a used ring, and which size a measured ring is."""

from ironkettle.core.sealing.rings.advice import NextMeasurement
from ironkettle.core.sealing.rings.compare import Difference, compare_sizes
from ironkettle.core.sealing.rings.condition import Condition
from ironkettle.core.sealing.rings.match import DECIDED_AT, DEFAULT_PRIOR, Candidate, GrooveEvidence, Match, match_ring
from ironkettle.core.sealing.rings.measurement import (
    ACROSS,
    DEFAULT_UNCERTAINTY_MM,
    SOFT_SHARE,
    Further,
    Measurement,
    Read,
)
from ironkettle.core.sealing.rings.sizes import (
    AS568,
    ISO_3601,
    JIS_B_2401,
    METRIC_STOCK,
    SERIES,
    RingSize,
    RingTable,
    plain_designation,
)
from ironkettle.core.sealing.rings.stock import metric_stock

__all__ = [
    "ACROSS",
    "AS568",
    "DECIDED_AT",
    "DEFAULT_PRIOR",
    "DEFAULT_UNCERTAINTY_MM",
    "ISO_3601",
    "JIS_B_2401",
    "METRIC_STOCK",
    "SERIES",
    "SOFT_SHARE",
    "Candidate",
    "Condition",
    "Difference",
    "Further",
    "GrooveEvidence",
    "Match",
    "Measurement",
    "NextMeasurement",
    "Read",
    "RingSize",
    "RingTable",
    "compare_sizes",
    "match_ring",
    "metric_stock",
    "plain_designation",
]
