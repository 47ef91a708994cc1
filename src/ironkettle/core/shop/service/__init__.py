"""Looking after a unit: how often, what its counters ran, what is due when."""

from ironkettle.core.shop.service.code import Code, CodeKind, read_code
from ironkettle.core.shop.service.counters import (
    CounterRead,
    Lower,
    Total,
    check_reading,
    ran_by,
    rate_of,
    read_count,
    totals,
)
from ironkettle.core.shop.service.due import SOON_DAYS, STANDING_WORD, Due, Past, Reach, Standing, due_of, next_words
from ironkettle.core.shop.service.every import Every, EveryKind, read_every
from ironkettle.core.shop.service.imported import ImportedRead, read_counters
from ironkettle.core.shop.service.label import LETTERS, SHOP_LENGTH, label_of, number_of, read_label
from ironkettle.core.shop.service.serial import serial_key

__all__ = [
    "LETTERS",
    "SHOP_LENGTH",
    "SOON_DAYS",
    "STANDING_WORD",
    "Code",
    "CodeKind",
    "CounterRead",
    "Due",
    "Every",
    "EveryKind",
    "ImportedRead",
    "Lower",
    "Past",
    "Reach",
    "Standing",
    "Total",
    "check_reading",
    "due_of",
    "label_of",
    "next_words",
    "number_of",
    "ran_by",
    "rate_of",
    "read_code",
    "read_count",
    "read_counters",
    "read_every",
    "read_label",
    "serial_key",
    "totals",
]
