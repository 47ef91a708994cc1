"""O-rings: sizes, the model of a used ring, and which size a measured ring is."""

from ironkettle.core.rings.condition import Condition
from ironkettle.core.rings.match import (
    DEFAULT_PRIOR,
    DEFAULT_UNCERTAINTY_MM,
    Candidate,
    GrooveEvidence,
    Match,
    Measurement,
    NextMeasurement,
    match_ring,
)
from ironkettle.core.rings.sizes import AS568, ISO_3601, JIS_B_2401, METRIC_STOCK, SERIES, RingSize, RingTable
from ironkettle.core.rings.stock import metric_stock

__all__ = [
    "AS568",
    "DEFAULT_PRIOR",
    "DEFAULT_UNCERTAINTY_MM",
    "ISO_3601",
    "JIS_B_2401",
    "METRIC_STOCK",
    "SERIES",
    "Candidate",
    "Condition",
    "GrooveEvidence",
    "Match",
    "Measurement",
    "NextMeasurement",
    "RingSize",
    "RingTable",
    "match_ring",
    "metric_stock",
]
