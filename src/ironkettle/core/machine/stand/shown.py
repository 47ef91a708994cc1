"""What a stand shows at one moment, read through its map."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass

from ironkettle.core.machine.stand.channels import Reads, StandChannel, StandMap, value_in


@dataclass(frozen=True, slots=True)
class Shown:
    """``values`` by channel key in base units [MPa gauge, °C, ml/min, mm, N], NaN where a channel shows nothing it can.

    ``held``: since the valve was shut [s], 0 while it is open, None where the stand does not tell; ``hold`` and ``reading``: the
    numbers of the hold and of this reading, None where it has none.
    """

    values: Mapping[str, float]
    held: float | None
    hold: int | None
    simulated: bool
    reading: int | None = None

    @property
    def shut(self) -> bool:
        """Whether the unit is shut off; a stand that does not tell is taken as it."""
        return self.held is None or self.held > 0


def shown_of(registers: Mapping[int, int], stand: StandMap) -> Shown:
    """What registers (by address, 0 to 65535 each) show. [base units]

    A value beyond what its channel can show is none. Source: the stand's register map.
    """
    read = {
        channel.key: value_in(
            [registers[channel.register_at + place] for place in range(channel.format.words)], channel
        )
        for channel in stand.channels
        if channel.reads is not Reads.TARGET
    }
    held, hold, simulated, reading = (
        stand.channel_of(reads) for reads in (Reads.HELD, Reads.HOLD, Reads.SIMULATED, Reads.READING)
    )
    values = {
        channel.key: channel.base(read[channel.key]) if _in_range(read[channel.key], channel) else math.nan
        for channel in stand.measured
    }
    seconds = None if held is None else read[held.key]
    number = None if hold is None else read[hold.key]
    return Shown(
        values,
        None if seconds is None else held.base(seconds) if held and math.isfinite(seconds) and seconds > 0 else 0.0,
        None if number is None else int(number) if math.isfinite(number) and 0 < number < 2**31 else 0,
        simulated is not None and read[simulated.key] > 0.5,
        None if reading is None else int(read[reading.key]) if 0 <= read[reading.key] < 2**32 else None,
    )


def kept_of(words: Mapping[int, int], at: int, stand: StandMap) -> Shown:
    """What a kept reading shows whose copy begins at a register, 0 or above. [base units]

    Source: the stand's register map, ``Numbered``.
    """
    span = stand.span
    return shown_of({span.first + place: words[at + place] for place in range(span.count)}, stand)


def _in_range(value: float, channel: StandChannel) -> bool:
    if not math.isfinite(value):
        return False
    return (channel.low is None or value >= channel.low) and (channel.high is None or value <= channel.high)
