"""A test stand as the shop has it: what it reads, where its registers lie, and what its channels say of themselves."""

from ironkettle.core.stands.channels import (
    SHIPPED,
    Block,
    Reads,
    RegisterFormat,
    StandChannel,
    StandMap,
    blocks_of,
    encode,
    value_in,
)
from ironkettle.core.stands.recorded import (
    FIRST_CHUNK,
    RecordedChannel,
    RecordingPlan,
    RecordingState,
    Row,
    broken_at,
    chained,
    read_rows,
    rows_text,
)
from ironkettle.core.stands.shown import Shown, shown_of
from ironkettle.core.stands.trouble import Trouble, Watch

__all__ = [
    "FIRST_CHUNK",
    "SHIPPED",
    "Block",
    "Reads",
    "RecordedChannel",
    "RecordingPlan",
    "RecordingState",
    "RegisterFormat",
    "Row",
    "Shown",
    "StandChannel",
    "StandMap",
    "Trouble",
    "Watch",
    "blocks_of",
    "broken_at",
    "chained",
    "encode",
    "read_rows",
    "rows_text",
    "shown_of",
    "value_in",
]
