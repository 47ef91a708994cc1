"""A test stand as the shop has it: what it reads, where its registers lie, and what its channels say of themselves."""

from ironkettle.core.machine.stand.beat import Beat
from ironkettle.core.machine.stand.channels import (
    SHIPPED,
    Block,
    Numbered,
    Reads,
    RegisterFormat,
    StandChannel,
    StandMap,
    blocks_of,
    encode,
    kept_blocks,
    value_in,
)
from ironkettle.core.machine.stand.recorded import (
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
from ironkettle.core.machine.stand.shown import Shown, kept_of, shown_of
from ironkettle.core.machine.stand.trouble import Trouble, Watch, took_none

__all__ = [
    "FIRST_CHUNK",
    "SHIPPED",
    "Beat",
    "Block",
    "Numbered",
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
    "kept_blocks",
    "kept_of",
    "read_rows",
    "rows_text",
    "shown_of",
    "took_none",
    "value_in",
]
